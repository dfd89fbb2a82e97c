import { expect, test } from "@jest/globals";
import fc from "fast-check";
import type { ReachedPart } from "./reach.ts";
import { suspectsOf, type TriedItem } from "./suspects.ts";

// IN — F1 — A — U4 — OUT; U1 and C1 hang on OUT
const part = (ref: string, ...nets: string[]): ReachedPart => ({
  ref,
  pins: nets.map((net, i) => ({ pin: String(i + 1), net })),
});
const PARTS = [
  part("J1", "IN", "GND"),
  part("F1", "IN", "A"),
  part("U4", "A", "OUT", "GND"),
  part("U1", "OUT", "GND", "LED"),
  part("C1", "OUT", "GND"),
  part("TP1", "OUT"),
  part("D1", "LED", "GND"),
];
const item = (
  name: string,
  verdict: TriedItem["verdict"],
  reads: string[],
  through: string[] = [],
): TriedItem => ({
  name,
  verdict,
  drives: [],
  reads,
  through,
});
const even = {
  weightOf: (_: string) => 1,
  reachOf: (pin: string) => (pin.startsWith("TP") ? 0 : 1),
  doubts: new Set<string>(),
};
const shares = (items: TriedItem[], more: Partial<typeof even> = {}) =>
  suspectsOf(PARTS, items, { ...even, ...more }).map((s) => `${s.ref} ${s.share.toFixed(3)}`);

test("what passes speaks for a part, what fails against all on its nets; by hand", () => {
  // OUT fails through F1 and U4, A passes through F1: F1's pin on A was seen to work, its other pin is not on a net that
  // was read, but the passing item goes through F1: a tenth each. U4 has three pins, that on A half left
  const items = [item("A volts", "pass", ["F1.2"], ["F1"]), item("OUT volts", "fail", ["TP1"], ["F1", "U4"])];
  // U4: 0.5 (A, whose net works) + 1 + 1; TP1 is read: 1; U1 and C1 are only on the net: half; F1: 0.1 + 0.1; all 4.7
  expect(shares(items)).toEqual(["U4 0.532", "TP1 0.213", "U1 0.106", "C1 0.106", "F1 0.043"]);
  const [u4] = suspectsOf(PARTS, items, even);
  expect(u4).toMatchObject({
    pins: ["U4.2", "U4.3", "U4.1"],
    fails: ["OUT volts"],
    passes: [],
    check: { from: "U4.2", to: "TP1.1" },
  });
  // somebody was in doubt about C1
  expect(shares(items, { doubts: new Set(["C1"]) })[0]).toMatch(/^C1 0.54/);
  // its joints are ten times as hard
  expect(shares(items, { weightOf: (ref) => (ref === "U1" ? 10 : 1) })[0]).toMatch(/^U1 /);
});

test("a part that explains two failures stands before those that explain one; nothing fails, nobody is suspected", () => {
  const items = [item("OUT volts", "fail", ["TP1.1"]), item("lamp", "fail", ["D1.1"])];
  const [first] = suspectsOf(PARTS, items, even);
  expect(first).toMatchObject({ ref: "U1", fails: ["OUT volts", "lamp"] });
  expect(suspectsOf(PARTS, [item("A volts", "pass", ["F1.2"]), item("x", "open", ["D1.1"])], even)).toEqual(
    [],
  );
});

test("shares are of all that may be it, and a failing item alone suspects only what it reaches", () => {
  const pins = PARTS.flatMap((p) => p.pins.map((q) => `${p.ref}.${q.pin}`));
  const items = fc.array(
    fc.record({
      name: fc.constantFrom("a", "b", "c"),
      verdict: fc.constantFrom("pass" as const, "fail" as const, "open" as const),
      drives: fc.subarray(pins, { maxLength: 2 }),
      reads: fc.subarray(pins, { minLength: 1, maxLength: 2 }),
      through: fc.subarray(
        PARTS.map((p) => p.ref),
        { maxLength: 2 },
      ),
    }),
    { maxLength: 6 },
  );
  fc.assert(
    fc.property(items, (list) => {
      const all = suspectsOf(PARTS, list, { ...even, most: 99 } as never);
      if (!list.some((i) => i.verdict === "fail")) return expect(all).toEqual([]);
      expect(all.reduce((a, s) => a + s.share, 0)).toBeCloseTo(1, 9);
      const netOf = new Map(PARTS.flatMap((p) => p.pins.map((q) => [`${p.ref}.${q.pin}`, q.net])));
      const failing = list.filter((i) => i.verdict === "fail");
      for (const s of all)
        expect(
          failing.some(
            (i) =>
              i.through.includes(s.ref) ||
              [...i.drives, ...i.reads].some((n) => s.pins.some((p) => netOf.get(p) === netOf.get(n))),
          ),
        ).toBe(true);
    }),
  );
});
