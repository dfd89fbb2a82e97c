import type { House } from "../../fab/house.ts";
import { BENCH_CAUTIONS } from "../../own-bench/recipe.ts";
import { aboutBoard, boardMark } from "../document/boards.ts";
import type { RunDocument } from "../document/document.ts";
import type { Add } from "../document/note.ts";

/** What a board made at one's own bench lacks, and what to mind while it is made. */
export function benchNotes(doc: RunDocument, house: House, add: Add): void {
  if (!house.bench) return;
  for (const b of doc.boards) {
    const plated = b.measure.holes.reduce((n, h) => n + (h.plated ? h.count : 0), 0);
    if (plated > 0 && b.measure.copperLayers > 1)
      add(
        "fab",
        `bench-links${boardMark(doc, b.id)}`,
        "warning",
        `Nothing is plated here: ${plated} holes${doc.boards.length > 1 ? ` of ${b.name}` : ""} join the sides only where a pin or a wire is soldered on both.`,
        { do: "See the list of wires in the recipe, or order the board.", ...aboutBoard(doc, b.id) },
      );
  }
  for (const [step, text] of Object.entries(BENCH_CAUTIONS))
    add("fab", `safety-bench-${step}`, "remark", text);
}
