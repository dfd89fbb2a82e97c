import { expect, test } from "@jest/globals";
import { FAR, madeMeasure } from "../run/made-up.fixture.ts";
import { houseShape } from "../shape/house.ts";
import { checkHouse, notJudged } from "./check.ts";
import { LIMITS, MEASURE_GROUPS, MEASURES, measureSpec } from "./measures.ts";

const OPTIONS = { thickness: "1.6", copper: "35", finish: "", mask: "", legend: "", leadDays: 0 };

test("each measure stands once, in a group that is shown; each limit is some measure's, or the sides of a board", () => {
  expect(new Set(MEASURES.map((m) => m.key)).size).toBe(MEASURES.length);
  const groups = MEASURE_GROUPS.map(([key]) => key);
  for (const m of MEASURES) expect(groups).toContain(m.group);
  const limited = new Set(MEASURES.flatMap((m) => m.limit ?? []));
  const free = Object.entries(LIMITS).flatMap(([key, l]) =>
    limited.has(key as "minSlotMm") ? [] : [l.kind],
  );
  expect(free).toEqual(["sides", "sides"]);
  expect(() => measureSpec("minNothingMm")).toThrow("minNothingMm");
});

test.each([
  [
    "a slot of 0.7 where 0.8 is made",
    { slots: [{ widthMm: 0.7, lengthMm: 3, plated: false }] },
    "slots",
    0.7,
    0.8,
    "cannot",
  ],
  [
    "the narrower of a slot and a routed path",
    { slots: [{ widthMm: 1.2 }], routedPaths: [{ widthMm: 0.9 }] },
    "slots",
    0.9,
    0.8,
    "fine",
  ],
  [
    "1.6 mm through 0.15: 10.67 to 1, where 8 is made",
    { holes: [{ diameterMm: 0.15, plated: true, count: 1 }] },
    "aspect",
    10.67,
    8,
    "cannot",
  ],
  [
    "1.6 mm through 0.2: just 8 to 1",
    { holes: [{ diameterMm: 0.2, plated: true, count: 1 }] },
    "aspect",
    8,
    8,
    "fine",
  ],
  [
    "an unplated hole has no ratio",
    { holes: [{ diameterMm: 0.15, plated: false, count: 1 }] },
    "aspect",
    undefined,
    undefined,
    undefined,
  ],
  ["a track just at the limit", { minTrackMm: 0.127 }, "minTrackMm", 0.127, 0.127, "tight"],
  ["a track with 5 % to spare", { minTrackMm: 0.1334 }, "minTrackMm", 0.1334, 0.127, "fine"],
  ["a soft limit wants a look", { minMaskWebMm: 0.05 }, "minMaskWebMm", 0.05, 0.1, "look"],
  ["a neck in a fill counts by the track", { minNeckMm: 0.1 }, "minNeckMm", 0.1, 0.127, "look"],
])("%s", (_, more, key, value, limit, level) => {
  const check = checkHouse(FAR, madeMeasure(more as object), OPTIONS).find((c) => c.measure === key);
  expect([check?.value, check?.limit, check?.level]).toEqual([value, limit, level]);
});

test("a limit that is not stated judges nothing, and what would stop the house is named; a wrong one is refused", () => {
  const { id: _, ...profile } = FAR;
  expect(houseShape(profile, "house")).toBeUndefined();
  const without = (...keys: string[]) => ({
    ...FAR,
    limits: Object.fromEntries(Object.entries(FAR.limits).filter(([k]) => !keys.includes(k))),
  });
  const thin = madeMeasure({ minTrackMm: 0.01, minMaskWebMm: 0.01 } as object);
  const open = without("minTrackMm", "minMaskWebMm", "maxBoardMm", "minBoardMm");
  expect(houseShape(open, "house")).toBeUndefined();
  const judged = (h: typeof FAR) => checkHouse(h, thin, OPTIONS).map((c) => c.measure);
  expect(judged(FAR)).toEqual(expect.arrayContaining(["minTrackMm", "minMaskWebMm"]));
  expect(judged(open)).not.toEqual(expect.arrayContaining(["minTrackMm"]));
  // a web that is too narrow is mended by houses: only the track would stop it
  expect(notJudged(open, thin, OPTIONS).map((s) => s.key)).toEqual(["minTrackMm"]);
  expect(notJudged(FAR, thin, OPTIONS)).toEqual([]);
  expect(houseShape({ ...profile, limits: { ...profile.limits, minTrackMm: "wide" } }, "house")).toContain(
    "house.limits.minTrackMm should be a number",
  );
});
