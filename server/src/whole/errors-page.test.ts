import { readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";
import { fileURLToPath } from "node:url";
import { expect, test } from "@jest/globals";
import { ERROR_CODES } from "@kobbin/core";

test("the page of errors names every code", () => {
  const text = readFileSync(new URL("../../../docs/errors.md", import.meta.url), "utf8");
  for (const code of Object.keys(ERROR_CODES)) expect(text).toContain(`\`${code}\``);
});

test("the page of errors names every tag of a finding, and none that nothing says", () => {
  const listed = readFileSync(new URL("../../../docs/errors.md", import.meta.url), "utf8")
    .split("## Findings")[1]!
    .match(/(?<=^\| `)[a-z-]+/gm)!;
  const roots = [
    "../../../core/src/",
    "../../../formats/src/",
    "../../../bin/src/",
    "../../../packing/src/",
  ].map((r) => fileURLToPath(new URL(r, import.meta.url)));
  const source = roots
    .flatMap((root) => readdirSync(root, { recursive: true, encoding: "utf8" }).map((f) => join(root, f)))
    .filter((f) => f.endsWith(".ts") && !f.endsWith(".test.ts"))
    .map((f) => readFileSync(f, "utf8"))
    .join("\n");
  const said = [...source.matchAll(/\b(?:tag: |say\(\s*)"([a-z]+-[a-z-]+)"/g)].map((m) => m[1]!);
  expect(said.length).toBeGreaterThan(80);
  expect(said.filter((t) => !listed.includes(t))).toEqual([]);
  expect(listed.filter((t) => !source.includes(`"${t}"`))).toEqual([]);
});
