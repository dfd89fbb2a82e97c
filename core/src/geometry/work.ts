/** Steps of some ten nanoseconds that one piece of work may take: beyond it stand only broken files. */
const PART = 1_000_000_000;
/** Steps that measuring one board may take in all: half a minute on a slow machine. */
const WHOLE = 2_500_000_000;

/** Thrown where a piece of work would take more steps, or more memory, than any board needs. */
export class OverBudget extends Error {
  /** How far it got, as words: " after 37 % of it"; empty where that is not known. */
  readonly far: string;

  constructor(message = "it takes more steps than a board can need", far = "") {
    super(message);
    this.name = "OverBudget";
    this.far = far;
  }
}

/**
 * Counts the steps of geometry, so that any file ends: counted, not timed, so the same file ends the same way on every
 * machine.
 */
export class Work {
  private readonly most: number;
  private left: number;
  private readonly whole: Work | undefined;
  private done = 0;
  private of = 0;

  constructor(most = PART, whole?: Work) {
    this.most = most;
    this.left = most;
    this.whole = whole;
  }

  /** The work of one board; its parts are counted in it. */
  static ofBoard(): Work {
    return new Work(WHOLE);
  }

  /** A piece of this work: it takes two fifths of it at most, so that one piece leaves room for others. */
  part(): Work {
    return new Work(0.4 * this.most, this);
  }

  /** Notes how far a loop is, for what is said when it is given up. */
  at(done: number, of: number): void {
    this.done = done;
    this.of = of;
  }

  /** Asked before the work is done. @throws OverBudget where there is not that much left; nothing is spent then */
  spend(steps: number): void {
    if (steps <= this.left && (this.whole === undefined || steps <= this.whole.left)) {
      this.left -= steps;
      if (this.whole) this.whole.left -= steps;
      return;
    }
    throw new OverBudget(
      undefined,
      this.done > 0.01 * this.of ? ` after ${Math.floor((100 * this.done) / this.of)} % of it` : "",
    );
  }
}

/** What a piece of work gives, or what stands in for it where it was given up. @throws what is thrown for other reasons */
export function orGivenUp<T, U>(work: () => T, givenUp: (error: OverBudget) => U): T | U {
  try {
    return work();
  } catch (error) {
    if (error instanceof OverBudget) return givenUp(error);
    throw error;
  }
}
