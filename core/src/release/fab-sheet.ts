import type { Measure } from "../board/measure-document.ts";
import { isHolesLeast } from "../board/partly-read.ts";
import { plainOf, wayOf } from "../fab/fit-options.ts";
import type { House } from "../fab/house.ts";
import { measureSpec } from "../fab/measures.ts";
import {
  type FabOptions,
  isExtraOption,
  isFabOption,
  NO_EXTRA,
  OPTION_WORDS,
  type OptionKey,
} from "../fab/options.ts";
import type { RunDocument } from "../run/document/document.ts";
import type { BoardOrder } from "../run/orders/order-boards.ts";
import { panelOf } from "../run/sheet/panel.ts";
import type { RunResult } from "../run/stage/result.ts";
import { capital } from "../words.ts";
import { PACKAGE_FILES } from "./package-files.ts";
import { type PlannedSheet, slug } from "./planned.ts";

const mm = (v: number | undefined) =>
  v === undefined ? "not measured" : `${Math.round(v * 1000) / 1000} mm`;

/** Where the contacts' copper begins, for whoever grinds the edge. */
const contactRows = (m: Measure): [string, string][] =>
  Object.entries(m.edgeContacts ?? {}).map(([side, c]): [string, string] => [
    `Contacts, ${side}`,
    `${c.count} on the ${c.edge} edge, copper from ${mm(c.setbackMm)} on: keep it whole`,
  ]);

/** What the sheet says of a decision where the house has no word of its own for it. */
const SHEET_WORDS: Readonly<Partial<Record<OptionKey, string>>> = {
  thickness: "Thickness, finished",
  mask: "Mask, both sides",
};
/** Decisions that are not written where the plain thing is done. */
const ONLY_WHERE_CHOSEN: ReadonlySet<OptionKey> = new Set([
  "contacts",
  "bevel",
  "castellation",
  "edgePlating",
]);

/** Every decision in the house's own words, as its order sheet has them. */
function decisionRows(house: House, options: FabOptions): [string, string][] {
  return (Object.keys(OPTION_WORDS) as OptionKey[]).flatMap((key): [string, string][] => {
    if (!isFabOption(key) && !isExtraOption(key)) return [];
    const chosen = (house.options[key] ?? []).find((o) => o.value === (options[key] ?? plainOf(key)));
    if (!chosen || (ONLY_WHERE_CHOSEN.has(key) && chosen.value === plainOf(key))) return [];
    return [
      [house.sheet?.[key] ?? SHEET_WORDS[key] ?? OPTION_WORDS[key].label, chosen.called ?? chosen.label],
    ];
  });
}

/** What one order sheet is about: a board, or the sheet that several boards lie on. */
interface Ordered {
  readonly name: string;
  readonly rows: [string, string][];
  readonly measures: readonly Measure[];
  readonly sizeMm: readonly [number | undefined, number | undefined];
  readonly leadDays: number;
  /** How often each measure is there on one piece. */
  readonly times: readonly number[];
}

/** Boards singly each, those on sheets together: one set of files is one order sheet. */
function orderedOf(doc: RunDocument, r: RunResult): Ordered[] {
  const days = (o: BoardOrder) => o.quoted?.days ?? o.quote.leadDays;
  const all = [
    ...r.orders.map((o, i) => ({ o, m: doc.boards[i]!.measure })),
    ...r.guests.map((o) => ({ o, m: o.guest.measure })),
  ];
  const on = all.filter(({ o }) => o.sheet);
  const [first] = on;
  const singles = all.flatMap(({ o, m }): Ordered[] =>
    o.sheet
      ? []
      : [
          {
            name: o.name,
            rows: [
              ["Boards", `${o.quote.pieces}`],
              ["Delivery form", "single boards"],
            ],
            measures: [m],
            sizeMm: [m.outline?.widthMm, m.outline?.heightMm],
            leadDays: days(o),
            times: [1],
          },
        ],
  );
  if (!first?.o.sheet) return singles;
  const { sheets, widthMm, heightMm } = first.o.sheet;
  const { choice } = panelOf(doc) ?? {};
  const holds =
    on.length === 1
      ? `${first.o.sheet.perSheet} boards each`
      : on.map(({ o }) => `${o.sheet!.perSheet} of ${o.name}`).join(" and ");
  const ways = new Set(choice ? [choice.across, choice.along] : []);
  const sheet: Ordered = {
    name: on.length === 1 ? first.o.name : `sheet of ${doc.product}`,
    rows: [
      ["Sheets", `${sheets}, of ${holds}`],
      ["Delivery form", `sheets of ${mm(widthMm)} x ${mm(heightMm)}, as in the files; do not part them`],
      ...(ways.size > 0
        ? ([["Parting", [...ways].map((w) => PARTING_WORDS[w]).join("; ")]] satisfies [string, string][])
        : []),
    ],
    measures: on.map(({ m }) => m),
    sizeMm: [widthMm, heightMm],
    leadDays: Math.max(...on.map(({ o }) => days(o))),
    times: on.map(({ o }) => o.sheet!.perSheet),
  };
  return [sheet, ...singles];
}

const PARTING_WORDS = {
  tabs: "tabs with unplated perforations, milled between",
  score: "scores, as in the layer of their own",
} as const;

/** The least of what several boards on one piece ask for; unknown where it is unknown of one. */
const leastOf = (list: readonly (number | undefined)[]): number | undefined =>
  list.reduce((a, v) => (a === undefined || v === undefined ? undefined : Math.min(a, v)));

function measuredRows({ measures, times, sizeMm }: Ordered): [string, string][] {
  const [first] = measures as readonly [Measure];
  const sum = (of: (m: Measure) => number) => measures.reduce((n, m, i) => n + times[i]! * of(m), 0);
  const slots = measures.flatMap((m) => m.slots);
  const isOne = measures.length === 1 && times[0] === 1;
  const words = slots.map((s) => `${s.widthMm} x ${s.lengthMm} mm${s.plated ? "" : ", not plated"}`);
  return [
    ["Size", `${mm(sizeMm[0])} x ${mm(sizeMm[1])}`],
    ["Copper layers", `${first.copperLayers}: ${first.layerOrder.join(", ")}`],
    ...["minTrackMm", "minNetSpaceMm", "minHoleMm", "minAnnularMm"]
      .map(measureSpec)
      .map((s): [string, string] => [capital(s.label), mm(leastOf(measures.map((m) => s.valueOf(m, {}))))]),
    [
      isOne ? "Holes" : "Holes of the boards, a sheet",
      `${measures.some(isHolesLeast) ? "at least " : ""}${sum((m) => m.holes.reduce((n, h) => n + h.count, 0))}, ${sum((m) => m.holes.filter((h) => h.plated).reduce((n, h) => n + h.count, 0))} plated`,
    ],
    // of several boards each kind of slot is named once
    ["Slots", (isOne ? words : [...new Set(words)]).join("; ") || "none"],
  ];
}

/** What goes into the house's own field for remarks, as far as it holds; the rest stands on the sheet. */
function remarksRow(house: House, notes: readonly string[]): [string, string][] {
  const { remarks } = house;
  if (!remarks) return [];
  const fits: string[] = [];
  for (const n of notes) if ([...fits, n].join(" ").length <= remarks.most) fits.push(n);
  return fits.length > 0 ? [[remarks.label, fits.join(" ")]] : [];
}

const OUTRANKS = "The data files outrank this sheet. Ask on any conflict; change nothing silently.";

/** Order sheets for the house that makes the boards, in its own words: one for each set of files. */
export function fabSheet(doc: RunDocument, r: RunResult): PlannedSheet[] {
  const { house, options } = r;
  if (!house || !options) return [];
  const all = orderedOf(doc, r);
  const known = r.notes
    .filter((n) => n.stage === "fab" && n.acceptedBecause)
    .map((n) => `Known: ${n.text} (${n.acceptedBecause})`);
  return all.map(
    (o): PlannedSheet => ({
      path: `${PACKAGE_FILES.boardSheet.at}${slug(house.name)}${all.length > 1 ? `-${slug(o.name)}` : ""}.pdf`,
      title: `Fabrication: ${o.name}`,
      subtitle: `${doc.workshop.name} for ${house.name}. ${doc.name}, revision ${doc.revision}, ${doc.today}.`,
      pairs: [
        {
          heading: "Order",
          rows: [
            o.rows[0]!,
            [house.sheet?.leadDays ?? "Lead time", `${o.leadDays} days`],
            ...o.rows.slice(1),
            ...decisionRows(house, options),
            ...(options.bevel === undefined || options.bevel === NO_EXTRA
              ? []
              : o.measures.flatMap(contactRows)),
            ...(house.options.test ? [] : [["Electrical test", "every board"] as [string, string]]),
            ...(house.price.services
              ? [
                  [
                    house.sheet?.freight ?? OPTION_WORDS.freight.label,
                    wayOf(house, options.freight).label,
                  ] as [string, string],
                ]
              : []),
            ...remarksRow(house, [OUTRANKS, ...known]),
          ],
        },
        { heading: "Measured from the files", rows: measuredRows(o) },
      ],
      listsFiles: true,
      tables: [],
      notes: [
        OUTRANKS,
        "The picture shows mask openings, silkscreen and holes; the bottom is seen from below.",
        ...known,
      ],
    }),
  );
}
