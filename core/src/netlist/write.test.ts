import { expect, test } from "@jest/globals";
import { readNetlist, type TestPoint } from "./read.ts";
import { writeNetlist } from "./write.ts";

const mm = (v: number) => Math.round(v * 1000) / 1000;
const point = (more: Partial<TestPoint>): TestPoint => ({
  net: "GND",
  ref: "U1",
  pin: "12",
  x: 25.4,
  y: -1.27,
  side: "top",
  line: 1,
  ...more,
});

test("records keep to their columns, in thousandths of a millimetre", () => {
  const text = writeNetlist(
    "BOARDK",
    [
      point({ net: "VCC_3V3" }),
      point({ ref: "VIA", pin: "", x: 12.7, y: 5.08, side: "both", holeMm: 0.3, plated: true }),
      point({ net: "N/C", ref: "", pin: "", x: 3, y: 3, side: "both", holeMm: 3.2, plated: false }),
      point({ side: "bottom" }),
    ],
    4,
  )!;
  expect(text.split("\n")).toEqual([
    "P  JOB   BOARDK",
    "P  UNITS CUST 1",
    "327VCC_3V3          U1    -12         A01X+025400Y-001270",
    "317GND              VIA         D0300PA00X+012700Y+005080",
    "367N/C                          D3200UA00X+003000Y+003000",
    "327GND              U1    -12         A04X+025400Y-001270",
    "999",
    "",
  ]);
});

test("what is written is read as it was, long names by their alias", () => {
  const points = [
    point({ net: "A_NET_WITH_A_LONG_NAME_3" }),
    point({ net: "A_NET_WITH_A_LONG_NAME_4", x: -999.999, y: 999.999, side: "bottom" }),
    point({ ref: "J1", pin: "2", side: "both", holeMm: 1, plated: true }),
  ];
  const back = readNetlist(writeNetlist("B", points, 2)!, "a.ipc");
  expect(back.findings).toEqual([]);
  expect(back.points.map((p) => [p.net, p.ref, p.pin, mm(p.x), mm(p.y), p.side, p.holeMm])).toEqual(
    points.map((p) => [p.net, p.ref, p.pin, p.x, p.y, p.side, p.holeMm]),
  );
  expect(writeNetlist("B", [point({ x: 1000 })], 2)).toBeUndefined();
});
