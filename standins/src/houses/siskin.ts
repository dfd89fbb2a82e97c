import type { House } from "@kobbin/contract";
import { colour } from "./values.ts";

export const SISKIN: Omit<House, "id"> = {
  name: "Siskin Foils",
  about: "cuts foils, and nothing else",
  currency: "EUR",
  checkedOn: "2026-11-09",
  limits: {},
  layers: [],
  options: {
    thickness: [{ value: "1.6", label: "1.6 mm" }],
    copper: [{ value: "35", label: "35 µm" }],
    finish: [{ value: "levelled-lead-free", label: "levelled solder, lead-free" }],
    mask: [colour("green")],
    legend: [colour("white")],
  },
  price: {
    setup: {},
    perDm2: {},
    minDm2: 0,
    tiers: [{ fromDm2: 0, factor: 1 }],
    testSetup: "0",
    testPerPiece: "0",
    freeHolesPerDm2: 0,
    per1000Holes: "0",
    lead: [{ days: 2, factor: 1 }],
    freightBase: "6",
    freightPerHalfKg: "0",
    transitDays: 1,
    delaySigmaDays: 1,
    step: 1,
    minPieces: 1,
    importHandling: "0",
  },
  foils: {
    loose: "14.00",
    framed: "38.00",
    secondSide: "6.00",
    freight: "6.00",
    days: 3,
    largestMm: [380, 280],
  },
};
