import { expect, test } from "@jest/globals";
import type { Measure } from "../../board/measure-document.ts";
import { madeMeasure } from "../made-up.fixture.ts";
import { boardFacts } from "./board-facts.ts";

test("how much of a board is copper: the mean of its layers, and a usual share where it was not measured", () => {
  const measure = madeMeasure({ copperAreaMm2: { top: 1000, bottom: 500 } });
  const { widthMm, heightMm } = boardFacts(measure);
  const share = (m: Measure) => boardFacts(m).copperShare;
  expect(share(measure)).toBeCloseTo(750 / (widthMm * heightMm), 12);
  expect(share({ ...measure, copperAreaMm2: {} })).toBe(0.6);
  // a slot is a hole to whoever drills; a board without copper is priced as one of a layer
  const slot = { widthMm: 1, lengthMm: 3, plated: true, from: [0, 0], to: [2, 0] } as const;
  expect(boardFacts({ ...measure, holes: [], slots: [slot] }).holes).toBe(1);
  expect(boardFacts({ ...measure, copperLayers: 0 }).layers).toBe(1);
});
