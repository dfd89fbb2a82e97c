/** A table of the package: a path and rows of text, the first row names the columns. */
export interface PlannedTable {
  readonly path: string;
  readonly rows: readonly (readonly string[])[];
}

/** A printable sheet: facts in pairs, tables, sentences. */
export interface PlannedSheet {
  readonly path: string;
  readonly title: string;
  readonly subtitle: string;
  readonly pairs: readonly {
    readonly heading: string;
    readonly rows: readonly (readonly [string, string])[];
  }[];
  readonly tables: readonly {
    readonly heading: string;
    readonly rows: readonly (readonly string[])[];
    /** How wide its columns are beside each other; alike where left out. */
    readonly widths?: readonly number[];
    /** Sentences below it. */
    readonly says?: readonly string[];
  }[];
  readonly notes: readonly string[];
  /** The list of fabrication files with their hashes is set on this sheet. */
  readonly listsFiles?: boolean;
}

export interface PackagePlan {
  readonly tables: readonly PlannedTable[];
  readonly sheets: readonly PlannedSheet[];
  /** Written as JSON. */
  readonly documents: readonly { readonly path: string; readonly value: unknown }[];
}

/** How the files of a product's sheet begin. */
export const panelStem = (name: string): string => `${slug(name)}-panel`;

/** File-name form of a name. */
export const slug = (text: string): string =>
  text
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, "-")
    .replace(/^-|-$/g, "") || "unnamed";
