import * as yup from "yup";
import { currency, day, money, name, version } from "./fields.ts";

export const newRunBody = yup.object({
  revisionId: yup.string().uuid().required(),
  name: name.required("Give the run a name."),
  goodBoards: yup.number().integer().min(1, "A run makes at least one board.").max(100_000).required(),
});
export type NewRunBody = yup.InferType<typeof newRunBody>;

export const runBody = yup.object({
  version: version.required(),
  name,
  goodBoards: yup.number().integer().min(1, "A run makes at least one board.").max(100_000),
  confidence: yup.number().min(0.5).max(0.999),
  houseId: yup.string().uuid().nullable(),
  options: yup
    .object({
      thickness: yup.string(),
      copper: yup.string(),
      finish: yup.string(),
      mask: yup.string(),
      legend: yup.string(),
      leadDays: yup.number(),
    })
    .default(undefined),
  assembly: yup
    .object({
      method: yup.string().oneOf(["iron", "stencil", "house"] as const),
      house: yup.string().uuid(),
      perLoad: yup.number().integer().min(1).max(100),
      stencilPrice: money,
      consumables: money,
      reworkReserve: yup.number().min(0).max(100),
      testMinutes: yup.number().min(0).max(600),
      packMinutes: yup.number().min(0).max(600),
    })
    .default(undefined),
  basket: yup.array().of(yup.string().required()),
  pins: yup.mixed<Record<string, string>>(),
  leftovers: yup.string().oneOf(["stock", "expense"] as const),
  variant: yup.string().uuid().nullable(),
  ownShelf: yup.string().oneOf(["first", "leave"] as const),
  accepted: yup.mixed<Record<string, string>>(),
});
export type RunBody = yup.InferType<typeof runBody>;

export const copyHouseBody = yup.object({
  copyOf: yup.string().uuid().required(),
  name: name.required("Give the copy a name."),
});
export type CopyHouseBody = yup.InferType<typeof copyHouseBody>;

export const quoteBody = yup.object({
  houseId: yup.string().uuid().required(),
  kind: yup
    .string()
    .oneOf(["fab", "assembly"] as const)
    .required(),
  total: money.required("Type the sum quoted."),
  currency: currency.required(),
  days: yup.number().integer().min(0).max(365).required(),
  validUntil: day,
});
export type QuoteBody = yup.InferType<typeof quoteBody>;

export const remarkBody = yup.object({
  stage: yup
    .string()
    .matches(/^[a-z-]{1,20}$/, "A remark stands at a stage.")
    .required(),
  lineId: yup.string().uuid(),
  text: yup.string().trim().min(1, "Write something first.").max(2000).required("Write something first."),
});
export type RemarkBody = yup.InferType<typeof remarkBody>;

export const undoBody = yup.object({ force: yup.boolean().default(false) });
