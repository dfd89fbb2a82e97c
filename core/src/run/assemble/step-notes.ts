import { numberKey } from "../../bom/number.ts";
import { partsByNumber } from "../../library/candidates.ts";
import { conflictsIn } from "../../steps/order.ts";
import { heatNeeds } from "../document/bill/as-made.ts";
import type { RunDocument } from "../document/document.ts";
import type { Add } from "../document/note.ts";
import type { LinePart } from "../document/parts.ts";
import type { Worked } from "../stage/stage.ts";
import { workOf } from "./work.ts";

/** Rules of the order of work that cannot all hold, and what is soldered by hand because its body does not stand the heat. */
export function stepNotes(w: Worked, add: Add): void {
  tooHotNotes(w.doc, w.parts, add);
  if (!canConflict(w.doc, w.sides.both.length > 0)) return;
  for (const c of conflictsIn(workOf(w.doc, w)))
    add("assemble", `order ${c.kind} ${c.refs.join(" ")}`, "error", c.text, {
      do:
        c.remedies.map((r) => r.words).join(" Or: ") ||
        "Nothing that was tried frees it: change the design, or accept it and say how it will be done.",
      lines: w.parts.filter((p) => p.line.refs.some((r) => c.refs.includes(r))).map((p) => p.line.id),
    });
}

/** Whether anything is known that rules could be broken by: most runs have nothing of it. */
function canConflict(doc: RunDocument, isTwoSided: boolean): boolean {
  const { assembly, library = [] } = doc;
  return (
    isTwoSided ||
    Object.keys(assembly.covers ?? {}).length > 0 ||
    library.some((p) => p.covers?.length || p.opensOnce || p.fitAfter !== undefined || p.peakC !== undefined)
  );
}

function tooHotNotes(doc: RunDocument, parts: readonly LinePart[], add: Add): void {
  if (doc.assembly.method === "iron" || !doc.library?.some((p) => p.peakC !== undefined)) return;
  const known = partsByNumber(doc.library);
  const needs = heatNeeds(doc);
  for (const p of parts) {
    const part = p.line.mpn === "" ? undefined : known.get(numberKey(p.line.mpn));
    if (part?.peakC === undefined || part.peakC >= needs || p.method !== "iron" || p.kind === "through")
      continue;
    add(
      "assemble",
      `by-hand-for-heat ${p.line.id}`,
      "remark",
      `${p.line.refs.join(" ")} is soldered by hand after the heat: its body stands ${part.peakC} °C, the paste's heat needs ${needs} °C.`,
      { lines: [p.line.id] },
    );
  }
}
