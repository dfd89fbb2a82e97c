import { expect, test } from "@jest/globals";
import fc from "fast-check";
import {
  type BareKept,
  isNotBuilt,
  type RunRecord,
  refuseOverKept,
  usableProducts,
} from "../document/record.ts";
import { PURPOSES, type SurplusPurpose } from "../document/surplus.ts";
import { twoSided } from "../two-sided.fixture.ts";
import { bareLeft } from "./put-by.ts";

const doc = twoSided({});
const came = (qty: number, isApart = false): RunRecord["receipts"][number] => ({
  id: `r${qty}${isApart}`,
  order: "boards x",
  item: "b",
  qty,
  arrivedOn: "2026-12-01",
  isApart,
  because: "",
});
let n = 0;
const put = (pieces: number, purpose: SurplusPurpose, isApart = false): BareKept => ({
  id: `k${n++}`,
  item: "b",
  isApart,
  purpose,
  pieces,
  place: "",
  on: "2026-12-01",
  person: "x",
});
const begun = (started: number): RunRecord["work"] => [
  { id: "w", on: "2026-12-02", started, good: 0, reworked: 0, scrapped: 0, minutes: 0 },
];
const record = (more: Partial<RunRecord>): RunRecord => ({ purchases: [], receipts: [], work: [], ...more });
const plan = (start: number, ...goes: string[]) => ({ start, goes: new Set(goes) });

test("what came is built, put by or left; what is left gets the usual purposes, without those that are served already", () => {
  const of = (more: Partial<RunRecord>, r = plan(20)) => bareLeft(doc, r, record(more), 0);
  // 26 came, 20 are built: one kept back, one tray, two to practise on, two spare
  expect(of({ receipts: [came(26)] })).toMatchObject({
    usable: 26,
    built: 20,
    left: 6,
    proposed: { reference: 1, tray: 1, practice: 2, spare: 2 },
  });
  // paste is printed by hand: four make a nest before there is a tray
  expect(of({ receipts: [came(26)] }, plan(20, "stencil")).proposed).toEqual({
    reference: 1,
    nest: 4,
    tray: 1,
  });
  expect(of({ receipts: [came(26)], kept: [put(1, "reference"), put(3, "gift")] })).toMatchObject({
    left: 2,
    proposed: { tray: 1, practice: 1 },
  });
  expect(of({ receipts: [came(19)] })).toMatchObject({ left: 0, proposed: {} });
  // as it was planned at Fab; what that does not reach is spare
  const planned = { ...doc, choices: { ...doc.choices, surplus: { gift: 2 } } };
  expect(bareLeft(planned, plan(20), record({ receipts: [came(25)] }), 0).proposed).toEqual({
    gift: 2,
    spare: 3,
  });
  // those set apart are counted by themselves
  expect(of({ receipts: [came(20), came(4, true)], kept: [put(1, "tray", true)] })).toMatchObject({
    left: 0,
    apart: 4,
    leftApart: 3,
  });
  // and are none of the four a nest takes: two that are left make none
  expect(
    of({ receipts: [came(22), came(4, true)], kept: [put(4, "gift", true)] }, plan(20, "stencil")).proposed,
  ).toEqual({ reference: 1, tray: 1 });
});

test("a spare one that is begun is no longer spare, and nothing else is begun that is put by", () => {
  const kept = [put(2, "spare"), put(1, "reference")];
  const left = (started: number, isClosed = false) =>
    bareLeft(doc, plan(20), record({ receipts: [came(25)], kept, work: begun(started) }), 0, isClosed).left;
  // 25 − 20 − 1 − 2; begun beyond the plan were the spare ones, then those without a purpose
  expect([left(0), left(20), left(22), left(24)]).toEqual([2, 2, 2, 0]);
  // a closed run builds no more than it began
  expect(left(18, true)).toBe(4);
  const boards = [{ item: "b", perProduct: 1 }];
  expect(usableProducts({ receipts: [came(25)], kept }, boards)).toBe(24);
  expect(usableProducts({ receipts: [came(25)] }, boards)).toBe(25);
});

test("whatever is put by: no more than came of the same heap, and what may be begun is what came without it (law)", () => {
  const one = fc.record({
    pieces: fc.integer({ min: 1, max: 9 }),
    purpose: fc.constantFrom(...PURPOSES),
    isApart: fc.boolean(),
  });
  fc.assert(
    fc.property(
      fc.nat(30),
      fc.nat(30),
      fc.array(one, { maxLength: 6 }),
      fc.integer({ min: 1, max: 20 }),
      (good, bad, list, start) => {
        const kept = list.map((k) => put(k.pieces, k.purpose, k.isApart));
        const receipts = [came(good), came(bad, true)];
        const sum = (is: (k: BareKept) => boolean) => kept.filter(is).reduce((s, k) => s + k.pieces, 0);
        const fits = sum((k) => !k.isApart) <= good && sum((k) => k.isApart) <= bad;
        const refused = (() => {
          try {
            refuseOverKept({ receipts, kept }, ["b"]);
            return false;
          } catch {
            return true;
          }
        })();
        expect(refused).toBe(!fits);
        if (!fits) return;
        expect(usableProducts({ receipts, kept }, [{ item: "b", perProduct: 1 }])).toBe(
          good - sum(isNotBuilt),
        );
        const o = bareLeft(doc, plan(start), record({ receipts, kept }), 0);
        // where enough came for all of it nothing is lost and nothing is twice
        if (good >= start + sum((k) => !k.isApart))
          expect(o.left + o.built + sum((k) => !k.isApart)).toBe(good);
        expect(Object.values(o.proposed).reduce((s, k) => s + (k ?? 0), 0)).toBe(o.left);
      },
    ),
  );
});

test("what no order brought is not put by, and is refused with the numbers", () => {
  const at =
    (receipts: RunRecord["receipts"], item = "b") =>
    () =>
      refuseOverKept({ receipts, kept: [{ ...put(5, "gift"), item }] }, ["b"]);
  expect(at([came(3)])).toThrow(/5 bare boards are put by, but 3 of them came/);
  expect(at([came(5)])).not.toThrow();
  // of parts of the same key nothing is a board
  expect(at([{ ...came(5), order: "parts x" }])).toThrow(/but 0 of them/);
  expect(at([{ ...came(5), item: "y" }], "y")).toThrow(/5 bare boards are put by of a kind that is none/);
});
