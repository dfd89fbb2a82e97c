import type { LearnedFaults } from "../../assembly/fault-kinds.ts";
import { cleanShare, faultsByKind, learnedFaults } from "../../assembly/fault-prior.ts";
import { type OwnRecord, ownRecord, type PastRun } from "../../assembly/prior.ts";
import { toMicros } from "../../money/money.ts";
import type { RunDocument } from "../document/document.ts";
import type { LinePart } from "../document/parts.ts";
import type { Claim, Defect, RunRecord } from "../document/record.ts";
import { isMixed, likeRuns } from "../document/ways.ts";
import type { ActualRun, ActualTerm, Variance } from "../ledger/actual.ts";
import { seenFaults } from "./stands-out.ts";

/** What one kind of fault came to in a run. */
export interface FaultCost {
  readonly code: Defect["code"];
  readonly times: number;
  /** Boards it was on. */
  readonly boards: number;
  /** As far as they were written down, of so many of the times. */
  readonly minutes: number;
  readonly timed: number;
  /** Of those minutes, at the shop's hourly rate: at least so much. Micros of the shop's currency. */
  readonly cost: number;
}

/** What a closed run says for the next one of its product. */
export interface NextTime {
  /** What cost otherwise than planned, the largest first, with its main reason; below a hundredth of the run nothing is told. */
  readonly terms: readonly { readonly label: string; readonly by: number; readonly why?: Variance["key"] }[];
  /** Kinds of faults, the dearest first; those without minutes by how often. */
  readonly faults: readonly FaultCost[];
  /** Boards that were given up, and what was spent on them: their share of what the run came to. */
  readonly scrapped: { readonly boards: number; readonly cost: number };
  /** Claims that are neither settled nor refused. */
  readonly claims: readonly Claim[];
  /** Parts of which the boards took more than planned, where somebody counted. */
  readonly parts: readonly { readonly label: string; readonly planned: number; readonly taken: number }[];
  /** How estimates stand with this run, and how they stood without it; nothing where it tells nothing of a way to solder. */
  readonly estimates?: {
    readonly before: number;
    readonly after: OwnRecord;
    /** What its faults, with those of the runs before, make of the model's rates; nothing where none were written down. */
    readonly faults?: LearnedFaults;
    /** Share of boards without a fault at first, as it is expected now, and as the model alone has it. */
    readonly clean: number;
    readonly cleanByModel: number;
  };
}

/** Of the run's cost: less is not worth a line. */
const WORTH = 0.01;
/** A tenth more than was planned is told, and two pieces at least. */
const MORE = 10;

/**
 * What to do next time (issues of a run as they stand when it is closed): what cost otherwise, what went wrong and what it took,
 * what was lost, what is claimed still, what was taken more of, and how the shop's estimates move (domain.md 7.4).
 *
 * @param r final yield as the model alone has it, and plan against what came
 */
export function nextTime(
  doc: RunDocument,
  r: { readonly model: number; readonly actual: ActualRun; readonly parts: readonly LinePart[] },
  record: RunRecord,
): NextTime {
  const { actual: a } = r;
  const rate = toMicros(doc.workshop.hourlyRate);
  const worth = Math.max(1, a.actual) * WORTH;
  const by = (t: ActualTerm) => (t.actual ?? t.planned) - t.planned;
  const codes = [...new Set((record.defects ?? []).map((d) => d.code))];
  const faults = codes.map((code): FaultCost => {
    const of = record.defects!.filter((d) => d.code === code);
    const timed = of.filter((d) => d.minutes !== undefined);
    const minutes = timed.reduce((n, d) => n + d.minutes!, 0);
    return {
      code,
      times: of.length,
      boards: new Set(of.map((d) => d.unit)).size,
      minutes,
      timed: timed.length,
      cost: (minutes / 60) * rate,
    };
  });
  const { good, scrapped, started } = a.tally;
  const before = likeRuns(doc);
  const seen = seenFaults(doc, r.parts, record);
  const own: PastRun = {
    name: doc.name,
    closedOn: record.closedOn ?? "",
    method: doc.assembly.method,
    good,
    scrapped,
    minutes: a.minutes.actual,
    ...(seen ? { faults: seen } : {}),
    modelMinutes:
      a.minutes.actual > 0 ? a.minutes.planned / (ownRecord(r.model, before)?.timeFactor ?? 1) : 0,
  };
  // of a run whose parts went several ways no other one is told anything
  const after = isMixed(doc) || good + scrapped === 0 ? undefined : ownRecord(r.model, [...before, own]);
  const was = ownRecord(r.model, before);
  const learned = learnedFaults(faultsByKind(r.parts), [...before, own]);
  return {
    terms: a.terms
      .filter((t) => Math.abs(by(t)) >= worth)
      .sort((x, y) => Math.abs(by(y)) - Math.abs(by(x)))
      .map((t) => {
        const [why] = [...t.because].sort((x, y) => Math.abs(y.micros) - Math.abs(x.micros));
        return { label: t.label, by: by(t), ...(why && why.micros !== 0 ? { why: why.key } : {}) };
      }),
    faults: faults.sort((x, y) => y.cost - x.cost || y.times - x.times || (x.code < y.code ? -1 : 1)),
    scrapped: { boards: scrapped, cost: started > 0 ? (a.actual / started) * scrapped : 0 },
    claims: (record.claims ?? []).filter((c) => c.state === "open" || c.state === "sent"),
    parts: a.uses
      .flatMap((u) =>
        u.taken !== undefined && MORE * (u.taken - u.planned) >= u.planned && u.taken - u.planned >= 2
          ? [{ label: u.label, planned: u.planned, taken: u.taken }]
          : [],
      )
      .sort((x, y) => y.taken / y.planned - x.taken / x.planned),
    ...(after
      ? {
          estimates: {
            before: was ? was.a / (was.a + was.b) : r.model,
            after,
            ...(learned ? { faults: learned } : {}),
            clean: cleanShare(r.parts, learned?.factors),
            cleanByModel: cleanShare(r.parts),
          },
        }
      : {}),
  };
}
