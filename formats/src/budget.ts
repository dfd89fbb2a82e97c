/** What one drop may hold and ask for, all its files together; kept before a library sees the bytes. */
export interface DropLimits {
  /** Unpacked bytes. */
  readonly bytes: number;
  /** Files, in archives and loose. */
  readonly entries: number;
  /** Cells of tables, empty ones between others counted. */
  readonly cells: number;
  /** Cells that lie under merged ones. */
  readonly merged: number;
}

export const DROP_LIMITS: DropLimits = {
  bytes: 100 * 1024 * 1024,
  entries: 500,
  cells: 2_000_000,
  merged: 200_000,
};

/** More was asked for than one drop may; the message says what, in a sentence. */
export class BudgetError extends Error {}

/** What is left for a drop. */
export class DropBudget {
  private readonly left: { -readonly [K in keyof DropLimits]: number };
  readonly limits: DropLimits;

  constructor(limits: DropLimits = DROP_LIMITS) {
    this.limits = limits;
    this.left = { ...limits };
  }

  /** @throws BudgetError where no more of it is left */
  spend(kind: keyof DropLimits, n: number, what: string): void {
    this.left[kind] -= n;
    if (this.left[kind] < 0) throw new BudgetError(what);
  }
}
