import { useMemo } from "react";
import { Proof } from "../../../proof/Proof.tsx";
import { useRun } from "../../../run/runState.ts";
import { fixed, mm } from "../../../ui/text/format.ts";
import type { BoardConnection } from "../../../workers/board.ts";
import type { BoardView } from "../useBoardView.ts";
import { type Draft, featuresFor } from "./draft.ts";

const WITHOUT: Readonly<Partial<Record<Draft["kind"], string>>> = {
  slot: "slot",
  pattern: "hole of 1.5 mm and more",
  pin: "plated hole for a pin",
};

/** The board's own side of a row: picked on the picture, or from the list beside it; or what is measured anyway. */
export function Picked({
  view: v,
  board,
  draft,
  onPick,
  onSpot,
}: {
  view: BoardView;
  board: BoardConnection | undefined;
  draft: Draft;
  onPick: (picked: readonly number[]) => void;
  onSpot: (at: readonly [number, number]) => void;
}) {
  const { result, doc } = useRun();
  const m = v.board.measure;
  const features = useMemo(() => featuresFor(m, draft.kind), [m, draft.kind]);
  const isOne = draft.kind === "slot" || draft.kind === "pin";
  const toggle = (i: number) =>
    onPick(
      draft.picked.includes(i) ? draft.picked.filter((k) => k !== i) : isOne ? [i] : [...draft.picked, i],
    );
  const { mask = "green", finish = "", legend = "white" } = result.options ?? {};
  const marks = features.map((f, i) => ({
    number: i + 1,
    x: f.x,
    y: f.y,
    level: draft.picked.includes(i) ? ("warning" as const) : ("remark" as const),
    text: draft.picked.includes(i) ? "picked" : "not picked",
  }));
  type Shown = Pick<Parameters<typeof Proof>[0], "side" | "marks" | "onMark" | "onPick" | "places" | "label">;
  const picture = (shown: Shown) =>
    board &&
    m.extentMm && (
      <Proof
        board={board}
        box={m.extentMm}
        isSized={undefined}
        mask={mask}
        finish={finish}
        legend={legend}
        height={270}
        {...shown}
      />
    );
  if (draft.kind === "edge" || draft.kind === "stack")
    return (
      <p className="text-[14.5px] text-ink-2">
        The board's thickness is the one chosen at Fab:{" "}
        <b className="num text-ink">{result.options ? `${result.options.thickness} mm` : "none yet"}</b>. It
        is judged again when another is chosen.
      </p>
    );
  if (draft.kind === "intended")
    return (
      <div>
        {picture({
          side: draft.overSide,
          onPick: (x, y) => onSpot([x, y]),
          places: draft.spot ? [{ x: draft.spot[0], y: draft.spot[1] }] : [],
          label: "Pick the place",
        })}
        <p className="mt-2 text-[14.5px] text-ink-2">
          {draft.spot ? (
            <>
              Picked:{" "}
              <b className="num text-ink">
                {fixed(draft.spot[0], 2)} / {fixed(draft.spot[1], 2)}
              </b>
            </>
          ) : (
            "Press the place; near a pad or a hole its middle is meant."
          )}
        </p>
      </div>
    );
  if (draft.kind === "lid" || draft.kind === "facing")
    return (
      <p className="text-[14.5px] text-ink-2">
        What stands on the board is counted with the heights of the library’s parts, of their packages’ names,
        or those usual for them; a part of no known height is named.
        {draft.kind === "facing" && doc.boards.length < 2 && (
          <b className="block text-look">The product has no other board.</b>
        )}
      </p>
    );
  if (draft.kind === "contacts") {
    const row = m.edgeContacts?.[draft.edgeSide];
    return (
      <p className="text-[14.5px] text-ink-2">
        {row ? (
          <>
            The contacts are measured:{" "}
            <b className="num text-ink">
              {row.count} of {mm(row.widthMm)} at {mm(row.pitchMm)} mm
            </b>
            {row.tabMm !== undefined && (
              <>
                {" "}
                on a tab of <b className="num text-ink">{mm(row.tabMm)} mm</b>
              </>
            )}
            .
          </>
        ) : (
          `No edge contacts are found on the ${draft.edgeSide}.`
        )}
      </p>
    );
  }
  if (draft.kind === "outline")
    return (
      <p className="text-[14.5px] text-ink-2">
        The board is measured:{" "}
        <b className="num text-ink">
          {m.outline?.widthMm === undefined
            ? "its outline is open"
            : `${mm(m.outline.widthMm)} × ${mm(m.outline.heightMm)} mm`}
        </b>
        .
      </p>
    );
  return (
    <div>
      {picture({
        side: "top",
        marks,
        onMark: (n) => toggle(n - 1),
        label: draft.kind === "slot" ? "Pick the slot" : "Pick the holes",
      })}
      <fieldset className="mt-2 flex flex-wrap gap-x-4 gap-y-1 text-[14.5px]">
        <legend className="sr-only">{draft.kind === "slot" ? "The slot" : "The holes"}</legend>
        {features.length === 0 && <p className="text-look">The board has no {WITHOUT[draft.kind]}.</p>}
        {features.map((f, i) => (
          <label key={`${f.x} ${f.y}`} className="flex min-h-6 items-center gap-1">
            <input
              type={isOne ? "radio" : "checkbox"}
              name="picked"
              checked={draft.picked.includes(i)}
              onChange={() => toggle(i)}
            />
            <span className="num">
              {i + 1}: {f.kind === "hole" ? mm(f.diameterMm) : `${mm(f.widthMm)} × ${mm(f.lengthMm)}`} at{" "}
              {fixed(f.x, 1)} / {fixed(f.y, 1)}
            </span>
          </label>
        ))}
      </fieldset>
    </div>
  );
}
