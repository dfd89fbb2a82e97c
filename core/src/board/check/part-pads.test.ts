import { expect, test } from "@jest/globals";
import type { TestPoint } from "../../netlist/read.ts";
import { padsByRef } from "./part-pads.ts";

const point = (ref: string, pin: string, more: Partial<TestPoint> = {}): TestPoint => ({
  net: "N",
  ref,
  pin,
  x: 0,
  y: 0,
  side: "top",
  line: 1,
  ...more,
});
/** What is known of the parts when no copper pad names its part and the netlist does. */
const known = (...points: TestPoint[]) =>
  padsByRef(
    [],
    () => "top",
    points,
    () => false,
    () => "",
  );

test.each<readonly [string, TestPoint, boolean, readonly string[]]>([
  [
    "a drilled, plated pin",
    point("J1", "1", { side: "both", holeMm: 1, plated: true }),
    true,
    ["top", "bottom"],
  ],
  ["a drilled pin that does not say whether it is plated", point("J1", "1", { holeMm: 1 }), true, ["top"]],
  [
    "a drilled pin without plating is a peg, not a joint through the board",
    point("J1", "1", { holeMm: 3.2, plated: false }),
    false,
    ["top"],
  ],
  ["a pad on the surface", point("J1", "1", { side: "bottom" }), false, ["bottom"]],
  ["a pad on the surface that says it is plated", point("J1", "1", { plated: true }), false, ["top"]],
])("a part of the netlist alone: %s", (_, p, hasHole, sides) => {
  const part = known(p).get("J1");
  expect(part).toMatchObject({ hasHole, isSoldered: true });
  expect([...(part?.sides ?? [])]).toEqual(sides);
});

test("one drilled pin makes the part a through-hole part; vias and points without a name are no part", () => {
  const parts = known(
    point("U1", "1"),
    point("U1", "2", { holeMm: 0.8, plated: true }),
    point("U1", "2", { side: "bottom" }),
    point("VIA", "", { holeMm: 0.3, plated: true }),
    point("", "1"),
    point("R1", ""),
  );
  expect([...parts.keys()]).toEqual(["U1"]);
  expect(parts.get("U1")).toMatchObject({ pins: new Set(["1", "2"]), hasHole: true });
});
