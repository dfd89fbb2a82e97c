import { counted } from "../counted.ts";
import type { ByKind, FaultKind, LearnedFaults, SeenFaults } from "./fault-kinds.ts";
import type { PastRun } from "./prior.ts";
import { FORGET, MODEL_BOARDS } from "./prior.ts";
import { type CountedPart, defectsOf } from "./yield.ts";

/** Faults a board by kind, as the model alone expects them. */
export function faultsByKind(parts: readonly CountedPart[]): ByKind<number> {
  const of: Partial<Record<FaultKind, number>> = {};
  const add = (kind: FaultKind, n: number) => {
    if (n > 0) of[kind] = (of[kind] ?? 0) + n;
  };
  for (const p of parts) {
    const { joints, placing } = defectsOf(p);
    add(p.kind, joints);
    add("placing", placing);
  }
  return of;
}

/**
 * The shop's own faults laid over the model's rates (Gamma and Poisson, domain.md 9.7): the prior of a kind is as many boards
 * as the model counts for ({@link MODEL_BOARDS}), Gamma(α, α) with α its faults on them, so that its mean is 1; each run, oldest
 * first, fades what was before it (γ = 0.8) and adds what it saw and what the model had there: (α + seen) ÷ (α + expected).
 *
 * @param perBoard faults a board by kind, as the model has them for the board that is planned
 * @param past of the same way to solder, oldest first
 * @returns nothing where no run tells of its faults
 */
export function learnedFaults(
  perBoard: ByKind<number>,
  past: readonly Pick<PastRun, "faults">[],
): LearnedFaults | undefined {
  const told = past.flatMap((p) => (p.faults && p.faults.looked > 0 ? [p.faults] : []));
  if (told.length === 0) return undefined;
  const factors: Partial<Record<FaultKind, number>> = {};
  for (const [kind, each] of Object.entries(perBoard) as [FaultKind, number][]) {
    const prior = MODEL_BOARDS * each;
    let [seen, expected] = [0, 0];
    for (const { kinds } of told) {
      seen = FORGET * seen + (kinds[kind]?.seen ?? 0);
      expected = FORGET * expected + (kinds[kind]?.expected ?? 0);
    }
    factors[kind] = (prior + seen) / (prior + expected);
  }
  const sum = (of: (f: SeenFaults) => number) => told.reduce((n, f) => n + of(f), 0);
  const all = (what: "seen" | "expected") =>
    sum((f) => Object.values(f.kinds).reduce((n, k) => n + k[what], 0));
  return {
    runs: told.length,
    looked: sum((f) => f.looked),
    seen: all("seen"),
    expected: all("expected"),
    unsorted: sum((f) => f.unsorted),
    factors,
  };
}

/** Faults of a part on one board, as the shop's own record has them where there is one. */
export function faultsOf(p: CountedPart, factors: ByKind<number> = {}): number {
  const { joints, placing } = defectsOf(p);
  return joints * (factors[p.kind] ?? 1) + placing * (factors.placing ?? 1);
}

/** Share of boards that are expected without a fault: e to the minus faults a board (domain.md 7.4). */
export const cleanShare = (parts: readonly CountedPart[], factors: ByKind<number> = {}): number =>
  Math.exp(-parts.reduce((sum, p) => sum + faultsOf(p, factors), 0));

/** "2 runs: 9 faults on 39 boards, where the model expects 2.9". */
export const ownFaultWords = (f: LearnedFaults): string =>
  `${counted(f.runs, "run")}: ${counted(f.seen, "fault")} on ${counted(f.looked, "board")}, where the model expects ${
    f.expected < 10 ? Math.round(10 * f.expected) / 10 : Math.round(f.expected)
  }${f.unsorted > 0 ? `; ${counted(f.unsorted, "fault")} of no part that is known ${f.unsorted === 1 ? "is" : "are"} not counted` : ""}`;
