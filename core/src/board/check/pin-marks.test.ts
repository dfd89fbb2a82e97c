import { expect, test } from "@jest/globals";
import { measureBoard } from "../measure.ts";
import { readBoard } from "../read/read.ts";

/*
 * Parts that work one way round only and whose pads do not tell which. Each case is one part at 20, 20 with pads 1 and 2
 * (or more) and some ink; expected is whether it is listed as unmarked, judged by hand as a person with tweezers would.
 */

const u = (v: number) => Math.round(v * 1e6);
const HEAD = "%FSLAX46Y46*%%MOMM*%G75*%LPD*%";
const STAMPS =
  "%ADD10C,0.15*%%ADD11R,0.8X0.9*%%ADD12R,1.2X0.9*%%ADD13C,1.6*%%ADD14R,1.6X1.6*%%ADD15C,0.4*%%ADD16R,1X0.6*%";
const AT = 20;
const edge = `${HEAD}${STAMPS}D10*X0Y0D02*G01X${u(40)}D01*Y${u(40)}D01*X0D01*Y0D01*M02*`;

interface Pad {
  readonly pin: string;
  readonly x: number;
  readonly y: number;
  readonly stamp?: number;
}
const TWO: readonly Pad[] = [
  { pin: "1", x: -0.8, y: 0 },
  { pin: "2", x: 0.8, y: 0 },
];
const SOIC: readonly Pad[] = Array.from({ length: 8 }, (_, i) => ({
  pin: String(i + 1),
  x: i < 4 ? -2.7 : 2.7,
  y: i < 4 ? 1.905 - 1.27 * i : -1.905 + 1.27 * (i - 4),
  stamp: 16,
}));
const turnedBy = (degrees: number, pads: readonly Pad[]) =>
  pads.map((p) => {
    const [c, s] = [Math.cos((degrees * Math.PI) / 180), Math.sin((degrees * Math.PI) / 180)];
    return { ...p, x: p.x * c - p.y * s, y: p.x * s + p.y * c };
  });

type Stroke = readonly [number, number, number, number];
const BOX: readonly Stroke[] = [
  [-1.6, -0.8, 1.6, -0.8],
  [1.6, -0.8, 1.6, 0.8],
  [1.6, 0.8, -1.6, 0.8],
  [-1.6, 0.8, -1.6, -0.8],
];
/** Two characters of a reference, 1 mm high, left corner given. */
const name = (x: number, y: number): Stroke[] => [
  [x, y, x, y + 1],
  [x, y + 1, x + 0.6, y + 0.5],
  [x + 0.6, y + 0.5, x, y],
  [x + 0.9, y, x + 1.2, y + 1],
  [x + 0.9, y, x + 1.5, y],
  [x + 1.2, y + 1, x + 1.5, y],
];

function unmarked(
  ref: string,
  pads: readonly Pad[],
  ink: readonly Stroke[] | undefined,
  more: { side?: "bottom"; list?: string } = {},
) {
  const isBelow = more.side === "bottom";
  const flip = isBelow ? -1 : 1;
  const copper = pads
    .map((p) => `%TO.P,${ref},${p.pin}*%D${p.stamp ?? 11}*X${u(AT + flip * p.x)}Y${u(AT + p.y)}D03*%TD*%`)
    .join("");
  const strokes = (ink ?? [])
    .map(([x1, y1, x2, y2]) =>
      x1 === x2 && y1 === y2
        ? `D15*X${u(AT + flip * x1)}Y${u(AT + y1)}D03*`
        : `D10*X${u(AT + flip * x1)}Y${u(AT + y1)}D02*G01X${u(AT + flip * x2)}Y${u(AT + y2)}D01*`,
    )
    .join("");
  const files: Record<string, string> = {
    [isBelow ? "a.GBL" : "a.GTL"]: `${HEAD}${STAMPS}${copper}M02*`,
    "a.GKO": edge,
    ...(ink
      ? {
          [isBelow ? "a.GBO" : "a.GTO"]:
            `${HEAD}${STAMPS}${strokes}D10*X${u(1)}Y${u(1)}D02*G01X${u(2)}D01*M02*`,
        }
      : {}),
    ...(more.list ? { "parts.csv": more.list } : {}),
  };
  const entries = Object.entries(files).map(([path, text]) => ({
    path,
    bytes: new TextEncoder().encode(text),
    ...(path.endsWith(".csv")
      ? {
          cells: text
            .trim()
            .split("\n")
            .map((row) => row.split(",")),
        }
      : {}),
  }));
  const m = measureBoard(readBoard(entries));
  return m.findings.filter((f) => f.tag === "direction-unmarked").flatMap((f) => f.about ?? []);
}
const ELCO = "Reference,Value,Package,Description\nC1,100u,D6.3,electrolytic capacitor\n";
const PLAIN = "Reference,Value,Package,Description\nC1,100n,0603,ceramic capacitor\n";

test.each<
  readonly [
    string,
    boolean,
    string,
    readonly Pad[],
    readonly Stroke[] | undefined,
    { side?: "bottom"; list?: string }?,
  ]
>([
  ["a lamp with no ink", true, "D1", TWO, []],
  ["a lamp on a board without silkscreen", true, "D1", TWO, undefined],
  ["a body alone", true, "D1", TWO, BOX],
  ["a bar at the cathode", false, "D1", TWO, [...BOX, [-1.4, -0.8, -1.4, 0.8]]],
  [
    "bars at both ends",
    true,
    "D1",
    TWO,
    [
      [-1.4, -0.8, -1.4, 0.8],
      [1.4, -0.8, 1.4, 0.8],
    ],
  ],
  ["a dot", false, "D1", TWO, [...BOX, [-1.5, -0.75, -1.5, -0.75]]],
  ["a dot far away", true, "D1", TWO, [[-6, 0, -6, 0]]],
  ["a body open on one side", false, "D1", TWO, BOX.slice(0, 3)],
  ["its name alone", true, "D1", TWO, name(-0.7, 0.6)],
  [
    "its name upright",
    true,
    "D1",
    TWO,
    name(-0.7, 0.6).map(([a, b, c, d]): Stroke => [b - 1.2, a, d - 1.2, c]),
  ],
  ["one letter", false, "D1", TWO, name(-1.6, 0.6).slice(0, 3)],
  ["a pad of another size", false, "D1", [TWO[0]!, { ...TWO[1]!, stamp: 12 }], BOX],
  [
    "a square pad among round ones",
    false,
    "D1",
    [
      { pin: "1", x: -1.27, y: 0, stamp: 14 },
      { pin: "2", x: 1.27, y: 0, stamp: 13 },
    ],
    [],
  ],
  [
    "three legs that fit one way only",
    false,
    "Q1",
    [
      { pin: "1", x: -0.95, y: 1 },
      { pin: "2", x: 0.95, y: 1 },
      { pin: "3", x: 0, y: -1 },
    ],
    [],
  ],
  ["a resistor", false, "R1", TWO, []],
  ["a plain capacitor", false, "C1", TWO, [], { list: PLAIN }],
  ["an electrolytic capacitor", true, "C1", TWO, BOX, { list: ELCO }],
  [
    "an electrolytic capacitor with a plus",
    false,
    "C1",
    TWO,
    [...BOX, [-1.5, 0.1, -1.1, 0.1], [-1.3, -0.1, -1.3, 0.3]],
    { list: ELCO },
  ],
  [
    "pins called A and K, other letters",
    true,
    "X1",
    [
      { ...TWO[0]!, pin: "A" },
      { ...TWO[1]!, pin: "K" },
    ],
    [],
  ],
  [
    "an integrated circuit with its body",
    true,
    "U1",
    SOIC,
    [
      [-1.9, 2.4, 1.9, 2.4],
      [-1.9, -2.4, 1.9, -2.4],
    ],
  ],
  [
    "the same with a dot at pin 1",
    false,
    "U1",
    SOIC,
    [
      [-1.9, 2.4, 1.9, 2.4],
      [-1.9, -2.4, 1.9, -2.4],
      [-3.4, 2.4, -3.4, 2.4],
    ],
  ],
  ["the same turned by 30°", true, "U1", turnedBy(30, SOIC), []],
  ["below, a bar", false, "D1", TWO, [...BOX, [-1.4, -0.8, -1.4, 0.8]], { side: "bottom" }],
  ["below, nothing", true, "D1", TWO, BOX, { side: "bottom" }],
])("marks of direction: %s", (_, isListed, ref, pads, ink, ...more) => {
  expect(unmarked(ref, pads, ink, ...more)).toEqual(isListed ? [ref] : []);
});

test("a part that is not fitted needs no mark", () => {
  expect(unmarked("D1", TWO, [], { list: "Reference,Value,Fitted\nD1,red,no\n" })).toEqual([]);
  expect(unmarked("D1", TWO, [], { list: "Reference,Value,Fitted\nD1,red,yes\n" })).toEqual(["D1"]);
});
