import type { AttachedSum, Variant } from "@kobbin/core";
import * as yup from "yup";

export interface SumRow extends AttachedSum {
  readonly version: number;
}
export interface VariantRow extends Variant {
  readonly version: number;
}

const texts = (most: number) =>
  yup
    .mixed<Record<string, string>>()
    .test(
      "texts",
      "An input is a short text.",
      (v) =>
        v === undefined ||
        (Object.keys(v).length <= 20 &&
          Object.entries(v).every(
            ([k, t]) => /^[a-z0-9]{1,20}$/.test(k) && typeof t === "string" && t.length <= most,
          )),
    );
const sumFields = {
  name: yup.string().trim().max(120).default(""),
  given: texts(60),
  lines: texts(36),
  wanted: yup.string().max(60).default(""),
  withinPct: yup.number().min(0).max(1000).default(10),
};
export const newSumBody = yup.object({
  kind: yup
    .string()
    .matches(/^[a-z]{1,20}$/)
    .required(),
  ...sumFields,
});
export type NewSumBody = yup.InferType<typeof newSumBody>;
export const sumBody = yup.object({
  version: yup.number().integer().min(1),
  name: yup.string().trim().max(120),
  given: texts(60),
  lines: texts(36),
  wanted: yup.string().max(60),
  withinPct: yup.number().min(0).max(1000),
});
export type SumBody = yup.InferType<typeof sumBody>;

const UUID = /^[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}$/;
const overrides = yup
  .mixed<Variant["overrides"]>()
  .test("overrides", "A variant changes lines of the bill.", (v) => {
    if (v === undefined) return true;
    if (typeof v !== "object" || v === null || Object.keys(v).length > 5000) return false;
    return Object.entries(v).every(
      ([k, o]) =>
        UUID.test(k) &&
        typeof o === "object" &&
        o !== null &&
        Object.entries(o).every(
          ([key, x]) =>
            (key === "dnp" && typeof x === "boolean") ||
            (key === "qty" && typeof x === "number" && x >= 0 && x <= 100_000) ||
            ((key === "valueText" || key === "mpn") && typeof x === "string" && x.length <= 300),
        ),
    );
  });
const variantName = yup.string().trim().min(1, "Give the variant a name.").max(80);
export const newVariantBody = yup.object({
  name: variantName.required("Give the variant a name."),
  overrides,
});
export const variantBody = yup.object({
  version: yup.number().integer().min(1),
  name: variantName,
  overrides,
});
export type VariantBody = yup.InferType<typeof variantBody>;
