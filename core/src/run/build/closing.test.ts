import { expect, test } from "@jest/globals";
import type { RunReceipt, RunRecord } from "../document/record.ts";
import type { RunNeed } from "../document/run-need.ts";
import { madeLine, madeOffer, madeRun } from "../made-up.fixture.ts";
import { type LotNow, leftOnShelf } from "./closing.ts";

const doc = madeRun({ lines: [madeLine("x", ["R1"])], offers: [madeOffer("o", "x", "1")] });
const lot = (id: string, qty: number): LotNow => ({ id, mpn: "OX-10K", place: "drawer", qty });
const took = (id: string, qty: number) => ({ lot: { id }, qty, cost: 0 });
const need = (whole: number, shelf: readonly object[]) =>
  ({
    id: "x",
    lines: ["x"],
    whole,
    shelf,
    terms: [{ line: "x", net: whole, kind: "chip", by: "hand" }],
  }) as unknown as RunNeed;
const came = (id: string, qty: number, more: Partial<RunReceipt> = {}): RunReceipt => ({
  id,
  order: "parts a",
  item: "o",
  qty,
  arrivedOn: "2026-12-01",
  isApart: false,
  because: "",
  lot: id,
  ...more,
});
const record = (started: number, receipts: readonly RunReceipt[]): RunRecord => ({
  purchases: [],
  receipts,
  work: [{ id: "w", on: "2026-12-02", started, good: 0, scrapped: 0, reworked: 0, minutes: 0 }],
});

test.each<readonly [string, number, number, readonly (readonly [string, number, number])[]]>([
  // 40 pieces for 10 boards; the shelf gives 15 of its 20, 30 come
  [
    "all that were planned are begun: the shelf first, then what came",
    10,
    30,
    [
      ["shelf", 15, 5],
      ["new", 25, 5],
    ],
  ],
  [
    "half of them: the shelf's pieces do, but for five",
    5,
    30,
    [
      ["shelf", 15, 5],
      ["new", 5, 25],
    ],
  ],
  [
    "none",
    0,
    30,
    [
      ["shelf", 0, 20],
      ["new", 0, 30],
    ],
  ],
  [
    "more than planned: no more goes than was meant and lies there",
    20,
    30,
    [
      ["shelf", 15, 5],
      ["new", 30, 0],
    ],
  ],
  [
    "fewer lie there than came: somebody took some",
    10,
    12,
    [
      ["shelf", 15, 5],
      ["new", 12, 0],
    ],
  ],
])("%s", (_, started, there, expected) => {
  const left = leftOnShelf(
    doc,
    { needs: [need(40, [took("shelf", 15)])], start: 10 },
    record(started, [came("new", 30)]),
    [lot("shelf", 20), lot("new", there)],
  );
  expect(left.map((l) => [l.lot, l.used, l.stays])).toEqual(expected);
  for (const l of left) expect(l.used + l.stays).toBe(l.had);
});

test("pieces set apart, boards, and lots that are gone give nothing", () => {
  const receipts = [
    came("apart", 9, { isApart: true }),
    came("board", 9, { order: "boards far" }),
    came("gone", 9),
  ];
  expect(
    leftOnShelf(doc, { needs: [need(40, [])], start: 10 }, record(10, receipts), [
      lot("apart", 9),
      lot("board", 9),
    ]),
  ).toEqual([]);
});

test("loose parts follow the good products, soldered ones the boards that were started", () => {
  const of = (kind: "loose" | "chip", good: number) => {
    const n = {
      ...need(40, [took("shelf", 40)]),
      terms: [{ line: "x", net: 40, kind, by: "hand" as const }],
    };
    const work = [{ id: "w", on: "2026-12-02", started: 10, good, scrapped: 0, reworked: 0, minutes: 0 }];
    const all = { purchases: [], receipts: [], work };
    return leftOnShelf({ ...doc, goodBoards: 8 }, { needs: [n as RunNeed], start: 10 }, all, [
      lot("shelf", 40),
    ])[0]!.used;
  };
  expect([of("chip", 8), of("chip", 4)]).toEqual([40, 40]);
  expect([of("loose", 8), of("loose", 4)]).toEqual([40, 20]);
});

test("where the bench pressed every piece of a part, what went on and was lost is what is used", () => {
  const sat = (
    unit: number,
    marks: Record<string, "done" | "doubt" | "skipped">,
    lost: Record<string, number> = {},
  ) => ({
    id: `s${unit}`,
    unit,
    step: 3,
    marks,
    lost,
    minutes: {},
    isDone: true,
    person: "",
  });
  const two = madeRun({ lines: [madeLine("x", ["R1", "R2"])], offers: [madeOffer("o", "x", "1")] });
  const used = (sittings: RunRecord["sittings"], more: object = {}) => {
    const n = { ...need(60, []), ...more } as RunNeed;
    const [l] = leftOnShelf(
      two,
      { needs: [n], start: 10 },
      { ...record(2, [came("new", 60)]), sittings: sittings! },
      [lot("new", 60)],
    );
    return [l!.used, l!.stays, l!.bench];
  };
  const both = { R1: "done", R2: "doubt" } as const;
  // 60 pieces for ten boards are twelve for two; the bench put four on and lost three
  expect(used([sat(1, both, { x: 3, y: 9 }), sat(2, both)])).toEqual([7, 53, { on: 4, lost: 3 }]);
  // one that was left out, one that nobody pressed, another name's mark: an estimate
  expect(used([sat(1, both), sat(2, { R1: "done", R2: "skipped" })])).toEqual([12, 48, undefined]);
  expect(used([sat(1, both), sat(2, { R1: "done", R9: "done" })])).toEqual([12, 48, undefined]);
  expect(used([])).toEqual([12, 48, undefined]);
  // a machine places some of it, or it goes loose
  const terms = (t: object) => ({ terms: [{ line: "x", net: 60, kind: "chip", by: "hand", ...t }] });
  const all = [sat(1, both), sat(2, both)];
  expect(used(all, terms({ by: "machine" }))[2]).toBeUndefined();
  expect(used(all, terms({ kind: "loose" }))[2]).toBeUndefined();
  expect(used(all, terms({}))[2]).toEqual({ on: 4, lost: 0 });
});
