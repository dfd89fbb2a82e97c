import { test } from "@jest/globals";
import * as contract from "@kobbin/contract";
import { type AnyObjectSchema, isSchema, type SchemaDescription } from "yup";
import { expectKept } from "../../../core/test/kept.ts";

/** A field of a body in one line: what it is and every bound it has; what is below it after. */
function told(d: SchemaDescription, under: string): string[] {
  const bounds = d.tests
    .flatMap((t) => Object.entries(t.params ?? {}).map(([k, v]) => `${t.name} ${k} ${v}`))
    .filter((t) => !/^(required|typeError)/.test(t));
  const line = [d.type, d.optional ? "may be left out" : "", d.nullable ? "or null" : "", ...bounds].filter(
    Boolean,
  );
  const inside = "fields" in d ? (d.fields as Record<string, SchemaDescription>) : {};
  const item = "innerType" in d && d.innerType ? told(d.innerType as SchemaDescription, `${under}[]`) : [];
  return [
    `${under}: ${line.join(", ")}`,
    ...item,
    ...Object.entries(inside).flatMap(([key, f]) => told(f, `${under}.${key}`)),
  ];
}

test("every field of every request: what it is, and how much of it is taken", () => {
  const bodies = Object.entries(contract).filter(([, v]) => isSchema(v)) as [string, AnyObjectSchema][];
  const lines = bodies
    .sort(([a], [b]) => (a < b ? -1 : 1))
    .flatMap(([name, body]) => told(body.describe(), name));
  const look = "a bound that moved: what pages and scripts may send, and what the database then holds";
  // in parts that are looked at whole; a name stands in the last part that does not begin after it
  const from = ["a", "g", "o"];
  const partOf = (l: string) => from.findLast((f) => f <= l)!;
  for (const part of from)
    expectKept(
      new URL(`golden/bodies-${part}.txt`, import.meta.url),
      look,
      lines.filter((l) => partOf(l) === part),
    );
});
