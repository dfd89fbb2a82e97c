import { expect, test } from "@jest/globals";
import { roundTrips, WRITERS } from "../../../test/round-trip.ts";

/*
 * Lists, places and drills written in random dialects whose meaning is known: headings, units, zeros, side words, ranges,
 * marks, totals, remarks. What was meant is what is read, or it is said; `npm run fuzz` tries more of them.
 */

test.each(Object.keys(WRITERS) as (keyof typeof WRITERS)[])(
  "%s come back as they were meant, or it is said",
  (what) => {
    const { right, silent } = roundTrips(what, 600, 11);
    expect(
      silent && `case ${silent.n}\n${silent.file}\n— meant\n${silent.meant}\n— read\n${silent.read}`,
    ).toBeUndefined();
    expect(right).toBeGreaterThanOrEqual(594);
  },
);
