import { expect, test } from "@jest/globals";
import fc from "fast-check";
import { type CoverItem, type CoverPlan, coverDocument } from "./cover.ts";

const PARTS: CoverPlan["parts"] = [
  { ref: "U1", pins: [{ pin: "1", net: "VCC" }, { pin: "4", net: "OUT" }, { pin: "7" }] },
  {
    ref: "R4",
    pins: [
      { pin: "1", net: "OUT" },
      { pin: "2", net: "LED" },
    ],
  },
  {
    ref: "D2",
    pins: [
      { pin: "A", net: "LED" },
      { pin: "K", net: "GND" },
    ],
  },
  { ref: "TP3", pins: [{ pin: "1", net: "LED" }] },
];
const of = (...items: Partial<CoverItem>[]) =>
  coverDocument({ parts: PARTS, items: items.map((i, k) => ({ id: `t${k}`, ...i })) });

test("worked by hand: an item from the chip through a resistor to a test point", () => {
  expect(of({ minutes: 1.5, drives: ["U1.4"], reads: ["TP3"], through: ["R4"], state: "powered" })).toEqual({
    kobbin: "cover/1",
    // OUT and LED are tested: U1.4, R4.1, R4.2, TP3.1 by parts that are named, D2.A by others
    pins: { tested: 4, implied: 1, never: 2 },
    nets: { tested: 2, never: 2 },
    never: ["U1.1", "D2.K"],
    implied: ["D2.A"],
    next: [
      { net: "GND", gains: 1 },
      { net: "VCC", gains: 1 },
    ],
  });
});

test("naming a part in another item does not count for a net that item does not test", () => {
  // t0 tests LED and names no D2; t1 names D2 and tests GND alone
  const c = of({ reads: ["TP3"] }, { reads: ["D2.K"] });
  expect([c.implied, c.pins]).toEqual([["R4.2", "D2.A"], { tested: 2, implied: 2, never: 3 }]);
});

test("nothing tested; names in the order of code points, where two gain the same", () => {
  expect(of().next).toEqual([
    { net: "LED", gains: 3 },
    { net: "OUT", gains: 2 },
    { net: "GND", gains: 1 },
    { net: "VCC", gains: 1 },
  ]);
  const parts = ["Ä", "a", "B", "😀", "﹏"].map((net, i) => ({ ref: `T${i}`, pins: [{ pin: "1", net }] }));
  expect(coverDocument({ parts, items: [] }).next.map((n) => n.net)).toEqual(["B", "a", "Ä", "﹏", "😀"]);
});

test("what is unknown, twice or not said is refused by name", () => {
  const refused =
    (items: Partial<CoverItem>[], parts: unknown = PARTS) =>
    () =>
      coverDocument({ parts, items: items.map((i, k) => ({ id: `t${k}`, ...i })) });
  expect(refused([{ drives: ["U1.5"] }])).toThrow("names U1.5 in t0: there is no such pin or part");
  expect(refused([{ reads: ["U1"] }])).toThrow("names U1 in t0 without a pin, and it has 3");
  expect(refused([{ through: ["R9"] }])).toThrow("goes through R9 in t0: there is no such part");
  expect(refused([], [PARTS[0], PARTS[0]])).toThrow("has the part U1 twice");
  expect(refused([], [{ ref: "X", pins: [{ pin: "1" }, { pin: "1" }] }])).toThrow("has the pin X.1 twice");
  expect(refused([{ state: "asleep" as never }])).toThrow("items[0].state should be one of powered, bare");
});

test("equal to a slow count over 500 made-up plans", () => {
  const name = fc.constantFrom("A", "B", "C", "D", "E");
  const plan = fc.uniqueArray(name, { minLength: 1 }).chain((refs) =>
    fc
      .tuple(
        ...refs.map((ref) =>
          fc
            .array(fc.option(fc.constantFrom("n1", "n2", "n3", "n4"), { nil: undefined }), { maxLength: 4 })
            .map((nets) => ({
              ref,
              pins: nets.map((net, i) => ({ pin: String(i + 1), ...(net ? { net } : {}) })),
            })),
        ),
      )
      .chain((parts) => {
        const pins = parts.flatMap((p) => p.pins.map((x) => `${p.ref}.${x.pin}`));
        const some = pins.length > 0 ? fc.subarray(pins) : fc.constant([]);
        return fc
          .array(fc.record({ drives: some, reads: some, through: fc.subarray(refs) }), { maxLength: 4 })
          .map((items) => ({ parts, items: items.map((i, k) => ({ id: String(k), ...i })) }));
      }),
  );
  fc.assert(
    fc.property(plan, ({ parts, items }) => {
      const netOf = (pin: string) => {
        const [ref, n] = pin.split(".");
        return parts.find((p) => p.ref === ref)!.pins.find((x) => x.pin === n)!.net;
      };
      const count = { tested: 0, implied: 0, never: 0 };
      const all = parts.flatMap((p) => p.pins.map((x) => ({ ...x, ref: p.ref }))).filter((x) => x.net);
      for (const x of all) {
        const by = items.filter((i) => [...i.drives, ...i.reads].some((d) => netOf(d) === x.net));
        const isNamed = by.some((i) =>
          [...i.drives, ...i.reads, ...i.through].some((d) => d.split(".")[0] === x.ref),
        );
        count[isNamed ? "tested" : by.length > 0 ? "implied" : "never"]++;
      }
      const c = coverDocument({ parts, items });
      expect(c.pins).toEqual(count);
      // one more item at the best of the untested nets takes out of never what was promised
      const [best] = c.next;
      if (!best) return expect(c.pins.never).toBe(0);
      const pin = all.find((x) => x.net === best.net)!;
      const more = coverDocument({
        parts,
        items: [...items, { id: "more", reads: [`${pin.ref}.${pin.pin}`] }],
      });
      expect(c.pins.never - more.pins.never).toBe(best.gains);
    }),
    { numRuns: 500, seed: 43 },
  );
});
