import { type LessonCheck, MEASURES, readBetween, type shapes } from "@kobbin/core";
import { todayIso } from "../../ui/text/dates.ts";
import { typedNumber } from "../../ui/text/format.ts";

/** What a lesson may be about when it is said by hand; lands and places are picked where something went wrong. */
export const KINDS = {
  measure: "a size of the board",
  marked: "which way round parts sit",
  contacts: "contacts at the edge",
  part: "a part that is doubted",
  lot: "a lot on the shelf that is doubted",
  house: "a house that is doubted",
  machine: "a machine that is doubted",
  program: "a program that is doubted",
  asked: "a question",
} as const;
export type Kind = keyof typeof KINDS;
export const CONTACTS = {
  mask: "no mask between them",
  bars: "no copper on to the edge",
  setback: "set back from the edge",
} as const;

/** A lesson as far as it is said. */
export interface LessonDraft {
  readonly kind: Kind;
  readonly key: string;
  readonly limit: string;
  readonly letters: (typeof shapes.ONE_WAY_LETTERS)[number];
  readonly contacts: keyof typeof CONTACTS;
  readonly mpn: string;
  /** First and last date code of what is doubted of a part, as a notice has them; any where empty. */
  readonly madeFrom: string;
  readonly madeTo: string;
  /** Id of the lot, house or machine. */
  readonly which: string;
  /** In whose hands a machine is doubted; anybody's where empty. */
  readonly person: string;
  /** A program by its name and version; any version where empty. */
  readonly program: string;
  readonly version: string;
}
export const NEW_DRAFT: LessonDraft = {
  kind: "measure",
  key: MEASURES[0]!.key,
  limit: "",
  letters: "D",
  contacts: "mask",
  mpn: "",
  madeFrom: "",
  madeTo: "",
  which: "",
  person: "",
  program: "",
  version: "",
};

/** Something that may be doubted, by name. */
export interface Named {
  readonly id: string;
  readonly name: string;
}

/** A part that is doubted; nothing while its date codes cannot be read. */
function partOf({ mpn, madeFrom, madeTo }: LessonDraft): LessonCheck | undefined {
  const read = readBetween(madeFrom, madeTo, todayIso());
  if (mpn.trim() === "" || read.wrong !== undefined) return undefined;
  return { kind: "part", mpn: mpn.trim(), ...(read.made ? { made: read.made } : {}) };
}

/** The check that is said, as far as it is said whole. */
export function checkOf(d: LessonDraft, named: readonly Named[]): LessonCheck | undefined {
  const size = d.limit.trim() === "" ? Number.NaN : Number(typedNumber(d.limit));
  const isSize = size > 0 && size <= 1000;
  switch (d.kind) {
    case "measure":
      return isSize ? { kind: "measure", key: d.key, limit: size } : undefined;
    case "marked":
      return { kind: "marked", letters: d.letters };
    case "contacts":
      if (d.contacts !== "setback") return { kind: "contacts", what: d.contacts };
      return isSize && size <= 100 ? { kind: "contacts", what: "setback", leastMm: size } : undefined;
    case "part":
      return partOf(d);
    case "lot":
    case "house":
    case "machine": {
      const one = named.find((n) => n.id === d.which);
      if (!one) return undefined;
      const of = { kind: d.kind, id: one.id, name: one.name.slice(0, 200) };
      return d.kind === "machine" && d.person.trim() !== ""
        ? { ...of, kind: "machine", person: d.person.trim() }
        : of;
    }
    case "program":
      return d.program.trim() === ""
        ? undefined
        : { kind: "program", name: d.program.trim(), version: d.version.trim() };
    case "asked":
      return { kind: "asked" };
  }
}
