import { counted } from "../counted.ts";

/**
 * What makes an item one that is not tried with the rest at the bench: days after it, circumstances, and that it is tried on
 * so many boards alone, as what is tried once before something is sold (needs N132).
 */
export interface Besides {
  readonly days?: number;
  readonly where?: string;
  readonly boards?: number;
}

/** When and where something is tried besides the bench, and on how many. @example "after 7 days, in the cold, on 2 boards" */
export const besidesWords = ({ days, where, boards }: Besides): string =>
  [
    days !== undefined && `after ${counted(days, "day")}`,
    where,
    boards !== undefined && `on ${counted(boards, "board")}`,
  ]
    .filter(Boolean)
    .join(", ") || "besides the bench";
