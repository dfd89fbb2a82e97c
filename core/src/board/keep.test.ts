import { expect, test } from "@jest/globals";
import { measureToKeep } from "./keep.ts";
import type { Measure } from "./measure-document.ts";

const many = (n: number) => Array.from({ length: n }, (_, i) => ({ i, filler: "x".repeat(90) }));
const measure = (more: object): Measure =>
  ({ minTrackMm: 0.2, holes: [], slots: [], routedPaths: [], findings: [], ...more }) as unknown as Measure;
const told = (m: Measure) => m.findings.at(-1)!.text;

test("what is short enough is kept as it is", () => {
  const m = measure({ slots: many(3) });
  expect(measureToKeep(m)).toBe(m);
});

test("the least missed lists go first, no more of them than must, and only those that hold something are told", () => {
  const m = measure({ routedPaths: many(100), slots: many(100) });
  const one = measureToKeep(m, 15_000);
  expect([one.routedPaths.length, one.slots.length]).toEqual([0, 100]);
  expect(told(one)).toContain("kept beside its files: routed paths are not in the kept figures.");
  const both = measureToKeep(m, 5000);
  expect(both).toMatchObject({ routedPaths: [], slots: [], minTrackMm: 0.2 });
  expect(told(both)).toContain("routed paths, slots are not in");
});

test("findings are kept up to 500, and sizes of holes last of all", () => {
  const kept = measureToKeep(measure({ findings: many(700), holes: many(600) }), 20_000);
  expect([kept.findings.length, kept.holes.length]).toEqual([501, 500]);
  expect(told(kept)).toContain("findings beyond the first 500, sizes of holes are not in");
});
