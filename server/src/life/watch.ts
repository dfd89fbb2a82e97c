import type { ProgramImage, TestItem } from "@kobbin/core";

/** Readings of a size that lies where it should, one after another: steady, and of no board twice the same. */
export const around = (middle: number, spread: number, unit: number, places: number): string =>
  (middle + spread * Math.sin(unit * 2.399)).toFixed(places);

const RAIL: TestItem = {
  id: "rail",
  name: "3.3 V rail",
  state: "powered",
  drives: ["J1.1"],
  reads: ["J4.1"],
  through: ["F1", "D1", "L1", "U4"],
  expect: "",
  minutes: 0.5,
  unit: "V",
  min: "3.2",
  max: "3.4",
};
const REST: TestItem = {
  ...RAIL,
  id: "rest",
  name: "current at rest",
  reads: ["J1.1"],
  through: ["F1"],
  unit: "mA",
  min: "8",
  max: "25",
};
const ICE: TestItem = {
  ...RAIL,
  id: "ice",
  name: "reads ice water",
  state: "programmed",
  drives: ["J3.1", "J3.2", "J3.3", "J3.4"],
  reads: ["U1.28"],
  through: ["U1", "U2", "U3"],
  minutes: 2,
  unit: "°C",
  min: "-1.5",
  max: "1.5",
};
export const WATCH_TESTS: readonly TestItem[] = [RAIL, REST, ICE];
/** What is read back at three voltages of a calibrator: gain and offset of each board. */
const POINTS = ["10", "25", "40"] as const;
export const PROBE_POINTS: readonly TestItem[] = POINTS.map((applied) => ({
  ...ICE,
  id: `probe${applied}`,
  name: `probe input at ${applied} mV`,
  expect: "the calibrator in the probe’s place",
  minutes: 0.5,
  unit: "mV",
  min: String(Number(applied) - 2),
  max: String(Number(applied) + 2),
  point: { of: "probe input", applied, unit: "mV", worst: "0.05", most: "50", days: 365 },
}));
/** What a board reads at each of them: its own gain and offset, and a little beside the line. */
export const pointsOf = (unit: number): readonly (readonly [string, string])[] =>
  PROBE_POINTS.map((t, i) => {
    const applied = Number(t.point!.applied);
    const gain = 0.985 + 0.002 * unit;
    return [t.id, around(gain * applied + 0.1 + 0.02 * unit, 0.03, unit + 2 * i * i, 2)];
  });
/** Two of a batch are read again after a week in the cold. */
export const AFTER_A_WEEK: TestItem = {
  ...ICE,
  id: "week",
  name: "reads ice water after a week",
  besides: { days: 7, where: "left in the cold store", boards: 2 },
};
/** What is seen once, before the first is sold. */
export const AT_ANOTHERS: TestItem = {
  id: "elsewhere",
  name: "runs a whole firing at another studio",
  state: "housed",
  drives: [],
  reads: [],
  through: [],
  expect: "no dash on the display from lighting to cooling",
  minutes: 5,
  besides: { where: "at a studio with another kiln", boards: 1 },
};
export const FIRMWARE: ProgramImage = {
  id: "watch",
  at: "U1",
  name: "Kiln Watch",
  version: "1.4",
  file: "kiln-watch-1.4.bin",
  from: "folder “released” of the shop’s own disk",
  tool: "Pod one",
  wires: [],
  settings: "",
  command: "",
  expect: "verified",
  fits: [{ versions: "1.0 - 1.9", revision: "B", is: "yes", why: "" }],
  values: [{ name: "number of the probe", isWiped: false }],
};
