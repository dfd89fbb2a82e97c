import { type DataShape, fields, maybe, oneOf, text } from "./shape.ts";

/** What on a product may be somebody's. */
export const RIGHT_KINDS = ["logo", "approval", "picture", "file", "design", "question"] as const;
/** Whether one may use it: it is one's own, it was granted, it was not, or nobody has looked. */
export const RIGHT_STATES = ["own", "granted", "refused", "unknown"] as const;
/** Questions before something is sold, by their key; what the law of a place wants is asked there. */
export const SALE_QUESTIONS = ["conformity", "lead", "cells", "mains", "radio", "hosts"] as const;

/** What a shop says of it, field by field. */
export const RIGHT_SHAPES = {
  kind: oneOf(...RIGHT_KINDS),
  what: text(200, 1),
  place: text(120),
  owner: text(200),
  state: oneOf(...RIGHT_STATES),
  evidence: text(1000),
  /** Of a borrowed design: its version and stated state, whether anybody has it working, its limits. */
  facts: fields({
    version: maybe(text(120)),
    status: maybe(text(500)),
    built: maybe(oneOf("yes", "no")),
    limits: maybe(text(500)),
  }),
} as const;

/** As it stands in a run's document. */
export const rightShape: DataShape = fields({ id: text(80, 1), ...RIGHT_SHAPES });
