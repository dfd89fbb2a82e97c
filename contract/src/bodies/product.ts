import { type FitSpec, shapes } from "@kobbin/core";
import * as yup from "yup";
import { id, mapOf, name, number as numberIn, shaped, trimmed, version, whole } from "./fields.ts";

/** The fields of a form that brings a product's files. */
export const productForm = yup.object({
  productId: id(),
  name: trimmed(120),
  revision: trimmed(40),
});

/** A row of a product's fit sheet: what a board of it must go with. */
export const fitBody = yup.object({
  label: trimmed(120).required("Say what it must fit."),
  /** Name of the board it is about; the first where left out. */
  board: trimmed(200),
  spec: shaped<FitSpec>(shapes.fitSpecShape).required("Say what is measured."),
  playMm: numberIn(0, 100),
});
export type FitBody = yup.InferType<typeof fitBody>;

/** What of a board may be changed beside its files. */
export const boardBody = yup.object({
  version,
  name,
  perProduct: whole(1, 1000),
});
export type BoardBody = yup.InferType<typeof boardBody>;

const roles = [
  "copper",
  "mask",
  "legend",
  "paste",
  "profile",
  "drill",
  "job",
  "netlist",
  "bom",
  "placement",
  "score",
  "drawing",
  "unknown",
] as const;
const { fields, flag, maybe, number, oneOf, text, whole: wholeNumber } = shapes;
/** Files of a drop at most; so many can be corrected at once. */
const MOST_FILES = 500;
const shift = number(-5000, 5000);

/** How files of a board are to be read, by their path in the drop. */
export const correctionsBody = yup.object({
  roles: mapOf<{
    role: (typeof roles)[number];
    side?: "top" | "bottom" | "inner";
    index?: number;
    plated?: boolean;
  }>(
    fields(
      {
        role: oneOf(...roles),
        side: maybe(oneOf("top", "bottom", "inner")),
        index: maybe(wholeNumber(1, 100)),
        plated: maybe(flag),
      },
      (_v, path) => `${path} is not known`,
    ),
    MOST_FILES,
  ),
  columns: mapOf<Record<string, string>>(shapes.mapOf(text(200), 400), MOST_FILES),
  moves: mapOf<{ dxMm: number; dyMm: number; isMirrored?: boolean }>(
    fields({ dxMm: shift, dyMm: shift, isMirrored: maybe(flag) }, (_v, path) => `${path} is not known`),
    MOST_FILES,
  ),
});
export type CorrectionsBody = yup.InferType<typeof correctionsBody>;
