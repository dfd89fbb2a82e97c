import { shapes } from "@kobbin/core";
import { type Descriptor, isRef } from "./tables.ts";

/**
 * Holds a row, or some columns of one, against what its table's columns hold: for what is written down and for what is read
 * back from a backup alike.
 *
 * @param tell called with each thing that is wrong
 * @param isWhole the columns of the key have to be there
 */
export function checkColumns(
  d: Descriptor,
  row: Readonly<Record<string, unknown>>,
  where: string,
  tell: (what: string) => void,
  isWhole: boolean,
): void {
  for (const [name, value] of Object.entries(row)) {
    if (!Object.hasOwn(d.columns, name)) {
      tell(`${where} has a column “${name.slice(0, 60)}” that Kobbin does not know`);
      continue;
    }
    const column = d.columns[name]!;
    if (isRef(column)) {
      if (!(value === null && column.isOptional) && !(typeof value === "string" && shapes.UUID.test(value)))
        tell(`${where}: ${name} is no id`);
    } else {
      const wrong = column(value, name);
      if (wrong) tell(`${where}: ${wrong}`);
    }
  }
  if (isWhole)
    for (const k of d.key) if (row[k] === undefined || row[k] === null) tell(`${where} has no ${k}`);
}
