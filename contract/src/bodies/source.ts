import { SOURCE_CLASSES } from "@kobbin/core";
import * as yup from "yup";
import { currency, day, money, name, version } from "./fields.ts";

export const offerBody = yup.object({
  supplierId: yup.string().uuid().required("Say who offers it."),
  /** The library part it is for, where it is not the line's own number. */
  partId: yup.string().uuid(),
  stock: yup.number().integer().min(0, "Stock is not negative.").max(1e9).required(),
  moq: yup.number().integer().min(1).max(1e7).default(1),
  multiple: yup.number().integer().min(1).max(1e6).default(1),
  currency: currency.required(),
  breaks: yup
    .array()
    .of(yup.object({ qty: yup.number().integer().min(1).max(1e8).required(), price: money.required() }))
    .min(1, "An offer has at least one price.")
    .max(30)
    .required(),
  source: yup
    .string()
    .oneOf(["typed", "pasted"] as const)
    .default("typed"),
  validUntil: day,
  leadDays: yup.number().integer().min(0).max(1000),
  packaging: yup.string().max(60),
  /** Charged once when anything is bought of it. */
  fee: money,
  restriction: yup.string().max(200),
});
export type OfferBody = yup.InferType<typeof offerBody>;

/** A supplier's quotation: offers for lines of a run, in the place of what it quoted for them before. */
export const quotationBody = yup.object({
  supplierId: yup.string().uuid().required(),
  currency: currency.required(),
  validUntil: day,
  offers: yup
    .array(
      yup.object({
        lineId: yup.string().uuid().required(),
        partId: yup.string().uuid(),
        stock: yup.number().integer().min(0).max(1e9).required(),
        moq: yup.number().integer().min(1).max(1e7).default(1),
        multiple: yup.number().integer().min(1).max(1e6).default(1),
        leadDays: yup.number().integer().min(0).max(1000),
        breaks: yup
          .array()
          .of(yup.object({ qty: yup.number().integer().min(1).max(1e8).required(), price: money.required() }))
          .min(1)
          .max(30)
          .required(),
      }),
    )
    .min(1)
    .max(5000)
    .required(),
});
export type QuotationBody = yup.InferType<typeof quotationBody>;

const supplierTerms = {
  freeFrom: money.nullable(),
  smallOrderBelow: money.nullable(),
  smallOrderFee: money.nullable(),
  minimumOrder: money.nullable(),
  handling: money.nullable(),
  dutyRate: yup.number().min(0).max(1),
  sourceClass: yup.string().oneOf(SOURCE_CLASSES),
  includesTax: yup.boolean(),
};
export const supplierBody = yup.object({
  name: name.required("Give the supplier a name."),
  currency: currency.required(),
  shipping: money.required(),
  daysMin: yup.number().integer().min(0).max(365).required(),
  daysMax: yup.number().integer().min(0).max(365).required(),
  ...supplierTerms,
});
export const supplierChange = yup.object({
  version: version.required(),
  name,
  currency,
  shipping: money,
  daysMin: yup.number().integer().min(0).max(365),
  daysMax: yup.number().integer().min(0).max(365),
  ...supplierTerms,
});
export type SupplierChange = yup.InferType<typeof supplierChange>;
export type SupplierBody = yup.InferType<typeof supplierBody>;
