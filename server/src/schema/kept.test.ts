import { test } from "@jest/globals";
import { withBounds } from "../../../core/test/bounds.ts";
import { expectKept, outline } from "../../../core/test/kept.ts";
import { RUN_TABLES } from "./run-tables.ts";
import { DESCRIPTORS, RECORD } from "./tables.ts";

test("every column of every recorded table: its key, what it names, what may be restored into it", () => {
  const all = Object.entries({ ...DESCRIPTORS, ...RECORD });
  for (const [file, isIn] of [
    ["tables", (t: string) => !(t in RUN_TABLES)],
    ["run-tables", (t: string) => t in RUN_TABLES],
  ] as const)
    expectKept(
      new URL(`golden/${file}.txt`, import.meta.url),
      "what may be restored that might not before, or the other way about: older backups are read by the same table",
      outline(withBounds(Object.fromEntries(all.filter(([t]) => isIn(t))))),
    );
});
