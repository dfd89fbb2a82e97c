import type { RunPhoto } from "@kobbin/core";
import { type KeyboardEvent, useEffect } from "react";
import { removePhoto, savePhoto } from "../resources/record.ts";
import { useRun } from "../run/runState.ts";
import { Button } from "../ui/Button.tsx";
import { Dialog } from "../ui/Dialog.tsx";
import { Kept } from "../ui/Kept.tsx";
import { useSayError } from "../ui/toast/Toast.tsx";
import { photoSrc, takenBy } from "./photo.ts";

/** One photo, large: what it shows, who took it; arrows go to the next. */
export function PhotoView({
  list,
  at,
  what,
  mayChange,
  onAt,
}: {
  list: readonly RunPhoto[];
  at: string;
  what: string;
  mayChange: boolean;
  /** Another one is looked at, or none. */
  onAt: (id: string | undefined) => void;
}) {
  const { id, did } = useRun();
  const sayError = useSayError();
  const n = list.findIndex((p) => p.id === at);
  const p = list[n];
  const isGone = p === undefined;
  // somebody else removed it meanwhile
  useEffect(() => {
    if (isGone) onAt(undefined);
  }, [isGone, onAt]);
  if (!p) return null;
  const go = (by: number) => onAt(list[(n + by + list.length) % list.length]!.id);
  const remove = () => {
    const gone = removePhoto(id, p.id);
    gone.catch(sayError);
    did(`A photo of ${what} is removed`, gone);
    onAt(list.length > 1 ? list[n === 0 ? 1 : n - 1]!.id : undefined);
  };
  return (
    <Dialog
      open
      wide
      title={p.note || `Photo ${n + 1} of ${what}`}
      about={takenBy(p)}
      onClose={() => onAt(undefined)}
    >
      {/* biome-ignore lint/a11y/noStaticElementInteractions: arrows do what the two buttons do */}
      <div
        onKeyDown={(e: KeyboardEvent) => {
          if (e.target instanceof HTMLInputElement || list.length < 2) return;
          if (e.key === "ArrowRight") go(1);
          else if (e.key === "ArrowLeft") go(-1);
          else return;
          e.preventDefault();
        }}
      >
        <img
          src={photoSrc(p)}
          alt={p.note || `Photo ${n + 1} of ${what}`}
          width={p.widthPx}
          height={p.heightPx}
          className="mx-auto max-h-[60vh] w-auto max-w-full border border-rule"
        />
        <div className="mt-3 flex flex-wrap items-end gap-3">
          {list.length > 1 && (
            <>
              <Button onClick={() => go(-1)}>before</Button>
              <Button onClick={() => go(1)}>next</Button>
            </>
          )}
          {mayChange && (
            <Kept
              label="What it shows"
              className="min-w-[220px] flex-1"
              maxLength={300}
              value={p.note}
              onSave={(note) => {
                savePhoto(id, p.id, { note }).catch(sayError);
              }}
            />
          )}
          {mayChange && (
            <button type="button" className="quiet-link min-h-11" onClick={remove}>
              remove it
            </button>
          )}
        </div>
      </div>
    </Dialog>
  );
}
