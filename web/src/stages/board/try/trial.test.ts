import { expect, test } from "@jest/globals";
import type { BareTest, Probe } from "@kobbin/core";
import { faultMap, faultsOf, faultWords, nextLabel } from "./trial.ts";

const probe = (expect: Probe["expect"], nets: string[], pad?: string): Probe => ({
  a: { layer: "top", x: 1, y: 2, ...(pad ? { pad } : {}) },
  b: { layer: "top", x: 30.25, y: 4, pad: "U1.2" },
  expect,
  because: "",
  nets,
});
const list = [probe("apart", ["GND", "VCC"], "J1.1"), probe("joined", ["SDA"])];

test("apart that beeps and joined that is silent are faults; what was not asked is none", () => {
  expect(faultsOf(list, [false, true])).toEqual([]);
  expect(faultsOf(list, [true, false]).map(faultWords)).toEqual([
    "GND – VCC beeps (J1.1 – U1.2)",
    "SDA is silent (1.0 / 2.0 – U1.2)",
  ]);
  expect(faultsOf(list, [true]).map(faultWords)).toEqual(["GND – VCC beeps (J1.1 – U1.2)"]);
});

test("a fault on most boards stands first, and the next board is numbered after the greatest", () => {
  const [short, open] = faultsOf(list, [true, false]);
  const tried = (label: string, ...faults: BareTest["faults"]): BareTest => ({
    id: label,
    item: "b",
    label,
    on: "2026-12-01",
    tried: 2,
    faults,
    note: "",
  });
  const tests = [tried("9", open!), tried("10", short!, open!), tried("scratched")];
  expect(faultMap(tests).map((f) => [f.fault.nets.join("–"), f.boards])).toEqual([
    ["SDA", 2],
    ["GND–VCC", 1],
  ]);
  expect(nextLabel(tests)).toBe("11");
  expect(nextLabel([])).toBe("1");
});
