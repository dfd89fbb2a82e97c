import { expect, test } from "@jest/globals";
import type { LinePart } from "../document/parts.ts";
import type { Defect, RunRecord } from "../document/record.ts";
import type { RunSitting } from "../document/sitting.ts";
import { madeLine, madeMeasure, madeRun } from "../made-up.fixture.ts";
import { factorsAtClosing, factorsOf, weighed } from "./factors.ts";
import { againstPlan, seenFaults, stepYields } from "./stands-out.ts";

/** Parts on pads by paste: each line's share of what may go wrong is its pieces, where package and joints are alike. */
const part = (id: string, refs: string[], more: Partial<LinePart> = {}): LinePart =>
  ({
    line: madeLine(id, refs, { valueText: id, package: "0603" }),
    kind: "chip",
    joints: 2,
    isPolarised: false,
    method: "stencil",
    count: refs.length,
    ...more,
  }) as LinePart;
let n = 0;
const fault = (unit: number, at: string, more: Partial<Defect> = {}): Defect => ({
  id: String(n++),
  unit,
  at,
  code: "bridge",
  on: "2026-03-01",
  isMended: false,
  note: "",
  person: "M",
  ...more,
});
const sitting = (unit: number, step: number, person: string, done: string[], isDone = true): RunSitting => ({
  id: String(n++),
  unit,
  step,
  marks: Object.fromEntries(done.map((r) => [r, "done" as const])),
  lost: {},
  minutes: {},
  isDone,
  person,
});
const refs = (p: string, k: number) => Array.from({ length: k }, (_, i) => `${p}${i + 1}`);
const PARTS = [part("10k", refs("R", 9)), part("100n", ["C1"])];
const happened = (more: Partial<RunRecord>): Pick<RunRecord, "sittings" | "tries" | "defects"> => more;

test("what falls on one part far beyond its share stands out; as many on the many parts do not", () => {
  // C1 is one of ten pieces: 4 of 5 faults on it are 5·0.1⁴·0.9 + 0.1⁵ = 0.00046, twice that for two values looked at
  const out = factorsOf(
    madeRun({}),
    PARTS,
    happened({ defects: [...[1, 2, 3, 4].map((u) => fault(u, "C1.1")), fault(5, "R1")] }),
  );
  const c = out.find((f) => f.kind === "part" && f.name === "100n")!;
  expect(c).toMatchObject({ seen: 4, of: 5, standsOut: true });
  expect(c.share).toBeCloseTo(0.1, 6);
  expect(c.chance).toBeCloseTo(0.00046, 5);
  expect(out[0]).toBe(c);
  expect(out.filter((f) => f.kind === "package")).toEqual([]);
  // two of three on C1: 3·0.01·0.9 + 0.001 = 0.028, for two values 0.056: not rarer than one in twenty
  const few = factorsOf(
    madeRun({}),
    PARTS,
    happened({ defects: [fault(1, "C1"), fault(2, "C1"), fault(3, "R2")] }),
  );
  expect(few.find((f) => f.name === "100n")).toMatchObject({ standsOut: false });
  expect(few.find((f) => f.name === "100n")!.chance).toBeCloseTo(0.028, 6);
});

test("one fault has nothing in common; what a house placed, the bare board and unknown parts are none of it", () => {
  expect(factorsOf(madeRun({}), PARTS, happened({ defects: [fault(1, "C1")] }))).toEqual([]);
  const house = [part("10k", refs("R", 9), { method: "house" }), part("100n", ["C1"])];
  expect(
    factorsOf(
      madeRun({}),
      house,
      happened({ defects: [fault(1, "R1"), fault(2, "R2"), fault(3, ""), fault(4, "X9"), fault(5, "C1")] }),
    ),
  ).toEqual([]);
});

test("who put a part on is set against the pieces each put on; what two put on is nobody's", () => {
  const sittings = [
    sitting(1, 1, "A", refs("R", 9)),
    sitting(1, 2, "B", ["C1"]),
    sitting(2, 1, "A", refs("R", 9)),
    sitting(2, 2, "B", ["C1"]),
    sitting(3, 2, "A", ["C1"]),
    sitting(3, 3, "B", ["C1"]),
  ];
  const out = factorsOf(
    madeRun({}),
    PARTS,
    happened({ sittings, defects: [fault(1, "C1"), fault(2, "C1"), fault(3, "C1")] }),
  );
  // B put on 3 of 22 pieces, and both faults that are somebody's: (3/22)² = 0.0186, for two people 0.037
  const b = out.find((f) => f.kind === "person")!;
  expect(b).toMatchObject({ name: "B", seen: 2, of: 2, standsOut: true });
  expect(b.chance).toBeCloseTo((3 / 22) ** 2, 9);
});

test("what somebody laid out or tried is no piece that was put on", () => {
  const out = factorsOf(
    madeRun({}),
    PARTS,
    happened({
      sittings: [
        // A put on nine pieces; B one, and pressed forty lines of the kit and ten items of the test plan
        sitting(1, 1, "A", refs("R", 9)),
        sitting(1, 2, "B", ["C1", ...refs("kit l", 40), ...refs("test t", 10)]),
        sitting(2, 2, "B", ["C1"]),
      ],
      defects: [fault(1, "C1"), fault(2, "C1"), fault(1, "R1")],
    }),
  );
  expect(out.find((f) => f.kind === "person" && f.name === "B")!.share).toBeCloseTo(2 / 11, 9);
});

test("R1 of one board is not R1 of the other; where no board is said, only what is there once is meant", () => {
  const place = { ref: "R1", xMm: 0, yMm: 0, rotationDeg: 0 };
  const doc = madeRun({
    boards: ["Main", "Tail"].map((name) => ({ id: name, name, perProduct: 1, measure: madeMeasure() })),
    placements: [
      { ...place, board: "Main", side: "top" },
      { ...place, board: "Tail", side: "bottom" },
    ],
  });
  const on = (id: string, board: string, refs: string[]) => {
    const p = part(id, refs);
    return { ...p, line: { ...p.line, board } };
  };
  const parts = [on("10k", "Main", ["R1", "R2"]), on("1k", "Tail", ["R1"])];
  const seen = (...at: string[]) =>
    factorsOf(doc, parts, happened({ defects: at.map((a, i) => fault(i + 1, a)) }))
      .filter((f) => f.kind !== "person")
      .map((f) => `${f.name} ${f.seen} of ${f.of}`)
      .sort();
  expect(seen("R1.2 of Tail", "R1 of Tail", "R2.1")).toEqual(["10k 1 of 3", "1k 2 of 3", "bottom 2 of 2"]);
  // whose R1 it is nobody said, and Rack has none
  expect(seen("R1.1", "R1 of Tail", "R1 of Main", "R1 of Rack")).toEqual([
    "10k 1 of 2",
    "1k 1 of 2",
    "bottom 1 of 2",
    "top 1 of 2",
  ]);
  expect(
    againstPlan(doc, parts, happened({ defects: [fault(1, "R1.1"), fault(2, "R1 of Tail")] })),
  ).toMatchObject({
    looked: 2,
    bad: 1,
  });
});

test("a batch against its plan: worse by exact tails, better only by boards that were tried, and where to stop", () => {
  // so many joints that a board in four has a fault
  const parts = [part("net", ["R1"], { joints: 2_000 })];
  const of = (units: number, bad: number, tried = 0) =>
    againstPlan(
      madeRun({}),
      parts,
      happened({
        sittings: Array.from({ length: units }, (_, i) => sitting(i + 1, 1, "A", [])),
        defects: Array.from({ length: bad }, (_, i) => fault(i + 1, "R1")),
        tries: Array.from({ length: tried }, (_, i) => ({ unit: i + 1 }) as never),
      }),
    )!;
  const p = of(10, 0).planned;
  expect(p).toBeGreaterThan(0.2);
  expect(of(10, 10)).toMatchObject({ is: "worse", looked: 10, bad: 10 });
  expect(of(10, 10).chanceWorse).toBeCloseTo(p ** 10, 9);
  expect(of(10, 0).is).toBe("as planned");
  expect(of(20, 0, 20).is).toBe("better");
  expect(of(20, 0, 20).chanceBetter).toBeCloseTo((1 - p) ** 20, 9);
  expect(of(1, 1).is).toBe("as planned");
  const { stopAt } = of(6, 0);
  const tail = (k: number) => {
    let sum = 0;
    for (let i = k; i <= 6; i++) sum += [1, 6, 15, 20, 15, 6, 1][i]! * p ** i * (1 - p) ** (6 - i);
    return sum;
  };
  expect(tail(stopAt)).toBeLessThan(0.01);
  expect(tail(stopAt - 1)).toBeGreaterThanOrEqual(0.01);
  expect(againstPlan(madeRun({}), parts, {})).toBeUndefined();
  // where nothing is soldered here, nothing is expected to go wrong
  expect(
    againstPlan(
      madeRun({}),
      [part("x", ["R1"], { method: "house" })],
      happened({ defects: [fault(1, "R1")] }),
    ),
  ).toMatchObject({ bad: 0, planned: 0, is: "as planned" });
});

test("yield by step and rolled: 49 of 50, 19 of 20, 99 of 100 → 0.9217 (domain.md 9.7); two faults on a board are one bad board", () => {
  const through = (step: number, boards: number) =>
    Array.from({ length: boards }, (_, i) => sitting(i + 1, step, "A", []));
  const { steps, rolled } = stepYields({
    sittings: [
      ...through(1, 50),
      ...through(2, 20),
      ...through(3, 100),
      sitting(101, 3, "A", [], false),
      sitting(0, 4, "A", []),
    ],
    defects: [
      fault(7, "R1", { step: 1 }),
      fault(7, "R2", { step: 1 }),
      fault(2, "C1", { step: 2 }),
      fault(9, "C1", { step: 3 }),
      fault(101, "C1", { step: 3 }),
      fault(5, "C1"),
    ],
  });
  expect(steps.map((s) => [s.step, s.clean, s.boards])).toEqual([
    [1, 49, 50],
    [2, 19, 20],
    [3, 99, 100],
  ]);
  expect(rolled).toBeCloseTo(0.98 * 0.95 * 0.99, 9);
  expect(stepYields({})).toEqual({ steps: [], rolled: undefined });
});

test("what was found by kind: joints by their part's package, placing together, beside what the model has on as many boards", () => {
  const work = [{ id: "w", on: "2026-03-02", started: 10, good: 8, reworked: 3, scrapped: 1, minutes: 0 }];
  const parts = [
    ...PARTS,
    part("chip", ["U1"], { kind: "gull", joints: 8 }),
    part("hers", ["U9"], { method: "house" }),
  ];
  const defects = [
    fault(1, "R1.2"),
    fault(2, "R1.2", { code: "missing" }),
    fault(3, "U1", { code: "wrong way round" }),
    fault(4, "U1.3", { code: "cold" }),
    // of the house, of no part, of the bare board
    fault(5, "U9"),
    fault(6, "X1"),
    fault(7, "", { code: "board short" }),
  ];
  const out = seenFaults(madeRun({}), parts, { work, defects })!;
  // nine of ten are finished and were looked at; ten chips of two joints at 250, eight joints of a gull at 300, eleven placed at 1200
  expect(out).toEqual({
    looked: 9,
    kinds: {
      chip: { seen: 1, expected: expect.closeTo(9 * 0.005, 12) },
      gull: { seen: 1, expected: expect.closeTo(9 * 0.0024, 12) },
      placing: { seen: 2, expected: expect.closeTo(9 * 0.0132, 12) },
    },
    unsorted: 2,
  });
  // no fault is written: only boards of which something is count
  expect(seenFaults(madeRun({}), parts, { work })).toBeUndefined();
  const sittings = [sitting(1, 1, "M", []), sitting(2, 1, "M", [])];
  expect(seenFaults(madeRun({}), parts, { work, sittings })).toMatchObject({ looked: 2, unsorted: 0 });
});

test("a batch is held against what it was planned with", () => {
  const record = happened({
    defects: [fault(1, "R1")],
    sittings: [sitting(1, 1, "M", []), sitting(2, 1, "M", [])],
  });
  const plain = againstPlan(madeRun({}), PARTS, record)!;
  // ten chips: 0.005 of joints and 0.012 of placing a board
  expect(plain.planned).toBeCloseTo(1 - Math.exp(-0.017), 12);
  expect(againstPlan(madeRun({}), PARTS, record, { chip: 4 })!.planned).toBeCloseTo(1 - Math.exp(-0.032), 12);
});

test("what boards were soldered with is set against the boards that went through it; of two nobody knows which", () => {
  const heated = (unit: number, heater: string, step = 5): RunSitting => ({
    ...sitting(unit, step, "A", []),
    used: { heater },
  });
  const parts = [...PARTS, part("header", ["J1"], { method: "iron" })];
  // twelve boards, two of them on the plate: 4 of 4 faults on those are (1/6)⁴ = 0.00077
  const sittings = [
    ...Array.from({ length: 10 }, (_, i) => heated(i + 1, "oven")),
    heated(11, "plate"),
    heated(12, "plate"),
    heated(13, "oven"),
    heated(13, "plate", 8),
  ];
  const defects = [
    fault(11, "R1"),
    fault(11, "R2"),
    fault(12, "C1"),
    fault(12, "R9"),
    fault(1, "J1"),
    fault(13, "R1"),
  ];
  const out = factorsOf(madeRun({}), parts, happened({ sittings, defects })).filter(
    (f) => f.kind === "heater",
  );
  expect(out).toEqual([
    {
      kind: "heater",
      name: "plate",
      seen: 4,
      of: 4,
      share: 1 / 6,
      chance: expect.closeTo(1 / 1296, 9),
      standsOut: true,
    },
  ]);
});

test("rows of closed runs are laid together: houses by boards, lots of one part by pieces; a part of two lots says nothing", () => {
  const run = (house: string, lot: string[], defects: Defect[], boards: number) =>
    factorsAtClosing(
      {
        ...madeRun({ lines: [madeLine("100n", ["C1"], { valueText: "100n", mpn: "" })] }),
        house: { id: house, name: house } as never,
      },
      PARTS,
      {
        ...happened({
          defects,
          sittings: Array.from({ length: boards }, (_, i) => sitting(i + 1, 1, "", [])),
        }),
        work: [],
      },
      [{ lines: ["100n"], lots: lot }],
    );
  const dry = (unit: number) => fault(unit, "C1", { code: "too little" });
  const rows = [
    ...run(
      "North",
      ["a"],
      [dry(1), dry(2), dry(3), fault(4, "", { code: "drill" }), fault(5, "", { code: "drill" })],
      10,
    ),
    ...run("South", ["b"], [], 30),
    ...run("South", ["a", "b"], [dry(1)], 10),
  ];
  const lots = weighed(rows).filter((f) => f.kind === "lot");
  // 10 pieces of lot a against 30 of b, all three on a: 1/64; for two lots 0.03
  expect(lots).toEqual([
    {
      kind: "lot",
      name: "a",
      among: "100n",
      seen: 3,
      of: 3,
      share: 0.25,
      chance: expect.closeTo(1 / 64, 9),
      standsOut: true,
    },
  ]);
  // both holes that were off are of the ten boards from one house, of fifty: 1/25
  expect(weighed(rows).filter((f) => f.kind === "house")).toMatchObject([
    { name: "North", seen: 2, of: 2, share: 0.2, chance: expect.closeTo(0.04, 9), standsOut: false },
  ]);
  // whoever has no name is nobody's fault, and nothing looked at tells nothing
  expect(rows.filter((r) => r.name === "")).toEqual([]);
  expect(run("North", ["a"], [], 0)).toEqual([]);
});

test("a part's share over several runs is by the boards that were looked at; one fault never stands out by itself", () => {
  const run = (parts: LinePart[], boards: number, defects: Defect[]) =>
    factorsAtClosing(
      madeRun({}),
      parts,
      {
        defects,
        sittings: Array.from({ length: boards }, (_, i) => sitting(i + 1, 1, "", [])),
        work: [],
      },
      [],
    );
  // R1 alone on thirty boards, C1 alone on ten: C1 has a quarter of what may go wrong, and two of two faults: 1/16
  const two = [
    ...run([part("10k", ["R1"])], 30, []),
    ...run([part("100n", ["C1"])], 10, [fault(1, "C1"), fault(2, "C1")]),
  ];
  expect(weighed(two).find((f) => f.kind === "part")).toMatchObject({
    name: "100n",
    share: 0.25,
    chance: expect.closeTo(1 / 16, 9),
  });
  // one of two faults on a part that has a thousandth of what may go wrong
  const rare = weighed([
    { kind: "part", name: "a", seen: 1, weight: 1 },
    { kind: "part", name: "b", seen: 1, weight: 999 },
  ]);
  expect(rare.map((f) => [f.name, f.standsOut])).toEqual([
    ["a", false],
    ["b", false],
  ]);
  expect(rare[0]!.chance * 2).toBeLessThan(0.05);
});
