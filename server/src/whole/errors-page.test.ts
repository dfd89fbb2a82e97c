import { readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";
import { fileURLToPath } from "node:url";
import { expect, test } from "@jest/globals";
import { ERROR_CODES, FINDING_TAGS } from "@kobbin/core";

test("the page of errors names every code", () => {
  const text = readFileSync(new URL("../../../docs/errors.md", import.meta.url), "utf8");
  for (const code of Object.keys(ERROR_CODES)) expect(text).toContain(`\`${code}\``);
});

test("the page of errors names every tag of a finding with the levels it is said at, and none that nothing says", () => {
  const page = readFileSync(new URL("../../../docs/errors.md", import.meta.url), "utf8").split(
    "## Findings",
  )[1]!;
  const told = Object.fromEntries(
    [...page.matchAll(/^\| `([a-z-]+)`\s*\| ([a-z, ]+?)\s*\|/gm)].map(([, tag, levels]) => [
      tag,
      levels === "error to remark" ? ["error", "warning", "remark"] : levels!.split(", "),
    ]),
  );
  expect(told).toEqual(FINDING_TAGS);
  const roots = [
    "../../../core/src/",
    "../../../formats/src/",
    "../../../bin/src/",
    "../../../packing/src/",
  ].map((r) => fileURLToPath(new URL(r, import.meta.url)));
  const source = roots
    .flatMap((root) => readdirSync(root, { recursive: true, encoding: "utf8" }).map((f) => join(root, f)))
    .filter((f) => f.endsWith(".ts") && !f.endsWith(".test.ts") && !f.endsWith("finding-tags.ts"))
    .map((f) => readFileSync(f, "utf8"))
    .join("\n");
  expect(Object.keys(FINDING_TAGS).filter((t) => !source.includes(`"${t}"`))).toEqual([]);
});
