import { expect, test } from "@jest/globals";
import type { FabOptions } from "../fab/options.ts";
import { microsToNumber } from "../money/money.ts";
import { boardK, NEAR } from "./board-k.fixture.ts";
import { costDocument } from "./cost-document.ts";
import { curvePoint, curveQuantities } from "./curve.ts";
import { type RunLine, toRunDocument } from "./document/document.ts";
import { FULL } from "./full-house.fixture.ts";
import { FAR, madeMeasure } from "./made-up.fixture.ts";
import { rollUp } from "./roll-up.ts";
import { readyBy } from "./stage/ready.ts";
import { whatIf } from "./what-if.ts";

const measure = madeMeasure;
test("a value no series has is remarked, and a size that the pads contradict is a caution with what would fit", () => {
  const line = (id: string, ref: string, valueText: string, pkg: string): RunLine => ({
    id,
    refs: [ref],
    qty: 1,
    valueText,
    package: pkg,
    mpn: "Z",
    maker: "",
    description: "",
    dnp: false,
    mount: "machine",
  });
  const pad = (pin: string, x: number) => ({ layer: "top", x, y: 0, pin });
  const nets = {
    count: 2,
    islands: [
      { net: 1, pads: [pad("R1.1", 0), pad("R2.1", 10)] },
      { net: 2, pads: [pad("R1.2", 1.6), pad("R2.2", 10.6)] },
    ],
  };
  const run = boardK();
  const notes = rollUp({
    ...run,
    boards: [{ ...run.boards[0]!, measure: measure({ nets } as never) }],
    lines: [line("a", "R1", "4k8", "0603"), line("b", "R2", "4k7", "0603")],
    placements: [],
  }).notes.filter((n) => n.stage === "parts");
  expect(notes.find((n) => n.key.startsWith("value-odd"))).toMatchObject({ level: "remark", lines: ["a"] });
  expect(notes.filter((n) => n.key.startsWith("size-odd"))).toMatchObject([
    { level: "warning", lines: ["b"], text: expect.stringContaining("0201 (0603 metric)") },
  ]);
});

test("Board K, 30 good: 31 started, parts 131.453 used of 133.933 bought, boards 84.50 (worked example)", () => {
  const r = rollUp(boardK());
  const node = (key: string) => r.tree.children.find((c) => c.key === key)!;
  expect(r.start).toBe(31);
  expect(microsToNumber(r.basket.parts)).toBe(133.933);
  expect(microsToNumber(r.basket.shipping)).toBe(0);
  expect(microsToNumber(node("parts").children.find((c) => c.key === "parts-used")!.micros)).toBe(131.453);
  // invoices round their lines: 2.09 + 1.05 + 3.13 + 7.21 in the place of 2.088 + 1.048 + 3.132 + 7.205
  expect(microsToNumber(node("parts").micros)).toBe(131.46);
  expect(r.orders[0]!.quote.pieces).toBe(35);
  expect(microsToNumber(node("boards").micros)).toBe(84.5);
  // the worked sum is 398.59 min; here one connector is not counted as polarised, which takes 1,200 DPMO × 5 min and its share of diagnosis away
  expect(r.ownMinutes).toBeGreaterThan(398);
  expect(r.ownMinutes).toBeLessThan(398.59);
  expect(microsToNumber(r.total)).toBeCloseTo(381.389, 0);
  expect(microsToNumber(r.perGood)).toBeCloseTo(12.4328, 1);
});

test("left-overs charged to the run cost what was bought", () => {
  const r = rollUp(boardK({ choices: { leftovers: "expense" } }));
  expect(microsToNumber(r.tree.children[0]!.micros)).toBe(133.94);
});

test("every figure is the sum of its parts, and the stages add up to the cost per good board", () => {
  const r = rollUp(boardK());
  const check = (n: typeof r.tree) => {
    const below =
      n.children.length > 0
        ? n.children.reduce((s, c) => s + c.micros, 0)
        : n.terms.reduce((s, t) => s + t.micros, 0);
    expect(Math.abs(below - n.micros)).toBeLessThan(1);
    n.children.forEach(check);
  };
  check(r.tree);
  expect(Object.values(r.stages).reduce((s, x) => s + x.micros, 0)).toBeCloseTo(r.total / r.expectedGood, 3);
});

test("cash needed holds tax and leaves own hours out", () => {
  const r = rollUp(boardK({ workshop: { ...boardK().workshop, taxRate: 0.2 } }));
  expect(microsToNumber(r.cashNeeded)).toBeCloseTo(133.94 + 84.5 + 6 + 44.89, 6);
});

test("the shop's own faults move what is expected at first pass, and no cost: mending is in the hours of those runs", () => {
  const run = boardK();
  const past = {
    name: "before",
    closedOn: "2026-01-01",
    method: run.assembly.method,
    good: 0,
    scrapped: 0,
    minutes: 0,
    modelMinutes: 0,
    // 33 placings at 1200 are 0.0396 a board, 0.792 on twenty (EX 7.3 has one polarised part more)
    faults: { looked: 20, kinds: { placing: { seen: 12, expected: 0.792 } }, unsorted: 0 },
  };
  const [plain, told] = [rollUp(run), rollUp({ ...run, past: [past] })];
  expect(plain.yield.lambda).toBeCloseTo(0.0674, 12);
  // (0.792 + 12) ÷ (0.792 + 0.792) times the placing
  expect(told.yield.lambda).toBeCloseTo(0.0674 - 0.0396 + (0.0396 * 12.792) / 1.584, 12);
  expect(told.yield.firstPass).toBeCloseTo(Math.exp(-told.yield.lambda), 12);
  expect(told.yield.faults).toMatchObject({ runs: 1, seen: 12 });
  expect([told.perGood, told.start, told.yield.final, told.yield.reworkMin]).toEqual([
    plain.perGood,
    plain.start,
    plain.yield.final,
    plain.yield.reworkMin,
  ]);
  // another way to solder tells nothing of this one
  const iron = { ...past, method: "iron" as const };
  expect(rollUp({ ...run, past: [iron] }).yield).toEqual(plain.yield);
});

test("an effect shown before the choice is what the choice then does", () => {
  const doc = boardK();
  const base = rollUp(doc);
  const effects = whatIf(doc, base);
  const finish = effects.options.finish.find((o) => o.value === "levelled-lead-free")!;
  const chosen = rollUp({ ...doc, options: { ...doc.options, finish: "levelled-lead-free" } });
  expect(finish.perGood).toBeCloseTo(microsToNumber(chosen.perGood) - microsToNumber(base.perGood), 6);
  const method = effects.methods.find((m) => m.value === "house:far")!;
  expect(method.perGood).toBeCloseTo(
    microsToNumber(rollUp({ ...doc, assembly: { ...doc.assembly, method: "house", house: "far" } }).perGood) -
      microsToNumber(base.perGood),
    6,
  );
  expect(method.cannot).toBe("there is no placement file");
});

test("every value of every decision, and every house, changes what rolling the run up with it changes", () => {
  const past = [
    {
      name: "p",
      closedOn: "2026-01-01",
      method: "stencil",
      good: 30,
      scrapped: 3,
      minutes: 600,
      modelMinutes: 500,
    },
  ] as const;
  const doc = boardK({ house: FULL, houses: [FULL, FAR], options: {}, past });
  const base = rollUp(doc);
  const { options, houses } = whatIf(doc, base);
  const numbers = (r: ReturnType<typeof rollUp>) => [r.perGood, r.cashNeeded, r.ready.days];
  const rolled = [
    ...Object.entries(options).flatMap(([key, list]) =>
      list.flatMap((e) => {
        if (e.cannot) return [];
        const also = Object.fromEntries((e.with ?? []).map((c) => [c.key, c.value]));
        const value = key === "leadDays" ? Number(e.value) : e.value;
        const o = { ...base.options, ...also, [key]: value } as FabOptions;
        return [[`${key} ${e.value}`, e, numbers(rollUp({ ...doc, options: o }))] as const];
      }),
    ),
    ...houses.map((h) => {
      const house = [FULL, FAR].find((x) => x.id === h.house)!;
      return [h.house, h, numbers(rollUp({ ...doc, house }))] as const;
    }),
  ];
  expect(rolled.length).toBeGreaterThan(25);
  const [perGood, cash, days] = numbers(base) as [number, number, number];
  expect(rolled.map(([what, e]) => [what, e.perGood, e.cash, e.days])).toEqual(
    rolled.map(([what, , [p, c, d]]) => [
      what,
      (p! - perGood) / 1e6,
      (c! - cash) / 1e6,
      Math.round((d! - days) * 10) / 10,
    ]),
  );
});

test("a house that cannot make the board says why, with value and limit, and blocks when chosen", () => {
  const effects = whatIf(boardK(), rollUp(boardK()));
  expect(effects.houses.find((h) => h.house === "near")!.cannot).toBe(
    "smallest track is 0.2, this house holds 0.25",
  );
  const r = rollUp(boardK({ house: NEAR }));
  expect(r.blockers.map((b) => b.key)).toContain("house-limit near minTrackMm");
  const accepted = rollUp(
    boardK({ house: NEAR, choices: { accepted: { "house-limit near minTrackMm": "asked, they will" } } }),
  );
  expect(accepted.blockers).toEqual([]);
});

test("uncovered lines block firmly; a typed offer lifts the block", () => {
  const doc = boardK({
    offers: boardK().offers.filter((o) => o.line !== "mcu"),
    choices: { accepted: { "lines-uncovered": "never mind" } },
  });
  expect(rollUp(doc).blockers).toEqual([
    expect.objectContaining({ key: "lines-uncovered", isFirm: true, lines: ["mcu"] }),
  ]);
  expect(rollUp({ ...doc, offers: boardK().offers }).blockers).toEqual([]);
});

test("an offer past its date stops a run that buys from it; one that is only compared with is told, and stops nothing", () => {
  const { basket } = rollUp(boardK());
  const bought = new Set(basket.lines.flatMap((l) => l.buys.map((b) => b.offer)));
  const said = (isPast: (id: string) => boolean, more: typeof doc.offers = []) => {
    const offers = [...boardK().offers, ...more];
    return rollUp({
      ...boardK(),
      offers: offers.map((o) => (isPast(o.id) ? { ...o, validUntil: "2020-01-01" } : o)),
    }).notes.flatMap((n) => (n.key.startsWith("prices-expired") ? [[n.level, n.lines, n.text]] : []));
  };
  const doc = boardK();
  const dear = doc.offers
    .slice(0, 2)
    .map((o) => ({ ...o, id: `dear ${o.id}`, breaks: [{ qty: 1, price: "900.00" }] }));
  const [first, second, third] = doc.offers.filter((o) => bought.has(o.id));
  expect(said(() => false)).toEqual([]);
  expect(said((id) => id === first!.id)).toEqual([
    [
      "error",
      [first!.line],
      expect.stringMatching(/^The offer for \S+ that is bought from is past its date, 2020-01-01\.$/),
    ],
  ]);
  expect(said((id) => [first, second, third].some((o) => o!.id === id))).toEqual([
    [
      "error",
      [first!.line, second!.line, third!.line],
      expect.stringMatching(/^3 of the offers bought from are past their date: /),
    ],
  ]);
  expect(said((id) => id === dear[0]!.id, dear)).toEqual([
    [
      "remark",
      [dear[0]!.line],
      expect.stringMatching(/^An offer for \S+ is past its date; nothing is bought from it\.$/),
    ],
  ]);
  expect(said((id) => id.startsWith("dear "), dear)).toEqual([
    ["remark", dear.map((o) => o.line), "2 offers are past their date; nothing is bought from them."],
  ]);
});

test("a quotation that came overrides the estimate, with its days", () => {
  const r = rollUp(
    boardK({
      quotes: [
        { house: "far", kind: "fab", total: "100.00", currency: "EUR", days: 9, capturedOn: "2026-11-05" },
      ],
    }),
  );
  expect([microsToNumber(r.orders[0]!.micros), r.orders[0]!.days]).toEqual([100, 9]);
  const old = rollUp(
    boardK({
      quotes: [
        {
          house: "far",
          kind: "fab",
          total: "100.00",
          currency: "EUR",
          days: 9,
          capturedOn: "2026-10-05",
          validUntil: "2026-11-01",
        },
      ],
    }),
  );
  expect(old.blockers.map((b) => b.key)).toEqual(["quote-expired"]);
});

test("silkscreen in the mask's colour blocks; cautions stand at assembly", () => {
  const r = rollUp(boardK({ options: { mask: "white", legend: "white" } }));
  expect(r.blockers.map((b) => b.key)).toEqual(["legend-unreadable"]);
  expect(r.notes.filter((n) => n.stage === "assemble").map((n) => n.key)).toEqual(
    expect.arrayContaining(["safety-fumes", "safety-heat", "safety-law"]),
  );
});

test("foreign offers count at the shop's rate; without one they are left out and said", () => {
  const foreign = boardK().offers.map((o) => (o.line === "mcu" ? { ...o, currency: "USD" } : o));
  const rated = rollUp(
    boardK({ offers: foreign, workshop: { ...boardK().workshop, rates: { USD: "0.5" } } }),
  );
  expect(microsToNumber(rated.basket.parts)).toBeCloseTo(133.933 - 70.4 / 2, 3);
  const bare = rollUp(boardK({ offers: foreign }));
  expect(bare.notes.map((n) => n.key)).toContain("rate-missing USD");
});

test("the curve has forty quantities, the run's own among them, and agrees with the roll-up", () => {
  const q = curveQuantities(30);
  expect(q).toHaveLength(40);
  expect(q).toContain(30);
  expect(new Set(q).size).toBe(40);
  expect(curvePoint(boardK(), 30).perGood).toBe(microsToNumber(rollUp(boardK()).perGood));
  expect(curvePoint(boardK(), 10).perGood).toBeGreaterThan(curvePoint(boardK(), 300).perGood);
});

test("ready-by: the later branch counts, the spread is its own", () => {
  const r = readyBy("2026-11-10", { partsDays: [2, 4], fabDays: 20, fabSigma: 4, houseDays: 0, ownDays: 2 });
  expect(r.days).toBe(23);
  expect(r.p50).toBe("2026-12-03");
  expect(r.p10 < r.p50 && r.p50 < r.p90).toBe(true);
});

test("more certainty never costs the run less and never leaves fewer: the figure a board is of those expected", () => {
  const doc = boardK();
  const { confidence } = whatIf(doc, rollUp(doc));
  // from 50 to 99 %: never less for the run, never fewer left over
  for (const key of ["run", "spares"] as const) {
    const figures = confidence.map((e) => e[key] ?? 0);
    expect([key, figures]).toEqual([key, [...figures].sort((a, b) => a - b)]);
  }
  const sure = confidence.find((e) => e.value === "0.99")!;
  const r = rollUp({ ...doc, confidence: 0.99 });
  expect(sure.run).toBeCloseTo(microsToNumber(r.total) - microsToNumber(rollUp(doc).total), 6);
  expect(sure.perGood).toBeCloseTo(microsToNumber(r.perGood) - microsToNumber(rollUp(doc).perGood), 6);
  expect(sure.spares).toBeCloseTo(r.expectedGood - 30, 9);
});

test("cost/1 carries the same figures; a document that is none is refused by its key", () => {
  const doc = costDocument(boardK());
  expect(doc).toMatchObject({ kobbin: "cost/1", currency: "EUR", start: 31, blockers: [] });
  expect(doc.perGoodBoard).toBe(microsToNumber(rollUp(boardK()).perGood));
  expect(doc.curve).toHaveLength(40);
  expect(() => toRunDocument({ kobbin: "run/1", goodBoards: 0 })).toThrow("goodBoards");
  expect(() => toRunDocument([])).toThrow("should be an object");
});

test("a house that charges a currency without a rate blocks firmly and is never counted one to one", () => {
  const yen = { ...boardK().workshop, currency: "JPY" };
  const bare = rollUp(boardK({ workshop: yen, choices: { accepted: { "house-rate-missing": "fine" } } }));
  expect(bare.blockers.map((b) => b.key)).toContain("house-rate-missing");
  expect(bare.tree.children.find((c) => c.key === "boards")!.micros).toBe(0);
  const rated = rollUp(boardK({ workshop: { ...yen, rates: { EUR: "160" } } }));
  expect(rated.notes.map((n) => n.key)).not.toContain("house-rate-missing");
  expect(microsToNumber(rated.tree.children.find((c) => c.key === "boards")!.micros)).toBe(84.5 * 160);
  // what counts as costly goes with the currency: the chips are still bought over by share, not by one
  expect(rated.needs.find((n) => n.id === "r10k")!.need).toBe(261);
});
