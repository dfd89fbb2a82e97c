import { expect, test } from "@jest/globals";
import { shapes } from "@kobbin/core";
import { FAULT_KEYS, FAULTS } from "./faultKeys.ts";

test("every code stands on the pad once, and no key means two of them", () => {
  expect(FAULTS.flatMap((f) => f.codes)).toEqual(shapes.ALL_DEFECTS);
  const keys = Object.values(FAULT_KEYS);
  expect(new Set(keys).size).toBe(keys.length);
  expect(Object.keys(FAULT_KEYS).every((c) => (shapes.ALL_DEFECTS as readonly string[]).includes(c))).toBe(
    true,
  );
  // a digit says where it is, never what
  expect(keys.every((k) => /^[a-z]$/.test(k))).toBe(true);
});
