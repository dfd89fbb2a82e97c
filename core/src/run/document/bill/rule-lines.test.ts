import { expect, test } from "@jest/globals";
import { madeLine, madeRun } from "../../made-up.fixture.ts";
import { isUnnamed, ruleLines } from "./rule-lines.ts";

const unnamed = (id: string, ref: string, valueText: string, pkg = "0603", more = {}) =>
  madeLine(id, [ref], { mpn: "", valueText, package: pkg, ...more });

test("lines without a number go by their class; confirmed is what the shop said of the class itself", () => {
  const doc = madeRun({
    lines: [
      unnamed("r", "R1", "10k"),
      unnamed("s", "R2", "1k"),
      unnamed("c", "C1", "100n"),
      unnamed("u", "U1", "thing", "QFN-32"),
      unnamed("x", "R3", "1k", "0603", { dnp: true }),
      madeLine("n", ["R4"]),
    ],
  });
  const kinds = (d: typeof doc) => ruleLines(d).classes.map((c) => [c.kind, c.lines.length, c.isConfirmed]);
  expect(kinds(doc)).toEqual([
    ["resistor", 2, false],
    ["capacitor", 1, false],
  ]);
  const said = {
    ...doc,
    workshop: { ...doc.workshop, rules: { resistor: { tolerance: "5 %" } } },
  } as typeof doc;
  expect(kinds(said)).toEqual([
    ["resistor", 2, true],
    ["capacitor", 1, false],
  ]);
  expect(ruleLines(doc).tooLittle.map((l) => [l.line.id, l.why])).toEqual([
    ["u", "no rule is enough for its class; name a part"],
  ]);
});

test.each([
  [{}, true],
  [{ dnp: true }, false],
  [{ mpn: "AX-1" }, false],
  [{ mount: "none" as const }, false],
  [{ origin: "made" as const }, false],
  [{ origin: "bought" as const }, true],
])("a line with %j is bought without a number: %s", (more, is) => {
  expect(isUnnamed(unnamed("r", "R1", "10k", "0603", more))).toBe(is);
});
