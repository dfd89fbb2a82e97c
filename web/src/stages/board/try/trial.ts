import type { BareFault, BareTest, Probe } from "@kobbin/core";

/** What the meter said, statement by statement: true where it beeped. */
export type Answers = readonly boolean[];

/** Whether what the meter said is what should be. */
export const holds = (p: Probe, beeped: boolean): boolean => beeped === (p.expect === "joined");

/** "J1.1 – J1.2", or the places where no pad has a name. */
export const placesOf = (p: Probe): string =>
  [p.a, p.b].map((at) => at.pad ?? `${at.x.toFixed(1)} / ${at.y.toFixed(1)}`).join(" – ");

/** Statements that did not hold. */
export const faultsOf = (probes: readonly Probe[], answers: Answers): BareFault[] =>
  probes.flatMap((p, i) => {
    const beeped = answers[i];
    return beeped === undefined || holds(p, beeped)
      ? []
      : [{ nets: p.nets, at: placesOf(p), expect: p.expect }];
  });

/** "GND – VCC beeps", "SDA is silent". */
export const faultWords = (f: BareFault): string =>
  `${f.nets.join(" – ")} ${f.expect === "apart" ? "beeps" : "is silent"} (${f.at})`;

/** Faults over the boards of a lot, those on most boards first: one that returns is the house's, or the design's. */
export function faultMap(
  tests: readonly BareTest[],
): { readonly fault: BareFault; readonly boards: number }[] {
  const found = new Map<string, { fault: BareFault; boards: number }>();
  for (const t of tests)
    for (const fault of t.faults) {
      const key = `${fault.at} ${fault.expect}`;
      const known = found.get(key);
      if (known) known.boards++;
      else found.set(key, { fault, boards: 1 });
    }
  return [...found.values()].sort((a, b) => b.boards - a.boards);
}

/** The number the next board would get: one after the greatest so far. */
export const nextLabel = (tests: readonly BareTest[]): string =>
  String(1 + tests.reduce((n, t) => Math.max(n, /^\d{1,6}$/.test(t.label) ? Number(t.label) : 0), 0));

const keyOf = (boardId: string) => `kobbin-trial ${boardId}`;

/** Answers that were given before the page went away, of the same list. */
export function keptAnswers(boardId: string, probes: readonly Probe[]): Answers {
  try {
    const { of, answers } = JSON.parse(sessionStorage.getItem(keyOf(boardId)) ?? "{}") as {
      of?: string;
      answers?: unknown;
    };
    return of === listKey(probes) && Array.isArray(answers) ? answers.map(Boolean) : [];
  } catch {
    return [];
  }
}

export function keepAnswers(boardId: string, probes: readonly Probe[], answers: Answers): void {
  try {
    sessionStorage.setItem(keyOf(boardId), JSON.stringify({ of: listKey(probes), answers }));
  } catch {
    // where nothing can be kept the page still works
  }
}

const listKey = (probes: readonly Probe[]) => probes.map((p) => `${placesOf(p)} ${p.expect}`).join("; ");
