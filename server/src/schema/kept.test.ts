import { test } from "@jest/globals";
import { withBounds } from "../../../core/test/bounds.ts";
import { expectKept, outline } from "../../../core/test/kept.ts";
import { DESCRIPTORS, RECORD } from "./tables.ts";

test("every column of every recorded table: its key, what it names, what may be restored into it", () => {
  expectKept(
    new URL("golden/tables.txt", import.meta.url),
    "what may be restored that might not before, or the other way about: older backups are read by the same table",
    outline(withBounds({ ...DESCRIPTORS, ...RECORD })),
  );
});
