import type { LimitCheck } from "../../fab/check.ts";
import type { Given } from "../../fab/fit-options.ts";
import type { OptionKey } from "../../fab/options.ts";
import { microsToNumber } from "../../money/money.ts";
import type { Change } from "../../order-sheet/settle.ts";
import type { RunDocument } from "../document/document.ts";
import type { BoardCheck } from "../document/note.ts";
import { isComplete } from "../orders/complete.ts";
import type { RunResult } from "./result.ts";
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
  /** What else has to change with it, and why; the figures are with those changes. */
  readonly with?: readonly Change[];
  /** Why it cannot be chosen. */
  readonly cannot?: string;
  /** Where it could be, since it cannot be here. */
  readonly elsewhere?: string;
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
  /** Own hours the boards take, where they are made here. */
  readonly ownHours?: number;
  readonly daysAtDoor: number;
  /** What of the options chosen it does not have, with what it has in their place. */
  readonly gives: readonly Given[];
  readonly tightest?: LimitCheck;
  readonly breaches: readonly BoardCheck[];
  /** What would stop it and it does not say from where on. */
  readonly unstated: readonly string[];
  /** Its price for these pieces is a guess from what it quoted for others. */
  readonly isGuessed: boolean;
}

/** All single changes of a run. */
export interface WhatIf {
  readonly houses: readonly HouseEffect[];
  /** By decision, in the order they are shown; one the house has no list for is empty. */
  readonly options: Readonly<Record<OptionKey, readonly Effect[]>>;
  readonly methods: readonly Effect[];
  readonly confidence: readonly Effect[];
  /** A new foil, and each the shop has of the product's boards. */
  readonly foils: readonly Effect[];
  /** Where a new foil is bought, and in which form. */
  readonly foilsAt: readonly Effect[];
  readonly leftovers: readonly Effect[];
  /** What becomes of boards the sheets have beyond those that are needed; empty where they have none. */
  readonly overrun: readonly Effect[];
}

/** How a stage asks what an alternative would change. */
export interface Asking {
  readonly doc: RunDocument;
  readonly base: RunResult;
  /** Rolls an alternative up; baskets are shared where the needs do not change. */
  readonly roll: (doc: RunDocument) => RunResult;
  /**
   * The effect of one alternative. @param cannot why it may not be chosen though its figures are known
   * @param more what is told of it besides
   */
  readonly effect: (
    value: string,
    label: string,
    alternative: RunDocument,
    isChosen: boolean,
    cannot?: string,
    more?: (r: RunResult) => Partial<Effect>,
  ) => Effect;
}

/** Ways of asking for the effects of a run's alternatives. */
export function asking(doc: RunDocument, base: RunResult, roll: (doc: RunDocument) => RunResult): Asking {
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
      const r = roll(alternative);
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
  return { doc, base, roll, effect };
}

/** Whether a difference leaves something out on either side. */
export const partly = (a: RunResult, b: RunResult): { isPartial?: boolean } =>
  isComplete(a.unpriced) && isComplete(b.unpriced) ? {} : { isPartial: true };

/** Days to a tenth. */
export const round1 = (v: number) => Math.round(v * 10) / 10;
