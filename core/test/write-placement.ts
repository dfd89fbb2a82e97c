import type { Cells } from "../src/table/columns.ts";
import type { Chance } from "./random.ts";

/** Where a part is meant to stand, mm and degrees. */
export interface MeantPlace {
  readonly ref: string;
  readonly xMm: number;
  readonly yMm: number;
  readonly rotationDeg: number;
  readonly side: "top" | "bottom";
}

const UNITS = [
  { mm: 1, words: ["mm", "millimeters"], digits: 3 },
  { mm: 0.0254, words: ["mil", "mils", "thou"], digits: 2 },
  { mm: 25.4, words: ["in", "inch"], digits: 5 },
  { mm: 0.001, words: ["um", "µm"], digits: 0 },
] as const;
const REF = ["Ref", "Designator", "RefDes", "Reference", "Part", "Bezeichner", "REFDES"];
const X = [
  ["X", "Y"],
  ["PosX", "PosY"],
  ["Mid X", "Mid Y"],
  ["Center-X", "Center-Y"],
  ["X_coord", "Y_coord"],
];
const TURN = ["Rotation", "Rot", "Angle", "Orientation", "ROTATION", "Winkel"];
const SIDE = ["Side", "Layer", "TB", "Seite"];
const SIDES = [
  ["top", "bottom"],
  ["Top", "Bottom"],
  ["T", "B"],
  ["TopLayer", "BottomLayer"],
  ["front", "back"],
  ["oben", "unten"],
  ["F", "B"],
  ["Top side", "Bottom side"],
] as const;

/** Places on a board of 100 × 80 mm, on a grid that every unit can write. */
export function meantPlaces(c: Chance): MeantPlace[] {
  return Array.from({ length: 4 + c.below(8) }, (_, i) => ({
    ref: `${c.pick(["R", "C", "U", "D"])}${i + 1}`,
    xMm: (1 + c.below(3900)) * 0.0254,
    yMm: (1 + c.below(3100)) * 0.0254,
    rotationDeg: c.pick([0, 45, 90, 135, 180, 270, 30.5]),
    side: c.is(0.8) ? "top" : "bottom",
  }));
}

/** The places in one of the ways people write them; open where no unit is written anywhere. */
export function writePlacement(
  parts: readonly MeantPlace[],
  c: Chance,
): { readonly cells: Cells; readonly isOpen: boolean } {
  const unit = c.pick(UNITS);
  const word = c.pick(unit.words);
  const where = c.pick(["heading", "cell", "comment", "nowhere"] as const);
  const isMixed = where === "cell" && c.is(0.3);
  const comma = c.is(0.15);
  const number = (mm: number): string => {
    const u = isMixed ? c.pick(UNITS) : unit;
    const text = (mm / u.mm).toFixed(u.digits + c.below(2));
    const own = where === "cell" ? `${c.pick(["", " "])}${isMixed ? c.pick(u.words) : word}` : "";
    return (comma ? text.replace(".", ",") : text) + own;
  };
  const turn = (deg: number): string => {
    const v = deg + c.pick([0, 0, 0, 360, -360]);
    const text = c.pick([String(v), v.toFixed(2)]);
    return (comma ? text.replace(".", ",") : text) + c.pick(["", "", "°", " deg"]);
  };
  const [x, y] = c.pick(X) as [string, string];
  const inHeading = where === "heading" ? c.pick([` (${word})`, ` [${word}]`, `_${word}`]) : "";
  const sides = c.pick(SIDES);
  const isMirror = c.is(0.15);
  const columns: [string, (p: MeantPlace) => string][] = [
    [c.pick(REF), (p) => p.ref],
    [x + inHeading, (p) => number(p.xMm)],
    [y + inHeading, (p) => number(p.yMm)],
    [c.pick(TURN), (p) => turn(p.rotationDeg)],
    isMirror
      ? [
          c.pick(["Mirror", "Mirrored"]),
          (p) => (p.side === "top" ? c.pick(["no", "No"]) : c.pick(["yes", "YES"])),
        ]
      : [c.pick(SIDE), (p) => (p.side === "top" ? sides[0] : sides[1])],
  ];
  if (c.is(0.4)) columns.push(["Value", () => c.pick(["10k", "100n", "chip"])]);
  if (c.is(0.4)) columns.push(["Footprint", () => c.pick(["0603", "SO8"])]);
  const order = c.is(0.5) ? columns : c.shuffled(columns);
  const rows: string[][] = [];
  const remark = c.pick(["#", "//", ";", "*"]);
  if (c.is(0.3)) rows.push([`${remark} written by hand`]);
  if (where === "comment")
    rows.push([
      c.pick([
        `${remark} Units: ${word}`,
        `${remark} unit = ${word}`,
        `${remark} all coordinates in ${word}`,
      ]),
    ]);
  rows.push(order.map(([h]) => h));
  parts.forEach((p, i) => {
    if (i === 3 && c.is(0.1)) rows.push(order.map(([h]) => h));
    if (c.is(0.05)) rows.push(order.map(() => ""));
    rows.push(order.map(([, w]) => w(p)));
  });
  if (c.is(0.15)) rows.push([`${remark} end`]);
  return { cells: rows, isOpen: where === "nowhere" };
}
