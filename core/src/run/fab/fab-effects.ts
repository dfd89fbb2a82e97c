import { notJudged, tightest } from "../../fab/check.ts";
import { fitOptions, givenUp, nameOfValue, valueAt, valuesOf } from "../../fab/fit-options.ts";
import { type House, makesBoards } from "../../fab/house.ts";
import { type FabOptions, type OptionKey, ORDER_OPTIONS } from "../../fab/options.ts";
import { fabQuote } from "../../fab/price.ts";
import { type Micros, microsToNumber } from "../../money/money.ts";
import { type OrderRule, orderRules } from "../../order-sheet/rules.ts";
import { type Change, type Choosing, choose, settle } from "../../order-sheet/settle.ts";
import { boardFacts } from "../document/board-facts.ts";
import type { RunDocument } from "../document/document.ts";
import { checksOf } from "../stage/checks.ts";
import { type Asking, type Effect, type HouseEffect, partly, round1, type WhatIf } from "../stage/effect.ts";
import { guessedOf } from "./fab-notes.ts";

/**
 * The document with another house: its options by meaning, as far as that house has them, and where two of those cannot
 * stand together there, the least change that lets them.
 */
export function withHouse(
  doc: RunDocument,
  house: House,
): { readonly doc: RunDocument; readonly changes: readonly Change[] } {
  const options = fitOptions(house, doc.options);
  const rules = orderRules(
    house,
    doc.boards.map((b) => b.measure),
  );
  const settled = settle(house, rules, options, new Set());
  return { doc: { ...doc, house, options: settled?.options ?? options }, changes: settled?.changes ?? [] };
}

/** Effects of each house, and of each value of every decision of the chosen one. */
export function fabEffects(asking: Asking): Pick<WhatIf, "houses" | "options"> {
  const { house, options } = asking.base;
  const sheet = house && options && new OrderSheet(asking, house, options);
  return {
    // one that cannot make the boards is last
    houses: (asking.doc.houses ?? [])
      .filter(makesBoards)
      .map((h) => houseEffect(asking, h))
      .sort((a, b) => Number(a.cannot !== undefined) - Number(b.cannot !== undefined)),
    options: Object.fromEntries(
      ORDER_OPTIONS.map((key) => [key, sheet ? sheet.effectsOf(key) : []]),
    ) as unknown as WhatIf["options"],
  };
}

/** The chosen house's order sheet: what each value would change, and what would have to change with it. */
class OrderSheet {
  private readonly rules: readonly OrderRule[];
  private readonly asking: Asking;
  private readonly house: House;
  private readonly options: FabOptions;
  constructor(asking: Asking, house: House, options: FabOptions) {
    this.asking = asking;
    this.house = house;
    this.options = options;
    this.rules = orderRules(
      house,
      asking.doc.boards.map((b) => b.measure),
    );
  }

  effectsOf(key: OptionKey): Effect[] {
    const { doc, effect } = this.asking;
    return valuesOf(this.house, key).map((value) => {
      const label = nameOfValue([this.house], key, value);
      const isChosen = valueAt(this.options, key) === value;
      const chosen = choose(this.house, this.rules, this.options, key, value, (o) => this.priceOf(o));
      if ("cannot" in chosen) {
        const elsewhere = this.elsewhere(key, value);
        const none = { perGood: 0, days: 0, cash: 0 };
        return {
          value,
          label,
          ...none,
          isChosen,
          cannot: chosen.cannot,
          ...(elsewhere ? { elsewhere } : {}),
        };
      }
      return effect(value, label, { ...doc, options: chosen.options }, isChosen, undefined, () =>
        isChosen || chosen.changes.length === 0 ? {} : { with: chosen.changes },
      );
    });
  }

  private priceOf(o: FabOptions): number {
    const { doc, base } = this.asking;
    return doc.boards.reduce(
      (n, b) => n + fabQuote(this.house, boardFacts(b.measure), o, base.start * b.perProduct).total,
      0,
    );
  }

  /** Other houses where the value can be chosen. */
  private elsewhere(key: OptionKey, value: string): string {
    const { doc } = this.asking;
    const can = (h: House): boolean => {
      if (!makesBoards(h) || h.id === this.house.id || !valuesOf(h, key).includes(value)) return false;
      const options = fitOptions(h, this.options);
      const rules = orderRules(
        h,
        doc.boards.map((b) => b.measure),
      );
      return !("cannot" in (choose(h, rules, options, key, value) satisfies Choosing));
    };
    return (doc.houses ?? [])
      .filter(can)
      .map((h) => h.name)
      .join(" or ");
  }
}

function houseEffect({ doc, base, roll }: Asking, h: House): HouseEffect {
  const isChosen = base.house?.id === h.id;
  // the chosen one stands as it is: what cannot be there is said in the margin
  const { doc: alternative, changes } = isChosen
    ? { doc: base.house ? { ...doc, options: base.options! } : doc, changes: [] }
    : withHouse(doc, h);
  const r = roll(alternative);
  const checks = checksOf(doc, h, r.options!);
  const breaches = checks.filter((c) => c.level === "cannot");
  const first = breaches[0];
  const least = tightest(checks);
  const boards = r.orders.reduce((s, o) => s + o.micros, 0);
  return {
    value: h.id,
    label: h.name,
    house: h.id,
    isChosen,
    ...(changes.length > 0 ? { with: changes } : {}),
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
    ...(r.orders.some((o) => o.ownMinutes)
      ? { ownHours: r.orders.reduce((n, o) => n + (o.ownMinutes ?? 0), 0) / 60 }
      : {}),
    daysAtDoor: Math.max(0, ...r.orders.map((o) => o.days)),
    breaches,
    unstated: [
      ...new Set(doc.boards.flatMap((b) => notJudged(h, b.measure, r.options!).map((m) => m.short))),
    ],
    isGuessed: guessedOf(h, r.orders).length > 0,
    ...partly(r, base),
    ...(least ? { tightest: least } : {}),
    ...(first
      ? { cannot: `${first.label} is ${Number(first.value.toFixed(3))}, this house holds ${first.limit}` }
      : {}),
  };
}
