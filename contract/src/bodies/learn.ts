import { type ErratumSpot, type LessonCheck, shapes } from "@kobbin/core";
import * as yup from "yup";
import { choice, day, flag, id, number as numberIn, shaped, trimmed, whole } from "./fields.ts";

const title = trimmed(shapes.LONGEST_TITLE);
const evidence = trimmed(shapes.LONGEST_EVIDENCE);

/** Something that was learned, to be held against every later board. */
export const newLessonBody = yup.object({
  title: title.required("Say in a sentence what was learned."),
  check: shaped<LessonCheck>(shapes.lessonCheckShape).required("Say what is looked at."),
  level: choice(shapes.LESSON_LEVELS).default("warning"),
  sure: choice(shapes.LESSON_SURE).default("certain"),
  came: trimmed(300).default(""),
  evidence: evidence.default(""),
  since: day.required("Say since when."),
  /** The one product it is about; every one where left out. */
  productId: id(),
  /** The revision it was learned from. */
  revisionId: id(),
});
export type NewLessonBody = yup.InferType<typeof newLessonBody>;

/** What is said anew of a lesson; what is left out stays as it is. */
export const lessonBody = yup.object({
  title: title.min(1, "Say in a sentence what was learned."),
  check: shaped<LessonCheck>(shapes.lessonCheckShape),
  level: choice(shapes.LESSON_LEVELS),
  sure: choice(shapes.LESSON_SURE),
  evidence,
  /** When it was cleared, and by what; null where it counts again. */
  clearedOn: day.nullable(),
  clearedBy: trimmed(500),
  relaxed: shaped<readonly { readonly product: string; readonly because: string }[]>(shapes.relaxedShape),
});
export type LessonBody = yup.InferType<typeof lessonBody>;

const spot = shaped<ErratumSpot>(shapes.erratumSpotShape);

/** Something that is known to be wrong with a revision. */
export const newErratumBody = yup.object({
  revisionId: id().required("Say in which revision it was found."),
  title: title.required("Say in a sentence what is wrong."),
  effect: trimmed(1000).default(""),
  harm: choice(shapes.ERRATUM_HARMS).required("Say what it does."),
  spot: spot.required("Say where it is."),
  way: choice(shapes.ERRATUM_WAYS).default("none"),
  workaround: trimmed(1000).default(""),
  minutes: numberIn(0, 10_000).nullable(),
  planned: trimmed(120).default(""),
  evidence: evidence.default(""),
  foundOn: day.required("Say when it was found."),
});
export type NewErratumBody = yup.InferType<typeof newErratumBody>;

/** What is said anew of it; what is left out stays as it is. */
export const erratumBody = yup.object({
  title: title.min(1, "Say in a sentence what is wrong."),
  effect: trimmed(1000),
  harm: choice(shapes.ERRATUM_HARMS),
  spot,
  way: choice(shapes.ERRATUM_WAYS),
  workaround: trimmed(1000),
  minutes: numberIn(0, 10_000).nullable(),
  planned: trimmed(120),
  evidence,
});
export type ErratumBody = yup.InferType<typeof erratumBody>;

/** What is decided of an erratum for another revision; null takes it back. */
export const decisionBody = yup.object({
  revisionId: id().required("Say for which revision."),
  is: choice(shapes.ERRATUM_DECISIONS).nullable().defined(),
  because: trimmed(500).default(""),
  on: day.required(),
});
export type DecisionBody = yup.InferType<typeof decisionBody>;

/** A board on which an erratum was worked around, or that was given up for it. */
export const reworkBody = yup.object({
  runId: id().required("Say of which run the board is."),
  unit: whole(1, 100_000).required("Say which board it is."),
  on: day.required(),
  minutes: numberIn(0, 10_000),
  isScrapped: flag().default(false),
  note: trimmed(500).default(""),
});
export type ReworkBody = yup.InferType<typeof reworkBody>;

/** Whether a product wants a next revision; null takes the decision back. */
export const planBody = yup.object({
  isNeeded: flag().nullable().defined(),
  because: trimmed(1000).default(""),
  begins: trimmed(300).default(""),
  on: day.required(),
});
export type PlanBody = yup.InferType<typeof planBody>;
