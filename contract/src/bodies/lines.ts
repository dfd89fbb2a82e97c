import { ORIGINS } from "@kobbin/core";
import * as yup from "yup";
import { money, version } from "./fields.ts";

export const lineBody = yup.object({
  /** The version that was seen; without it, the newest is meant. */
  version,
  refs: yup.array().of(yup.string().required()).max(2000),
  qty: yup.number().min(0, "A quantity is not negative.").max(100_000),
  valueText: yup.string().max(300),
  package: yup.string().max(120),
  mpn: yup.string().max(120),
  maker: yup.string().max(120),
  description: yup.string().max(500),
  dnp: yup.boolean(),
  mount: yup.string().oneOf(["machine", "hand", "none"] as const),
  origin: yup.string().oneOf(ORIGINS),
  /** The made item it belongs to; null: none. */
  parent: yup.string().uuid().nullable(),
  /** The board it is on; null: the product's own. */
  board: yup.string().uuid().nullable(),
  madeCost: money,
});
/** Many lines changed as one act. */
export const linesChange = yup.object({
  lines: yup
    .array(lineBody.shape({ id: yup.string().uuid().required() }))
    .min(1)
    .max(5000)
    .required(),
});

/** Lines that are added, or take the place of the bill that is there. */
export const newBill = yup.object({
  lines: yup
    .array(lineBody)
    .min(1, "There is no line in it.")
    .max(20_000, "A bill holds at most 20,000 lines; nothing of it was taken.")
    .required(),
  /** Only the lines of this board are replaced, and these are on it. */
  board: yup.string().uuid(),
});

/** Columns of a list a person confirmed, to be known when such a list comes again. */
export const columnsBody = yup.object({
  /** The list's headings, or what else tells it from others. */
  source: yup.string().min(1).max(1000).required(),
  /** Column index → what it holds. */
  columns: yup
    .mixed<Record<string, string>>()
    .test(
      "columns",
      "A column holds something by name.",
      (v) =>
        v !== undefined &&
        Object.entries(v).every(([k, t]) => /^\d{1,3}$/.test(k) && typeof t === "string" && t.length <= 60),
    )
    .required(),
});

/** Lines that become one with another: their references move to it, they go. */
export const mergeBody = yup.object({
  version: yup.number().integer().min(1),
  others: yup.array(yup.string().uuid().required()).min(1).max(200).required(),
});

export type LineBody = yup.InferType<typeof lineBody>;
