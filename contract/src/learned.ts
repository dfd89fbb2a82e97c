import type { Factor, OpenLesson, RunErratum, RunLesson, shapes, WasMade } from "@kobbin/core";

/** A revision on which a lesson did not hold. */
export interface Caught {
  readonly product: string;
  readonly revision: string;
  /** ISO date. */
  readonly on: string;
  readonly found: string;
}

/** Boards that were begun with something that is doubted. */
export interface BuiltWith {
  readonly runId: string;
  readonly run: string;
  readonly product: string;
  readonly revision: string;
  /** Where it is on each, what is ordered there, or how many pieces of it. */
  readonly places: readonly string[];
  /** Boards that were begun, and came good. */
  readonly begun: number;
  readonly good: number;
  /** Boards of it that have it for certain, where that is written down; else any of those begun may. */
  readonly units?: number;
  /** Of a part of which only some days are doubted: its bags that came for the run or were taken, each with its date code. */
  readonly bags?: readonly DatedBag[];
}

/** A bag by its date code, and whether it was made in the days that are doubted. */
export interface DatedBag {
  readonly code: string;
  readonly was: WasMade;
}

/** An open run in which a lesson does not hold, cannot be told, has lost its place or waits for an answer. */
export interface OpenInRun extends OpenLesson {
  readonly id: string;
  readonly name: string;
  readonly product: string;
  readonly revision: string;
}

/** A lesson as the shop keeps it. */
export interface ShopLesson extends Omit<RunLesson, "relaxedBecause"> {
  /** The one product it is about. */
  readonly productId?: string;
  readonly product?: string;
  /** The revision it was learned from. */
  readonly revisionId?: string;
  readonly clearedOn?: string;
  readonly clearedBy: string;
  readonly relaxed: readonly { readonly product: string; readonly because: string }[];
  readonly caught: readonly Caught[];
  /** Of something that is doubted: released runs that have it. */
  readonly built: readonly BuiltWith[];
  /** Of a part of which only some days are doubted: its bags that still hold something. */
  readonly bags?: readonly (DatedBag & {
    readonly lotId: string;
    readonly place: string;
    readonly qty: number;
    /** It may not be used as it is. */
    readonly isApart: boolean;
  })[];
  /** Open runs in which it is open, as far as they are counted: {@link LearnedAnswer.uncounted}. */
  readonly runs: readonly OpenInRun[];
}

/** How far an erratum is worked around on the boards of a run. */
export interface ReworkOfRun {
  readonly runId: string;
  readonly run: string;
  readonly revision: string;
  /** Boards that came good there, so far. */
  readonly good: number;
  /** Those on which it was worked around, or that were given up for it, by their number. */
  readonly units: readonly {
    readonly id: string;
    readonly unit: number;
    readonly isScrapped: boolean;
    readonly minutes?: number;
  }[];
}

/** An erratum as the shop keeps it. */
export interface ShopErratum
  extends Omit<RunErratum, "foundIn" | "isHere" | "decision" | "before" | "corner"> {
  readonly productId: string;
  readonly product: string;
  readonly revisionId: string;
  readonly revision: string;
  readonly decisions: Readonly<Record<string, NonNullable<RunErratum["decision"]>>>;
  readonly reworks: readonly ReworkOfRun[];
}

/** What was decided of the next revision of a product. */
export interface RevisionPlan {
  readonly productId: string;
  readonly isNeeded: boolean;
  readonly because: string;
  readonly begins: string;
  /** ISO date. */
  readonly on: string;
  readonly person: string;
}

/** A board that went somewhere. Who has it stands here and nowhere else. */
export interface UnitOut {
  readonly id: string;
  readonly unit: number;
  /** ISO date. */
  readonly on: string;
  readonly towards: string;
  /** Empty where it is not known, or forgotten. */
  readonly holder: string;
  readonly reach: string;
  readonly person: string;
}

/** What an owner said of a product. */
export interface ShopReport {
  readonly id: string;
  readonly productId: string;
  readonly product: string;
  /** The board it is about, where it is known. */
  readonly runId?: string;
  readonly run?: string;
  readonly revision?: string;
  readonly unit?: number;
  /** ISO date. */
  readonly on: string;
  readonly says: string;
  readonly conditions: string;
  readonly workaround: string;
  readonly answer: string;
  /** The fault it is, once it is known. */
  readonly erratumId?: string;
  readonly person: string;
}

/** What went wrong in the last year, as far as it was written down. */
export interface MistakesOfYear {
  /** ISO date from which it is counted. */
  readonly since: string;
  /** Faults at the bench by what they were; minutes of those that have some. */
  readonly faults: readonly {
    readonly code: shapes.DefectCode;
    readonly n: number;
    readonly minutes: number;
    readonly untimed: number;
  }[];
  /** Boards that were given up, by run, with what a good one of it costs; not known where left out. */
  readonly scrapped: readonly { readonly run: string; readonly boards: number; readonly perBoard?: number }[];
  /** Boards on which a known fault was worked around. */
  readonly reworked: { readonly n: number; readonly minutes: number; readonly untimed: number };
  readonly claims: number;
  /** What the faults of closed runs have in common. */
  readonly common: {
    /** Closed runs of which it is kept how their faults fall, of all that were closed. */
    readonly runs: number;
    readonly closed: number;
    /** The least likely first; a lot is named by the code of its bag. */
    readonly factors: readonly Factor[];
  };
}

/** All a shop has learned. */
export interface LearnedAnswer {
  readonly lessons: readonly ShopLesson[];
  /** Open runs of which it is not known yet how the lessons stand. */
  readonly uncounted: number;
  readonly errata: readonly ShopErratum[];
  readonly mistakes: MistakesOfYear;
  /** What was decided of next revisions, by product. */
  readonly plans: readonly RevisionPlan[];
  /** What owners said, the newest first. */
  readonly reports: readonly ShopReport[];
  readonly products: readonly {
    readonly id: string;
    readonly name: string;
    readonly revisions: readonly {
      readonly id: string;
      readonly label: string;
      /** Boards of it that went out, as far as it was written down. */
      readonly out: number;
    }[];
  }[];
}
