import type { LessonEvent } from "@kobbin/core";

/** What went wrong, of which something is written down. */
export interface WentWrong extends LessonEvent {
  /** Where it came from, in words: "board 3 of the spring run". */
  readonly came: string;
  /** Its board, by its place in the document. */
  readonly board?: number;
}
