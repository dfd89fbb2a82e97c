import { expect, test } from "@jest/globals";
import { often } from "../../../test/long.ts";
import { chance } from "../../../test/random.ts";
import { madeUpRuns } from "../../../test/second/made-up.ts";
import type { Method } from "../../assembly/method.ts";
import { basketTables, planPackage } from "../../release/plan.ts";
import { asMade } from "../document/bill/as-made.ts";
import type { RunDocument } from "../document/document.ts";
import { layChange } from "../document/lay-change.ts";
import { lineParts } from "../document/parts.ts";
import { isMixed, mayHeat } from "../document/ways.ts";
import { FAR, madeLine, madeMeasure, STAND_IN } from "../made-up.fixture.ts";
import { leftOffPaste, offOwnFoil } from "../needs/off-paste.ts";
import { rollUp } from "../roll-up.ts";
import { foilWishes } from "../stencil/foil-cut.ts";
import { place, refs, twoSided } from "../two-sided.fixture.ts";
import { ownWork } from "./own-work.ts";
import { routesOf } from "./routes.ts";
import { orderOfRun } from "./work.ts";

const WAYS = ["iron", "stencil", "house"] as const satisfies readonly Method[];
const bothPasted = {
  boards: [
    {
      id: "b",
      name: "B",
      perProduct: 1,
      measure: madeMeasure({ paste: { top: { count: 16, areaMm2: 9 }, bottom: { count: 8, areaMm2: 5 } } }),
    },
  ],
};
const split = (assembly: Partial<RunDocument["assembly"]>, more: Partial<RunDocument> = {}) =>
  twoSided({ method: "house", house: "far", ...assembly }, { ...bothPasted, ...more });
const time = (doc: RunDocument) => {
  const { print, place: lay, reflow, solder } = rollUp(doc).time;
  return [print, lay, reflow, solder];
};

test("a house places the top, the bottom is soldered here by iron: each is paid and timed for what it does", () => {
  const doc = split({ sides: { bottom: "iron" } });
  const r = rollUp(doc);
  // four chips of 25 s, a row of four pins of 8 + 4 × 7 s
  expect(time(doc)).toEqual([0, 0, 0, 136]);
  // one side, one feeder, 8 × 2 joints of ten boards: 45 + 25 + 1.80 + 1.44, up to the least charge of 90
  expect(r.assembly!.terms.map((t) => [t.label, t.micros / 1e6])).toEqual([
    ["set-up", 45],
    ["stencil", 25],
    ["unique parts", 1.8],
    ["joints", 1.44],
    ["up to the least charge", 16.76],
  ]);
  // 10⁶ λ: 8 × (2 × 40 + 60) there; 4 × (2 × 400 + 1500) and 4 × 400 + 1500 here
  expect(r.yield.lambda * 1e6).toBeCloseTo(1120 + 9200 + 3100, 6);
  // mended here is what was soldered here: joints 3 min each, placing 5, 6 min to find what is wrong
  const own = 0.0123;
  const mend = (0.0032 + 0.0016) * 3 + (0.006 + 0.0015) * 5 + 6 * (1 - Math.exp(-own));
  const row = ownWork(doc, r).find((w) => w.label === "find and mend defects");
  expect(row!.each).toBeCloseTo(mend, 9);
  // set up for the house's files and questions; an iron beside it is not set up again
  expect(r.minutes.setup).toBe(30);
  expect(r.tree.children.find((c) => c.key === "assembly")!.children.map((c) => c.key)).toEqual([
    "house-price",
    "house-parcels",
    "own-hours",
    "consumables",
  ]);
  expect(r.cash.map((c) => c.key)).toEqual(expect.arrayContaining(["assembly", "consumables"]));
  expect(r.cash.some((c) => c.key === "stencil")).toBe(false);
});

test("the bottom with paste here: one foil, one print and heat, after the house's side; both are set up", () => {
  const doc = split({ sides: { bottom: "stencil" }, heater: "oven", perLoad: 4, stencilPrice: "22.00" });
  const r = rollUp(doc);
  expect(r.sides.own.patterns.map((p) => p.sides)).toEqual([1]);
  expect(r.sides.house.ofDesigns).toBe(1);
  // a print of 60 s, four chips of 6 s, 360 s a load of four, the pins by iron
  expect(time(doc)).toEqual([60, 24, 90, 36]);
  // 30 for the house, 35 for one foil, 15 for the oven's profile
  expect(r.minutes.setup).toBe(80);
  expect(r.cash.find((c) => c.key === "stencil")!.micros).toBe(22e6);
  const { steps, conflicts } = orderOfRun(asMade(doc), r);
  expect(conflicts).toEqual([]);
  expect(steps.filter((s) => s.side).map((s) => [s.kind, s.side])).toEqual([
    ["print", "bottom"],
    ["place", "bottom"],
    ["heat", "bottom"],
  ]);
  // of the foil: what goes on at the house is left out on every side, as drawn too
  expect(offOwnFoil(doc, "b").map((x) => x.ref)).toEqual(refs("R", 8));
  const cut = (d: RunDocument) => foilWishes(d, "b", "top").without.map((x) => x.ref);
  expect([cut(doc), cut(split({ sides: { bottom: "house" } }))]).toEqual([refs("R", 8), []]);
  expect(leftOffPaste(doc, "b").map((x) => `${x.ref} ${x.because}`)).toEqual([
    "J1 is soldered by hand",
    ...refs("R", 8).map((x) => `${x} goes on at the house`),
  ]);
});

test("what cannot be beside a house is named, with what frees it", () => {
  const told = (doc: RunDocument) =>
    orderOfRun(asMade(doc), rollUp(doc)).conflicts.map((c) => [
      c.kind,
      c.refs.join(" "),
      c.remedies.map((x) => x.kind).join(" "),
    ]);
  const below = refs("C", 4).join(" ");
  // a plate heats boards that lie flat, and they lie on the house's parts
  expect(told(split({ sides: { bottom: "stencil" }, heater: "plate" }))).toEqual([
    ["plate", below, "by-hand heater"],
  ]);
  // no foil lies on a side the house has put parts on
  const over = split(
    { ways: { c: "stencil" }, heater: "oven" },
    { placements: [...refs("R", 8), ...refs("C", 4)].map((x) => place(x, "top")) },
  );
  expect(told(over)).toEqual([["printed-over", below, "by-hand"]]);
  expect(rollUp(over).blockers.map((n) => n.key)).toContain("order printed-over C1");
  // nor where pins of the house's stand out of it, on whichever side; and a plate has them below
  const pins = { ways: { j: "house" as const } };
  expect(told({ ...twoSided({ method: "stencil", heater: "oven", ...pins }), ...bothPasted })).toEqual(
    [
      ["printed-over", `${refs("R", 8).join(" ")}`, "by-hand"],
      ["printed-over", below, "by-hand"],
    ].sort((a, b) => b[1]!.localeCompare(a[1]!)),
  );
  // 5 g on 8 × 2 mm² would fall when the other side melts; 0.5 g would not
  const heavy = (massMg: number) =>
    told(
      split(
        { sides: { bottom: "stencil" }, heater: "oven" },
        { library: [{ ...STAND_IN, mpn: madeLine("r", []).mpn, massMg, wettedMm2: 16 }] },
      ),
    ).map(([kind]) => kind);
  expect([heavy(5000).length, heavy(500)]).toEqual([8, []]);
  expect(new Set(heavy(5000))).toEqual(new Set(["falls"]));
});

test("a line whose parts sit on both sides goes both ways: bought once, lost and paid by each", () => {
  const placements = [
    ...refs("R", 5).map((x) => place(x, "top")),
    ...["R6", "R7", "R8", ...refs("C", 4)].map((x) => place(x, "bottom")),
  ];
  const doc = split({ sides: { bottom: "iron" } }, { placements });
  expect(lineParts(doc).map((p) => [p.line.id, p.method, p.count, p.line.refs.join(" ")])).toEqual([
    ["r", "house", 5, "R1 R2 R3 R4 R5"],
    ["r", "iron", 3, "R6 R7 R8"],
    ["c", "iron", 4, "C1 C2 C3 C4"],
    ["j", "iron", 1, "J1"],
  ]);
  const r = rollUp(doc);
  const need = r.needs.find((n) => n.lines.includes("r"))!;
  expect([need.lines, need.terms.map((t) => [t.by, t.net])]).toEqual([
    ["r"],
    [
      ["machine", 50],
      ["hand", 30],
    ],
  ]);
  // lost: by machine ⌈50 × 2 %⌉, at least 10; by hand ⌈30 × 5 %⌉, at least 3
  expect(need.lost).toBe(13);
  // without a number it is one purchase all the same
  const nameless = { ...doc, lines: doc.lines.map((l) => (l.id === "r" ? { ...l, mpn: "" } : l)) };
  expect(rollUp(nameless).needs.filter((n) => n.lines.includes("r"))).toHaveLength(1);
  // the house's list has its own, the list of what is left to us the others
  const plan = planPackage(doc, r);
  const placed = plan.tables.find((t) => t.path === "assembly/placement.csv")!;
  expect(placed.rows.slice(1).map((row) => row[0])).toEqual(refs("R", 5));
  const fitted = plan.tables.find((t) => t.rows[0]!.includes("Mounted"))!;
  const at = fitted.rows[0]!.indexOf("Mounted");
  expect(fitted.rows.slice(1).map((row) => row[at])).toEqual([
    "R1 R2 R3 R4 R5 by machine; R6 R7 R8 by hand",
    "by hand",
    "by hand",
  ]);
  const sheet = plan.sheets.find((s) => s.title.startsWith("Assembly"))!;
  expect(JSON.stringify(sheet)).toContain('"R6 R7 R8"');
  expect(sheet.notes).toContain("No paste on the pads of what is left to us.");
  expect(basketTables(doc, r).length).toBeGreaterThan(0);
});

test("paste is no way for what goes through the board, and a house nothing goes to is not paid", () => {
  const doc = split({ method: "iron", ways: { j: "stencil" } });
  expect(lineParts(doc).find((p) => p.line.id === "j")!.method).toBe("iron");
  // as all hand parts go: at the house that places where that is said, else by iron here
  const pins = (assembly: Partial<RunDocument["assembly"]>) =>
    lineParts(split(assembly)).find((p) => p.line.id === "j")!.method;
  expect([
    pins({ handParts: "house" }),
    pins({ handParts: "here" }),
    pins({ method: "iron", handParts: "house" }),
  ]).toEqual(["house", "iron", "iron"]);
  const none = rollUp(split({ sides: { top: "iron", bottom: "iron" } }));
  expect([none.assembly, none.unpriced.assembly, [...none.goes]]).toEqual([undefined, false, ["iron"]]);
  expect(none.blockers.filter((n) => n.key.startsWith("assembly-house"))).toEqual([]);
  // what is not soldered at all goes nowhere, whatever is said of the side it is taken to lie on
  const screws = madeLine("s", [], { mpn: "OX-S", mount: "none", qty: 4 });
  const below = rollUp(
    split(
      { method: "stencil", heater: "oven", sides: { top: "house" } },
      {
        lines: [...doc.lines, screws],
        placements: [...refs("R", 8), ...refs("C", 4)].map((x) => place(x, "bottom")),
      },
    ),
  );
  expect([[...below.goes], below.assembly]).toEqual([["stencil"], undefined]);
  // a line alone at the house: what goes through the board too, where it is said
  const alone = split({ method: "iron", ways: { j: "house" } });
  expect(rollUp(alone).assembly!.terms.find((t) => t.label === "joints by hand")!.note).toContain("× 4 ×");
});

test("heat is where paste is melted, here or at a house, and a foil leaves out what is of its own board", () => {
  const heats = (assembly: object) => mayHeat({ assembly: { ...split({}).assembly, ...assembly } });
  expect([
    heats({ method: "iron" }),
    heats({ method: "stencil" }),
    heats({ method: "house" }),
    heats({ method: "iron", ways: { r: "house" } }),
    heats({ method: "iron", sides: { top: "stencil" } }),
  ]).toEqual([false, true, true, true, true]);
  const doc = split({ sides: { bottom: "stencil" } });
  const two = {
    ...doc,
    boards: [...doc.boards, { ...doc.boards[0]!, id: "other", name: "Other" }],
    lines: doc.lines.map((l) => ({ ...l, board: "b" })),
    placements: doc.placements.map((p) => ({ ...p, board: "b" })),
  };
  expect([offOwnFoil(two, "b").length, offOwnFoil(two, "other"), offOwnFoil(two, undefined).length]).toEqual([
    8,
    [],
    8,
  ]);
});

test("a house that nobody chose is said to be taken", () => {
  const said = (house?: string) => {
    const { house: _, ...assembly } = split({ sides: { bottom: "iron" } }).assembly;
    const doc = split({});
    const r = rollUp({ ...doc, assembly: { ...assembly, ...(house ? { house } : {}) } });
    return r.notes.filter((n) => n.key.startsWith("assembly-house")).map((n) => `${n.level} ${n.key}`);
  };
  expect([said(), said("far"), said("gone")]).toEqual([
    ["remark assembly-house-taken"],
    [],
    ["warning assembly-house-other"],
  ]);
});

test("what lies turned in a house's file is what goes to it, and nothing else", () => {
  const turned = { ...FAR, assembly: { ...FAR.assembly!, turns: { "0603": 90 } } };
  const said = (assembly: object) =>
    rollUp(split(assembly, { houses: [turned] })).notes.find((n) => n.key === "assembly-turned")?.text ?? "";
  expect(said({ sides: { bottom: "iron" } })).toContain(`+90°: ${refs("R", 8).join(", ")}.`);
  expect(said({})).toContain(`+90°: ${[...refs("R", 8), ...refs("C", 4)].join(", ")}.`);
});

test("closed runs tell nothing of one whose parts go several ways, nor does it of them", () => {
  const past = (more: object) =>
    [1, 2, 3].map((i) => ({
      name: `run ${i}`,
      closedOn: "2026-10-01",
      method: "house" as const,
      good: 90,
      scrapped: 10,
      minutes: 0,
      modelMinutes: 0,
      ...more,
    }));
  const record = (assembly: object, more: object) =>
    rollUp(split(assembly, { past: past(more) })).yield.record?.runs;
  expect([record({}, {}), record({}, { isMixed: true }), record({ sides: { bottom: "iron" } }, {})]).toEqual([
    3,
    undefined,
    undefined,
  ]);
});

test("a quotation for what the house placed does not hold for other parts", () => {
  const quote = (placed?: string) => ({
    id: "q",
    house: "far",
    kind: "assembly" as const,
    total: "99.00",
    currency: "EUR",
    days: 7,
    capturedOn: "2026-11-01",
    basis: {
      boards: 10,
      options: {},
      revision: "A",
      handParts: "here" as const,
      ...(placed ? { placed } : {}),
    },
  });
  const misfits = (assembly: object, placed?: string) =>
    rollUp(split(assembly, { quotes: [quote(placed)] as never })).assembly!.quotation!.misfits;
  const bottom = { sides: { bottom: "iron" as const } };
  expect(misfits(bottom)).toEqual(["all that is placed, now 8 parts on the top, 0 on the bottom"]);
  expect(misfits(bottom, "8 parts on the top, 0 on the bottom")).toEqual([]);
  expect(misfits({}, "8 parts on the top, 0 on the bottom")).toEqual([
    "8 parts on the top, 0 on the bottom, now all that is placed",
  ]);
});

test("ways by side and by what is hard stand beside the whole ones; a choice like none is a row of its own", () => {
  const doc = split({ handParts: "here" });
  const rows = (d: RunDocument) => routesOf(d, rollUp(d));
  const keys = rows(doc).map((x) => x.key);
  expect(keys).toEqual(expect.arrayContaining(["house:far:top:iron", "house:far:top:stencil"]));
  expect(keys).not.toContain("house:far:hard");
  // what lies on parts cannot lie on a plate; an iron is not asked what melts
  for (const [heater, becomes] of [
    ["plate", "oven"],
    [undefined, "oven"],
    ["air", undefined],
  ] as const) {
    const flat = rows(split(heater ? { heater } : {})).filter((x) => x.key.startsWith("house:far:top"));
    expect(flat.map((x) => x.change.heater)).toEqual([undefined, becomes]);
  }
  const below = (assembly: object) =>
    rollUp(split({ sides: { bottom: "stencil" }, ...assembly })).notes.map((n) => n.key);
  expect(
    [below({}), below({ heater: "oven" }), below({ sides: { bottom: "iron" } })].map((keys) =>
      keys.includes("house-parts-below"),
    ),
  ).toEqual([true, false, false]);
  // of as many joints above and below, the top goes to the house; of more below, the bottom
  const order = [...refs("R", 8), ...refs("C", 4)];
  const above = (n: number) =>
    rows(split({}, { placements: order.map((x, i) => place(x, i < n ? "top" : "bottom")) })).some(
      (x) => x.key === "house:far:top:iron",
    );
  expect([above(6), above(5)]).toEqual([true, false]);
  // without an opening below there is no print there
  const bare = split({}, { boards: [{ id: "b", name: "B", perProduct: 1, measure: madeMeasure() }] });
  expect(rows(bare).find((x) => x.key === "house:far:top:stencil")!.cannot).toBe(
    "there is no paste layer of the bottom",
  );
  // with a fine chip: what is hard to the house
  const fine = split(
    {},
    {
      lines: [...doc.lines, madeLine("u", ["U1"], { package: "QFN-24", mpn: "OX-U" })],
      placements: [...doc.placements, place("U1", "top")],
    },
  );
  const hard = rows(fine).find((x) => x.key === "house:far:hard")!;
  expect(hard.assembly).toMatchObject({ method: "iron", house: "far", ways: { u: "house" } });
  // a way that is taken is the own one, and a whole way takes back what was said of sides and lines
  for (const d of [doc, fine])
    for (const route of rows(d).filter((x) => !x.cannot)) {
      const taken = layChange(d, { assembly: route.change });
      expect([route.key, rows(taken).find((x) => x.isOwn)?.key]).toEqual([route.key, route.key]);
      expect(rows(layChange(taken, { assembly: rows(taken)[0]!.change }))[0]!.isOwn).toBe(true);
    }
  const odd = split({ ways: { r: "iron" } });
  expect(
    rows(odd)
      .filter((x) => x.isOwn)
      .map((x) => x.key),
  ).toEqual(["chosen"]);
});

test("whatever goes where, every part goes one way, and time, parts, foils and money are those of the ways", () => {
  const { pick, is } = chance(38);
  let [mixed, both] = [0, 0];
  for (const plain of madeUpRuns(often(80, 400), 381)) {
    const ways = Object.fromEntries(plain.lines.flatMap((l) => (is(0.3) ? [[l.id, pick(WAYS)]] : [])));
    const sides = { ...(is(0.5) ? { top: pick(WAYS) } : {}), ...(is(0.5) ? { bottom: pick(WAYS) } : {}) };
    const doc: RunDocument = { ...plain, assembly: { ...plain.assembly, ways, sides } };
    const r = rollUp(doc);
    const whole = rollUp(plain);
    // every reference stands in one part, as often as before, and pieces before losses are the same
    const all = (x: typeof r) =>
      x.parts.flatMap((p) => p.line.refs.map((ref) => `${p.line.id} ${ref}`)).sort();
    expect(all(r)).toEqual(all(whole));
    const pieces = (x: typeof r) => x.parts.reduce((n, p) => n + p.count, 0);
    expect(pieces(r)).toBeCloseTo(pieces(whole), 9);
    if (r.parts.length > whole.parts.length) both++;
    if (r.goes.size > 1) mixed++;
    // steps: what is ours in one, what is the house's in none; their minutes are the own minutes
    const { steps } = orderOfRun(asMade(doc), r);
    const done = steps.flatMap((s) => (["place", "iron", "mechanical"].includes(s.kind) ? s.refs : []));
    const ours = r.parts.filter((p) => p.kind === "loose" || p.method !== "house");
    expect([...done].sort().length).toBe(ours.reduce((n, p) => n + p.line.refs.length, 0));
    expect(steps.reduce((n, s) => n + s.minutes, 0)).toBeCloseTo(r.ownMinutes, 6);
    expect(ownWork(doc, r).reduce((n, w) => n + w.all, 0)).toBeCloseTo(r.ownMinutes, 6);
    // a house is there exactly where something goes to one, a print where something is pasted here
    const goes = (m: Method) => r.parts.some((p) => p.method === m && p.kind !== "loose");
    if (isMixed(doc))
      expect([r.goes.has("house"), r.assembly !== undefined && !goes("house"), r.time.print > 0]).toEqual([
        goes("house"),
        false,
        goes("stencil"),
      ]);
    // money: leaves add up, and the cash of the assembly is what the tree has of it
    const assembly = r.tree.children.find((c) => c.key === "assembly")!;
    expect(assembly.children.reduce((n, c) => n + c.micros, 0)).toBeCloseTo(assembly.micros, -1);
    expect(assembly.children.some((c) => c.key === "stencil")).toBe(r.goes.has("stencil"));
  }
  expect([mixed > 40, both > 5]).toEqual([true, true]);
});
