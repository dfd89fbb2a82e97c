import {
  type LibraryPart,
  type LotSample,
  PART_KINDS,
  PART_STATES,
  type PartKind,
  type RunLot,
} from "@kobbin/core";
import * as yup from "yup";

/** A part of the library as a list shows it. */
export interface PartRow extends LibraryPart {
  readonly version: number;
  /** Lines of all bills that name it. */
  readonly uses: number;
  /** Offers of suppliers known for it. */
  readonly offers: number;
  readonly onShelf: number;
}
/** A number some bill names and the library does not know yet. */
export interface UnknownPart {
  readonly mpn: string;
  readonly maker: string;
  readonly description: string;
  readonly kind: PartKind;
  readonly package: string;
  readonly params: Readonly<Record<string, string>>;
  readonly uses: number;
}
export interface PartsAnswer {
  readonly parts: readonly PartRow[];
  /** None held every word; these come near to what was typed. */
  readonly isNear: boolean;
}
/** A line of some bill that names a part. */
export interface PartUse {
  readonly product: string;
  readonly revision: string;
  readonly revisionId: string;
  readonly refs: readonly string[];
  readonly valueText: string;
  readonly qty: number;
  readonly dnp: boolean;
  readonly runs: readonly {
    readonly id: string;
    readonly name: string;
    readonly state: "open" | "released";
  }[];
}
export interface PartAnswer {
  readonly part: LibraryPart & { readonly version: number };
  readonly uses: readonly PartUse[];
}
/** A lot on the shelf with who reserved how many. */
export interface LotRow extends RunLot {
  readonly donor: string;
  readonly note: string;
  /** What was measured on some of its pieces. */
  readonly sample?: LotSample;
  readonly version: number;
  readonly reserved: readonly { readonly runId: string; readonly run: string; readonly qty: number }[];
  /** Lines of all bills that name it. */
  readonly uses: number;
}

const text = (most: number) => yup.string().max(most);
const day = yup.string().matches(/^\d{4}-\d{2}-\d{2}$/, "Write the date as 2026-11-24.");
const params = yup
  .mixed<Record<string, string>>()
  .test(
    "params",
    "An attribute is a short text.",
    (v) =>
      v === undefined ||
      (Object.keys(v).length <= 40 &&
        Object.entries(v).every(
          ([k, t]) => /^[a-zA-Z]{1,20}$/.test(k) && typeof t === "string" && t.length <= 120,
        )),
  );
const facts = {
  maker: text(120),
  description: text(500),
  kind: yup.string().oneOf(PART_KINDS),
  package: text(120),
  params,
};
export const newPartBody = yup.object({
  parts: yup
    .array(
      yup.object({
        mpn: text(120).trim().min(1, "A part has a number.").required("A part has a number."),
        ...facts,
      }),
    )
    .min(1)
    .max(2000)
    .required(),
});
export type NewPartBody = yup.InferType<typeof newPartBody>;

export const partBody = yup.object({
  version: yup.number().integer().min(1),
  ...facts,
  heightMm: yup.number().min(0).max(1000).nullable(),
  massMg: yup.number().min(0).max(1e7).nullable(),
  direction: text(200),
  mount: yup
    .string()
    .oneOf(["machine", "hand", "none"] as const)
    .nullable(),
  moisture: text(10).matches(/^([1-6]|2a|5a|)$/, "A moisture level is 1 to 6, 2a or 5a."),
  state: yup.string().oneOf(PART_STATES),
  sheet: text(2000),
  measured: text(2000),
  triedOn: day.nullable(),
  tried: text(500),
  /** Found bad, and why; empty clears it. */
  suspectBecause: text(500).trim(),
});
export type PartBody = yup.InferType<typeof partBody>;

export const alternateBody = yup.object({
  original: text(400).min(1).required(),
  partId: yup.string().uuid().required(),
  state: yup
    .string()
    .oneOf(["proposed", "approved", "refused"] as const)
    .required(),
  /** Approved for this run only; without it for all. */
  runId: yup.string().uuid(),
  because: text(500).trim().default(""),
});
export type AlternateBody = yup.InferType<typeof alternateBody>;

const money = yup
  .string()
  .matches(/^\d{1,9}(\.\d{1,6})?$/, "Write an amount like 12.50, at most six decimals.");
const condition = yup.string().oneOf(["new", "opened", "salvaged", "quarantine"] as const);
export const newLotBody = yup.object({
  mpn: text(120).trim().min(1).required("Say which number lies there."),
  qty: yup.number().integer().min(1, "A lot holds at least one piece.").max(1e8).required(),
  place: text(120).default(""),
  receivedOn: day,
  unitCost: money.default("0"),
  currency: yup
    .string()
    .matches(/^[A-Z]{3}$/, "A currency is three capital letters, as EUR.")
    .required(),
  condition: condition.default("new"),
  donor: text(200).default(""),
  note: text(500).default(""),
});
export type NewLotBody = yup.InferType<typeof newLotBody>;
export const lotBody = yup.object({
  version: yup.number().integer().min(1).required(),
  qty: yup.number().integer().min(0).max(1e8),
  place: text(120),
  unitCost: money,
  condition,
  donor: text(200),
  note: text(500),
  /** null: nothing was measured after all. */
  sample: yup
    .object({
      parameter: text(120).trim().min(1, "Say what was measured.").required("Say what was measured."),
      low: text(40).default(""),
      high: text(40).default(""),
      readings: yup.array().of(text(40).required()).min(1, "There is no reading.").max(500).required(),
    })
    .nullable()
    .default(undefined),
});
export type LotBody = Omit<yup.InferType<typeof lotBody>, "sample"> & {
  sample?: Omit<LotSample, "on"> | null | undefined;
};

export const reservationBody = yup.object({
  lotId: yup.string().uuid().required(),
  qty: yup.number().integer().min(0).max(1e8).required(),
});
export type ReservationBody = yup.InferType<typeof reservationBody>;
