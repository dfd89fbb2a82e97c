import { expect, test } from "@jest/globals";
import type { BomLine } from "../../../bom/bom.ts";
import { toRunLines } from "./lines.ts";

const row = (refs: string[], more: Partial<BomLine> = {}): BomLine => ({
  refs,
  qty: refs.length,
  value: null,
  valueText: "10k",
  package: "0603",
  mpn: "",
  maker: "",
  description: "",
  dnp: false,
  row: 1,
  ...more,
});
const place = (ref: string) => ({ ref, xMm: 0, yMm: 0, rotationDeg: 0, side: "top" as const });

test("a list with a row per reference becomes one line per part, references in natural order", () => {
  const lines = toRunLines(
    [row(["R10"]), row(["R2"]), row(["R1"], { valueText: "4k7" }), row(["R3"])],
    [place("R10"), place("R2"), place("R3"), place("R1")],
  );
  expect(lines.map((l) => [l.refs, l.qty, l.valueText])).toEqual([
    [["R2", "R3", "R10"], 3, "10k"],
    [["R1"], 1, "4k7"],
  ]);
});

test("the part number decides before the value; placed and not placed never join", () => {
  const lines = toRunLines(
    [
      row(["R1"], { mpn: "A-1" }),
      row(["R2"], { mpn: "a-1" }),
      row(["R3"], { mpn: "B-1" }),
      row(["R4"], { mpn: "A-1", dnp: true }),
    ],
    [],
  );
  expect(lines.map((l) => [l.refs, l.dnp])).toEqual([
    [["R1", "R2"], false],
    [["R3"], false],
    [["R4"], true],
  ]);
});

test("who mounts a part is read from places, package and text", () => {
  const lines = toRunLines(
    [
      row(["R1"]),
      row(["J1"], { package: "HDR-1x4" }),
      row(["D1"], { valueText: "red", description: "LED, by hand" }),
      row([], { valueText: "screw", qty: 4 }),
      row(["U1"], { package: "QFP-48", valueText: "x" }),
    ],
    [place("R1"), place("D1")],
  );
  expect(lines.map((l) => l.mount)).toEqual(["machine", "hand", "hand", "none", "machine"]);
});

test("words tell apart what has no reference; what has one is told by value and package, whatever else is said", () => {
  const lines = toRunLines(
    [
      row(["R1"], { description: "pull-up" }),
      row(["R2"], { description: "divider" }),
      row([], { valueText: "screw", qty: 4, description: "M3 × 8" }),
      row([], { valueText: "screw", qty: 2, description: "M2 × 5" }),
    ],
    [place("R1"), place("R2")],
  );
  expect(lines.map((l) => [l.refs.length, l.qty, l.description])).toEqual([
    [2, 2, "pull-up"],
    [0, 4, "M3 × 8"],
    [0, 2, "M2 × 5"],
  ]);
});
