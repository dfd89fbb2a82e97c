import {
  figuresOf,
  type OrderFigures,
  type PlanOfRun,
  SCHOOLS,
  type School,
  type Step,
  type StepKind,
  type Work,
  whyNotBefore,
  workOrder,
} from "@kobbin/core";

/** What each school would make of it. */
export function schoolsOf(work: Work): { readonly school: School; readonly figures: OrderFigures }[] {
  return SCHOOLS.map((school) => {
    const { own: _, ...plain } = work;
    const as = { ...plain, school };
    return { school, figures: figuresOf(as, workOrder(as).steps) };
  });
}

/** What of the bench a step takes up. */
export type Lane = "hands" | "heat" | "bath" | "meter";
export const LANE_OF: Readonly<Record<StepKind, Lane>> = {
  kit: "hands",
  "program-before": "meter",
  print: "hands",
  place: "hands",
  heat: "heat",
  turn: "hands",
  iron: "hands",
  trim: "hands",
  clean: "bath",
  depanel: "hands",
  mechanical: "hands",
  inspect: "hands",
  program: "meter",
  test: "meter",
  seal: "hands",
};

/** A step on the strip: where it begins and ends, as shares of the whole. */
export interface Bar {
  readonly step: Step;
  readonly lane: Lane;
  readonly from: number;
  readonly share: number;
}

/** Steps one after the other over the whole time; what takes no time of its own has a sliver. */
export function stripOf(steps: readonly Step[]): {
  readonly lanes: readonly Lane[];
  readonly bars: readonly Bar[];
} {
  const all = steps.reduce((n, s) => n + s.minutes, 0) || 1;
  let at = 0;
  const bars = steps.map((step): Bar => {
    const from = at / all;
    at += step.minutes;
    return { step, lane: LANE_OF[step.kind], from, share: step.minutes / all };
  });
  const lanes = (["hands", "heat", "bath", "meter"] as const).filter((l) => bars.some((b) => b.lane === l));
  return { lanes, bars };
}

type Moved = { readonly own: readonly string[] } | { readonly why: string } | undefined;
type OfPlan = Pick<PlanOfRun, "work" | "order">;

/** What comes of moving a line one place up or down within its step: the lines in their new order, or why it cannot be. */
export const movedLine = (plan: OfPlan, step: Step, line: string, by: -1 | 1): Moved =>
  placedLine(plan, step, line, step.lines.findIndex((l) => l.line === line) + by);

/**
 * What comes of moving a line to a place within its step: the lines in their new order, or the rule that keeps it from
 * there, by the first of those it would pass; undefined where there is no such place, or it is there.
 */
export function placedLine({ work, order }: OfPlan, step: Step, line: string, to: number): Moved {
  const lines = step.lines.map((l) => l.line);
  const at = lines.indexOf(line);
  if (at < 0 || to === at || to < 0 || to >= lines.length) return undefined;
  const wished = lines.toSpliced(at, 1).toSpliced(to, 0, line);
  const own = order.steps.flatMap((s) => (s.n === step.n ? wished : s.lines.map((l) => l.line)));
  const unique = [...new Set(own)];
  const after = workOrder({ ...work, own: unique }).steps.find((s) => s.lines.some((l) => l.line === line));
  const became = after?.lines.map((l) => l.line) ?? [];
  const passed = to < at ? lines.slice(to, at).reverse() : lines.slice(at + 1, to + 1);
  const isPast = (other: string) =>
    to < at ? became.indexOf(line) < became.indexOf(other) : became.indexOf(line) > became.indexOf(other);
  const held = passed.find((other) => !isPast(other));
  if (held === undefined) return { own: unique };
  const [first, second] = to < at ? [line, held] : [held, line];
  return {
    why: whyNotBefore(work, order.first, first, second) ?? "The rules of this step leave them as they are.",
  };
}

/** "1 h 20 min", "18 min". */
export function minutesWords(minutes: number): string {
  const whole = Math.round(minutes);
  if (whole < 60) return whole === 0 && minutes > 0 ? "under 1 min" : `${whole} min`;
  const h = Math.floor(whole / 60);
  return whole % 60 === 0 ? `${h} h` : `${h} h ${whole % 60} min`;
}
