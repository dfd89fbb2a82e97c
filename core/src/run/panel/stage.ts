import { leaf } from "../../costing/tree.ts";
import { toMicros } from "../../money/money.ts";
import { scaledTerm } from "../ledger/actual.ts";
import { panelOf, wholeSheets } from "../sheet/panel.ts";
import type { Asking, WhatIf } from "../stage/effect.ts";
import { hoursUsed } from "../stage/own-hours.ts";
import type { Stage, Worked } from "../stage/stage.ts";
import { panelNotes } from "./panel-notes.ts";

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
  effects: overrunEffects,
  notes: ({ doc, orders, guests, start, sides }, add) =>
    panelNotes(doc, orders, guests, start, sides.all, add),
};

/** Boards the sheets have beyond those that are needed: left bare, or started too. */
function overrunEffects({ doc, base, effect }: Asking): Pick<WhatIf, "overrun"> {
  const panel = panelOf(doc);
  const isStarted = doc.choices.overrun === "start";
  const beyond = panel && !isStarted ? wholeSheets(doc, panel, base.start) - base.start : 0;
  if (!panel || (beyond === 0 && !isStarted)) return { overrun: [] };
  const of = (overrun: "bare" | "start") => ({ ...doc, choices: { ...doc.choices, overrun } });
  return {
    overrun: [
      effect("bare", "left bare", of("bare"), !isStarted),
      effect(
        "start",
        beyond > 0 ? `started too, ${beyond} more` : "started too",
        of("start"),
        isStarted,
        undefined,
        (r) => ({ spares: Math.max(0, r.expectedGood - doc.goodBoards) }),
      ),
    ],
  };
}
