import { expect, test } from "@jest/globals";
import fc from "fast-check";
import { trapsOf } from "./cautions.ts";
import { remedied } from "./conflicts.ts";
import { figuresOf, gateCost } from "./gates.ts";
import { madePart, madeWork } from "./made-work.fixture.ts";
import { workOrder } from "./order.ts";
import { brokenRules, canBeDone } from "./slow.fixture.ts";
import { SCHOOLS, type Work, type WorkPart } from "./step.ts";

const REFS = ["R1", "C1", "U1", "J1", "X1", "B1", "K1"];
/** Random facts of one part; what it covers is drawn from the same board and places that are no part. */
const randomPart = (ref: string): fc.Arbitrary<WorkPart> =>
  fc
    .record({
      side: fc.constantFrom("top" as const, "bottom" as const),
      how: fc.constantFrom("paste" as const, "paste" as const, "iron" as const, "mechanical" as const),
      canIron: fc.boolean(),
      isMoist: fc.boolean(),
      heightMm: fc.option(fc.integer({ min: 1, max: 20 }), { nil: undefined }),
      massMg: fc.option(fc.integer({ min: 1, max: 4000 }), { nil: undefined }),
      wettedMm2: fc.option(fc.integer({ min: 1, max: 80 }), { nil: undefined }),
      fitAfter: fc.option(fc.constantFrom("reflow" as const, "wash" as const, "test" as const), {
        nil: undefined,
        freq: 3,
      }),
      opensOnce: fc.constantFrom(false, false, false, true),
      odd: fc.constantFrom(undefined, undefined, undefined, "flipped" as const, "far" as const),
      covers: fc.subarray([...REFS, "TP1", "TP2"], { maxLength: 2 }),
      micros: fc.integer({ min: 0, max: 9_000_000 }),
      trimMinutes: fc.constantFrom(0, 1),
    })
    .map(({ heightMm, massMg, wettedMm2, fitAfter, odd, ...p }) => ({
      ...madePart(ref),
      ...p,
      line: `line ${ref[0]}`,
      // what goes on after something is soldered by hand, as a document has it
      ...(fitAfter ? { fitAfter, how: p.how === "paste" ? ("iron" as const) : p.how } : {}),
      ...(odd && p.how !== "mechanical" ? { odd } : {}),
      ...(heightMm === undefined ? {} : { heightMm }),
      ...(massMg === undefined ? {} : { massMg }),
      ...(wettedMm2 === undefined ? {} : { wettedMm2 }),
    }));
const randomWork = (most: number): fc.Arbitrary<Work> =>
  fc
    .record({
      parts: fc
        .subarray(REFS, { minLength: 1, maxLength: most })
        .chain((refs) => fc.tuple(...refs.map(randomPart))),
      programAt: fc.constantFrom([], [], ["TP1"], ["J1"]),
      testAt: fc.constantFrom([], ["TP2"], ["J1"]),
      hasTest: fc.boolean(),
      school: fc.constantFrom(...SCHOOLS),
    })
    .map(({ parts, programAt, testAt, hasTest, school }) =>
      madeWork(parts, {
        programAt,
        testAt,
        school,
        minutes: {
          kit: 5,
          inspect: 12,
          ...(hasTest ? { test: 15 } : {}),
          seal: 10,
          ...(parts.some((p) => p.fitAfter === "wash") ? { clean: 7 } : {}),
        },
      }),
    );

test("every order keeps every rule, or names what cannot hold; minutes are neither lost nor doubled", () => {
  let [conflicted, free] = [0, 0];
  fc.assert(
    fc.property(randomWork(7), (work) => {
      const { steps, conflicts } = workOrder(work);
      const named = (refs: readonly string[]) => conflicts.some((c) => refs.every((r) => c.refs.includes(r)));
      expect(brokenRules(work, steps).filter((b) => !named(b.refs))).toEqual([]);
      if (conflicts.length === 0) free++;
      else conflicted++;
      const { clean = 0, test: tested = 0 } = work.minutes;
      const sides = new Set(work.parts.filter((p) => p.how === "paste").map((p) => p.side)).size;
      const all = work.parts.reduce((n, p) => n + p.minutes, 0) + 5 + 12 + 10 + clean + tested + 30 * sides;
      expect(steps.reduce((n, s) => n + s.minutes, 0)).toBeCloseTo(all, 9);
    }),
    { numRuns: 1000, seed: 38 },
  );
  expect(Math.min(conflicted, free)).toBeGreaterThan(150);
});

test("a slow search finds an order exactly where no rules conflict, and each conflict is a least one", () => {
  let [can, cannot] = [0, 0];
  const ring = (kind: string) => !["falls", "too-hot", "given-covers", "plate", "itself"].includes(kind);
  fc.assert(
    fc.property(randomWork(4), (work) => {
      const { conflicts, first } = workOrder(work);
      const side = first.get(0) ?? "top";
      const rings = conflicts.filter((c) => ring(c.kind));
      expect(canBeDone(work, side)).toBe(rings.length === 0);
      if (rings.length === 0) can++;
      else cannot++;
      const [least] = rings;
      if (!least) return;
      const members = work.parts.filter((p) => least.refs.includes(p.ref));
      const only = (parts: readonly WorkPart[]): Work => ({
        ...work,
        parts,
        minutes: { ...work.minutes, ...(work.parts.some((p) => p.fitAfter === "wash") ? { clean: 7 } : {}) },
      });
      expect(canBeDone(only(members), side)).toBe(false);
      // a place that is programmed or tested stays one without the part that stands there
      const places = [...work.programAt, ...work.testAt];
      for (const p of members.filter((x) => !places.includes(x.ref)))
        expect(canBeDone(only(members.filter((x) => x !== p)), side)).toBe(true);
    }),
    { numRuns: 600, seed: 39 },
  );
  expect(Math.min(can, cannot)).toBeGreaterThan(80);
});

test("a remedy that is proposed frees its conflict when it is made, and brings no other", () => {
  let tried = 0;
  const key = (c: { kind: string; refs: readonly string[] }) => `${c.kind} ${[...c.refs].sort().join(" ")}`;
  fc.assert(
    fc.property(randomWork(7), fc.constantFrom(undefined, "plate" as const), (given, heater) => {
      const work = heater ? { ...given, heater } : given;
      const before = workOrder(work).conflicts;
      for (const c of before)
        for (const r of c.remedies) {
          tried++;
          const after = workOrder(remedied(work, r)).conflicts.map(key);
          expect(after).not.toContain(key(c));
          expect(after.filter((k) => !before.map(key).includes(k))).toEqual([]);
        }
    }),
    { numRuns: 700, seed: 40 },
  );
  expect(tried).toBeGreaterThan(150);
});

test("conflicts in words, with what frees them", () => {
  const work = madeWork([madePart("BT1", { covers: ["J5"] }), madePart("J5", { how: "iron" })]);
  const [c] = workOrder(work).conflicts;
  expect(c).toMatchObject({
    kind: "reach-first",
    text: "J5 is fitted after the heat; BT1 covers J5, which has to be on before it; BT1 goes through the heat. That cannot all be.",
    remedies: [{ kind: "by-hand", names: ["BT1"], words: "Solder BT1 by hand, after the heat." }],
  });
  const stuck = madeWork([
    madePart("U1", { covers: ["J5"], canIron: false }),
    madePart("J5", { how: "iron" }),
  ]);
  expect(workOrder(stuck).conflicts[0]!.remedies).toEqual([]);
});

test("EX 7.8: 4.0 g on 60 mm² hangs on nothing: its side is soldered second; on both sides it cannot be", () => {
  const heavy = { massMg: 4000, wettedMm2: 60 };
  const light = { massMg: 100, wettedMm2: 4 };
  const sides = (work: Work) => workOrder(work).steps.flatMap((s) => (s.kind === "heat" ? [s.side] : []));
  expect(
    sides(
      madeWork([madePart("L1", { ...heavy, side: "bottom" }), madePart("R1", light), madePart("R2", light)]),
    ),
  ).toEqual(["top", "bottom"]);
  expect(sides(madeWork([madePart("L1", heavy), madePart("R1", { ...light, side: "bottom" })]))).toEqual([
    "bottom",
    "top",
  ]);
  const both = workOrder(
    madeWork([madePart("L1", heavy), madePart("L2", { massMg: 3000, wettedMm2: 60, side: "bottom" })]),
  );
  expect(both.conflicts).toMatchObject([
    { kind: "falls", refs: ["L2"], remedies: [{ kind: "by-hand", names: ["L2"] }] },
  ]);
  expect(both.conflicts[0]!.text).toContain("0.05 g on each mm² of wetted area, 0.0465 hold");
});

test("a plate is refused under a board with parts below, and what works is named", () => {
  const { conflicts } = workOrder(
    madeWork([madePart("R1"), madePart("R2", { side: "bottom" })], { heater: "plate" }),
  );
  expect(conflicts.map((c) => [c.kind, c.refs, c.remedies.map((r) => r.words)])).toEqual([
    [
      "plate",
      ["R2"],
      ["Solder R2 by hand, after the heat.", "Melt the second side in an oven or with hot air."],
    ],
  ]);
});

test("steps in a usual order: paste, iron low first, leads cut, look, program, test, what covers, what closes", () => {
  const { steps, conflicts } = workOrder(
    madeWork(
      [
        madePart("R1"),
        madePart("U1", { isMoist: true }),
        madePart("J2", { how: "iron", heightMm: 11, trimMinutes: 1 }),
        madePart("J1", { how: "iron", heightMm: 3, trimMinutes: 1 }),
        madePart("DS1", { how: "iron", covers: ["J1", "TP1"] }),
        madePart("H1", { how: "mechanical" }),
      ],
      {
        programAt: ["J1"],
        testAt: ["TP1"],
        loose: ["case"],
        minutes: { kit: 5, inspect: 12, test: 15, seal: 10 },
      },
    ),
  );
  expect(conflicts).toEqual([]);
  expect(steps.map((s) => [s.kind, s.refs.join(" "), s.after.join(" ")])).toEqual([
    ["kit", "", ""],
    ["print", "", "1"],
    ["place", "R1", "2"],
    ["place", "U1", "3"],
    ["heat", "", "4"],
    ["iron", "J1 J2", "5"],
    ["trim", "", "6"],
    ["mechanical", "H1", "5"],
    ["inspect", "", "7 8"],
    ["program", "J1", "9"],
    ["test", "TP1", "10"],
    ["iron", "DS1", "11"],
    ["seal", "", "12"],
  ]);
  expect(steps[11]!.covers).toEqual(["J1", "TP1"]);
  expect(steps[5]!.minutes).toBe(2);
  expect(steps[12]!.lines).toEqual([{ line: "case", refs: [] }]);
});

test("a gate protects what would be lost by finding it one later: worked by hand", () => {
  const { steps } = workOrder(
    madeWork([
      madePart("R1", { defects: 0.1 }),
      madePart("DS1", { how: "iron", micros: 8_000_000, fitAfter: "test" }),
    ]),
  );
  const protects = (kind: string) => steps.find((s) => s.kind === kind)!.protects!.all;
  // 10 boards, λ 0.1: 0.951626 fail × 6 min × 0.50; 10 × (1 − e^(−0.008)) × (15 min test ÷ 10 × 0.50)
  expect(protects("inspect") / 1e6).toBeCloseTo(10 * (0.09516258 * 3 + 0.00796809 * 0.75), 4);
  // at the test: the display of 8.00 that follows, and 12 of its and the packing's minutes ÷ 10 boards
  expect(protects("test") / 1e6).toBeCloseTo(10 * (0.09516258 * 3 + 0.00796809 * (8 + 1.2 * 0.5)), 4);
});

test("what a gate costs is its looking, not the mending of what it finds", () => {
  const work = madeWork([madePart("R1")], { minutes: { kit: 5, inspect: 12, mend: 9, test: 15 } });
  const cost = (kind: string) => gateCost(work, workOrder(work).steps.find((s) => s.kind === kind)!);
  // 3 and 15 minutes at 0.50
  expect([cost("inspect"), cost("test")]).toEqual([1_500_000, 7_500_000]);
});

test("schools differ in what they say they differ in, and keep what must be", () => {
  const parts = [
    madePart("R1", { line: "r", micros: 10_000, xMm: 0, yMm: 0, heightMm: 5 }),
    madePart("U1", { line: "u", micros: 9_000_000, defects: 0.05, xMm: 1, yMm: 0 }),
    madePart("R2", { line: "r", micros: 10_000, xMm: 2, yMm: 0, heightMm: 5 }),
  ];
  const placed = (more: Partial<Work>) => workOrder(madeWork(parts, more)).steps[2]!.refs.join(" ");
  expect(placed({ school: "low" })).toBe("R1 R2 U1");
  expect(placed({ school: "dense" })).toBe("U1 R1 R2");
  expect(placed({ school: "cheap" })).toBe("R1 R2 U1");
  expect(placed({ school: "path" })).toBe("R1 U1 R2");
  expect(placed({ school: "low", own: ["u"] })).toBe("U1 R1 R2");
  expect(placed({ school: "path", own: ["u"] })).toBe("U1 R1 R2");
  const figures = (school: Work["school"]) => {
    const work = madeWork(parts, { school });
    return figuresOf(work, workOrder(work).steps);
  };
  expect([figures("low").bags, figures("path").bags]).toEqual([2, 3]);
  // the bag of the resistors is opened twice: one laying out more
  expect([figures("low").moreMinutes, figures("path").moreMinutes]).toEqual([0, 0.75]);
  // dear last: after U1 nothing is soldered; before it 9.00 stand for the defects of two resistors
  expect(figures("cheap").atRisk).toBeLessThan(figures("dense").atRisk);
});

test("money at risk counts what is soldered by iron and fitted by hand too, and their bags", () => {
  const work = madeWork([
    madePart("U1", { line: "u", micros: 5_000_000, defects: 0 }),
    madePart("J1", { line: "j", how: "iron", micros: 1_000_000, defects: 0.1 }),
    madePart("H1", { line: "h", how: "mechanical", micros: 2_000_000, defects: 0.2 }),
  ]);
  const { bags, atRisk } = figuresOf(work, workOrder(work).steps);
  expect(bags).toBe(3);
  // ten boards: before the 0.3 defects to come U1 of 5.00, before the 0.2 of H1 the connector of 1.00; 8 of 100 cannot be mended
  expect(atRisk / 1e6).toBeCloseTo(10 * (5 * (1 - Math.exp(-0.3 * 0.08)) + (1 - Math.exp(-0.2 * 0.08))), 5);
});

test("of two sides one of which nothing is known of, the one with fewer parts goes first, and that is said", () => {
  const first = (parts: Parameters<typeof madeWork>[0]) =>
    workOrder(madeWork(parts)).steps.find((s) => s.kind === "print")!;
  const known = { massMg: 10, wettedMm2: 4 };
  const step = first([madePart("R1", known), madePart("R2", known), madePart("L1", { side: "bottom" })]);
  expect([step.side, step.because]).toEqual([
    "bottom",
    [
      "This side first: it has fewer parts.",
      "Mass or wetted area is not known of 1 of 3 parts: whether they hold below is not said.",
    ],
  ]);
  expect(
    first([madePart("R1", known), madePart("L1", { ...known, massMg: 20, side: "bottom" })]).because,
  ).toEqual([
    "This side first: its heaviest part for its pads has 0.0025 g/mm², the other side's 0.005 g/mm².",
  ]);
});

test("a bar that means plus is told where the same step has bars that mean the cathode, or stripes that mean minus", () => {
  const line = (ref: string, pack: string) => ({ refs: [ref], package: pack });
  expect(trapsOf([line("C22", "CASE-B"), line("D1", "SOD-123"), line("D2", "SOD-123")])).toEqual([
    "The bar of C22 is plus; that of D1, D2 is the cathode.",
  ]);
  expect(trapsOf([line("C22", "TANT-B"), line("C3", "RADIAL-5")])).toEqual([
    "The bar of C22 is plus; the stripe of C3 is minus.",
  ]);
  expect(trapsOf([line("C22", "CASE-B"), line("R1", "0603")])).toEqual([]);
  expect(trapsOf([line("D1", "SOD-123")])).toEqual([]);
});

test("corner to corner goes to and fro in bands, a side at a time; what has no place comes last", () => {
  const at = (ref: string, xMm?: number, yMm?: number) => ({
    ...madePart(ref),
    line: ref,
    ...(xMm === undefined ? {} : { xMm, yMm: yMm! }),
  });
  // bands of 10 mm above 2: R1 R2 R3 to the right, R4 R5 back, R6 alone; from 12 on it is the second
  const parts = [
    at("R5", 5, 14),
    at("R0"),
    at("R3", 40, 3),
    at("R1", 5, 2),
    at("R4", 30, 12),
    at("R6", 20, 25),
    at("R2", 15, 11.9),
  ];
  const steps = workOrder(madeWork(parts, { school: "path" })).steps;
  expect(steps.find((s) => s.kind === "place")!.refs.join(" ")).toBe("R1 R2 R3 R4 R5 R6 R0");
});
