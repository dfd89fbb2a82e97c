import {
  AIR_STEPS,
  FIT_AFTER,
  type LibraryPart,
  type LotAir,
  type LotSample,
  PART_KINDS,
  PART_STATES,
  type PartFieldKey,
  type PartKind,
  type RunLot,
  shapes,
} from "@kobbin/core";
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
  number,
  text,
  trimmed,
  version,
  whole,
} from "./bodies/fields.ts";

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
  /** In the shop; it stands on its label. */
  readonly number: number;
  readonly donor: string;
  readonly note: string;
  /** What was measured on some of its pieces. */
  readonly sample?: LotSample;
  /** Its date code, as it stands on it. */
  readonly made?: string;
  /** Moisture level of its part; empty where none is said, or the part stands in no library. */
  readonly moisture: string;
  /** What happened to its dry bag. */
  readonly air?: LotAir;
  readonly version: number;
  readonly reserved: readonly { readonly runId: string; readonly run: string; readonly qty: number }[];
  /** Lines of all bills that name it. */
  readonly uses: number;
}

const params = mapOf<string>(shapes.text(120), 40, /^[a-zA-Z]{1,20}$/);
const facts = {
  maker: text(120),
  description: text(500),
  kind: choice(PART_KINDS),
  package: text(120),
  params,
};
/** A part as it comes into the library. */
export const newPart = yup.object({
  mpn: trimmed(120).min(1, "A part has a number.").required("A part has a number."),
  ...facts,
});
export const newPartBody = yup.object({
  parts: list(newPart, 2000).min(1).required(),
});
export type NewPartBody = yup.InferType<typeof newPartBody>;

/** What a request may say of each field of a part; its number is given once, suspicion with its reason beside it. */
const PART_SCHEMAS = {
  ...facts,
  heightMm: number(0, 1000).nullable(),
  bodyLengthMm: number(0, 1000).nullable(),
  bodyWidthMm: number(0, 1000).nullable(),
  massMg: number(0, 1e7).nullable(),
  direction: text(200),
  mount: choice(["machine", "hand", "none"]).nullable(),
  moisture: text(10).matches(/^([1-6]|2a|5a|)$/, "A moisture level is 1 to 6, 2a or 5a."),
  wettedMm2: number(0, 1e6).nullable(),
  peakC: number(0, 2000).nullable(),
  restMa: number(0, 1e6).nullable(),
  mostMa: number(0, 1e6).nullable(),
  carriesMa: number(0, 1e6).nullable(),
  keepLeast: number(0, 1e7).nullable(),
  fitAfter: choice(FIT_AFTER).nullable(),
  opensOnce: flag().nullable(),
  covers: list(text(80).required(), 1000).nullable(),
  state: choice(PART_STATES),
  sheet: text(2000),
  measured: text(2000),
  triedOn: day.nullable(),
  tried: text(500),
} satisfies Record<Exclude<PartFieldKey, "mpn" | "suspect">, yup.AnySchema>;

export const partBody = yup.object({
  version,
  ...PART_SCHEMAS,
  /** Found bad, and why; empty clears it. */
  suspectBecause: trimmed(500),
});
export type PartBody = yup.InferType<typeof partBody>;

export const alternateBody = yup.object({
  original: text(400).min(1).required(),
  partId: id().required(),
  state: choice(["proposed", "approved", "refused"]).required(),
  /** Approved for this run only; without it for all. */
  runId: id(),
  because: trimmed(500).default(""),
});
export type AlternateBody = yup.InferType<typeof alternateBody>;

const condition = choice(["new", "opened", "salvaged", "quarantine"]);
export const newLotBody = yup.object({
  mpn: trimmed(120).min(1).required("Say which number lies there."),
  qty: whole(1, 1e8).min(1, "A lot holds at least one piece.").required(),
  place: text(120).default(""),
  receivedOn: day,
  unitCost: money.default("0"),
  currency: currency.required(),
  condition: condition.default("new"),
  donor: text(200).default(""),
  note: text(500).default(""),
});
export type NewLotBody = yup.InferType<typeof newLotBody>;
export const lotBody = yup.object({
  version: version.required(),
  qty: whole(0, 1e8),
  place: text(120),
  unitCost: money,
  condition,
  donor: text(200),
  note: text(500),
  /** null: it says none. */
  made: trimmed(20).min(1, "A date code says something.").nullable().default(undefined),
  /** null: nothing was measured after all. */
  sample: yup
    .object({
      parameter: trimmed(120).min(1, "Say what was measured.").required("Say what was measured."),
      low: text(40).default(""),
      high: text(40).default(""),
      readings: list(text(40).required(), 500).min(1, "There is no reading.").required(),
    })
    .nullable()
    .default(undefined),
});
export type LotBody = Omit<yup.InferType<typeof lotBody>, "sample"> & {
  sample?: Omit<LotSample, "on"> | null | undefined;
};

/** What happened to the dry bag of a lot, or what its label allows; nothing said of either changes nothing. */
export const lotAirBody = yup.object({
  is: choice(AIR_STEPS),
  /** When it happened; left out: now. */
  at: text(30).test(
    "moment",
    "Write the moment as 2026-11-24T08:00:00Z.",
    (v) => v === undefined || v === null || (/Z$/.test(v) && shapes.instant(v, "") === undefined),
  ),
  /** null: as its level says. */
  floorHours: number(0.1, 100_000).nullable(),
});
export type LotAirBody = yup.InferType<typeof lotAirBody>;

/** A lot that was counted where it lies. */
export const lotCount = yup.object({
  id: id().required(),
  version: version.required(),
  qty: whole(0, 1e8).required("Say how many lie there."),
});
/** Lots that were counted in one go: those of a place, or some. */
export const lotCountsBody = yup.object({
  counts: list(lotCount, 5000).min(1, "Count something first.").required(),
  place: trimmed(120).default(""),
  because: trimmed(300).default(""),
});
export type LotCountsBody = yup.InferType<typeof lotCountsBody>;

export const reservationBody = yup.object({
  lotId: id().required(),
  qty: whole(0, 1e8).required(),
});
export type ReservationBody = yup.InferType<typeof reservationBody>;

/** A released run whose boards may have pieces of a lot. */
export interface BoardsWith {
  readonly runId: string;
  readonly run: string;
  readonly product: string;
  readonly revision: string;
  /** Pieces that came for it, and that were taken by the time it was closed; left out where neither is written. */
  readonly came?: number;
  readonly taken?: number;
  /** Boards begun, come good, and out of the house. */
  readonly begun: number;
  readonly good: number;
  readonly out: number;
}
