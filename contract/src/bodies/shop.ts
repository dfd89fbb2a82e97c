import { type ClassRules, type OwnLosses, ruleWrong, type ShopFieldKey, shapes } from "@kobbin/core";
import * as yup from "yup";
import {
  choice,
  currency,
  email,
  flag,
  id,
  money,
  name,
  number,
  password,
  shaped,
  text,
  trimmed,
  version,
} from "./fields.ts";

export const signInBody = yup.object({
  email: text(200)
    .transform((v: unknown) => (typeof v === "string" ? v.trim().toLowerCase() : v))
    .required("Type the name you signed up with."),
  password: text(200).required("Type your password."),
});
export type SignInBody = yup.InferType<typeof signInBody>;

export const newShopBody = yup.object({
  name: name.required("Give the shop a name."),
  currency: currency.required(),
  hourlyRate: money.required(),
  email,
  password,
  /** Only where the server asks for it. */
  code: text(100),
  /** Made-up suppliers and houses that answer as real ones would, to try it with; or none. */
  partners: choice(["made-up", "none"]).default("made-up"),
});
export type NewShopBody = yup.InferType<typeof newShopBody>;

const settings = {
  name,
  hourlyRate: money,
  taxRate: number(0, 1),
  hoursPerDay: number(1, 24),
  decimalMark: choice([".", ","]),
  dateOrder: choice(["dmy", "mdy", "ymd"]),
  showsMil: flag(),
  /** Kind of package → share and least number lost, by hand and by machine. */
  attrition: shaped<OwnLosses>(shapes.lossesShape),
  rates: shaped<Record<string, string>>(shapes.ratesShape),
  /** Class → what is taken where a line without a number does not say. */
  rules: shaped<ClassRules>(shapes.rulesShape),
  serialRule: text(60).test(
    "serial-rule",
    "Serial numbers are made of {product}, {y} or {yy}, {batch} and {n}, with digits and capitals but I, L, O and U.",
    (rule) => !rule || ruleWrong(rule) === undefined,
  ),
  address: trimmed(500),
  // a setting that no request may name does not compile
} satisfies Record<ShopFieldKey, yup.AnySchema>;
export const shopBody = yup.object({ version, ...settings });
export type ShopBody = yup.InferType<typeof shopBody>;

const ROLES = ["owner", "bench"] as const;
export const invitationBody = yup.object({
  role: choice(ROLES).required(),
  note: trimmed(120).default(""),
});
export type InvitationBody = yup.InferType<typeof invitationBody>;

/** Joining a shop: a new name with its password, or an account that is there with the password it has. */
export const joinBody = yup.object({
  email,
  password: text(200).required("Type a password."),
});
export type JoinBody = yup.InferType<typeof joinBody>;

export const passwordBody = yup.object({
  old: text(200).required("Type the password you have now."),
  fresh: password,
});
export type PasswordBody = yup.InferType<typeof passwordBody>;

export const memberBody = yup.object({ role: choice(ROLES).required() });
/** Somebody who left, by the name that stands in the history. */
export const forgetBody = yup.object({ person: text(200).min(1, "Say who.").required("Say who.") });
export const chooseShopBody = yup.object({ shopId: id().required() });

export const presenceBody = yup.object({
  page: id().required(),
  place: text(200)
    .matches(/^[\w/-]*$/)
    .defined(),
});
export type PresenceBody = yup.InferType<typeof presenceBody>;
