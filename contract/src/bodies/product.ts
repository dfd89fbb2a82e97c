import { type Corrections, type FitSpec, type Foil, type LinkRow, type MeetRow, shapes } from "@kobbin/core";
import * as yup from "yup";
import {
  choice,
  currency,
  day,
  id,
  list,
  mapOf,
  money,
  name,
  number as numberIn,
  shaped,
  trimmed,
  version,
  whole,
} from "./fields.ts";

/** The fields of a form that brings a product's files. */
export const productForm = yup.object({
  productId: id(),
  name: trimmed(120),
  revision: trimmed(40),
});

/** A row of a product's fit sheet: what a board of it must go with. */
export const fitBody = yup.object({
  label: trimmed(120).required("Say what it must fit."),
  /** Name of the board it is about; the first where left out. */
  board: trimmed(200),
  spec: shaped<FitSpec>(shapes.fitSpecShape).required("Say what is measured."),
  playMm: numberIn(0, 100),
});
export type FitBody = yup.InferType<typeof fitBody>;

/** A small picture of a board as the page painted it, to be kept for the next one. */
export const boardPictureBody = yup.object({
  /** Hash of all it hangs on beside the files. */
  key: trimmed(64)
    .matches(/^[0-9a-f]{64}$/, "A key is a hash.")
    .required(),
  /** Of the board, mm: x0, y0, x1, y1. */
  box: list(numberIn(-10_000, 10_000).required(), 4).min(4).required(),
  /** The bytes of a PNG as base 64. */
  png: trimmed(500_000)
    .matches(/^[A-Za-z0-9+/]+={0,2}$/, "The picture is base 64.")
    .required(),
  /** The corrections the files were read under when it was painted. */
  under: shaped<Corrections>(shapes.anything(8, 200_000)).required(),
});
export type BoardPictureBody = yup.InferType<typeof boardPictureBody>;

type MeetSpec = Omit<MeetRow, "id" | "board" | "ref" | "other" | "modes">;
/** A connector of a product's board and what is put onto it. */
export const meetBody = yup.object({
  /** Name of the board it is on; the first where left out. */
  board: trimmed(200),
  ref: trimmed(80).required("Say which connector it is."),
  other: trimmed(120).required("Say what is put onto it."),
  spec: shaped<MeetSpec>(shapes.meetSpecShape).required("Say what its pins are."),
});
export type MeetBody = yup.InferType<typeof meetBody>;

/** A link of a product's board that has to be set. */
export const linkBody = yup.object({
  /** Name of the board it is on; the first where left out. */
  board: trimmed(200),
  ref: trimmed(80).required("Say which link it is."),
  spec: shaped<Omit<LinkRow, "id" | "board" | "ref">>(shapes.linkSpecShape).required(
    "Say how it may be set.",
  ),
});
export type LinkBody = yup.InferType<typeof linkBody>;

const foil = shapes.FOIL_SHAPES;
/** A foil that was bought, with the openings its board's paste layer has. */
export const newFoilBody = yup.object({
  name: trimmed(120).required("Give the foil a name."),
  board: trimmed(200).required("Say of which board it is."),
  foilMm: numberIn(0.03, 0.5).required("Say how thick it is."),
  form: choice(["loose", "framed"]).required(),
  openings: shaped<Foil["openings"]>(foil.openings).required("Say what was cut into it."),
  without: shaped<readonly string[]>(foil.without).default([]),
  price: money.required("Say what it cost."),
  currency: currency.required(),
  madeOn: day.required(),
  place: trimmed(120).default(""),
  note: trimmed(500).default(""),
});
export type NewFoilBody = yup.InferType<typeof newFoilBody>;

/** What became of a foil; what is left out stays as it is. */
export const foilBody = yup.object({
  name: trimmed(120),
  prints: whole(0, 1e7),
  cleanedOn: day.nullable(),
  place: trimmed(120),
  state: choice(["ready", "worn", "gone"]),
  note: trimmed(500),
});
export type FoilBody = yup.InferType<typeof foilBody>;

/** What of a board may be changed beside its files. */
export const boardBody = yup.object({
  version,
  name,
  perProduct: whole(1, 1000),
});
export type BoardBody = yup.InferType<typeof boardBody>;

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
const { fields, flag, maybe, number, oneOf, text, whole: wholeNumber } = shapes;
/** Files of a drop at most; so many can be corrected at once. */
const MOST_FILES = 500;
const shift = number(-5000, 5000);

/** How files of a board are to be read, by their path in the drop. */
export const correctionsBody = yup.object({
  roles: mapOf<{
    role: (typeof roles)[number];
    side?: "top" | "bottom" | "inner";
    index?: number;
    plated?: boolean;
  }>(
    fields(
      {
        role: oneOf(...roles),
        side: maybe(oneOf("top", "bottom", "inner")),
        index: maybe(wholeNumber(1, 100)),
        plated: maybe(flag),
      },
      (_v, path) => `${path} is not known`,
    ),
    MOST_FILES,
  ),
  columns: mapOf<Record<string, string>>(shapes.mapOf(text(200), 400), MOST_FILES),
  moves: mapOf<{ dxMm: number; dyMm: number; isMirrored?: boolean }>(
    fields({ dxMm: shift, dyMm: shift, isMirrored: maybe(flag) }, (_v, path) => `${path} is not known`),
    MOST_FILES,
  ),
});
export type CorrectionsBody = yup.InferType<typeof correctionsBody>;
