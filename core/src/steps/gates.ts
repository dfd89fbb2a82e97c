import { DIAGNOSIS_MIN } from "../assembly/yield.ts";
import type { Micros } from "../money/money.ts";
import type { Step, StepKind, Work } from "./step.ts";

/** Steps at which what was done before is looked at. */
export const isGate = (kind: StepKind): boolean => kind === "inspect" || kind === "test";

/**
 * Steps with what each gate protects: the money lost if what it looks at were found one gate later.
 *
 * λ: expected defects of a board from all that was soldered before it, those among them that an earlier gate finds too, so
 * that it is a bound from above; V: the parts and own minutes that go into a board up to the next gate, as far as prices are
 * known. Of the boards started 1 − e^(−λ) fail, each costs the minutes of finding the defect; and 1 − e^(−λ(1 − r)) are lost
 * with V in them (r: share that can be mended, domain.md 7.4).
 */
export function gatesOf(work: Work, steps: readonly Step[]): Step[] {
  const parts = new Map(work.parts.map((p) => [p.name, p]));
  const fitted = (s: Step) => s.lines.flatMap((l) => l.refs.flatMap((r) => parts.get(r) ?? []));
  const at = steps.flatMap((s, i) => (isGate(s.kind) ? [i] : []));
  return steps.map((s, i) => {
    const k = at.indexOf(i);
    if (k < 0) return s;
    const seen = steps.slice(0, i);
    const next = steps.slice(i + 1, (at[k + 1] ?? steps.length) + 1);
    const lambda = seen.flatMap(fitted).reduce((n, p) => n + p.defects, 0);
    const worth =
      next.flatMap(fitted).reduce((n, p) => n + p.micros, 0) +
      (next.reduce((n, t) => n + t.minutes, 0) / Math.max(1, work.start)) * work.minuteMicros;
    const failing = 1 - Math.exp(-lambda);
    const lost = 1 - Math.exp(-lambda * (1 - work.repairable));
    const searched = Math.round(work.start * failing * DIAGNOSIS_MIN * work.minuteMicros) as Micros;
    const spoilt = Math.round(work.start * lost * worth) as Micros;
    return { ...s, protects: { searched, spoilt, all: (searched + spoilt) as Micros } };
  });
}

/** How an order compares with another: what a school is chosen by. */
export interface OrderFigures {
  /** How often another bag is opened, over all steps. */
  readonly bags: number;
  /** Own minutes more than where every bag is opened once: each time takes as long as laying one out. */
  readonly moreMinutes: number;
  /** Expected loss over the run: what each part costs × the chance that what is soldered after it, up to its test, spoils the board. */
  readonly atRisk: Micros;
}

/** Bag changes, the minutes they take and money at risk of an order (domain.md 7.4: share of defects that cannot be mended). */
export function figuresOf(work: Work, steps: readonly Step[]): OrderFigures {
  const parts = new Map(work.parts.map((p) => [p.name, p]));
  const row = steps.flatMap((s) =>
    s.kind === "place" || s.kind === "iron" || s.kind === "mechanical"
      ? s.refs.map((r) => parts.get(r)!)
      : [],
  );
  let bags = 0;
  row.forEach((p, i) => {
    if (p.line !== row[i - 1]?.line) bags++;
  });
  let lambda = 0;
  let atRisk = 0;
  for (const p of [...row].reverse()) {
    atRisk += p.micros * (1 - Math.exp(-lambda * (1 - work.repairable)));
    lambda += p.defects;
  }
  const once = new Set(row.map((p) => p.line)).size;
  return {
    bags,
    moreMinutes: (bags - once) * work.bagMinutes,
    atRisk: Math.round(work.start * atRisk) as Micros,
  };
}

/** What a gate costs: its own minutes, without those to mend what it finds, which have to be spent wherever it is found. */
export const gateCost = (work: Work, step: Pick<Step, "kind" | "minutes">): Micros =>
  Math.round(
    (step.minutes - (step.kind === "inspect" ? (work.minutes.mend ?? 0) : 0)) * work.minuteMicros,
  ) as Micros;
