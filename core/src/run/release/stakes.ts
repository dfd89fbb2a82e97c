import { type Micros, toMicros } from "../../money/money.ts";
import type { RunDocument } from "../document/document.ts";
import type { Note } from "../document/note.ts";
import { daysBetween } from "../source/source-notes.ts";
import type { RunResult } from "../stage/result.ts";
import { LOSSES, type Loss, type Sureness, stakeOf, WRONG_SHARE } from "./stakes-table.ts";

/** An open check with what it costs not to look. */
export interface AtStake {
  readonly note: Note;
  readonly lose: Loss;
  /** What is lost if it is wrong, in words, money and days. */
  readonly words: string;
  readonly micros: Micros;
  readonly days: number;
  readonly sure: Sureness;
  /** Share of such checks that turn out to be wrong. */
  readonly chance: number;
  /** chance × money. */
  readonly expected: Micros;
  /** To close it by the cheapest way. */
  readonly minutes: number;
}

/** Minutes to mend a part by hand (domain.md 7.4: 3 to 12 by package). */
const MEND_MIN = 5;
/** How far a price moves: σ of its factor (domain.md 8.5). */
const PRICE_SIGMA = 0.08;
/** Days in which a house asks and is answered. */
const ASK_DAYS = 2;

/**
 * Every open caution and blocker of a run with what it costs if it is wrong: money and days at stake × how often such a
 * thing is wrong, the dearest first; what costs no money by the days.
 */
export function stakesOf(doc: RunDocument, r: RunResult): AtStake[] {
  return r.notes
    .filter((n) => n.level !== "remark" && !n.acceptedBecause)
    .map((note): AtStake => {
      const { lose, minutes, sure } = stakeOf(note);
      const { micros, days } = lossOf(doc, r, note, lose);
      const chance = WRONG_SHARE[sure];
      return {
        note,
        lose,
        words: LOSSES[lose],
        micros,
        days,
        sure,
        chance,
        expected: Math.round(chance * micros) as Micros,
        minutes,
      };
    })
    .sort((a, b) => b.expected - a.expected || b.chance * b.days - a.chance * a.days);
}

const branchOf = (r: RunResult, key: string): number =>
  r.tree.children.find((c) => c.key === key)?.micros ?? 0;
const leafOf = (r: RunResult, branch: string, key: string): number =>
  r.tree.children.find((c) => c.key === branch)?.children.find((c) => c.key === key)?.micros ?? 0;

/** Money and days of a loss, of the lines a note names where it names any. */
function lossOf(doc: RunDocument, r: RunResult, n: Note, lose: Loss): { micros: Micros; days: number } {
  const told = (micros: number, days: number) => ({ micros: Math.round(micros) as Micros, days });
  switch (lose) {
    case "built":
      return told(r.total, wholeDays(doc, r));
    case "boards":
      return told(branchOf(r, "boards"), r.stages.fab.days);
    case "parts": {
      const { micros, days } = boughtFor(doc, r, n.lines);
      return told(micros, days);
    }
    case "foil":
      return told(leafOf(r, "assembly", "stencil"), ASK_DAYS);
    case "rework": {
      const parts = n.lines ? r.parts.filter((p) => n.lines!.includes(p.line.id)) : r.parts;
      const pieces = parts.reduce((s, p) => s + (p.kind === "loose" ? 0 : p.count), 0);
      const minutes = pieces * r.start * MEND_MIN;
      return told(
        (minutes / 60) * toMicros(doc.workshop.hourlyRate),
        minutes / 60 / Math.max(1, doc.workshop.hoursPerDay),
      );
    }
    case "price":
      return told(PRICE_SIGMA * boughtFor(doc, r, n.lines).micros, 0);
    case "delay":
      return told(0, ASK_DAYS);
  }
}

/** Days from now to boards that are ready, as likely as not. */
function wholeDays(doc: RunDocument, r: RunResult): number {
  return Math.max(0, daysBetween(doc.today, r.ready.p50));
}

/** What is bought for some lines, with the parcel of the dearest of their suppliers; for all where none are named. */
function boughtFor(
  doc: RunDocument,
  r: RunResult,
  lines: readonly string[] | undefined,
): { micros: number; days: number } {
  const of = r.needs.flatMap((n, i) =>
    !lines || n.lines.some((l) => lines.includes(l)) ? (r.basket.lines[i]?.buys ?? []) : [],
  );
  const suppliers = [...new Set(of.map((b) => b.supplier))];
  const parcel = Math.max(0, ...suppliers.map((s) => r.basket.shippingOf[s] ?? 0));
  const days = Math.max(0, ...doc.suppliers.filter((s) => suppliers.includes(s.id)).map((s) => s.daysMax));
  return { micros: of.reduce((s, b) => s + b.cost, 0) + (lines ? parcel : 0), days };
}

/**
 * The checks that are worth most within so many minutes: every set of them is weighed, minute by minute (a knapsack;
 * O(checks × minutes)). What is worth no money is not among them.
 */
export function worthMostIn(list: readonly AtStake[], minutes: number): AtStake[] {
  const best: { worth: number; of: readonly AtStake[] }[] = Array.from({ length: minutes + 1 }, () => ({
    worth: 0,
    of: [],
  }));
  for (const s of list) {
    if (s.expected <= 0) continue;
    for (let m = minutes; m >= s.minutes; m--) {
      const before = best[m - s.minutes]!;
      if (before.worth + s.expected > best[m]!.worth)
        best[m] = { worth: before.worth + s.expected, of: [...before.of, s] };
    }
  }
  return [...best[minutes]!.of];
}
