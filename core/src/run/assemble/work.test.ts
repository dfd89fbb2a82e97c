import { expect, test } from "@jest/globals";
import { often } from "../../../test/long.ts";
import { madeUpRuns } from "../../../test/second/made-up.ts";
import { assembleDocument } from "../assemble-document.ts";
import { boardK } from "../board-k.fixture.ts";
import { asMade } from "../document/bill/as-made.ts";
import type { RunDocument } from "../document/document.ts";
import { madeLine, STAND_IN } from "../made-up.fixture.ts";
import { rollUp } from "../roll-up.ts";
import { onSheets } from "../sheets.fixture.ts";
import { twoSided } from "../two-sided.fixture.ts";
import { planOfRun } from "./steps-document.ts";
import { givenOf, orderOfRun, workOf } from "./work.ts";

const stepsOf = (doc: RunDocument) => orderOfRun(asMade(doc), rollUp(doc));
const library = (mpn: string, more: object) => [{ ...STAND_IN, mpn, ...more }];

test("minutes of the steps are the run's own minutes, and every part that is fitted here stands in one step", () => {
  for (const doc of [boardK(), onSheets(), twoSided({ method: "stencil" }), ...madeUpRuns(30, 38)]) {
    const r = rollUp(doc);
    const { steps } = orderOfRun(asMade(doc), r);
    expect(steps.reduce((n, s) => n + s.minutes, 0)).toBeCloseTo(r.ownMinutes, 6);
    const fitted = steps.flatMap((s) => (["place", "iron", "mechanical"].includes(s.kind) ? s.refs : []));
    const ours = r.parts
      .filter((p) => p.method !== "house" || p.line.mount === "none")
      .reduce((n, p) => n + p.line.refs.length, 0);
    expect([fitted.length, new Set(fitted).size]).toEqual([ours, ours]);
  }
});

test("Board K by foil: what is on paste, then what goes through the board, low set-up in the print", () => {
  const { steps, conflicts } = stepsOf(boardK());
  expect(conflicts).toEqual([]);
  expect(steps.map((s) => [s.kind, s.refs.length])).toEqual([
    ["kit", 0],
    ["print", 0],
    ["place", 28],
    ["heat", 0],
    ["iron", 2],
    ["trim", 0],
    ["inspect", 0],
    ["test", 0],
    ["seal", 0],
  ]);
  // no placement file: what is on paste is taken to be on the top, and said; low parts first, by what packages usually have
  const place = steps.find((s) => s.kind === "place")!;
  expect(place.because[0]).toMatch(/^Taken to be on the top, as no place is known: /);
  expect(steps.find((s) => s.kind === "iron")!.because.join(" ")).not.toContain("Taken to be on the top");
  expect(place.refs.at(-1)).toBe("U1");
  const { minutes: parts } = planOfRun(boardK(), rollUp(boardK())).work;
  expect(parts.mend).toBeCloseTo(31 * rollUp(boardK()).yield.reworkMin, 9);
  const minutes = (kind: string) => steps.find((s) => s.kind === kind)!.minutes;
  // EX 7.2, 31 boards: print 60 s and 35 min of setting up; place 182 s; four a load 90 s; 86 s through the board, 10 joints × 2 s of it cutting
  expect(minutes("print")).toBeCloseTo(35 + 31, 9);
  expect(minutes("place")).toBeCloseTo((31 * 182) / 60, 9);
  expect(minutes("heat")).toBeCloseTo((31 * 90) / 60, 9);
  expect(minutes("iron")).toBeCloseTo((31 * 66) / 60, 9);
  expect(minutes("trim")).toBeCloseTo((31 * 20) / 60, 9);
});

test("a part that goes on after washing is soldered by hand, the boards are washed, and that is counted", () => {
  const doc = twoSided({ method: "stencil", heater: "oven" });
  const washed = { ...doc, library: library("OX-100N", { fitAfter: "wash" }) };
  const { steps } = stepsOf(washed);
  const iron = steps.filter((s) => s.kind === "iron").map((s) => s.refs.join(" "));
  expect(iron).toEqual(["J1", "C1 C2 C3 C4"]);
  expect(steps.findIndex((s) => s.kind === "clean")).toBeLessThan(
    steps.findIndex((s) => s.refs.includes("C1")),
  );
  expect(rollUp(washed).minutes.cleaning).toBeCloseTo((rollUp(washed).start * 45) / 60, 9);
  // and paid: beside the same part that only waits for the heat
  const paid = (fitAfter: string) =>
    rollUp({
      ...doc,
      workshop: { ...doc.workshop, hourlyRate: "24" },
      library: library("OX-100N", { fitAfter }),
    });
  expect(paid("wash").total - paid("reflow").total).toBeCloseTo(
    (paid("wash").minutes.cleaning / 60) * 24_000_000,
    -1,
  );
  // nothing is left on the bottom for paste
  expect(steps.filter((s) => s.kind === "print").map((s) => s.side)).toEqual(["top"]);
});

test("what does not stand the heat is soldered after it where an iron reaches it, and said; balls are refused", () => {
  const weak = (peakC: number, more: Partial<RunDocument> = {}) => {
    const doc = twoSided({ method: "stencil", heater: "oven" }, more);
    return { ...doc, library: library("OX-100N", { peakC }) };
  };
  // tin-silver-copper: 235 °C at least on the joint, and 5
  expect(stepsOf(weak(240)).steps.find((s) => s.refs.includes("C1"))!.kind).toBe("place");
  const r = rollUp(weak(239));
  expect(stepsOf(weak(239)).steps.find((s) => s.refs.includes("C1"))!.kind).toBe("iron");
  expect(r.notes.find((n) => n.key === "by-hand-for-heat c")!.text).toBe(
    "C1, C2, C3, C4 are soldered by hand after the heat: the body stands 239 °C, the heat of tin-silver-copper, which is taken for granted, needs 240 °C.",
  );
  const low = weak(200);
  expect(
    stepsOf({ ...low, assembly: { ...low.assembly, alloy: "bismuth" } }).steps.find((s) =>
      s.refs.includes("C1"),
    )!.kind,
  ).toBe("place");
  const balls = weak(200, {
    lines: [madeLine("c", ["C1"], { mpn: "OX-100N", package: "BGA-16" })],
    placements: [{ ref: "C1", xMm: 1, yMm: 1, rotationDeg: 0, side: "top" }],
  });
  expect(rollUp(balls).blockers.find((n) => n.key === "order too-hot C1")!.text).toContain(
    "stands 200 °C, the paste's heat needs 240 °C, and an iron does not reach its joints",
  );
});

test("assemble/1 of Board K: every way, break-evens equal to a scan, steps that add up", () => {
  const doc = boardK();
  const a = assembleDocument(doc);
  expect(a.yield).toMatchObject({ from: "priors", boardsSeen: 0 });
  // 0.0674 of the defects of EX 7.3: the row of six of this board has no direction
  expect(a.yield.firstPass).toBeCloseTo(Math.exp(-0.0674), 9);
  expect(a.start).toBe(31);
  expect(a.routes.map((r) => [r.key, r.own]).slice(0, 3)).toEqual([
    ["iron", false],
    ["stencil-plate", true],
    ["stencil-oven", false],
  ]);
  expect(a.routes[1]).toMatchObject({ start: 31, cannot: [] });
  const r = rollUp(doc);
  expect(Number(a.routes[1]!.perGood)).toBeCloseTo(r.perGood / 1e6, 2);
  const at = (method: "iron" | "stencil", goodBoards: number) =>
    rollUp({ ...doc, goodBoards, assembly: { ...doc.assembly, method } }, { scope: "the best" }).perGood;
  const from = a.breakEven.find((b) => b.route === "stencil-plate" && b.against === "iron")!.quantity;
  // from there on it stays so, and just below it is not so; few quantities further up
  expect(at("stencil", from - 1)).toBeGreaterThan(at("iron", from - 1));
  for (let q = from; q <= 1000; q += q < from + 20 ? 1 : often(61, 7))
    expect([q, at("stencil", q) <= at("iron", q)]).toEqual([q, true]);
  expect(a.steps.reduce((n, s) => n + s.minutes, 0) / 60).toBeCloseTo(a.routes[1]!.hours!, 5);
  expect(a.steps.filter((s) => s.protects !== undefined).map((s) => s.kind)).toEqual(["inspect", "test"]);
});

test("what a house places stands in no step, what nobody solders does; moisture levels as people write them", () => {
  const doc = twoSided({ method: "house", house: "far" });
  const lines = [
    ...doc.lines,
    madeLine("k", ["K1"], { mpn: "", mount: "none" }),
    madeLine("s", [], { mpn: "", mount: "none", qty: 1 }),
  ];
  const { steps } = stepsOf({ ...doc, lines });
  expect(steps.map((s) => [s.kind, s.refs.join(" "), s.lines.map((l) => l.line).join(" ")])).toEqual([
    ["kit", "", ""],
    ["iron", "J1", "j"],
    ["trim", "", ""],
    ["mechanical", "K1", "k"],
    ["test", "", ""],
    ["seal", "", "s"],
  ]);
  const last = (moisture: string) => {
    const one = twoSided({ method: "stencil", heater: "oven" });
    return stepsOf({ ...one, library: library("OX-100N", { moisture }) })
      .steps.flatMap((s) => (s.kind === "place" && s.refs.includes("C1") ? s.because : []))
      .join(" ")
      .includes("opened last");
  };
  expect(["", "1", "2a", "MSL 2", "level 1"].map(last)).toEqual([false, false, false, false, false]);
  expect(["3", "MSL3", "5a", "6", "dry"].map(last)).toEqual([true, true, true, true, true]);
});

test("the test step says how links are set before power, by the version that is made, and which nobody decided", () => {
  const link = (ref: string, set: string, variants = {}) => ({
    id: ref,
    ref,
    positions: [
      { name: "1–2", joins: ["1", "2"] as const, does: "5 V to the display" },
      { name: "open", does: "" },
    ],
    set,
    variants,
    isCap: false,
  });
  const doc = {
    ...boardK(),
    links: [link("J7", "1–2"), link("J8", "1–2", { v: "open" }), link("J9", "")],
    variants: [{ id: "v", name: "V", overrides: {} }],
    choices: { ...boardK().choices, variant: "v" },
  };
  const test = planOfRun(doc, rollUp(doc)).sheet.steps.find((s) => s.kind === "test")!;
  expect(test.how).toEqual([
    "Links are set before power: J7 1–2 (5 V to the display), J8 open.",
    "Not set yet, and nobody said how: J9.",
  ]);
});

test("what a part costs is the mean of what is bought of it and taken from the shelf", () => {
  const doc = twoSided({ method: "stencil", heater: "oven" });
  const lots = [
    {
      id: "l",
      mpn: "OX-100N",
      qty: 20,
      place: "box",
      receivedOn: "2026-01-01",
      unitCost: "0.4",
      currency: "EUR",
      condition: "new" as const,
    },
  ];
  const with_ = { ...doc, lots };
  const r = rollUp(with_);
  const { parts } = workOf(asMade(with_), givenOf(r, asMade(with_)));
  const need = r.needs.find((n) => n.lines.includes("c"))!;
  const bought = need.whole - 20;
  expect(bought).toBeGreaterThan(0);
  expect(parts.find((p) => p.ref === "C1")!.micros).toBeCloseTo(
    (20 * 400_000 + bought * 100_000) / need.whole,
    6,
  );
  // a height the library says goes before the package's
  const high = { ...with_, library: library("OX-100N", { heightMm: 9 }) };
  const rolled = rollUp(high);
  const heightOf = (ref: string) =>
    workOf(asMade(high), givenOf(rolled, asMade(high))).parts.find((p) => p.ref === ref)!.heightMm;
  expect(heightOf("C1")).toBe(9);
  expect(heightOf("R1")).toBeLessThan(1);
});

test("notes: a conflict stands at its lines, one that waits for the test too; a plate is told once; a slip is asked about", () => {
  const doc = twoSided({ method: "stencil", heater: "oven", testAt: ["J1"] });
  const notes = (d: RunDocument) => rollUp(d).notes.filter((n) => n.key.startsWith("order"));
  expect(notes(doc)).toEqual([]);
  // tested at a connector that waits for the test
  const waits = { ...doc, choices: { steps: { school: "low" as const, afterTest: ["j"] } } };
  expect(notes(waits)).toMatchObject([{ key: "order at-test J1", level: "error", lines: ["j"] }]);
  const plate = notes({ ...doc, assembly: { ...doc.assembly, heater: "plate" } });
  expect(plate).toMatchObject([{ key: "order plate C1", lines: ["c"] }]);
  expect(plate[0]!.text).toContain("4 parts of the first are below");
  const slip = notes({ ...doc, assembly: { ...doc.assembly, testAt: ["J1", "J11"], covers: { j: ["R2"] } } });
  expect(slip).toMatchObject([{ key: "order-unknown J11", level: "warning" }]);
  // of two boards with the same references the right one's line
  const two = {
    ...doc,
    boards: [
      { ...doc.boards[0]!, id: "b" },
      { ...doc.boards[0]!, id: "b2", name: "B2" },
    ],
    lines: doc.lines.flatMap((l) => [
      { ...l, board: "b" },
      { ...l, id: `${l.id}2`, board: "b2" },
    ]),
    placements: doc.placements.flatMap((p) => [
      { ...p, board: "b" },
      { ...p, board: "b2" },
    ]),
    assembly: { ...doc.assembly, testAt: [], covers: { r2: ["J1"] } },
  };
  const [hidden] = notes(two);
  expect(hidden!.lines!.toSorted()).toEqual(["j2", "r2"]);
  expect(hidden!.text).toContain("of B2");
});
