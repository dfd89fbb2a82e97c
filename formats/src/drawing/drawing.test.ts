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
