import { afterAll, expect, test } from "@jest/globals";
import { shownDate, typedDate } from "./dates.ts";
import { setFormats } from "./format.ts";

afterAll(() => setFormats({ dateOrder: "dmy" }));
const TODAY = new Date(2026, 10, 27);

test.each([
  ["dmy", "27 Nov 2026", "2026-11-27"],
  ["dmy", "3.12.26", "2026-12-03"],
  ["dmy", "3/12", "2026-12-03"],
  ["dmy", "3 Dec", "2026-12-03"],
  ["mdy", "12/3", "2026-12-03"],
  ["mdy", "Dec 3, 2026", "2026-12-03"],
  // a month's name is clear in any order, and so is ISO
  ["mdy", "3 Dec 2026", "2026-12-03"],
  ["ymd", "12-03", "2026-12-03"],
  ["dmy", "2026-12-03", "2026-12-03"],
  ["dmy", "today", "2026-11-27"],
  ["mdy", "+7", "2026-12-04"],
  ["ymd", "-30", "2026-10-28"],
  ["dmy", "31.2.2026", undefined],
  ["dmy", "13/13", undefined],
  ["mdy", "27/11/2026", undefined],
  ["dmy", "soon", undefined],
  ["dmy", "", undefined],
] as const)("a shop that writes %s means by “%s”: %s", (dateOrder, text, iso) => {
  setFormats({ dateOrder });
  expect(typedDate(text, TODAY)).toBe(iso);
});

test.each(["dmy", "mdy", "ymd"] as const)("what a field shows in %s can be typed", (dateOrder) => {
  setFormats({ dateOrder });
  for (const iso of ["2026-01-01", "2026-12-31", "2028-02-29"])
    expect(typedDate(shownDate(iso), TODAY)).toBe(iso);
});
