import { branch, type CostNode, leaf } from "../costing/tree.ts";
import type { House } from "../fab/house.ts";
import { convertMicros, type Micros, microsToText, toMicros } from "../money/money.ts";
import type { Basket } from "../sourcing/basket.ts";
import { assemblyHouse, assemblyQuote } from "./assembly-house.ts";
import type { RunDocument } from "./document.ts";
import type { RunNeed } from "./needs.ts";
import type { BoardOrder } from "./order-boards.ts";
import { inShopCurrency, type LinePart, nameOfLine, rateOf } from "./parts.ts";

export interface Minutes {
  readonly setup: number;
  readonly kitting: number;
  readonly perBoard: number;
  readonly boards: number;
  readonly testing: number;
  readonly total: number;
}

/** Fees are named where some supplier takes any. */
const shippingLabel = (doc: RunDocument): string =>
  doc.suppliers.some((s) => s.smallOrder || s.handling !== undefined)
    ? "shipping and fees of parts"
    : "shipping of parts";

export function partsNode(
  doc: RunDocument,
  parts: readonly LinePart[],
  needs: readonly RunNeed[],
  basket: Basket,
): CostNode {
  const isExpense = doc.choices.leftovers === "expense";
  const used = basket.lines.flatMap((l, i) => {
    const bought = l.buys.reduce((s, b) => s + b.qty, 0);
    if (bought === 0) return [];
    const spend = l.buys.reduce((s, b) => s + b.cost, 0);
    const need = Math.min(bought, needs[i]!.need);
    const share = isExpense ? 1 : need / bought;
    const fees = l.buys.reduce((s, b) => s + (b.fee ?? 0), 0);
    const price =
      l.buys.length === 1
        ? microsToText(l.buys[0]!.unitPrice)
        : microsToText(Math.round((spend - fees) / bought));
    const supplier = [
      ...new Set(l.buys.map((b) => doc.suppliers.find((s) => s.id === b.supplier)?.name ?? b.supplier)),
    ].join(", ");
    return [
      {
        label: nameOfLine(doc, parts, l.line),
        micros: spend * share,
        note: `${isExpense ? bought : need} × ${price}${!isExpense && bought > need ? `, ${bought - need} more stay in stock` : ""}${fees > 0 ? `, with ${microsToText(fees)} for its packaging` : ""}`,
        from: supplier,
      },
    ];
  });
  const made = parts
    .filter((p) => p.line.madeCost !== undefined && Number(p.line.madeCost) > 0)
    .map((p) => ({
      label: nameOfLine(doc, parts, p.line.id),
      micros: Math.ceil(doc.goodBoards * p.count) * toMicros(p.line.madeCost!),
      note: `${Math.ceil(doc.goodBoards * p.count)} × ${p.line.madeCost}`,
      from: `${p.line.origin === "printed" ? "printed" : "made"} here, beside its parts`,
    }));
  const shelf = needs.flatMap((n) =>
    n.shelf.map((t) => ({
      label: nameOfLine(doc, parts, n.id),
      micros: t.cost,
      note: `${t.qty} of ${t.lot.qty} from ${t.lot.place || "the shelf"}`,
      from: `what they cost, received ${t.lot.receivedOn}`,
    })),
  );
  const shipping = Object.entries(basket.shippingOf).map(([id, micros]) => ({
    label: doc.suppliers.find((s) => s.id === id)?.name ?? id,
    micros,
    note: micros === 0 ? "free from its subtotal on" : "one parcel",
  }));
  return branch("parts", "Parts", [
    leaf("parts-used", isExpense ? "parts bought" : "parts used, with what is lost on the way", used),
    ...(made.length > 0 ? [leaf("parts-made", "made and printed here", made)] : []),
    ...(shelf.length > 0 ? [leaf("parts-shelf", "parts from the own shelf", shelf)] : []),
    leaf("parts-shipping", shippingLabel(doc), shipping, basket.shipping),
    ...(basket.duty > 0
      ? [
          leaf("parts-duty", "duty on parts", [
            { label: "duty", micros: basket.duty, note: "on what is bought" },
          ]),
        ]
      : []),
  ]);
}

export function boardsNode(doc: RunDocument, orders: readonly BoardOrder[]): CostNode {
  return branch(
    "boards",
    "Bare boards",
    orders.map((o, i) => {
      const currency = o.quoted?.currency ?? doc.house?.currency ?? doc.workshop.currency;
      const rate = rateOf(doc, currency) ?? "0";
      const note = rate === "1" ? "" : ` at ${rate}`;
      if (o.quoted)
        return leaf(`board-${i}`, o.name, [
          {
            label: "quotation",
            micros: o.micros,
            note: `${o.quoted.total} ${currency}${note}`,
            from: `quotation of ${o.quoted.capturedOn}`,
          },
        ]);
      const fixed = o.quote.sum
        .filter((t) => ["set-up", "freight", "import handling"].includes(t.label))
        .reduce((s, t) => s + t.micros, 0);
      const fewer = o.quote.insteadOf;
      const why = fewer ? `; ${o.quote.pieces} cost less than ${fewer.pieces}` : "";
      const terms = o.quote.sum.map((t) => ({
        label: t.label,
        micros: convertMicros(t.micros, rate) as number,
        ...(t.note || note ? { note: `${t.note ?? ""}${t.label === "area" ? why : ""}${note}`.trim() } : {}),
        from: `profile of ${doc.house?.checkedOn ?? ""}`,
      }));
      const rounding = o.micros - terms.reduce((s, t) => s + t.micros, 0);
      if (rounding !== 0)
        terms.push({ label: "rounding", micros: rounding, from: "the house rounds its sum" });
      return leaf(`board-${i}`, `${o.quote.pieces} × ${o.name}`, terms, convertMicros(fixed, rate));
    }),
  );
}

/** Board designs of the product: each has its own stencil and set-up. */
const designsOf = (doc: RunDocument): number => Math.max(1, doc.boards.length);
const stencils = (doc: RunDocument): Micros =>
  (designsOf(doc) * toMicros(doc.assembly.stencilPrice)) as Micros;

/** Price of an assembly house (domain.md 7.5): set-up, stencil, unique parts, joints; at least its minimum. */
export function housePrice(
  house: House,
  parts: readonly LinePart[],
  boards: number,
  designs = 1,
): { label: string; micros: number; note: string }[] {
  const p = house.assembly!;
  const placed = parts.filter((x) => x.method === "house" && x.kind !== "loose");
  const joints = placed.reduce((n, x) => n + x.count * x.joints, 0);
  const each = (price: string) => (designs > 1 ? `${designs} × ${price}` : price);
  const terms = [
    { label: "set-up, one side", micros: designs * toMicros(p.setupPerSide), note: each(p.setupPerSide) },
    { label: "stencil", micros: designs * toMicros(p.stencilPerSide), note: each(p.stencilPerSide) },
    {
      label: "unique parts",
      micros: placed.length * toMicros(p.perUniquePart),
      note: `${placed.length} × ${p.perUniquePart}`,
    },
    {
      label: "joints",
      micros: boards * joints * toMicros(p.perJoint),
      note: `${boards} boards × ${joints} × ${p.perJoint}`,
    },
  ];
  const sum = terms.reduce((s, t) => s + t.micros, 0);
  const least = toMicros(p.minCharge);
  return sum < least
    ? [...terms, { label: "up to the least charge", micros: least - sum, note: p.minCharge }]
    : terms;
}

export function assemblyNode(
  doc: RunDocument,
  parts: readonly LinePart[],
  m: Minutes,
  start: number,
): CostNode {
  const rate = toMicros(doc.workshop.hourlyRate);
  const hours = (minutes: number) => (minutes / 60) * rate;
  const text = microsToText(rate);
  const own = leaf(
    "own-hours",
    "own hours",
    [
      {
        label: "set-up",
        micros: hours(m.setup),
        note: `${m.setup} min at ${text} an hour`,
        from: "time model",
      },
      {
        label: "kitting",
        micros: hours(m.kitting),
        note: `${parts.length} lines × 0.75 min`,
        from: "time model",
      },
      ...(m.perBoard > 0
        ? [
            {
              label: "soldering, inspection, rework",
              micros: hours(m.boards),
              note: `${start} boards × ${m.perBoard.toFixed(2)} min`,
              from: "time and defect model, no record yet",
            },
          ]
        : []),
    ],
    hours(m.setup + m.kitting),
  );
  const house = assemblyHouse(doc);
  if (house) {
    const quote = assemblyQuote(doc);
    const exchange = rateOf(doc, quote?.currency ?? house.currency) ?? "0";
    const terms = quote
      ? [
          {
            label: "quotation",
            micros: toMicros(quote.total) as number,
            note: `${quote.total} ${quote.currency}`,
          },
        ]
      : housePrice(house, parts, start, designsOf(doc));
    const fixed = quote ? 0 : terms.filter((t) => t.label !== "joints").reduce((s, t) => s + t.micros, 0);
    return branch("assembly", "Assembly", [
      leaf(
        "house-price",
        house.name,
        terms.map((t) => ({
          ...t,
          micros: convertMicros(Math.round(t.micros), exchange) as number,
          from: quote ? `quotation of ${quote.capturedOn}` : `profile of ${house.checkedOn}`,
        })),
        convertMicros(Math.round(fixed), exchange),
      ),
      own,
    ]);
  }
  const stencil =
    doc.assembly.method === "stencil"
      ? [
          leaf(
            "stencil",
            "stencil",
            [
              {
                label: "stencil",
                micros: stencils(doc),
                note: `${designsOf(doc) > 1 ? `${designsOf(doc)} × ${doc.assembly.stencilPrice}, ` : ""}charged to this run`,
              },
            ],
            stencils(doc),
          ),
        ]
      : [];
  return branch("assembly", "Assembly", [
    own,
    ...stencil,
    leaf(
      "consumables",
      "paste, flux, cleaning",
      [{ label: "consumables", micros: toMicros(doc.assembly.consumables), note: "set in Assemble" }],
      toMicros(doc.assembly.consumables),
    ),
  ]);
}

export function otherNode(doc: RunDocument, start: number): CostNode {
  const rate = toMicros(doc.workshop.hourlyRate);
  const { testMinutes, packMinutes } = doc.assembly;
  return branch("other", "Test and packing", [
    leaf("testing", "test and packing", [
      {
        label: "test",
        micros: (start * testMinutes * rate) / 60,
        note: `${start} boards × ${testMinutes} min`,
      },
      {
        label: "packing",
        micros: (start * packMinutes * rate) / 60,
        note: `${start} boards × ${packMinutes} min`,
      },
    ]),
  ]);
}

export function cashList(
  doc: RunDocument,
  basket: Basket,
  orders: readonly BoardOrder[],
  parts: readonly LinePart[],
  start: number,
) {
  const list: { label: string; micros: number; note?: string }[] = [
    { label: "parts, all that is bought", micros: basket.parts },
    { label: shippingLabel(doc), micros: basket.shipping },
    ...(basket.duty > 0 ? [{ label: "duty on parts", micros: basket.duty as number }] : []),
    ...orders.map((o) => ({ label: o.name, micros: o.micros as number, note: doc.house?.name ?? "" })),
  ];
  const house = assemblyHouse(doc);
  if (house) {
    const quote = assemblyQuote(doc);
    const micros = quote
      ? toMicros(quote.total)
      : housePrice(house, parts, start, designsOf(doc)).reduce((s, t) => s + t.micros, 0);
    list.push({
      label: "assembly",
      micros: inShopCurrency(doc, micros, quote?.currency ?? house.currency),
      note: house.name,
    });
  } else {
    if (doc.assembly.method === "stencil") list.push({ label: "stencil", micros: stencils(doc) });
    list.push({ label: "paste, flux, cleaning", micros: toMicros(doc.assembly.consumables) });
  }
  const net = list.reduce((s, t) => s + t.micros, 0);
  if (doc.workshop.taxRate > 0)
    list.push({
      label: "recoverable tax",
      micros: net * doc.workshop.taxRate,
      note: `${Math.round(doc.workshop.taxRate * 1000) / 10} % on purchases`,
    });
  return list;
}
