import type { ColumnWords } from "../table/columns.ts";

/** What a column of a parts list may hold. */
export type BomColumn =
  | "refs"
  | "qty"
  | "value"
  | "package"
  | "mpn"
  | "maker"
  | "description"
  | "dnp"
  | "fitted";

/** Header words of parts lists, in the languages and habits met. */
export const BOM_WORDS: ColumnWords<BomColumn> = {
  refs: [
    "references",
    "reference",
    "refs",
    "ref",
    "designators",
    "designator",
    "refdes",
    "ref des",
    "reference designator",
    "reference designators",
    "part reference",
    "position",
    "bezeichner",
    "referenz",
    "referenzen",
    "repère",
    "repères",
    "référence",
    "références",
    "referencia",
    "referencias",
    "riferimento",
    "parts",
  ],
  qty: [
    "quantity",
    "qty",
    "count",
    "amount",
    "menge",
    "anzahl",
    "stück",
    "stk",
    "quantité",
    "qté",
    "cantidad",
    "quantità",
    "pcs",
    "quantity per board",
    "qty per board",
    "#",
  ],
  mpn: [
    "mpn",
    "manufacturer part number",
    "manufacturer part",
    "mfr part number",
    "mfr part",
    "mfg part number",
    "part number",
    "partnumber",
    "part no",
    "maker part number",
    "order code",
  ],
  maker: ["manufacturer", "maker", "mfr", "mfg", "brand", "hersteller", "fabricant", "fabricante"],
  value: ["value", "val", "wert", "valeur", "valor", "valore", "comment", "part", "name"],
  package: [
    "footprint",
    "package",
    "case",
    "size",
    "pattern",
    "land pattern",
    "gehäuse",
    "bauform",
    "boîtier",
    "encapsulado",
  ],
  description: [
    "description",
    "desc",
    "remark",
    "remarks",
    "notes",
    "note",
    "beschreibung",
    "bemerkung",
    "anmerkung",
    "remarque",
    "descripción",
  ],
  dnp: ["dnp", "dni", "dnf", "do not place", "do not populate", "do not fit", "not fitted", "exclude"],
  fitted: ["fitted", "populate", "populated", "fit", "placed", "mount", "assemble"],
};
