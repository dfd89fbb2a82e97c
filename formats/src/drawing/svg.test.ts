import { expect, test } from "@jest/globals";
import { circlesOf, svg, unitOf } from "./drawn.fixture.ts";
import { readDrawing } from "./read.ts";

/** Corners of a regular ring, first to last. */
const ring = (n: number, r: number, x: number) =>
  Array.from(
    { length: n },
    (_, i) => `${x + r * Math.cos((2 * Math.PI * i) / n)},${r * Math.sin((2 * Math.PI * i) / n)}`,
  ).join(" ");

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

test("shapes that use each other in a ring end, and are said", () => {
  const d = readDrawing(svg('<g id="a"><use href="#b"/></g><g id="b"><use href="#a"/></g><circle r="1"/>'));
  expect(d).toMatchObject({
    circles: [{ diameter: 2 }],
    notes: ["Groups inside of groups deeper than can be meant were not followed."],
  });
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
