import { type RefObject, useState } from "react";
import { useRun } from "../../run/runState.ts";
import { Fold } from "../../ui/Fold.tsx";
import { fileWord, saveFile } from "../../ui/saveFile.ts";
import type { PanelConnection } from "../../workers/panel.ts";
import type { AidKind } from "../../workers/panel.worker.ts";

const AIDS: readonly (readonly [AidKind, string, string])[] = [
  ["nest", "nest for printing", "a frame with the board's own pocket, to be printed or cut"],
  ["sisters", "boards around the board", "four spare ones taped down, where there is no printer"],
  ["tray-top", "map of the parts, top", "each part on its place, and what to fill in by value"],
  ["tray-bottom", "map of the parts, bottom", "as it is seen from below"],
  ["sheet", "drawing of the sheet", "with its sizes and the order of parting"],
];

/** Drawings one to one for the bench, made from the board's outline. */
export function Aids({ worker }: { worker: RefObject<PanelConnection | undefined> }) {
  const { doc } = useRun();
  const [said, setSaid] = useState("");
  const sides = new Set(doc.placements.map((p) => p.side));
  const list = AIDS.filter(
    ([k]) =>
      (k !== "tray-top" || sides.has("top")) &&
      (k !== "tray-bottom" || sides.has("bottom")) &&
      (k !== "sheet" || doc.choices.panel),
  );
  const make = async (kind: AidKind, board: number, as: "pdf" | "svg") => {
    const bytes = await worker.current?.aid(doc, kind, board, as, new Date().toISOString());
    if (!bytes) {
      setSaid("That cannot be drawn: the outline does not close, or no part has a place there.");
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
