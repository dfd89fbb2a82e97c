import { expect, test } from "@jest/globals";
import type { Finding } from "../findings.ts";
import { readLayer } from "../gerber/read.ts";
import { partsOfImage } from "./from-image.ts";
import { findPlacementHead } from "./head.ts";
import { headingOf } from "./headings.ts";
import { type Placement, type Placements, readPlacement } from "./placement.ts";
import { settlePlacements } from "./settle.ts";
import { factorOf } from "./units.ts";

const part = (ref: string, x: number, y: number, attributes: string) =>
  `%TO.C,${ref}*%\n${attributes}X${x * 1e6}Y${y * 1e6}D03*\n%TD*%\n`;

test("parts of a component layer: marks for cameras and nameless ones are none, one kind is one line", () => {
  const image = readLayer(
    new TextEncoder().encode(
      "%FSLAX46Y46*%\n%MOMM*%\n%TA.AperFunction,ComponentMain*%\n%ADD10C,0.3*%\n%TA.AperFunction,ComponentPin*%\n%ADD11C,0.1*%\n%TD*%\nD10*\n" +
        part("R1", 1, 2, "%TO.CRot,90*%\n%TO.CVal,10k*%\n%TO.CPkg,0603*%\n") +
        part("R2", 3, 4, "%TO.CRot,-90*%\n%TO.CVal,10k*%\n%TO.CPkg,0603*%\n") +
        part(
          "C1",
          5,
          6,
          "%TO.CRot,odd*%\n%TO.CVal,1u*%\n%TO.CFtp,C_0805*%\n%TO.CMPN,AX-1*%\n%TO.CMfr,Maker*%\n",
        ) +
        part("FID1", 7, 8, "%TO.CMnt,Fiducial*%\n") +
        "X9000000Y9000000D03*\nD11*\n" +
        part("R1", 1, 3, "%TO.CVal,10k*%\n") +
        "D10*\nX0Y0D02*\nX1000000Y0D01*\nM02*\n",
    ),
    "c.gbr",
  );
  const { parts, lines } = partsOfImage(image, "bottom", 5);
  expect(parts).toEqual([
    { ref: "R1", xMm: 1, yMm: 2, rotationDeg: 90, side: "bottom" },
    { ref: "R2", xMm: 3, yMm: 4, rotationDeg: 270, side: "bottom" },
    { ref: "C1", xMm: 5, yMm: 6, rotationDeg: 0, side: "bottom" },
  ]);
  expect(lines).toMatchObject([
    { refs: ["R1", "R2"], qty: 2, valueText: "10k", package: "0603", mpn: "", row: 5, dnp: false },
    { refs: ["C1"], qty: 1, valueText: "1u", package: "C_0805", mpn: "AX-1", maker: "Maker", row: 6 },
  ]);
  expect(lines[0]!.value?.si).toBe(10_000);
});

test.each([
  ["mm", 1],
  ["millimeters", 1],
  ["mils", 0.0254],
  ["thou", 0.0254],
  ["inch", 25.4],
  ['"', 25.4],
  ["µm", 0.001],
  ["microns", 0.001],
  ["nm", 1e-6],
  ["cm", 10],
  ["foot", undefined],
])("one %s is %s mm", (word, mm) => {
  expect(factorOf(word)).toBe(mm);
});

test.each<[string, string[], number | undefined]>([
  ["PosX(mm)", ["pos", "x"], 1],
  ["MidY", ["mid", "y"], undefined],
  ["Xmil", ["x"], 0.0254],
  ["#Ref Des", ["ref", "des"], undefined],
  ["Center-X [inch]", ["center", "x"], 25.4],
])("a heading “%s” says %j", (text, words, factor) => {
  expect(headingOf(text)).toEqual(factor === undefined ? { words } : { words, factor });
});

test.each<[string, string[], object]>([
  [
    "the middle before a pad and the reference",
    ["Ref", "Pad X", "Pad Y", "Mid X", "Mid Y", "Ref X", "Ref Y"],
    { ref: 0, x: 3, y: 4 },
  ],
  ["a plain X before the reference's", ["Ref", "Ref X", "Ref Y", "X", "Y"], { x: 3, y: 4 }],
  [
    "the reference's where there is no other but the pad's",
    ["Ref", "Pad X", "Pad Y", "Ref X", "Ref Y"],
    { x: 3, y: 4 },
  ],
  ["a designator before a name", ["Name", "Designator", "X", "Y"], { ref: 1 }],
  ["a designator before a reference", ["Ref", "Ref des", "X", "Y"], { ref: 1 }],
  ["the first of two references", ["Ref", "Reference", "X", "Y"], { ref: 0 }],
  [
    "a name where nothing better is there",
    ["Component", "X", "Y", "Rot", "Side"],
    { ref: 0, rotation: 3, side: 4 },
  ],
  ["no size and no turn is a place", ["Ref", "Size X", "X", "Y", "Rotation X"], { x: 2, y: 3 }],
  ["a mirror", ["RefDes", "X", "Y", "Mirrored"], { mirror: 3 }],
])("of several columns: %s", (_, heads, at) => {
  expect(findPlacementHead([heads])?.at).toMatchObject(at);
});

test("a heading is looked for in sixty rows, and none of five words and more is one", () => {
  const head = ["Ref", "X", "Y"];
  const after = (n: number) => findPlacementHead([...Array.from({ length: n }, () => ["remark"]), head]);
  expect([after(59)?.row, after(60)]).toEqual([59, undefined]);
  expect(findPlacementHead([["Ref", "the X of the part is", "Y"]])).toBeUndefined();
});

test.each([
  ["board-bottom.csv", "bottom", "remark"],
  ["board_back.csv", "bottom", "remark"],
  ["front.pos", "top", "remark"],
  ["board.csv", "top", "warning"],
])("without a column the side of %s is %s, said as a %s", (file, side, level) => {
  const read = readPlacement(
    [
      ["Ref", "X mm", "Y mm", "Rot"],
      ["R1", "1", "2", "0"],
    ],
    file,
  );
  expect([read.parts[0]!.side, read.findings.map((f) => [f.tag, f.level])]).toEqual([
    side,
    [["placement-side-unknown", level]],
  ]);
});

/** Four parts on a board of 100 × 80, in a unit; a corner of 5 mm beside it still counts. */
const BOX = [0, 0, 100, 80] as const;
const placed = (
  list: readonly (readonly [number, number])[],
  more: Partial<Placements> = {},
  side: Placement["side"] = "top",
) =>
  ({
    unit: "mm",
    findings: [],
    ...more,
    parts: list.map(([xMm, yMm], i) => ({ ref: `R${i}`, xMm, yMm, rotationDeg: 0, side })),
  }) satisfies Placements;
const settled = (p: Placements, box: typeof BOX | undefined = BOX) => {
  const findings: Finding[] = [];
  return {
    out: settlePlacements(p, box, "p.csv", findings),
    said: findings.map((f) => [f.tag, f.level]),
    findings,
  };
};
const CORNERS = [
  [5, 5],
  [95, 5],
  [95, 75],
  [5, 75],
] as const;
const times = (f: number) => CORNERS.map(([x, y]) => [x * f, y * f] as const);

test.each<[string, Placements, string, [string, string][], number]>([
  ["stated millimetres that fit are left alone", placed(CORNERS), "mm", [], 5],
  [
    "assumed millimetres that fit are a remark",
    placed(CORNERS, { isUnitAssumed: true }),
    "mm",
    [["unit-assumed", "remark"]],
    5,
  ],
  [
    "mils that were assumed to be millimetres are taken, and said",
    placed(times(1 / 0.0254), { isUnitAssumed: true }),
    "mil",
    [["unit-assumed", "warning"]],
    5,
  ],
  [
    "inches likewise: crowded into the corner is not on the board",
    placed(times(1 / 25.4), { isUnitAssumed: true }),
    "inch",
    [["unit-assumed", "warning"]],
    5,
  ],
  [
    "micrometres likewise",
    placed(times(1000), { isUnitAssumed: true }),
    "mm",
    [["unit-assumed", "warning"]],
    5,
  ],
  [
    "a stated unit that cannot be is an error, and stays as it was stated",
    placed(times(1 / 0.0254)),
    "mm",
    [["placement-off-pads", "error"]],
    5 / 0.0254,
  ],
])("%s", (_, p, unit, said, x) => {
  const r = settled(p);
  expect([r.out.unit, r.said]).toEqual([unit, said]);
  expect(r.out.parts[0]!.xMm).toBeCloseTo(x, 4);
});

test("where there is no board to hold them against an assumed unit is said all the same", () => {
  const alone = (more: Partial<Placements>) => {
    const findings: Finding[] = [];
    expect(settlePlacements(placed(CORNERS, more), undefined, "p.csv", findings).parts).toHaveLength(4);
    return findings.map((f) => `${f.level} ${f.text}`);
  };
  expect(alone({})).toEqual([]);
  expect(alone({ isUnitAssumed: true })).toEqual([
    "warning The placement file states no unit; millimetres were taken, and nothing is there to hold them against.",
  ]);
});

test("five millimetres beside the outline are still on the board, a hair more is not", () => {
  const level = (x: number, y: number) =>
    settled(
      placed(
        [
          [x, y],
          [x, y],
          [50, 40],
        ],
        { isUnitAssumed: true },
      ),
    ).findings[0]!.level;
  for (const [x, y] of [
    [-5, 40],
    [105, 40],
    [50, -5],
    [50, 85],
  ] as const)
    expect(level(x, y)).toBe("remark");
  for (const [x, y] of [
    [-5.01, 40],
    [105.01, 40],
    [50, -5.01],
    [50, 85.01],
  ] as const)
    expect(level(x, y)).toBe("warning");
});

test("crowded is what spreads over less than 8 % of the board, wherever on it and along which side", () => {
  // four parts 7 mm apart in the far corner of 100 × 80: on the board, and still too near each other to be it
  const at = (w: number, h: number) =>
    settled(
      placed(
        [
          [90, 70],
          [90 + w, 70],
          [90 + w, 70 + h],
          [90, 70 + h],
        ],
        { isUnitAssumed: true },
      ),
    ).findings[0]!.level;
  expect([at(7, 7), at(9, 1), at(1, 9)]).toEqual(["warning", "remark", "remark"]);
});

test("without a box a unit nobody stated is said to stand alone; nothing placed is nothing to settle", () => {
  expect(settled(placed(CORNERS, { isUnitAssumed: true }), undefined as never).said).toEqual([
    ["unit-assumed", "remark"],
  ]);
  expect(settled(placed(CORNERS), undefined as never).said).toEqual([]);
  expect(settled(placed([], { isUnitAssumed: true })).said).toEqual([]);
});

test("two parts of the bottom beside the board, and on it mirrored, are written as seen from below; one is not enough", () => {
  const below = (n: number) => {
    const list = (
      [
        [-20, 5],
        [-95, 75],
      ] as const
    ).slice(0, n);
    const of = (side: Placement["side"]) => placed(side === "top" ? CORNERS : list, {}, side);
    return settled({ ...of("top"), parts: [...of("top").parts, ...of("bottom").parts] });
  };
  expect(below(1).said).toEqual([]);
  const [found] = below(2).findings;
  expect([found!.tag, found!.level, found!.about]).toEqual(["placement-mirrored", "error", ["R0", "R1"]]);
  expect(settled(placed(CORNERS, {}, "bottom")).said).toEqual([]);
});
