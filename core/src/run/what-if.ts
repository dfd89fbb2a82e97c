import { type LimitCheck, tightest } from "../fab/check.ts";
import { type FabOptionKey, fitOptions, type Given, givenUp, type House } from "../fab/house.ts";
import { type Micros, microsToNumber } from "../money/money.ts";
import { countUnpriced, isComplete, withoutStockLimits } from "./complete.ts";
import type { RunDocument } from "./document.ts";
import { type BasketCache, checksOf, type RunResult, rollUp } from "./roll-up.ts";

/** What an alternative would change, before it is chosen. */
export interface Effect {
  readonly value: string;
  readonly label: string;
  readonly perGood: number;
  readonly days: number;
  readonly cash: number;
  readonly isChosen: boolean;
  /** What the whole run costs more or less, the parts that stay with it, and good ones left over on average, where that is what is decided. */
  readonly run?: number;
  readonly spares?: number;
  /** Left out of the figures before and after: the difference is of what is priced only. */
  readonly isPartial?: boolean;
  /** Why it cannot be chosen. */
  readonly cannot?: string;
}

/** A house seen from this run. */
export interface HouseEffect extends Effect {
  readonly house: string;
  readonly boardsPerGood: number;
  readonly boardsTotal: number;
  readonly pieces: number;
  /** Its price is a quotation that holds, not the estimate. */
  readonly isQuoted: boolean;
  /** Pieces that would do, where more of them cost less. */
  readonly insteadOf?: number;
  readonly daysAtDoor: number;
  /** What of the options chosen it does not have, with what it has in their place. */
  readonly gives: readonly Given[];
  readonly tightest?: LimitCheck;
  readonly breaches: readonly LimitCheck[];
}

/** All single changes of a run. */
export interface WhatIf {
  readonly houses: readonly HouseEffect[];
  readonly options: Readonly<Record<FabOptionKey | "leadDays", readonly Effect[]>>;
  readonly methods: readonly Effect[];
  readonly confidence: readonly Effect[];
  readonly leftovers: readonly Effect[];
}

/** The document with another house, its options brought to what that house has. */
export const withHouse = (doc: RunDocument, house: House): RunDocument => ({
  ...doc,
  house,
  options: fitOptions(house, doc.options),
});

/**
 * Effects of every single change: each house, each option value at the chosen house, each way to solder, confidence,
 * left-overs. Baskets are shared where the needs do not change.
 */
export function whatIf(doc: RunDocument, base: RunResult, cache: BasketCache = new Map()): WhatIf {
  const effect = (
    value: string,
    label: string,
    alternative: RunDocument,
    isChosen: boolean,
    cannot?: string,
    more: (r: RunResult) => Partial<Effect> = () => ({}),
  ): Effect => {
    if (isChosen) return { value, label, perGood: 0, days: 0, cash: 0, isChosen, ...more(base) };
    try {
      const r = rollUp(alternative, cache);
      return {
        value,
        label,
        perGood: microsToNumber(r.perGood - base.perGood),
        days: round1(r.ready.days - base.ready.days),
        cash: microsToNumber(r.cashNeeded - base.cashNeeded),
        isChosen,
        ...partly(r, base),
        ...(cannot ? { cannot } : {}),
        ...more(r),
      };
    } catch (error) {
      return {
        value,
        label,
        perGood: 0,
        days: 0,
        cash: 0,
        isChosen,
        cannot: error instanceof Error ? error.message : "not possible",
      };
    }
  };
  const house = base.house;
  const options = base.options;
  const list = (key: FabOptionKey): Effect[] =>
    house && options
      ? house.options[key].map((o) =>
          effect(
            o.value,
            o.label,
            { ...doc, options: { ...options, [key]: o.value } },
            options[key] === o.value,
            key === "legend" && o.value === options.mask ? "not readable on this mask" : undefined,
          ),
        )
      : [];
  const leads =
    house && options
      ? house.price.lead.map((l) =>
          effect(
            String(l.days),
            `${l.days} days`,
            { ...doc, options: { ...options, leadDays: l.days } },
            options.leadDays === l.days,
          ),
        )
      : [];
  const makers = (doc.houses ?? []).filter((h) => h.assembly);
  const hasHandParts = base.parts.some(
    (p) => p.kind !== "loose" && (p.kind === "through" || p.line.mount === "hand"),
  );
  const hasPaste = doc.boards.every((b) => Object.values(b.measure.paste).some((p) => p.count > 0));
  return {
    houses: (doc.houses ?? []).map((h) => houseEffect(doc, base, h, cache)),
    options: {
      thickness: list("thickness"),
      copper: list("copper"),
      finish: list("finish"),
      mask: list("mask"),
      legend: list("legend"),
      leadDays: leads,
    },
    methods: [
      effect(
        "iron",
        "own iron, part by part",
        { ...doc, assembly: { ...doc.assembly, method: "iron" } },
        doc.assembly.method === "iron",
      ),
      effect(
        "stencil",
        "own stencil and hot plate",
        { ...doc, assembly: { ...doc.assembly, method: "stencil" } },
        doc.assembly.method === "stencil",
        hasPaste ? undefined : "there is no paste layer",
      ),
      ...makers.flatMap((h) =>
        (hasHandParts ? (["here", "house"] as const) : (["here"] as const)).map((handParts) =>
          effect(
            handParts === "here" ? `house:${h.id}` : `house:${h.id}:all`,
            !hasHandParts
              ? `${h.name} places`
              : handParts === "here"
                ? `${h.name} places, hand parts stay here`
                : `${h.name} solders all`,
            { ...doc, assembly: { ...doc.assembly, method: "house", house: h.id, handParts } },
            doc.assembly.method === "house" &&
              base.assembly?.house.id === h.id &&
              (!hasHandParts || (doc.assembly.handParts ?? "here") === handParts),
            doc.placements.length === 0 ? "there is no placement file" : undefined,
          ),
        ),
      ),
    ],
    confidence: [0.5, 0.8, 0.9, 0.95, 0.99].map((c) =>
      effect(
        String(c),
        `${Math.round(c * 100)} % sure`,
        { ...doc, confidence: c },
        doc.confidence === c,
        undefined,
        (r) => {
          // spare ones are kept, not sold: what more of them cost is borne by the good ones that were wanted
          // and a step of price at which more stays on the shelf makes nothing cheaper: it counts with what stays
          const spent = (x: RunResult) => x.total + x.leftover;
          const run = microsToNumber((spent(r) - spent(base)) as Micros);
          return { perGood: run / doc.goodBoards, run, spares: Math.max(0, r.expectedGood - doc.goodBoards) };
        },
      ),
    ),
    leftovers: (["stock", "expense"] as const).map((v) =>
      effect(
        v,
        v === "stock" ? "kept as stock value" : "charged to this run",
        { ...doc, choices: { ...doc.choices, leftovers: v } },
        (doc.choices.leftovers ?? "stock") === v,
      ),
    ),
  };
}

/** Whether a difference leaves something out on either side. */
const partly = (a: RunResult, b: RunResult): { isPartial?: boolean } =>
  isComplete(a.unpriced) && isComplete(b.unpriced) ? {} : { isPartial: true };

const round1 = (v: number) => Math.round(v * 10) / 10;

function houseEffect(doc: RunDocument, base: RunResult, h: House, cache: BasketCache): HouseEffect {
  const alternative = withHouse(doc, h);
  const r = rollUp(alternative, cache);
  const checks = checksOf(doc, h, r.options!);
  const breaches = checks.filter((c) => c.level === "cannot");
  const first = breaches[0];
  const least = tightest(checks);
  const boards = r.orders.reduce((s, o) => s + o.micros, 0);
  return {
    value: h.id,
    label: h.name,
    house: h.id,
    isChosen: base.house?.id === h.id,
    perGood: microsToNumber(r.perGood - base.perGood),
    days: round1(r.ready.days - base.ready.days),
    cash: microsToNumber((r.cashNeeded - base.cashNeeded) as Micros),
    boardsPerGood: microsToNumber(boards / r.expectedGood),
    boardsTotal: microsToNumber(boards),
    pieces: r.orders.reduce((n, o) => n + o.quote.pieces, 0),
    ...(r.orders.some((o) => o.quote.insteadOf)
      ? { insteadOf: r.orders.reduce((n, o) => n + (o.quote.insteadOf?.pieces ?? o.quote.pieces), 0) }
      : {}),
    isQuoted: r.orders.some((o) => o.quoted !== undefined),
    gives: givenUp(h, doc.options, doc.houses ?? []),
    daysAtDoor: Math.max(0, ...r.orders.map((o) => o.days)),
    breaches,
    ...partly(r, base),
    ...(least ? { tightest: least } : {}),
    ...(first
      ? { cannot: `${first.label} is ${Number(first.value.toFixed(3))}, this house holds ${first.limit}` }
      : {}),
  };
}

/** One point of the cost curve. */
export interface CurvePoint {
  readonly quantity: number;
  readonly perGood: number;
  readonly total: number;
  readonly start: number;
  /** More is needed than is in stock: the known prices carried on as if there were more. */
  readonly isEstimate?: boolean;
  /** Things that nothing prices at this quantity, left out of the figures. */
  readonly unpriced?: number;
}

/**
 * Forty quantities from 1 to about twenty times the run, evenly spread on a logarithmic rule, the run's own among them.
 */
export function curveQuantities(goodBoards: number, count = 40): number[] {
  const top = Math.max(100, Math.min(5000, goodBoards * 20));
  const out = new Set<number>([goodBoards]);
  for (let k = 0; out.size < count && k < 400; k++) {
    const steps = count - 1;
    const v = Math.round(top ** ((k % (steps + 1)) / steps)) + Math.floor(k / (steps + 1));
    out.add(Math.max(1, v));
  }
  return [...out].sort((a, b) => a - b);
}

/**
 * Cost per good board at one quantity, everything else as chosen. Beyond the stock the missing pieces would cost nothing:
 * there the known prices are carried on as if the stock went on, which is an estimate and called so.
 */
export function curvePoint(doc: RunDocument, quantity: number): CurvePoint {
  const at = { ...doc, goodBoards: quantity };
  const known = rollUp(at, undefined, "the best");
  const isShort = known.unpriced.lines.length > 0;
  const r = isShort ? rollUp(withoutStockLimits(at), undefined, "the best") : known;
  const unpriced = countUnpriced(r);
  return {
    quantity,
    perGood: microsToNumber(r.perGood),
    total: microsToNumber(r.total),
    start: r.start,
    ...(isShort && r.unpriced.lines.length < known.unpriced.lines.length ? { isEstimate: true } : {}),
    ...(unpriced > 0 ? { unpriced } : {}),
  };
}
