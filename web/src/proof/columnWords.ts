/** What a column of a list may be taken for. */
export const COLUMN_WORDS = [
  ["refs", "references"],
  ["qty", "quantity"],
  ["value", "value"],
  ["package", "package"],
  ["mpn", "part number"],
  ["maker", "maker"],
  ["description", "description"],
  ["dnp", "do not place"],
  ["fitted", "fitted"],
] as const;

/** What is said of a column of marks: which of them leaves its lines off. */
export const offWords = (mark: string): string =>
  mark === "" ? "empty is left off" : `“${mark}” is left off`;
