import { expect, test } from "@jest/globals";
import { lineKey } from "../../library/facts.ts";
import { directedParts } from "../document/directions.ts";
import { DEFAULT_ASSEMBLY } from "../document/document.ts";
import { madeRun as doc, madeLine as line, madeOffer as offer, STAND_IN } from "../made-up.fixture.ts";
import { rollUp } from "../roll-up.ts";
import { scarcityOf } from "../source/scarcity.ts";

test("lines of one number are one purchase: losses once, an offer's stock once", () => {
  const lines = [line("1", ["R1", "R2"]), line("2", ["R9"], { valueText: "10k 1%", mpn: "ox-10k" })];
  const apart = rollUp(doc({ lines: [lines[0]!], offers: [offer("x", "1", "0.1")] }));
  const r = rollUp(doc({ lines, offers: [offer("x", "1", "0.1"), offer("y", "2", "0.1")] }));
  expect(r.needs).toHaveLength(1);
  expect(r.needs[0]!.lines).toEqual(["1", "2"]);
  expect(r.needs[0]!.offers).toHaveLength(1);
  // three a board: 3n + max(⌈3n·5 %⌉, 3), once; two lines apart would lose at least 3 twice
  expect(r.needs[0]!.whole).toBe(3 * r.start + Math.max(Math.ceil(3 * r.start * 0.05), 3));
  expect(apart.needs[0]!.whole).toBe(2 * apart.start + Math.max(Math.ceil(2 * apart.start * 0.05), 3));
  expect(r.basket.missing).toBe(0);
  const scarce = { stock: 20 };
  const short = rollUp(
    doc({ lines, offers: [offer("x", "1", "0.1", scarce), offer("y", "2", "0.1", scarce)] }),
  );
  expect(short.basket.missing).toBe(short.needs[0]!.need - 20);
});

test("two makers of one number are two purchases", () => {
  const lines = [line("1", ["R1"], { maker: "Oxbow" }), line("2", ["R2"], { maker: "Quill" })];
  expect(rollUp(doc({ lines })).needs.map((n) => n.lines)).toEqual([["1"], ["2"]]);
});

test("an alternate's cheaper offer is taken only once it is approved, and the note says by whom", () => {
  const l = line("1", ["R1"]);
  const base = {
    lines: [l],
    library: [STAND_IN],
    offers: [offer("own", "1", "0.5"), offer("other", "1", "0.1", { part: "alt", supplier: "a" })],
  };
  expect(rollUp(doc(base)).basket.lines[0]!.buys.map((b) => b.offer)).toEqual(["own"]);
  const approved = {
    original: lineKey(l)!,
    part: "alt",
    state: "approved" as const,
    because: "tried on five boards",
    by: "Ada",
    at: "2026-11-20",
  };
  const r = rollUp(doc({ ...base, alternates: [approved] }));
  expect(r.basket.lines[0]!.buys.map((b) => b.offer)).toEqual(["other"]);
  expect(r.notes.find((n) => n.key.startsWith("bought-instead"))?.text).toContain("approved by Ada");
});

test("a suspicion blocks every run that has the part, also where it would come as an alternate", () => {
  const suspect = { since: "2026-11-01", because: "cracks after reflow", by: "Ada" };
  const own = { ...STAND_IN, id: "own", mpn: "OX-10K", suspect };
  const r = rollUp(doc({ lines: [line("1", ["R1"])], library: [own], offers: [offer("x", "1", "0.1")] }));
  expect(r.blockers.map((n) => n.key)).toContain("part-suspect OX-10K");
  // a rule does not take it by itself
  const rule = rollUp(
    doc({
      lines: [line("1", ["R1"], { mpn: "" })],
      library: [{ ...STAND_IN, suspect }],
      offers: [offer("x", "1", "0.1", { part: "alt" })],
    }),
  );
  expect(rule.basket.missing).toBe(rule.needs[0]!.need);
});

test("the shelf gives first, oldest lot first, at what it cost; quarantine stays; a person may leave it", () => {
  const lot = (id: string, qty: number, more = {}) => ({
    id,
    mpn: "ox-10k",
    qty,
    place: "drawer 4",
    receivedOn: "2026-01-01",
    unitCost: "0.2",
    currency: "EUR",
    condition: "new" as const,
    ...more,
  });
  const base = {
    lines: [line("1", ["R1"])],
    offers: [offer("x", "1", "0.1")],
    lots: [lot("q", 50, { condition: "quarantine" }), lot("old", 4), lot("new", 500)],
  };
  const r = rollUp(doc(base));
  const need = r.needs[0]!;
  expect(need.shelf.map((t) => [t.lot.id, t.qty])).toEqual([
    ["old", 4],
    ["new", need.whole - 4],
  ]);
  expect([need.need, r.basket.total, r.basket.missing]).toEqual([0, 0, 0]);
  expect(need.shelf.reduce((s, t) => s + t.cost, 0)).toBe(need.whole * 200_000);
  const left = rollUp(doc({ ...base, choices: { ownShelf: "leave" } }));
  expect(left.needs[0]).toMatchObject({ need: need.whole, shelf: [] });
});

test("the line that would stop the product first comes first: stock of what may be bought, and of the shelf", () => {
  const lines = [
    line("1", ["R1"]),
    line("2", ["U1"], { mpn: "TB-1", package: "SOIC-8" }),
    line("3", ["J1"], { mpn: "J-1" }),
  ];
  const d = doc({
    lines,
    offers: [
      offer("x", "1", "0.1", { stock: 10_000 }),
      offer("y", "1", "0.1", { stock: 10_000, supplier: "b" }),
      offer("z", "2", "1", { stock: 22 }),
      offer("w", "2", "1", { stock: 500, part: "alt" }),
    ],
    lots: [
      {
        id: "l",
        mpn: "TB-1",
        qty: 11,
        place: "",
        receivedOn: "2026-01-01",
        unitCost: "1",
        currency: "EUR",
        condition: "new",
      },
    ],
  });
  const r = rollUp(d);
  const list = scarcityOf(d, r);
  expect(list.map((s) => [s.line, s.sources, s.stock])).toEqual([
    ["3", 0, 0],
    ["2", 1, 33],
    ["1", 2, 20_000],
  ]);
  expect(list[1]!.coverRuns).toBeCloseTo(33 / r.needs[1]!.whole, 9);
});

test("digits that are a size in either system are asked once, where neither pads nor other sizes tell", () => {
  const keys = (packages: string[], accepted: Record<string, string> = {}) =>
    rollUp(
      doc({
        lines: packages.map((p, i) => line(String(i), [`R${i + 1}`], { package: p, mpn: `M-${i}` })),
        choices: { accepted },
      }),
    )
      .notes.filter((n) => n.key.startsWith("size-system") && !n.acceptedBecause)
      .map((n) => n.key);
  expect(keys(["0603", "0402"])).toEqual(["size-system 0603, 0402"]);
  expect(keys(["0603", "0402"], { "size-system 0603, 0402": "our program writes imperial" })).toEqual([]);
  expect(keys(["0603", "0805"])).toEqual([]);
  expect(keys(["0603", "2012"])).toEqual(["size-system 0603"]);
  expect(keys(["0603M", "SOIC-8"])).toEqual([]);
});

test("a reserve for rework is kept on top, of what is soldered only, and told apart from losses", () => {
  const lines = [line("1", ["R1", "R2"]), line("2", [], { mpn: "BOX", mount: "none", qty: 1 })];
  const plain = rollUp(doc({ lines }));
  const kept = rollUp(doc({ lines, assembly: { ...DEFAULT_ASSEMBLY, reworkReserve: 2.5 } }));
  const [a, b] = [plain.needs[0]!, kept.needs[0]!];
  expect(b.reserve).toBe(Math.ceil((2 * kept.start * 2.5) / 100));
  expect([b.whole, b.lost]).toEqual([a.whole + b.reserve, a.lost]);
  expect(kept.needs[1]!.whole).toBe(plain.needs[1]!.whole);
});

const lotOf = (id: string, mpn: string, qty: number) => ({
  id,
  mpn,
  qty,
  place: "",
  receivedOn: "2026-01-01",
  unitCost: "0.1",
  currency: "EUR",
  condition: "new" as const,
});

test("the shelf gives what may stand in too: the own number first, another only once it is approved, and it is told", () => {
  const l = line("1", ["R1"]);
  const base = {
    lines: [l],
    library: [STAND_IN],
    lots: [lotOf("other", "ql-10k", 500), lotOf("own", "OX-10K", 3)],
  };
  expect(rollUp(doc(base)).needs[0]!.shelf.map((t) => t.lot.id)).toEqual(["own"]);
  const approved = {
    original: lineKey(l)!,
    part: "alt",
    state: "approved" as const,
    because: "",
    by: "Ada",
    at: "2026-11-20",
  };
  const r = rollUp(doc({ ...base, alternates: [approved] }));
  expect(r.needs[0]!.shelf.map((t) => [t.lot.id, t.qty])).toEqual([
    ["own", 3],
    ["other", r.needs[0]!.whole - 3],
  ]);
  expect(r.notes.find((n) => n.key.startsWith("bought-instead"))!.text).toContain(
    `${r.needs[0]!.whole - 3} of QL-10K stand in for OX-10K; approved by Ada`,
  );
  // a line without a number takes whatever answers it
  const rule = rollUp(doc({ ...base, lines: [line("1", ["R1"], { mpn: "" })] }));
  expect(rule.needs[0]!.shelf.map((t) => t.lot.id)).toEqual(["other"]);
  expect(rule.notes.some((n) => n.key.startsWith("bought-instead"))).toBe(false);
});

test.each([
  ["ended", "error"],
  ["last call", "warning"],
  ["preview", "warning"],
  ["not for new designs", "remark"],
  ["active", undefined],
  ["unknown", undefined],
] as const)("a part whose maker's plans are “%s” is noted as: %s", (state, level) => {
  const own = { ...STAND_IN, id: "own", mpn: "OX-10K", state };
  const r = rollUp(doc({ lines: [line("1", ["R1"])], library: [own] }));
  expect(r.notes.find((n) => n.key === "part-state OX-10K")?.level).toBe(level);
});

test("a shop's own losses take the place of the usual ones, of the kind they are set for", () => {
  const lines = [line("1", ["R1", "R2"]), line("2", ["U1"], { mpn: "T-1", package: "SOIC-8" })];
  const plain = rollUp(doc({ lines }));
  const workshop = { ...doc({}).workshop, attrition: { chip: { hand: [0.2, 7], machine: [0, 0] } as const } };
  const own = rollUp(doc({ lines, workshop }));
  expect(own.needs[0]!.lost).toBe(Math.max(Math.ceil(2 * own.start * 0.2), 7));
  expect(own.needs[1]!.lost).toBe(plain.needs[1]!.lost);
});

test("the library says who mounts a part and how its direction is marked; both reach the run", () => {
  const known = { ...STAND_IN, mpn: "OX-10K", mount: "hand" as const, direction: "bar at the cathode" };
  const lines = [
    line("1", ["R1"]),
    line("2", ["D1"], { mpn: "HB-1", package: "SOD-123", valueText: "diode" }),
    line("3", ["R2"], { mpn: "OX-1", mount: "hand" }),
  ];
  const d = doc({ lines, library: [known] });
  const r = rollUp(d);
  expect(r.notes.find((n) => n.key === "mount-differs OX-10K")).toMatchObject({
    level: "warning",
    lines: ["1"],
  });
  expect(r.notes.filter((n) => n.key.startsWith("mount-differs"))).toHaveLength(1);
  // a mark makes a resistor of the bill a part with a direction; one nobody looked up stands first
  expect(directedParts(d, r.parts).map((x) => [x.refs[0], x.mark])).toEqual([
    ["D1", undefined],
    ["R1", "bar at the cathode"],
  ]);
  // of marks that are alike the lowest reference of a line tells its place, not the next of it
  const more = doc({
    lines: [
      line("5", ["D3", "D4"], { mpn: "HB-2", package: "SOD-123", valueText: "diode" }),
      line("4", ["D9", "D1"], { mpn: "HB-1", package: "SOD-123", valueText: "diode" }),
    ],
  });
  expect(directedParts(more, rollUp(more).parts).map((x) => x.refs)).toEqual([
    ["D1", "D9"],
    ["D3", "D4"],
  ]);
  const turned = r.parts.find((p) => p.line.id === "1")!;
  expect([turned.isPolarised, r.parts.find((p) => p.line.id === "3")!.isPolarised]).toEqual([true, false]);
});

test("pieces of the shelf that another run counts on are used and said; reserved for neither, they are there once", () => {
  const lot = {
    id: "l",
    mpn: "OX-10K",
    qty: 500,
    place: "drawer 3",
    receivedOn: "2026-01-01",
    unitCost: "0",
    currency: "EUR",
    condition: "new" as const,
  };
  const at = (alsoIn?: readonly { run: string; qty: number }[]) =>
    rollUp(doc({ lines: [line("1", ["R1"])], lots: [{ ...lot, ...(alsoIn ? { alsoIn } : {}) }] })).notes.find(
      (n) => n.key.startsWith("shelf-twice"),
    );
  expect(at()).toBeUndefined();
  expect(at([{ run: "Kiln Watch, spring", qty: 40 }])).toMatchObject({
    level: "warning",
    text: "The run “Kiln Watch, spring” counts on the same pieces of the shelf: R1. There they are once.",
    lines: ["1"],
  });
});

test.each([
  // goods 84.00, freight 18.00, duty 3.7 %, handling 12.00, tax 20 % on all of it (EX 4.5)
  ["on goods and freight", true, 3.774, 117.77, 141.32],
  ["on the goods alone", false, 3.108, 117.11, 140.53],
])("duty %s: %d, landed %d, cash with recoverable tax %d", (_, dutyOnFreight, duty, landed, cash) => {
  const base = doc({});
  const r = rollUp({
    ...base,
    workshop: { ...base.workshop, taxRate: 0.2 },
    goodBoards: 10,
    assembly: { ...DEFAULT_ASSEMBLY, method: "iron", consumables: "0" },
    lines: [line("s", [], { mount: "none", qty: 2, mpn: "OX-M3" })],
    suppliers: [
      {
        id: "a",
        name: "A",
        currency: "EUR",
        shipping: "18.00",
        handling: "12.00",
        dutyRate: 0.037,
        dutyOnFreight,
        daysMin: 1,
        daysMax: 2,
      },
    ],
    offers: [offer("o", "s", "4.20", { stock: 5000 })],
  });
  expect([r.basket.parts, r.basket.shipping, r.basket.duty].map((v) => v / 1e6)).toEqual([84, 30, duty]);
  expect(Math.round(r.basket.total / 1e4) / 100).toBe(landed);
  expect(Math.round(r.cashNeeded / 1e4) / 100).toBe(cash);
});
