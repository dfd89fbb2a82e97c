import { expect, test } from "@jest/globals";
import { readNetlist } from "./read.ts";

/** A record by its columns: 1–3 code, 4–17 net, 21–26 reference, 28–31 pin, 33–38 hole, 39–41 access, then the place. */
const record = (
  code: string,
  net: string,
  ref: string,
  pin: string,
  hole: string,
  access: string,
  place: string,
) => `${code}${net.padEnd(14)}   ${ref.padEnd(6)}-${pin.padEnd(4)} ${hole.padEnd(6)}${access}${place}`;
const HEAD = "C  made up\nP  UNITS CUST 1\n";
const one = (line: string, head = HEAD) => readNetlist(`${head}${line}\n999\n`, "a.ipc");

test.each([
  [
    "a drilled point",
    record("317", "GND", "J1", "2", "D1000P", "A00", "X+012500Y-025000"),
    { net: "GND", ref: "J1", pin: "2", x: 12.5, y: -25, side: "both", holeMm: 1, plated: true },
  ],
  [
    "a surface point above",
    record("327", "VCC", "U1", "14", "", "A01", "X-000500Y+000250"),
    { x: -0.5, y: 0.25, side: "top", layer: 1 },
  ],
  [
    "a surface point below",
    record("327", "VCC", "U1", "14", "", "A02", "X 000500Y 000250"),
    { x: 0.5, side: "bottom", layer: 2 },
  ],
  [
    "of more layers any but the first is below",
    record("327", "VCC", "U1", "14", "", "A04", "X+000500Y+000250"),
    { side: "bottom", layer: 4 },
  ],
  [
    "an unplated hole",
    record("317", "N/C", "H1", "1", "D3200U", "A00", "X+000000Y+000000"),
    { holeMm: 3.2, plated: false, side: "both" },
  ],
  [
    "an unplated hole by its code",
    record("367", "N/C", "H1", "", "D3200", "A00", "X+000000Y+000000"),
    { plated: false, side: "both" },
  ],
])("%s", (_, line, point) => {
  const { points, findings } = one(line);
  expect(points).toEqual([expect.objectContaining(point)]);
  // a point of both sides names no layer, one without a hole no plating
  if (!("layer" in point)) expect(points[0]).not.toHaveProperty("layer");
  if (!("plated" in point)) expect(points[0]).not.toHaveProperty("plated");
  if (!("holeMm" in point) && line.startsWith("327")) expect(points[0]).not.toHaveProperty("holeMm");
  expect(findings).toEqual([]);
});

test.each([
  ["P  UNITS CUST 0", 0.00254],
  ["P  UNITS CUST 2", 0.00254],
  ["P  UNITS CUST 1", 0.001],
  ["P  UNITS SI", 0.001],
  ["P  UNITS ", 0.00254],
])("%s is %d mm", (head, unitMm) => {
  const r = one(record("327", "A", "R1", "1", "", "A01", "X+001000Y+000000"), `${head}\n`);
  expect(r.unitMm).toBe(unitMm);
  expect(r.points[0]!.x).toBeCloseTo(1000 * unitMm, 9);
});

test("long names are put back, whatever case they are called by", () => {
  const r = one(
    record("327", "nname7", "R1", "1", "", "A01", "X+001000Y+000000"),
    `${HEAD}P  NNAME7  a/very/long/name/of/a/net\n`,
  );
  expect(r.points[0]!.net).toBe("a/very/long/name/of/a/net");
});

test("what is no record, has no place, or ends too early is said with its line; nothing else is lost", () => {
  const good = record("327", "A", "R1", "1", "", "A01", "X+001000Y+000000");
  const lost = record("327", "B", "R2", "1", "", "A01", "X+oneY+two");
  const r = readNetlist(`${HEAD}${good}\nnonsense here\n${lost}\n${good.replace("R1", "R3")}\n`, "a.ipc");
  expect(r.points.map((p) => [p.ref, p.line])).toEqual([
    ["R1", 3],
    ["R3", 6],
  ]);
  expect(r.findings.map((f) => [f.tag, f.line])).toEqual([
    ["parse-error", 4],
    ["parse-error", 5],
    ["missing-end", 7],
  ]);
  // a file without a point was not cut off at its end
  expect(readNetlist(HEAD, "a.ipc").findings.map((f) => f.tag)).not.toContain("missing-end");
  // what follows the end is nothing of the netlist
  expect(readNetlist(`${HEAD}${good}\n999\n${good}\n`, "a.ipc").points).toHaveLength(1);
  // records that hold nothing to test are passed over without a word
  expect(readNetlist(`${HEAD}${good}\n378A   \n099\n999\n`, "a.ipc").findings).toEqual([]);
});
