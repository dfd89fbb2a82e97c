import { expect, test } from "@jest/globals";
import { billLine as line } from "../../test/bill-line.ts";
import { nearValues, spreadOf } from "./fewer.ts";

test("how many different values and packages a bill asks for, however they are written", () => {
  const lines = [
    line("a", "R1 R2", "4k7"),
    line("b", "R3", "4.7 kΩ", "R_0603"),
    line("c", "R4", "10k", "0805"),
    line("d", "C1", "100n"),
    line("e", "U1", "RX85", "SOIC-8"),
    line("f", "R9", "1M", "0402", { dnp: true }),
  ];
  expect(spreadOf(lines)).toEqual({
    parts: 4,
    values: [
      { letters: "R", count: 2 },
      { letters: "C", count: 1 },
    ],
    packages: 3,
  });
});

test("parts are counted once over boards and ways of mounting; ratings and numbers part them", () => {
  const on = (board: string, more: object = {}) => ({ board, ...more });
  const lines = [
    line("a", "R1", "10k 1%", "0603", on("tail")),
    line("b", "R1", "10k 1%", "0603", on("card", { mount: "hand" })),
    line("c", "R2", "10k 5%", "0603", on("card")),
    line("d", "J1", "display", "", on("tail", { mpn: "LC-4" })),
    line("e", "J1", "sounder", "", on("card", { mpn: "lc -4" })),
  ];
  expect(spreadOf(lines).parts).toBe(3);
});

test("a value that another board has often does not give way", () => {
  const few = line("few", "R1", "4k7", "0603", { board: "tail" });
  const many = line("many", "R2 R3 R4", "5k1", "0603", { board: "tail" });
  const often = line("often", "R1 R2", "4k7", "0603", { board: "card" });
  expect(nearValues([few, many]).map((x) => x.few)).toEqual(["few"]);
  expect(nearValues([few, many, often])).toEqual([]);
});

test("a value used once or twice may take the nearest one that is used more, the nearest first", () => {
  const lines = [
    line("many", "R1 R2 R3 R4", "5k1"),
    line("few", "R5", "4k7"),
    line("other", "R6 R7 R8", "6k2"),
    line("far", "R9", "47k"),
    line("pair", "C1 C2", "22p"),
    line("caps", "C3 C4 C5", "27p"),
  ];
  expect(nearValues(lines).map((x) => [x.few, x.many, Math.round(x.share * 1000)])).toEqual([
    ["few", "many", 85],
    ["pair", "caps", 227],
  ]);
});

test.each([
  ["another package", line("b", "R2 R3", "5k1", "0805")],
  ["put on by hand", line("b", "R2 R3", "5k1", "0603", { mount: "hand" })],
  ["not placed", line("b", "R2 R3", "5k1", "0603", { dnp: true })],
  ["another tolerance", line("b", "R2 R3", "5k1 5%")],
  ["no more pieces", line("b", "R2", "5k1")],
  ["too far away", line("b", "R2 R3", "6k8")],
  ["no resistor", line("b", "L2 L3", "5m")],
])("no neighbour: %s", (_, other) => {
  expect(nearValues([line("a", "R1", "4k7 1%"), other])).toEqual([]);
});
