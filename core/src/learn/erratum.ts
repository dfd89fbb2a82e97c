import type { PlaceReading } from "../board/measure/place.ts";
import type { Measure } from "../board/measure-document.ts";
import { refOf } from "../board/pins.ts";
import { mmWords as mm } from "../fit/row.ts";
import type { ERRATUM_DECISIONS, ERRATUM_HARMS, ERRATUM_WAYS } from "../shape/erratum.ts";
import { MOST_LESSON_PINS } from "../shape/lesson.ts";
import { capital } from "../words.ts";
import { padsByPin } from "./board-pins.ts";
import type { LessonPlace } from "./lesson.ts";
import { lessonPlaces } from "./lesson-places.ts";

/** Where on a board an erratum is; without reference and place it is about the board as a whole. */
export interface ErratumSpot {
  /** Name of the board, where the product has several. */
  readonly board?: string;
  /** A part or a pin. */
  readonly ref?: string;
  /** From the board's lower left corner, mm. */
  readonly at?: readonly [number, number];
  readonly side: "top" | "bottom";
  readonly diameterMm: number;
}

/** Something that is known to be wrong with a revision (domain.md 9.8, need N134), as a run's document has it. */
export interface RunErratum {
  readonly id: string;
  readonly title: string;
  readonly effect: string;
  readonly harm: (typeof ERRATUM_HARMS)[number];
  readonly spot: ErratumSpot;
  readonly way: (typeof ERRATUM_WAYS)[number];
  /** What is done on a board that has it. */
  readonly workaround: string;
  /** Minutes that takes; not known where left out. */
  readonly minutes?: number;
  /** In which revision it is to be mended, in words. */
  readonly planned: string;
  readonly evidence: string;
  /** ISO date. */
  readonly foundOn: string;
  /** The revision it was found in, and whether this run is of it. */
  readonly foundIn: string;
  readonly isHere: boolean;
  /** What was decided for the run's revision, where that is another. */
  readonly decision?: {
    readonly is: (typeof ERRATUM_DECISIONS)[number];
    readonly because: string;
    /** ISO date. */
    readonly on: string;
  };
  /** What the files of the revision it was found in have at the place, and where that board's corner lies. */
  readonly before?: readonly LessonPlace[];
  readonly corner?: readonly [number, number];
}

/** Places of a board whose files tell whether something was changed there; none for the board as a whole. */
export function erratumPlaces(spot: ErratumSpot, m: Measure): ReturnType<typeof lessonPlaces> {
  const place = { kind: "place", what: "solder", side: spot.side, diameterMm: spot.diameterMm } as const;
  if (spot.at) return lessonPlaces({ ...place, at: spot.at }, m);
  if (spot.ref === undefined) return [];
  const all = padsByPin(m);
  const pins = all.has(spot.ref)
    ? [spot.ref]
    : [...all.keys()].filter((pin) => refOf(pin) === spot.ref).slice(0, MOST_LESSON_PINS);
  return pins.length === 0 ? [] : lessonPlaces({ ...place, pins }, m);
}

/** Whether the files have something else at a place than before. */
export type PlaceChange =
  | { readonly is: "same" }
  | { readonly is: "changed"; readonly words: string }
  | { readonly is: "unknown"; readonly because: string };

/** Places nearer than this to where they were have not moved, mm; shares of layers nearer than that have not changed. */
const MOVED_MM = 0.02;
const SHARE = 0.02;

/**
 * What was changed at the places of an erratum between two revisions, told from each board's own corner. Nothing that was
 * not read counts as the same.
 */
export function placeChange(
  before: readonly LessonPlace[] | undefined,
  beforeCorner: readonly [number, number] | undefined,
  after: readonly LessonPlace[] | undefined,
  afterCorner: readonly [number, number],
): PlaceChange {
  if (!before || !after || !beforeCorner)
    return { is: "unknown", because: "The files are being read at this place." };
  if (before.length === 0)
    return { is: "unknown", because: "The revision it was found in has no such place in its files." };
  if (after.length === 0) return { is: "changed", words: "It is not there any more." };
  const left = [...after];
  const words = new Set<string>();
  for (const b of before) {
    const k = left.findIndex(
      (a) =>
        a.pin === b.pin &&
        Math.hypot(
          a.x - afterCorner[0] - (b.x - beforeCorner[0]),
          a.y - afterCorner[1] - (b.y - beforeCorner[1]),
        ) <= MOVED_MM,
    );
    if (k < 0) {
      words.add(b.pin === "" ? "the place has moved" : `${b.pin} has moved or is gone`);
      continue;
    }
    const [a] = left.splice(k, 1) as [LessonPlace];
    const gaveUp = [...a.reading.givenUp, ...b.reading.givenUp];
    if (gaveUp.length > 0) return { is: "unknown", because: `${gaveUp.join(", ")} could not be read there.` };
    for (const w of readingChange(b.reading, a.reading)) words.add(w);
  }
  for (const a of left) words.add(`${a.pin || "a place"} is new`);
  return words.size === 0
    ? { is: "same" }
    : { is: "changed", words: capital(`${[...words].slice(0, 6).join(", ")}.`) };
}

function readingChange(b: PlaceReading, a: PlaceReading): string[] {
  const names = new Set([...b.layers, ...a.layers].map((l) => l.name));
  const share = (r: PlaceReading, name: string) => r.layers.find((l) => l.name === name)?.share ?? 0;
  const of = (name: string, was: number, is: number) =>
    Math.abs(was - is) > SHARE
      ? [`${name} ${mm(Math.round(was * 100))} → ${mm(Math.round(is * 100))} %`]
      : [];
  return [
    ...[...names].flatMap((n) => of(n, share(b, n), share(a, n))),
    ...of("drilled", b.drilled + b.platedShare, a.drilled + a.platedShare),
    ...of("board", b.board ?? 1, a.board ?? 1),
  ];
}
