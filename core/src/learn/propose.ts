import type { Measure } from "../board/measure-document.ts";
import { refOf } from "../board/pins.ts";
import { lettersOf } from "../bom/refs.ts";
import { MEASURES, measureSpec } from "../fab/measures.ts";
import { mmWords as mm } from "../fit/row.ts";
import type { DefectCode } from "../shape/defects.ts";
import { LONGEST_TITLE, lessonCheckShape, MOST_LESSON_PINS, ONE_WAY_LETTERS } from "../shape/lesson.ts";
import { capital } from "../words.ts";
import { classOf } from "../yield/defects.ts";
import { padsByPin, patternOfPart } from "./board-pins.ts";
import { isOnBoard, type Judgement, judgeOnBoard, type LearnBoard } from "./judge-board.ts";
import type { LessonCheck, LessonPlace, RunLesson } from "./lesson.ts";

/** Something that went wrong, of which a lesson may be made. */
export interface LessonEvent {
  /** What it was, where it was written down as a defect. */
  readonly code?: DefectCode;
  /** A part `D4`, a pin `U1.4`; empty for the board or the order as a whole. */
  readonly place: string;
  /** Number of the part that sits there. */
  readonly mpn?: string;
  /** What somebody wrote. */
  readonly words: string;
  /** A measure it is about, by its key. */
  readonly measure?: string;
}

/** A lesson as it might be written down, with what it would say of the board it came from. */
export interface LessonProposal extends Pick<RunLesson, "title" | "check" | "level" | "sure"> {
  /** What it finds on that board; left out where it has to be read in the files first. */
  readonly here?: Judgement;
}

/** Lengths are drawn in steps of this, mm: a limit is the next one above what was too little. */
const STEP_MM = 0.05;
const nextStep = (v: number) => Math.round((Math.floor(v / STEP_MM + 1e-6) + 1) * STEP_MM * 100) / 100;

/** Measures that speak to a kind of defect, the likeliest first. */
const SPEAKS: Partial<Record<DefectCode, readonly string[]>> = {
  bridge: ["minMaskWebMm", "minNetSpaceMm", "minPitchMm"],
  ball: ["minMaskWebMm"],
  "board short": ["minNetSpaceMm", "minDrillToForeignCopperMm"],
  "board open": ["minTrackMm", "minAnnularMm"],
  "lifted pad": ["minAnnularMm"],
  mask: ["minMaskExpansionMm", "minMaskWebMm", "minOpeningToCopperMm"],
  drill: ["minHoleMm", "minAnnularMm", "slots", "minHoleToHoleMm"],
  "too close": ["minNetSpaceMm", "minCopperToEdgeMm", "minHoleToEdgeMm"],
};

/**
 * Checks that might keep something from happening again, each tried on the board it came from: those that would have
 * caught it first, then those that have to be read in its files, then a question. What holds on that board would not have
 * caught it, and is not proposed; nor is what could not be kept.
 */
export function proposeLessons(e: LessonEvent, b: LearnBoard): LessonProposal[] {
  const kept = candidates(e, b.measure)
    .map((p) => ({ ...p, title: shortened(p.title) }))
    .filter((p) => lessonCheckShape(p.check, "") === undefined);
  const tried = kept.flatMap((p): LessonProposal[] => {
    if (!isOnBoard(p.check) || p.check.kind === "place") return [p];
    const here = judgeOnBoard(p.check, b);
    return here.verdict === "broken" ? [{ ...p, here }] : [];
  });
  return ranked(tried);
}

const rank = (p: LessonProposal) => (p.here ? 0 : p.check.kind === "asked" ? 2 : 1);
const ranked = (list: readonly LessonProposal[]) => [...list].sort((a, c) => rank(a) - rank(c));

/**
 * Proposals about places once these were read in the board's files: one that would have caught it says so and comes first,
 * one that holds there is left out. What was not read stays as it is.
 *
 * @param read what the files have at a check's places, as `lessonPlaces` lists them
 */
export const triedInFiles = (
  list: readonly LessonProposal[],
  b: LearnBoard,
  read: (check: LessonCheck) => readonly LessonPlace[] | undefined,
): LessonProposal[] =>
  ranked(
    list.flatMap((p): LessonProposal[] => {
      const places = p.check.kind === "place" ? read(p.check) : undefined;
      if (!places || !isOnBoard(p.check)) return [p];
      const here = judgeOnBoard(p.check, { ...b, places });
      return here.verdict === "holds" ? [] : here.verdict === "broken" ? [{ ...p, here }] : [p];
    }),
  );

/** No longer than a title may be, and never half a letter. */
const shortened = (title: string): string =>
  title.length <= LONGEST_TITLE
    ? title
    : `${title.slice(0, LONGEST_TITLE - 1).replace(/[\uD800-\uDBFF]$/, "")}…`;

function candidates(e: LessonEvent, m: Measure): LessonProposal[] {
  const pins = padsByPin(m);
  const ref = pins.has(e.place) ? refOf(e.place) : e.place;
  const kind = e.code && classOf(e.code);
  const out: LessonProposal[] = [];
  const measures = [...(e.measure ? [e.measure] : []), ...((e.code && SPEAKS[e.code]) ?? [])];
  for (const key of new Set(measures)) {
    const p = ofMeasure(key, m);
    if (p) out.push(p);
  }
  if (e.code === "wrong way round") out.push(...ofMarks(ref));
  // a bad joint says nothing against the pads every resistor has
  if (kind === "design" || e.code === "wrong way round") out.push(...ofPattern(ref, m, 2));
  else if (kind === "joint" || e.code === undefined) out.push(...ofPattern(ref, m, 3));
  if (kind === "joint" || kind === "board" || kind === "design" || e.code === undefined)
    out.push(...ofPads(e.place, ref, m));
  if (e.mpn && (kind === "part" || e.code === "not wetted" || e.code === undefined))
    out.push({
      title: `Do not use ${e.mpn}`,
      check: { kind: "part", mpn: e.mpn },
      level: "warning",
      sure: "suspected",
    });
  out.push({
    title: e.words.trim() || `Look at ${e.place || "what went wrong"}`,
    check: { kind: "asked" },
    level: "warning",
    sure: "certain",
  });
  return out;
}

function ofMeasure(key: string, m: Measure): LessonProposal | undefined {
  if (!MEASURES.some((s) => s.key === key)) return undefined;
  const spec = measureSpec(key);
  const value = spec.valueOf(m, {});
  if (value === undefined || spec.unit !== "mm" || spec.is !== "at least") return undefined;
  const limit = nextStep(value);
  return {
    title: `${capital(spec.label)} at least ${mm(limit)} mm`,
    check: { kind: "measure", key, limit },
    level: "warning",
    sure: "likely",
  };
}

function ofMarks(ref: string): LessonProposal[] {
  const letters = ONE_WAY_LETTERS.find((l) => l === lettersOf(ref));
  return letters === undefined
    ? []
    : [
        {
          title: `Every ${letters} tells on the board which way round it sits`,
          check: { kind: "marked", letters },
          level: "error",
          sure: "certain",
        },
      ];
}

function ofPattern(ref: string, m: Measure, least: number): LessonProposal[] {
  const letters = lettersOf(ref).replace(/[^A-Z]/g, "");
  const { pins, at } = patternOfPart(m, ref);
  if (pins.length < least || pins.length > MOST_LESSON_PINS || letters === "") return [];
  const round = (v: number) => Math.round(v * 1000) / 1000;
  const check: LessonCheck = {
    kind: "pattern",
    letters,
    pins,
    at: at.map(([x, y]) => [round(x), round(y)] as const),
  };
  return [
    {
      title: `The land pattern of ${ref} is not used for a ${letters}`,
      check,
      level: "error",
      sure: "certain",
    },
  ];
}

/** Around a pad that much of it has to be what is soldered to, mm. */
const PAD_MM = 0.4;

function ofPads(place: string, ref: string, m: Measure): LessonProposal[] {
  const all = padsByPin(m);
  const names = all.has(place) ? [place] : [...all.keys()].filter((pin) => ref !== "" && refOf(pin) === ref);
  const [first] = names;
  const pads = names.reduce((n, pin) => n + all.get(pin)!.length, 0);
  // more are not looked at, and of some alone it is no lesson about the part
  if (first === undefined || pads > MOST_LESSON_PINS) return [];
  const side = all.get(first)![0]!.layer === "bottom" ? "bottom" : "top";
  return [
    {
      title: `${all.has(place) ? place : `Every pad of ${ref}`} takes solder: copper there, the mask open`,
      check: { kind: "place", what: "solder", side, diameterMm: PAD_MM, pins: names },
      level: "error",
      sure: "certain",
    },
  ];
}
