import { expect, test } from "@jest/globals";
import fc from "fast-check";
import { billDifference, type DifferLine, uselessStock } from "./difference.ts";

const line = (refs: string, mpn: string, more: Partial<DifferLine> = {}): DifferLine => ({
  refs: refs === "" ? [] : refs.split(" "),
  qty: refs === "" ? 1 : refs.split(" ").length,
  valueText: mpn,
  package: "0603",
  mpn,
  dnp: false,
  ...more,
});

test("two chips for one, a new resistor, a part left off, another count of screws: each is told once", () => {
  const was = [
    line("U1 U2", "TB-1"),
    line("R1 R2", "OX-10k"),
    line("C9", "PW-1"),
    line("", "screw", { qty: 4 }),
  ];
  const now = [
    line("U1 U2", "TB-2"),
    line("R2 R1", "ox-10K"),
    line("R7", "OX-1k"),
    line("C9", "PW-1", { dnp: true }),
    line("", "screw", { qty: 6 }),
  ];
  const d = billDifference(was, now);
  expect(d.differences).toEqual([
    { kind: "changed", refs: ["U1", "U2"], was: "TB-1", now: "TB-2" },
    { kind: "added", refs: ["R7"], now: "OX-1k" },
    { kind: "removed", refs: ["C9"], was: "PW-1" },
    { kind: "counted", refs: [], was: "screw", now: "screw", qtyWas: 4, qtyNow: 6 },
  ]);
  expect(d.unchanged).toBe(2);
  expect(d.numbers.map((n) => [n.mpn, n.was, n.now])).toEqual([
    ["TB-1", 2, 0],
    ["PW-1", 1, 0],
    ["screw", 4, 6],
    ["TB-2", 0, 2],
    ["OX-1k", 0, 1],
  ]);
});

test("320 of the old sensor become useless: 96.00, unless another bill has it", () => {
  const d = billDifference([line("U1", "TB-1")], [line("U1", "TB-2")]);
  const lots = [
    { mpn: "tb-1", qty: 300, unitCost: 0.3 },
    { mpn: "TB-1", qty: 20, unitCost: 0.3 },
    { mpn: "TB-2", qty: 50, unitCost: 1 },
  ];
  const [u] = uselessStock(d, lots, () => false);
  expect([u!.mpn, u!.qty, u!.value]).toEqual(["TB-1", 320, expect.closeTo(96, 9)]);
  expect(uselessStock(d, lots, () => true)).toEqual([]);
});

test("a bill does not differ from itself in another order; what is added one way is removed the other", () => {
  const bill = fc
    .uniqueArray(fc.integer({ min: 1, max: 12 }), { maxLength: 8 })
    .chain((refs) =>
      fc
        .array(fc.constantFrom("A-1", "A-2", ""), { minLength: refs.length, maxLength: refs.length })
        .map((parts) => refs.map((r, i) => line(`R${r}`, parts[i]!, { valueText: "1k" }))),
    );
  fc.assert(
    fc.property(bill, bill, (a, b) => {
      expect(billDifference(a, [...a].reverse()).differences).toEqual([]);
      const count = (kind: string, d = billDifference(a, b)) =>
        d.differences.filter((x) => x.kind === kind).reduce((n, x) => n + x.refs.length, 0);
      const back = billDifference(b, a);
      expect(count("added")).toBe(count("removed", back));
      expect(count("changed")).toBe(count("changed", back));
    }),
  );
});
