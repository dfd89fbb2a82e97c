import type { BoardDiff } from "@kobbin/core";
import { useEffect, useState } from "react";
import type { Show } from "../../proof/Details.tsx";
import { storedBoard } from "../../proof/useBoardWorker.ts";
import { useRevision } from "../../resources/bench.ts";
import { fixed, mm } from "../../ui/format.ts";
import { Failed, Skeleton } from "../../ui/States.tsx";
import { compareBoards } from "../../workers/board.ts";

/** "copper-inner-1" → "copper inner 1", "legend-top" → "silkscreen top". */
const named = (key: string) => key.replace(/^legend/, "silkscreen").replaceAll("-", " ");

/** This board against the same one of another revision: changed layers with their places, and whether stencils serve again. */
export function AgainstBoard({
  revisionId,
  revision,
  boardId,
  index,
  onShow,
  onClose,
}: {
  revisionId: string;
  /** This revision's name. */
  revision: string;
  boardId: string;
  index: number;
  onShow: Show;
  onClose: () => void;
}) {
  const { data: other, error: notFound } = useRevision(revisionId);
  const [found, setFound] = useState<{
    readonly of: string;
    readonly diff?: BoardDiff;
    readonly error?: unknown;
  }>();
  const otherBoard = other?.boards[index]?.id;
  const of = `${boardId} ${otherBoard}`;
  useEffect(() => {
    if (!otherBoard) return;
    let isCurrent = true;
    Promise.all([storedBoard(boardId), storedBoard(otherBoard)])
      .then(([a, b]) => compareBoards(a, b))
      .then((diff) => {
        if (isCurrent)
          setFound("kind" in diff ? { of, error: { message: diff.message, hint: "" } } : { of, diff });
      })
      .catch((error) => isCurrent && setFound({ of, error }));
    return () => {
      isCurrent = false;
    };
  }, [boardId, otherBoard, of]);
  if (notFound) return <Failed error={notFound} />;
  if (!other) return <Skeleton rows={2} />;
  const state = found?.of === of ? found : undefined;
  return (
    <section
      aria-label={`Against revision ${other.label}`}
      className="mt-3 border-l-[3px] border-metal bg-sheet px-4 py-2 text-[14px]"
    >
      <div className="flex items-baseline justify-between gap-4">
        <h2 className="text-[15px]">
          Revision {revision} against {other.label}
        </h2>
        <button type="button" className="quiet-link" onClick={onClose}>
          close
        </button>
      </div>
      {!otherBoard ? (
        <p className="text-ink-2">Revision {other.label} has no such board.</p>
      ) : state?.error ? (
        <Failed error={state.error} />
      ) : !state?.diff ? (
        <p role="status" className="text-ink-2">
          comparing layer by layer
        </p>
      ) : (
        <Differences diff={state.diff} onShow={onShow} />
      )}
    </section>
  );
}

function Differences({ diff, onShow }: { diff: BoardDiff; onShow: Show }) {
  const stencils = Object.entries(diff.stencilReusable);
  return (
    <>
      {diff.changed.length === 0 ? (
        <p>No layer differs by more than 5 µm.</p>
      ) : (
        <dl className="mt-1 grid grid-cols-[minmax(150px,auto)_1fr]">
          {diff.changed.map((key) => {
            const places = diff.places[key] ?? [];
            const layer = /bottom/.test(key) ? "bottom" : "top";
            return (
              <div key={key} className="contents">
                <dt className="border-t border-rule py-[5px] pr-4">{named(key)}</dt>
                <dd className="flex flex-wrap gap-x-4 border-t border-rule py-[5px]">
                  {places.length === 0 ? (
                    <span className="text-ink-2">only one of the two has it, or it cannot be compared</span>
                  ) : (
                    places.map((p, i) => (
                      <button
                        key={`${p.x} ${p.y}`}
                        type="button"
                        className="why num"
                        aria-label={`${named(key)}, difference ${i + 1} of ${places.length}, ${mm(Math.max(p.widthMm, p.heightMm))} mm, show on the picture`}
                        onClick={() => onShow({ layer, x: p.x, y: p.y }, `${key} ${i}`)}
                      >
                        {fixed(p.x, 1)} / {fixed(p.y, 1)}
                      </button>
                    ))
                  )}
                </dd>
              </div>
            );
          })}
        </dl>
      )}
      <p className="mt-1 text-ink-2">
        {diff.unchanged.length > 0 && `Unchanged: ${diff.unchanged.map(named).join(", ")}. `}
        {stencils.length > 0 &&
          `${stencils.map(([side, is]) => `The stencil of the ${side} ${is ? "can be used again" : "is needed anew"}`).join(". ")}.`}
      </p>
    </>
  );
}
