import { expect, test } from "@jest/globals";
import fc from "fast-check";
import { judgePair, type Meeting, meet, type Pin } from "./meet.ts";
import { harmlessOrder } from "./order.ts";

const KINDS = ["supply", "ground", "output", "input", "open"] as const;
const sides = fc.array(fc.constantFrom(...KINDS), { minLength: 2, maxLength: 7 }).map((kinds): Meeting => {
  const pin = (k: (typeof KINDS)[number], i: number): Pin => ({
    pin: String(i + 1),
    kind: k,
    ...(k === "supply" || k === "output" ? { volts: 5, takesV: [0, 6] } : {}),
    ...(k === "input" ? { takesV: [0, i % 2 ? 6 : 3] } : {}),
  });
  const theirs = kinds.map((k, i) => pin(k === "output" ? "input" : k === "input" ? "output" : k, i));
  return { ours: kinds.map(pin), theirs };
});

/** Every order there is, put in turned. */
function* orders(left: readonly number[]): Generator<number[]> {
  if (left.length === 0) yield [];
  for (const i of left) for (const rest of orders(left.filter((x) => x !== i))) yield [i, ...rest];
}
const harmless = (m: Meeting, order: readonly number[]) =>
  order.every((i, p) => {
    const q = order[order.length - 1 - p]!;
    return ["meant", "idle"].includes(judgePair(m.ours[i]!, m.theirs[q]!, i === q));
  });

test("the order that does no harm turned and moves the fewest contacts is the one every order tried finds", () => {
  fc.assert(
    fc.property(sides, (m) => {
      let fewest: number | undefined;
      for (const o of orders(m.ours.map((_, i) => i))) {
        const moved = o.filter((i, p) => i !== p).length;
        if ((fewest === undefined || moved < fewest) && harmless(m, o)) fewest = moved;
      }
      const found = harmlessOrder(m);
      expect(found?.moved).toBe(fewest);
      if (!found) return;
      const order = found.order.map((p) => Number(p) - 1);
      expect(harmless(m, order)).toBe(true);
      // and the judge of connectors says so of both sides put in that order
      const placed = (side: readonly Pin[]) => order.map((i, p) => ({ ...side[i]!, pin: String(p + 1) }));
      const [turned] = meet({ ours: placed(m.ours), theirs: placed(m.theirs), modes: ["turned"] });
      expect(["fine", "idle"]).toContain(turned!.verdict);
    }),
    { numRuns: 60 },
  );
});

test("supply, ground and two signals: ground goes to the other end of itself's image, one swap is enough", () => {
  const five = { kind: "supply", volts: 5 } as const;
  const bears = { kind: "input", takesV: [0, 5] } as const;
  const ours: Pin[] = [
    { pin: "1", ...five },
    { pin: "2", ...bears },
    { pin: "3", ...bears },
    { pin: "4", kind: "ground" },
  ];
  const theirs: Pin[] = [
    { pin: "1", ...five },
    { pin: "2", ...bears },
    { pin: "3", ...bears },
    { pin: "4", kind: "ground" },
  ];
  // the supply may lie on a signal that bears it, ground on the other
  expect(harmlessOrder({ ours, theirs })).toMatchObject({ moved: 2 });
  expect(harmlessOrder({ ours, theirs, rows: 2, numbering: "zigzag" })).toBeUndefined();
  expect(harmlessOrder({ ours, theirs: theirs.slice(1) })).toBeUndefined();
});
