/** What was done with a piece at the bench: it is on; it is on and somebody wants to look again; it was left for later. */
export const PIECE_MARKS = ["done", "doubt", "skipped"] as const;
export type PieceMark = (typeof PIECE_MARKS)[number];

/** What a step is done with beside the parts: machines, and what is used up without being counted in pieces. */
export const BENCH_TOOLS = ["heater", "paste", "iron", "wire"] as const;
export type BenchTool = (typeof BENCH_TOOLS)[number];

/** One step of one board as far as it came. */
export interface RunSitting {
  readonly id: string;
  /** Which of the boards that are started, from 1; 0 for what is done once for all. */
  readonly unit: number;
  /** Number of the step in the order that was released. */
  readonly step: number;
  /** Name of a piece → what was done with it. */
  readonly marks: Readonly<Record<string, PieceMark>>;
  /** Line → pieces that were lost at it. */
  readonly lost: Readonly<Record<string, number>>;
  /** Device → own minutes at it, without the time in which nothing was pressed: two who sit at one board add up. */
  readonly minutes: Readonly<Record<string, number>>;
  readonly isDone: boolean;
  /** What it was done with, as it was called then; left out where nobody said so. */
  readonly used?: Readonly<Partial<Record<BenchTool, string>>>;
  readonly person: string;
}
