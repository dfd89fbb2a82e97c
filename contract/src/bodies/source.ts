import { SOURCE_CLASSES } from "@kobbin/core";
import * as yup from "yup";
import {
  choice,
  currency,
  day,
  flag,
  id,
  list,
  money,
  name,
  number,
  text,
  version,
  whole,
} from "./fields.ts";

export const offerBody = yup.object({
  supplierId: id().required("Say who offers it."),
  /** The library part it is for, where it is not the line's own number. */
  partId: id(),
  stock: whole(0, 1e9).required(),
  moq: whole(1, 1e7).default(1),
  multiple: whole(1, 1e6).default(1),
  currency: currency.required(),
  breaks: list(yup.object({ qty: whole(1, 1e8).required(), price: money.required() }), 30)
    .min(1, "An offer has at least one price.")
    .required(),
  source: choice(["typed", "pasted"]).default("typed"),
  validUntil: day,
  leadDays: whole(0, 1000),
  packaging: text(60),
  /** Charged once when anything is bought of it. */
  fee: money,
  restriction: text(200),
});
export type OfferBody = yup.InferType<typeof offerBody>;

/** One offer of a quotation. */
export const quotedOffer = yup.object({
  lineId: id().required(),
  partId: id(),
  stock: whole(0, 1e9).required(),
  moq: whole(1, 1e7).default(1),
  multiple: whole(1, 1e6).default(1),
  leadDays: whole(0, 1000),
  breaks: list(yup.object({ qty: whole(1, 1e8).required(), price: money.required() }), 30)
    .min(1)
    .required(),
});
/** A supplier's quotation: offers for lines of a run, in the place of what it quoted for them before. */
export const quotationBody = yup.object({
  supplierId: id().required(),
  currency: currency.required(),
  validUntil: day,
  offers: list(quotedOffer, 5000).min(1).required(),
});
export type QuotationBody = yup.InferType<typeof quotationBody>;

const supplierTerms = {
  freeFrom: money.nullable(),
  smallOrderBelow: money.nullable(),
  smallOrderFee: money.nullable(),
  minimumOrder: money.nullable(),
  handling: money.nullable(),
  dutyRate: number(0, 1),
  dutyOnFreight: flag(),
  sourceClass: choice(SOURCE_CLASSES),
  includesTax: flag(),
};
export const supplierBody = yup.object({
  name: name.required("Give the supplier a name."),
  currency: currency.required(),
  shipping: money.required(),
  daysMin: whole(0, 365).required(),
  daysMax: whole(0, 365).required(),
  ...supplierTerms,
});
export const supplierChange = yup.object({
  version: version.required(),
  name,
  currency,
  shipping: money,
  daysMin: whole(0, 365),
  daysMax: whole(0, 365),
  ...supplierTerms,
});
export type SupplierChange = yup.InferType<typeof supplierChange>;
export type SupplierBody = yup.InferType<typeof supplierBody>;
