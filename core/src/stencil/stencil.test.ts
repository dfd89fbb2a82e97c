import { expect, test } from "@jest/globals";
import type { KnownPin } from "../board/pins.ts";
import { readLayer } from "../gerber/read.ts";
import { plainBytes } from "../gerber/write.ts";
import { type CorrectionWishes, correctOpenings } from "./correct.ts";
import { coverPlan } from "./cover-plan.ts";
import { type FoilWork, foilWork } from "./foil.ts";
import type { FoilOpening } from "./openings.ts";
import { pasteNeed, powderFor } from "./paste.ts";

const nm = (v: number) => Math.round(v * 1e6);
/** Rectangles by middle and sides, flashed as a layout program does. */
const layer = (list: readonly (readonly [x: number, y: number, w: number, h: number])[]) =>
  readLayer(
    plainBytes(
      `%FSLAX46Y46*%\n%MOMM*%\n${list.map(([, , w, h], i) => `%ADD${10 + i}R,${w}X${h}*%\n`).join("")}${list
        .map(([x, y], i) => `D${10 + i}*\nX${nm(x)}Y${nm(y)}D03*\n`)
        .join("")}M02*\n`,
    ),
    "paste.gbr",
  );
const WISHES: CorrectionWishes = { foilMm: 0.12, without: [], isNarrowed: true, isPaned: true };
const work = (
  list: Parameters<typeof layer>[0],
  wishes: Partial<CorrectionWishes> = {},
  pins: readonly KnownPin[] = [],
): FoilWork => foilWork(layer(list), "top", pins, { ...WISHES, ...wishes });
const areas = (w: FoilWork) => w.openings.map((o) => o.cut.rings.length);

/** Two rows of four long pads 0.5 mm apart around a heat pad of 3 × 3 mm: a part of nine pins. */
const ROWS = [0, 1, 2, 3].flatMap((i) => [
  [i * 0.5, 2.5, 0.3, 1.5] as const,
  [i * 0.5, -2.5, 0.3, 1.5] as const,
]);
const PART = [...ROWS, [0.75, 0, 3, 3] as const];
const PINS = PART.map(([x, y], i) => ({ x, y, pin: `U1.${i + 1}` }));

test("openings half a millimetre apart are cut a tenth narrower, about their middle", () => {
  const w = work(ROWS);
  expect(w.openings.map((o) => [o.pitchMm, o.cut.kind])).toEqual(ROWS.map(() => [0.5, "narrowed"]));
  const ring = w.openings[0]!.cut.rings[0]!;
  const xs = ring.filter((_, i) => i % 2 === 0);
  const ys = ring.filter((_, i) => i % 2 === 1);
  expect(
    [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)].map((v) => Number(v.toFixed(6))),
  ).toEqual([-0.135, 0.135, 1.75, 3.25]);
  // EX 2.12: 1.5 × 0.30 through 0.12
  expect(w.openings[0]!.areaRatio).toBeCloseTo(1.0417, 4);
  // as cut: 8 × 0.27 × 1.5
  expect(w.again).toMatchObject({ count: 8, agrees: true });
  expect(w.again.areaMm2).toBeCloseTo(3.24, 6);
});

test("a heat pad becomes four panes with three fifths of it: bars of 0.676 mm between sides of 1.162", () => {
  const w = work(PART, {}, PINS);
  const pad = w.openings.find((o) => o.pin === "U1.9")!;
  expect(pad.cut).toMatchObject({ kind: "panes", because: "heat pad of 3 × 3 mm: 4 panes with 60 % of it" });
  const sides = pad.cut.rings.map((r) => {
    const xs = r.filter((_, i) => i % 2 === 0);
    return Math.max(...xs) - Math.min(...xs);
  });
  for (const s of sides) expect(s).toBeCloseTo(1.1619, 3);
  expect(w.again.areaMm2).toBeCloseTo(3.24 + 5.4, 3);
  expect(areas(work(PART, { isPaned: false }, PINS)).at(-1)).toBe(1);
});

test.each<[string, readonly KnownPin[]]>([
  ["whose part is not told", []],
  ["of a part with two pins, which is a coil and no heat pad", [{ x: 0.75, y: 0, pin: "L1.1" }]],
])("a large opening %s stays as drawn", (_, pins) => {
  expect(work(PART, {}, pins).openings.find((o) => o.widthMm === 3)!.cut.kind).toBe("as drawn");
});

test("parts without paste are left out with their reason; where nobody knows the part nothing is, and it is counted", () => {
  const without = [{ ref: "U1", because: "is not fitted" }];
  const w = work(PART, { without }, PINS);
  expect(w.openings.map((o) => o.cut)).toEqual(
    PART.map(() => ({ kind: "left out", rings: [], because: "U1 is not fitted" })),
  );
  expect([w.again.count, w.unknown, w.grams.cut, w.narrowestMm]).toEqual([0, 0, 0, undefined]);
  const blind = work(PART, { without });
  expect([blind.unknown, blind.openings.some((o) => o.cut.kind === "left out")]).toEqual([9, false]);
});

test("what would not leave the foil any more is left as drawn, and says so", () => {
  // 0.24 × 0.40 at 0.4: 0.204 × 0.40 has 0.0816 / (1.208 × 0.12) = 0.563 through 0.12, 0.675 through 0.10
  const row = [0, 1, 2].map((i) => [i * 0.4, 0, 0.24, 0.4] as const);
  const thick = work(row, { foilMm: 0.12 }).openings[0]!;
  expect([thick.cut.kind, thick.cut.because]).toEqual([
    "as drawn",
    expect.stringMatching(/take a thinner one$/),
  ]);
  expect(work(row, { foilMm: 0.1 }).openings[0]!.cut.kind).toBe("narrowed");
});

test("a foil is held against every opening: what stays, what floods, and which is best", () => {
  const faults = (w: FoilWork) => w.foils.map((f) => [f.foilMm, f.stay, f.flood, f.isBest]);
  // narrowed, pads 0.5 mm apart take 0.12 as well; 0.15 floods them
  expect(faults(work(ROWS))).toEqual([
    [0.1, 0, 0, false],
    [0.12, 0, 0, true],
    [0.15, 0, 8, false],
  ]);
  expect(faults(work(ROWS, { isNarrowed: false }))).toEqual([
    [0.1, 0, 0, true],
    [0.12, 0, 8, false],
    [0.15, 0, 8, false],
  ]);
  // 0.6 mm apart take 0.12 as they are, and 0.65 mm apart take 0.15
  const apart = (mm: number) => work([0, 1, 2].map((i) => [i * mm, 0, 0.35, 1.2] as const));
  expect(faults(apart(0.6)).map((f) => f[2])).toEqual([0, 0, 3]);
  expect(faults(apart(0.65)).map((f) => f[2])).toEqual([0, 0, 0]);
  // alone: EX 2.12, 0.90 × 0.25 has 0.652 through 0.15 and 0.815 through 0.12
  expect(faults(work([[0, 0, 0.25, 0.9]]))).toEqual([
    [0.1, 0, 0, false],
    [0.12, 0, 0, true],
    [0.15, 1, 0, false],
  ]);
  // one that stays in every foil beside it
  expect(
    faults(
      work([
        [0, 0, 0.25, 0.9],
        [5, 5, 0.15, 0.15],
      ]),
    ),
  ).toEqual([
    [0.1, 1, 0, false],
    [0.12, 1, 0, true],
    [0.15, 2, 0, false],
  ]);
  expect(work([[0, 0, 0.25, 0.9]], { foilMm: 0.15 }).openings[0]!.fault).toBe("stays in the foil");
  // long and thin: 0.2 wide through 0.15 is 1.33 of the 1.5 it wants, though its area ratio would do
  expect(work([[0, 0, 0.21, 5]], { foilMm: 0.15 }).openings[0]).toMatchObject({ fault: "stays in the foil" });
});

test("a large pad near a small one is no narrow pitch, and neighbours beyond 1.3 mm are none", () => {
  expect(
    work(
      [
        [0, 0, 2, 2],
        [0.45, 0, 0.2, 0.2],
      ],
      { isNarrowed: true },
    ).openings[0]!.cut.kind,
  ).toBe("as drawn");
  expect(
    work([
      [0, 0, 0.5, 0.5],
      [1.31, 0, 0.5, 0.5],
    ]).openings[0],
  ).not.toHaveProperty("pitchMm");
  expect(
    work([
      [0, 0, 0.5, 0.5],
      [1.29, 0, 0.5, 0.5],
    ]).openings[0]!.pitchMm,
  ).toBeCloseTo(1.29, 9);
});

/** A box of so many by so many about a middle, its longer side along an angle. */
const padAt = (length: number, width: number, deg: number, more: Partial<FoilOpening> = {}): FoilOpening => {
  const [c, s] = [Math.cos((deg * Math.PI) / 180), Math.sin((deg * Math.PI) / 180)];
  const [l, w] = [length / 2, width / 2];
  const ring = [-l, -w, l, -w, l, w, -l, w].flatMap((_, i, r) =>
    i % 2 === 0 ? [5 + r[i]! * c - r[i + 1]! * s, 3 + r[i]! * s + r[i + 1]! * c] : [],
  );
  return {
    x: 5,
    y: 3,
    widthMm: width,
    lengthMm: length,
    areaMm2: length * width,
    perimeterMm: 2 * (length + width),
    rings: [ring],
    along: [c, s],
    pin: "U1.9",
    ...more,
  };
};
/** As many pins of the part beside it. */
const pinsBeside = (n: number) =>
  Array.from({ length: n }, (_, i) => padAt(0.3, 0.2, 0, { pin: `U1.${i + 20}`, x: 50 + i }));
const panesOf = (o: FoilOpening, beside = 6) => correctOpenings([o, ...pinsBeside(beside)], WISHES)[0]!;

test("a heat pad longer than wide has more panes along it, turned by any angle as at none", () => {
  // 3 by 2 panes: bars g of 2g² − 8g + 3.2 = 0, so 0.4508; panes of (4 − 2g)/3 by (2 − g)/2
  for (const deg of [0, 30, 90, 115]) {
    const { kind, rings, because } = panesOf(padAt(4, 2, deg));
    expect([kind, because]).toEqual(["panes", "heat pad of 2 × 4 mm: 6 panes with 60 % of it"]);
    const [c, s] = [Math.cos((deg * Math.PI) / 180), Math.sin((deg * Math.PI) / 180)];
    const boxes = rings.map((r) => {
      const along = r.flatMap((v, i) => (i % 2 === 0 ? [(v - 5) * c + (r[i + 1]! - 3) * s] : []));
      const across = r.flatMap((v, i) => (i % 2 === 0 ? [-(v - 5) * s + (r[i + 1]! - 3) * c] : []));
      return [Math.min(...along), Math.max(...along), Math.min(...across), Math.max(...across)].map(
        (v) => Math.round(v * 1e3) / 1e3 + 0,
      );
    });
    expect(boxes.sort((a, b) => a[0]! - b[0]! || a[2]! - b[2]!)).toEqual([
      [-2, -0.967, -1, -0.225],
      [-2, -0.967, 0.225, 1],
      [-0.516, 0.516, -1, -0.225],
      [-0.516, 0.516, 0.225, 1],
      [0.967, 2, -1, -0.225],
      [0.967, 2, 0.225, 1],
    ]);
  }
});

test("a heat pad is two millimetres wide at least and of a part of seven pins and more; one of two pieces stays as drawn", () => {
  const kind = (o: FoilOpening, beside?: number) => panesOf(o, beside).kind;
  expect([
    kind(padAt(2, 2, 0)),
    kind(padAt(2, 1.999, 0)),
    kind(padAt(3, 3, 0), 5),
    kind(padAt(3, 3, 0), 6),
  ]).toEqual(["panes", "as drawn", "as drawn", "panes"]);
  const two = padAt(3, 3, 0);
  expect(kind({ ...two, rings: [...two.rings, [9, 9, 9.1, 9, 9, 9.1]] })).toBe("as drawn");
  expect(kind({ ...two, rings: [] })).toBe("as drawn");
  const { pin: _, ...unknown } = two;
  expect(kind(unknown)).toBe("as drawn");
});

test("an opening turned by any angle is narrowed across itself", () => {
  const turned = (deg: number) => {
    const [c, s] = [Math.cos((deg * Math.PI) / 180), Math.sin((deg * Math.PI) / 180)];
    const corners = [-0.15, -0.75, 0.15, -0.75, 0.15, 0.75, -0.15, 0.75];
    const areaText = [0, 0.5].map((dx) => {
      const at = [0, 2, 4, 6].map((i) => {
        const [x, y] = [corners[i]! + dx, corners[i + 1]!];
        return `X${nm(x * c - y * s)}Y${nm(x * s + y * c)}`;
      });
      return `G36*\n${at[0]}D02*\n${[...at.slice(1), at[0]].map((a) => `${a}D01*`).join("\n")}\nG37*\n`;
    });
    return readLayer(plainBytes(`%FSLAX46Y46*%\n%MOMM*%\nG01*\n${areaText.join("")}M02*\n`), "t.gbr");
  };
  for (const deg of [0, 30, 77, 90]) {
    const w = foilWork(turned(deg), "bottom", [], WISHES);
    expect(w.openings.map((o) => o.cut.kind)).toEqual(["narrowed", "narrowed"]);
    expect(w.again.areaMm2).toBeCloseTo(2 * 0.27 * 1.5, 4);
    expect(w.file).toContain("FileFunction,Paste,Bot*");
  }
});

test("30 boards of 0.05524 g take 17.15 g (worked example), and the syringes that waste least", () => {
  const need = pasteNeed(0.05524, 30, 1, 0.25);
  expect(need.runG).toBeCloseTo(17.15, 2);
  expect(need).toMatchObject({ powder: 3, packs: [{ label: "syringe of 15 g", count: 2 }] });
  expect(pasteNeed(0.05524, 30, 2, 0.25).runG).toBeCloseTo(32.15, 2);
  expect(pasteNeed(0, 30, 1, 0.25)).toMatchObject({ runG: 0, packs: [] });
  expect(pasteNeed(1, 180, 1, 0.25).packs).toEqual([{ label: "pot of 250 g", count: 1 }]);
  const large = pasteNeed(10, 400, 1, 0.25);
  const bought = large.packs.reduce((n, p) => n + p.count * Number(/\d+/.exec(p.label)![0]), 0);
  expect(bought).toBeGreaterThanOrEqual(large.runG);
  expect(bought - large.runG).toBeLessThan(50);
});

test.each([
  [0.225, 3],
  [0.224, 4],
  [0.19, 4],
  [0.125, 5],
  [0.124, undefined],
])("through %d mm goes powder of type %s: five balls wide", (mm, type) => {
  expect(powderFor(mm)).toBe(type);
});

test("a foil as drawn is taped over where nothing is fitted: filled on the map, from below for the bottom", () => {
  const pads = [
    [10, 5, 1, 1],
    [12, 5, 1, 1],
    [30, 5, 1, 1],
    [40, 8, 1, 1],
  ] as const;
  const pins = ["R1.1", "R1.2", "C7.1"].map((pin, i) => ({ x: pads[i]![0], y: pads[i]![1], pin }));
  const w = work(pads, { isNarrowed: false, isPaned: false }, pins);
  const outline = [[0, 0, 50, 0, 50, 20, 0, 20]];
  const plan = (side: "top" | "bottom", without: readonly { ref: string; because: string }[]) =>
    coverPlan("Board", side, w.openings, without, outline, [0, 0, 50, 20]);
  const map = plan("top", [{ ref: "R1", because: "is not fitted" }])!;
  expect(map.areas.map((a) => [a.tone, a.rings.length])).toEqual([
    ["none", 1],
    ["none", 2],
    ["frame", 2],
  ]);
  expect(map.texts).toMatchObject([{ x: 11, text: "R1" }]);
  expect(map.subtitle).toBe("2 of 4 openings, of R1");
  expect(map.notes.slice(0, 2)).toEqual([
    "Not fitted: R1.",
    "Openings whose part the files do not tell: 1. They stay open; look at them.",
  ]);
  const below = plan("bottom", [{ ref: "C7", because: "is soldered by hand" }])!;
  const xs = below.areas[2]!.rings[0]!.filter((_, i) => i % 2 === 0);
  expect([Math.min(...xs), Math.max(...xs)].map((x) => Number(x.toFixed(6)))).toEqual([19.5, 20.5]);
  expect(plan("top", [{ ref: "U9", because: "is not fitted" }])).toBeUndefined();
});
