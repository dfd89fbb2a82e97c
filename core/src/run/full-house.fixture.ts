import type { House } from "../fab/house.ts";
import { FAR } from "./made-up.fixture.ts";

/** A made-up house with a list for every decision, values that depend on others, steps of price and a stack of its own. */
export const FULL: House = {
  ...FAR,
  id: "full",
  name: "FULL",
  options: {
    thickness: [
      { value: "1.6", label: "1.6 mm" },
      { value: "0.8", label: "0.8 mm", uplift: 0.05 },
      { value: "3.2", label: "3.2 mm", uplift: 0.45 },
    ],
    copper: [
      { value: "35", label: "35 µm" },
      { value: "70", label: "70 µm", uplift: 0.7, limits: { minTrackMm: 0.25, minNetSpaceMm: 0.2 } },
    ],
    finish: [
      { value: "levelled", label: "levelled solder" },
      { value: "gold", label: "immersion gold", perDm2: "1.50" },
    ],
    mask: [
      { value: "green", label: "green" },
      { value: "white", label: "white", setup: "4", days: 1, limits: { minMaskWebMm: 0.13 } },
    ],
    legend: [
      { value: "white", label: "white" },
      { value: "black", label: "black" },
    ],
    material: [
      { value: "standard", label: "standard" },
      { value: "aluminium", label: "aluminium core", uplift: 0.5 },
    ],
    contacts: [
      { value: "none", label: "none" },
      {
        value: "hard-gold",
        label: "hard gold",
        setup: "30",
        perDm2: "4.00",
        days: 2,
        when: [{ key: "finish", in: ["gold"] }],
      },
    ],
    bevel: [
      { value: "none", label: "none" },
      { value: "20", label: "20°", setup: "12" },
      { value: "45", label: "45°", setup: "12" },
    ],
    castellation: [
      { value: "none", label: "none" },
      { value: "cut", label: "cut", setup: "18", perDm2: "1.00", when: [{ key: "finish", in: ["gold"] }] },
    ],
    via: [
      { value: "tented", label: "tented" },
      { value: "capped", label: "filled and capped", uplift: 0.6 },
    ],
    test: [
      { value: "probe", label: "every net" },
      { value: "none", label: "none" },
    ],
  },
  stacks: [{ layers: [4], limits: { minTrackMm: 0.1, minHoleMm: 0.2 } }],
  bands: [
    { limits: ["minTrackMm", "minNetSpaceMm"], below: 0.15, uplift: 0.25 },
    { limits: ["minTrackMm", "minNetSpaceMm"], below: 0.13, uplift: 0.6, setup: "5" },
    { limits: ["minHoleMm"], below: 0.3, uplift: 0.15 },
  ],
  price: {
    ...FAR.price,
    lead: [
      { days: 12, factor: 1 },
      { days: 3, factor: 1.6, when: [{ key: "mask", in: ["green"] }] },
    ],
    services: [
      {
        value: "express",
        label: "express",
        base: "34",
        perHalfKg: "9.00",
        transitDays: 3,
        delaySigmaDays: 1,
      },
    ],
  },
};
