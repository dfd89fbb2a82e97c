import * as yup from "yup";
import { day, id, list, trimmed, whole } from "./fields.ts";

const unit = () => whole(1, 100_000);

/** Boards of a run that went somewhere, and who has them. */
export const outsBody = yup.object({
  units: list(unit().required(), 2000).min(1, "Say which boards.").required("Say which boards."),
  on: day.required(),
  towards: trimmed(200).min(1, "Say where they went.").required("Say where they went."),
  /** Who has it and how they are reached: what tells of a person, and can be forgotten. */
  holder: trimmed(200).default(""),
  reach: trimmed(300).default(""),
});
export type OutsBody = yup.InferType<typeof outsBody>;

/** What an owner says of a product, and of which board where it is known. */
export const newReportBody = yup
  .object({
    productId: id().required("Say of which product."),
    runId: id(),
    unit: unit(),
    on: day.required(),
    says: trimmed(2000).min(1, "Write what they say.").required("Write what they say."),
    conditions: trimmed(1000).default(""),
    workaround: trimmed(1000).default(""),
  })
  .test(
    "board",
    "A board is said by its run and its number.",
    (r) => (r.runId === undefined) === (r.unit === undefined),
  );
export type NewReportBody = yup.InferType<typeof newReportBody>;

/** What is said anew of it; what is left out stays as it is. */
export const reportBody = yup.object({
  says: trimmed(2000).min(1, "Write what they say."),
  conditions: trimmed(1000),
  workaround: trimmed(1000),
  answer: trimmed(2000),
  /** The fault it is; null where it is none after all. */
  erratumId: id().nullable(),
});
export type ReportBody = yup.InferType<typeof reportBody>;
