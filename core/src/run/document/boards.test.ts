import { expect, test } from "@jest/globals";
import { billDifference } from "../../bom/difference.ts";
import { sameParts } from "../../bom/same.ts";
import type { FabQuote } from "../../fab/price.ts";
import { planPackage } from "../../release/plan.ts";
import { FAR, madeLine, madeMeasure, madeOffer, madeRun } from "../made-up.fixture.ts";
import { rollUp } from "../roll-up.ts";
import { DEFAULT_ASSEMBLY, type RunDocument } from "./document.ts";

const place = (board: string, ref: string) => ({
  board,
  ref,
  xMm: board === "m" ? 1 : 2,
  yMm: 3,
  rotationDeg: 0,
  side: "top" as const,
});

/** A main board and two small ones in each product; both designs have an R1. */
const two = (more: Partial<RunDocument> = {}) =>
  madeRun({
    boards: [
      { id: "m", name: "Main", perProduct: 1, measure: madeMeasure() },
      { id: "t", name: "Tail", perProduct: 2, measure: madeMeasure({ minTrackMm: 0.1 }) },
    ],
    lines: [
      madeLine("1", ["R1", "R2"], { board: "m" }),
      madeLine("2", ["R1"], { board: "t", mpn: "OX-47K", valueText: "47k" }),
      madeLine("3", [], { qty: 1, mpn: "BOX", mount: "none" }),
      madeLine("4", [], { qty: 3, mpn: "WIRE", mount: "none", board: "t" }),
    ],
    placements: [place("m", "R1"), place("m", "R2"), place("t", "R1")],
    offers: ["1", "2", "3", "4"].map((id) => madeOffer(`o${id}`, id, "0.1", { stock: 5000 })),
    house: FAR,
    houses: [FAR],
    ...more,
  });

test("a board's lines count once for each of it in the product; loose parts of the product once", () => {
  const r = rollUp(two());
  expect(r.parts.map((p) => [p.line.id, p.count])).toEqual([
    ["1", 2],
    ["2", 2],
    ["3", 1],
    ["4", 6],
  ]);
  expect(r.needs.map((n) => n.terms[0]!.net)).toEqual([2 * r.start, 2 * r.start, 10, 60]);
});

test("each design is fabricated in its own number, and has its own set-up, stencil and printing", () => {
  const r = rollUp(two());
  expect(r.orders.map((o) => o.name)).toEqual(["Main", "Tail"]);
  expect(r.orders[1]!.quote.pieces).toBeGreaterThanOrEqual(2 * r.start);
  const one = rollUp(two({ boards: two().boards.slice(0, 1) }));
  const stencil = (x: typeof r) =>
    x.tree.children.find((c) => c.key === "assembly")!.children.find((c) => c.key === "stencil")!.micros;
  expect(stencil(r)).toBe(2 * stencil(one));
  // three boards of a product are printed and looked at instead of one
  expect(r.time.print).toBe(3 * one.time.print);
});

test("boards of one order travel in one parcel: its freight and handling once, shared by weight", () => {
  const { orders } = rollUp(two());
  const [a, b] = orders.map((o) => o.quote) as [FabQuote, FabQuote];
  const kg = a.kg + b.kg - 0.15;
  expect(a.freight + b.freight).toBe((16 + Math.ceil(kg / 0.5) * 5.5) * 1e6);
  expect([a.handling, b.handling]).toEqual([6_000_000, 0]);
  expect(a.freight / b.freight).toBeCloseTo((a.kg - 0.15) / (b.kg - 0.15), 2);
  for (const q of [a, b]) {
    expect(q.total).toBe(q.boards + q.freight + q.handling);
    expect(q.sum.find((t) => t.label === "freight")!.micros).toBe(q.freight);
  }
  expect(b.sum.some((t) => t.label === "import handling")).toBe(false);
});

test("a quotation is for all boards together: they share it to the last cent", () => {
  const quotes = [
    {
      house: FAR.id,
      kind: "fab" as const,
      total: "100.01",
      currency: "EUR",
      days: 9,
      capturedOn: "2026-11-20",
    },
  ];
  const { orders } = rollUp(two({ quotes }));
  expect(orders[0]!.micros + orders[1]!.micros).toBe(100_010_000);
  expect(orders.map((o) => o.days)).toEqual([9, 9]);
});

test("notes name the board they are about, and one that is accepted leaves the other's open", () => {
  const boards = two().boards.map((b) => ({ ...b, measure: madeMeasure({ minTrackMm: 0.1 }) }));
  const placements = two().placements.filter((p) => p.board === "m");
  const { notes } = rollUp(two({ boards, placements: [...placements, place("t", "R9")] }));
  const limits = notes.filter((n) => n.key.startsWith(`house-limit ${FAR.id} minTrackMm`));
  expect(limits.map((n) => [n.board, /of (Main|Tail)/.exec(n.text)?.[1]])).toEqual([
    ["m", "Main"],
    ["t", "Tail"],
  ]);
  // R1 of the one is no place for R1 of the other
  expect(notes.find((n) => n.key.startsWith("part-unplaced"))?.text).toMatch(/^R1 of Tail:/);
  const accepted = rollUp(two({ boards, choices: { accepted: { [limits[0]!.key]: "the house said yes" } } }));
  expect(accepted.notes.filter((n) => n.acceptedBecause).map((n) => n.board)).toEqual(["m"]);
  // what was accepted of the first board while it was alone stays accepted
  const alone = { [`house-limit ${FAR.id} minTrackMm`]: "the house said yes" };
  const kept = rollUp(two({ boards, choices: { accepted: alone } })).notes.filter((n) => n.acceptedBecause);
  expect(kept.map((n) => [n.board, n.acceptedAs])).toEqual([["m", `house-limit ${FAR.id} minTrackMm`]]);
  // a design without any placement file says so once, and no line of it is called lost
  const bare = rollUp(two({ placements })).notes;
  expect(bare.some((n) => n.key === "placement-missing t")).toBe(true);
  expect(bare.some((n) => n.key.startsWith("part-unplaced"))).toBe(false);
});

test("the package lists places board by board, each with its own R1", () => {
  const doc = two({ assembly: { ...DEFAULT_ASSEMBLY, method: "house", house: FAR.id } });
  const { tables } = planPackage(doc, rollUp(doc));
  const rows = tables.find((t) => t.path === "assembly/placement.csv")!.rows.slice(1);
  expect(rows.map((x) => [x[0], x[1], x[5], x[7]])).toEqual([
    ["R1", "1.0000", "10k", "Main"],
    ["R2", "1.0000", "10k", "Main"],
    ["R1", "2.0000", "47k", "Tail"],
  ]);
});

test("lines of two boards are never one line, and a bill is compared board by board", () => {
  const lines = [
    madeLine("1", ["R1"], { board: "m" }),
    madeLine("2", ["R2"], { board: "t", package: "R_0603" }),
    madeLine("3", ["R3"], { board: "m", package: "R_0603" }),
  ].map((l) => ({ ...l, qtyStated: undefined }));
  expect(sameParts(lines as never).map((s) => [s.keep, s.others])).toEqual([["1", ["3"]]]);
  const was = [madeLine("1", ["R1"], { board: "Main" }), madeLine("2", ["R1"], { board: "Tail" })];
  const now = [was[0]!, { ...was[1]!, mpn: "OX-47K" }];
  expect(billDifference(was, now)).toMatchObject({
    unchanged: 1,
    differences: [{ kind: "changed", refs: ["R1 of Tail"] }],
  });
});

test("a document from before boards had ids reads as ever: places and lines belong to the only board", () => {
  const { id: _, ...board } = two().boards[0]!;
  const { board: _b, ...p } = place("m", "R1");
  const r = rollUp(two({ boards: [board], lines: [madeLine("1", ["R1"])], placements: [p] }));
  expect(r.notes.some((n) => n.key.startsWith("part-unplaced"))).toBe(false);
  expect(r.parts[0]!.count).toBe(1);
});

test("a board whose outline is open is priced by its copper, and that is said; without copper it is no number gone wrong", () => {
  const open = { cutouts: 0, closed: false };
  const run = (
    outline: typeof open | undefined,
    extentMm: readonly [number, number, number, number] | undefined,
  ) => {
    const { outline: _, ...rest } = madeMeasure();
    const measure = { ...rest, ...(outline ? { outline } : {}), ...(extentMm ? { extentMm } : {}) };
    return rollUp(two({ boards: [{ id: "m", name: "Main", perProduct: 1, measure }], offers: [] }));
  };
  const closed = rollUp(two({ boards: two().boards.slice(0, 1), offers: [] }));
  const said = (r: typeof closed) => r.notes.filter((n) => n.key.startsWith("board-size-unknown"));
  expect(said(closed)).toEqual([]);
  for (const outline of [open, undefined]) {
    const drawn = run(outline, [-10, 5, 40, 45]);
    expect(drawn.orders[0]!.micros).toBe(closed.orders[0]!.micros);
    expect(said(drawn)).toMatchObject([{ stage: "fab", level: "error" }]);
    expect(said(drawn)[0]!.text).toContain("the box of its copper, 50.0 × 40.0 mm");
  }
  const none = run(open, undefined);
  expect(Number.isFinite(none.orders[0]!.micros)).toBe(true);
  expect(said(none)[0]!.text).toContain("its area and weight count nothing here");
});
