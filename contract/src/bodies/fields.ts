import * as yup from "yup";

/** Fields that several bodies have. */

export const money = yup
  .string()
  .matches(/^\d{1,9}(\.\d{1,6})?$/, "Write an amount like 12.50, at most six decimals.")
  .transform((v: unknown) => (typeof v === "number" ? String(v) : v));
export const currency = yup.string().matches(/^[A-Z]{3}$/, "A currency is three capital letters, as EUR.");
/** What a person signs in with, chosen anew. */
export const email = yup
  .string()
  .trim()
  .lowercase()
  .min(3, "Type a name or address to sign in with.")
  .max(200)
  .required("Type a name or address to sign in with.");
export const password = yup
  .string()
  .min(10, "A password has at least 10 characters.")
  .max(200)
  .required("Choose a password.");
export const name = yup.string().trim().min(1, "Give it a name.").max(120);
export const day = yup.string().matches(/^\d{4}-\d{2}-\d{2}$/, "Write the date as 2026-11-24.");
export const version = yup.number().integer().min(1);
