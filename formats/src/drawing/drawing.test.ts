import { expect, test } from "@jest/globals";
import { readDrawing } from "./read.ts";

const bytes = (text: string) => new TextEncoder().encode(text);
/** A text exchange drawing from its pairs: 0 LINE 10 0 20 0 … */
const dxf = (entities: string, { header = "", blocks = "" } = {}) =>
  bytes(
    `${[
      header && `0 SECTION 2 HEADER ${header} 0 ENDSEC`,
      blocks && `0 SECTION 2 BLOCKS ${blocks} 0 ENDSEC`,
      `0 SECTION 2 ENTITIES ${entities} 0 ENDSEC 0 EOF`,
    ]
      .filter(Boolean)
      .join(" ")
      .split(" ")
      .join("\r\n")}\r\n`,
  );
const svg = (body: string, attributes = 'width="100mm" height="50mm" viewBox="0 0 100 50"') =>
  bytes(`<?xml version="1.0"?><svg xmlns="http://www.w3.org/2000/svg" ${attributes}>${body}</svg>`);

const circlesOf = (file: Uint8Array) => {
  const d = readDrawing(file);
  if (d.kind !== "drawing") throw new Error(d.why);
  const r = (v: number) => Math.round(v * 100) / 100 + 0;
  return d.circles.map((c) => [r(c.x), r(c.y), r(c.diameter)]);
};
const unitOf = (file: Uint8Array) => {
  const d = readDrawing(file);
  return d.kind === "drawing" ? d.unitMm : d.why;
};

/** Corners of a regular ring, first to last. */
const ring = (n: number, r: number, x: number) =>
  Array.from(
    { length: n },
    (_, i) => `${x + r * Math.cos((2 * Math.PI * i) / n)},${r * Math.sin((2 * Math.PI * i) / n)}`,
  ).join(" ");

const CIRCLE = "0 CIRCLE 8 0 10 5 20 7 30 0 40 1.5";
const block = (inside: string, name = "POST", base = "10 0 20 0") =>
  `0 BLOCK 8 0 2 ${name} 70 0 ${base} 30 0 3 ${name} ${inside} 0 ENDBLK 8 0`;

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

test.each([
  ["a circle, y up", '<circle cx="10" cy="20" r="2"/>', [[10, -20, 4]]],
  [
    "a circle in a moved and scaled group",
    '<g transform="translate(10 5) scale(2)"><circle cx="1" cy="1" r="2"/></g>',
    [[12, -7, 8]],
  ],
  [
    "groups in groups, from inside out",
    '<g transform="scale(2)"><g transform="translate(3,0)"><circle r="1"/></g></g>',
    [[6, 0, 4]],
  ],
  ["an ellipse that is round", '<ellipse cx="1" cy="1" rx="3" ry="3"/>', [[1, -1, 6]]],
  ["an ellipse that is not", '<ellipse cx="1" cy="1" rx="3" ry="2.9"/>', []],
  ["a path of two arcs", '<path d="M0 5 a5 5 0 1 0 10 0 a5 5 0 1 0 -10 0 z"/>', [[5, -5, 10]]],
  [
    "a path of four curves",
    '<path d="M1 0C1 .5523 .5523 1 0 1S-1 .5523-1 0-.5523-1 0-1 1-.5523 1 0z"/>',
    [[0, 0, 2]],
  ],
  [
    "two rings of one path",
    '<path d="M0 5a5 5 0 1 0 10 0a5 5 0 1 0-10 0zM4 5a1 1 0 1 0 2 0a1 1 0 1 0-2 0z"/>',
    [
      [5, -5, 10],
      [5, -5, 2],
    ],
  ],
  [
    "a rounded square is none",
    '<path d="M2 0h6a2 2 0 0 1 2 2v6a2 2 0 0 1-2 2h-6a2 2 0 0 1-2-2v-6a2 2 0 0 1 2-2z"/>',
    [],
  ],
  [
    "hidden and only defined",
    '<defs><circle r="9"/></defs><g style="display:none"><circle r="8"/></g><circle r="7" display="none"/>',
    [],
  ],
  [
    "a symbol used with a place of its own",
    '<symbol id="s"><circle cx="1" r="1"/></symbol><use href="#s" x="3" y="2"/>',
    [[4, -2, 2]],
  ],
  [
    "defined once, used twice",
    '<defs><circle id="p" r="1"/></defs><use href="#p" x="3"/><use xlink:href="#p" y="4"/>',
    [
      [3, 0, 2],
      [0, -4, 2],
    ],
  ],
] as const)("circles of a vector picture: %s", (_, body, expected) => {
  expect(circlesOf(svg(body))).toEqual(expected);
});

test.each([
  ["millimetres and a view box", 'width="100mm" height="50mm" viewBox="0 0 100 50"', 1],
  ["inches", 'width="4in" height="2in" viewBox="0 0 288 144"', 25.4 / 72],
  ["the height left out", 'width="10cm" viewBox="0 0 1000 50"', 0.1],
  ["pixels are no length", 'width="378" height="189" viewBox="0 0 100 50"', undefined],
  ["px neither", 'width="378px" height="189px" viewBox="0 0 100 50"', undefined],
  ["a view box of three", 'width="100mm" height="50mm" viewBox="0 0 100"', undefined],
  ["a view box of five", 'width="100mm" height="50mm" viewBox="0 0 100 50 1"', undefined],
  ["a view box without height", 'width="100mm" height="50mm" viewBox="0 0 100 0"', undefined],
  ["a view box without width", 'width="100mm" height="50mm" viewBox="0 0 0 50"', undefined],
  ["no view box", 'width="100mm" height="50mm"', undefined],
  ["fitted into another shape", 'width="100mm" height="80mm" viewBox="0 0 100 50"', undefined],
] as const)("the scale of a vector picture: %s", (_, attributes, mm) => {
  const unit = unitOf(svg('<rect width="10" height="5"/>', attributes));
  if (mm === undefined) expect(unit).toBeUndefined();
  else expect(unit).toBeCloseTo(mm, 6);
});

test("a view box of no size tells no unit", () => {
  for (const box of ["0 0 0 50", "0 0 100 0", "0 0 -1 50", "0 0 100", "0 0 100 50 1"])
    expect(unitOf(svg("<g/>", `width="100mm" viewBox="${box}"`))).toBeUndefined();
  expect(unitOf(svg("<g/>", 'width="100mm" viewBox="0 0 100 50"'))).toBe(1);
});

test("the size of all that is drawn, lines, arcs and circles", () => {
  expect(
    readDrawing(svg('<rect x="5" y="5" width="60" height="30"/><circle cx="5" cy="5" r="2"/>')),
  ).toMatchObject({
    size: [62, 32],
  });
  expect(readDrawing(svg('<line x1="2" y1="1" x2="12" y2="6"/>'))).toMatchObject({ size: [10, 5] });
  expect(readDrawing(svg("<g/>"))).not.toHaveProperty("size");
  const d = readDrawing(dxf("0 LINE 8 0 10 0 20 0 11 30 21 10"));
  expect(d).toMatchObject({ size: [30, 10], circles: [] });
});

test.each([
  ["words", bytes("hello"), "The file is neither a DXF nor an SVG drawing."],
  ["nothing", new Uint8Array(), "The file is neither a DXF nor an SVG drawing."],
  [
    "a binary file",
    new Uint8Array([65, 0, 2, 3, 0, 0]),
    "The file is binary: export the drawing as text (DXF) or as SVG.",
  ],
  [
    "a file that is binary from its 64th byte on",
    new Uint8Array(70).fill(65).fill(0, 63, 64),
    "The file is binary: export the drawing as text (DXF) or as SVG.",
  ],
  [
    "words with a zero far behind",
    new Uint8Array(70).fill(65).fill(0, 64, 65),
    "The file is neither a DXF nor an SVG drawing.",
  ],
  ["a page that holds a word", bytes("<html>svg</html>"), "The file is neither a DXF nor an SVG drawing."],
] as const)("what is no drawing is refused: %s", (_, file, why) => {
  expect(readDrawing(file)).toEqual({ kind: "refused", why });
});

test("shapes that use each other in a ring end, and are said", () => {
  const d = readDrawing(svg('<g id="a"><use href="#b"/></g><g id="b"><use href="#a"/></g><circle r="1"/>'));
  expect(d).toMatchObject({
    circles: [{ diameter: 2 }],
    notes: ["Groups inside of groups deeper than can be meant were not followed."],
  });
});

test("what is larger than any case's drawing is refused before it is read, and what has more shapes while it is", () => {
  const large = new Uint8Array(8 * 1024 * 1024 + 1).fill(32);
  expect(readDrawing(large)).toMatchObject({
    kind: "refused",
    why: expect.stringContaining("larger than 8 MB"),
  });
  // one byte less is read, and is something else
  expect(readDrawing(large.subarray(1))).toMatchObject({ why: expect.stringContaining("neither a DXF") });
  expect(readDrawing(svg(`<path d="${"M0 0h1".repeat(200_001)}"/>`))).toMatchObject({
    kind: "refused",
    why: expect.stringContaining("more shapes"),
  });
  const circles = (n: number) => Array.from({ length: n }, (_, i) => `<circle cx="${i}" r="1"/>`).join("");
  expect(readDrawing(svg(circles(5001)))).toMatchObject({ kind: "refused" });
  expect(readDrawing(svg(circles(1000)))).toMatchObject({ circles: { length: 1000 } });
  expect(readDrawing(svg(`<path d="${"M0 0h1".repeat(2000)}"/>`))).toMatchObject({
    kind: "drawing",
    size: [1, 0],
  });
});

test("shapes drawn as seen from below are said: their places may be mirrored", () => {
  expect(readDrawing(dxf(`${CIRCLE} 210 0 220 0 230 -1`))).toMatchObject({
    notes: [expect.stringContaining("seen from below")],
  });
  expect(readDrawing(dxf(`${CIRCLE} 210 0 220 0 230 1`))).toMatchObject({ notes: [] });
});

test.each<[string, string, { circles: number[][]; size?: number[]; notes?: string[] }]>([
  [
    "a picture",
    '<image href="a.png" width="9" height="9"/><circle r="1"/>',
    { circles: [[0, 0, 2]], notes: ["A picture inside of the drawing was not taken."] },
  ],
  [
    "a shape that is used and nowhere defined",
    '<use href="#none"/><circle r="1"/>',
    { circles: [[0, 0, 2]], notes: ["A re-used shape could not be followed."] },
  ],
  [
    "a symbol that is used at a place",
    '<symbol id="s"><circle cx="1" r="1"/></symbol><use href="#s" x="10" y="5"/>',
    { circles: [[11, -5, 2]] },
  ],
  [
    "a rectangle of no width, of no height",
    '<rect width="0" height="9"/><rect width="9" height="0"/>',
    { circles: [] },
  ],
  [
    "circles and ellipses of no radius",
    '<circle cx="5" r="0"/><ellipse cx="5" rx="3"/><ellipse cx="5" ry="3"/>',
    { circles: [] },
  ],
  [
    "lines through points, closed and not",
    '<polyline points="0,0 4,0 4,3"/><polygon points="10,0 14,0 14,3"/><polygon points=" "/><polyline/>',
    { circles: [], size: [14, 3] },
  ],
  [
    "a ring of sixteen corners, and one of fifteen",
    `<polygon points="${ring(16, 3, 10)}"/><polygon points="${ring(15, 3, 30)}"/>`,
    { circles: [[10, 0, 6]] },
  ],
  ["a ring that does not close", `<polyline points="${ring(16, 3, 10)}"/>`, { circles: [] }],
  [
    "a point that is no number",
    '<path d="M1 1 L NaN 5"/><circle cx="2" cy="2" r="1"/>',
    { circles: [[2, -2, 2]] },
  ],
])("of a vector drawing: %s", (_, body, want) => {
  const d = readDrawing(svg(body));
  if (d.kind !== "drawing") throw new Error(d.why);
  expect(circlesOf(svg(body))).toEqual(want.circles);
  if (want.size) expect(d.size).toEqual(want.size);
  expect(d.notes).toEqual(want.notes ?? []);
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
