import { turnBetween } from "../board/copper/pattern.ts";
import type { Measure } from "../board/measure-document.ts";
import type { Place } from "../board/worst.ts";
import { compareRefs, lettersOf } from "../bom/refs.ts";
import { measureSpec } from "../fab/measures.ts";
import type { FabOptions } from "../fab/options.ts";
import { few } from "../findings.ts";
import { cornerOf, featureAt, slotsOf } from "../fit/features.ts";
import { judgeIntended } from "../fit/intended.ts";
import { mmWords as mm } from "../fit/row.ts";
import { capital } from "../words.ts";
import { padsByPart, padsByPin, patternOfPart } from "./board-pins.ts";
import type { LessonCheck, LessonPlace } from "./lesson.ts";
import { lessonPlaces } from "./lesson-places.ts";

/**
 * What became of a lesson: it holds, it does not, what it is about is not there (which is no pass), it cannot be told, or
 * somebody has to answer.
 */
export type LessonVerdict = "holds" | "broken" | "not-there" | "unknown" | "ask";

export interface Judgement {
  readonly verdict: LessonVerdict;
  /** What was found, as a sentence. */
  readonly found: string;
  readonly at?: Place | { readonly layer?: string; readonly x: number; readonly y: number };
  readonly about?: readonly string[];
}

/** A board as a lesson sees it. */
export interface LearnBoard {
  readonly measure: Measure;
  readonly options: Partial<FabOptions>;
  /** Side and rotation of its parts, by reference. */
  readonly sides: ReadonlyMap<string, "top" | "bottom">;
  /** What its files have at the lesson's places; undefined while they are being read. */
  readonly places?: readonly LessonPlace[];
}

/** Kinds that are measured on a board; the others are about what is bought and chosen. */
export const ON_BOARD = ["measure", "slot", "place", "marked", "pattern", "contacts"] as const;
export type BoardCheckKind = (typeof ON_BOARD)[number];
export type BoardLesson = Extract<LessonCheck, { kind: BoardCheckKind }>;

export const isOnBoard = (c: LessonCheck): c is BoardLesson =>
  (ON_BOARD as readonly string[]).includes(c.kind);

const refsInOrder = (refs: Iterable<string>) => [...refs].sort(compareRefs);
const NO_PINS = "No file tells which pads are whose.";

/**
 * Judges a lesson on a board. What cannot be measured there is never taken for a pass: it is said to be unknown, or not
 * to be there.
 */
export function judgeOnBoard(c: BoardLesson, b: LearnBoard): Judgement {
  switch (c.kind) {
    case "measure":
      return judgeMeasure(c, b);
    case "slot":
      return judgeSlot(c, b.measure);
    case "place":
      return judgePlaces(c, b);
    case "marked":
      return judgeMarked(c, b.measure);
    case "pattern":
      return judgePattern(c, b);
    case "contacts":
      return judgeContacts(c, b.measure);
  }
}

function judgeMeasure(c: Extract<LessonCheck, { kind: "measure" }>, b: LearnBoard): Judgement {
  const spec = measureSpec(c.key);
  const value = spec.valueOf(b.measure, b.options);
  if (value === undefined && c.key === "slots")
    return { verdict: "not-there", found: "The board has no slot." };
  if (value === undefined)
    return {
      verdict: "unknown",
      found: `The board has no ${spec.label}, or its files do not tell it.`,
    };
  // figures are shown to a thousandth, and one that is shown as the limit is the limit
  const shown = Math.round(value * 1000) / 1000;
  const holds = spec.is === "at least" ? shown >= c.limit : shown <= c.limit;
  const at = spec.placesOf(b.measure)[0];
  return {
    verdict: holds ? "holds" : "broken",
    found: `Measured: ${mm(value)}${spec.unit === "mm" ? " mm" : ""}.`,
    ...(at ? { at } : {}),
  };
}

function judgeSlot(c: Extract<LessonCheck, { kind: "slot" }>, m: Measure): Judgement {
  if (m.outline?.widthMm === undefined)
    return { verdict: "unknown", found: "The outline is not closed: there is no corner to count from." };
  const slot = featureAt(m, slotsOf(m), c.at);
  if (!slot)
    return {
      verdict: "not-there",
      found: `No slot lies within 3 mm of ${mm(c.at[0])} / ${mm(c.at[1])} mm from the corner.`,
    };
  return {
    verdict: Math.round(slot.widthMm * 1000) / 1000 >= c.leastMm ? "holds" : "broken",
    found: `It is ${mm(slot.widthMm)} mm wide and ${mm(slot.lengthMm)} mm long.`,
    at: { x: slot.x, y: slot.y },
  };
}

function judgePlaces(c: Extract<LessonCheck, { kind: "place" }>, b: LearnBoard): Judgement {
  const { measure: m } = b;
  if (c.at && m.outline?.widthMm === undefined)
    return { verdict: "unknown", found: "The outline is not closed: there is no corner to count from." };
  const known = c.pins ? padsByPin(m) : undefined;
  if (known?.size === 0) return { verdict: "unknown", found: NO_PINS };
  const gone = (c.pins ?? []).filter((p) => !known!.has(p));
  const wanted = lessonPlaces(c, m);
  if (wanted.length === 0)
    return { verdict: "not-there", found: `The board has no ${few(c.pins ?? [], 5)}.`, about: gone };
  if (!b.places) return { verdict: "unknown", found: "The files are being read at these places." };
  const [x0, y0] = cornerOf(m);
  const judged = wanted.map((w) => {
    const read = b.places!.find((p) => p.pin === w.pin && Math.hypot(p.x - w.x, p.y - w.y) < 0.005);
    const spec = {
      kind: "intended",
      what: c.what,
      side: c.side,
      diameterMm: c.diameterMm,
      at: [w.x - x0, w.y - y0] as const,
    } as const;
    return { ...w, ...judgeIntended(spec, read?.reading) };
  });
  const broken = judged.filter((j) => j.settled === "does-not-fit");
  const name = (j: (typeof judged)[number]) => j.pin || "The place";
  if (broken.length > 0) {
    const [first] = broken;
    return {
      verdict: "broken",
      found: `${c.pins ? `${few([...new Set(broken.map(name))], 5)}: ` : ""}${first!.because}`,
      at: { layer: c.side, x: first!.x, y: first!.y },
      ...(c.pins ? { about: [...new Set(broken.map(name))] } : {}),
    };
  }
  const open = judged.find((j) => j.settled !== "fits");
  const pads = (c.pins ?? []).reduce((n, p) => n + (known?.get(p)?.length ?? 0), 0);
  if (!open && pads > wanted.length)
    return {
      verdict: "unknown",
      found: `${wanted.length} of ${pads} pads are as wanted; more are not looked at.`,
    };
  if (open) return { verdict: "unknown", found: `${name(open)}: ${open.because}`, at: open };
  if (gone.length > 0)
    return {
      verdict: "not-there",
      found: `The board has no ${few(gone, 5)}; ${counted(judged.length)}.`,
      about: gone,
    };
  return { verdict: "holds", found: "Read in the files: so it is.", at: judged[0]! };
}

const counted = (n: number) =>
  n === 1 ? "the one place it has is as wanted" : `the ${n} places it has are as wanted`;

function judgeMarked(c: Extract<LessonCheck, { kind: "marked" }>, m: Measure): Judgement {
  const parts = padsByPart(m);
  if (parts.size === 0) return { verdict: "unknown", found: NO_PINS };
  const these = refsInOrder([...parts.keys()].filter((ref) => lettersOf(ref) === c.letters));
  if (these.length === 0) return { verdict: "not-there", found: `The board has no ${c.letters}.` };
  const unread = m.findings.find((f) => f.tag === "budget-reached");
  const unmarked = m.findings
    .filter((f) => f.tag === "direction-unmarked")
    .flatMap((f) => f.about ?? [])
    .filter((ref) => lettersOf(ref) === c.letters);
  if (unmarked.length > 0) {
    const first = parts.get(unmarked[0]!)?.[0];
    return {
      verdict: "broken",
      found: `Nothing on silkscreen or copper tells it of ${few(unmarked)}.`,
      about: unmarked,
      ...(first ? { at: { layer: first.layer, x: first.x, y: first.y } } : {}),
    };
  }
  if (unread) return { verdict: "unknown", found: `Not everything could be worked out: ${unread.text}` };
  return {
    verdict: "holds",
    found: `Of ${few(these)} it is told, or they cannot be taken the other way.`,
  };
}

function judgePattern(c: Extract<LessonCheck, { kind: "pattern" }>, b: LearnBoard): Judgement {
  const parts = padsByPart(b.measure);
  if (parts.size === 0) return { verdict: "unknown", found: NO_PINS };
  const these = refsInOrder([...parts.keys()].filter((ref) => lettersOf(ref) === c.letters));
  if (these.length === 0) return { verdict: "not-there", found: `The board has no ${c.letters}.` };
  // the places of a pattern that is kept stand in the order of its pins
  const order = c.pins.map((_, i) => i).sort((i, k) => (c.pins[i]! < c.pins[k]! ? -1 : 1));
  const kept = {
    ref: "",
    side: "top",
    x: 0,
    y: 0,
    pins: order.map((i) => c.pins[i]!),
    at: order.map((i) => c.at[i]!),
  } as const;
  const like = these.filter(
    (ref) => turnBetween(kept, patternOfPart(b.measure, ref, b.sides.get(ref))) !== undefined,
  );
  if (like.length === 0) return { verdict: "holds", found: `The pads of ${few(these)} lie otherwise.` };
  const first = parts.get(like[0]!)![0]!;
  return {
    verdict: "broken",
    found: `${few(like)} ${like.length === 1 ? "has" : "have"} it.`,
    about: like,
    at: { layer: first.layer, x: first.x, y: first.y },
  };
}

function judgeContacts(c: Extract<LessonCheck, { kind: "contacts" }>, m: Measure): Judgement {
  const rows = Object.entries(m.edgeContacts ?? {});
  if (rows.length === 0) return { verdict: "not-there", found: "The board has no contacts at its edge." };
  const judged = rows.map(([side, r]) => {
    const at = r.at ? { layer: side, ...r.at } : undefined;
    if (c.what === "setback")
      return {
        holds: Math.round(r.setbackMm * 1000) / 1000 >= c.leastMm!,
        found: `${side}: ${mm(r.setbackMm)} mm`,
        at,
      };
    const n = c.what === "mask" ? r.maskBetween : r.tieBars;
    const what = c.what === "mask" ? "gaps with mask" : "contacts with copper on to the edge";
    return n === undefined
      ? { holds: undefined, found: `${side}: the files do not tell it`, at }
      : { holds: n === 0, found: `${side}: ${n} ${what}`, at };
  });
  const worst =
    judged.find((j) => j.holds === false) ?? judged.find((j) => j.holds === undefined) ?? judged[0]!;
  return {
    verdict: worst.holds === undefined ? "unknown" : worst.holds ? "holds" : "broken",
    found: capital(`${judged.map((j) => j.found).join("; ")}.`),
    ...(worst.at ? { at: worst.at } : {}),
  };
}
