import { expect, test } from "@jest/globals";
import { isDay } from "./day.ts";

test.each([
  ["2026-11-28", true],
  ["2026-02-28", true],
  ["2026-02-29", false],
  // a leap year, a century that is none, and one that is
  ["2024-02-29", true],
  ["1900-02-29", false],
  ["2100-02-29", false],
  ["2000-02-29", true],
  ["2000-02-30", false],
  ["2026-04-30", true],
  ["2026-04-31", false],
  ["2026-12-31", true],
  ["2026-12-32", false],
  ["2026-13-01", false],
  ["2026-00-10", false],
  ["2026-01-00", false],
  // years a shop has to do with
  ["1900-01-01", true],
  ["1899-12-31", false],
  ["2200-12-31", true],
  ["2201-01-01", false],
  ["26-11-28", false],
  ["2026-11-28T10:00", false],
  [" 2026-11-28", false],
])("%s is a day: %s", (text, is) => expect(isDay(text)).toBe(is));
