import { expect, test } from "@jest/globals";
import type { RunLine } from "@kobbin/core";
import { lineEdit, passes } from "./lineEdits.ts";

const line: RunLine = {
  id: "1",
  refs: ["R1", "R2"],
  qty: 2,
  valueText: "10k",
  package: "0603",
  mpn: "",
  maker: "",
  description: "pull-up",
  dnp: false,
  mount: "machine",
};

test.each<[string, string, object]>([
  ["refs", "R1-R3", { change: { refs: ["R1", "R2", "R3"], qty: 3 } }],
  ["refs", "", { change: { refs: [] } }],
  ["refs", "R5-R3", { problem: expect.stringContaining("R5-R3") }],
  ["qty", "2,5", { change: { qty: 2.5 } }],
  ["qty", "-1", { problem: "“-1” is negative" }],
  ["qty", "", { problem: "“” is not a number" }],
  ["mount", "By hand", { change: { mount: "hand" } }],
  ["mount", "robot", { problem: expect.stringContaining("by machine") }],
  ["placed", "no", { change: { dnp: true } }],
  ["placed", "x", { change: { dnp: false } }],
  ["placed", "perhaps", { problem: expect.stringContaining("neither") }],
  ["mpn", " OX-1 ", { change: { mpn: "OX-1" } }],
])("%s typed as “%s”", (column, text, expected) => {
  expect(lineEdit(line, column, text)).toEqual(expected);
});

test("a filter and words found together narrow the bill", () => {
  const is = { noted: false, short: true };
  expect(passes(line, "", "r1 pull", is)).toBe(true);
  expect(passes(line, "", "r1 cap", is)).toBe(false);
  expect(passes(line, "unnamed", "", is)).toBe(true);
  expect(passes(line, "noted", "", is)).toBe(false);
  expect(passes(line, "short", "", is)).toBe(true);
  expect(passes(line, "hand", "", is)).toBe(false);
  expect(passes({ ...line, dnp: true }, "machine", "", is)).toBe(false);
});
