import { type QuoteBasis, shapes } from "@kobbin/core";
import * as yup from "yup";
import {
  choice,
  currency,
  day,
  flag,
  id,
  list,
  mapOf,
  money,
  name,
  number,
  shaped,
  text,
  trimmed,
  version,
  whole,
} from "./fields.ts";

export const newRunBody = yup.object({
  revisionId: id().required(),
  name: name.required("Give the run a name."),
  goodBoards: whole(1, 100_000).min(1, "A run makes at least one board.").required(),
});
export type NewRunBody = yup.InferType<typeof newRunBody>;

export const runBody = yup.object({
  version: version.required(),
  name,
  goodBoards: whole(1, 100_000).min(1, "A run makes at least one board."),
  confidence: number(0.5, 0.999),
  houseId: id().nullable(),
  options: yup
    .object({
      thickness: text(60),
      copper: text(60),
      finish: text(60),
      mask: text(60),
      legend: text(60),
      leadDays: whole(0, 1000),
    })
    .default(undefined),
  assembly: yup
    .object({
      method: choice(["iron", "stencil", "house"]),
      house: id(),
      perLoad: whole(1, 100),
      stencilPrice: money,
      consumables: money,
      handParts: choice(["here", "house"]),
      reworkReserve: number(0, 100),
      testMinutes: number(0, 600),
      packMinutes: number(0, 600),
    })
    .default(undefined),
  basket: list(text(60).required(), 200),
  pins: mapOf<string>(shapes.id, 20_000, shapes.UUID),
  leftovers: choice(["stock", "expense"]),
  variant: id().nullable(),
  ownShelf: choice(["first", "leave"]),
  accepted: mapOf<string>(shapes.text(2000), 5000),
});
export type RunBody = yup.InferType<typeof runBody>;

export const copyHouseBody = yup.object({
  copyOf: id().required(),
  name: name.required("Give the copy a name."),
});
export type CopyHouseBody = yup.InferType<typeof copyHouseBody>;

export const quoteBody = yup.object({
  houseId: id().required(),
  kind: choice(["fab", "assembly"]).required(),
  total: money.required("Type the sum quoted."),
  currency: currency.required(),
  days: whole(0, 365).required(),
  validUntil: day,
  basis: shaped<QuoteBasis>(shapes.quoteBasisShape),
});
export type QuoteBody = yup.InferType<typeof quoteBody>;

export const remarkBody = yup.object({
  stage: text(20)
    .matches(/^[a-z-]{1,20}$/, "A remark stands at a stage.")
    .required(),
  lineId: id(),
  text: trimmed(2000).min(1, "Write something first.").required("Write something first."),
});
export type RemarkBody = yup.InferType<typeof remarkBody>;

export const undoBody = yup.object({ force: flag().default(false) });
