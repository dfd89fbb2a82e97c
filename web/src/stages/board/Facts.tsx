import type { Measure } from "@kobbin/core";
import { boardColours } from "../../proof/colours.ts";
import { useRun } from "../../run/runState.ts";
import { saveFile } from "../../ui/saveFile.ts";
import { count, fixed } from "../../ui/text/format.ts";
import { useSayError } from "../../ui/toast/Toast.tsx";
import type { BoardConnection } from "../../workers/board.ts";

/** What the board consists of, in one sentence. */
export function Facts({ measure: m }: { measure: Measure }) {
  return (
    <p className="mt-3 text-[14px] text-ink-2">
      {m.outline?.areaMm2 !== undefined && `${fixed(m.outline.areaMm2, 1)} mm² of board; `}
      {count(m.nets?.count ?? 0, "net")}, {count(m.viaPads, "via")}, {count(m.throughHolePads, "pad")} with a
      hole, {sumOf(m.smdPads)} without
      {sumOf(m.fiducials) > 0 && `, ${count(sumOf(m.fiducials), "fiducial")}`}
      {sumOf(m.testPads) > 0 && `, ${count(sumOf(m.testPads), "test pad")}`}
      {(m.toolingHoles ?? 0) > 0 && `, ${count(m.toolingHoles!, "unplated hole")} of a millimetre and more`}
      {m.massG !== undefined && `; ${fixed(m.massG, 1)} g bare`}
      {m.stencil?.top && `, ${grams(m.stencil.top.pasteGrams["0.12"]!)} of paste through 0.12 mm`}.
    </p>
  );
}

/** The side that is up, as a file for documents. */
export function ForDocuments({
  board,
  side,
  name,
}: {
  board: BoardConnection;
  side: "top" | "bottom";
  name: string;
}) {
  const { result } = useRun();
  const sayError = useSayError();
  const { mask = "green", finish = "", legend = "white" } = result.options ?? {};
  const save = (kind: "svg" | "png") =>
    board
      .picture(side, kind, boardColours(mask, finish, legend))
      .then(
        (blob) => blob && saveFile(blob, `${name}-${side}.${kind}`.toLowerCase().replaceAll(" ", "-")),
        sayError,
      );
  return (
    <p className="mt-1 mb-3 flex flex-wrap gap-x-4 text-[14px] text-ink-2">
      {side} side for documents:
      <button type="button" className="quiet-link" onClick={() => save("svg")}>
        drawing (SVG)
      </button>
      <button type="button" className="quiet-link" onClick={() => save("png")}>
        picture (PNG)
      </button>
    </p>
  );
}

/** To a hundredth; what is less is not nothing. */
const grams = (g: number) => (g > 0 && g < 0.005 ? "less than 0.01 g" : `${fixed(g, 2)} g`);

const sumOf = (counts: Readonly<Record<string, number>> | undefined) =>
  Object.values(counts ?? {}).reduce((a, b) => a + b, 0);
