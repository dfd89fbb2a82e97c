import { expect, test } from "@jest/globals";
import type { House } from "../../fab/house.ts";
import { fabQuote } from "../../fab/price.ts";
import { choiceOf } from "../../panel/choice.ts";
import { solvePanel } from "../../panel/lay/solve.ts";
import { DEFAULT_SPEC, isRefusal, type PanelDesign } from "../../panel/spec.ts";
import { runShape } from "../../shape/run.ts";
import { boardK } from "../board-k.fixture.ts";
import type { RunDocument } from "../document/document.ts";
import { fabRequest } from "../fab/fab-request.ts";
import { FAR, madeMeasure } from "../made-up.fixture.ts";
import { rollUp } from "../roll-up.ts";
import { panelOf, runDesigns, sheetFacts, sheetsFor } from "../sheet/panel.ts";
import { measure, onSheets, panelNotes, single, small } from "../sheets.fixture.ts";
import { whatIf } from "../what-if.ts";
import { panelOffers } from "./panel-proposals.ts";

/** Boards are etched here. */
const BENCH: House = {
  ...FAR,
  id: "bench",
  bench: { setupMin: 30, perBoardMin: 20, secondsAHole: 5, yield: 0.9 },
};

test("four on a sheet: its size, its holes, and the house's price of ten sheets by the formula", () => {
  const doc = onSheets();
  const panel = panelOf(doc)!;
  // 2 × 50 + 2 across; 2 × 40 + 2 + 2 × (7 + 2) along
  expect([panel.choice.widthMm, panel.choice.heightMm]).toEqual([102, 100]);
  // between columns 2 × 2 tabs, between rows 2 × 2, with two rows of six each; to the rails 8 with one; 4 tooling holes
  expect(panel.choice.holes).toBe(4 * 12 + 4 * 12 + 8 * 6 + 4);
  expect(sheetFacts(doc, panel)).toMatchObject({
    widthMm: 102,
    heightMm: 100,
    layers: 2,
    holes: 4 * 180 + 148,
  });
  const r = rollUp(doc);
  const [o] = r.orders;
  // 31 or so are started, eight sheets would do, the house sells in fives
  expect(sheetsFor(doc, panel, r.start)).toBe(8);
  expect(o!.sheet).toEqual({ sheets: 10, perSheet: 4, widthMm: 102, heightMm: 100 });
  expect(o!.quote.pieces).toBe(40);
  // 14 + 9 + (6 + 10 × 0.02) + 10.2 dm² × (2.40 + 1.50) × 0.82
  expect(o!.quote.boards / 1e6).toBeCloseTo(14 + 9 + 6.2 + 10.2 * 3.9 * 0.82, 2);
});

test("boards a sheet has beyond those needed stay bare, or are started: a choice that says what it changes", () => {
  const [a, b] = [rollUp(single()), rollUp(onSheets())];
  expect([a.start, b.start, b.orders[0]!.quote.pieces]).toEqual([31, 31, 40]);
  const { overrun } = whatIf(onSheets(), b);
  expect(overrun.map((e) => [e.value, e.label, e.isChosen])).toEqual([
    ["bare", "left bare", true],
    ["start", "started too, 1 more", false],
  ]);
  const all = onSheets();
  const started = rollUp({ ...all, choices: { ...all.choices, overrun: "start" } });
  expect([started.start, started.orders[0]!.quote.pieces]).toEqual([32, 40]);
  expect(overrun[1]!.perGood).toBeCloseTo((started.perGood - b.perGood) / 1e6, 6);
  // where every board of the sheets is needed there is nothing to choose
  expect(whatIf(single(), a).overrun).toEqual([]);
});

test("one print a sheet; parting takes own time at its stage", () => {
  const [a, b] = [rollUp(single()), rollUp(onSheets())];
  expect(a.time.print).toBe(60);
  expect(b.time.print).toBe(15);
  // the sheet goes onto the plate with four, as many as there were before
  expect(b.time.reflow).toBe(a.time.reflow);
  // 15 s a board at 24 an hour
  expect((b.stages.panel.micros * b.expectedGood) / 1e6).toBeCloseTo(((b.start * 15) / 3600) * 24, 4);
  expect(a.stages.panel.micros).toBe(0);
  const sum = b.tree.children.reduce((n, c) => n + c.micros, 0);
  expect(sum).toBeCloseTo(b.total, 0);
});

test("two boards of a product on one sheet share its price by area, to the cent", () => {
  const doc = boardK({
    boards: [
      { id: "a", name: "A", perProduct: 1, measure },
      { id: "b", name: "B", perProduct: 2, measure: small },
    ],
    house: FAR,
    houses: [FAR],
  });
  const spec = { ...DEFAULT_SPEC, counts: [2, 4], turns: [[0], [0]], separation: "tabs" as const };
  const made = solvePanel(runDesigns(doc) as PanelDesign[], spec);
  if (isRefusal(made)) throw new Error(made.reason);
  const on = { ...doc, choices: { ...doc.choices, panel: choiceOf(made, spec, ["a", "b"]) } };
  const r = rollUp(on);
  const [p, q] = r.orders;
  expect([p!.quote.pieces / p!.sheet!.sheets, q!.quote.pieces / q!.sheet!.sheets]).toEqual([2, 4]);
  expect(p!.sheet!.sheets).toBe(q!.sheet!.sheets);
  // 2 × 2000 against 4 × 400
  expect(p!.quote.boards / q!.quote.boards).toBeCloseTo(4000 / 1600, 1);
  for (const o of r.orders) {
    expect(o.quote.boards % 10_000).toBe(0);
    // what rounding leaves between the terms and the sum is less than a cent a term
    const terms = o.quote.sum.reduce((n, t) => n + t.micros, 0);
    expect(Math.abs(terms - o.quote.total)).toBeLessThan(10_000 * o.quote.sum.length);
  }
  const whole = fabQuote(FAR, sheetFacts(on, panelOf(on)!), r.options!, p!.sheet!.sheets);
  expect(p!.quote.boards + q!.quote.boards).toBe(whole.boards);
});

test("boards on one sheet are printed through one foil, as large as the sheet; what is cut for it must hold it", () => {
  const foils = {
    loose: "14.00",
    framed: "38.00",
    secondSide: "6.00",
    freight: "5.00",
    days: 3,
    largestMm: [190, 130] as const,
  };
  const cutter: House = { ...FAR, id: "s", name: "Foils", layers: [], foils };
  const base = single({ houses: [FAR, cutter] });
  const doc = {
    ...base,
    boards: [
      { id: "a", name: "A", perProduct: 1, measure },
      { id: "b", name: "B", perProduct: 1, measure: small },
    ],
    assembly: { ...base.assembly, method: "stencil" as const, foilHouse: "s" },
  };
  const spec = { ...DEFAULT_SPEC, counts: [2, 2], turns: [[0], [0]], separation: "tabs" as const };
  const made = solvePanel(runDesigns(doc) as PanelDesign[], spec);
  if (isRefusal(made)) throw new Error(made.reason);
  const panel = choiceOf(made, spec, ["a", "b"]);
  const on = { ...doc, choices: { ...doc.choices, panel } };
  const stencil = (d: RunDocument) => {
    const assembly = rollUp(d).tree.children.find((c) => c.key === "assembly")!;
    return assembly.children.find((c) => c.key === "stencil")!.micros / 1e6;
  };
  // two boards, two foils; on one sheet one
  expect([stencil(doc), stencil(on)]).toEqual([33, 19]);
  expect(rollUp(on).sides.own).toMatchObject({
    ofDesigns: 1,
    patterns: [{ name: "the sheet", sides: 1, widthMm: made.widthMm, heightMm: made.heightMm }],
  });
  const tooLarge = (d: RunDocument) => rollUp(d).notes.filter((n) => n.key.startsWith("foil-too-large"));
  // 68 × 122 mm and 20 mm around: 162 × 108
  expect([made.widthMm, made.heightMm]).toEqual([68, 122]);
  expect(tooLarge(on)).toEqual([]);
  const narrow = { ...cutter, foils: { ...foils, largestMm: [161, 130] as const } };
  expect(tooLarge({ ...on, houses: [FAR, narrow] }).map((n) => [n.level, n.text])).toEqual([
    [
      "error",
      "Foils cuts foils of 161 × 130 mm at most: the sheet, 68 × 122 mm with 20 mm around it, does not go on one.",
    ],
  ]);
  // the own press holds less than the house cuts: said, and both sides are not put on one foil for it
  const pressed = (pressMm: [number, number]) =>
    rollUp({ ...on, assembly: { ...on.assembly, pressMm } }).notes.filter((n) =>
      n.key.startsWith("foil-press"),
    );
  expect(pressed([162, 108])).toEqual([]);
  expect(pressed([108, 161]).map((n) => [n.level, n.text])).toEqual([
    [
      "warning",
      "Your press holds foils of 108 × 161 mm: the sheet, 68 × 122 mm with 20 mm around it, does not go in.",
    ],
  ]);
  // single boards fit, and a foil that is there already is not cut
  expect(tooLarge({ ...doc, houses: [FAR, narrow] })).toEqual([]);
});

test("a quotation for single boards does not hold for sheets, nor the other way round", () => {
  const doc = onSheets();
  const request = fabRequest(doc, FAR, rollUp(doc).start);
  expect(request.boards).toEqual([expect.objectContaining({ widthMm: 102, heightMm: 100, pieces: 10 })]);
  expect(request.basis.sheet).toBe("sheets of 4, 102 × 100 mm");
  const quote = {
    house: "far",
    kind: "fab" as const,
    total: "99.00",
    currency: "EUR",
    days: 9,
    capturedOn: "2026-11-10",
  };
  const held = rollUp({ ...doc, quotes: [{ ...quote, basis: request.basis }] });
  expect(held.orders[0]!.quoted?.total).toBe("99.00");
  const { sheet: _, ...bare } = request.basis;
  const not = rollUp({ ...doc, quotes: [{ ...quote, basis: bare }] });
  expect(not.orders[0]!.unfit?.misfits).toEqual(["single boards, now it is sheets of 4, 102 × 100 mm"]);
});

test("a sheet is judged anew with the boards there are: another outline, a small house, a foil of single boards", () => {
  const doc = onSheets();
  expect(panelNotes(doc).filter((n) => n.level === "error")).toEqual([]);
  const wider = {
    ...measure,
    outline: { ...measure.outline!, widthMm: 54, rings: [[0, 0, 54, 0, 54, 40, 0, 40]] },
    extentMm: [0, 0, 54, 40] as const,
  };
  const grown = { ...doc, boards: [{ ...doc.boards[0]!, measure: wider }] };
  expect(panelNotes(grown).map((n) => n.key)).toContain("panel-cannot off-the-sheet");
  const house = { ...FAR, limits: { ...FAR.limits, maxBoardMm: [100, 90] as const } };
  const large = rollUp({ ...doc, house });
  expect(large.checks.find((c) => c.measure === "outline")).toMatchObject({
    label: "sheet larger than the house makes",
    value: 102,
    limit: 100,
    level: "cannot",
  });
  expect(large.blockers.length).toBeGreaterThan(0);
  // what is too small to be made singly is made on a sheet
  const singles = { ...FAR, limits: { ...FAR.limits, minBoardMm: [60, 60] as const } };
  expect(rollUp({ ...single(), house: singles }).checks.map((c) => c.label)).toContain(
    "board smaller than the house takes singly",
  );
  expect(rollUp({ ...doc, house: singles }).checks.filter((c) => c.measure === "outline")).toEqual([]);
  const foil = { ...doc, assembly: { ...doc.assembly, foil: "f" } };
  expect(panelNotes(foil).map((n) => n.key)).toContain("panel-needs-foil");
  const gone = { ...doc, boards: [{ ...doc.boards[0]!, id: "other" }] };
  expect(panelNotes(gone).map((n) => n.key)).toContain("panel-of-others");
  const bench = { ...doc, house: BENCH, houses: [BENCH] };
  expect(panelNotes(bench).map((n) => n.key)).toEqual(["panel-at-bench"]);
  expect(rollUp(bench).orders[0]!.sheet).toBeUndefined();
});

test("a document with a sheet is one, and a broken sheet is refused by its key", () => {
  const doc = onSheets();
  expect(runShape(doc, "")).toBeUndefined();
  expect(runShape({ ...doc, choices: { panel: null } }, "")).toBeUndefined();
  expect(runShape({ ...doc, choices: { panel: { ...doc.choices.panel, across: "sideways" } } }, "")).toMatch(
    /panel.*across/,
  );
  expect(
    runShape(
      {
        ...doc,
        choices: { panel: { ...doc.choices.panel, places: [{ board: "x", xMm: 1e9, yMm: 0, turnDeg: 0 }] } },
      },
      "",
    ),
  ).toMatch(/xMm/);
});

test("proposals: each is what the run would be with it, the cheapest first, singles beside them", () => {
  const doc = single();
  const cache = new Map();
  const roll = (d: RunDocument) => rollUp(d, { cache });
  const base = roll(doc);
  const offers = panelOffers(doc, base, roll);
  expect(offers.single).toMatchObject({ perGood: 0, isChosen: true });
  expect(offers.proposals.length).toBeGreaterThanOrEqual(3);
  const costs = offers.proposals.map((p) => p.perGood);
  expect(costs).toEqual([...costs].sort((a, b) => a - b));
  expect(new Set(offers.proposals.map((p) => p.key)).size).toBe(offers.proposals.length);
  for (const p of offers.proposals) {
    const taken = rollUp({ ...doc, choices: { ...doc.choices, panel: p.choice } });
    expect((taken.perGood - base.perGood) / 1e6).toBeCloseTo(p.perGood, 6);
    expect(taken.start).toBe(p.start);
    expect(p.reaches.line).toBe(true);
  }
  const first = offers.proposals[0]!;
  const after = { ...doc, choices: { ...doc.choices, panel: first.choice } };
  const again = panelOffers(after, roll(after), roll);
  expect(again.proposals.find((p) => p.isChosen)?.key).toBe(first.key);
  expect(again.single.perGood).toBeCloseTo(-first.perGood, 6);
});

test("without a closed outline no sheet is proposed, and the reason is told", () => {
  const open = madeMeasure({ outline: { cutouts: 0, closed: false } });
  const doc = boardK({
    boards: [{ name: "Board K", perProduct: 1, measure: open }],
    house: FAR,
    houses: [FAR],
  });
  const offers = panelOffers(doc, rollUp(doc), rollUp);
  expect(offers.proposals).toEqual([]);
  expect(offers.refused[0]!.refusal.tag).toBe("outline-open");
});

test("of a board that is twice in a product twice as many lie on the sheets that are proposed", () => {
  const doc = single({ boards: [{ name: "Board K", perProduct: 2, measure }], goodBoards: 12 });
  const base = rollUp(doc);
  const { proposals } = panelOffers(doc, base, rollUp);
  expect(proposals.length).toBeGreaterThan(1);
  for (const p of proposals) {
    const onSheet = p.layout.counts[0]!;
    // FAR sells sheets in fives; two boards a product are needed, and no five sheets more
    const sheets = Math.ceil(Math.ceil((2 * p.start) / onSheet) / 5) * 5;
    expect([p.key, p.sheets, p.over]).toEqual([
      p.key,
      Math.ceil((2 * p.start) / onSheet),
      sheets * onSheet - 2 * p.start,
    ]);
    // not more on a sheet than would be bought in all
    expect(onSheet).toBeLessThanOrEqual(2 * base.start);
  }
  // four at most are proposed too, as long as two a product are four and more
  expect(proposals.some((p) => p.layout.counts[0]! <= 4)).toBe(true);
});

test("where more sheets cost less than enough of them, what was passed over is told in boards with their money", () => {
  // a sheet is 1.02 dm²: from 15 dm² on a third of the price, so that 15 sheets cost less than 10
  const tiers = [
    { fromDm2: 0, factor: 1 },
    { fromDm2: 15, factor: 0.3 },
  ];
  const house: House = { ...FAR, price: { ...FAR.price, tiers } };
  const doc = onSheets({ house, houses: [house] });
  const r = rollUp(doc);
  const [o] = r.orders;
  expect(o!.sheet!.sheets).toBe(15);
  expect(o!.quote.pieces).toBe(60);
  // enough would have been ten sheets of four
  const enough = rollUp({
    ...doc,
    houses: [FAR],
    house: { ...FAR, price: { ...FAR.price, tiers: [tiers[0]!] } },
  });
  expect(enough.orders[0]!.quote.pieces).toBe(40);
  expect(o!.quote.insteadOf).toEqual({ pieces: 40, total: enough.orders[0]!.quote.total });
});

test("what the sheet means for the work: a hot plate too small, a middle that sags, dust, boards over", () => {
  const keys = (doc: RunDocument) => panelNotes(doc).map((n) => n.key);
  const plain = onSheets();
  const wide = (mm: number, more: Partial<RunDocument["assembly"]>, thicknessMm = 1.6) => {
    const doc = onSheets({
      boards: [{ name: "Board K", perProduct: 1, measure: { ...measure, thicknessMm } }],
    });
    const panel = doc.choices.panel!;
    return keys({
      ...doc,
      assembly: { ...doc.assembly, ...more },
      choices: { ...doc.choices, panel: { ...panel, widthMm: mm, heightMm: mm } },
    });
  };
  expect(keys(plain)).toEqual(["panel-dust", "panel-over"]);
  const plate = (l: string[]) => l.filter((k) => k !== "panel-dust" && k !== "panel-over");
  expect(plate(wide(180, { method: "stencil" }))).toEqual([]);
  expect(plate(wide(181, { method: "stencil" }))).toEqual(["panel-larger-than-plate"]);
  expect(plate(wide(181, { method: "iron" }))).toEqual([]);
  // EX 6.4: 200 mm of 1.0 mm sag by 1.59 mm hot, 0.8 %; 1.6 mm by 0.62
  expect(plate(wide(200, { method: "house" }, 1))).toEqual(["panel-sags"]);
  expect(plate(wide(200, { method: "house" }, 1.6))).toEqual([]);
  expect(plate(wide(200, { method: "iron" }, 1))).toEqual([]);
});
