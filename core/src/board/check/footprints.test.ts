import { expect, test } from "@jest/globals";
import fc from "fast-check";
import type { Finding } from "../../findings.ts";
import { ownTurns, type Pattern, patternOf, relationOf, turnBetween } from "../copper/pattern.ts";
import { compareFootprints, sayDoubledNames } from "./footprints.ts";

/*
 * Footprints against their like, expectations worked by hand. Patterns are drawn as a library holds them (pin 1 upper
 * left), turned counter-clockwise by the stated rotation and moved; what is odd is turned, mirrored or renamed besides.
 */

type Pins = Readonly<Record<string, readonly [number, number]>>;
const CHIP: Pins = { 1: [-0.8, 0], 2: [0.8, 0] };
const THREE: Pins = { 1: [-0.95, 1], 2: [-0.95, -1], 3: [0.95, 0] };
const EIGHT: Pins = Object.fromEntries(
  Array.from({ length: 8 }, (_, i) => [
    String(i + 1),
    i < 4 ? [-2.7, 1.905 - 1.27 * i] : [2.7, -1.905 + 1.27 * (i - 4)],
  ]),
) as Pins;
/** Five pins on one side in a row that is not even, so that its mirror image is another pattern. */
const SKEW: Pins = { 1: [-2, 1], 2: [-1, 1], 3: [1.5, 1], 4: [1.5, -1], 5: [-2, -1] };
const ROW: Pins = { 1: [-2.54, 0], 2: [0, 0], 3: [2.54, 0] };

interface Made {
  readonly states?: number;
  /** Turned by this besides, counter-clockwise. */
  readonly by?: number;
  readonly isMirrored?: boolean;
  readonly names?: Readonly<Record<string, string>>;
  readonly side?: "top" | "bottom";
  /** Rotations of parts below stated as seen from below. */
  readonly fromBelow?: boolean;
}

let count = 0;
function part(ref: string, pins: Pins, m: Made = {}): Pattern {
  const states = m.states ?? 0;
  const [cx, cy] = [10 * ++count, 7 * count];
  const isBelow = m.side === "bottom";
  // seen from above, a part below turns the other way where its rotation is told from below
  const degrees = (isBelow && m.fromBelow ? -states : states) + (isBelow ? -(m.by ?? 0) : (m.by ?? 0));
  const [c, s] = [Math.cos((degrees * Math.PI) / 180), Math.sin((degrees * Math.PI) / 180)];
  const flip = (m.isMirrored ? -1 : 1) * (isBelow ? -1 : 1);
  return patternOf(
    ref,
    m.side ?? "top",
    Object.entries(pins).map(([pin, [x, y]]) => ({
      pin: m.names?.[pin] ?? pin,
      x: cx + flip * x * c - y * s,
      y: cy + flip * x * s + y * c,
    })),
    m.states,
  );
}
const said = (...parts: Pattern[]) => {
  const findings: Finding[] = [];
  compareFootprints(parts, findings);
  return findings.map((f) => `${f.tag.replace("footprint-", "")} ${f.about?.join(" ")}`);
};
const SWAP = (a: string, b: string) => ({ names: { [a]: b, [b]: a } });

test.each<readonly [string, Pattern[], string[]]>([
  [
    "three alike",
    [part("U1", EIGHT, { states: 0 }), part("U2", EIGHT, { states: 90 }), part("U3", EIGHT, { states: 217 })],
    [],
  ],
  [
    "one of three turned by 90°",
    [
      part("U1", EIGHT, { states: 0 }),
      part("U2", EIGHT, { states: 0 }),
      part("U3", EIGHT, { states: 0, by: 90 }),
    ],
    ["turned U3"],
  ],
  [
    "one of three turned by 7°",
    [
      part("U1", EIGHT, { states: 30 }),
      part("U2", EIGHT, { states: 0 }),
      part("U3", EIGHT, { states: 90, by: 7 }),
    ],
    ["turned U3"],
  ],
  [
    "one of three turned by 180°",
    [
      part("D1", CHIP, { states: 0 }),
      part("D2", CHIP, { states: 90 }),
      part("D3", CHIP, { states: 90, by: 180 }),
    ],
    ["turned D3"],
  ],
  [
    "resistors lie either way round",
    [
      part("R1", CHIP, { states: 0 }),
      part("R2", CHIP, { states: 90 }),
      part("R3", CHIP, { states: 90, by: 180 }),
    ],
    [],
  ],
  [
    "but not across",
    [
      part("R1", CHIP, { states: 0 }),
      part("R2", CHIP, { states: 90 }),
      part("R3", CHIP, { states: 90, by: 90 }),
    ],
    ["turned R3"],
  ],
  [
    "one of two turned by 45°",
    [part("U1", EIGHT, { states: 0 }), part("U2", EIGHT, { states: 90, by: 45 })],
    ["turned U1 U2"],
  ],
  [
    "one of two turned half round",
    [part("U1", EIGHT, { states: 0 }), part("U2", EIGHT, { states: 0, by: 180 })],
    ["turned U1 U2"],
  ],
  [
    "without rotations nothing is turned",
    [part("U1", EIGHT), part("U2", EIGHT, { by: 90 }), part("U3", EIGHT, { by: 33 })],
    [],
  ],
  [
    "two footprints in equal use are a habit",
    [
      part("D1", CHIP, { states: 0 }),
      part("D2", CHIP, { states: 0 }),
      part("D3", CHIP, { states: 0, by: 180 }),
      part("D4", CHIP, { states: 0, by: 180 }),
    ],
    [],
  ],
  [
    "one of three mirrored",
    [part("U1", EIGHT), part("U2", EIGHT, { by: 90 }), part("U3", EIGHT, { isMirrored: true })],
    ["mirrored U3"],
  ],
  [
    "one of two mirrored, skew",
    [part("U1", SKEW), part("U2", SKEW, { isMirrored: true, by: 33 })],
    ["mirrored U2 U1"],
  ],
  [
    "pins 1 and 2 of three exchanged",
    [part("Q1", THREE), part("Q2", THREE), part("Q3", THREE, SWAP("1", "2"))],
    ["pins-swapped Q3"],
  ],
  [
    "pins 1 and 3 exchanged, turned",
    [part("Q1", THREE), part("Q2", THREE, { by: 90 }), part("Q3", THREE, { ...SWAP("1", "3"), by: 180 })],
    ["pins-swapped Q3"],
  ],
  [
    "pins go round the other way",
    [part("Q1", THREE), part("Q2", THREE, { names: { 1: "2", 2: "3", 3: "1" } })],
    ["pins-swapped Q2 Q1"],
  ],
  [
    "a row counted from the other end is a turn",
    [part("J1", ROW), part("J2", ROW, SWAP("1", "3")), part("J3", ROW)],
    [],
  ],
  [
    "pins of a row exchanged",
    [part("J1", ROW), part("J2", ROW, SWAP("1", "2")), part("J3", ROW)],
    ["pins-swapped J2"],
  ],
  ["other letters are not alike", [part("Q1", THREE), part("U1", THREE, { isMirrored: true })], []],
  [
    "other sizes are not alike",
    [
      part("Q1", THREE),
      part(
        "Q2",
        Object.fromEntries(Object.entries(THREE).map(([k, [x, y]]) => [k, [1.5 * x, 1.5 * y]])) as Pins,
        { isMirrored: true },
      ),
    ],
    [],
  ],
  [
    "below, mirrored as it should be",
    [
      part("U1", SKEW, { states: 0 }),
      part("U2", SKEW, { states: 0, side: "bottom" }),
      part("U3", SKEW, { states: 90, side: "bottom", fromBelow: true }),
    ],
    [],
  ],
  [
    "below, not mirrored though it should be",
    [part("U1", SKEW), part("U2", SKEW), part("U3", SKEW, { side: "bottom", isMirrored: true })],
    ["mirrored U3"],
  ],
  [
    "below, rotations told from below",
    [0, 90, 200].map((states, i) => part(`U${i}`, EIGHT, { states, side: "bottom", fromBelow: true })),
    [],
  ],
  [
    "below, rotations told from above",
    [0, 90, 200].map((states, i) => part(`U${i}`, EIGHT, { states, side: "bottom" })),
    [],
  ],
  [
    "below, one of four turned",
    [0, 90, 200, 30].map((states, i) =>
      part(`U${i}`, EIGHT, { states, side: "bottom", by: i === 3 ? 90 : 0 }),
    ),
    ["turned U3"],
  ],
  [
    "each is said once",
    [
      part("U1", EIGHT, { states: 0 }),
      part("U2", EIGHT, { states: 0 }),
      part("U3", EIGHT, { states: 0, by: 90 }),
      part("U4", EIGHT, { isMirrored: true }),
    ],
    ["mirrored U4", "turned U3"],
  ],
])("footprints: %s", (_, parts, expected) => {
  expect(said(...parts)).toEqual(expected);
});

test("a turned footprint is told what its like would state, and by how much", () => {
  const findings: Finding[] = [];
  compareFootprints(
    [
      part("U1", EIGHT, { states: 0 }),
      part("U2", EIGHT, { states: 180 }),
      part("U3", EIGHT, { states: 30, by: 87 }),
    ],
    findings,
  );
  expect(findings[0]!.text).toBe(
    "U3 states 30°; by its pads, turned 87° against its like, it would state 117°.",
  );
});

test("any turn and move of a pattern is found again; its mirror image is none unless the pattern is its own", () => {
  fc.assert(
    fc.property(
      fc.double({ min: -179, max: 179, noNaN: true }),
      fc.constantFrom(CHIP, THREE, EIGHT, SKEW),
      (by, pins) => {
        const [a, b] = [part("U1", pins), part("U2", pins, { by })];
        const found = turnBetween(a, b)!;
        expect(Math.abs(((found - by + 540) % 360) - 180)).toBeLessThan(1e-6);
        const mirror = relationOf(part("U3", pins, { by, isMirrored: true }), a);
        expect(mirror?.kind === "same").toBe(pins === CHIP);
      },
    ),
  );
});

test("turns that lay a pattern's pads on themselves", () => {
  const turns = (pins: Pins) => ownTurns(part("U1", pins)).map((d) => Math.round(Math.abs(d)));
  expect(turns(CHIP)).toEqual([180]);
  expect(turns(THREE)).toEqual([]);
  expect(turns(EIGHT)).toEqual([180]);
  expect(turns({ 1: [-1, 1], 2: [-1, -1], 3: [1, -1], 4: [1, 1] }).sort()).toEqual([180, 90, 90]);
});

test("one name at two footprints; a push button whose pins have two pads each is one", () => {
  const names = (places: readonly (readonly [string, number, number])[]) => {
    const findings: Finding[] = [];
    sayDoubledNames(new Map([["X1", places.map(([pin, x, y]) => ({ pin, x, y }))]]), findings);
    return findings.map((f) => `${f.level} ${f.tag}`);
  };
  const chip = (x: number, y: number) =>
    [
      ["1", x - 0.8, y],
      ["2", x + 0.8, y],
    ] as const;
  expect(names([...chip(10, 10)])).toEqual([]);
  expect(names([...chip(10, 10), ...chip(10, 10)])).toEqual([]);
  expect(names([...chip(10, 10), ...chip(30, 12)])).toEqual(["error reference-doubled"]);
  expect(
    names([
      ["1", 0, 0],
      ["1", 6.5, 0],
      ["2", 0, 4.5],
      ["2", 6.5, 4.5],
    ]),
  ).toEqual([]);
  expect(
    names([
      ["1", 0, 0],
      ["2", 1, 0],
      ["3", 2, 0],
      ["1", 0, 9],
      ["2", 1, 9],
      ["3", 2, 9],
    ]),
  ).toEqual(["error reference-doubled"]);
});
