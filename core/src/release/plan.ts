import { angleOf, turnedParts, turnedWords, turnFor } from "../assembly/turns.ts";
import { bothSizes } from "../bom/chip-size.ts";
import { numberKey } from "../bom/number.ts";
import { compareRefs } from "../bom/refs.ts";
import { microsToText } from "../money/money.ts";
import { planOfRun } from "../run/assemble/steps-document.ts";
import { asMade } from "../run/document/bill/as-made.ts";
import { boardOf, Places, unitOf } from "../run/document/boards.ts";
import { directedParts } from "../run/document/directions.ts";
import type { RunDocument, RunLine } from "../run/document/document.ts";
import type { LinePart } from "../run/document/parts.ts";
import { byMachine, isForPaste, isMixed } from "../run/document/ways.ts";
import { invoicesOf } from "../run/orders/invoice.ts";
import type { RunResult } from "../run/stage/result.ts";
import { fabSheet } from "./fab-sheet.ts";
import { PACKAGE_FILES } from "./package-files.ts";
import { type PackagePlan, type PlannedSheet, type PlannedTable, panelStem, slug } from "./planned.ts";
import { travellerSheet } from "./traveller.ts";

/** What an order package of a run holds besides the fabrication files: baskets, parts list, places, sheets. */
export function planPackage(given: RunDocument, r: RunResult): PackagePlan {
  const doc = asMade(given);
  const { sheet: steps } = planOfRun(given, r);
  return {
    tables: [partsTable(doc, r), placesTable(doc, r), ...basketTables(doc, r)],
    sheets: [...fabSheet(doc, r), ...assemblySheet(doc, r), ...travellerSheet(doc, steps)],
    documents: [{ path: PACKAGE_FILES.steps.at, value: steps }],
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
      mountedWords(doc, r, l),
      ...(doc.boards.length > 1 ? [boardOf(doc, l)?.name ?? ""] : []),
    ]);
  return {
    path: PACKAGE_FILES.fitted.at,
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

const BY_WAY = { house: "by machine", stencil: "on paste, here", iron: "by hand" } as const;

/** Who mounts a line: as the bill has it, or, where parts go several ways, by the way of each. */
function mountedWords(doc: RunDocument, r: RunResult, l: RunLine): string {
  const ways = isMixed(doc) ? r.parts.filter((p) => p.line.id === l.id) : [];
  if (ways.length === 0) return l.mount === "hand" ? "by hand" : "by machine";
  if (ways.length === 1) return BY_WAY[ways[0]!.method];
  return ways.map((p) => `${p.line.refs.join(" ")} ${BY_WAY[p.method]}`).join("; ");
}

/** Where a machine puts what it puts on; packages lie turned as the house that places them expects. */
function placesTable(doc: RunDocument, r: RunResult): PlannedTable {
  const house = r.assembly?.house;
  const isPlaced = byMachine(doc, r.parts);
  const places = new Places(doc);
  const order = new Map(doc.boards.map((b, i) => [b, i]));
  const rows = doc.lines
    .filter((l) => !l.dnp)
    .flatMap((l) => {
      const board = boardOf(doc, l) ?? doc.boards[0];
      return l.refs.flatMap((ref) => {
        const p = isPlaced(l, ref) ? places.of(l, ref) : undefined;
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
    path: PACKAGE_FILES.placed.at,
    rows: [["Ref", "X mm", "Y mm", "Rot deg", "Side", "Value", "Package", "Board"], ...rows],
  };
}

/** A basket per supplier in the supplier's own currency, as its import and its invoice will have it. */
export function basketTables(document: RunDocument, r: RunResult): PlannedTable[] {
  const doc = asMade(document);
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
    return { path: `${PACKAGE_FILES.basket.at}${slug(supplier?.name ?? id)}.csv`, rows: [head, ...rows] };
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
            heading: byHand.every((p) => p.method === "iron") ? "Left to us, by hand" : "Left to us",
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

/** Where the places of a sheet stand, copy by copy. */
const sheetPlaces = (doc: RunDocument): string =>
  `${PACKAGE_FILES.sheetPlaced.at}${panelStem(doc.product)}-places.csv: R1 of copy 3 is R1_3; of one board ${PACKAGE_FILES.placed.at}`;

/** The sheets the boards come on, for who prints and places. */
function sheetRows(doc: RunDocument, r: RunResult): [string, string][] {
  const on = r.orders.find((o) => o.sheet)?.sheet;
  if (!on) return [];
  const guests = r.guests.map((g) => g.name);
  return [
    [
      "They lie on",
      `${on.sheets} sheets of ${on.widthMm} x ${on.heightMm} mm, ${r.orders
        .flatMap((o) =>
          o.sheet ? [doc.boards.length > 1 ? `${o.sheet.perSheet} of ${o.name}` : `${o.sheet.perSheet}`] : [],
        )
        .join(" and ")} on each; parted after soldering`,
    ],
    ...(guests.length > 0 ? ([["Left bare on them", guests.join(", ")]] satisfies [string, string][]) : []),
  ];
}

function assemblySheet(doc: RunDocument, r: RunResult): PlannedSheet[] {
  const house = r.assembly?.house;
  if (!house) return [];
  const byHand = r.parts.filter((p) => p.method !== "house" && p.kind !== "loose");
  const onSheet = r.orders.some((o) => o.sheet);
  const placed = r.parts.filter((p) => p.method === "house" && p.kind !== "loose");
  const bySoldering = placed.filter((p) => p.kind === "through");
  return [
    {
      path: `${PACKAGE_FILES.assemblySheet.at}${slug(house.name)}.pdf`,
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
            ["Sides to place", String(r.sides.house.ofDesigns)],
            ...sheetRows(doc, r),
            ["Placement file", onSheet ? sheetPlaces(doc) : PACKAGE_FILES.placed.at],
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
        ...(byHand.some(isForPaste) ? ["No paste on the pads of what is left to us."] : []),
        "No substitution without written approval.",
        "Check the polarity of every diode, IC and polarised capacitor against its data sheet.",
      ],
    },
  ];
}
