import { type Right, shapes } from "@kobbin/core";
import * as yup from "yup";
import { choice, shaped, trimmed } from "./fields.ts";

/** Something on a product that may be somebody's, and what entitles to it. */
export const rightBody = yup.object({
  kind: choice(shapes.RIGHT_KINDS).required("Say what it is."),
  what: trimmed(200).required("Say what it is in a few words."),
  place: trimmed(120).default(""),
  owner: trimmed(200).default(""),
  state: choice(shapes.RIGHT_STATES).default("unknown"),
  evidence: trimmed(1000).default(""),
  facts: shaped<Right["facts"]>(shapes.RIGHT_SHAPES.facts).default({}),
});
export type RightBody = yup.InferType<typeof rightBody>;

/** What is said anew of it; what is left out stays as it is. */
export const rightChangeBody = yup.object({
  what: trimmed(200).min(1, "Say what it is in a few words."),
  place: trimmed(120),
  owner: trimmed(200),
  state: choice(shapes.RIGHT_STATES),
  evidence: trimmed(1000),
  facts: shaped<Right["facts"]>(shapes.RIGHT_SHAPES.facts),
});
export type RightChangeBody = yup.InferType<typeof rightChangeBody>;
