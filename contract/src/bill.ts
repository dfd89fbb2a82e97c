import { type AttachedSum, shapes, type Variant } from "@kobbin/core";
import * as yup from "yup";
import { mapOf, number, shaped, text, trimmed, version } from "./bodies/fields.ts";

export interface SumRow extends AttachedSum {
  readonly version: number;
}
export interface VariantRow extends Variant {
  readonly version: number;
}

const texts = (most: number) => mapOf<string>(shapes.text(most), 20, /^[a-z0-9]{1,20}$/);
const sumFields = {
  name: trimmed(120).default(""),
  given: texts(60),
  lines: texts(36),
  wanted: text(60).default(""),
  withinPct: number(0, 1000).default(10),
};
export const newSumBody = yup.object({
  kind: text(20)
    .matches(/^[a-z]{1,20}$/)
    .required(),
  ...sumFields,
});
export type NewSumBody = yup.InferType<typeof newSumBody>;
export const sumBody = yup.object({
  version,
  name: trimmed(120),
  given: texts(60),
  lines: texts(36),
  wanted: text(60),
  withinPct: number(0, 1000),
});
export type SumBody = yup.InferType<typeof sumBody>;

const overrides = shaped<Variant["overrides"]>(
  shapes.both(
    shapes.overridesShape,
    shapes.mapOf(() => undefined, 5000, shapes.UUID),
  ),
);
const variantName = trimmed(80).min(1, "Give the variant a name.");
export const newVariantBody = yup.object({
  name: variantName.required("Give the variant a name."),
  overrides,
});
export const variantBody = yup.object({
  version,
  name: variantName,
  overrides,
});
export type VariantBody = yup.InferType<typeof variantBody>;
