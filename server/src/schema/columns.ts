import { type DataShape, shapes } from "@kobbin/core";

/** What a column holds, and so what may be restored into it. */
export type Column = DataShape | Ref;

/** A column that names a row of another table of the same shop. */
export interface Ref {
  /** A name of {@link DESCRIPTORS}; a test sees to it. */
  readonly to: string;
  readonly isOptional: boolean;
}

/** A recorded table of a shop: the columns of its key beside the shop, and every column with what it holds. */
export interface Descriptor {
  readonly key: readonly string[];
  readonly columns: Readonly<Record<string, Column>>;
}

const { mapOf, number, text, whole } = shapes;
/** Names a row of another table. */
export const to = (table: string): Ref => ({ to: table, isOptional: false });
/** Names one, or none. */
export const perhaps = (table: string): Ref => ({ to: table, isOptional: true });
/** Counts the changes of a row. */
export const version = whole(1, 1e9);
/** "12.50" as the database writes it, or a number of a backup's JSON. */
export const decimal = number(0, 1e9);
/** Short texts by a key. */
export const words = mapOf(text(300), 200);
