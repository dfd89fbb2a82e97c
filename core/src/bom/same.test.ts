import { expect, test } from "@jest/globals";
import { billLine as line } from "../../test/bill-line.ts";
import type { Micros } from "../money/money.ts";
import { savedTogether } from "../sourcing/together.ts";
import { packageKey, sameParts } from "./same.ts";

test.each([
  ["R_0603", "0603"],
  ["0603", "0603"],
  ["CAP 0402 (1005M)", "0402"],
  ["SOIC-8", "SOIC8"],
  ["SOT-23-5", "SOT235"],
])("the package %s goes by %s", (text, key) => {
  expect(packageKey(text)).toBe(key);
});

test("one part in three spellings is one line; another value, package, kind, mounting or a part left off is not", () => {
  const found = sameParts([
    line("a", "R1 R2", "10k", "0603"),
    line("b", "R7", "10K0", "R_0603", { mpn: "ZR-10K" }),
    line("c", "R9", "10 kohm", "0603"),
    line("d", "R11", "1k", "0603"),
    line("e", "R12", "10k", "0805"),
    line("f", "C1", "10n", "0603"),
    line("g", "R13", "10k", "0603", { mount: "hand" }),
    line("h", "R14", "10k", "0603", { dnp: true }),
  ]);
  expect(found).toEqual([
    { keep: "b", others: ["a", "c"], because: "one value and package: 10K0 R_0603, 10k 0603, 10 kohm 0603" },
  ]);
});

test("ratings that contradict part them, ratings stated on one only are named", () => {
  const found = sameParts([
    line("a", "C1", "100n 16V X7R", "0402"),
    line("b", "C2", "100n/50V", "0402"),
    line("c", "C3", "0.1uF 50V", "0402"),
    line("d", "C4", "100n", "0402", { description: "X7R" }),
  ]);
  expect(found.map((f) => [f.keep, [...f.others].sort(), f.doubt])).toEqual([
    ["a", ["d"], "the voltage is not stated on each"],
    ["b", ["c"], undefined],
  ]);
});

test("two numbers are two parts, one number is one unless the lines say different things of it", () => {
  expect(
    sameParts([
      line("a", "R1", "10k", "0603", { mpn: "ZR-10K" }),
      line("b", "R2", "10k", "0603", { mpn: "YR-10K" }),
      line("c", "U1", "TK31", "SOIC-8", { mpn: "tk31-s" }),
      line("d", "U2", "tk31", "SO8", { mpn: "TK31-S" }),
      line("e", "J1", "display", "HDR-1x4", { mpn: "ZH-4" }),
      line("f", "J2", "sounder", "HDR-1x4", { mpn: "ZH-4" }),
    ]),
  ).toMatchObject([{ others: [expect.any(String)], because: "one part number" }]);
});

test("what is bought together reaches the price step that one of them alone does not", () => {
  const offer = {
    id: "o",
    supplier: "A",
    stock: 10_000,
    moq: 1,
    multiple: 1,
    breaks: [
      { qty: 1, price: 100_000 as Micros },
      { qty: 100, price: 55_000 as Micros },
    ],
  };
  // apart: 60 → 100 · 0.055 = 5.50, 50 · 0.10 = 5.00; together 110 · 0.055 = 6.05
  expect(savedTogether([offer], [60, 50])).toBe(4_450_000);
  expect(savedTogether([], [1, 2])).toBe(0);
});
