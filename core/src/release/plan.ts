import { angleOf, turnedParts, turnedWords, turnFor } from "../assembly/turns.ts";
import type { Measure } from "../board/measure-document.ts";
import { bothSizes } from "../bom/chip-size.ts";
import { numberKey } from "../bom/number.ts";
import { compareRefs } from "../bom/refs.ts";
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
import { microsToText } from "../money/money.ts";
import { boardOf, Places, unitOf } from "../run/boards.ts";
import { directedParts } from "../run/directions.ts";
import type { RunDocument, RunLine } from "../run/document.ts";
import { invoicesOf } from "../run/invoice.ts";
import type { LinePart } from "../run/parts.ts";
import type { RunResult } from "../run/result.ts";
import { withVariant } from "../run/structure.ts";
import { assemblyHouse } from "../run/who-places.ts";

/** A table of the package: a path and rows of text, the first row names the columns. */
export interface PlannedTable {
  readonly path: string;
  readonly rows: readonly (readonly string[])[];
}

/** A printable sheet: facts in pairs, tables, sentences. */
export interface PlannedSheet {
  readonly path: string;
  readonly title: string;
  readonly subtitle: string;
  readonly pairs: readonly {
    readonly heading: string;
    readonly rows: readonly (readonly [string, string])[];
  }[];
  readonly tables: readonly { readonly heading: string; readonly rows: readonly (readonly string[])[] }[];
  readonly notes: readonly string[];
  /** The list of fabrication files with their hashes is set on this sheet. */
  readonly listsFiles?: boolean;
}

export interface PackagePlan {
  readonly tables: readonly PlannedTable[];
  readonly sheets: readonly PlannedSheet[];
}

/** File-name form of a name. */
export const slug = (text: string): string =>
  text
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, "-")
    .replace(/^-|-$/g, "") || "unnamed";

/** What an order package of a run holds besides the fabrication files: baskets, parts list, places, sheets. */
export function planPackage(given: RunDocument, r: RunResult): PackagePlan {
  const doc = withVariant(given);
  return {
    tables: [partsTable(doc, r), placesTable(doc, r.assembly?.house), ...basketTables(doc, r)],
    sheets: [...fabSheet(doc, r), ...assemblySheet(doc, r)],
  };
}

/** The numbers a line is bought as: its own, or that of the part that was approved instead. */
function numbersOf(doc: RunDocument, r: RunResult, lineId: string, own: string): string[] {
  const need = r.needs.findIndex((n) => n.lines.includes(lineId));
  const parts = (r.basket.lines[need]?.buys ?? []).map((b) => doc.offers.find((o) => o.id === b.offer)?.part);
  const names = parts.map((p) => doc.library?.find((x) => x.id === p)?.mpn ?? own);
  const onShelf = (r.needs[need]?.shelf ?? []).map((t) =>
    numberKey(t.lot.mpn) === numberKey(own) ? own : t.lot.mpn,
  );
  const all = [...new Set([...onShelf, ...names])];
  return all.length > 0 ? all : [own];
}

function partsTable(doc: RunDocument, r: RunResult): PlannedTable {
  const madeBy = (l: RunLine): string[] => {
    const numbers = numbersOf(doc, r, l.id, l.mpn);
    const isOther = numbers.some((n) => n !== l.mpn);
    const other = doc.library?.find((p) => p.mpn === numbers[0]);
    return [
      isOther && numbers.length === 1 ? (other?.maker ?? "") : l.maker,
      numbers.join(" or "),
      isOther && l.mpn !== "" ? `${l.description} (in the place of ${l.mpn})`.trim() : l.description,
    ];
  };
  const rows = doc.lines
    .filter((l) => !l.dnp && l.mount !== "none")
    .map((l) => [
      [...l.refs].sort(compareRefs).join(" "),
      String(l.qty),
      l.valueText,
      bothSizes(l.package),
      ...madeBy(l),
      l.mount === "hand" ? "by hand" : "by machine",
      ...(doc.boards.length > 1 ? [boardOf(doc, l)?.name ?? ""] : []),
    ]);
  return {
    path: "assembly/parts-list.csv",
    rows: [
      [
        "References",
        "Quantity",
        "Value",
        "Package",
        "Maker",
        "Part number",
        "Description",
        "Mounted",
        ...(doc.boards.length > 1 ? ["Board"] : []),
      ],
      ...rows,
    ],
  };
}

/** @param house that places them: packages lie turned as it expects */
function placesTable(doc: RunDocument, house: House | undefined): PlannedTable {
  const places = new Places(doc);
  const order = new Map(doc.boards.map((b, i) => [b, i]));
  const rows = doc.lines
    .filter((l) => !l.dnp && l.mount === "machine")
    .flatMap((l) => {
      const board = boardOf(doc, l) ?? doc.boards[0];
      return l.refs.flatMap((ref) => {
        const p = places.of(l, ref);
        return p ? [{ l, p, board, rank: board ? order.get(board)! : 0 }] : [];
      });
    })
    .sort((a, b) => a.rank - b.rank || compareRefs(a.p.ref, b.p.ref))
    .map(({ l, p, board }) => [
      p.ref,
      p.xMm.toFixed(4),
      p.yMm.toFixed(4),
      String(angleOf(p.rotationDeg + turnFor(house?.assembly?.turns, l.package))),
      p.side === "top" ? "Top" : "Bottom",
      l.valueText,
      bothSizes(l.package),
      board?.name ?? "",
    ]);
  return {
    path: "assembly/placement.csv",
    rows: [["Ref", "X mm", "Y mm", "Rot deg", "Side", "Value", "Package", "Board"], ...rows],
  };
}

/** A basket per supplier in the supplier's own currency, as its import and its invoice will have it. */
export function basketTables(document: RunDocument, r: RunResult): PlannedTable[] {
  const doc = withVariant(document);
  const invoices = invoicesOf(doc, r.basket);
  return r.basket.suppliers.map((id) => {
    const supplier = doc.suppliers.find((s) => s.id === id);
    const rows = invoices
      .filter((i) => i.supplier === id)
      .flatMap((i) => i.lines.map((l) => ({ ...l, currency: i.currency })))
      .map((l) => {
        const need = r.needs.find((n) => n.id === l.line)!;
        const lines = need.lines.map((x) => r.parts.find((p) => p.line.id === x)!.line);
        const line = lines[0]!;
        return [
          doc.library?.find((p) => p.id === l.offer.part)?.mpn ?? (line.mpn || line.valueText),
          String(l.buy.qty),
          lines
            .flatMap((x) => x.refs)
            .slice(0, 8)
            .join(" ") || line.description,
          microsToText(l.unitPrice),
          microsToText(l.total),
          l.currency,
          l.offer.packaging ?? "",
          l.fee === 0 ? "" : microsToText(l.fee),
        ];
      });
    const head = [
      "Part number",
      "Order quantity",
      "For",
      "Unit price",
      "Line total",
      "Currency",
      "Packaging",
      "Fee in the total",
    ];
    return { path: `baskets/${slug(supplier?.name ?? id)}.csv`, rows: [head, ...rows] };
  });
}

const capital = (text: string) => text[0]!.toUpperCase() + text.slice(1);
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

function fabSheet(doc: RunDocument, r: RunResult): PlannedSheet[] {
  const { house, options } = r;
  if (!house || !options) return [];
  return r.orders.map((o, i) => {
    const m = doc.boards[i]!.measure;
    return {
      path: `sheets/fabrication-${slug(house.name)}${r.orders.length > 1 ? `-${slug(o.name)}` : ""}.pdf`,
      title: `Fabrication: ${o.name}`,
      subtitle: `${doc.workshop.name} for ${house.name}. ${doc.name}, revision ${doc.revision}, ${doc.today}.`,
      pairs: [
        {
          heading: "Order",
          rows: [
            o.sheet
              ? ["Sheets", `${o.sheet.sheets}, of ${o.sheet.perSheet} boards each`]
              : ["Boards", `${o.quote.pieces}`],
            ["Lead time", `${o.quoted?.days ?? o.quote.leadDays} days`],
            [
              "Delivery form",
              o.sheet
                ? `sheets of ${mm(o.sheet.widthMm)} x ${mm(o.sheet.heightMm)}, as in the files`
                : "single boards",
            ],
            ...decisionRows(house, options),
            ...(options.bevel === undefined || options.bevel === NO_EXTRA ? [] : contactRows(m)),
            ...(house.options.test ? [] : [["Electrical test", "every board"] as [string, string]]),
            ...(house.price.services
              ? [[OPTION_WORDS.freight.label, wayOf(house, options.freight).label] as [string, string]]
              : []),
          ],
        },
        {
          heading: "Measured from the files",
          rows: [
            ["Size", `${mm(m.outline?.widthMm)} x ${mm(m.outline?.heightMm)}`],
            ["Copper layers", `${m.copperLayers}: ${m.layerOrder.join(", ")}`],
            ...["minTrackMm", "minNetSpaceMm", "minHoleMm", "minAnnularMm"]
              .map(measureSpec)
              .map((s): [string, string] => [capital(s.label), mm(s.valueOf(m, {}))]),
            [
              "Holes",
              `${m.holes.reduce((n, h) => n + h.count, 0)}, ${m.holes.filter((h) => h.plated).reduce((n, h) => n + h.count, 0)} plated`,
            ],
            [
              "Slots",
              m.slots.length === 0
                ? "none"
                : m.slots
                    .map((s) => `${s.widthMm} x ${s.lengthMm} mm${s.plated ? "" : ", not plated"}`)
                    .join("; "),
            ],
          ],
        },
      ],
      listsFiles: true,
      tables: [],
      notes: [
        "The data files outrank this sheet. Ask on any conflict; change nothing silently.",
        "The picture shows mask openings, silkscreen and holes; the bottom is seen from below.",
        ...r.notes
          .filter((n) => n.stage === "fab" && n.acceptedBecause)
          .map((n) => `Known: ${n.text} (${n.acceptedBecause})`),
      ],
    };
  });
}

/** What the house must know by reference: left to us, directed, not placed. */
function assemblyTables(doc: RunDocument, r: RunResult, byHand: readonly LinePart[]): PlannedSheet["tables"] {
  const dnp = doc.lines.filter((l) => l.dnp);
  const directed = directedParts(doc, r.parts);
  return [
    ...(byHand.length > 0
      ? [
          {
            heading: "Left to us, by hand",
            rows: [
              ["References", "Part", "Package"],
              ...byHand.map((p) => [p.line.refs.join(" "), p.line.valueText, bothSizes(p.line.package)]),
            ],
          },
        ]
      : []),
    ...(directed.length > 0
      ? [
          {
            heading: "Parts with a direction",
            rows: [
              ["References", "Part", "Package", "Mark on the body"],
              ...directed.map((d) => [d.refs.join(" "), d.part, d.package, d.mark ?? "see its data sheet"]),
            ],
          },
        ]
      : []),
    ...(dnp.length > 0
      ? [
          {
            heading: "Do not place",
            rows: [["References", "Part"], ...dnp.map((l) => [l.refs.join(" "), l.valueText])],
          },
        ]
      : []),
  ];
}

function assemblySheet(doc: RunDocument, r: RunResult): PlannedSheet[] {
  const house = assemblyHouse(doc);
  if (!house) return [];
  const byHand = r.parts.filter((p) => p.method !== "house" && p.kind !== "loose");
  const placed = r.parts.filter((p) => p.method === "house" && p.kind !== "loose");
  const bySoldering = placed.filter((p) => p.kind === "through");
  return [
    {
      path: `sheets/assembly-${slug(house.name)}.pdf`,
      title: `Assembly: ${doc.product}`,
      subtitle: `${doc.workshop.name} for ${house.name}. ${doc.name}, revision ${doc.revision}, ${doc.today}.`,
      pairs: [
        {
          heading: "Order",
          rows: [
            ...doc.boards.map((b): [string, string] => [
              doc.boards.length > 1 ? `Boards to place, ${b.name}` : "Boards to place",
              String(r.start * b.perProduct),
            ]),
            ["Lines to place", String(placed.length)],
            [`Parts a ${unitOf(doc)}`, String(placed.reduce((n, p) => n + p.count, 0))],
            ...(bySoldering.length > 0
              ? ([
                  [
                    "Of these through the board, by hand",
                    String(bySoldering.reduce((n, p) => n + p.count, 0)),
                  ],
                ] satisfies [string, string][])
              : []),
            ["Sides to place", String(r.sides.ofDesigns)],
            ["Placement file", "assembly/placement.csv"],
            ["Angles", "degrees counter-clockwise, seen from the top, as in the layout; bottom not mirrored"],
            ...turnedParts(
              r.assembly?.house.assembly.turns,
              placed.map((p) => p.line),
            ).map((t): [string, string] => ["Turned as you expect it", turnedWords(t)]),
          ],
        },
      ],
      tables: assemblyTables(doc, r, byHand),
      notes: [
        "No substitution without written approval.",
        "Check the polarity of every diode, IC and polarised capacitor against its data sheet.",
      ],
    },
  ];
}
