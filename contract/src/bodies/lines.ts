import { type LineFieldKey, MOUNTS, ORIGINS, shapes } from "@kobbin/core";
import * as yup from "yup";
import { choice, flag, id, list, mapOf, money, number, text, version } from "./fields.ts";

/** What a request may say of each field; one that the table of fields has and this has not does not compile. */
const LINE_SCHEMAS = {
  refs: list(text(80).required(), 2000),
  qty: number(0, 100_000),
  valueText: text(300),
  package: text(120),
  mpn: text(120),
  maker: text(120),
  description: text(500),
  dnp: flag(),
  mount: choice(MOUNTS),
  origin: choice(ORIGINS),
  /** The made item it belongs to; null: none. */
  parent: id().nullable(),
  /** The board it is on; null: the product's own. */
  board: id().nullable(),
  madeCost: money,
} satisfies Record<LineFieldKey, yup.AnySchema>;

export const lineBody = yup.object({
  /** The version that was seen; without it, the newest is meant. */
  version,
  ...LINE_SCHEMAS,
});
/** A line that is there, with what it is to have. */
export const changedLine = lineBody.shape({ id: id().required() });
/** Many lines changed as one act. */
export const linesChange = yup.object({
  lines: list(changedLine, 5000).min(1).required(),
});

/** Lines that are added, or take the place of the bill that is there. */
export const newBill = yup.object({
  lines: list(lineBody, 20_000)
    .min(1, "There is no line in it.")
    .max(20_000, "A bill holds at most 20,000 lines; nothing of it was taken.")
    .required(),
  /** Only the lines of this board are replaced, and these are on it. */
  board: id(),
});

/** Columns of a list a person confirmed, to be known when such a list comes again. */
export const columnsBody = yup.object({
  /** The list's headings, or what else tells it from others. */
  source: text(1000).min(1).required(),
  /** Column index → what it holds. */
  columns: mapOf<string>(shapes.text(60), 400, /^\d{1,3}$/).required(),
});

/** Lines that become one with another: their references move to it, they go. */
export const mergeBody = yup.object({
  version,
  others: list(id().required(), 200).min(1).required(),
});

export type LineBody = yup.InferType<typeof lineBody>;
