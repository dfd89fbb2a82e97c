import { FIT_AFTER, type LibraryPart } from "../library/part.ts";
import { MOUNTS } from "./line-fields.ts";
import {
  type DataShape,
  day,
  fields,
  flag,
  list,
  mapOf,
  maybe,
  nullable,
  number,
  oneOf,
  text,
} from "./shape.ts";

/** A field of a part of the library, whole: in a document, in the database, and in a sentence of the history. */
export interface PartField {
  /** In a run document. */
  readonly shape: DataShape;
  readonly column: string;
  /** How it is read where the driver would give it as text. */
  readonly cast?: "float8";
  /** As it is stored. */
  readonly stored: DataShape;
  /** A part may lack it; then its column is null. */
  readonly isOptional?: true;
  readonly words: string;
}

const said = (column: string, words: string, most: number, inDocument = text()): PartField => ({
  shape: inDocument,
  column,
  stored: text(most),
  words,
});

/** A number that a part may lack. @param most in a document @param mostStored in the database */
const measured = (column: string, words: string, most: number, mostStored: number) =>
  ({
    shape: maybe(number(0, most)),
    column,
    cast: "float8",
    stored: nullable(number(0, mostStored)),
    isOptional: true,
    words,
  }) as const satisfies PartField;

/** Every field of a part, once: shapes, statements, patches, backups and history derive from it. */
export const PART_FIELDS = {
  mpn: { shape: text(), column: "mpn", stored: text(120, 1), words: "part number" },
  maker: said("maker", "maker", 120),
  description: said("description", "description", 500, text(1000)),
  kind: said("kind", "kind", 40, text(40)),
  package: said("package", "package", 120),
  params: { shape: mapOf(text(), 100), column: "params", stored: mapOf(text(300), 200), words: "attributes" },
  heightMm: measured("height_mm", "height in mm", 1e4, 1e5),
  bodyLengthMm: measured("body_length_mm", "body length in mm", 1e4, 1e5),
  bodyWidthMm: measured("body_width_mm", "body width in mm", 1e4, 1e5),
  massMg: measured("mass_mg", "mass in mg", 1e9, 1e8),
  direction: said("direction", "direction", 200),
  mount: {
    shape: maybe(oneOf(...MOUNTS)),
    column: "mount",
    stored: nullable(oneOf(...MOUNTS)),
    isOptional: true,
    words: "mounted",
  },
  moisture: said("moisture", "moisture", 10, text(20)),
  wettedMm2: measured("wetted_mm2", "wetted area in mm²", 1e6, 1e6),
  peakC: measured("peak_c", "greatest temperature in °C", 2000, 2000),
  restMa: measured("rest_ma", "current at rest in mA", 1e6, 1e6),
  mostMa: measured("most_ma", "greatest current in mA", 1e6, 1e6),
  carriesMa: measured("carries_ma", "current it carries in mA", 1e6, 1e6),
  keepLeast: measured("keep_least", "least on the shelf", 1e7, 1e7),
  fitAfter: {
    shape: maybe(oneOf(...FIT_AFTER)),
    column: "fit_after",
    stored: nullable(oneOf(...FIT_AFTER)),
    isOptional: true,
    words: "fitted after",
  },
  opensOnce: {
    shape: maybe(flag),
    column: "opens_once",
    stored: nullable(flag),
    isOptional: true,
    words: "opens only once",
  },
  covers: {
    shape: maybe(list(text(80), 1000)),
    column: "covers",
    stored: nullable(list(text(80), 1000)),
    isOptional: true,
    words: "covers",
  },
  state: said("state", "state", 40, text(60)),
  sheet: said("sheet", "data sheet note", 2000, maybe(text(2000))),
  measured: said("measured", "measured", 2000, maybe(text(2000))),
  triedOn: {
    shape: maybe(day),
    column: "tried_on",
    stored: nullable(day),
    isOptional: true,
    words: "tried on",
  },
  tried: said("tried", "tried on the bench", 500, maybe(text(500))),
  suspect: {
    shape: maybe(fields({ since: day, because: text(1000), by: text() })),
    column: "suspect",
    stored: nullable(fields({ since: day, because: text(500), by: text(200) })),
    isOptional: true,
    words: "suspected",
  },
} as const satisfies Record<Exclude<keyof LibraryPart, "id" | "found">, PartField>;

/** A field of a part beside its id. */
export type PartFieldKey = keyof typeof PART_FIELDS;
