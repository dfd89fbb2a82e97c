import { expect, test } from "@jest/globals";
import type { RunLine } from "@kobbin/core";
import { linesFor } from "./sumLines.ts";

const line = (id: string, valueText: string, dnp = false) =>
  ({ id, refs: [id], valueText, description: "", dnp }) as unknown as RunLine;
const BILL = [
  line("D1", "red LED"),
  line("R1", "330"),
  line("R2", "1k", true),
  line("C1", "100n"),
  line("Z9", "?"),
];
const offered = (own: string, chosen?: string) => linesFor("resistor", BILL, own, chosen).map((l) => l.id);

test("a sum opened from a lamp offers resistors, not the lamp; from a line of no known kind that one too", () => {
  expect(offered("D1")).toEqual(["R1"]);
  expect(offered("R1")).toEqual(["R1"]);
  expect(offered("Z9")).toEqual(["R1", "Z9"]);
});

test("what was chosen stays to be seen, whatever it has become since", () => {
  expect(offered("D1", "R2")).toEqual(["R1", "R2"]);
  expect(offered("R1", "C1")).toEqual(["R1", "C1"]);
});
