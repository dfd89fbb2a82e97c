import type { Json } from "../history/merge.ts";
import type { Row } from "../history/rows.ts";

/** The columns a request names; those it leaves out stay as they are. */
export function givenColumns(columns: Readonly<Record<string, unknown>>): Row {
  return Object.fromEntries(Object.entries(columns).filter(([, v]) => v !== undefined)) as Record<
    string,
    Json
  >;
}
