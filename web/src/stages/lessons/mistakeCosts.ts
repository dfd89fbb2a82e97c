import type { MistakesOfYear } from "@kobbin/contract";
import { classOf, type Micros, roundMoney, type shapes } from "@kobbin/core";

type DefectClass = shapes.DefectClass;

/** What one kind of mistake cost. */
export interface MistakeCost {
  readonly name: string;
  readonly n: number;
  readonly isBoards: boolean;
  readonly minutes: number;
  /** In the shop's currency, rounded as it is shown: the rows add up to their sum. */
  readonly cost: Micros;
  /** Of them nobody wrote down what they took: they are not in the cost. */
  readonly unknown: number;
}

const CLASSES: Readonly<Record<DefectClass, string>> = {
  joint: "joints",
  placement: "placing",
  part: "parts",
  board: "bare boards",
  process: "handling, programs",
  design: "the design",
};

/** Mistakes by kind, the dearest first: minutes at the shop's hour, and boards that were given up at what a good one costs. */
export function costsOf(m: MistakesOfYear, hourlyRate: number, currency: string): MistakeCost[] {
  const rounded = (cost: number) => roundMoney(1e6 * cost, currency);
  const at = (minutes: number) => rounded((minutes / 60) * hourlyRate);
  const byClass = new Map<DefectClass, { n: number; minutes: number; unknown: number }>();
  for (const f of m.faults) {
    const row = byClass.get(classOf(f.code)) ?? { n: 0, minutes: 0, unknown: 0 };
    byClass.set(classOf(f.code), {
      n: row.n + f.n,
      minutes: row.minutes + f.minutes,
      unknown: row.unknown + f.untimed,
    });
  }
  const faults = [...byClass].map(
    ([of, r]): MistakeCost => ({ name: CLASSES[of], ...r, isBoards: false, cost: at(r.minutes) }),
  );
  const boards = m.scrapped.reduce((n, s) => n + s.boards, 0);
  const scrapped: MistakeCost = {
    name: "boards given up",
    n: boards,
    isBoards: true,
    minutes: 0,
    cost: rounded(m.scrapped.reduce((n, s) => n + s.boards * (s.perBoard ?? 0), 0)),
    unknown: m.scrapped.reduce((n, s) => n + (s.perBoard === undefined ? s.boards : 0), 0),
  };
  const reworked: MistakeCost = {
    name: "known faults worked around",
    n: m.reworked.n,
    isBoards: true,
    minutes: m.reworked.minutes,
    cost: at(m.reworked.minutes),
    unknown: m.reworked.untimed,
  };
  return [...faults, scrapped, reworked].filter((r) => r.n > 0).sort((a, b) => b.cost - a.cost || b.n - a.n);
}
