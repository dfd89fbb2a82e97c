import { expect, test } from "@jest/globals";
import { bytes, dxf, svg } from "./drawn.fixture.ts";
import { readDrawing } from "./read.ts";

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

// a few lines that ask for more than a machine can do: none of these ends where nothing is counted
const nested = (levels: number, each: number) => {
  const block = (name: string, inside: string) => `0 BLOCK 2 ${name} 10 0 20 0 ${inside} 0 ENDBLK`;
  const inserts = (name: string) =>
    Array.from({ length: each }, () => `0 INSERT 2 ${name} 10 0 20 0`).join(" ");
  const blocks = Array.from({ length: levels }, (_, i) =>
    block(`B${i}`, i === 0 ? "0 POINT 10 0 20 0" : inserts(`B${i - 1}`)),
  );
  const text = `0 SECTION 2 BLOCKS ${blocks.join(" ")} 0 ENDSEC 0 SECTION 2 ENTITIES ${inserts(`B${levels - 1}`)} 0 ENDSEC 0 EOF`;
  return bytes(text.split(" ").join("\n"));
};
const uses = (levels: number, each: number) => {
  const group = (i: number) => `<g id="g${i}">${i === 0 ? "" : `<use href="#g${i - 1}"/>`.repeat(each)}</g>`;
  return svg(
    `<defs>${Array.from({ length: levels }, (_, i) => group(i)).join("")}</defs><use href="#g${levels - 1}"/>`,
  );
};
test.each<[string, Uint8Array]>([
  ["blocks of blocks, ten of each", nested(14, 10)],
  [
    "forty long lines, each moved ninety times",
    svg(
      `${'<g transform="rotate(1)">'.repeat(90)}${`<path d="M0 0${"l1 1".repeat(20_000)}"/>`.repeat(40)}${"</g>".repeat(90)}`,
    ),
  ],
  [
    "a hundred and fifty thousand circles",
    svg(Array.from({ length: 150_000 }, (_, i) => `<circle cx="${i * 3}" r="1"/>`).join("")),
  ],
  ["curves without end", svg(`<path d="M0 0${"t9 9".repeat(900_000)}"/>`)],
])("%s is refused in a sentence", (_, file) => {
  expect(file.length).toBeLessThan(8 * 1024 * 1024);
  expect(readDrawing(file)).toEqual({
    kind: "refused",
    why: "The drawing has more shapes than a case can: export only the posts and the opening.",
  });
});

test("shapes that use each other by the million are followed so far, and it is said", () => {
  expect(readDrawing(uses(9, 9))).toMatchObject({
    kind: "drawing",
    circles: [],
    notes: ["A re-used shape could not be followed."],
  });
});

test("the same circle twice is one, wherever it lies on the grid it is looked up in; a little further it is another", () => {
  const at = (list: readonly (readonly [number, number, number])[]) =>
    readDrawing(svg(list.map(([x, y, r]) => `<circle cx="${x}" cy="${y}" r="${r}"/>`).join("")));
  // two places and sizes within a thousandth of the diameter are one; three thousandths apart they are two
  for (let k = 0; k < 60; k++) {
    const [x, y, r] = [k * 0.37, -k * 1.13, 0.5 * 1.07 ** k];
    const near = 2 * r * 0.0007;
    const far = 2 * r * 0.003;
    for (const [dx, dy, dr] of [
      [near, 0, 0],
      [0, -near, 0],
      [0, 0, near / 2],
      [-near, 0, -near / 2],
    ] as const)
      expect(
        at([
          [x, y, r],
          [x + dx, y + dy, r + dr],
        ]),
      ).toMatchObject({ circles: { length: 1 } });
    for (const [dx, dy, dr] of [
      [far, 0, 0],
      [0, far, 0],
      [0, 0, far],
    ] as const)
      expect(
        at([
          [x, y, r],
          [x + dx, y + dy, r + dr],
        ]),
      ).toMatchObject({ circles: { length: 2 } });
  }
});
