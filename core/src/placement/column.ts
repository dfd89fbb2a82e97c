/** What a column of a table of places may hold. */
export type PlacementColumn = "ref" | "x" | "y" | "rotation" | "side" | "mirror" | "unit" | "fitted";

/** The unit a table is told as. */
export type LengthUnit = "mm" | "inch" | "mil";
