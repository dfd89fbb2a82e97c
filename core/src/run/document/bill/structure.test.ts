import { expect, test } from "@jest/globals";
import { madeLine, madeOffer, madeRun } from "../../made-up.fixture.ts";
import { rollUp } from "../../roll-up.ts";
import { DEFAULT_ASSEMBLY, type RunDocument, type RunLine } from "../document.ts";
import { asTree, timesInProduct } from "./structure.ts";

const line = (id: string, more: Partial<RunLine> = {}) =>
  madeLine(id, [], { qty: 1, valueText: id, package: "", mpn: `M-${id}`, mount: "none", ...more });
const doc = (lines: RunLine[], more: Partial<RunDocument> = {}) =>
  madeRun({
    lines,
    suppliers: [{ id: "a", name: "A", currency: "EUR", shipping: "0", daysMin: 1, daysMax: 2 }],
    offers: lines.map((l) => madeOffer(`o-${l.id}`, l.id, "1", { stock: 100_000, source: "typed" })),
    assembly: { ...DEFAULT_ASSEMBLY, method: "iron" },
    ...more,
  });

test("quantities multiply down the tree: two cables of two plugs and a third of a metre each", () => {
  const lines = [
    line("set", { origin: "made", qty: 1 }),
    line("cable", { origin: "made", qty: 2, parent: "set", madeCost: "0.5" }),
    line("plug", { qty: 2, parent: "cable" }),
    line("wire", { qty: 0.3, parent: "cable" }),
  ];
  expect(Object.fromEntries(timesInProduct(lines))).toEqual({ set: 1, cable: 2, plug: 4, wire: 0.6 });
  const r = rollUp(doc(lines));
  // ten products: forty plugs, six metres; the made items are not bought, but cost what making one costs
  expect(r.needs.map((n) => [n.id, n.need])).toEqual([
    ["plug", 40],
    ["wire", 6],
  ]);
  const made = r.tree.children[0]!.children.find((c) => c.key === "parts-made")!;
  expect(made.micros).toBe(20 * 500_000);
  expect(asTree([lines[3]!, lines[1]!, lines[0]!]).map((x) => [x.line.id, x.depth])).toEqual([
    ["set", 0],
    ["cable", 1],
    ["wire", 2],
  ]);
});

test("what belongs to an item that is left off is not needed; a ring of items ends", () => {
  const off = [line("set", { origin: "made", dnp: true }), line("plug", { parent: "set" })];
  expect(rollUp(doc(off)).needs).toEqual([]);
  const ring = [line("a", { parent: "b", qty: 2 }), line("b", { parent: "a", qty: 3 })];
  expect(Object.fromEntries(timesInProduct(ring))).toEqual({ a: 6, b: 6 });
  expect(asTree(ring)).toHaveLength(2);
});

test("printed and supplied parts are not bought; salvaged ones come from the shelf or are missing", () => {
  const lines = [
    line("lid", { origin: "printed", madeCost: "0.25" }),
    line("gift", { origin: "supplied" }),
    line("old", { origin: "salvaged" }),
  ];
  const lot = {
    id: "l",
    mpn: "M-old",
    qty: 7,
    place: "",
    receivedOn: "2026-01-01",
    unitCost: "0",
    currency: "EUR",
    condition: "salvaged" as const,
  };
  const r = rollUp(doc(lines, { lots: [lot] }));
  expect(r.needs.map((n) => [n.id, n.whole, n.need])).toEqual([["old", 10, 3]]);
  expect(r.basket.missing).toBe(3);
});

test("a variant fits this and not that, and costs what it fits", () => {
  const lines = [line("timer"), line("controller"), line("case")];
  const variants = [
    { id: "t", name: "timer version", overrides: { controller: { dnp: true } } },
    { id: "c", name: "controller version", overrides: { timer: { dnp: true }, case: { qty: 2 } } },
  ];
  const at = (variant?: string) =>
    rollUp(doc(lines, { variants, choices: variant ? { variant } : {} }))
      .needs.map((n) => `${n.id} ${n.need}`)
      .join(", ");
  expect(at()).toBe("timer 10, controller 10, case 10");
  expect(at("t")).toBe("timer 10, case 10");
  expect(at("c")).toBe("controller 10, case 20");
  expect(at("gone")).toBe(at());
});
