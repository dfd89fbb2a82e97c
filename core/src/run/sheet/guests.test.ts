import { expect, test } from "@jest/globals";
import { fabQuote } from "../../fab/price.ts";
import { choiceOf } from "../../panel/choice.ts";
import { solvePanel } from "../../panel/lay/solve.ts";
import { DEFAULT_SPEC, isRefusal, type PanelDesign } from "../../panel/spec.ts";
import { planPackage } from "../../release/plan.ts";
import type { RunDocument } from "../document/document.ts";
import { FAR } from "../made-up.fixture.ts";
import { coveringOf } from "../panel/layouts.ts";
import { panelOffers } from "../panel/panel-proposals.ts";
import { rollUp } from "../roll-up.ts";
import { four, onSheets, panelNotes, single, small } from "../sheets.fixture.ts";
import { plannedOrders } from "../stage/planned-orders.ts";
import { panelOf, runDesigns, sheetFacts } from "./panel.ts";

/** Two of Board K and four of another product's board on a sheet; so many of that are wanted. */
function withGuest(wanted: number, more: Partial<RunDocument> = {}): RunDocument {
  const guest = { id: "g", name: "Dial", product: "Night Dial", revision: "C", measure: small };
  const doc = single({ guests: [guest], ...more });
  const spec = { ...DEFAULT_SPEC, counts: [2, 4], turns: [[0], [0]], separation: "tabs" as const };
  const made = solvePanel(runDesigns({ ...doc, guests: [guest] }) as PanelDesign[], spec);
  if (isRefusal(made)) throw new Error(made.reason);
  const panel = choiceOf(made, spec, ["board 0", "g"]);
  return { ...doc, choices: { ...doc.choices, panel, guests: [{ board: "g", boards: wanted }] } };
}

test("a guest that wants many makes more sheets, and not more boards of the run to start", () => {
  const [few, many] = [rollUp(withGuest(10)), rollUp(withGuest(400))];
  expect(many.orders[0]!.sheet!.sheets).toBeGreaterThan(few.orders[0]!.sheet!.sheets);
  expect([many.start, many.expectedGood]).toEqual([few.start, few.expectedGood]);
  const doc = withGuest(400);
  const all = rollUp({ ...doc, choices: { ...doc.choices, overrun: "start" } });
  // two of the run's own on a sheet: at most one more is started
  expect(all.start - few.start).toBeLessThan(2);
});

test("another product's boards on the sheets: sheets by what is short, paid with the order, no cost of this run", () => {
  const few = withGuest(10);
  const r = rollUp(few);
  const sheets = r.orders[0]!.sheet!.sheets;
  // 10 wanted, four a sheet: three would do; the run's own boards, two a sheet, ask for more, in fives
  expect(sheets).toBe(Math.ceil(Math.ceil(r.start / 2) / 5) * 5);
  expect(r.guests.map((g) => [g.name, g.quote.pieces])).toEqual([["Dial", sheets * 4]]);
  const whole = fabQuote(FAR, sheetFacts(few, panelOf(few)!), r.options!, sheets);
  const [own, theirs] = [r.orders[0]!.quote.boards, r.guests[0]!.quote.boards];
  expect(own + theirs).toBe(whole.boards);
  // 2 × 2000 against 4 × 400 mm²
  expect(own / theirs).toBeCloseTo(4000 / 1600, 1);
  // in the money that is needed, not in what a good board costs
  const cash = r.cash.filter((c) => c.key.startsWith("guest") || c.key.startsWith("boards"));
  expect(cash.map((c) => [c.key, c.micros])).toEqual([
    ["boards 0", r.orders[0]!.micros],
    ["guest g", r.guests[0]!.micros],
  ]);
  expect(r.tree.children.reduce((n, c) => n + c.micros, 0)).toBeCloseTo(r.total, 0);
  const alone = rollUp({ ...few, choices: { ...few.choices, guests: [] }, guests: [] });
  expect(JSON.stringify(r.tree)).not.toContain("Dial");
  expect(alone.guests).toEqual([]);
  const order = plannedOrders({ doc: few, ...r, plan: r.assembly }).find((o) => o.kind === "boards")!;
  expect(order.items.map((i) => [i.key, i.qty])).toEqual([
    ["board 0", sheets * 2],
    ["guest g", sheets * 4],
  ]);
  // one set of files is one order sheet: what lies on it, its size, the holes of all, the least of both
  const fab = planPackage(few, r).sheets.filter((s) => s.path.startsWith("sheets/fabrication"));
  expect(fab.map((s) => s.title)).toEqual([`Fabrication: sheet of ${few.product}`]);
  const said = Object.fromEntries(fab[0]!.pairs.flatMap((p) => p.rows));
  expect(said).toMatchObject({
    Sheets: `${sheets}, of 2 of Board K and 4 of Dial`,
    "Delivery form": "sheets of 164 mm x 60 mm, as in the files; do not part them",
    Parting: "tabs with unplated perforations, milled between",
    Size: "164 mm x 60 mm",
    "Holes of the boards, a sheet": `${6 * 180}, ${6 * 180} plated`,
  });
  // who places them is told of the sheets, of the places by copy, and of what stays bare
  const placing = { ...few, assembly: { ...few.assembly, method: "house" as const, house: "far" } };
  const placed = rollUp(placing);
  const sheet = planPackage(placing, placed).sheets.find((s) => s.path.startsWith("sheets/assembly"))!;
  expect(Object.fromEntries(sheet.pairs[0]!.rows)).toMatchObject({
    "They lie on": `${placed.orders[0]!.sheet!.sheets} sheets of 164 x 60 mm, 2 on each; parted after soldering`,
    "Left bare on them": "Dial",
    "Placement file": expect.stringMatching(/^assembly\/.*-panel-places\.csv: R1 of copy 3 is R1_3/),
  });
  const fine = { ...few.guests![0]!, measure: { ...small, minTrackMm: 0.15 } };
  const tracks = (d: RunDocument) =>
    Object.fromEntries(planPackage(d, rollUp(d)).sheets[0]!.pairs[1]!.rows)["Smallest track"];
  expect(tracks({ ...few, guests: [fine] })).toBe("0.15 mm");
  const { minTrackMm: _, ...unknown } = small;
  expect(tracks({ ...few, guests: [{ ...fine, measure: unknown }] })).toBe("not measured");
  // paid as planned, the invoice with the guest on it, the run has cost what it was to cost
  const paid = Object.fromEntries(order.items.map((i) => [i.key, String(i.total / 1e6)]));
  const purchase = { id: "p", order: order.key, currency: order.currency, paid, note: "" };
  const record = {
    purchases: [{ ...purchase, freight: String(order.beside / 1e6) }],
    receipts: [],
    work: [],
  };
  expect(rollUp(few, { record }).actual!.actual / 1e6).toBeCloseTo(r.total / 1e6, 1);
  expect(panelNotes(few).find((n) => n.key.endsWith("guest g"))?.text).toBe(
    `${sheets * 4} of Dial come on the same sheets, 10 are wanted: ${sheets * 4 - 10} over. Their share by area is Night Dial's: it is paid with this order, and no cost of this run.`,
  );
  // many wanted: they say how many sheets
  expect(rollUp(withGuest(170)).orders[0]!.sheet!.sheets).toBe(45);
});

test("one layout or several: the sheet in hand beside the cheapest of it and each product's own, none of them missed", () => {
  const doc = withGuest(170);
  const cover = coveringOf(doc, 30, [doc.choices.panel!])!;
  const { one, several } = cover;
  expect([cover.names, cover.demand]).toEqual([
    ["Board K", "Dial"],
    [30, 170],
  ]);
  // 170 of four a sheet, in fives: 45; far more of Board K than are begun
  expect(one).toMatchObject({ counts: [2, 4], sheets: 45, over: [60, 10] });
  const price = (perSheet: readonly number[], widthMm: number, heightMm: number, n: number) => {
    const choice = { ...doc.choices.panel!, widthMm, heightMm };
    const facts = sheetFacts(doc, { choice, perSheet });
    return fabQuote(FAR, facts, rollUp(doc).options!, n).boards / 1e6;
  };
  expect(one.cost).toBeCloseTo(price([2, 4], one.widthMm, one.heightMm, 45), 6);
  expect(several!.cost).toBeLessThan(one.cost);
  // each on sheets of its own, five of six and five of 34
  expect(several!.layouts.map((l) => [l.counts, l.sheets])).toEqual([
    [[6, 0], 5],
    [[0, 34], 5],
  ]);
  expect(several!.layouts.reduce((n, l) => n + l.cost, 0)).toBeCloseTo(several!.cost, 6);
  expect(Math.min(...several!.over)).toBeGreaterThanOrEqual(0);
  // where both products' numbers suit the sheet, one layout is all there is
  const even = withGuest(60);
  const same = coveringOf(even, 30, [even.choices.panel!])!;
  expect(same.several!.cost).toBeLessThanOrEqual(same.one.cost);
  expect(same.one.over).toEqual([0, 0]);
  // without a house, or for one design, there is nothing to choose
  const { house: _, ...homeless } = doc;
  expect(coveringOf(homeless, 30, [doc.choices.panel!])).toBeUndefined();
  expect(coveringOf(onSheets(), 30, [onSheets().choices.panel])).toBeUndefined();
});

test("a guest that is gone, not on the sheet, without a sheet, or beyond the house is said", () => {
  const keys = (doc: RunDocument) =>
    panelNotes(doc)
      .filter((n) => n.level !== "remark")
      .map((n) => n.key.replace(/^panel[ :]/, ""));
  const doc = withGuest(10);
  expect(keys(doc)).toEqual([]);
  expect(keys({ ...doc, guests: [] })).toEqual(["panel-cannot board-gone"]);
  const own = four(single());
  expect(keys({ ...doc, guests: [], choices: { ...doc.choices, panel: own } })).toEqual(["guest-gone g"]);
  expect(keys({ ...doc, choices: { ...doc.choices, panel: own } })).toEqual(["guest-not-on g"]);
  expect(keys({ ...doc, choices: { ...doc.choices, panel: null } })).toEqual(["guests-without-sheet"]);
  const fine = { ...doc.guests![0]!, measure: { ...small, minTrackMm: 0.01 } };
  expect(keys({ ...doc, guests: [fine] }).join()).toMatch(/^guest-cannot g /);
});

test("a sheet of two products is proposed in proportion to what is wanted of each", () => {
  const doc = single({
    guests: [{ id: "g", name: "Dial", product: "Night Dial", revision: "C", measure: small }],
    choices: { guests: [{ board: "g", boards: 100 }] },
  });
  const base = rollUp(doc);
  const offers = panelOffers(doc, base, rollUp);
  expect(offers.proposals.length).toBeGreaterThan(0);
  for (const p of offers.proposals) {
    const on = (key: string) => p.choice.places.filter((x) => x.board === key).length;
    // as few sheets as these numbers allow bring both
    expect(p.sheets * on("board 0")).toBeGreaterThanOrEqual(p.start);
    expect(p.sheets * on("g")).toBeGreaterThanOrEqual(100);
    expect(on("g")).toBeGreaterThan(on("board 0"));
  }
});
