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
    "a surface point that can be touched from both sides, or says not from which",
    record("327", "VCC", "U1", "14", "", "A00", "X+000500Y+000250"),
    { side: "both" },
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

const AT = "X+001000Y+002000";
const GOOD = record("327", "A", "R1", "1", "", "A01", AT);
const same = (net: string) => record("327", net, "R2", "1", "", "A01", AT);

/** Ways of writing, odd ones first: what is read of them, as net and place in mm, and what is said with its line. */
test.each<[says: string, text: string, read: string[], said: string[]]>([
  [
    "a place with a point, a comma, letters or too many digits is lost",
    `${HEAD}${["X+1.5Y+002000", "X+001000Y+2,5", "X+oneY+two", "X+12345678Y+002000", "X+001000Y+12345678", "X+001000"].map((at) => record("327", "A", "R1", "1", "", "A01", at)).join("\n")}\n${GOOD}\n999\n`,
    ["A 1 2"],
    [
      "parse-error error 3",
      "parse-error error 4",
      "parse-error error 5",
      "parse-error error 6",
      "parse-error error 7",
      "parse-error error",
    ],
  ],
  [
    "a point that names no net is lost",
    `${HEAD}${same("")}\n${GOOD}\n999\n`,
    ["A 1 2"],
    ["parse-error error 3"],
  ],
  [
    "tabs between columns cannot be told apart",
    `${HEAD}327A\tR1\t-1 A01${AT}\n${GOOD}\n999\n`,
    ["A 1 2"],
    ["parse-error error 3"],
  ],
  [
    "a name over its columns is said",
    `${HEAD}${record("327", "WATER_PUMP_SENSE", "R1", "1", "", "A01", AT)}\n999\n`,
    ["WATER_PUMP_SEN 1 2"],
    ["columns-shifted warning 3"],
  ],
  ["a name of all its columns is not", `${HEAD}${same("WATER_PUMP_SEN")}\n999\n`, ["WATER_PUMP_SEN 1 2"], []],
  [
    "points behind the end are lost",
    `${HEAD}${GOOD}\n999\n${same("B")}\n${same("B")}\n`,
    ["A 1 2"],
    ["parse-error error 5"],
  ],
  ["what follows the end and is no point is nothing", `${HEAD}${GOOD}\n999\n\u001a\n`, ["A 1 2"], []],
  ["a file cut off says so at its end", `${HEAD}${GOOD}\n`, ["A 1 2"], ["missing-end warning 4"]],
  ["a file without a point says that, not that it was cut off", HEAD, [], ["empty-file warning 3"]],
  [
    "what is no record is passed over",
    `${HEAD}${GOOD}\nnonsense here\n ${same("B")}\n999\n`,
    ["A 1 2"],
    ["parse-error warning 4", "parse-error warning 5"],
  ],
  [
    "records that hold nothing to test are passed over without a word",
    `${HEAD}${GOOD}\n378A   \n099\n389\n# by hand\n\n999\n`,
    ["A 1 2"],
    [],
  ],
  [
    "a record that continues another is said",
    `${HEAD}${GOOD}\n027${" ".repeat(40)}X0\n999\n`,
    ["A 1 2"],
    ["parse-error warning 4"],
  ],
  [
    "no unit: tenths of a mil, said once",
    `C\n${GOOD}\n${GOOD}\n999\n`,
    ["A 2.54 5.08", "A 2.54 5.08"],
    ["missing-unit warning 2"],
  ],
  [
    "a unit nobody knows, then",
    `P  UNITS CUST 3\n${GOOD}\n999\n`,
    ["A 2.54 5.08"],
    ["unknown-unit warning 1", "missing-unit warning 2"],
  ],
  [
    "a second unit counts from where it stands",
    `${HEAD}${GOOD}\nP  UNITS CUST 1\nP  UNITS CUST 0\n${GOOD}\n999\n`,
    ["A 1 2", "A 2.54 5.08"],
    ["defined-twice warning 5"],
  ],
  [
    "parameters in small letters",
    `p  units cust 1\np  nname1 a/long/name\n${same("NNAME1")}\n999\n`,
    ["a/long/name 1 2"],
    [],
  ],
  [
    "other parameters are nothing of ours",
    `${HEAD}P  JOB   lamp\nP  VER   IPC-D-356A\nP  NNAME9\n${GOOD}\n999\n`,
    ["A 1 2"],
    [],
  ],
  [
    "a long name twice the same",
    `${HEAD}P  NNAME1 long\nP  NNAME1 long\n${same("NNAME1")}\n999\n`,
    ["long 1 2"],
    [],
  ],
  [
    "a long name twice otherwise",
    `${HEAD}P  NNAME1 long\n${same("NNAME1")}\nP  NNAME1 other\n${same("NNAME1")}\n999\n`,
    ["long 1 2", "other 1 2"],
    ["defined-twice warning 5"],
  ],
  ["nothing connected, in small letters", `${HEAD}${same("n/c")}\n999\n`, ["N/C 1 2"], []],
])("%s", (_, text, read, said) => {
  const r = readNetlist(text, "a.ipc");
  expect(r.points.map((p) => `${p.net} ${Number(p.x.toFixed(6))} ${Number(p.y.toFixed(6))}`)).toEqual(read);
  expect(r.findings.map((f) => [f.tag, f.level, f.line].filter(Boolean).join(" "))).toEqual(said);
  expect(r.findings.every((f) => f.file === "a.ipc")).toBe(true);
});

test("what can be done is told where something can, and nothing where nothing can", () => {
  const said = (text: string) => readNetlist(text, "a.ipc").findings.map((f) => f.do);
  expect(said(`${HEAD}${GOOD}\n`)).toEqual(["Export it again."]);
  const [odd] = readNetlist(`${HEAD}${GOOD}\nhello\n999\n`, "a.ipc").findings;
  expect(odd!.text).toContain("is no record of a netlist");
  expect(odd).not.toHaveProperty("do");
});
