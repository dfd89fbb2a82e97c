import { expect, test } from "@jest/globals";
import { often } from "../../test/long.ts";
import type { Entry } from "../board/board-file.ts";
import { measureBoard } from "../board/measure.ts";
import { chainOutline } from "../board/outline/outline.ts";
import { isBoardOfPiece, kindsOfPieces } from "../board/panels/panel-alike.ts";
import { boardsOfPanel } from "../board/panels/panel-copies.ts";
import { readBoard } from "../board/read/read.ts";
import { panelDesign } from "./design.ts";
import { solvePanel } from "./lay/solve.ts";
import { entriesOf, MADE, type MadeBoard } from "./made-boards.fixture.ts";
import { laidOut } from "./shape/laid.ts";
import { banAt } from "./shape/stretch.ts";
import { DEFAULT_SPEC, isRefusal, type PanelDesign, type PanelLayout, type PanelSpec } from "./spec.ts";
import { provePanel } from "./write/proof.ts";
import { writePanel } from "./write/write.ts";

/** A made board read as any other. */
function sourceOf(b: MadeBoard) {
  const set = readBoard(entriesOf(b));
  const measure = measureBoard(set);
  const profile = set.files.find((f) => f.role === "profile")!;
  const rings = chainOutline(profile.layer!, profile.path).loops.map((l) => l.ring);
  const design = panelDesign({ name: b.name, measure, rings, bodies: [] });
  if ("reason" in design) throw new Error(design.reason);
  return { design, set, measure };
}
const spec = (more: Partial<PanelSpec>): PanelSpec => ({
  ...DEFAULT_SPEC,
  counts: [4],
  turns: [[0, 90, 180, 270]],
  ...more,
});
const solved = (designs: readonly PanelDesign[], s: PanelSpec): PanelLayout => {
  const made = solvePanel(designs, s);
  if (isRefusal(made)) throw new Error(made.reason);
  return made;
};

/** The sheet's files, read by the readers of any board. */
const readBack = (written: ReturnType<typeof writePanel>) => {
  const tables: Entry[] = written.tables.map((t) => ({
    path: t.path,
    bytes: new Uint8Array([1]),
    cells: t.rows.map((r) => [...r]),
  }));
  return readBoard([...written.files, ...tables]);
};

/** Those whose sheet is measured whole too: measuring takes longer than everything else. */
const MEASURED = new Set(["rectangle", "ring", "four-layers", "inch", "slotted", "star"]);

test.each(MADE.map((b) => [b.name, b] as const))(
  "%s: a sheet of it is the board in every layer of every copy, and falls into just those boards",
  (_, b) => {
    const source = sourceOf(b);
    // two of the large one go on a sheet
    const n = b.name === "large" ? 2 : 4;
    const layout = solved([source.design], spec({ counts: [n] }));
    expect(layout.counts).toEqual([n]);
    const back = readBack(writePanel([source], layout, { name: b.name, revision: "A" }, b.name));
    const measured = MEASURED.has(b.name) ? measureBoard(back) : undefined;
    const proof = provePanel([source], layout, back, measured);
    expect(proof.wrong).toEqual([]);
    expect(proof.agrees).toBe(true);
    // by the drawing alone: every hole is drilled once a copy
    const hits = back.files.flatMap((f) => f.drill?.hits ?? []);
    expect(hits.filter((h) => Math.abs(h.diameterMm - 0.3) < 1e-6)).toHaveLength(n * b.at.length);
    // and what reads panels of anybody's finds as many boards
    const profile = back.files.find((f) => f.role === "profile")!;
    const areas = boardsOfPanel(back.files, chainOutline(profile.layer!, profile.path))!;
    expect(areas).toHaveLength(n);
    // each of them known again as this board
    const kinds = kindsOfPieces(back.files, areas)!;
    expect(kinds.map((k) => [k.copies, isBoardOfPiece(k, source.measure.pieces![0]!)])).toEqual([[n, true]]);
    if (!measured) return;
    expect(measured.copies).toBe(n);
    expect(measured.findings.map((f) => f.tag)).toContain("already-panel");
    expect(measured.findings.filter((f) => f.level === "error")).toEqual([]);
  },
);

test("copies with their steps are the same sheet as copies written out", () => {
  const source = sourceOf(MADE[0]!);
  const layout = solved([source.design], spec({ counts: [6] }));
  const name = { name: "r", revision: "A" };
  const out = writePanel([source], layout, name, "r");
  const steps = writePanel([source], layout, name, "r", "step-repeat");
  const size = (w: typeof out) => w.files.reduce((n, f) => n + f.bytes.length, 0);
  expect(size(steps)).toBeLessThan(size(out));
  const text = Buffer.from(steps.files[0]!.bytes).toString();
  expect(text).toMatch(/%SRX2Y3I50J40\*%/);
  expect(provePanel([source], layout, readBack(steps)).agrees).toBe(true);
});

test("planes drawn as their own negative are repeated with their board, edge to edge", () => {
  const source = sourceOf(MADE.find((m) => m.name === "four-layers")!);
  const layout = solved([source.design], spec({ counts: [4], separation: "score", rails: [], turns: [[0]] }));
  const steps = writePanel([source], layout, { name: "p", revision: "A" }, "p", "step-repeat");
  expect(provePanel([source], layout, readBack(steps)).wrong).toEqual([]);
});

test("what makes no grid cannot be repeated: it is written out, and that is said of the board it is", () => {
  const [a, b] = [sourceOf(MADE[0]!), sourceOf(MADE.find((m) => m.name === "ell")!)];
  const layout = solved([a.design, b.design], spec({ counts: [2, 3], turns: [[0], [0, 90, 180, 270]] }));
  const written = writePanel([a, b], layout, { name: "s", revision: "A" }, "s", "step-repeat");
  expect(provePanel([a, b], layout, readBack(written)).wrong).toEqual([]);
  expect(written.findings.filter((f) => f.tag === "step-repeat-impossible")).toMatchObject([
    {
      level: "warning",
      text: expect.stringMatching(/^ell cannot be written once and repeated: its 3 copies/),
    },
  ]);
});

// sheets that once did not prove themselves: found by laying made boards at random
test.each<[string, readonly string[], Partial<PanelSpec>]>([
  ["two rows of perforations in half a millimetre", ["four-layers"], { counts: [2], gapMm: 0.5, rails: [] }],
  [
    "tabs that find the same place",
    ["comb", "tee"],
    { counts: [2, 5], gapMm: 1, rails: ["left"], tabMm: 8, turns: [[0, 180], [0]], maxWidthMm: 200 },
  ],
  [
    "a rail that no tab reaches from where others stand",
    ["comb"],
    {
      counts: [1],
      gapMm: 1,
      rails: ["top", "bottom"],
      railMm: 3,
      tabMm: 8,
      turns: [[0, 180]],
      separation: "auto",
    },
  ],
  [
    "narrow tabs over a wide gap",
    ["tiny"],
    { counts: [5], gapMm: 3, rails: ["top", "bottom"], railMm: 3, tabMm: 1 },
  ],
  [
    "a sliver of frame between boards",
    ["kite", "half-round", "aitch"],
    {
      counts: [5, 4, 3],
      gapMm: 0.5,
      tabMm: 8,
      turns: [
        [0, 90],
        [0, 90],
        [0, 90],
      ],
      maxWidthMm: 300,
    },
  ],
  [
    "tabs beside each other",
    ["hexagon"],
    { counts: [8], gapMm: 0.5, tabMm: 1, rails: ["left"], turns: [[30]], maxWidthMm: 300 },
  ],
  ["one rail beside scores", ["wedge"], { counts: ["fill"], separation: "mixed", rails: ["left"], tabMm: 1 }],
])("%s: the sheet proves itself, or is refused with its reason", (_, names, more) => {
  const sources = names.map((n) => sourceOf(MADE.find((m) => m.name === n)!));
  const made = solvePanel(
    sources.map((s) => s.design),
    spec({ separation: "tabs", ...more }),
  );
  if (isRefusal(made)) {
    expect(made).toMatchObject({ tag: expect.any(String), do: expect.any(String) });
    return;
  }
  const written = writePanel(sources, made, { name: "f", revision: "A" }, "f");
  expect(provePanel(sources, made, readBack(written)).wrong).toEqual([]);
});

test("two designs on one sheet: each as often as asked, and every copy proven against its own board", () => {
  const [a, b] = [sourceOf(MADE[0]!), sourceOf(MADE.find((m) => m.name === "ell")!)];
  const layout = solved(
    [a.design, b.design],
    spec({
      counts: [2, 3],
      turns: [
        [0, 90],
        [0, 90, 180, 270],
      ],
    }),
  );
  expect(layout.counts).toEqual([2, 3]);
  const back = readBack(writePanel([a, b], layout, { name: "set", revision: "A" }, "set"));
  expect(provePanel([a, b], layout, back, measureBoard(back)).wrong).toEqual([]);
});

test("a board turned by any angle is proven too", () => {
  const source = sourceOf(MADE.find((m) => m.name === "ell")!);
  const layout = solved([source.design], spec({ counts: [2], turns: [[30]] }));
  expect(layout.places.map((p) => p.turnDeg % 180)).toEqual([30, 30]);
  const back = readBack(writePanel([source], layout, { name: "t", revision: "A" }, "t"));
  expect(provePanel([source], layout, back).wrong).toEqual([]);
});

test("what lies over a board's edge is not drawn on its neighbour, and that is said", () => {
  const source = sourceOf(MADE.find((m) => m.name === "inked-over")!);
  const layout = solved([source.design], spec({ counts: [4] }));
  const written = writePanel([source], layout, { name: "i", revision: "A" }, "i");
  expect(written.findings).toEqual([
    expect.objectContaining({ tag: "drawn-over-edge", text: expect.stringContaining("1 object reach") }),
  ]);
});

/** A file of a sheet changed as something might go wrong. */
const tampered = (
  written: ReturnType<typeof writePanel>,
  path: RegExp,
  change: (text: string) => string,
): ReturnType<typeof writePanel> => ({
  ...written,
  files: written.files.map((f) => {
    if (!path.test(f.path)) return f;
    const before = Buffer.from(f.bytes).toString("latin1");
    const after = change(before);
    expect(after).not.toBe(before);
    return { ...f, bytes: new Uint8Array(Buffer.from(after, "latin1")) };
  }),
});

test.each([
  [
    "a pad is missing",
    /copper-top/,
    (t: string) => t.replace(/X\d+Y\d+D03\*\n/, ""),
    /^copper top: copies as the board: the sheet has 3, the boards make 4\. copper top, copy \d: .*flashes: the sheet has 15, the boards make 16/,
  ],
  [
    "a track is moved by two micrometres",
    /copper-top/,
    (t: string) => t.replace(/(X\d+)(Y\d+D01\*)/, (_, x, y) => `X${Number(x.slice(1)) + 2000}${y}`),
    /^copper top: copies as the board: the sheet has 3, the boards make 4\. copper top, copy \d: it is painted otherwise than the board\.$/,
  ],
  [
    "a stamp is larger by four micrometres",
    /copper-top/,
    (t: string) => t.replace("R,0.8X0.4", "R,0.804X0.4"),
    /the sheet has 0, the boards make 4\. copper top, copy 1: it is painted/,
  ],
  [
    "what was cleared is not",
    /copper-bottom/,
    (t: string) => t.replace("%LPC*%\n", ""),
    /^copper bottom: copies as the board: the sheet has 3/,
  ],
  [
    "something lies on a board besides",
    /mask-top/,
    (t: string) =>
      t.replace(
        /(X\d+Y\d+)(D03\*\n)/,
        (m, p) => `${m}${p.replace(/X(\d+)/, (_: string, v: string) => `X${Number(v) + 900000}`)}D03*\n`,
      ),
    /mask top: flashes: the sheet has 9, the boards make 8/,
  ],
  [
    "a layer is missing",
    /paste-top/,
    (t: string) => t.replaceAll("D03*", "D02*"),
    /paste top: flashes: the sheet has 0, the boards make 8/,
  ],
  [
    "a hole is missing",
    /unplated/,
    (t: string) => t.replace(/X[\d.]+Y[\d.]+\n/, ""),
    /^holes: the sheet has 179, the boards make 180\. perforations: the sheet has 167, the boards make 168\.$/,
  ],
  [
    "a via is elsewhere",
    /-plated/,
    (t: string) => t.replace(/X(\d+)\.(\d+)Y/, (_, a, b) => `X${Number(a) + 1}.${b}Y`),
    /^A hole of 0\.3 mm of copy 1 is missing\.$/,
  ],
  [
    "a gap is not milled through",
    /profile/,
    (t: string) =>
      t.replace(/(D02\*\n(?:X-?\d+Y-?\d+D01\*\n)+)X-?\d+Y-?\d+D02\*\n(?:X-?\d+Y-?\d+D01\*\n)+/, "$1"),
    /^area of the sheet without what is milled, mm²: the sheet has 8770\.5, the boards make 8749\.4\.$/,
  ],
  [
    "the outline is open",
    /profile/,
    (t: string) => t.replace(/X-?\d+Y-?\d+D01\*\n(?=M02)/, ""),
    /^The sheet's outline, read back: Ends of the outline 0\.063 mm apart were joined\.$/,
  ],
  [
    "what is milled inside does not close",
    /profile/,
    (t: string) => t.replace(/(?:X-?\d+Y-?\d+D01\*\n){12}(?=M02)/, ""),
    /A cut-out does not close/,
  ],
  [
    "the outline is wide open",
    /profile/,
    (t: string) => t.replace("X0Y118000000D01*\nX0Y0D01*\n", "X0Y118000000D01*\nX0Y0D02*\n"),
    /^The sheet's outline does not close when it is read back\.$/,
  ],
  [
    "perforations are wider",
    /unplated/,
    (t: string) => t.replace(/C0\.5(0*)\n/, "C0.6$1\n"),
    /^perforations: the sheet has 0, the boards make 168\.$/,
  ],
  [
    // from the rail across a board: it begins beside every board
    "a stroke of the rail reaches over a board",
    /legend-top|silk/,
    (t: string) => t.replace("M02*", "X1000000Y1000000D02*\nX60000000Y16000000D01*\nM02*"),
    /copy \d: something of the rails lies on it/,
  ],
  [
    "a mark of the rail lies on a board",
    /copper-top/,
    (t: string) => t.replace("M02*", "X20000000Y20000000D02*\nX20100000Y20100000D01*\nM02*"),
    /^copper top: copies as the board: the sheet has 3/,
  ],
] as const)("the proof fails where %s", (_, path, change, says) => {
  const source = sourceOf(MADE[1]!);
  const layout = solved([source.design], spec({ counts: [4], separation: "tabs" }));
  const written = writePanel([source], layout, { name: "s", revision: "A" }, "s");
  expect(provePanel([source], layout, readBack(written)).agrees).toBe(true);
  const proof = provePanel([source], layout, readBack(tampered(written, path, change)));
  expect(proof.agrees).toBe(false);
  expect(proof.wrong.map((w) => w.text).join(" ")).toMatch(says);
});

test.each(["ell", "comb", "star", "rectangle"])(
  "%s: a larger sheet never holds fewer, and the sheet on its side holds as many",
  (name) => {
    const { design } = sourceOf(MADE.find((m) => m.name === name)!);
    let before = 0;
    for (const [w, h] of [
      [120, 90],
      [150, 120],
      [200, 150],
    ] as const) {
      const many = solved([design], spec({ counts: ["fill"], maxWidthMm: w, maxHeightMm: h }));
      const onSide = solved([design], spec({ counts: ["fill"], maxWidthMm: h, maxHeightMm: w }));
      expect(many.counts[0]).toBeGreaterThanOrEqual(before);
      expect(onSide.counts[0]).toBe(many.counts[0]);
      expect(Math.max(many.widthMm, many.heightMm)).toBeLessThanOrEqual(w);
      before = many.counts[0]!;
    }
  },
);

test("interlocked, an outline fills more than its boxes do", () => {
  // triangles 40 × 34 with gaps of 2 in 186 × 126: boxes make four columns and three rows
  const { design } = sourceOf(MADE.find((m) => m.name === "triangle")!);
  const boxes = Math.floor((186 + 2) / 42) * Math.floor((126 + 2) / 36);
  expect(boxes).toBe(12);
  const s = spec({ counts: ["fill"], maxWidthMm: 186 + 18, maxHeightMm: 126 + 18 });
  // head to tail each column takes about half the width: seven in a row
  expect(solved([design], s).counts[0]).toBeGreaterThanOrEqual(18);
});

test("tabs keep off what may not be cut, by the distance it asks for", () => {
  const { design } = sourceOf(MADE[0]!);
  const bans = [
    { box: [20, 36, 30, 40] as const, why: "a chip", tabMm: 3 },
    { box: [0, 0, 50, 1] as const, why: "contacts", tabMm: 1 },
  ];
  const layout = solved([{ ...design, bans }], spec({ counts: [4], separation: "tabs" }));
  expect(layout.tabs.length).toBeGreaterThan(0);
  for (const t of layout.tabs)
    for (const copy of t.between) {
      const place = layout.places.find((p) => p.copy === copy);
      if (!place) continue;
      // perforations of this copy's row, back in its own coordinates
      const [l] = laidOut([design], [place]);
      const own = t.at
        .map(([x, y]) => [x - place.xMm, y - place.yMm] as const)
        .filter(([x, y]) => x > -0.1 && y > -0.1 && x < l!.design.box[2] + 0.1 && y < l!.design.box[3] + 0.1);
      if (place.turnDeg === 0 && own.length > 0)
        expect(banAt(bans, own[0]![0], own[0]![1], own.at(-1)![0], own.at(-1)![1])).toBeUndefined();
    }
});

test("in the waste: slots graded around the thickness are milled, squares are bare and open; and the sheet proves itself", () => {
  const source = sourceOf(MADE[0]!);
  const plain = solved([source.design], spec({ counts: [6], separation: "tabs" }));
  const layout = solved(
    [source.design],
    spec({ counts: [6], separation: "tabs", waste: ["gauge", "paste-test"] }),
  );
  expect(layout.waste.map((w) => [w.kind, w.slots.length, w.pads.length])).toEqual([
    ["gauge", 5, 0],
    ["paste-test", 0, 8],
  ]);
  const back = readBack(writePanel([source], layout, { name: "w", revision: "A" }, "w"));
  expect(provePanel([source], layout, back, measureBoard(back)).wrong).toEqual([]);
  // by the files: five more ways milled, of 1.55 to 1.75 mm
  const outlineOf = (set: ReturnType<typeof readBoard>) => {
    const p = set.files.find((f) => f.role === "profile")!;
    return chainOutline(p.layer!, p.path);
  };
  const bare = readBack(writePanel([source], plain, { name: "w", revision: "A" }, "w"));
  expect(outlineOf(back).loops.length - outlineOf(bare).loops.length).toBe(5);
  const narrow = outlineOf(back).loops.map((l) => Math.min(l.box[2] - l.box[0], l.box[3] - l.box[1]));
  for (const w of [1.55, 1.6, 1.65, 1.7, 1.75]) expect(narrow.some((n) => Math.abs(n - w) < 1e-4)).toBe(true);
  // without rails there is no room, and that is said
  const none = solved(
    [source.design],
    spec({ counts: [6], separation: "tabs", rails: [], waste: ["gauge", "practice"] }),
  );
  expect(none.waste).toEqual([]);
  expect(none.findings.filter((f) => f.tag === "no-room-in-waste")).toHaveLength(2);
});

test.each([
  ["left", "right"],
  ["top", "bottom"],
] as const)(
  "labels in the waste of rails %s and %s stand upon their places, reading from there to the right or upward",
  (...rails) => {
    const source = sourceOf(MADE[0]!);
    const layout = solved(
      [source.design],
      spec({ counts: [6], separation: "tabs", rails, waste: ["gauge", "paste-test"] }),
    );
    const back = readBack(writePanel([source], layout, { name: "w", revision: "A" }, "w"));
    expect(new Set(layout.waste.flatMap((w) => w.labels.map((l) => l.isUpright)))).toEqual(
      new Set([rails[0] === "left"]),
    );
    const strokes = back.files
      .filter((f) => f.role === "legend" && f.side === "top")
      .flatMap(({ layer: l }) =>
        Array.from({ length: l!.n }, (_, i) => [...l!.geo.subarray(6 * i, 6 * i + 4)]).filter(
          (_, i) => Math.abs((l!.apertures[l!.aperture[i]!]?.circleMm ?? 0) - 0.12) < 1e-6,
        ),
      );
    const fields = layout.waste
      .flatMap((w) => w.labels)
      .map((l): readonly number[] => {
        const long = l.text.length * l.mm;
        return l.isUpright ? [l.x - l.mm, l.y, l.x, l.y + long] : [l.x, l.y, l.x + long, l.y + l.mm];
      });
    const lies = ([x1, y1, x2, y2]: readonly number[], [a, b, c, d]: readonly number[]) =>
      Math.min(x1!, x2!) > a! - 0.01 &&
      Math.min(y1!, y2!) > b! - 0.01 &&
      Math.max(x1!, x2!) < c! + 0.01 &&
      Math.max(y1!, y2!) < d! + 0.01;
    expect(fields.length).toBeGreaterThan(4);
    expect(strokes.filter((g) => !fields.some((f) => lies(g, f)))).toEqual([]);
    expect(fields.filter((f) => !strokes.some((g) => lies(g, f)))).toEqual([]);
  },
);

test("counts that are proposed in the place of one that does not go do go, and one more of a kind than asked is not proposed", () => {
  const chosen = ["rectangle", "ell", "disc", "comb", "kite", "star"].map(
    (name) => sourceOf(MADE.find((m) => m.name === name)!).design,
  );
  let proposed = 0;
  for (const design of chosen)
    for (const [w, h] of [
      [100, 80],
      [150, 120],
      [200, 150],
    ].slice(0, often(2, 3)) as [number, number][])
      for (const separation of ["auto", "tabs", "score"] as const) {
        const wish = spec({ counts: [40], maxWidthMm: w, maxHeightMm: h, separation });
        const made = solvePanel([design], wish);
        if (!isRefusal(made)) continue;
        for (const n of made.nearest) {
          proposed++;
          const other = solvePanel([design], { ...wish, counts: [n] });
          expect([design.name, w, separation, isRefusal(other) ? other.reason : other.counts]).toEqual([
            design.name,
            w,
            separation,
            [n],
          ]);
        }
      }
  expect(proposed).toBeGreaterThan(10);
});
