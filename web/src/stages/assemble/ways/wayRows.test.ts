import { expect, test } from "@jest/globals";
import type { LinePart, Method } from "@kobbin/core";
import { framed, type WayRow, wayOfRow, wayRows } from "./wayRows.ts";

const part = (id: string, refs: string[], method: Method, more: object = {}): LinePart =>
  ({
    line: { id, refs, valueText: id, mpn: "", mount: "machine", ...(more as { line?: object }).line },
    kind: (more as { kind?: string }).kind ?? "chip",
    method,
    count: refs.length * ((more as { times?: number }).times ?? 1),
    joints: 2,
    isPolarised: false,
  }) as unknown as LinePart;

const BELOW = new Set(["R3", "C1"]);
const placeOf = (_: unknown, ref: string) =>
  ref === "X1" ? undefined : ({ side: BELOW.has(ref) ? "bottom" : "top" } as const);
const PARTS = [
  part("10k", ["R1", "R2"], "house", { times: 2 }),
  part("10k", ["R3"], "iron", { times: 2 }),
  part("100n", ["C1"], "iron"),
  part("mcu", ["U1"], "house", { kind: "gullFine" }),
  part("plug", ["J1"], "iron", { kind: "through" }),
  part("wire", ["X1"], "iron", { line: { mount: "hand" } }),
  part("screw", ["S1"], "iron", { kind: "loose" }),
];
const brief = (r: WayRow) => [r.level, r.label, r.refs.join(" "), wayOfRow(r) ?? r.by];

test("sides, kinds and lines, each with who does them; what is by hand stands apart, what is not soldered not at all", () => {
  expect(wayRows(PARTS, placeOf).map(brief)).toEqual([
    ["side", "the top", "R1 R2 U1", "house"],
    ["kind", "chips, 0603 and larger", "R1 R2", "house"],
    ["line", "10k", "R1 R2", "house"],
    ["kind", "leads out, fine pitch", "U1", "house"],
    ["line", "mcu", "U1", "house"],
    ["side", "the bottom", "R3 C1", "iron"],
    ["kind", "chips, 0603 and larger", "R3 C1", "iron"],
    ["line", "10k", "R3", "iron"],
    ["line", "100n", "C1", "iron"],
    ["kind", "through the board", "J1", "iron"],
    ["line", "plug", "J1", "iron"],
    ["kind", "by hand, as the bill says", "X1", "iron"],
    ["line", "wire", "X1", "iron"],
  ]);
  const rows = wayRows(PARTS, placeOf);
  expect(new Set(rows.map((r) => r.key)).size).toBe(rows.length);
  // a line on both sides is a row on each, with that side alone; pieces are of the product
  expect(rows.filter((r) => r.label === "10k").map((r) => [r.parts, r.by.house + r.by.iron])).toEqual([
    [[{ line: "10k", side: "top" }], 4],
    [[{ line: "10k", side: "bottom" }], 2],
  ]);
});

test("a row whose parts go several ways has none of its own", () => {
  const mixed = wayRows([part("10k", ["R1"], "house"), part("10k", ["R2"], "stencil")], placeOf);
  expect(wayOfRow(mixed[0]!)).toBeUndefined();
  expect(mixed[0]!.by).toEqual({ house: 1, stencil: 1, iron: 0 });
});

test("a frame holds whole lines, on its side alone; paste is no way where all of it is by hand", () => {
  const rows = wayRows(PARTS, placeOf);
  expect(framed(rows, new Set(["R1"]), "top")).toEqual({
    parts: [{ line: "10k", side: "top" }],
    refs: ["R1", "R2"],
    isByHand: false,
  });
  expect(framed(rows, new Set(["R3", "C1"]), "bottom").refs).toEqual(["R3", "C1"]);
  expect(framed(rows, new Set(["R3"]), "top").parts).toEqual([]);
  expect(framed(rows, new Set(["J1"]), "top").isByHand).toBe(true);
});
