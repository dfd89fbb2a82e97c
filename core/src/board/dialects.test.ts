import { expect, test } from "@jest/globals";
import { writtenBoard } from "../../test/dialects/boards.ts";
import { judgeBoard } from "../../test/dialects/judge-board.ts";
import { often } from "../../test/long.ts";
import { area, drill, entry, flash, layer, measure, rim, stroke } from "../../test/write-board.ts";

test("drills, outlines and layers in the ways people write them are as meant, or the odd file is told; none silently", () => {
  const counts = { right: 0, asked: 0, said: 0, silent: 0, refused: 0 };
  const many = often(130, 5000);
  for (let n = 0; n < many; n++) {
    const written = writtenBoard(53, n);
    const { verdict, why } = judgeBoard(written);
    counts[verdict]++;
    if (verdict === "silent" || verdict === "refused") expect([n, written.kind, why]).toEqual([]);
  }
  expect(counts.right + counts.asked).toBeGreaterThan(0.98 * (counts.right + counts.asked + counts.said));
});

const PADS = [
  [10, 10],
  [20, 10],
  [30, 10],
  [30, 20],
  [10, 20],
] as const;
const copper = (k: number, path = "b.gtl") =>
  layer(path, `%ADD10C,${1.6 * k}*%\nD10*\n${PADS.map(([x, y]) => flash(x * k, y * k)).join("")}`);
const holes = (k: number) => drill("b-pth.drl", [[0.8, PADS.map(([x, y]) => [x * k, y * k] as const)]]);
const said = (entries: Parameters<typeof measure>[0], tag: string) =>
  measure(entries).findings.filter((f) => f.tag === tag);

test("of files at two scales the odd one is told with both shares, and none where all agree", () => {
  const all = (top: number, bottom: number, drills: number) =>
    said([copper(top), copper(bottom, "b.gbl"), holes(drills), rim(40, 30)], "layer-scale").map(
      (f) => f.text,
    );
  expect(all(1, 1, 1)).toEqual([]);
  expect(all(25.4, 1, 1)).toEqual([
    "b.gtl (copper top) is drawn 25.4 times too large: as it stands 0 % of its pads lie where the other files have theirs, taken at 1/25.4 of that 100 %.",
  ]);
  expect(all(1, 1, 0.1)).toEqual([
    "b-pth.drl (drill) is drawn 10 times too small: as it stands 0 % of its holes lie where the other files have theirs, taken 10 times as large 100 %.",
  ]);
  // two files, each at its own scale: the one that leaves the outline
  expect(said([copper(1), holes(10), rim(40, 30)], "layer-scale").map((f) => f.file)).toEqual(["b-pth.drl"]);
  // what lies inside is right, and the outline is not
  expect(
    said([copper(1), copper(1, "b.gbl"), holes(1), rim(4, 3)], "layer-scale").map((f) => f.file),
  ).toEqual(["b.gko"]);
});

test("a frame round the board and what stands beside it are left aside, and both sizes are told", () => {
  const board = `${stroke(0, 0, 40, 0)}${stroke(40, 0, 40, 30)}${stroke(40, 30, 0, 30)}${stroke(0, 30, 0, 0)}`;
  const slot = `${stroke(22, 14, 26, 14)}${stroke(26, 14, 26, 16)}${stroke(26, 16, 22, 16)}${stroke(22, 16, 22, 14)}`;
  const frame = `${stroke(-20, -20, 60, -20)}${stroke(60, -20, 60, 50)}${stroke(60, 50, -20, 50)}${stroke(-20, 50, -20, -20)}`;
  const of = (body: string) => measure([copper(1), holes(1), layer("b.gko", `%ADD10C,0.1*%\nD10*\n${body}`)]);
  const framed = of(`${frame}${board}${slot}${stroke(0, -6, 40, -6)}`);
  expect(framed.outline).toMatchObject({ widthMm: 40, heightMm: 30, areaMm2: 1192, cutouts: 1 });
  expect(framed.findings.filter((f) => f.tag === "outline-frame").map((f) => f.text)).toEqual([
    "The profile layer draws 80.00 × 70.00 mm in all; the smallest closed line round all pads and holes, 40.00 × 30.00 mm, was taken as the board, and what lies outside of it as a drawing's frame and dimensions.",
  ]);
  // a board in a frame of material, with pads in both, is one board with a cut-out
  const pads = layer("b.gbl", `%ADD10C,1.6*%\nD10*\n${flash(-10, -10)}${flash(50, 40)}`);
  const both = measure([copper(1), pads, layer("b.gko", `%ADD10C,0.1*%\nD10*\n${frame}${board}`)]);
  expect(both.outline).toMatchObject({ widthMm: 80, heightMm: 70, cutouts: 1 });
  expect(of(`${board}${slot}`).findings.some((f) => f.tag === "outline-frame")).toBe(false);
});

test("tools finer than any drill are inches, and what cannot be a diameter is in thousandths; both are said", () => {
  const file = (head: string, c: string, k: number) =>
    entry(
      "b-pth.drl",
      `M48\n${head}\nT1C${c}\n%\nT1\n${PADS.map(([x, y]) => `X${(x * k).toFixed(4)}Y${(y * k).toFixed(4)}`).join("\n")}\nM30\n`,
    );
  const of = (head: string, c: string, k = 1) => {
    const m = measure([copper(1), file(head, c, k), rim(40, 30)]);
    return [m.holes[0]?.diameterMm.toFixed(3), m.findings.filter((f) => f.tag === "drill-tool-unit").length];
  };
  expect(of("METRIC", "0.0315")).toEqual(["0.800", 1]);
  expect(of("METRIC", "0.1")).toEqual(["0.100", 0]);
  expect(of("METRIC", "0.8")).toEqual(["0.800", 0]);
  expect(of("INCH", "31.5", 1 / 25.4)).toEqual(["0.800", 1]);
  expect(of("METRIC", "800.0")).toEqual(["0.800", 1]);
});

test("pads drawn as areas and strokes count where the mask opens over just them", () => {
  const mask = (path: string) =>
    layer(path, `%ADD10R,1.4X1.2*%\nD10*\n${flash(10, 10)}${flash(20, 10)}${flash(30, 10)}`);
  const box = (x: number, y: number, w: number, h: number) =>
    area([x - w / 2, y - h / 2], [x + w / 2, y - h / 2], [x + w / 2, y + h / 2], [x - w / 2, y + h / 2]);
  const top = layer(
    "b.gtl",
    `%ADD11C,1*%\nD11*\n${stroke(9.9, 10, 10.1, 10)}${box(20, 10, 1.2, 1)}${box(30, 10, 12, 12)}`,
  );
  // the third lies in a pour, which is no pad
  expect(measure([top, mask("b.gts"), rim(40, 30)]).smdPads.top).toBe(2);
});

test("an outline drawn as wide as a cutter tells its three sizes", () => {
  const wide = (mm: number) =>
    layer(
      "b.gko",
      `%ADD10C,${mm}*%\nD10*\n${stroke(0, 0, 42, 0)}${stroke(42, 0, 42, 32)}${stroke(42, 32, 0, 32)}${stroke(0, 32, 0, 0)}`,
    );
  expect(said([copper(1), holes(1), wide(2)], "outline-wide").map((f) => f.text)).toEqual([
    "The outline is drawn 2.00 mm wide, as the way of a cutter would be. Its middle was taken, 42.00 × 32.00 mm; its inner edge is 40.00 × 30.00, its outer 44.00 × 34.00.",
  ]);
  expect(said([copper(1), holes(1), wide(0.5)], "outline-wide")).toEqual([]);
});

test("a move that is proposed for a file is judged as the files are: taken, nothing is said of that file any more", () => {
  let offered = 0;
  for (let n = 0; n < often(80, 400); n++) {
    const written = writtenBoard(59, n);
    for (const f of measure(written.entries).findings) {
      if (!f.offer) continue;
      offered++;
      const after = measure(written.entries, { moves: { [f.offer.file]: f.offer.move } });
      expect([n, written.kind, after.findings.filter((x) => x.tag === f.tag && x.file === f.file)]).toEqual([
        n,
        written.kind,
        [],
      ]);
    }
  }
  expect(offered).toBeGreaterThan(2);
});
