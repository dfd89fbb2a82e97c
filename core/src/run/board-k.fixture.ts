import type { House } from "../fab/house.ts";
import { DEFAULT_ASSEMBLY, type RunDocument, type RunLine } from "./document/document.ts";
import { FAR, madeLine, madeMeasure } from "./made-up.fixture.ts";

/** A near house with wider limits. */
export const NEAR: House = {
  ...FAR,
  id: "near",
  name: "NEAR",
  limits: { ...FAR.limits, minTrackMm: 0.25 },
  price: { ...FAR.price, importHandling: "0", transitDays: 1 },
};

const refs = (letter: string, n: number, from = 1) =>
  Array.from({ length: n }, (_, i) => `${letter}${from + i}`);
const line = (id: string, list: string[], pkg: string, mount: RunLine["mount"] = "machine") =>
  madeLine(id, list, { valueText: id, package: pkg, mpn: id, mount });
const offer = (id: string, breaks: readonly (readonly [number, string])[]) => ({
  id: `o-${id}`,
  line: id,
  supplier: "S",
  stock: 1e6,
  moq: 1,
  multiple: 1,
  currency: "EUR",
  breaks: breaks.map(([qty, price]) => ({ qty, price })),
  source: "feed" as const,
  capturedOn: "2026-11-01",
});

/** Board K, 30 good: the whole worked example of costing. */
export const boardK = (more: Partial<RunDocument> = {}): RunDocument => ({
  kobbin: "run/1",
  name: "K",
  product: "Board K",
  revision: "A",
  today: "2026-11-10",
  workshop: { name: "W", currency: "EUR", hourlyRate: "24.00", taxRate: 0, rates: {}, hoursPerDay: 5 },
  goodBoards: 30,
  confidence: 0.9,
  boards: [{ name: "Board K", perProduct: 1, measure: madeMeasure() }],
  lines: [
    line("r10k", refs("R", 8), "0603"),
    line("r330", refs("R", 4, 20), "0603"),
    line("c100n", refs("C", 8), "0603"),
    line("c10u", refs("C", 4, 20), "0603"),
    line("led", ["D1"], "0603"),
    line("diode", ["D2"], "SOD-123"),
    line("mcu", ["U1"], "QFP-32"),
    line("reg", ["VR1"], "SOT-223"),
    line("con4", ["J1"], "HDR-1x4", "hand"),
    line("con6", ["J2"], "HDR-1x6", "hand"),
  ],
  placements: [],
  suppliers: [
    { id: "S", name: "S", currency: "EUR", shipping: "8.00", freeFrom: "50.00", daysMin: 2, daysMax: 4 },
  ],
  offers: [
    offer("r10k", [
      [1, "0.02"],
      [100, "0.008"],
      [500, "0.005"],
    ]),
    offer("r330", [
      [1, "0.02"],
      [100, "0.008"],
      [500, "0.005"],
    ]),
    offer("c100n", [
      [1, "0.03"],
      [100, "0.012"],
      [500, "0.008"],
    ]),
    offer("c10u", [
      [1, "0.10"],
      [100, "0.055"],
      [500, "0.040"],
    ]),
    offer("led", [
      [1, "0.12"],
      [50, "0.07"],
      [100, "0.05"],
    ]),
    offer("diode", [
      [1, "0.15"],
      [50, "0.08"],
    ]),
    offer("mcu", [
      [1, "2.60"],
      [25, "2.20"],
      [100, "1.90"],
    ]),
    offer("reg", [
      [1, "0.45"],
      [25, "0.38"],
      [100, "0.29"],
    ]),
    offer("con4", [
      [1, "0.40"],
      [50, "0.30"],
    ]),
    offer("con6", [
      [1, "0.55"],
      [50, "0.42"],
    ]),
  ],
  house: FAR,
  houses: [FAR, NEAR],
  quotes: [],
  options: { finish: "immersion-gold" },
  assembly: { ...DEFAULT_ASSEMBLY, stencilPrice: "0" },
  choices: {},
  ...more,
});
