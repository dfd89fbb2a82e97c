import { expect, test } from "@jest/globals";
import { madeLine } from "../run/made-up.fixture.ts";
import { meetNumbers } from "./meet-numbers.ts";

const line = (id: string, refs: readonly string[], valueText: string, pkg = "0603", more: object = {}) =>
  madeLine(id, refs, { valueText, package: pkg, mpn: "", ...more });
const BILL = [
  line("r10k", ["R1", "R2", "R3"], "10k"),
  line("r4k7", ["R4"], "4k7"),
  line("r10k0805", ["R5"], "10k", "0805"),
  line("c100n16", ["C1"], "100n 16V"),
  line("c100n50", ["C2"], "100n 50V"),
  line("c1u", ["C3"], "1u"),
  line("u", ["U1"], "timer", "SOIC-8", { mpn: "OLD-1" }),
  line("off", ["R9"], "22k", "0603", { dnp: true }),
];
const met = (text: string) => meetNumbers(text, BILL).met.map((m) => [m.lines.join("+"), m.mpn, m.by]);

// how numbers are pasted, and what they meet; worked by hand
test.each<readonly [string, string, readonly (readonly string[])[]]>([
  ["a reference and a number", "R4\tOX-4K7-1", [["r4k7", "OX-4K7-1", "reference"]]],
  ["the number first", "OX-4K7-1\tR4", [["r4k7", "OX-4K7-1", "reference"]]],
  ["a range of references", "R1-R3;OX-10K-1", [["r10k", "OX-10K-1", "reference"]]],
  ["one reference of several", "R2  OX-10K-1", [["r10k", "OX-10K-1", "reference"]]],
  [
    "references, value, size, number, maker",
    "R1-R3\t10k\t0603\t3\tOX-10K-1\tOxbow",
    [["r10k", "OX-10K-1", "reference"]],
  ],
  ["a quoted cell with commas", '"R1, R2, R3";OX-10K-1', [["r10k", "OX-10K-1", "reference"]]],
  ["a heading over it", "Ref\tPart number\nR4\tOX-4K7-1", [["r4k7", "OX-4K7-1", "reference"]]],
  ["a value in another spelling", "4.7 kOhm\tOX-4K7-1", [["r4k7", "OX-4K7-1", "value"]]],
  ["a value that only its size parts", "10k\t0805\tOX-10K-0805", [["r10k0805", "OX-10K-0805", "value"]]],
  ["a value that only a rating parts", "100nF 50V\tPW-100N-50", [["c100n50", "PW-100N-50", "value"]]],
  ["words as a value", "timer\tTB-555-S8", [["u", "TB-555-S8", "value"]]],
])("%s", (_, text, expected) => {
  expect(met(text)).toEqual(expected);
});

test.each([
  ["a value two kinds of lines have", "10k\tOX-10K-1", "several lines have that value: R1, R5"],
  ["a reference that is not there", "R77\tOX-1K-1", "neither a reference nor a value"],
  ["one of two references is not there", "R4, R77\tOX-1K-1", "R77 is not on the bill"],
  ["references of different values", "R1, R4\tOX-1K-1", "different values"],
  ["a value in a size the bill has not", "4k7\t2512\tOX-4K7-2512", "neither a reference nor a value"],
  ["a reference beside another size", "R4\t4k7\t0805\tOX-4K7-0805", "it says 0805, R4 is 0603 on the bill"],
  ["no number", "R4\t4k7", "no part number"],
  ["a line that is left off", "R9\tOX-22K-1", "neither a reference nor a value"],
  ["two numbers for one line", "R4\tOX-A-47\nR4\tOX-B-47", "different numbers"],
])("%s stays, with the reason", (_, text, why) => {
  const r = meetNumbers(text, BILL);
  expect(r.met).toEqual([]);
  expect(r.left[0]!.why).toContain(why);
});

test("a bare column is taken in the order of the lines without a number, where there are as many; that is said to be a guess", () => {
  const numbers = ["N-1", "N-2", "N-3", "N-4", "N-5", "N-6"];
  const r = meetNumbers(numbers.join("\n"), BILL);
  expect(r.met.map((m) => [m.lines[0], m.mpn])).toEqual(
    ["r10k", "r4k7", "r10k0805", "c100n16", "c100n50", "c1u"].map((l, i) => [l, numbers[i]]),
  );
  expect(r.guess).toContain("order");
  const few = meetNumbers(numbers.slice(1).join("\n"), BILL);
  expect([few.met, few.left.length]).toEqual([[], 5]);
  expect(few.left[0]!.why).toContain("5 numbers and 6 lines");
});

test("a number in the place of another is told, not hidden", () => {
  expect(meetNumbers("U1\tTB-555-S8", BILL).met[0]).toMatchObject({ instead: "OLD-1" });
});
