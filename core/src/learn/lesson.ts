import type { PlaceReading } from "../board/measure/place.ts";
import { measureSpec } from "../fab/measures.ts";
import { few } from "../findings.ts";
import { INTENDED } from "../fit/intended.ts";
import { type Intended, mmWords } from "../fit/row.ts";
import type { CONTACT_WANTS, LESSON_LEVELS, LESSON_SURE, ONE_WAY_LETTERS } from "../shape/lesson.ts";
import { betweenWords, type MadeBetween } from "../shelf/made-between.ts";

type Spot = readonly [number, number];

/**
 * What a lesson looks at on every later board (idea X28, needs N134 and N137): something that is measured from its files or
 * read from its bill and choices, or a question that somebody has to answer.
 */
export type LessonCheck =
  /** A measure of the whole board: at least, or at most, as the measure counts. */
  | { readonly kind: "measure"; readonly key: string; readonly limit: number }
  /** The slot near a place from the board's lower left corner, mm. */
  | { readonly kind: "slot"; readonly at: Spot; readonly leastMm: number }
  /** Round places that are meant to be something: one from the corner, or all pads of some pins as `J1.2`. */
  | {
      readonly kind: "place";
      readonly what: Intended;
      readonly side: "top" | "bottom";
      readonly diameterMm: number;
      readonly at?: Spot;
      readonly pins?: readonly string[];
    }
  /** Parts with these letters tell on the board which way round they sit. */
  | { readonly kind: "marked"; readonly letters: (typeof ONE_WAY_LETTERS)[number] }
  /** No part with these letters has a land pattern like this: pins, and where each lies from their middle, mm. */
  | {
      readonly kind: "pattern";
      readonly letters: string;
      readonly pins: readonly string[];
      readonly at: readonly Spot[];
    }
  /** Contacts at the edge: no mask left between them, no copper that runs on to the edge, set back far enough. */
  | { readonly kind: "contacts"; readonly what: (typeof CONTACT_WANTS)[number]; readonly leastMm?: number }
  /** Something that is not to be used: a part by its number, a lot, a house, a machine, a program. */
  /** Of a part only what was made in a stretch of days, where a notice says one. */
  | { readonly kind: "part"; readonly mpn: string; readonly made?: MadeBetween }
  | { readonly kind: "lot"; readonly id: string; readonly name: string }
  | { readonly kind: "house"; readonly id: string; readonly name: string }
  /** A machine, or one in somebody's hands: of another's it says nothing. */
  | { readonly kind: "machine"; readonly id: string; readonly name: string; readonly person?: string }
  /** A program that is loaded; any version of it where none is said. */
  | { readonly kind: "program"; readonly name: string; readonly version: string }
  | { readonly kind: "asked" };
export type LessonKind = LessonCheck["kind"];

/** What was learned, as a run's document has it. */
export interface RunLesson {
  readonly id: string;
  readonly title: string;
  readonly check: LessonCheck;
  /** Where it does not hold: the order is stopped, or somebody has to look. */
  readonly level: (typeof LESSON_LEVELS)[number];
  /** How sure it is that this was the cause. */
  readonly sure: (typeof LESSON_SURE)[number];
  /** Where it came from, in words. */
  readonly came: string;
  readonly evidence: string;
  /** ISO date. */
  readonly since: string;
  /** Why this product is let off. */
  readonly relaxedBecause?: string;
}

/** A place that is read in the files for a lesson: a pin, or empty for a place from the corner. */
export interface LessonPlace {
  readonly pin: string;
  /** As in the files, mm. */
  readonly x: number;
  readonly y: number;
  readonly reading: PlaceReading;
}

/** Kinds that are doubts about something which may be cleared by a test, rather than rules. */
export const SUSPECT_KINDS: ReadonlySet<LessonKind> = new Set([
  "part",
  "lot",
  "house",
  "machine",
  "program",
  "pattern",
]);

const WANTED = {
  mask: "no mask is left between the edge contacts",
  bars: "no copper runs from the edge contacts on to the edge",
  setback: "the edge contacts are set back from the edge",
} as const satisfies Record<(typeof CONTACT_WANTS)[number], string>;

/** What is looked at, as a statement that holds or does not. */
export function lessonWords(c: LessonCheck): string {
  switch (c.kind) {
    case "measure": {
      const m = measureSpec(c.key);
      // "the smallest track", but "copper to the board's edge"
      return `${/^(smallest|narrowest|finest|thinnest) /.test(m.label) ? "the " : ""}${m.label} is ${m.is} ${mmWords(c.limit)}${m.unit === "mm" ? " mm" : ""}`;
    }
    case "slot":
      return `the slot at ${mmWords(c.at[0])} / ${mmWords(c.at[1])} mm from the corner is at least ${mmWords(c.leastMm)} mm wide`;
    case "place":
      return c.pins
        ? `${few(c.pins, 5)} ${c.pins.length === 1 ? "is" : "are"} ${INTENDED[c.what]}, ${mmWords(c.diameterMm)} mm around, on the ${c.side}`
        : `${mmWords(c.diameterMm)} mm around ${mmWords(c.at![0])} / ${mmWords(c.at![1])} mm from the corner are ${INTENDED[c.what]} on the ${c.side}`;
    case "marked":
      return `every ${c.letters} tells on the board which way round it sits`;
    case "pattern":
      return `no ${c.letters} has the land pattern of ${c.pins.length} pins, ${mmWords(spanOf(c.at))} mm across`;
    case "contacts":
      return `${WANTED[c.what]}${c.leastMm === undefined ? "" : ` by at least ${mmWords(c.leastMm)} mm`}`;
    case "part":
      return `${c.mpn}${c.made ? ` ${betweenWords(c.made)}` : ""} is not used`;
    case "lot":
      return `nothing is taken of the lot ${c.name}`;
    case "house":
      return `nothing is ordered at ${c.name}`;
    case "machine":
      // who it is stands in the lesson alone, where it can be forgotten
      return `${c.name} is not used${c.person ? " by one of us" : ""}`;
    case "program":
      return `${c.name}${c.version === "" ? "" : ` ${c.version}`} is not loaded`;
    case "asked":
      return "somebody has looked";
  }
}

/** The longest way between two pins of a pattern, mm. */
function spanOf(at: readonly Spot[]): number {
  let most = 0;
  for (const [x, y] of at) for (const [u, v] of at) most = Math.max(most, Math.hypot(x - u, y - v));
  return Math.round(most * 100) / 100;
}
