import { ATTRITION, type OwnLosses } from "@kobbin/core";
import * as yup from "yup";
import { currency, email, money, name, password, version } from "./fields.ts";

const isLoss = (v: unknown): boolean =>
  Array.isArray(v) &&
  v.length === 2 &&
  typeof v[0] === "number" &&
  v[0] >= 0 &&
  v[0] <= 0.5 &&
  Number.isInteger(v[1]) &&
  v[1] >= 0 &&
  v[1] <= 10_000;

export const signInBody = yup.object({
  email: yup.string().trim().lowercase().required("Type the name you signed up with.").max(200),
  password: yup.string().required("Type your password.").max(200),
});
export type SignInBody = yup.InferType<typeof signInBody>;

export const newShopBody = yup.object({
  name: name.required("Give the shop a name."),
  currency: currency.required(),
  hourlyRate: money.required(),
  email,
  password,
  /** Only where the server asks for it. */
  code: yup.string().max(100),
});
export type NewShopBody = yup.InferType<typeof newShopBody>;

export const shopBody = yup.object({
  version,
  name,
  hourlyRate: money,
  taxRate: yup.number().min(0).max(1),
  hoursPerDay: yup.number().min(1).max(24),
  decimalMark: yup.string().oneOf([".", ","] as const),
  dateOrder: yup.string().oneOf(["dmy", "mdy", "ymd"] as const),
  showsMil: yup.boolean(),
  /** Kind of package → share and least number lost, by hand and by machine. */
  attrition: yup
    .mixed<OwnLosses>()
    .test(
      "attrition",
      "A loss is a share from 0 to 50 % and a number from 0 to 10,000.",
      (v) =>
        v === undefined ||
        Object.entries(v).every(
          ([kind, l]) => kind in ATTRITION && [l?.hand, l?.machine].every((x) => isLoss(x)),
        ),
    ),
  rates: yup
    .mixed<Record<string, string>>()
    .test(
      "rates",
      "A rate is a number like 0.9215.",
      (v) =>
        v === undefined ||
        Object.entries(v).every(([k, r]) => /^[A-Z]{3}$/.test(k) && /^\d{1,6}(\.\d{1,8})?$/.test(r)),
    ),
});
export type ShopBody = yup.InferType<typeof shopBody>;

const ROLES = ["owner", "bench"] as const;
export const invitationBody = yup.object({
  role: yup.string().oneOf(ROLES, "A member is owner or bench.").required(),
  note: yup.string().trim().max(120).default(""),
});
export type InvitationBody = yup.InferType<typeof invitationBody>;

/** Joining a shop: a new name with its password, or an account that is there with the password it has. */
export const joinBody = yup.object({
  email,
  password: yup.string().max(200).required("Type a password."),
});
export type JoinBody = yup.InferType<typeof joinBody>;

export const passwordBody = yup.object({
  old: yup.string().max(200).required("Type the password you have now."),
  fresh: password,
});
export type PasswordBody = yup.InferType<typeof passwordBody>;

export const memberBody = yup.object({ role: yup.string().oneOf(ROLES).required() });
export const chooseShopBody = yup.object({ shopId: yup.string().uuid().required() });

export const presenceBody = yup.object({
  page: yup.string().uuid().required(),
  place: yup
    .string()
    .max(200)
    .matches(/^[\w/-]*$/)
    .defined(),
});
export type PresenceBody = yup.InferType<typeof presenceBody>;
