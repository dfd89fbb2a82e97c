import { counted } from "../counted.ts";
import type { SeenFaults } from "./fault-kinds.ts";
import type { Method } from "./method.ts";

/** What came of a closed run of the same product: what the next one begins with. */
export interface PastRun {
  readonly name: string;
  readonly closedOn: string;
  readonly method: Method;
  /** Its parts went several ways: it tells nothing of any of them alone. */
  readonly isMixed?: boolean;
  readonly good: number;
  readonly scrapped: number;
  /** Own minutes as written down, and as the model had them for as many boards. Both 0 where none were written down. */
  readonly minutes: number;
  readonly modelMinutes: number;
  /** What was found wrong on its boards, where somebody looked and wrote it down. */
  readonly faults?: SeenFaults;
  /** What was to be remembered when it was closed. */
  readonly lesson?: string;
}

/** The shop's record beside the model's word. */
export interface OwnRecord {
  readonly runs: number;
  readonly boards: number;
  /** Final yield as the model alone has it. */
  readonly model: number;
  /** Yield as Beta(a, b). */
  readonly a: number;
  readonly b: number;
  /** Own minutes really taken for one of the model. */
  readonly timeFactor: number;
}

/** The model counts as much as so many boards; an older run counts by so much less with each that follows it. */
export const MODEL_BOARDS = 20;
export const FORGET = 0.8;

/**
 * The shop's record laid over the model (domain.md 7.4): prior Beta(w·mean, w·(1 − mean)) with w = 20 boards, then for each
 * run, oldest first, a ← a₀ + γ(a − a₀) + good and b likewise with scrapped, γ = 0.8. The time factor is the mean of the
 * runs' own (minutes ÷ the model's), weighed by their boards in the same way, with the model's 1 as 20 boards.
 *
 * @param mean final yield by the model
 * @param past of the same way to solder, oldest first
 * @returns nothing where there is no record
 */
export function ownRecord(mean: number, past: readonly PastRun[]): OwnRecord | undefined {
  const counted = past.filter((p) => p.good + p.scrapped > 0);
  if (counted.length === 0) return undefined;
  const [a0, b0] = [MODEL_BOARDS * mean, MODEL_BOARDS * (1 - mean)];
  let [a, b, timed, weight] = [a0, b0, MODEL_BOARDS, MODEL_BOARDS];
  for (const p of counted) {
    a = a0 + FORGET * (a - a0) + p.good;
    b = b0 + FORGET * (b - b0) + p.scrapped;
    timed = MODEL_BOARDS + FORGET * (timed - MODEL_BOARDS);
    weight = MODEL_BOARDS + FORGET * (weight - MODEL_BOARDS);
    if (p.minutes > 0 && p.modelMinutes > 0) {
      const boards = p.good + p.scrapped;
      timed += boards * (p.minutes / p.modelMinutes);
      weight += boards;
    }
  }
  return {
    runs: counted.length,
    model: mean,
    boards: counted.reduce((n, p) => n + p.good + p.scrapped, 0),
    a,
    b,
    timeFactor: timed / weight,
  };
}

/** "2 runs, 58 boards". */
export const recordWords = (r: OwnRecord): string =>
  `${counted(r.runs, "run")}, ${counted(r.boards, "board")}`;
