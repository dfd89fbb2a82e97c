import { type BoardTime, boardTime, setupMinutes } from "../assembly/time.ts";
import { binomialAtLeast, boardsToStart, estimateYield, type YieldEstimate } from "../assembly/yield.ts";
import type { Measure } from "../board/measure.ts";
import { branch, type CostNode, leaf } from "../costing/tree.ts";
import { checkHouse, type LimitCheck } from "../fab/check.ts";
import { type FabOptions, fitOptions, type House } from "../fab/house.ts";
import { type BoardFacts, type FabQuote, orderPieces } from "../fab/price.ts";
import { convertMicros, type Micros, microsToText, toMicros } from "../money/money.ts";
import { type Basket, findBaskets, type Need } from "../sourcing/basket.ts";
import type { RunDocument, RunQuote } from "./document.ts";
import { collectNotes, type Note, nameOfLine, type StageKey } from "./notes.ts";
import { type LinePart, lineParts, needsOf, offersOf, rateOf, suppliersOf } from "./parts.ts";
import { type ReadyBy, readyBy } from "./ready.ts";

/** The fab of one board of the product. */
export interface BoardOrder {
  readonly name: string;
  readonly facts: BoardFacts;
  readonly quote: FabQuote;
  /** A quotation that came and overrides the estimate. */
  readonly quoted?: RunQuote;
  readonly micros: Micros;
  readonly days: number;
}

/** Everything about one run, computed. */
export interface RunResult {
  readonly start: number;
  readonly expectedGood: number;
  readonly chance: number;
  readonly yield: YieldEstimate;
  readonly parts: readonly LinePart[];
  readonly needs: readonly Need[];
  readonly basket: Basket;
  readonly baskets: readonly Basket[];
  readonly house?: House;
  readonly options?: FabOptions;
  readonly checks: readonly LimitCheck[];
  readonly orders: readonly BoardOrder[];
  readonly time: BoardTime;
  readonly ownMinutes: number;
  readonly tree: CostNode;
  readonly total: Micros;
  readonly perGood: Micros;
  readonly cashNeeded: Micros;
  readonly cash: readonly { readonly label: string; readonly micros: number; readonly note?: string }[];
  readonly ready: ReadyBy;
  readonly notes: readonly Note[];
  readonly blockers: readonly Note[];
  readonly stages: Readonly<Record<StageKey, { readonly micros: number; readonly days: number }>>;
}

/** Baskets already found for the same needs, shared between what-ifs of one run. */
export type BasketCache = Map<string, Basket[]>;

/** The facts of a board that fab and weight depend on. */
export function boardFacts(m: Measure): BoardFacts {
  const [w, h] = [m.outline?.widthMm ?? 0, m.outline?.heightMm ?? 0];
  const areas = Object.values(m.copperAreaMm2);
  const share =
    w * h > 0 && areas.length > 0 ? areas.reduce((a, b) => a + b, 0) / areas.length / (w * h) : 0.6;
  return {
    widthMm: w,
    heightMm: h,
    layers: Math.max(1, m.copperLayers),
    holes: m.holes.reduce((n, x) => n + x.count, 0) + m.slots.length,
    copperShare: Math.min(1, share),
  };
}

/**
 * Rolls a run up: boards to start, parts to buy, baskets, boards, own hours, cost tree, cash, dates, notes.
 *
 * Cost per good board = total / (started × final yield), NRE charged to this run (domain.md 8.1). Money is exact to the
 * millionth; documents round. The same code runs in the page and in the server.
 *
 * @param cache shared between calls that differ in fab or cost choices only
 */
export function rollUp(doc: RunDocument, cache: BasketCache = new Map()): RunResult {
  const parts = lineParts(doc);
  const quality = estimateYield(parts);
  const chanceOf = (n: number) => binomialAtLeast(n, doc.goodBoards, quality.final);
  const start = boardsToStart(doc.goodBoards, doc.confidence, chanceOf);
  const expectedGood = start * quality.final;
  const offers = offersOf(doc);
  const needs = needsOf(doc, parts, offers, start);
  const baskets = basketsFor(doc, needs, cache);
  const basket = chosenBasket(doc, baskets);
  const house = doc.house;
  const options = house ? fitOptions(house, doc.options) : undefined;
  const checks = house && options ? doc.boards.flatMap((b) => checkHouse(house, b.measure, options)) : [];
  const orders = house && options ? doc.boards.map((b) => orderBoard(doc, house, options, b, start)) : [];
  const time = boardTime(parts, doc.assembly.perLoad);
  const minutes = ownMinutes(doc, parts, time, quality, start);
  const tree = branch("run", "Run", [
    partsNode(doc, parts, needs, basket),
    boardsNode(doc, orders),
    assemblyNode(doc, parts, minutes, start),
    otherNode(doc, start),
  ]);
  const total = tree.micros;
  const perGood = Math.round(total / expectedGood) as Micros;
  const cash = cashList(doc, basket, orders, parts, start);
  const partsDays = basket.suppliers
    .map((id) => doc.suppliers.find((s) => s.id === id))
    .reduce<[number, number]>(
      (d, s) => (s ? [Math.max(d[0], s.daysMin), Math.max(d[1], s.daysMax)] : d),
      [0, 0],
    );
  const assemblyDays =
    doc.assembly.method === "house"
      ? (assemblyQuote(doc)?.days ?? assemblyHouse(doc)?.assembly?.days ?? 10)
      : 0;
  const hoursPerDay = Math.max(1, doc.workshop.hoursPerDay);
  const ready = readyBy(doc.today, {
    partsDays,
    fabDays: Math.max(0, ...orders.map((o) => o.days)),
    fabSigma: house?.price.delaySigmaDays ?? 0,
    houseDays: assemblyDays,
    ownDays: minutes.total / 60 / hoursPerDay,
  });
  const notes = collectNotes(doc, parts, basket, house, checks, options);
  const blockers = notes.filter((n) => n.level === "error" && !n.acceptedBecause);
  const of = (key: string) => tree.children.find((c) => c.key === key)!.micros;
  const stage = (micros: number, days: number) => ({ micros: micros / expectedGood, days });
  return {
    start,
    expectedGood,
    chance: chanceOf(start),
    yield: quality,
    parts,
    needs,
    basket,
    baskets,
    ...(house ? { house } : {}),
    ...(options ? { options } : {}),
    checks,
    orders,
    time,
    ownMinutes: minutes.total,
    tree,
    total,
    perGood,
    cashNeeded: Math.round(cash.reduce((s, c) => s + c.micros, 0)) as Micros,
    cash,
    ready,
    notes,
    blockers,
    stages: {
      board: stage(0, 0),
      parts: stage(0, 0),
      source: stage(of("parts"), partsDays[1]),
      fab: stage(of("boards"), Math.max(0, ...orders.map((o) => o.days))),
      panel: stage(0, 0),
      assemble: stage(of("assembly"), assemblyDays + minutes.total / 60 / hoursPerDay),
      cost: stage(of("other"), 0),
      release: stage(0, 0),
      order: stage(0, 0),
    },
  };
}

function basketsFor(doc: RunDocument, needs: readonly Need[], cache: BasketCache): Basket[] {
  const key = needs.map((n) => `${n.id}:${n.need}:${n.pinned ?? ""}`).join("|");
  let found = cache.get(key);
  if (!found) {
    found = findBaskets(needs, suppliersOf(doc));
    cache.set(key, found);
  }
  return found;
}

function chosenBasket(doc: RunDocument, baskets: readonly Basket[]): Basket {
  const wish = doc.choices.basket;
  if (!wish || wish.length === 0) return baskets[0]!;
  const set = new Set(wish);
  return (
    baskets.find((b) => b.suppliers.length === set.size && b.suppliers.every((s) => set.has(s))) ??
    baskets.find((b) => b.suppliers.every((s) => set.has(s))) ??
    baskets[0]!
  );
}

function orderBoard(
  doc: RunDocument,
  house: House,
  options: FabOptions,
  b: RunDocument["boards"][number],
  start: number,
): BoardOrder {
  const facts = boardFacts(b.measure);
  const quote = orderPieces(house, facts, options, start * b.perProduct);
  const quoted = doc.quotes.find((q) => q.kind === "fab" && q.house === house.id);
  const rate = rateOf(doc, quoted?.currency ?? house.currency) ?? "1";
  return {
    name: b.name,
    facts,
    quote,
    ...(quoted ? { quoted } : {}),
    micros: convertMicros(quoted ? toMicros(quoted.total) : quote.total, rate),
    days: quoted?.days ?? quote.days,
  };
}

interface Minutes {
  readonly setup: number;
  readonly kitting: number;
  readonly perBoard: number;
  readonly boards: number;
  readonly testing: number;
  readonly total: number;
}

function ownMinutes(
  doc: RunDocument,
  parts: readonly LinePart[],
  time: BoardTime,
  quality: YieldEstimate,
  start: number,
): Minutes {
  const setup = setupMinutes(doc.assembly.method);
  const kitting = 0.75 * parts.length;
  const perBoard = time.total / 60 + (doc.assembly.method === "house" ? 0 : quality.reworkMin);
  const testing = start * (doc.assembly.testMinutes + doc.assembly.packMinutes);
  return {
    setup,
    kitting,
    perBoard,
    boards: start * perBoard,
    testing,
    total: setup + kitting + start * perBoard + testing,
  };
}

function partsNode(
  doc: RunDocument,
  parts: readonly LinePart[],
  needs: readonly Need[],
  basket: Basket,
): CostNode {
  const isExpense = doc.choices.leftovers === "expense";
  const used = basket.lines.flatMap((l, i) => {
    const bought = l.buys.reduce((s, b) => s + b.qty, 0);
    if (bought === 0) return [];
    const spend = l.buys.reduce((s, b) => s + b.cost, 0);
    const need = Math.min(bought, needs[i]!.need);
    const share = isExpense ? 1 : need / bought;
    const price =
      l.buys.length === 1 ? microsToText(l.buys[0]!.unitPrice) : microsToText(Math.round(spend / bought));
    const supplier = [
      ...new Set(l.buys.map((b) => doc.suppliers.find((s) => s.id === b.supplier)?.name ?? b.supplier)),
    ].join(", ");
    return [
      {
        label: nameOfLine(parts, l.line),
        micros: spend * share,
        note: `${isExpense ? bought : need} × ${price}${!isExpense && bought > need ? `, ${bought - need} more stay in stock` : ""}`,
        from: supplier,
      },
    ];
  });
  const shipping = Object.entries(basket.shippingOf).map(([id, micros]) => ({
    label: doc.suppliers.find((s) => s.id === id)?.name ?? id,
    micros,
    note: micros === 0 ? "free from its subtotal on" : "one parcel",
  }));
  return branch("parts", "Parts", [
    leaf("parts-used", isExpense ? "parts bought" : "parts used, with what is lost on the way", used),
    leaf("parts-shipping", "shipping of parts", shipping, basket.shipping),
  ]);
}

function boardsNode(doc: RunDocument, orders: readonly BoardOrder[]): CostNode {
  return branch(
    "boards",
    "Bare boards",
    orders.map((o, i) => {
      const currency = o.quoted?.currency ?? doc.house?.currency ?? doc.workshop.currency;
      const rate = rateOf(doc, currency) ?? "1";
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
      const terms = o.quote.sum.map((t) => ({
        label: t.label,
        micros: convertMicros(t.micros, rate) as number,
        ...(t.note || note ? { note: `${t.note ?? ""}${note}`.trim() } : {}),
        from: `profile of ${doc.house?.checkedOn ?? ""}`,
      }));
      const rounding = o.micros - terms.reduce((s, t) => s + t.micros, 0);
      if (rounding !== 0)
        terms.push({ label: "rounding", micros: rounding, from: "the house rounds its sum" });
      return leaf(`board-${i}`, `${o.quote.pieces} × ${o.name}`, terms, convertMicros(fixed, rate));
    }),
  );
}

/** The house that places the parts, or nobody. */
export const assemblyHouse = (doc: RunDocument): House | undefined =>
  doc.assembly.method === "house"
    ? ((doc.houses ?? []).find((h) => h.id === doc.assembly.house && h.assembly) ??
      (doc.houses ?? []).find((h) => h.assembly))
    : undefined;
const assemblyQuote = (doc: RunDocument) =>
  doc.quotes.find((q) => q.kind === "assembly" && q.house === assemblyHouse(doc)?.id);

/** Price of an assembly house (domain.md 7.5): set-up, stencil, unique parts, joints; at least its minimum. */
export function housePrice(
  house: House,
  parts: readonly LinePart[],
  boards: number,
): { label: string; micros: number; note: string }[] {
  const p = house.assembly!;
  const placed = parts.filter((x) => x.method === "house" && x.kind !== "loose");
  const joints = placed.reduce((n, x) => n + x.count * x.joints, 0);
  const terms = [
    { label: "set-up, one side", micros: toMicros(p.setupPerSide) as number, note: p.setupPerSide },
    { label: "stencil", micros: toMicros(p.stencilPerSide) as number, note: p.stencilPerSide },
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

function assemblyNode(doc: RunDocument, parts: readonly LinePart[], m: Minutes, start: number): CostNode {
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
    const exchange = rateOf(doc, quote?.currency ?? house.currency) ?? "1";
    const terms = quote
      ? [
          {
            label: "quotation",
            micros: toMicros(quote.total) as number,
            note: `${quote.total} ${quote.currency}`,
          },
        ]
      : housePrice(house, parts, start);
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
            [{ label: "stencil", micros: toMicros(doc.assembly.stencilPrice), note: "charged to this run" }],
            toMicros(doc.assembly.stencilPrice),
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

function otherNode(doc: RunDocument, start: number): CostNode {
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

function cashList(
  doc: RunDocument,
  basket: Basket,
  orders: readonly BoardOrder[],
  parts: readonly LinePart[],
  start: number,
) {
  const list: { label: string; micros: number; note?: string }[] = [
    { label: "parts, all that is bought", micros: basket.parts },
    { label: "shipping of parts", micros: basket.shipping },
    ...orders.map((o) => ({ label: o.name, micros: o.micros as number, note: doc.house?.name ?? "" })),
  ];
  const house = assemblyHouse(doc);
  if (house) {
    const quote = assemblyQuote(doc);
    const micros = quote
      ? toMicros(quote.total)
      : housePrice(house, parts, start).reduce((s, t) => s + t.micros, 0);
    list.push({
      label: "assembly",
      micros: convertMicros(Math.round(micros), rateOf(doc, quote?.currency ?? house.currency) ?? "1"),
      note: house.name,
    });
  } else {
    if (doc.assembly.method === "stencil")
      list.push({ label: "stencil", micros: toMicros(doc.assembly.stencilPrice) });
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
