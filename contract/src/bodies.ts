import { ATTRITION, ORIGINS, type OwnLosses, SOURCE_CLASSES } from "@kobbin/core";
import * as yup from "yup";

const money = yup
  .string()
  .matches(/^\d{1,9}(\.\d{1,6})?$/, "Write an amount like 12.50, at most six decimals.")
  .transform((v: unknown) => (typeof v === "number" ? String(v) : v));
const currency = yup.string().matches(/^[A-Z]{3}$/, "A currency is three capital letters, as EUR.");
const password = yup
  .string()
  .min(10, "A password has at least 10 characters.")
  .max(200)
  .required("Choose a password.");
const name = yup.string().trim().min(1, "Give it a name.").max(120);
const day = yup.string().matches(/^\d{4}-\d{2}-\d{2}$/, "Write the date as 2026-11-24.");
const version = yup.number().integer().min(1);

const isLoss = (v: unknown): boolean =>
  Array.isArray(v) &&
  v.length === 2 &&
  typeof v[0] === "number" &&
  v[0] >= 0 &&
  v[0] <= 0.5 &&
  Number.isInteger(v[1]) &&
  v[1] >= 0 &&
  v[1] <= 10_000;

/** What of a board may be changed beside its files. */
export const boardBody = yup.object({
  version,
  name,
  perProduct: yup.number().integer().min(1, "A board is in the product once at least.").max(1000),
});
export type BoardBody = yup.InferType<typeof boardBody>;

export const signInBody = yup.object({
  email: yup.string().trim().lowercase().required("Type the name you signed up with.").max(200),
  password: yup.string().required("Type your password.").max(200),
});
export type SignInBody = yup.InferType<typeof signInBody>;

export const newShopBody = yup.object({
  name: name.required("Give the shop a name."),
  currency: currency.required(),
  hourlyRate: money.required(),
  email: yup
    .string()
    .trim()
    .lowercase()
    .min(3, "Type a name or address to sign in with.")
    .max(200)
    .required("Type a name or address to sign in with."),
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

const roles = [
  "copper",
  "mask",
  "legend",
  "paste",
  "profile",
  "drill",
  "job",
  "netlist",
  "bom",
  "placement",
  "score",
  "drawing",
  "unknown",
] as const;
export const correctionsBody = yup.object({
  roles: yup
    .mixed<
      Record<
        string,
        { role: (typeof roles)[number]; side?: "top" | "bottom" | "inner"; index?: number; plated?: boolean }
      >
    >()
    .test(
      "roles",
      "A role is not known.",
      (v) => v === undefined || Object.values(v).every((r) => roles.includes(r.role)),
    ),
  columns: yup.mixed<Record<string, Record<string, string>>>(),
  moves: yup
    .mixed<Record<string, { dxMm: number; dyMm: number; isMirrored?: boolean }>>()
    .test(
      "moves",
      "A move is no shift in millimetres.",
      (v) =>
        v === undefined ||
        Object.values(v).every(
          (m) =>
            Math.abs(Number(m?.dxMm)) < 5000 &&
            Math.abs(Number(m?.dyMm)) < 5000 &&
            Object.keys(m).length <= 3,
        ),
    ),
});
export type CorrectionsBody = yup.InferType<typeof correctionsBody>;

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

const ROLES = ["owner", "bench"] as const;
export const invitationBody = yup.object({
  role: yup.string().oneOf(ROLES, "A member is owner or bench.").required(),
  note: yup.string().trim().max(120).default(""),
});
export type InvitationBody = yup.InferType<typeof invitationBody>;

/** Joining a shop: a new name with its password, or an account that is there with the password it has. */
export const joinBody = yup.object({
  email: yup
    .string()
    .trim()
    .lowercase()
    .min(3, "Type a name or address to sign in with.")
    .max(200)
    .required(),
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
