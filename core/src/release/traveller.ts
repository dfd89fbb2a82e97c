import type { StepsDocument } from "../run/assemble/steps-document.ts";
import type { RunDocument } from "../run/document/document.ts";
import { PACKAGE_FILES } from "./package-files.ts";
import type { PlannedSheet } from "./planned.ts";

/** The order of work as a sheet to tick off: a table a step, in black and white. Nothing where nothing is done here. */
export function travellerSheet(doc: Pick<RunDocument, "goodBoards">, sheet: StepsDocument): PlannedSheet[] {
  if (sheet.steps.length === 0) return [];
  const minutes = (v: number) => `${Math.round(v)} min`;
  return [
    {
      path: PACKAGE_FILES.traveller.at,
      title: `Order of work: ${sheet.product} ${sheet.revision}`,
      subtitle: `${sheet.run}: ${sheet.start} to start for ${doc.goodBoards} good ones, ${minutes(sheet.minutes)} of own work as planned.`,
      pairs: [],
      tables: sheet.steps.map((s) => ({
        heading: `[  ] ${[`${s.n} ${s.words}`, s.side, s.board].filter((x) => x !== undefined).join(", ")}`,
        widths: [1, 6, 6, 4, 5],
        rows: [
          ["", `${minutes(s.minutes)} planned, took ______`, "in ______ good ______", "bad ______", ""],
          ...s.lines.map((l) => [
            "[  ]",
            l.refs.join(" "),
            `${l.pieces} x ${l.value || l.mpn}`,
            l.package,
            l.mark === "" ? "direction: look it up" : (l.mark ?? ""),
          ]),
        ],
        says: [...s.how, ...s.because, ...s.traps, s.caution],
      })),
      notes: [
        ...sheet.conflicts.map((c) => `Not all rules hold: ${c.text}`),
        "Cautions are reminders. Data sheets, local law and, where required, a licensed person come first.",
      ],
    },
  ];
}
