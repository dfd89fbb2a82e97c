import { expect, test } from "@jest/globals";
import { block, CIRCLE, circlesOf, dxf, unitOf } from "./drawn.fixture.ts";
import { readDrawing } from "./read.ts";

test.each([
  ["a circle", CIRCLE, "", [[5, 7, 3]]],
  ["an arc that goes all the way round", "0 ARC 8 0 10 1 20 2 40 2 50 0 51 360", "", [[1, 2, 4]]],
  [
    "two half arcs",
    "0 ARC 8 0 10 1 20 2 40 2 50 0 51 180 0 ARC 8 0 10 1 20 2 40 2 50 180 51 360",
    "",
    [[1, 2, 4]],
  ],
  [
    "four arcs of a quarter each by their bulges",
    "0 LWPOLYLINE 8 0 90 4 70 1 10 2 20 0 42 0.41421356 10 0 20 2 42 0.41421356 10 -2 20 0 42 0.41421356 10 0 20 -2 42 0.41421356",
    "",
    [[0, 0, 4]],
  ],
  ["most of an arc is none", "0 ARC 8 0 10 1 20 2 40 2 50 60 51 30", "", []],
  ["half an arc is none", "0 ARC 8 0 10 1 20 2 40 2 50 0 51 180", "", []],
  ["a polyline of two bulges", "0 LWPOLYLINE 8 0 90 2 70 1 10 0 20 0 42 1 10 4 20 0 42 1", "", [[2, 0, 4]]],
  ["a square is none", "0 LWPOLYLINE 8 0 90 4 70 1 10 0 20 0 10 4 20 0 10 4 20 4 10 0 20 4", "", []],
  ["the same circle drawn twice", `${CIRCLE} ${CIRCLE}`, "", [[5, 7, 3]]],
  // 5/7 turned by 90° is −7/5, twice as large −14/10, and moved by 100/0
  [
    "a block turned, scaled and moved",
    "0 INSERT 8 0 2 POST 10 100 20 0 41 2 42 2 50 90",
    block(CIRCLE),
    [[86, 10, 6]],
  ],
  ["a block scaled alone", "0 INSERT 8 0 2 POST 10 1 20 1 41 2 42 2", block(CIRCLE), [[11, 15, 6]]],
  ["a block mirrored", "0 INSERT 8 0 2 POST 10 0 20 0 41 -1 42 1", block(CIRCLE), [[-5, 7, 3]]],
  [
    // 5/7 turned by 30° and moved by 10/0 is 10.83/8.56; doubled and turned by 60° −4/27.32
    "blocks turned and scaled in each other",
    "0 INSERT 8 0 2 OUTER 10 0 20 0 41 2 42 2 50 60",
    `${block(CIRCLE)} ${block("0 INSERT 8 0 2 POST 10 10 20 0 50 30", "OUTER")}`,
    [[-4, 27.32, 6]],
  ],
  [
    "a block has its own origin",
    "0 INSERT 8 0 2 POST 10 0 20 0",
    block(CIRCLE, "POST", "10 5 20 5"),
    [[0, 2, 3]],
  ],
  [
    "a block in a block",
    "0 INSERT 8 0 2 OUTER 10 10 20 0",
    `${block(CIRCLE)} ${block("0 INSERT 8 0 2 POST 10 0 20 1", "OUTER")}`,
    [[15, 8, 3]],
  ],
  [
    "a block drawn wider than high is no circle",
    "0 INSERT 8 0 2 POST 10 0 20 0 41 2 42 1",
    block(CIRCLE),
    [],
  ],
] as const)("circles of an exchange drawing: %s", (_, entities, blocks, expected) => {
  expect(circlesOf(dxf(entities, { blocks }))).toEqual(expected);
});

test.each([
  ["millimetres", "9 $INSUNITS 70 4", 1],
  ["inches", "9 $INSUNITS 70 1", 25.4],
  ["centimetres", "9 $INSUNITS 70 5", 10],
  ["feet", "9 $INSUNITS 70 2", 304.8],
  ["metres", "9 $INSUNITS 70 6", 1000],
  ["mils", "9 $INSUNITS 70 9", 0.0254],
  ["micrometres", "9 $INSUNITS 70 13", 0.001],
  ["millionths of an inch", "9 $INSUNITS 70 8", 0.0000254],
  ["decimetres", "9 $INSUNITS 70 14", 100],
  ["light years", "9 $INSUNITS 70 19", undefined],
  ["none stated", "9 $INSUNITS 70 0", undefined],
  ["no header", "", undefined],
] as const)("the unit of an exchange drawing: %s", (_, header, mm) => {
  expect(unitOf(dxf(CIRCLE, { header }))).toBe(mm);
});

test("blocks inside of blocks are followed sixteen deep, and what is deeper is said", () => {
  const nested = (n: number) => {
    const blocks = Array.from({ length: n }, (_, i) =>
      block(i === 0 ? CIRCLE : `0 INSERT 8 0 2 B${i - 1} 10 0 20 0`, `B${i}`, "10 0 20 0"),
    ).join(" ");
    return readDrawing(dxf(`0 INSERT 8 0 2 B${n - 1} 10 0 20 0`, { blocks }));
  };
  expect(nested(16)).toMatchObject({ circles: [{ x: 5, y: 7, diameter: 3 }], notes: [] });
  expect(nested(17)).toMatchObject({ circles: [], notes: [expect.stringContaining("1 × insert")] });
});

test("what is no circle and no line is counted, and a block that holds itself ends", () => {
  const d = readDrawing(
    dxf(`${CIRCLE} 0 SPLINE 8 0 70 8 71 3 0 INSERT 8 0 2 RING 10 0 20 0`, {
      blocks: block("0 INSERT 8 0 2 RING 10 1 20 0", "RING"),
    }),
  );
  expect(d).toMatchObject({ circles: [{ x: 5, y: 7 }], notes: ["Not taken: 1 × spline, 1 × insert."] });
});

test("shapes drawn as seen from below are said: their places may be mirrored", () => {
  expect(readDrawing(dxf(`${CIRCLE} 210 0 220 0 230 -1`))).toMatchObject({
    notes: [expect.stringContaining("seen from below")],
  });
  expect(readDrawing(dxf(`${CIRCLE} 210 0 220 0 230 1`))).toMatchObject({ notes: [] });
});

test.each<[string, string, number[][], string[]]>([
  ["a circle without a radius, without a middle", "0 CIRCLE 8 0 10 5 20 7 0 CIRCLE 8 0 40 1.5", [], []],
  ["an arc without a radius", "0 ARC 8 0 10 5 20 7 50 0 51 360", [], []],
  ["arcs without angles", "0 ARC 8 0 10 5 20 7 40 2", [[5, 7, 4]], []],
  [
    "a part of a turn that ends beyond its beginning",
    "0 ARC 8 0 10 1 20 2 40 2 50 180 51 90 0 ARC 8 0 10 1 20 2 40 2 50 90 51 180",
    [[1, 2, 4]],
    [],
  ],
  [
    "words, points and a hatch",
    `${CIRCLE} 0 TEXT 8 0 10 1 20 1 40 2 1 hello 0 POINT 8 0 10 0 20 0`,
    [[5, 7, 3]],
    [],
  ],
  [
    "a block that is not there",
    `${CIRCLE} 0 INSERT 8 0 2 NONE 10 0 20 0`,
    [[5, 7, 3]],
    ["Not taken: 1 × insert."],
  ],
  [
    "a spline and an ellipse",
    "0 ELLIPSE 8 0 10 0 20 0 11 5 21 0 40 0.5 41 0 42 6.28",
    [],
    ["Not taken: 1 × ellipse."],
  ],
])("of an exchange drawing: %s", (_, entities, circles, notes) => {
  const d = readDrawing(dxf(entities, { blocks: block(CIRCLE) }));
  if (d.kind !== "drawing") throw new Error(d.why);
  expect(circlesOf(dxf(entities, { blocks: block(CIRCLE) }))).toEqual(circles);
  expect(d.notes).toEqual(notes);
});

test("a polyline on a plane that looks down is mirrored in x", () => {
  const quarters =
    "90 4 70 1 10 8 20 0 42 0.41421356 10 6 20 2 42 0.41421356 10 4 20 0 42 0.41421356 10 6 20 -2 42 0.41421356";
  expect(circlesOf(dxf(`0 LWPOLYLINE 8 0 ${quarters}`))).toEqual([[6, 0, 4]]);
  expect(circlesOf(dxf(`0 LWPOLYLINE 8 0 210 0 220 0 230 -1 ${quarters}`))).toEqual([[-6, 0, 4]]);
});

test("what lies on a layer that is off or frozen is left out and counted, in blocks too", () => {
  const layer = (name: string, flags: number, colour: number) =>
    `0 LAYER 2 ${name} 70 ${flags} 62 ${colour} 6 CONTINUOUS`;
  const tables = `0 TABLE 2 LAYER 70 3 ${layer("SHOWN", 0, 7)} ${layer("OFF", 0, -7)} ${layer("COLD", 1, 7)} 0 ENDTAB`;
  const on = (name: string, x: number) => `0 CIRCLE 8 ${name} 10 ${x} 20 0 30 0 40 2`;
  const d = readDrawing(
    dxf(
      `${on("SHOWN", 1)} ${on("OFF", 20)} ${on("COLD", 40)} ${on("COLD", 60)} 0 INSERT 8 SHOWN 2 POST 10 0 20 0`,
      {
        tables,
        blocks: block(on("OFF", 80)),
      },
    ),
  );
  expect(d).toMatchObject({
    circles: [{ x: 1, y: 0, diameter: 4 }],
    notes: [
      "Left out because their layer is off or frozen: 2 on “OFF”, 2 on “COLD”. Turn it on if they count.",
    ],
  });
});
