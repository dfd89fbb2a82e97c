import type { Door } from "./door.ts";

/** Who tells: the door, and what is begun through it. */
export interface Teller {
  readonly door: Door;
  readonly revision: (product: string, label: string) => string;
  readonly begin: (
    on: string,
    revisionId: string,
    name: string,
    goodBoards: number,
    house: string,
    assembly?: object,
  ) => Promise<string>;
  /** What was learned is held against a run that day. */
  readonly caught: (run: string) => Promise<void>;
}

/** Why the shop goes on with what is open still. */
export const OWN_RISK = "looked at on paper; we go on with it";
