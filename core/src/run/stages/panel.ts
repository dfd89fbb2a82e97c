import { leaf } from "../../costing/tree.ts";
import { toMicros } from "../../money/money.ts";
import { scaledTerm } from "../actual.ts";
import { panelOf } from "../panel.ts";
import { panelNotes } from "../panel-notes.ts";
import { hoursUsed } from "./own-hours.ts";
import type { Stage, Worked } from "./stage.ts";

/** Own hours to take boards off their sheets; what a sheet costs is in the boards' price. */
const parting = ({ doc, minutes }: Worked) => {
  const micros = (minutes.parting / 60) * toMicros(doc.workshop.hourlyRate);
  return leaf("parting", "taking boards off their sheets", [
    {
      label: "own hours",
      micros,
      note: `${Number(minutes.parting.toFixed(1))} min at ${doc.workshop.hourlyRate} an hour`,
      from: "time model",
    },
  ]);
};

export const panel: Stage = {
  key: "panel",
  cost: (w) => (panelOf(w.doc) ? parting(w) : undefined),
  actual: ({ planned, ...h }) => [
    scaledTerm({ key: planned.key, label: planned.label, planned: planned.micros }, h.counts, hoursUsed(h)),
  ],
  notes: ({ doc, orders, guests, start, sides }, add) => panelNotes(doc, orders, guests, start, sides, add),
};
