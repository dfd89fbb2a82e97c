import { type DataShape, flag, list, maybe, money, number, oneOf, text } from "./shape.ts";

/** From where a line comes. */
export const ORIGINS = ["bought", "made", "printed", "salvaged", "supplied"] as const;
/** Who puts a part on. */
export const MOUNTS = ["machine", "hand", "none"] as const;

/** A field of a line of the bill, whole: what it is in a document, in the database, and in a sentence of the history. */
export interface LineField {
  /** In a run document. */
  readonly shape: DataShape;
  readonly column: string;
  readonly sql: "text[]" | "numeric" | "text" | "boolean" | "uuid";
  /** As it is stored; of a reference the table it names, and a line may name none. */
  readonly stored: DataShape | { readonly to: string };
  /** What stands in the database where a line says nothing of it. */
  readonly usual: string | number | boolean | null | readonly string[];
  /** In the history: "quantity 2 → 3". */
  readonly words: string;
}

const words = (column: string, sentence: string, most = 300, inDocument = text()): LineField => ({
  shape: inDocument,
  column,
  sql: "text",
  stored: text(most),
  usual: "",
  words: sentence,
});

/**
 * Every field of a line, once. Shapes of documents, statements, patches, backups and history derive from it; request
 * schemas and the type itself do not compile while they differ from it.
 */
export const LINE_FIELDS = {
  refs: {
    shape: list(text(80), 20_000),
    column: "refs",
    sql: "text[]",
    stored: list(text(80), 20_000),
    usual: [],
    words: "references",
  },
  qty: {
    shape: number(0, 1e7),
    column: "qty",
    sql: "numeric",
    stored: number(0, 99_999_999),
    usual: 1,
    words: "quantity",
  },
  valueText: words("value_text", "value"),
  package: words("package", "package"),
  mpn: words("mpn", "part number"),
  maker: words("maker", "maker"),
  description: words("description", "description", 1000, text(1000)),
  dnp: { shape: flag, column: "dnp", sql: "boolean", stored: flag, usual: false, words: "left off" },
  mount: {
    shape: oneOf(...MOUNTS),
    column: "mount",
    sql: "text",
    stored: oneOf(...MOUNTS),
    usual: "none",
    words: "mounted",
  },
  origin: {
    shape: maybe(oneOf(...ORIGINS)),
    column: "origin",
    sql: "text",
    stored: oneOf(...ORIGINS),
    usual: "bought",
    words: "origin",
  },
  parent: {
    shape: maybe(text(80)),
    column: "parent_id",
    sql: "uuid",
    stored: { to: "bom_line" },
    usual: null,
    words: "part of",
  },
  board: {
    shape: maybe(text(80)),
    column: "board_id",
    sql: "uuid",
    stored: { to: "board" },
    usual: null,
    words: "on board",
  },
  madeCost: {
    shape: maybe(money),
    column: "made_cost",
    sql: "numeric",
    stored: number(0, 1e9),
    usual: "0",
    words: "cost to make one",
  },
} as const satisfies Record<string, LineField>;

/** A field of a line beside its id. */
export type LineFieldKey = keyof typeof LINE_FIELDS;
