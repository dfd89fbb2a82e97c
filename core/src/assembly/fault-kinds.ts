import type { PackageClass } from "./package-class.ts";

/** What a fault on a soldered part is of: a joint of a kind of package, or the placing of any. */
export type FaultKind = PackageClass | "placing";
/** Kind → something of it. */
export type ByKind<T> = Readonly<Partial<Record<FaultKind, T>>>;

/** What was found wrong on the boards of a closed run that were looked at. */
export interface SeenFaults {
  /** Boards of which something was written down at the bench or in the tests. */
  readonly looked: number;
  /** Faults that could be given to a kind, and as many as the model alone expects on so many boards. */
  readonly kinds: ByKind<{ readonly seen: number; readonly expected: number }>;
  /** Faults of joints and placing whose part is not known: they are in no kind. */
  readonly unsorted: number;
}

/** What the shop's own faults make of the model's rates. */
export interface LearnedFaults {
  readonly runs: number;
  /** Boards that were looked at, faults that were found on them, and as many as the model had there. */
  readonly looked: number;
  readonly seen: number;
  readonly expected: number;
  readonly unsorted: number;
  /** Faults of a kind really come for one of the model; 1 where nothing tells of it. */
  readonly factors: ByKind<number>;
}
