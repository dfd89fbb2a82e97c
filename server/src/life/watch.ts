import type { ProgramImage, TestItem } from "@kobbin/core";

/** Readings of a size that lies where it should, one after another: steady, and of no board twice the same. */
export const around = (middle: number, spread: number, unit: number, places: number): string =>
  (middle + spread * Math.sin(unit * 2.399)).toFixed(places);

const RAIL: TestItem = {
  id: "rail",
  name: "3.3 V rail",
  state: "powered",
  drives: ["VIN"],
  reads: ["V33"],
  through: [],
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
  reads: ["VIN"],
  unit: "mA",
  min: "8",
  max: "25",
};
const ICE: TestItem = {
  ...RAIL,
  id: "ice",
  name: "reads ice water",
  state: "programmed",
  reads: [],
  through: ["U2"],
  minutes: 2,
  unit: "°C",
  min: "-1.5",
  max: "1.5",
};
export const WATCH_TESTS = [RAIL, REST, ICE];
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
