import { expect, test } from "@jest/globals";
import { housePrice } from "../../assembly/house-price.ts";
import { microsToNumber } from "../../money/money.ts";
import { FAR, madeLine } from "../made-up.fixture.ts";
import { rollUp } from "../roll-up.ts";
import { source } from "../source/stage.ts";
import { OTHER, place, refs, twoSided as run } from "../two-sided.fixture.ts";
import type { RunDocument } from "./document.ts";

const leafOf = (doc: RunDocument, key: string) =>
  rollUp(doc)
    .tree.children.find((c) => c.key === "assembly")!
    .children.find((c) => c.key === key);

test("two sides at home: two stencils, two set-ups, two prints and heats; placing by the part", () => {
  const r = rollUp(run({ method: "stencil" }));
  expect(r.start).toBe(10);
  // print 2 × 60, place 12 × 6, heat 2 × 360 / 4, iron 8 + 4 × 7, look 20 + 0.6 × (24 + 4)
  expect(r.time).toEqual({
    print: 120,
    place: 72,
    reflow: 180,
    solder: 36,
    inspect: 36.8,
    total: 444.8,
    perLoad: 4,
  });
  expect(leafOf(run({ method: "stencil" }), "stencil")!.micros).toBe(44_000_000);
  // set-up 2 × 35 min and kitting 3 × 0.75 min, at 60.00 an hour: one a minute
  const paid = run({ method: "stencil" });
  const hours = leafOf({ ...paid, workshop: { ...paid.workshop, hourlyRate: "60" } }, "own-hours")!;
  expect(hours.terms.slice(0, 2).map((t) => t.micros)).toEqual([70_000_000, 2_250_000]);
  expect(r.notes.find((n) => n.key === "bottom-parts")?.text).toContain("two stencils");
  expect(r.cash.find((c) => c.key === "stencil")?.micros).toBe(44_000_000);
});

test("one side, and places nobody knows: once", () => {
  const above = run({ method: "stencil" }, { placements: refs("R", 8).map((r) => place(r, "top")) });
  const unknown = run({ method: "stencil" }, { placements: [] });
  for (const doc of [above, unknown]) {
    const r = rollUp(doc);
    expect([r.time.print, r.time.reflow, r.sides.own.ofDesigns]).toEqual([60, 90, 1]);
    expect(r.notes.some((n) => n.key === "bottom-parts")).toBe(false);
  }
});

test("a design with two of its boards in a product prints four sides, cuts two stencils", () => {
  const doc = run({ method: "stencil" });
  const r = rollUp({ ...doc, boards: [{ ...doc.boards[0]!, perProduct: 2 }] });
  expect([r.sides.own.ofDesigns, r.sides.own.perProduct, r.time.print]).toEqual([2, 4, 240]);
});

test("a house: two set-ups and stencils, its feeders and joints; hand parts stay here and keep their minutes", () => {
  const doc = run({ method: "house", house: "far" });
  const r = rollUp(doc);
  expect(r.start).toBe(10);
  expect(r.assembly!.terms.map((t) => [t.label, microsToNumber(t.micros as never)])).toEqual([
    ["set-up", 90],
    ["stencil", 50],
    ["unique parts", 3.6],
    ["joints", 2.16],
  ]);
  expect([r.time.solder, r.time.total]).toEqual([36, 36]);
  // its words count sides as they are
  const price = { ...FAR.assembly! };
  const notes = (sides: number) =>
    housePrice(price, { sides, unique: 1, special: 0, joints: 4, handJoints: 0, products: 1 }).map(
      (t) => t.note,
    );
  expect(notes(1)[0]).toBe(`1 side × ${price.setupPerSide}`);
  expect(notes(2)[0]).toBe(`2 sides × ${price.setupPerSide}`);
});

test("a house that solders all: its own price for a joint by hand, and no minutes here", () => {
  const r = rollUp(run({ method: "house", house: "far", handParts: "house" }));
  // 10 boards × 4 pins × 0.09
  expect(r.assembly!.terms.find((t) => t.label === "joints by hand")?.micros).toBe(3_600_000);
  expect(r.time.total).toBe(0);
});

test("parts and boards travel to the house and back, over the border once; with its own boards the parts alone", () => {
  const doc = run({ method: "house", house: "far" });
  const r = rollUp(doc);
  // ten boards of 6.37 g, 8 % and 150 g for packing: 0.22 kg, one half kilogram: 16.00 + 5.50
  expect(r.assembly!.parcels.terms.map((t) => [t.label, t.micros])).toEqual([
    ["parts and boards to the house", 21_500_000],
    ["finished boards back", 21_500_000],
    ["import handling", 6_000_000],
  ]);
  expect(leafOf(doc, "house-parcels")!.micros).toBe(49_000_000);
  expect(r.assembly!.parcels.days).toBe(16);
  const own = rollUp({ ...doc, house: FAR });
  expect(own.assembly!.parcels).toMatchObject({ days: 0, partsOnDays: 8 });
  // parts go on to the house after the last of them came: both ends of their range are later by the way
  const suppliers = [{ id: "a", name: "A", currency: "EUR", shipping: "5", daysMin: 2, daysMax: 6 }];
  const bought = { ...doc, house: FAR, suppliers };
  expect(source.ready!({ ...rollUp(bought), doc: bought, plan: rollUp(bought).assembly } as never)).toEqual({
    partsDays: [10, 14],
  });
  expect(own.assembly!.parcels.terms.map((t) => [t.label, t.micros])).toEqual([
    ["parts to the house", 21_500_000],
  ]);
  // what is shown is what is paid: the tree's house and the cash's are the same money
  const cash = (key: string) => r.cash.find((c) => c.key === key)!.micros;
  expect(cash("assembly") + cash("house-parcels")).toBe(145_760_000 + 49_000_000);
});

test("an assembly quotation counts for what it was for, and falls back to the estimate for anything else", () => {
  const quote = {
    house: "far",
    kind: "assembly" as const,
    total: "120.00",
    currency: "EUR",
    days: 7,
    capturedOn: "2026-11-20",
  };
  const at = (basis: object | undefined, more: Partial<RunDocument> = {}) =>
    rollUp(
      run(
        { method: "house", house: "far" },
        { quotes: [{ ...quote, ...(basis ? { basis } : {}) } as never], ...more },
      ),
    );
  const held = { boards: 10, options: {}, revision: "A", handParts: "here" };
  const sum = (r: ReturnType<typeof at>) => r.assembly!.terms.reduce((n, t) => n + t.micros, 0);
  expect([sum(at(held)), at(held).assembly!.days]).toEqual([120_000_000, 7]);
  for (const basis of [
    { ...held, boards: 12 },
    { ...held, revision: "B" },
    { ...held, handParts: "house" },
  ]) {
    const r = at(basis);
    expect([sum(r), r.assembly!.days]).toEqual([145_760_000, 10]);
    expect(r.notes.find((n) => n.key === "assembly-quote-elsewhere")?.text).toContain("The estimate counts");
  }
  expect(at(undefined).notes.some((n) => n.key === "assembly-quote-unbased")).toBe(true);
  expect(
    at(held, { quotes: [{ ...quote, basis: held, validUntil: "2026-11-23" } as never] }).blockers,
  ).toEqual(expect.arrayContaining([expect.objectContaining({ key: "assembly-quote-expired" })]));
});

test.each([
  ["the one chosen", "far", ["far", undefined]],
  ["none chosen yet: the first that places", undefined, ["far", "remark assembly-house-taken"]],
  ["one that is not there any more", "gone", ["far", "warning assembly-house-other"]],
  ["one without prices for it", "other", ["far", "warning assembly-house-other"]],
])("which house places: %s", (_, house, expected) => {
  const r = rollUp(run({ method: "house", ...(house ? { house } : {}) }));
  const said = r.notes.find((n) => n.key.startsWith("assembly-house-"));
  expect([r.assembly?.house.id, said && `${said.level} ${said.key}`]).toEqual(expected);
});

test("where no house places parts, that blocks and the assembly is not priced", () => {
  const r = rollUp({ ...run({ method: "house", house: "other" }), houses: [OTHER] });
  expect(r.assembly).toBeUndefined();
  expect(r.unpriced.assembly).toBe(true);
  expect(r.blockers.map((b) => b.key)).toContain("assembly-house-missing");
});

test("a house that charges in money without a rate blocks; it is never taken one to one", () => {
  const doc = run({ method: "house", house: "far" });
  const r = rollUp({ ...doc, houses: [OTHER, { ...FAR, currency: "SEK" }] });
  expect(r.blockers.map((n) => n.key)).toContain("assembly-rate-missing SEK");
  expect(r.cash.find((c) => c.key === "assembly")?.micros).toBe(0);
});

test("Board K at a house: 90.40 once and 1.692 a board (worked example)", () => {
  const price = { ...FAR.assembly!, perSpecialPart: "3.00" };
  const work = { sides: 1, unique: 8, special: 2, joints: 88, handJoints: 10 };
  const sum = (products: number) =>
    housePrice(price, { ...work, products }).reduce((n, t) => n + t.micros, 0) / 1e6;
  expect(sum(0)).toBeCloseTo(90.4, 9);
  expect(sum(31) - sum(30)).toBeCloseTo(1.692, 9);
  // at least its minimum
  expect(
    housePrice({ ...price, setupPerSide: "0", stencilPerSide: "0" }, { ...work, products: 1 }).reduce(
      (n, t) => n + t.micros,
      0,
    ),
  ).toBe(90_000_000);
});

test("lines of one number share a feeder; what comes in a tray costs the house's sum for that", () => {
  const doc = run(
    { method: "house", house: "far" },
    { houses: [OTHER, { ...FAR, assembly: { ...FAR.assembly!, perSpecialPart: "3.00" } }] },
  );
  const lines = [...doc.lines, madeLine("r2", ["R20"])];
  const tray = doc.offers.map((o) => (o.line === "c" ? { ...o, packaging: "tray" } : o));
  const terms = rollUp({ ...doc, lines, offers: tray }).assembly!.terms;
  expect(terms.find((t) => t.label === "unique parts")?.note).toBe("2 × 1.80");
  expect(terms.find((t) => t.label.startsWith("parts in trays"))?.micros).toBe(3_000_000);
});
