import { type RefObject, useState } from "react";
import { storedBoard } from "../../proof/useBoardWorker.ts";
import { useRun } from "../../run/runState.ts";
import { Fold } from "../../ui/Fold.tsx";
import { fileWord, saveFile } from "../../ui/saveFile.ts";
import type { PanelConnection } from "../../workers/panel.ts";
import type { AidKind } from "../../workers/panel.worker.ts";

const AIDS: readonly (readonly [AidKind, string, string])[] = [
  ["nest", "nest for printing", "a frame with the board's own pocket, to be printed or cut"],
  ["corners", "corners for printing", "four pieces in the place of a frame, for a board with square corners"],
  ["sisters", "boards around the board", "four spare ones taped down, where there is no printer"],
  ["tray-top", "map of the parts, top", "each part on its place, and what to fill in by value"],
  ["tray-bottom", "map of the parts, bottom", "as it is seen from below"],
  [
    "drill",
    "template for drilling and cutting",
    "a cross for every hole with its drill, and the line to saw",
  ],
  ["sheet", "drawing of the sheet", "with its sizes and the order of parting"],
];

const WHY_NOT: Partial<Record<AidKind, string>> = {
  corners:
    "That cannot be drawn: a corner of the board is no right angle. Take the nest, or boards around it.",
  "tray-top": "That cannot be drawn: no part has a place there.",
  "tray-bottom": "That cannot be drawn: no part has a place there.",
  drill:
    "That is not drawn: more holes or more sizes than a paper can guide. A house or a machine drills them.",
};

/** Drawings one to one for the bench, made from the board's outline. */
export function Aids({ worker }: { worker: RefObject<PanelConnection | undefined> }) {
  const { doc, answer } = useRun();
  const [said, setSaid] = useState("");
  const sides = new Set(doc.placements.map((p) => p.side));
  const list = AIDS.filter(
    ([k]) =>
      (k !== "tray-top" || sides.has("top")) &&
      (k !== "tray-bottom" || sides.has("bottom")) &&
      (k !== "sheet" || doc.choices.panel),
  );
  const make = async (kind: AidKind, board: number, as: "pdf" | "svg") => {
    const stored = kind === "drill" ? await storedBoard(answer.boardIds[board]!) : undefined;
    const bytes = await worker.current?.aid(doc, kind, board, as, new Date().toISOString(), stored);
    if (!bytes) {
      setSaid(WHY_NOT[kind] ?? "That cannot be drawn: the outline does not close.");
      return;
    }
    setSaid("");
    const type = as === "pdf" ? "application/pdf" : "image/svg+xml";
    saveFile(
      new Blob([bytes as Uint8Array<ArrayBuffer>], { type }),
      `${fileWord(doc.boards[board]!.name)}-${kind}.${as}`,
    );
  };
  return (
    <div className="mt-6">
      <Fold
        id="aids"
        title="For the bench, one to one"
        verdict="nest, maps of the parts, drawings; each with a bar that checks the printer"
      >
        <table className="rows w-full text-[14px]">
          <tbody>
            {doc.boards.flatMap((b, i) =>
              list
                .filter(([k]) => k !== "sheet" || i === 0)
                .map(([kind, label, words]) => (
                  <tr key={`${b.name} ${kind}`}>
                    <td>
                      {label}
                      {doc.boards.length > 1 && kind !== "sheet" ? ` of ${b.name}` : ""}
                      <span className="block text-[13px] text-ink-2">{words}</span>
                    </td>
                    <td className="text-right whitespace-nowrap">
                      <button
                        type="button"
                        className="quiet-link"
                        onClick={() => make(kind, i, "pdf")}
                        aria-label={`${label} as PDF`}
                      >
                        PDF
                      </button>{" "}
                      <button
                        type="button"
                        className="quiet-link ml-3"
                        onClick={() => make(kind, i, "svg")}
                        aria-label={`${label} as SVG`}
                      >
                        SVG
                      </button>
                    </td>
                  </tr>
                )),
            )}
          </tbody>
        </table>
        <p className="mt-2 text-[13px] text-ink-2" aria-live="polite">
          {said}
        </p>
      </Fold>
    </div>
  );
}
