import type { RunPhoto } from "@kobbin/core";
import { type ClipboardEvent, type DragEvent, useState } from "react";
import { count } from "../ui/text/format.ts";
import { PhotoView } from "./PhotoView.tsx";
import { photoSrc } from "./photo.ts";
import { Take } from "./Take.tsx";
import { type PhotoOf, useAddPhotos } from "./useAddPhotos.ts";

const picturesOf = (from: DataTransfer | null): File[] =>
  [...(from?.files ?? [])].filter((f) => f.type.startsWith("image/"));

/**
 * Photos of one thing in a row, each opens large; taken with the camera, chosen, dropped or pasted.
 *
 * @param what they show, as in "a photo of …"
 */
export function Photos({
  of,
  what,
  list,
  mayAdd,
  isShort = false,
}: {
  of: PhotoOf;
  what: string;
  list: readonly RunPhoto[];
  mayAdd: boolean;
  /** In a row of a table: one word for the button, pictures small. */
  isShort?: boolean;
}) {
  const { add, left } = useAddPhotos();
  const [open, setOpen] = useState<string>();
  if (list.length === 0 && !mayAdd) return null;
  const taken = (from: DataTransfer | null, e: { preventDefault: () => void }) => {
    const files = picturesOf(from);
    if (files.length === 0) return;
    e.preventDefault();
    void add(files, of, what);
  };
  const side = isShort ? "h-[38px]" : "h-[72px]";
  return (
    // biome-ignore lint/a11y/noStaticElementInteractions: pictures may be dropped or pasted; the button does the same for keyboard and touch
    <div
      className="flex flex-wrap items-center gap-2"
      onDragOver={(e: DragEvent) => mayAdd && e.preventDefault()}
      onDrop={(e: DragEvent) => mayAdd && taken(e.dataTransfer, e)}
      onPaste={(e: ClipboardEvent) => mayAdd && taken(e.clipboardData, e)}
    >
      {list.map((p, i) => (
        <button
          key={p.id}
          type="button"
          aria-label={`Photo ${i + 1} of ${what}${p.note ? `: ${p.note}` : ""}`}
          onClick={() => setOpen(p.id)}
          className="border border-rule bg-sheet p-[2px] hover:border-metal"
        >
          <img
            src={photoSrc(p)}
            alt=""
            width={p.widthPx}
            height={p.heightPx}
            loading="lazy"
            className={`${side} w-auto`}
          />
        </button>
      ))}
      {mayAdd && <Take what={what} isShort={isShort} onTaken={(files) => void add(files, of, what)} />}
      {left > 0 && (
        <span className="text-[13.5px] text-ink-2" role="status">
          {count(left, "photo is", "photos are")} being kept
        </span>
      )}
      {open !== undefined && (
        <PhotoView list={list} at={open} what={what} mayChange={mayAdd} onAt={setOpen} />
      )}
    </div>
  );
}
