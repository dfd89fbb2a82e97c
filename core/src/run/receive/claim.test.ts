import { expect, test } from "@jest/globals";
import type { RunPhoto, RunReceipt, RunRecord } from "../document/record.ts";
import { rollUp } from "../roll-up.ts";
import { plannedOrders } from "../stage/planned-orders.ts";
import { twoSided } from "../two-sided.fixture.ts";
import { claimLetter, disagreesOf } from "./claim.ts";
import { judgeLot } from "./measured.ts";

const plain = twoSided({ method: "stencil" });
const doc = {
  ...plain,
  boards: plain.boards.map((x) => ({ ...x, measure: { ...x.measure, extentMm: [0, 0, 50, 40] as never } })),
};
const r = rollUp(doc);
const orders = plannedOrders({ doc, ...r, plan: r.assembly });
const parts = orders.find((o) => o.kind === "parts")!;
const boards = orders.find((o) => o.kind === "boards")!;
const came = (order: string, item: string, qty: number, more: Partial<RunReceipt> = {}): RunReceipt => ({
  id: `${item} ${qty}`,
  order,
  item,
  qty,
  arrivedOn: "2026-12-01",
  isApart: false,
  because: "",
  ...more,
});
const [a, b] = [parts.items[0]!, parts.items[1]!];
const record = (receipts: RunReceipt[], more: Partial<RunRecord> = {}): RunRecord => ({
  purchases: [],
  work: [],
  receipts,
  ...more,
});

test("what disagrees: set apart, short in a parcel that came, measured otherwise; what is claimed is not told again", () => {
  const all = [
    came(parts.key, a.key, a.qty - 3),
    came(parts.key, b.key, b.qty - 2),
    came(parts.key, b.key, 2, { isApart: true, because: "bent" }),
  ];
  expect(disagreesOf(parts, record(all), []).map((d) => [d.item, d.kind, d.pieces, d.because])).toEqual([
    [a.key, "short", 3, `${a.qty - 3} came of ${a.qty}`],
    [b.key, "apart", 2, "bent"],
  ]);
  const claim = {
    id: "c",
    order: parts.key,
    item: b.key,
    pieces: 2,
    because: "bent",
    letter: "",
    state: "open" as const,
    answer: "",
    openedOn: "2026-12-01",
    person: "",
  };
  expect(disagreesOf(parts, record(all, { claims: [claim] }), []).map((d) => d.item)).toEqual([a.key]);
  // nothing came yet: it is on its way, not short
  expect(disagreesOf(parts, record([]), [])).toEqual([]);
  const item = boards.items[0]!;
  const measured = {
    id: "m",
    item: item.key,
    label: "3",
    on: "2026-12-01",
    readings: { width: [1] },
    looks: {},
    note: "",
  };
  const full = record([came(boards.key, item.key, item.qty)], { measured: [measured] });
  const lot = judgeLot(doc, r, full, 0);
  expect(lot.verdict).toBe("fails");
  const [d] = disagreesOf(boards, full, [lot]);
  expect(d).toMatchObject({ kind: "measured", pieces: item.qty });
  const photo = (id: string, of: object) =>
    ({ id, widthPx: 1, heightPx: 1, on: "2026-12-01", note: "", person: "", ...of }) as RunPhoto;
  // of this line, of another, of a board
  const shown = (n: number): RunRecord => ({
    ...full,
    photos: [
      ...Array.from({ length: n }, (_, k) => photo(`${k}`, { order: boards.key, item: item!.key })),
      photo("other", { order: parts.key, item: a.key }),
      photo("built", { unit: 1 }),
    ],
  });
  const attached = (n: number) =>
    claimLetter(doc, boards, item, d!, { record: shown(n), lot, today: "2026-12-02" }).match(
      /.*attached.*/,
    )?.[0];
  expect([0, 1, 2].map(attached)).toEqual([undefined, "A photo is attached.", "2 photos are attached."]);
  const letter = claimLetter(doc, boards, item, d!, { record: full, lot, today: "2026-12-02" });
  expect(letter).toContain(`To ${boards.name}`);
  expect(letter).toContain("- board 3: width 1 mm (ordered 50 ± 0.2)");
  expect(letter).toContain(`Of ${item.qty} pieces we measured 1, and one is not as ordered: width 1 mm`);
  // all of it: what the line comes to, to the cent
  expect(letter).toContain(`or credit ${(item.total / 1e6).toFixed(2)} ${boards.currency} before tax`);
  // a third of what was ordered and set apart: a third of its price
  const third = { pieces: 1, because: "bent", kind: "apart" as const };
  expect(
    claimLetter(doc, parts, { ...a, qty: 3, total: 1_000_000 as never }, third, {
      record: full,
      today: "2026-12-02",
    }),
  ).toContain("1 piece of it is not as ordered: bent.");
  expect(
    claimLetter(doc, parts, { ...a, qty: 3, total: 1_000_000 as never }, third, {
      record: full,
      today: "2026-12-02",
    }),
  ).toContain("or credit 0.33 ");
  // what did not come is asked for, and nothing is said to be kept
  const short = { pieces: 2, because: "1 came of 3", kind: "short" as const };
  const asked = claimLetter(doc, parts, { ...a, qty: 3, total: 1_000_000 as never }, short, {
    record: full,
    today: "2026-12-02",
  });
  expect(asked).toContain("2 pieces of it did not come: 1 came of 3.\n\nPlease send them, or credit 0.67 ");
  expect(asked).not.toMatch(/keep|leave|replace/);
  expect(letter.endsWith(doc.workshop.name)).toBe(true);
});
