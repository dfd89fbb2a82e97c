import { expect, test } from "@jest/globals";
import { isVersion, isWithin } from "./version.ts";

// the table of domain.md 9.8, and ways people write ranges
test.each([
  ["1.0", "1.0–1.3", true],
  ["1.3.9", "1.0–1.3", true],
  ["1.4", "1.0–1.3", false],
  ["0.9", "1.0–1.3", false],
  ["1.10", "1.0 - 1.9", false],
  ["1.10", "1.9 to 1.11", true],
  ["1.5", "1.4..1.9", true],
  ["2.0", "≥ 2.0", true],
  ["1.9.9", ">=2.0", false],
  ["2.0-rc1", ">= 2.0", false],
  ["2.0-rc1", ">=1.9 <2.0", true],
  ["2.0", ">=1.9 <2.0", false],
  ["1.4.7", "1.4", true],
  ["1.40", "1.4", false],
  ["1.4", "1.4.0", true],
  ["1.4.1", "1.4.0", false],
  ["v1.4", "V1.4.0", true],
  ["1.4+build7", "1.4", true],
  ["3", "1.0, 3, 5–6", true],
  ["4", "1.0, 3, 5–6", false],
  ["4", "1 or 4", true],
  ["1.3.5", "<= 1.3", true],
  ["1.3.5", "> 1.3", false],
  ["1.4", "> 1.3", true],
  ["1.4-beta", "1.4-beta", true],
  ["1.4", "1.4-beta", false],
  ["7", "all", true],
  ["7", "*", true],
  ["7", "=7", true],
  // what is not known is not told as if it were
  ["main", "all", undefined],
  ["", "1.0", undefined],
  ["1.2", "", undefined],
  ["1.2", "newer ones", undefined],
  ["1.2", "1.9–1.0", undefined],
  ["1.2", "1.2 1.3", undefined],
  ["1.2", "1.2,", undefined],
  ["1.2.3.4.5", "1", undefined],
])("%s within %j: %s", (version, range, is) => expect(isWithin(version, range)).toBe(is));

test("what is a version", () => {
  expect(["1", "1.2.3", "v2", "1.0-rc.1", "2026.11"].map(isVersion)).toEqual(Array(5).fill(true));
  expect(["", "a", "1.", ".1", "1..2", "1.2.3.4.5", "latest"].map(isVersion)).toEqual(Array(7).fill(false));
});
