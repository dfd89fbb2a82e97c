import { expect, test } from "@jest/globals";
import type { Equipment } from "../../equipment/equipment.ts";
import { holdOf, wantsPlate } from "../../steps/hold.ts";
import { boardK } from "../board-k.fixture.ts";
import type { RunDocument } from "../document/document.ts";
import { rollUp } from "../roll-up.ts";
import { onSheets } from "../sheets.fixture.ts";
import { twoSided } from "../two-sided.fixture.ts";
import { planOfRun } from "./steps-document.ts";

const machine = (kind: Equipment["kind"], name: string, facts: Equipment["facts"], more = {}): Equipment => ({
  id: name,
  kind,
  name,
  facts,
  can: "",
  cannot: "",
  hours: 0,
  state: "ready",
  ...more,
});
const withs = (
  doc: RunDocument,
  assembly: Partial<RunDocument["assembly"]>,
  ...equipment: Equipment[]
): RunDocument => ({
  ...doc,
  equipment,
  assembly: { ...doc.assembly, ...assembly },
});
const keys = (doc: RunDocument) =>
  rollUp(doc)
    .notes.filter((n) => n.stage === "assemble")
    .map((n) => [n.key.split(" ")[0], n.level]);
const sheet = (doc: RunDocument) => planOfRun(doc, rollUp(doc)).sheet;
const step = (doc: RunDocument, kind: string) => sheet(doc).steps.find((s) => s.kind === kind)!;

test("heaters are judged at the heat of each board: of the kind that was chosen, of all while none is", () => {
  const plate = machine("plate", "Plate", { mostC: 260, spaceMm: [400, 300] });
  const oven = machine("oven", "Oven", { mostC: 220, spaceMm: [300, 200], heightMm: 60 });
  const both = withs(onSheets(), {}, plate, oven);
  expect(step(both, "heat").tools.map((t) => [t.name, t.can])).toEqual([
    ["Plate", "yes"],
    ["Oven", "no"],
  ]);
  // one of two will do, so there is nothing to say in the margin
  expect(keys(both)).not.toContainEqual(["equipment-heat", "warning"]);
  const chosen = withs(onSheets(), { heater: "oven" }, plate, oven);
  expect(step(chosen, "heat").tools.map((t) => t.name)).toEqual(["Oven"]);
  expect(keys(chosen)).toContainEqual(["equipment-heat", "warning"]);
  expect(keys(withs(onSheets(), { heater: "oven" }, plate))).toContainEqual(["equipment-none", "warning"]);
  // a shop that lists nothing is not told that it has nothing
  expect(keys(withs(onSheets(), { heater: "oven" }))).not.toContainEqual(["equipment-none", "warning"]);
  // one board is a load of one, whatever a load is set to
  const [b] = boardK().boards;
  const size = {
    ...b!.measure,
    extentMm: [0, 0, 60, 40],
    outline: { ...b!.measure.outline, rings: [[0, 0, 60, 0, 60, 40, 0, 40]] },
  };
  const sized = { ...boardK(), boards: [{ ...b!, measure: size as never }] };
  const tight = machine("plate", "Plate", { mostC: 260, spaceMm: [62, 42] });
  const heats = (doc: RunDocument) => step(withs(doc, { perLoad: 4 }, tight), "heat").tools[0]!.words[0];
  expect(heats(sized)).toBe("takes 1 board of 60 × 40 mm, a load is set to 4");
  expect(heats({ ...sized, goodBoards: 1, confidence: 0.5 })).toBe("takes 1 board at once");
  // what is heated is the sheet its boards are on
  const { widthMm, heightMm } = rollUp(onSheets()).orders[0]!.sheet!;
  const just = (dx: number) =>
    step(
      withs(
        onSheets(),
        { perLoad: 1 },
        machine("plate", "Plate", { mostC: 260, spaceMm: [widthMm + dx, heightMm] }),
      ),
      "heat",
    ).tools[0]!.can;
  expect([just(0), just(-0.1)]).toEqual(["yes", "no"]);
});

test("each line says tip, glass and how it is held; a glass that is too weak is told once, with the part", () => {
  const lens = machine("eyes", "Lamp", { magnifies: 1.75 });
  const station = machine("iron", "Station", { mostC: 450, tips: [{ shape: "chisel", mm: 2.4 }] });
  const doc = withs(boardK(), {}, lens, station);
  const iron = step(doc, "iron");
  expect(iron.tools).toEqual([{ name: "Station", can: "yes", words: [] }]);
  expect(iron.lines.map((l) => [l.tools.tip, l.tools.hold])).toEqual([
    ["chisel 2.4 mm, heats land and lead together", "tack"],
    ["chisel 2.4 mm, heats land and lead together", "tack"],
  ]);
  expect(keys(doc)).toContainEqual(["equipment-sight", "warning"]);
  expect(keys(withs(boardK(), {}, station))).not.toContainEqual(["equipment-sight", "warning"]);
  const held = withs(boardK(), { held: { [iron.lines[0]!.line]: "putty" } }, station);
  expect(step(held, "iron").lines.map((l) => l.tools.hold)).toEqual(["putty", "tack"]);
  expect(step(held, "iron").how.filter((h) => h.includes("putty"))).toHaveLength(1);
});

test("what is soldered unlike the others is a step of its own, after them, and the minutes stay the run's", () => {
  const plain = boardK();
  const line = step(plain, "iron").lines[1]!.line;
  const chip = step(plain, "place").lines[0]!.line;
  const doc = withs(plain, { odd: { [line]: "far", [chip]: "flipped" } });
  const { steps, minutes } = sheet(doc);
  expect(steps.map((s) => [s.kind, s.odd, s.refs.length])).toEqual([
    ["kit", undefined, 0],
    ["print", undefined, 0],
    ["place", undefined, 28 - step(plain, "place").lines[0]!.refs.length],
    ["place", "flipped", step(plain, "place").lines[0]!.refs.length],
    ["heat", undefined, 0],
    ["iron", undefined, 1],
    ["trim", undefined, 0],
    ["iron", "far", 1],
    ["inspect", undefined, 0],
    ["test", undefined, 0],
    ["seal", undefined, 0],
  ]);
  expect(steps.find((s) => s.odd === "far")!.words).toBe("solder by iron: soldered from the far side");
  expect(steps.find((s) => s.odd === "flipped")!.how[0]).toMatch(/change places, and so does its mark/);
  expect(minutes).toBeCloseTo(sheet(plain).minutes, 9);
  expect(steps.reduce((n, s) => n + s.minutes, 0)).toBeCloseTo(minutes, 6);
});

test("water-soluble flux is washed off, and that is counted; water alone under rosin and open bodies are asked about", () => {
  const plain = boardK();
  const washed = withs(plain, { flux: "water" });
  // 45 s a board (domain.md 7.3: 30 to 60 s)
  const extra = rollUp(washed).ownMinutes - rollUp(plain).ownMinutes;
  expect(extra).toBeCloseTo((31 * 45) / 60, 9);
  expect(step(washed, "clean").how.join(" ")).toContain("Within the working day");
  expect(step(withs(plain, { cleaner: "solvent" }), "clean").how[0]).toMatch(/^The solvent/);
  expect(sheet(withs(plain, { flux: "rosin" })).steps.map((s) => s.kind)).not.toContain("clean");
  expect(keys(withs(plain, { flux: "rosin", cleaner: "water" }))).toContainEqual(["wash-white", "warning"]);
  expect(keys(withs(plain, { flux: "rosin", cleaner: "solvent" }))).not.toContainEqual([
    "wash-white",
    "warning",
  ]);
  const bath = machine("washer", "Bath", { cleans: "solvent" });
  expect(step(withs(plain, { flux: "water" }, bath), "clean").tools[0]!.can).toBe("no");
  expect(step(withs(plain, { cleaner: "solvent" }, bath), "clean").tools[0]!.can).toBe("yes");
  const key = { ...plain, lines: plain.lines.map((l) => (l.refs[0] === "J1" ? { ...l, refs: ["SW1"] } : l)) };
  expect(keys(withs(key, { flux: "water" })).map(([k]) => k)).toContain("wash-open");
  expect(keys(withs(key, { flux: "noclean" })).map(([k]) => k)).not.toContain("wash-open");
});

test("alloys of paste, wire and finish are held against each other", () => {
  const k = (a: Partial<RunDocument["assembly"]>, finish?: string) =>
    keys({
      ...withs(boardK(), a),
      options: finish ? { ...boardK().options, finish } : boardK().options,
    }).filter(([key]) => key!.startsWith("alloy"));
  expect(k({})).toEqual([]);
  expect(k({ alloy: "silver", wire: "silver" })).toEqual([]);
  expect(k({ alloy: "silver", wire: "lead" })).toEqual([
    ["alloy-mixed", "warning"],
    ["alloy-lead", "warning"],
  ]);
  expect(k({ alloy: "bismuth", wire: "lead" })).toEqual([
    ["alloy-bismuth-lead", "error"],
    ["alloy-lead", "warning"],
  ]);
  expect(k({ alloy: "lead" })).toEqual([["alloy-lead", "warning"]]);
  // all by iron: the paste that is not used says nothing
  expect(k({ method: "iron", alloy: "lead", wire: "silver" })).toEqual([]);
});

test("what is loaded where is asked for, and stands at the step", () => {
  const doc = withs(boardK(), { programAt: ["J1"] });
  expect(keys(doc)).toContainEqual(["order-unloaded", "warning"]);
  const said = withs(boardK(), { programAt: ["J1"], programs: { J1: "start-up 1.2, then watch 3.0; own" } });
  expect(keys(said)).not.toContainEqual(["order-unloaded", "warning"]);
  expect(step(said, "program").how).toEqual(["J1: start-up 1.2, then watch 3.0; own."]);
});

// worked: what has pegs says so; two leads bend; few joints and tall want putty; many joints are tacked
test.each([
  [{ kind: "through", package: "HDR-1X04", joints: 4, heightMm: 8.5 }, "tack"],
  [{ kind: "through", package: "TERM-5.08-2", joints: 2, heightMm: 10 }, "bend"],
  [{ kind: "through", package: "RADIAL-10", joints: 2, heightMm: 12.5 }, "putty"],
  [{ kind: "through", package: "TO-220", joints: 3, heightMm: 19 }, "putty"],
  [{ kind: "through", package: "RADIAL-10", joints: 2 }, "bend"],
  [{ kind: "connector", package: "USB PEG", joints: 9 }, "peg"],
  [{ kind: "gull", package: "SOIC-8", joints: 8 }, undefined],
] as const)("%j is held by %s", (part, hold) => {
  expect(holdOf(part)).toBe(hold);
});

test("three of several heights want a plate", () => {
  expect(wantsPlate([{ heightMm: 8 }, { heightMm: 8.5 }, { heightMm: 8 }])).toBe(false);
  expect(wantsPlate([{ heightMm: 8 }, { heightMm: 8.6 }, { heightMm: 8 }])).toBe(true);
  expect(wantsPlate([{ heightMm: 8 }, { heightMm: 20 }, {}])).toBe(false);
});

test("what copper, small parts and plastic want in the heat is told of the side that is melted", () => {
  const board = {
    ...twoSided({ method: "stencil" }).boards[0]!.measure,
    copperShare: { top: 0.61, bottom: 0.6 },
  };
  const two = twoSided({ method: "stencil" });
  const doc = {
    ...two,
    boards: [{ ...two.boards[0]!, measure: board }],
    lines: two.lines.map((l) =>
      l.id === "r" ? { ...l, package: "R-0402" } : l.id === "c" ? { ...l, package: "CONN-2" } : l,
    ),
  };
  const heats = (heater: "air" | "oven") =>
    sheet(withs(doc, { heater })).steps.filter((s) => s.kind === "heat");
  const of = (heater: "air" | "oven", side: string) =>
    heats(heater)
      .find((s) => s.side === side)!
      .how.filter((h) => /Copper|air takes|plastic/.test(h));
  const copper = "Copper covers 61 % of top: it warms slowly, and what is joined to it melts last.";
  expect(of("air", "top")).toEqual([
    copper,
    "The air takes small ones along: least flow, straight from above, over R1, R2, R3, R4, R5 and 3 more.",
  ]);
  expect(of("oven", "top")).toEqual([copper]);
  expect(of("air", "bottom")).toEqual([
    copper,
    "Bodies of plastic in this heat: C1, C2, C3, C4; shielded from the stream.",
  ]);
});
