import type { ByKind, FaultKind, SeenFaults } from "../../assembly/fault-kinds.ts";
import { faultsByKind, faultsOf } from "../../assembly/fault-prior.ts";
import { binomialAtLeast } from "../../assembly/yield.ts";
import { classOf, type Interval, wilson } from "../../yield/defects.ts";
import type { RunDocument } from "../document/document.ts";
import type { LinePart } from "../document/parts.ts";
import type { RunRecord } from "../document/record.ts";
import { boardsLooked, type Happened, lookedAt, oursOf, partOf } from "./factors.ts";

/**
 * What was found wrong on the boards of a run that were looked at, by kind, beside as many faults as the model alone has on so
 * many; faults of bare boards, bought parts, programs and the design are of neither joints nor placing and count in no kind.
 * Where faults were written down, every board that was finished was looked at: those without any have no row.
 *
 * @returns nothing where nobody wrote anything down of a board: no fault is then not the same as none
 */
export function seenFaults(
  doc: RunDocument,
  parts: readonly LinePart[],
  record: Happened & Pick<RunRecord, "work">,
): SeenFaults | undefined {
  const looked = boardsLooked(record);
  if (looked === 0) return undefined;
  const ours = oursOf(doc, parts);
  const here = parts.filter((p) => p.method !== "house");
  const kinds: Partial<Record<FaultKind, { seen: number; expected: number }>> = {};
  for (const [kind, each] of Object.entries(faultsByKind(here)) as [FaultKind, number][])
    kinds[kind] = { seen: 0, expected: looked * each };
  let unsorted = 0;
  for (const d of record.defects ?? []) {
    const what = classOf(d.code);
    if (what !== "joint" && what !== "placement") continue;
    const name = partOf(d, ours);
    const kind = name && kinds[what === "joint" ? ours.get(name)!.part.kind : "placing"];
    if (kind) kind.seen++;
    else unsorted++;
  }
  return { looked, kinds, unsorted };
}

/** How a batch goes against its plan. */
export interface AgainstPlan {
  /** Boards that were looked at, and those of them with a fault. */
  readonly looked: number;
  readonly bad: number;
  /** Share of boards with a fault, as planned. */
  readonly planned: number;
  /** How often as many or more would be bad if it went as planned, and as few or fewer of those that were tried. */
  readonly chanceWorse: number;
  readonly chanceBetter: number;
  readonly is: "worse" | "better" | "as planned";
  /** So many bad ones of those looked at would be rarer than one in a hundred: stop and look before the next. */
  readonly stopAt: number;
}

/**
 * Whether a batch goes worse than planned, told from however few boards there are by exact binomial tails; and at how many
 * bad ones one would stop (domain.md 9.7, need N136). The plan's share of boards with a fault is 1 − e^(−faults a board) of
 * what is soldered here.
 *
 * @param factors what the shop's own faults made of the model's rates when it was planned
 */
export function againstPlan(
  doc: RunDocument,
  parts: readonly LinePart[],
  record: Happened,
  factors: ByKind<number> = {},
): AgainstPlan | undefined {
  const looked = lookedAt(record).size;
  if (looked === 0) return undefined;
  const ours = oursOf(doc, parts);
  const expected = parts.reduce((n, p) => {
    return p.method === "house" ? n : n + faultsOf(p, factors);
  }, 0);
  const planned = 1 - Math.exp(-expected);
  const faulty = new Set(
    (record.defects ?? []).filter((d) => partOf(d, ours) !== undefined).map((d) => d.unit),
  );
  const bad = faulty.size;
  const chanceWorse = binomialAtLeast(looked, bad, planned);
  // a board that is half built may still go wrong: only those that were tried speak for it
  const tried = new Set((record.tries ?? []).map((t) => t.unit));
  const badOfTried = [...tried].filter((u) => faulty.has(u)).length;
  const chanceBetter = 1 - binomialAtLeast(tried.size, badOfTried + 1, planned);
  let stopAt = 1;
  while (stopAt <= looked && binomialAtLeast(looked, stopAt, planned) >= 0.01) stopAt++;
  return {
    looked,
    bad,
    planned,
    chanceWorse,
    chanceBetter,
    is: chanceWorse < 0.05 ? "worse" : chanceBetter < 0.05 ? "better" : "as planned",
    stopAt,
  };
}

/** A step's own yield: boards that left it without a fault found there. */
export interface StepYield {
  readonly step: number;
  readonly boards: number;
  readonly clean: number;
  readonly interval: Interval;
}

/**
 * Yield of each step that boards went through one by one, and the product of them (rolled yield: 0.98 · 0.95 · 0.99 =
 * 0.9217, domain.md 9.7). A fault counts at the step it was found at; one found elsewhere counts at none.
 */
export function stepYields({ sittings, defects }: Happened): {
  readonly steps: readonly StepYield[];
  readonly rolled: number | undefined;
} {
  const through = new Map<number, Set<number>>();
  for (const s of sittings ?? [])
    if (s.unit > 0 && s.isDone) through.set(s.step, (through.get(s.step) ?? new Set()).add(s.unit));
  const steps = [...through]
    .sort(([a], [b]) => a - b)
    .map(([step, units]): StepYield => {
      const bad = new Set(
        (defects ?? []).filter((d) => d.step === step && units.has(d.unit)).map((d) => d.unit),
      );
      const clean = units.size - bad.size;
      return { step, boards: units.size, clean, interval: wilson(clean, units.size) };
    });
  return {
    steps,
    rolled: steps.length === 0 ? undefined : steps.reduce((p, s) => p * (s.clean / s.boards), 1),
  };
}
