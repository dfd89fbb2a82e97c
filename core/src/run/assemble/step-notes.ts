import { numberKey } from "../../bom/number.ts";
import { ALLOY_WORDS } from "../../heat/window.ts";
import { partsByNumber } from "../../library/candidates.ts";
import { conflictsIn } from "../../steps/order.ts";
import type { Work } from "../../steps/step.ts";
import { heatNeeds } from "../document/bill/as-made.ts";
import type { RunDocument } from "../document/document.ts";
import type { Add } from "../document/note.ts";
import type { LinePart } from "../document/parts.ts";
import { isMixed, mayHeat } from "../document/ways.ts";
import { programNotes } from "../program/notes.ts";
import type { Worked } from "../stage/stage.ts";
import { consumableTroubles } from "./consumables.ts";
import { materialNotes } from "./material.ts";
import { equipmentTroubles, handTroubles } from "./tools.ts";
import { workOf } from "./work.ts";

/** Rules of the order of work that cannot all hold, and what is soldered by hand because its body does not stand the heat. */
export function stepNotes(w: Worked, add: Add): void {
  tooHotNotes(w.doc, w.parts, add);
  materialNotes(w.doc, w.parts, w.options?.finish, add);
  unknownPlaces(w.doc, add);
  programNotes(w.doc, add);
  const hasEquipment = (w.doc.equipment ?? []).length > 0;
  const canBreak = canConflict(w.doc, w.sides.all.both.length > 0);
  let made: Work | undefined;
  const given = () => {
    made ??= workOf(w.doc, w);
    return made;
  };
  if (hasEquipment)
    for (const t of [
      ...equipmentTroubles(w, given),
      ...handTroubles(w.doc, w.parts),
      ...consumableTroubles(w.doc, w),
    ])
      add("assemble", t.key, "warning", t.text, { do: t.do });
  if (!canBreak) return;
  const work = given();
  for (const c of conflictsIn(work)) {
    const lines = new Set(work.parts.filter((p) => c.refs.includes(p.name)).map((p) => p.line));
    // a plate is in conflict with a whole side: its first part stands for it
    const about = c.kind === "plate" || c.kind === "printed-over" ? c.refs.slice(0, 1) : c.refs;
    add("assemble", `order ${c.kind} ${about.join(" ")}`, "error", c.text, {
      do:
        c.remedies.map((r) => r.words).join(" Or: ") ||
        "Nothing that was tried frees it: change the design, or accept it and say how it will be done.",
      lines: [...lines],
    });
  }
}

/** Whether anything is known that rules could be broken by: most runs have nothing of it. */
function canConflict(doc: RunDocument, isTwoSided: boolean): boolean {
  const { assembly, choices, library = [] } = doc;
  return (
    isTwoSided ||
    isMixed(doc) ||
    (choices.steps?.afterTest ?? []).length > 0 ||
    Object.keys(assembly.covers ?? {}).length > 0 ||
    library.some((p) => p.covers?.length || p.opensOnce || p.fitAfter !== undefined || p.peakC !== undefined)
  );
}

function tooHotNotes(doc: RunDocument, parts: readonly LinePart[], add: Add): void {
  if (!mayHeat(doc) || !doc.library?.some((p) => p.peakC !== undefined)) return;
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
      `${p.line.refs.join(", ")} ${p.line.refs.length === 1 ? "is" : "are"} soldered by hand after the heat: the body stands ${part.peakC} °C, the heat of ${ALLOY_WORDS[doc.assembly.alloy ?? "silver"]}${doc.assembly.alloy ? "" : ", which is taken for granted,"} needs ${needs} °C.`,
      { lines: [p.line.id] },
    );
  }
}

/** What is named for programming, testing or as hidden, and neither the bill nor the boards' files have: a slip, as a rule. */
function unknownPlaces(doc: RunDocument, add: Add): void {
  const { programAt = [], testAt = [], programLoose = [], covers = {} } = doc.assembly;
  const named = new Set([...programAt, ...testAt, ...programLoose, ...Object.values(covers).flat()]);
  if (named.size === 0) return;
  const known = new Set([
    ...doc.lines.flatMap((l) => l.refs),
    ...doc.placements.map((p) => p.ref),
    ...doc.boards.flatMap((b) =>
      (b.measure.nets?.islands ?? []).flatMap((n) => n.pads.flatMap((p) => p.pin?.split(".")[0] ?? [])),
    ),
  ]);
  const unknown = [...named].filter((ref) => !known.has(ref.split(" of ")[0]!));
  if (unknown.length > 0)
    add(
      "assemble",
      `order-unknown ${unknown.join(" ")}`.slice(0, 200),
      "warning",
      `The order of work names ${unknown.join(", ")}, which neither the bill nor the boards' files have: nothing can be said of what covers ${unknown.length === 1 ? "it" : "them"}.`,
      {
        do: "Correct it under Assemble, order of work; or accept it where it is a place without a name in the files.",
      },
    );
}
