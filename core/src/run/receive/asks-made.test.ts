import { expect, test } from "@jest/globals";
import { boardK } from "../board-k.fixture.ts";
import type { RunDocument } from "../document/document.ts";
import { asksMade, asksMoisture, boughtNumber, daysDoubted, doubtsOfLot } from "./asks-made.ts";

const K = boardK();
const offer = K.offers.find((o) => K.lines.some((l) => l.id === o.line && l.mpn))!;
const line = K.lines.find((l) => l.id === offer.line)!;
const doc = (more: { line?: object; offer?: object; supplier?: object; part?: object }) =>
  ({
    ...K,
    lines: [{ ...line, description: "", valueText: "", ...more.line }],
    offers: [{ ...offer, restriction: undefined, ...more.offer }],
    suppliers: K.suppliers.map((s) => ({ ...s, sourceClass: "authorised", ...more.supplier })),
    library: more.part ? [{ mpn: line.mpn!.toLowerCase(), moisture: "", ...more.part }] : [],
  }) as never as RunDocument;

test.each([
  ["an ordinary part", {}, undefined],
  ["one nobody says anything of", { supplier: { sourceClass: undefined } }, undefined],
  ["a moisture level", { part: { moisture: "3" } }, /dry bag/],
  [
    "a moisture level of what is bought instead",
    { offer: { part: "p9" }, part: { id: "p9", mpn: "ZZ-9", moisture: "3" } },
    /dry bag/,
  ],
  ["a cell", { line: { description: "coin cell, 3 V" } }, /ages/],
  ["an electrolytic capacitor, by the library", { part: { description: "Electrolytic 100u" } }, /ages/],
  ["a word that only has one in it", { line: { description: "excellent" } }, undefined],
  ["a broker", { supplier: { sourceClass: "broker" } }, /maker’s own seller/],
  [
    "an offer bound to a date",
    { offer: { restriction: "date code 2500 or newer" } },
    /its offer says: date code 2500/,
  ],
  ["an offer bound to something else", { offer: { restriction: "no return" } }, undefined],
])("%s", (_, more, why) => {
  const said = asksMade(doc(more), offer.id);
  if (why === undefined) expect(said).toBeUndefined();
  else expect(said).toMatch(why);
  expect(asksMade(doc(more), "nobody's")).toBeUndefined();
});

test("what is bought has the number of its line, or of what is bought in its place", () => {
  expect(boughtNumber(doc({}), offer.id)).toBe(line.mpn);
  expect(boughtNumber(doc({ offer: { part: "p9" }, part: { id: "p9", mpn: "ZZ-9" } }), offer.id)).toBe(
    "ZZ-9",
  );
  expect(boughtNumber(doc({ offer: { part: "gone" } }), offer.id)).toBe("");
  expect(boughtNumber(doc({}), "nobody's")).toBe("");
});

test("days of a part that are doubted count until they are cleared, for the products they are about", () => {
  const made = { from: "2025-09-29" };
  const notice = { title: "Notice of May", check: { kind: "part", mpn: "zz-9", made } } as const;
  const doubted = { title: "Notice of May", made };
  const of = (...lessons: Parameters<typeof daysDoubted>[0]) => daysDoubted(lessons, "ZZ-9", "p");
  expect(of(notice, { title: "all of it", check: { kind: "part", mpn: "zz-9" } })).toEqual([doubted]);
  expect(of({ ...notice, productId: "p", relaxed: [{ product: "q" }] })).toEqual([doubted]);
  expect(of({ ...notice, productId: "q" }, { ...notice, clearedOn: "2026-01-01" })).toEqual([]);
  expect(of({ ...notice, relaxed: [{ product: "p" }] })).toEqual([]);
  expect([daysDoubted([notice], "ZZ-8", "p"), daysDoubted([notice], "", "p")]).toEqual([[], []]);
});

test.each([
  ["a fine package", { line: { package: "QFN-32" } }, true],
  ["one with its legs out", { line: { package: "SOIC-8" } }, true],
  ["one whose level is known", { line: { package: "QFN-32" }, part: { moisture: "3" } }, false],
  ["one the library knows without", { line: { package: "QFN-32" }, part: {} }, true],
  ["by the library's package", { line: { package: "" }, part: { package: "TSSOP-20" } }, true],
  ["a resistor", { line: { package: "0603" } }, false],
  ["one that is put on by iron", { line: { package: "QFN-32", mount: "hand" } }, false],
  ["one that is not placed", { line: { package: "QFN-32", dnp: true } }, false],
  ["one without a number", { line: { package: "QFN-32", mpn: "" } }, false],
])("the moisture level is asked for of %s: %#", (_, more, is) => {
  const placed = { mount: "machine", dnp: false, refs: ["U1"] };
  expect(asksMoisture(doc({ ...more, line: { ...placed, ...more.line } }), offer.id)).toBe(is);
});

test("what is doubted of a lot: itself, its part however it is written, and days of it that its date code tells or does not", () => {
  const lesson = (id: string, check: object, more: object = {}) =>
    ({ id, title: id, level: "error", check, ...more }) as never;
  const made = { from: "2025-09-29", to: "2025-11-09" };
  const lessons = [
    lesson("bag", { kind: "lot", id: "l1", name: "x" }, { level: "warning" }),
    lesson("part", { kind: "part", mpn: "ox-1" }, { productId: "p" }),
    lesson("weeks", { kind: "part", mpn: "OX-1", made }),
    lesson("cleared", { kind: "part", mpn: "OX-1" }, { clearedOn: "2026-01-01" }),
    lesson("other", { kind: "part", mpn: "OX-2" }),
    lesson("asked", { kind: "asked" }),
  ];
  const of = (lot: { id: string; mpn: string; made?: string }) =>
    doubtsOfLot(lessons, lot, "2026-12-02").map((d) => [d.id, d.level, d.productId, d.perhaps]);
  const part = ["part", "error", "p", undefined];
  expect(of({ id: "l1", mpn: "OX-1", made: "2541" })).toEqual([
    ["bag", "warning", undefined, undefined],
    part,
    ["weeks", "error", undefined, undefined],
  ]);
  expect(of({ id: "l2", mpn: "OX-1", made: "2520" })).toEqual([part]);
  expect(of({ id: "l2", mpn: "OX-1" })).toEqual([part, ["weeks", "error", undefined, made]]);
  expect(of({ id: "l2", mpn: "OX-3" })).toEqual([]);
});
