import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import { often } from "../../test/long.ts";
import { emptyMeasure } from "../board/measure/measure-keys.ts";
import type { Measure } from "../board/measure-document.ts";
import { tolerancesOf, USUAL_TOLERANCES } from "../fab/tolerances.ts";
import { holesOf, pinHolesOf, slotsOf } from "./features.ts";
import type { FitSpec } from "./row.ts";
import { judgeRow, type Made } from "./sheet.ts";
import { judgeTabWidth, widestTab } from "./tab-width.ts";

/** 50 × 40 mm about an origin, with four holes and a slot; what the numbers of domain.md 5.8 are asked of. */
function board({ dx = 0, slot = 1.7, slotLength = 10, hole = 3.2, width = 50 } = {}): Measure {
  const at = (x: number, y: number) => ({ layer: "drill", x: x + dx, y });
  return {
    ...emptyMeasure([]),
    findings: [],
    extentMm: [dx, 0, dx + width, 40],
    outline: { widthMm: width, heightMm: 40, areaMm2: 2000, perimeterMm: 180, cutouts: 0, closed: true },
    slots: [{ widthMm: slot, lengthMm: slotLength, plated: false, from: [dx + 20, 20], to: [dx + 28.3, 20] }],
    drillTable: [
      { file: "a", diameterMm: 0.3, plated: true, holes: 1, slots: 0, at: [at(9, 9)] },
      {
        file: "a",
        diameterMm: hole,
        plated: false,
        holes: 4,
        slots: 0,
        at: [at(4, 4), at(46, 4), at(46, 36), at(4, 36)],
      },
      { file: "a", diameterMm: slot, plated: false, holes: 0, slots: 1, at: [at(20, 20)] },
    ],
  } as Measure;
}
const judge = (spec: FitSpec, made: Partial<Made> = {}, playMm?: number) =>
  judgeRow(
    { id: "r", label: "It", spec, ...(playMm === undefined ? {} : { playMm }) },
    { measure: board(), thicknessMm: 1.6, thicknesses: [1, 1.2, 1.6], ...made },
  );
const SLOT: FitSpec = { kind: "slot", at: [24.15, 20], tabMm: 1.6, tabTolMm: 0.16 };
const POSTS = [
  [0, 0],
  [42, 0],
  [42, 32],
  [0, 32],
].map(([x, y]) => ({ x: x! + 100, y: y! - 7, diameterMm: 3 }));
const PATTERN: FitSpec = {
  kind: "pattern",
  holes: [
    [4, 4],
    [46, 4],
    [46, 36],
    [4, 36],
  ],
  posts: POSTS,
  postTolMm: 0.1,
};

test("what is picked: holes from 1.5 mm on and slots, each with its middle", () => {
  expect(holesOf(board()).map((h) => [h.x, h.y, h.diameterMm])).toEqual([
    [4, 4, 3.2],
    [46, 4, 3.2],
    [46, 36, 3.2],
    [4, 36, 3.2],
  ]);
  expect(slotsOf(board())).toMatchObject([{ x: 24.15, y: 20, widthMm: 1.7, lengthMm: 10 }]);
});

test("pins go into plated holes from 0.5 to 2.5 mm, each with how many its tool drills", () => {
  const tool = (diameterMm: number, plated: boolean, slots = 0) => ({
    file: "a",
    diameterMm,
    plated,
    holes: 7,
    slots,
    at: [{ layer: "drill", x: diameterMm, y: 1 }],
  });
  const drillTable = [
    tool(0.45, true),
    tool(0.5, true),
    tool(1, false),
    tool(1.1, true, 1),
    tool(2.5, true),
    tool(2.6, true),
  ];
  const found = pinHolesOf({ ...board(), drillTable } as Measure);
  expect(found.map((h) => [h.diameterMm, h.count])).toEqual([
    [0.5, 7],
    [2.5, 7],
  ]);
});

test("a tab of 1.6 ± 0.16 in a slot of 1.70 ± 0.13, and the size that always takes it (EX 5.6)", () => {
  const r = judge(SLOT, { tolerances: { slotMm: 0.13 } });
  expect(r).toMatchObject({
    verdict: "may-not-fit",
    board: "slot 1.7 × 10 mm ± 0.13",
    mend: "a slot of 1.9 mm instead of 1.7",
    at: { x: 24.15, y: 20 },
    result: { nominalMm: 0.1, worstMm: [-0.19, 0.39], missingMm: 0.19 },
  });
  expect(judge(SLOT, { tolerances: { slotMm: 0.13 }, measure: board({ slot: 1.9 }) })).toMatchObject({
    verdict: "fits",
    result: { worstMm: [0.01, 0.59] },
  });
  // readings in place of the tab: their mean, and the doubt between two thicknesses that are sold
  const read = judge({ kind: "slot", at: [24.15, 20], tabReadingsMm: [1.19, 1.21, 1.2], tabTolMm: 0.05 });
  expect(read.result).toMatchObject({ nominalMm: 0.5, standardMm: 1.2, spreadMm: 0.02 });
});

test("an edge in a socket of 1.37 to 1.77, and the nearest thickness that is sold where it does not go (5.8)", () => {
  const socket: FitSpec = { kind: "edge", allowsMm: [1.37, 1.77] };
  expect(judge(socket)).toMatchObject({ verdict: "fits", board: "board 1.6 mm thick ± 0.16" });
  expect(judge(socket, { thicknessMm: 1.2 })).toMatchObject({
    verdict: "does-not-fit",
    mend: "thickness 1.6 mm instead of 1.2",
  });
  expect(judge(socket, { thicknessMm: 1.2, thicknesses: [1, 1.2] })).not.toHaveProperty("mend");
  const { thicknessMm: _, ...unknown } = { thicknessMm: 1.6, measure: board() };
  expect(judgeRow({ id: "r", label: "It", spec: socket }, unknown)).toMatchObject({
    verdict: "unknown",
    because: expect.stringContaining("No house is chosen"),
  });
});

test("two boards and a spacer of 11 ± 0.1 in a gap of 15 ± 0.2 (EX 5.9)", () => {
  const stack: FitSpec = {
    kind: "stack",
    boards: 2,
    spacers: [{ mm: 11, tolMm: 0.1 }],
    gapMm: 15,
    gapTolMm: 0.2,
  };
  expect(judge(stack)).toMatchObject({
    verdict: "fits",
    result: { nominalMm: 0.8, worstMm: [0.18, 1.42] },
  });
});

test("four holes of 3.2 on posts of 3.0, all ± 0.1: 3.67 always goes, so 3.7 (EX 5.10)", () => {
  const r = judge(PATTERN, { tolerances: { holeMm: 0.1, placeMm: 0.1 } });
  expect(r).toMatchObject({
    verdict: "may-not-fit",
    board: "4 holes of 3.2 mm ± 0.1",
    mend: "holes of 3.7 mm instead of 3.2",
  });
  expect(r.result!.safeNominalMm).toBeCloseTo(3.6657, 3);
  expect(judge(PATTERN, { measure: board({ hole: 3.7 }), tolerances: { holeMm: 0.1 } }).verdict).toBe("fits");
});

test.each([
  // the diagonal of 0.64 is 0.9051: in 1.0 as drawn 0.0949, which is snug, and at worst 0.0949 − 0.1 − 0.0283
  ["square", 0.64, 0.02, "snug", "may-not-fit", 0.0949, -0.0334],
  ["round", 0.8, 0.02, "normal", "fits", 0.2, 0.08],
  ["round", 0.6, 0.02, "loose", "fits", 0.4, 0.28],
  ["round", 1.2, 0.02, "too thick", "does-not-fit", -0.2, -0.32],
] as const)(
  "a %s pin of %s ± %s in a plated hole of 1.0 ± 0.1 is %s",
  (shape, pinMm, pinTolMm, sits, verdict, room, worst) => {
    const m = board();
    const at = { layer: "drill", x: 30, y: 8 };
    const row = { file: "a", diameterMm: 1, plated: true, holes: 20, slots: 0, at: [at] };
    const measure = { ...m, drillTable: [...m.drillTable!, row] } as Measure;
    const r = judge({ kind: "pin", at: [30, 8], pinMm, pinTolMm, shape }, { measure });
    expect(r.board).toMatch(new RegExp(`^20 holes of 1 mm ± 0.1, ${sits} for`));
    expect(r.verdict).toBe(verdict);
    expect(r.result!.nominalMm).toBeCloseTo(room, 4);
    expect(r.result!.worstMm[0]).toBeCloseTo(worst, 4);
  },
);

describe("edge contacts in a socket", () => {
  // fingers of 1.5 at 2.5 on a tab of 34; the socket's contacts are 0.8 wide, so 1.15 is half of both
  const ends = {
    top: {
      count: 11,
      pitchMm: 2.5,
      widthMm: 1.5,
      lengthMm: 6,
      setbackMm: 1.5,
      edge: "bottom",
      tabMm: 34,
      at: { x: 32, y: 4.5 },
    },
  } as const;
  const measure = { ...board(), edgeContacts: ends } as Measure;
  const socket = (openingMm: number, contactMm = 0.8): FitSpec => ({
    kind: "contacts",
    side: "top",
    openingMm,
    openingTolMm: 0.1,
    contactMm,
  });
  const tolerances = { outlineMm: 0.2, placeMm: 0.1 };
  test.each([
    // going in: 34.3 − 34 ± 0.3; slip at most (34.3 + 0.1 − 34 + 0.2) / 2 + 0.1 = 0.4
    ["a snug one", socket(34.3), "fits", 0, "slips up to 0.4 mm", "going in"],
    ["one too narrow", socket(34.1), "may-not-fit", -0.2, "slips up to 0.3 mm", "going in"],
    // own: 1.15 − 1.25 ± (0.05 + 0.1 + 0.1); next: 2.5 − 1.15 − 1.25 is farther
    ["one far too wide", socket(36.5), "may-not-fit", -0.35, "slips up to 1.5 mm", "own contact"],
    // contacts as wide as the fingers: half of both is 1.5, so the next one is 2.5 − 1.5 − 0.75 away
    ["wide contacts", socket(35.5, 1.5), "fits", 0, "slips up to 1 mm", "the next contact"],
  ] as const)("%s", (_, spec, verdict, worst, slips, tightest) => {
    const r = judge(spec, { measure, tolerances });
    expect(r.verdict).toBe(verdict);
    expect(r.result!.worstMm[0]).toBeCloseTo(worst, 6);
    expect(r.board).toContain(slips);
    expect(r.board).toContain(tightest);
  });

  test("the mended opening fits, and none is named where no opening can", () => {
    const wide = judge(socket(36.5), { measure, tolerances });
    // 0.35 too little on each side: 36.5 − 0.7
    expect(wide.mend).toBe("a socket of 35.8 mm instead of 36.5");
    expect(judge(socket(35.8), { measure, tolerances }).verdict).toBe("fits");
    expect(judge(socket(34.1), { measure, tolerances }).mend).toBe("a socket of 34.3 mm instead of 34.1");
    // 1.5 wide ones in 36.5: the next is 1 − 1.5 away at worst, half a millimetre too little on each side
    expect(judge(socket(36.5, 1.5), { measure, tolerances })).toMatchObject({
      board: expect.stringContaining("the next contact is tightest"),
      mend: "a socket of 35.5 mm instead of 36.5",
    });
    expect(judge(socket(35.5, 1.5), { measure, tolerances }).verdict).toBe("fits");
    // contacts so wide that the next finger is met by any slip
    expect(judge(socket(34.3, 3.4), { measure, tolerances })).not.toHaveProperty("mend");
  });

  test("a wider opening is not named where it would let a contact leave its own", () => {
    // half of both widths is 0.3: 34.1 leaves 0.05 at worst on its own, 34.3 would leave −0.05
    const thin = { ...ends.top, widthMm: 0.5 };
    const narrow = { ...measure, edgeContacts: { top: thin } } as Measure;
    const r = judge(socket(34.1, 0.1), { measure: narrow, tolerances });
    expect(r.board).toContain("going in is tightest");
    expect(r).not.toHaveProperty("mend");
  });

  test("no contacts, and contacts an older version measured, are said", () => {
    expect(judge({ ...socket(34.3), side: "bottom" } as FitSpec, { measure }).because).toContain(
      "on the bottom",
    );
    const { tabMm: _, ...old } = ends.top;
    const before = { ...measure, edgeContacts: { top: old } } as Measure;
    expect(judge(socket(34.3), { measure: before }).because).toContain("measure it again");
  });
});

test("a side in an opening, and how much play is wanted at most", () => {
  const lid: FitSpec = { kind: "outline", across: "width", openingMm: 50.3, openingTolMm: 0.1 };
  // 50.3 − 0.1 − 50 − 0.2 = 0 at worst, 0.6 at best
  expect(judge(lid)).toMatchObject({ verdict: "fits", result: { worstMm: [0, 0.6] } });
  expect(judge(lid, {}, 0.5).verdict).toBe("loose");
  expect(judge(lid, {}, 0.6).verdict).toBe("fits");
  expect(judge(lid, { measure: board({ width: 50.4 }) })).toMatchObject({
    verdict: "may-not-fit",
    mend: "a board of 50 mm instead of 50.4",
  });
  // the other side of it: 40.3 − 0.1 − 40 − 0.2
  expect(judge({ ...lid, across: "height", openingMm: 40.3 })).toMatchObject({
    verdict: "fits",
    result: { worstMm: [0, 0.6] },
  });
  const { outline: _, ...open } = board();
  expect(judge(lid, { measure: open as Measure })).toMatchObject({ verdict: "unknown" });
});

test("what is not there is not judged: no slot near, a hole gone, one hole for two", () => {
  expect(judge({ ...SLOT, at: [24.15, 24] })).toMatchObject({
    verdict: "unknown",
    because: "The board has no slot where one was picked.",
  });
  const gone = judge({ ...PATTERN, holes: [...PATTERN.holes.slice(0, 3), [25, 20]] });
  expect(gone).toMatchObject({ verdict: "unknown", board: "3 of 4 holes" });
  expect(
    judge({
      ...PATTERN,
      holes: [
        [4, 4],
        [4.5, 4],
        [46, 36],
        [4, 36],
      ],
    }),
  ).toMatchObject({
    verdict: "unknown",
  });
});

test("without a closed outline nothing that was picked is taken for something else", () => {
  const { widthMm: _, ...open } = board().outline!;
  const measure = { ...board(), outline: { ...open, closed: false } } as Measure;
  for (const spec of [SLOT, PATTERN])
    expect(judge(spec, { measure })).toMatchObject({ verdict: "unknown", board: "no closed outline" });
});

test("another origin changes nothing, and a wider slot never fits worse", () => {
  const order = ["does-not-fit", "may-not-fit", "fits"];
  fc.assert(
    fc.property(
      fc.integer({ min: -500, max: 500 }),
      fc.integer({ min: 100, max: 250 }),
      fc.integer({ min: 0, max: 60 }),
      (dx, hundredths, more) => {
        const slot = hundredths / 100;
        const [near, far] = [0, dx].map((d) => judge(SLOT, { measure: board({ dx: d, slot }) }));
        expect([far!.verdict, far!.result]).toEqual([near!.verdict, near!.result]);
        const wider = judge(SLOT, { measure: board({ slot: slot + more / 100 }) });
        expect(order.indexOf(wider.verdict)).toBeGreaterThanOrEqual(order.indexOf(near!.verdict));
        expect(wider.result!.interference).toBeLessThanOrEqual(near!.result!.interference);
      },
    ),
    { numRuns: 100 },
  );
});

test("what a house does not state is taken as usual, and said to be", () => {
  expect(tolerancesOf(undefined)).toEqual({ values: USUAL_TOLERANCES, isStated: false });
  expect(tolerancesOf({ slotMm: 0.1 })).toEqual({
    values: { ...USUAL_TOLERANCES, slotMm: 0.1 },
    isStated: false,
  });
  expect(tolerancesOf(USUAL_TOLERANCES).isStated).toBe(true);
});

describe("a tab in a slot with round ends", () => {
  test("how wide it may be: 9.1247 for 1.6 in a slot of 10 × 1.9, 8.8158 for 1.76 (EX 5.7)", () => {
    expect(widestTab(10, 1.9, 1.6)).toBeCloseTo(9.1247, 4);
    expect(widestTab(10, 1.9, 1.76)).toBeCloseTo(8.8158, 4);
    // as thick as the slot is wide it has the straight part alone; thicker it does not go in at all
    expect(widestTab(10, 1.9, 1.9)).toBeCloseTo(8.1, 6);
    expect(widestTab(10, 1.9, 1.91)).toBe(0);
    expect(widestTab(1, 1.9, 1.9)).toBe(0);
  });

  test("the worst case takes the shortest, narrowest slot and the thickest, widest tab", () => {
    // 10 ± 0.1 by 1.9 ± 0.1, 1.6 ± 0.05 thick: at worst 9.9 − 1.8 + 2 √(0.9² − 0.825²) = 8.8193
    const at = (tabWidthMm: number) =>
      judgeTabWidth("a", {
        slotLengthMm: 10,
        slotMm: 1.9,
        slotTolMm: 0.1,
        tabMm: 1.6,
        tabTolMm: 0.05,
        tabWidthMm,
      })!;
    expect(at(8.7)).toMatchObject({ verdict: "fits", nominalMm: expect.closeTo(0.4247, 4) });
    expect(at(8.7).worstMm[0]).toBeCloseTo(8.8193 - 8.75, 3);
    expect(at(8.8)).toMatchObject({ verdict: "may-not-fit", missingMm: expect.closeTo(0.0307, 3) });
    expect(
      judgeTabWidth("a", {
        slotLengthMm: 10,
        slotMm: 1.7,
        slotTolMm: 0.1,
        tabMm: 1.6,
        tabTolMm: 0.05,
        tabWidthMm: 5,
      }),
    ).toBeUndefined();
  });

  test("of both ways the tighter one counts, with its own mend", () => {
    // slot 2.1 × 10 ± 0.15: by thickness 0.5 ± 0.2; by width 10 − 2.1 + 2 √(1.05² − 0.8²) = 9.2602
    const wide = (tabWidthMm: number) =>
      judge({ ...SLOT, tabTolMm: 0.05, tabWidthMm } as FitSpec, { measure: board({ slot: 2.1 }) });
    expect(wide(5)).toMatchObject({
      verdict: "fits",
      board: "slot 2.1 × 10 mm ± 0.15",
      result: { nominalMm: 0.5 },
    });
    expect(wide(9.2)).toMatchObject({
      verdict: "may-not-fit",
      board: "slot 2.1 × 10 mm ± 0.15, its round ends tightest",
      result: { nominalMm: expect.closeTo(0.0602, 3) },
    });
    // at worst 9.85 − 1.95 + 2 √(0.975² − 0.825²) = 8.9393 for 9.25: 0.3107 longer, in twentieths
    expect(wide(9.2).mend).toBe("a slot 10.35 mm long instead of 10");
    expect(wide(9.3)).toMatchObject({ result: { nominalMm: expect.closeTo(-0.0398, 3) } });
  });

  test("what is proposed goes in: a slot mended as it says fits, in width and round ends at once", () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 12, max: 24 }),
        fc.integer({ min: 60, max: 160 }),
        fc.integer({ min: 8, max: 20 }),
        fc.integer({ min: 30, max: 160 }),
        (slot, length, tab, wide) => {
          const spec = { ...SLOT, tabMm: tab / 10, tabTolMm: 0.05, tabWidthMm: wide / 10 } as FitSpec;
          const at = (w: number, l: number) => judge(spec, { measure: board({ slot: w, slotLength: l }) });
          const given = at(slot / 10, length / 10);
          if (given.verdict === "fits" || !given.mend) return;
          const n = [...given.mend.split(" instead")[0]!.matchAll(/[\d.]+/g)].map((m) => Number(m[0]));
          const [w, l] =
            n.length === 2 ? n : /long/.test(given.mend) ? [slot / 10, n[0]!] : [n[0]!, length / 10];
          expect([given.mend, at(w!, l!).verdict]).toEqual([given.mend, "fits"]);
        },
      ),
      { numRuns: often(200, 5000) },
    );
  });
});
