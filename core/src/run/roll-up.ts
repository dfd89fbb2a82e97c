import { cleanShare, faultsByKind, learnedFaults } from "../assembly/fault-prior.ts";
import type { Method } from "../assembly/method.ts";
import { ownRecord } from "../assembly/prior.ts";
import { type BoardTime, boardTime, OVEN_CHECK_MIN, setupMinutes, WASH_SECONDS } from "../assembly/time.ts";
import {
  betaBinomialAtLeast,
  binomialAtLeast,
  boardsToStart,
  estimateYield,
  type YieldEstimate,
} from "../assembly/yield.ts";
import { branch, type CostNode } from "../costing/tree.ts";
import { fitOptions } from "../fab/fit-options.ts";
import { type Micros, roundMoney } from "../money/money.ts";
import { bestBasket, bestWithin } from "../sourcing/basket.ts";
import { findBaskets } from "../sourcing/compare-baskets.ts";
import type { Basket, Need } from "../sourcing/need.ts";
import { QUICK_EFFORT } from "../sourcing/optimum.ts";
import { asMade, isWashed } from "./document/bill/as-made.ts";
import { boardsPerProduct } from "./document/boards.ts";
import type { RunDocument } from "./document/document.ts";
import { type LinePart, lineParts, nameOfLine, offersOf, suppliersOf } from "./document/parts.ts";
import { type RunRecord, tallyOf } from "./document/record.ts";
import { runSides } from "./document/sides.ts";
import { goingWays, isMixed, likeRuns } from "./document/ways.ts";
import { type ActualRun, actualOf, asPlanned, countsOf } from "./ledger/actual.ts";
import { needsOf } from "./needs/needs.ts";
import { usesOf } from "./needs/usage.ts";
import { collectNotes } from "./notes.ts";
import { assemblyPlan } from "./orders/assembly-house.ts";
import { unpricedOf } from "./orders/complete.ts";
import { invoicedParts } from "./orders/invoice.ts";
import { ordersOf } from "./orders/order-boards.ts";
import { onSheets, panelOf, partingMinutes, startedOf } from "./sheet/panel.ts";
import { leftoverOf } from "./source/parts-cost.ts";
import { checksOf } from "./stage/checks.ts";
import { mendMinutes } from "./stage/mending.ts";
import type { Minutes } from "./stage/minutes.ts";
import { minutesFor } from "./stage/own-hours.ts";
import { type Branches, readyBy } from "./stage/ready.ts";
import type { BasketCache, CashTerm, RunResult } from "./stage/result.ts";
import type { Worked } from "./stage/stage.ts";
import { STAGES } from "./stages.ts";

/** Days where no stage has any. */
const NO_BRANCHES: Branches = { partsDays: [0, 0], fabDays: 0, fabSigma: 0, houseDays: 0, ownDays: 0 };

/** Cash with the tax on purchases that is got back later. */
function withTax(doc: RunDocument, terms: readonly CashTerm[]): readonly CashTerm[] {
  const { taxRate } = doc.workshop;
  if (taxRate <= 0) return terms;
  const net = terms.reduce((s, t) => s + t.micros, 0);
  return [
    ...terms,
    {
      key: "tax",
      label: "recoverable tax",
      micros: roundMoney(net * taxRate, doc.workshop.currency),
      note: `${Math.round(taxRate * 1000) / 10} % on purchases`,
    },
  ];
}

/** What a roll-up may be given beside the document. */
export interface RollUpWith {
  /** Shared between calls that differ in fab or cost choices only. */
  readonly cache?: BasketCache;
  /** "the best" leaves out the baskets that are only compared, where no other one is chosen. */
  readonly scope?: "all baskets" | "the best";
  /** Notes are left out where only figures are wanted: at every point of a curve, of every alternative. */
  readonly notes?: "all" | "none";
  /**
   * The same run with another house or options of its boards alone: what does not hang on those is taken from here.
   */
  readonly same?: RunResult;
  /** What happened since the release: then the difference is explained. */
  readonly record?: RunRecord;
}

/**
 * Rolls a run up: boards to start, parts to buy, baskets, boards, own hours, cost tree, cash, dates, notes.
 *
 * Cost per good board = total / (started × final yield), NRE charged to this run (domain.md 8.1). Money is exact to the
 * millionth; documents round. The same code runs in the page and in the server. The document alone decides every figure
 * but `actual`, which the record gives.
 */
export function rollUp(
  given: RunDocument,
  { cache = new Map(), scope = "all baskets", notes: wanted = "all", record, same }: RollUpWith = {},
): RunResult {
  const doc = asMade(given);
  const { w, chance, baskets } = workOut(doc, same ?? beforeBoards(doc, cache, scope));
  const expectedGood = w.start * w.quality.final;
  const costs = STAGES.map((s) => [s.key, s.cost?.(w)] as const);
  const tree = branch(
    "run",
    "Run",
    costs.flatMap(([, node]) => node ?? []),
  );
  const cash = withTax(
    doc,
    STAGES.flatMap((s) => s.cash?.(w) ?? []),
  );
  const days = Object.assign({ ...NO_BRANCHES }, ...STAGES.map((s) => s.ready?.(w) ?? {})) as Branches;
  const notes = wanted === "none" ? [] : notesOf(w);
  const uncovered = w.basket.lines.filter((l) => l.missing > 0);
  return {
    start: w.start,
    expectedGood,
    chance,
    yield: w.quality,
    parts: w.parts,
    needs: w.needs,
    basket: w.basket,
    baskets: withChosen(baskets, w.basket),
    invoiced: w.invoiced,
    ...(w.house ? { house: w.house } : {}),
    ...(w.options ? { options: w.options } : {}),
    checks: w.checks,
    orders: w.orders,
    guests: w.guests,
    sides: w.sides,
    goes: w.goes,
    ...(w.plan ? { assembly: w.plan } : {}),
    time: w.time,
    ownMinutes: w.minutes.total,
    minutes: w.minutes,
    tree,
    total: tree.micros,
    perGood: Math.round(tree.micros / expectedGood) as Micros,
    cashNeeded: Math.round(cash.reduce((s, c) => s + c.micros, 0)) as Micros,
    cash,
    leftover: leftoverOf(doc, w.needs, w.basket),
    ready: readyBy(doc.today, days),
    unpriced: unpricedOf(
      doc,
      uncovered.map((l) => nameOfLine(doc, w.parts, l.line)),
      w,
    ),
    notes,
    blockers: notes.filter((n) => n.level === "error" && !n.acceptedBecause),
    ...(record ? { actual: whatHappened(w, costs, record, expectedGood) } : {}),
    stages: Object.fromEntries(
      costs.map(([key, node], i) => [
        key,
        { micros: (node?.micros ?? 0) / expectedGood, days: STAGES[i]!.days?.(w) ?? 0 },
      ]),
    ) as RunResult["stages"],
  };
}

const notesOf = (w: Worked) =>
  collectNotes(w.doc, (add) => {
    for (const s of STAGES) s.notes?.(w, add);
  });

/** What does not hang on which house makes the boards and how. */
type BeforeBoards = Pick<
  RunResult,
  "parts" | "yield" | "start" | "chance" | "needs" | "basket" | "baskets" | "invoiced" | "sides" | "time"
>;

/** Boards to start, parts to buy and where, own time. */
function beforeBoards(doc: RunDocument, cache: BasketCache, scope: RollUpWith["scope"]): BeforeBoards {
  const parts = lineParts(doc);
  const quality = qualityOf(doc, parts);
  const { record: own } = quality;
  const chanceOf = (n: number) =>
    own
      ? betaBinomialAtLeast(n, doc.goodBoards, own.a, own.b)
      : binomialAtLeast(n, doc.goodBoards, quality.final);
  const panel = panelOf(doc);
  const start = startedOf(doc, panel, boardsToStart(doc.goodBoards, doc.confidence, chanceOf));
  const needs = needsOf(doc, parts, offersOf(doc), start);
  const baskets = basketsFor(doc, needs, cache, scope !== "the best" || !!doc.choices.basket?.length);
  const basket = chosenBasket(doc, needs, baskets, cache);
  const sides = runSides(doc, parts);
  const time = onSheets(
    boardTime(parts, doc.assembly.perLoad, boardsPerProduct(doc), sides.own.perProduct),
    doc,
    panel,
    sides.own,
  );
  const invoiced = invoicedParts(doc, basket);
  return {
    parts,
    yield: quality,
    invoiced,
    start,
    chance: chanceOf(start),
    needs,
    basket,
    baskets,
    sides,
    time,
  };
}

/** What all stages speak of: with the house's orders and what follows from them. */
function workOut(
  doc: RunDocument,
  { parts, yield: quality, start, chance, needs, basket, baskets, invoiced, sides, time }: BeforeBoards,
): { w: Worked; chance: number; baskets: readonly Basket[] } {
  const { house } = doc;
  const options = house ? fitOptions(house, doc.options) : undefined;
  const checks = house && options ? checksOf(doc, house, options) : [];
  const { own: orders, guests } =
    house && options ? ordersOf(doc, house, options, start) : { own: [], guests: [] };
  const goes = goingWays(doc, parts);
  const plan = !goes.has("house")
    ? undefined
    : assemblyPlan(doc, parts, orders, needs, basket, start, sides.house);
  const minutes = ownMinutes(doc, parts, goes, time, quality, start, sides.own.ofDesigns);
  const w = {
    doc,
    parts,
    quality,
    start,
    needs,
    basket,
    invoiced,
    house,
    options,
    checks,
    orders,
    guests,
    sides,
    goes,
    plan,
    time,
    minutes,
  };
  return { w, chance, baskets };
}

/** The quality the model expects, or, where boards of the product were built in the same way, what both say together. */
function qualityOf(doc: RunDocument, parts: readonly LinePart[]): YieldEstimate {
  const model = estimateYield(parts);
  // of a run whose parts go several ways no other one tells anything, nor does it of others
  const like = isMixed(doc) ? [] : likeRuns(doc);
  const record = ownRecord(model.final, like);
  const final = record ? { final: record.a / (record.a + record.b), record } : {};
  const faults = learnedFaults(faultsByKind(parts), like);
  if (!faults) return { ...model, ...final };
  // minutes of mending stay the model's: what they really took is in the hours of those runs already
  const firstPass = cleanShare(parts, faults.factors);
  return { ...model, ...final, lambda: -Math.log(firstPass), firstPass, faults };
}

/** Plan against record, stage by stage. */
function whatHappened(
  w: Worked,
  costs: readonly (readonly [string, CostNode | undefined])[],
  record: RunRecord,
  expectedGood: number,
): ActualRun {
  const tally = tallyOf(record.work);
  const counts = countsOf(w.start, expectedGood, tally);
  const uses = usesOf(w.doc, w.parts, w, record);
  const terms = STAGES.flatMap((s, i) => {
    const planned = costs[i]![1];
    if (!planned) return [];
    return s.actual?.({ w, planned, record, tally, counts, uses }) ?? [asPlanned(planned)];
  });
  const model = minutesFor(w.minutes, w.start, counts.actual.started);
  return actualOf(terms, tally, counts, { planned: model, actual: tally.minutes }, uses);
}

/** Key of needs in a {@link BasketCache}. */
export const basketKey = (needs: readonly Need[]): string =>
  needs
    .map(
      (n) =>
        `${n.id}:${n.need}:${n.pinned ?? ""}/${n.offers.map((o) => `${o.moq}${o.part ? ` ${o.id}` : ""}`).join()}`,
    )
    .join("|");

function basketsFor(doc: RunDocument, needs: readonly Need[], cache: BasketCache, all: boolean): Basket[] {
  const key = basketKey(needs);
  let found = cache.get(key);
  if (!found) {
    if (!all) {
      const alone = `the best of ${key}`;
      const best = cache.get(alone) ?? [bestBasket(needs, suppliersOf(doc), { effort: QUICK_EFFORT }).basket];
      cache.set(alone, best);
      return best;
    }
    found = findBaskets(needs, suppliersOf(doc));
    cache.set(key, found);
  }
  return found;
}

/** The list with the chosen basket in the place of the one from the same suppliers. */
const withChosen = (baskets: readonly Basket[], chosen: Basket): readonly Basket[] => {
  const key = chosen.suppliers.join();
  return baskets.map((b) => (b.suppliers.join() === key ? chosen : b));
};

/** The best basket, or the best one from the suppliers a person chose: just what the choice was promised to cost. */
function chosenBasket(
  doc: RunDocument,
  needs: readonly Need[],
  baskets: readonly Basket[],
  cache: BasketCache,
): Basket {
  const wish = new Set(doc.choices.basket);
  const chosen = suppliersOf(doc).filter((s) => wish.has(s.id));
  if (chosen.length === 0 || baskets[0]!.suppliers.join() === chosen.map((s) => s.id).join())
    return baskets[0]!;
  const key = `${basketKey(needs)} from ${chosen.map((s) => s.id).join(" ")}`;
  let found = cache.get(key)?.[0];
  if (!found) {
    found = bestWithin(needs, chosen);
    cache.set(key, [found]);
  }
  return found;
}

function ownMinutes(
  doc: RunDocument,
  parts: readonly LinePart[],
  goes: ReadonlySet<Method>,
  time: BoardTime,
  quality: YieldEstimate,
  start: number,
  sides: number,
): Minutes {
  // as the shop's record has it where it has one
  const k = quality.record?.timeFactor ?? 1;
  const isOven = goes.has("stencil") && doc.assembly.heater === "oven";
  const designs = Math.max(1, doc.boards.length);
  // an iron beside paste or after a house is set up with those
  const setUp = [...goes].filter((m) => m !== "iron" || goes.size === 1);
  const ways = setUp.reduce((n, m) => n + setupMinutes(m, designs, sides), 0);
  const setup = k * (ways + (isOven ? OVEN_CHECK_MIN : 0));
  const kitting = k * 0.75 * parts.length;
  const perBoard = k * (time.total / 60 + mendMinutes(doc, parts, quality));
  const testing = k * start * (doc.assembly.testMinutes + doc.assembly.packMinutes);
  const parting = k * partingMinutes(doc, start);
  const cleaning = isWashed(doc, parts) ? (k * start * boardsPerProduct(doc) * WASH_SECONDS) / 60 : 0;
  return {
    setup,
    kitting,
    perBoard,
    boards: start * perBoard,
    testing,
    parting,
    cleaning,
    total: setup + kitting + start * perBoard + testing + parting + cleaning,
  };
}
