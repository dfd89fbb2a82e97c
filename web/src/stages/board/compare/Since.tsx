import { few } from "@kobbin/core";
import { useRevision } from "../../../resources/bench.ts";
import { useRun } from "../../../run/runState.ts";
import { useOtherRevisions } from "../../../run/useOtherRevisions.ts";
import type { BoardView } from "../useBoardView.ts";
import { type Measured, useComparison } from "./useComparison.ts";
import { layerWords, partGroups, stencilWords } from "./words.ts";

/** What changed since the revision before, worked out without being asked: one sentence that opens the comparison. */
export function Since({ view: v }: { view: BoardView }) {
  const { answer } = useRun();
  const others = useOtherRevisions();
  const before = others.filter((r) => r.isBefore).at(-1);
  const { data } = useRevision(before?.id);
  const was = data?.boards[v.index];
  if (!before || !was || answer.state !== "open") return null;
  return <Line view={v} was={was} label={before.label} onOpen={() => v.set({ against: before.id })} />;
}

function Line({
  view: v,
  was,
  label,
  onOpen,
}: {
  view: BoardView;
  was: Measured;
  label: string;
  onOpen: () => void;
}) {
  const { id, measure } = { id: v.boardId, measure: v.board.measure };
  const { found } = useComparison({ id, measure }, was);
  if (!found) return null;
  const { diff, parts } = found;
  const says =
    diff.changed.length === 0
      ? "no layer differs"
      : [
          `${few(diff.changed.map(layerWords), 4)} changed`,
          ...partGroups(parts)
            .slice(0, 2)
            .map(
              (g) =>
                `${few(
                  g.parts.map((p) => p.ref),
                  4,
                )} ${g.words}`,
            ),
          ...Object.entries(diff.stencil).map(([side, s]) => `the stencil ${side} ${stencilWords(s)}`),
        ].join("; ");
  return (
    <p className="mt-2 max-w-[92ch] text-[14.5px]">
      <b>Since {label}:</b> {says}.{" "}
      <button type="button" className="quiet-link" onClick={onOpen}>
        compare
      </button>
    </p>
  );
}
