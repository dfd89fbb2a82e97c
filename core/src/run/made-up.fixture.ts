import type { Measure } from "../board/measure-document.ts";
import type { House } from "../fab/house.ts";
import {
  DEFAULT_ASSEMBLY,
  type RunDocument,
  type RunLine,
  type RunOffer,
  type TestItem,
} from "./document/document.ts";

/** Made-up pieces of run documents for tests: each valid as it stands, and changed where a test is about something. */

/** A measured board of 50 × 40 mm. */
export const madeMeasure = (more: Partial<Measure> = {}): Measure => ({
  kobbin: "measure/1",
  outcome: "accept",
  layers: [],
  layerOrder: ["top", "bottom"],
  outline: { widthMm: 50, heightMm: 40, areaMm2: 2000, perimeterMm: 180, cutouts: 0, closed: true },
  copperLayers: 2,
  minTrackMm: 0.2,
  minNetSpaceMm: 0.2,
  minHoleMm: 0.3,
  minAnnularMm: 0.15,
  holes: [{ diameterMm: 0.3, plated: true, count: 180 }],
  slots: [],
  routedPaths: [],
  copperFlashes: {},
  copperAreaMm2: { top: 1200, bottom: 1200 },
  copperIslands: {},
  smdPads: {},
  throughHolePads: 0,
  viaPads: 0,
  maskOpenings: {},
  paste: { top: { count: 90, areaMm2: 80 } },
  findings: [],
  ...more,
});

/** A far and cheap house; the worked example of domain.md 5.5. */
export const FAR: House = {
  id: "far",
  name: "FAR",
  about: "",
  currency: "EUR",
  checkedOn: "2026-01-01",
  limits: {
    minTrackMm: 0.127,
    minNetSpaceMm: 0.127,
    minHoleMm: 0.3,
    minAnnularMm: 0.13,
    minCopperToEdgeMm: 0.3,
    minMaskWebMm: 0.1,
    minLegendLineMm: 0.15,
    minSlotMm: 0.8,
    maxAspect: 8,
    minBoardMm: [10, 10],
    maxBoardMm: [400, 500],
  },
  layers: [1, 2, 4],
  options: {
    thickness: [
      { value: "1.6", label: "1.6 mm" },
      { value: "1.0", label: "1.0 mm", uplift: 0.05 },
    ],
    copper: [{ value: "35", label: "35" }],
    finish: [
      { value: "immersion-gold", label: "gold", setup: "9", perDm2: "1.50" },
      { value: "levelled-lead-free", label: "levelled" },
    ],
    mask: [
      { value: "green", label: "green" },
      { value: "white", label: "white", setup: "4", days: 1 },
    ],
    legend: [
      { value: "white", label: "white" },
      { value: "black", label: "black" },
    ],
  },
  price: {
    setup: { "2": "14" },
    perDm2: { "2": "2.40" },
    minDm2: 5,
    tiers: [
      { fromDm2: 0, factor: 1 },
      { fromDm2: 10, factor: 0.82 },
    ],
    testSetup: "6",
    testPerPiece: "0.02",
    freeHolesPerDm2: 1200,
    per1000Holes: "0.90",
    lead: [
      { days: 12, factor: 1 },
      { days: 3, factor: 1.6 },
    ],
    freightBase: "16",
    freightPerHalfKg: "5.50",
    transitDays: 8,
    delaySigmaDays: 4,
    step: 5,
    minPieces: 5,
    importHandling: "6.00",
  },
  assembly: {
    setupPerSide: "45",
    stencilPerSide: "25",
    perUniquePart: "1.80",
    perJoint: "0.009",
    perHandJoint: "0.09",
    minCharge: "90",
    days: 10,
  },
};

/** A line of the bill, 10k in 0603 as a rule. */
export const madeLine = (id: string, refs: readonly string[], more: Partial<RunLine> = {}): RunLine => ({
  id,
  refs,
  qty: refs.length,
  valueText: "10k",
  package: "0603",
  mpn: "OX-10K",
  maker: "",
  description: "",
  dnp: false,
  mount: "machine",
  ...more,
});

/** An offer of a hundred pieces from supplier "a". */
/** An item of a test plan that is answered by yes or no. */
export const madeTest = (id: string, more: Partial<TestItem> = {}): TestItem => ({
  id,
  name: id,
  state: "powered",
  drives: [],
  reads: [],
  through: [],
  expect: "",
  minutes: 0.5,
  ...more,
});

export const madeOffer = (
  id: string,
  line: string,
  price: string,
  more: Partial<RunOffer> = {},
): RunOffer => ({
  id,
  line,
  supplier: "a",
  stock: 100,
  moq: 1,
  multiple: 1,
  currency: "EUR",
  breaks: [{ qty: 1, price }],
  source: "feed",
  capturedOn: "2026-11-24",
  ...more,
});

/** A run of ten good boards without boards, lines or offers of its own, and two suppliers, "a" and "b". */
export const madeRun = (more: Partial<RunDocument>): RunDocument => ({
  kobbin: "run/1",
  name: "r",
  product: "p",
  revision: "A",
  today: "2026-11-24",
  workshop: { name: "w", currency: "EUR", hourlyRate: "0", taxRate: 0, rates: {}, hoursPerDay: 5 },
  goodBoards: 10,
  confidence: 0.9,
  boards: [],
  lines: [],
  placements: [],
  suppliers: [
    { id: "a", name: "A", currency: "EUR", shipping: "5", daysMin: 1, daysMax: 2 },
    { id: "b", name: "B", currency: "EUR", shipping: "5", daysMin: 1, daysMax: 2 },
  ],
  offers: [],
  quotes: [],
  options: {},
  assembly: DEFAULT_ASSEMBLY,
  choices: {},
  ...more,
});

/** A part of the library that may stand in for ten kiloohms. */
export const STAND_IN = {
  id: "alt",
  mpn: "QL-10K",
  maker: "Quill",
  description: "",
  kind: "resistor" as const,
  package: "0603",
  params: { value: "10k" },
  direction: "",
  moisture: "",
  state: "active" as const,
  sheet: "",
  measured: "",
  tried: "",
};
