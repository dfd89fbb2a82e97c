import { expect, test } from "@jest/globals";
import fc from "fast-check";
import { expectKept } from "../../../test/kept.ts";
import { FINDING_TAGS } from "../../finding-tags.ts";
import { boardK } from "../board-k.fixture.ts";
import type { Note } from "../document/note.ts";
import { rollUp } from "../roll-up.ts";
import { type AtStake, stakesOf, worthMostIn } from "./stakes.ts";
import { stakeOf } from "./stakes-table.ts";

/** Notes that are no findings, by stage. */
const KINDS = [
  [
    "board",
    "fit r does-not-fit",
    "meet m damage",
    "power p",
    "floats f",
    "decoupling d",
    "lesson x",
    "body-parts A B",
  ],
  ["parts", "mpn-missing", "value-odd v", "size-odd s", "mount-differs l", "sum-off s", "rule-too-little r"],
  [
    "source",
    "single-source",
    "prices-old",
    "rate-missing USD",
    "shelf-twice x",
    "source-class l",
    "bought-instead l",
  ],
  [
    "fab",
    "house-limit h minTrackMm",
    "house-limit h minLegendTextMm",
    "house-unstated h x",
    "option-gave mask",
    "contacts-wear c",
  ],
  ["panel", "guests-without-sheet"],
  ["assemble", "order falls U1", "foil-too-large b", "assembly-rate-missing USD", "bottom-parts"],
  ["cost", "x"],
  ["release", "x"],
  ["order", "x"],
  ["receive", "x"],
  ["build", "x"],
] as const;

const doc = { ...boardK(), workshop: { ...boardK().workshop, hourlyRate: "24", hoursPerDay: 4 } };
const run = rollUp(doc);
const withNotes = (...notes: Partial<Note>[]) => ({
  ...run,
  notes: notes.map((n): Note => ({ key: "k", stage: "board", level: "warning", text: "", ...n })),
});

test("what is at stake, worked by hand: boards by their order, parts by their buys, mending by minutes, all by the run", () => {
  const u1 = run.needs.findIndex((n) => n.lines.includes("mcu"));
  const line = run.needs[u1]!.lines[0]!;
  const buys = run.basket.lines[u1]!.buys;
  const of = (n: Partial<Note>) => stakesOf(doc, withNotes(n))[0]!;
  const fab = run.tree.children.find((c) => c.key === "boards")!.micros;
  expect(of({ key: "house-limit far minTrackMm", stage: "fab", level: "error" })).toMatchObject({
    lose: "boards",
    micros: fab,
    days: run.stages.fab.days,
    sure: "certain",
    expected: Math.round(0.8 * fab),
  });
  // text that is not read costs no boards
  expect(of({ key: "house-limit far minLegendTextMm", stage: "fab" })).toMatchObject({
    lose: "delay",
    micros: 0,
  });
  const parcel = Math.max(...buys.map((b) => run.basket.shippingOf[b.supplier]!));
  expect(of({ key: "value-odd", stage: "parts", lines: [line] }).micros).toBe(
    buys.reduce((s, b) => s + b.cost, 0) + parcel,
  );
  // 31 boards × 1 piece × 5 min at 24.00 an hour, 4 hours a day
  expect(of({ key: "polarity-unknown", stage: "parts", lines: [line] })).toMatchObject({
    micros: 31 * 2_000_000,
    lose: "rework",
  });
  expect(of({ key: "polarity-unknown", stage: "parts", lines: [line] }).days).toBeCloseTo((31 * 5) / 240, 12);
  expect(of({ key: "footprint-turned", stage: "board" })).toMatchObject({ lose: "built", micros: run.total });
  expect(of({ key: "drill-missing" })).toMatchObject({ lose: "delay", micros: 0, days: 2, expected: 0 });
  expect(of({ key: "prices-old", stage: "source", lines: [line] })).toMatchObject({
    sure: "unknown",
    chance: 0.05,
  });
});

test("the dearest first, then by days; what was accepted or only remarked is not open", () => {
  const list = stakesOf(
    doc,
    withNotes(
      { key: "drill-missing" },
      { key: "house-unstated x", stage: "fab" },
      { key: "footprint-turned" },
      { key: "footprint-mirrored", acceptedBecause: "tried" },
      { key: "direction-unmarked", level: "remark" },
    ),
  );
  expect(list.map((s) => s.note.key)).toEqual(["footprint-turned", "house-unstated x", "drill-missing"]);
});

test("what every tag of a finding and every kind of note puts at stake, and minutes to close it", () => {
  const keys = [
    ...Object.entries(FINDING_TAGS).flatMap(([key, levels]) =>
      levels.flatMap((level) =>
        level === "error" || level === "warning" ? [{ key, stage: "board", level } as const] : [],
      ),
    ),
    ...KINDS.flatMap(([stage, ...list]) => list.map((key) => ({ key, stage, level: "warning" as const }))),
  ];
  expectKept(
    new URL("golden/stakes.txt", import.meta.url),
    "that each loses what it would lose, and takes about as long to look at",
    keys.map((n) => {
      const { lose, sure, minutes } = stakeOf(n);
      return `${n.key} ${n.level}: ${lose}, ${sure}, ${minutes} min`;
    }),
  );
});

test("worth most in so many minutes: as good as every set tried", () => {
  const stake = (expected: number, minutes: number) => ({ expected, minutes }) as unknown as AtStake;
  fc.assert(
    fc.property(
      fc.array(fc.tuple(fc.nat(50), fc.integer({ min: 1, max: 10 })), { maxLength: 8 }),
      fc.integer({ min: 0, max: 30 }),
      (items, minutes) => {
        const list = items.map(([e, m]) => stake(e, m));
        const worth = (some: readonly AtStake[]) => some.reduce((s, x) => s + x.expected, 0);
        const takes = (some: readonly AtStake[]) => some.reduce((s, x) => s + x.minutes, 0);
        let best = 0;
        for (let set = 0; set < 1 << list.length; set++) {
          const some = list.filter((_, i) => set & (1 << i));
          if (takes(some) <= minutes) best = Math.max(best, worth(some));
        }
        const found = worthMostIn(list, minutes);
        expect([worth(found), takes(found) <= minutes]).toEqual([best, true]);
        expect(found.every((s) => s.expected > 0)).toBe(true);
      },
    ),
    { numRuns: 300, seed: 1 },
  );
});
