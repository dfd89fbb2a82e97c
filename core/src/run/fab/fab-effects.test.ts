import { expect, test } from "@jest/globals";
import type { Measure } from "../../board/measure-document.ts";
import { FULL } from "../full-house.fixture.ts";
import { FAR, madeMeasure, madeRun } from "../made-up.fixture.ts";
import { rollUp } from "../roll-up.ts";
import { whatIf } from "../what-if.ts";

const run = (m: Partial<Measure>, more: Parameters<typeof madeRun>[0] = {}) =>
  madeRun({
    boards: [{ name: "B", perProduct: 1, measure: madeMeasure(m) }],
    house: FULL,
    houses: [FULL, FAR],
    ...more,
  });
const effects = (doc: ReturnType<typeof run>, key: "contacts" | "copper") =>
  Object.fromEntries(whatIf(doc, rollUp(doc)).options[key]!.map((e) => [e.value, e]));

test("a value that asks for another takes it along, and costs what both cost", () => {
  const edgeContacts = {
    top: { count: 8, pitchMm: 2, widthMm: 1.4, lengthMm: 5, setbackMm: 2, edge: "bottom" as const },
  };
  const doc = run({ edgeContacts }, { options: { finish: "levelled" } });
  const { "hard-gold": hard, none } = effects(doc, "contacts");
  expect(hard!.with).toMatchObject([{ key: "finish", from: "levelled solder", value: "gold" }]);
  expect(none!.with).toBeUndefined();
  expect([none!.isChosen, none!.perGood]).toEqual([true, 0]);
  const both = rollUp({ ...doc, options: { finish: "gold", contacts: "hard-gold" } });
  const now = rollUp(doc);
  expect(hard!.perGood).toBeCloseTo((both.perGood - now.perGood) / 1e6, 4);
  expect(hard!.days).toBe(2);
});

test("a value this house cannot make here says why, and at which house it could be", () => {
  const thick = {
    ...FAR,
    options: { ...FAR.options, copper: FULL.options.copper.map(({ limits: _, ...v }) => v) },
  };
  const of = (minTrackMm: number) => effects(run({ minTrackMm }, { houses: [FULL, thick] }), "copper");
  const { "70": heavy, "35": plain } = of(0.2);
  expect(heavy!.cannot).toMatch(/0\.25 mm/);
  expect(heavy!.elsewhere).toBe("FAR");
  expect([heavy!.perGood, heavy!.days, heavy!.cash]).toEqual([0, 0, 0]);
  expect([plain!.cannot, plain!.elsewhere]).toEqual([undefined, undefined]);
  // too fine for the other as well
  expect(of(0.1)["70"]!.elsewhere).toBeUndefined();
});

test("decisions that cannot stand beside each other: what breaks, and the least change that mends it", () => {
  const doc = run({}, { options: { castellation: "cut", finish: "levelled" } });
  const note = rollUp(doc).notes.find((n) => n.level === "error" && /half holes|castellat/i.test(n.text));
  expect([note?.stage, note?.do]).toEqual(["fab", expect.stringMatching(/^Choose .*(gold|none)/)]);
});

test.each([
  [[5], "half of its one price is taken as set-up, which is a guess"],
  [[5, 20], "it is a line through its two prices"],
])("a house that quoted %j boards: what others cost is said to be guessed", (quotedFor, how) => {
  const house = { ...FULL, quotedFor };
  const doc = run({}, { house, houses: [house], goodBoards: 40 });
  const note = rollUp(doc).notes.find((n) => n.key.startsWith("house-guessed"));
  expect(note?.text).toContain(
    `FULL quoted ${quotedFor.join(" and ")} boards; what 50 cost was not asked: ${how}.`,
  );
  const exact = { ...FULL, quotedFor: [50] };
  const asked = rollUp(run({}, { house: exact, houses: [exact], goodBoards: 40 })).notes;
  expect(asked.filter((n) => n.key.startsWith("house-guessed"))).toEqual([]);
});
