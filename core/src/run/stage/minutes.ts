/** Own minutes of a run. */
export interface Minutes {
  readonly setup: number;
  readonly kitting: number;
  readonly perBoard: number;
  readonly boards: number;
  readonly testing: number;
  /** Taking boards off their sheets. */
  readonly parting: number;
  /** Washing, where a part goes on after it. */
  readonly cleaning: number;
  readonly total: number;
}
