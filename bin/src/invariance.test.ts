import { expect, test } from "@jest/globals";
import { type Entry, type Measure, measureBoard, readBoard } from "@kobbin/core";
import { DEMO_BOARDS, filesOf } from "@kobbin/demo";

// One board written in other ways: what is measured must not change. Figures of places do, so they are left out.

// a fill of two squares and a bridge of 0.25 beside the board, that there is a narrow place to compare
const BRIDGED = `G36*\n${[
  [0, 0],
  [3, 0],
  [3, 1],
  [4, 1],
  [4, 0],
  [7, 0],
  [7, 3],
  [4, 3],
  [4, 1.25],
  [3, 1.25],
  [3, 3],
  [0, 3],
  [0, 0],
]
  .map(([x, y], i) => `X${(50 + x!) * 1e6}Y${(5 + y!) * 1e6}D0${i ? 1 : 2}*\n`)
  .join("")}G37*\nM02*`;
const files = Object.fromEntries(
  Object.entries(filesOf(DEMO_BOARDS["probe-tail"]!()))
    .filter(([p]) => /\.(gbr|drl)$/.test(p))
    .map(([p, t]) => [p, p.endsWith("copper-top.gbr") ? t.replace("M02*", BRIDGED) : t]),
);
const isLayer = (path: string) => path.endsWith(".gbr");
const measure = (all: Readonly<Record<string, string>>): Measure =>
  measureBoard(
    readBoard(Object.entries(all).map(([path, t]): Entry => ({ path, bytes: new TextEncoder().encode(t) }))),
  );

const KEYS = [
  "minTrackMm",
  "minNeckMm",
  "minSpaceMm",
  "minNetSpaceMm",
  "minHoleMm",
  "minAnnularMm",
  "minCopperToEdgeMm",
  "minDrillToForeignCopperMm",
  "minNpthToCopperMm",
  "minHoleToHoleMm",
  "minHoleToEdgeMm",
  "minMaskWebMm",
  "minMaskExpansionMm",
  "minLegendLineMm",
  "minPitchMm",
] as const;
const base = measure(files);

function expectSame(m: Measure, digits = 4): void {
  for (const k of KEYS) {
    if (base[k] === undefined) expect(m[k]).toBeUndefined();
    else expect([k, Math.abs(m[k]! - base[k]!) < 10 ** -digits * 2]).toEqual([k, true]);
  }
  expect(m.outline!.areaMm2).toBeCloseTo(base.outline!.areaMm2!, 2);
  expect(m.outline!.perimeterMm).toBeCloseTo(base.outline!.perimeterMm!, 2);
  for (const side of ["top", "bottom"])
    expect(m.copperAreaMm2[side]).toBeCloseTo(base.copperAreaMm2[side]!, 1);
  for (const k of [
    "copperIslands",
    "copperFlashes",
    "smdPads",
    "maskOpenings",
    "viaPads",
    "throughHolePads",
  ] as const)
    expect(m[k]).toEqual(base[k]);
  expect(m.holes.map((h) => ({ ...h, diameterMm: Math.round(h.diameterMm * 1e4) / 1e4 }))).toEqual(
    base.holes,
  );
  expect(m.nets!.count).toBe(base.nets!.count);
  expect(m.paste.top!.count).toBe(base.paste.top!.count);
  expect(m.stencil!.top!.byThicknessMm["0.12"]!.minAreaRatio).toBeCloseTo(
    base.stencil!.top!.byThicknessMm["0.12"]!.minAreaRatio,
    3,
  );
}

const change = (layer: (t: string, path: string) => string, drill: (t: string) => string = (t) => t) =>
  Object.fromEntries(Object.entries(files).map(([p, t]) => [p, isLayer(p) ? layer(t, p) : drill(t)]));
const xy = (t: string, f: (x: number, y: number) => [number, number]) =>
  t.replace(/X(-?[\d.]+)Y(-?[\d.]+)/g, (_, x, y) => {
    const [u, v] = f(Number(x), Number(y));
    return `X${u.toFixed(4)}Y${v.toFixed(4)}`;
  });
const afterUnit = (t: string, words: string) => t.replace(/%MOMM\*%/, `%MOMM*%\n${words}`);

test("the base says something of every key that is compared", () => {
  expect(KEYS.filter((k) => base[k] === undefined)).toEqual([]);
});

test("other names and folders, another order of the files", () => {
  const renamed = Object.entries(files)
    .reverse()
    .map(([p, t], i) => [`out/${i}-${p.endsWith(".drl") ? "x.txt" : "y.dat"}`, t] as const);
  expectSame(measure(Object.fromEntries(renamed)));
});

test("turned by a quarter", () => {
  const m = measure(
    change(
      (t) => afterUnit(t, "%IR90*%"),
      (t) => xy(t, (x, y) => [-y, x]),
    ),
  );
  expectSame(m);
  expect([m.outline!.widthMm, m.outline!.heightMm]).toEqual([base.outline!.heightMm, base.outline!.widthMm]);
});

test("mirrored", () =>
  expectSame(
    measure(
      change(
        (t) => afterUnit(t, "%MIA1B0*%"),
        (t) => xy(t, (x, y) => [-x, y]),
      ),
    ),
  ));

test("moved far from the origin: every figure is the same, and every place goes with it", () => {
  const [dx, dy] = [100, 250];
  const moved = measure(
    change(
      (t) => afterUnit(t, `%OFA${dx}B${dy}*%`),
      (t) => xy(t, (x, y) => [x + dx, y + dy]),
    ),
  );
  expectSame(moved);
  // everything of a measure that has a place, by where it stands in it; of a list in no order, and not of one that is cut
  const places = (m: Measure): Map<string, [number, number][]> => {
    const out = new Map<string, [number, number][]>();
    const walk = (v: unknown, path: string) => {
      if (typeof v !== "object" || v === null || (Array.isArray(v) && v.length >= 20)) return;
      const { x, y } = v as { x?: unknown; y?: unknown };
      if (typeof x === "number" && typeof y === "number") out.set(path, [...(out.get(path) ?? []), [x, y]]);
      for (const [k, w] of Object.entries(v)) walk(w, Array.isArray(v) ? path : `${path}.${k}`);
    };
    walk(m, "");
    return out;
  };
  const [here, there] = [places(base), places(moved)];
  expect([...there.keys()].sort()).toEqual([...here.keys()].sort());
  expect([...here.values()].flat().length).toBeGreaterThan(50);
  for (const [path, list] of here) {
    const gone = list.filter(
      ([x, y]) => !there.get(path)!.some(([u, v]) => Math.hypot(u - x - dx, v - y - dy) < 0.03),
    );
    // of places that are equally bad which is told may hang on a rounding
    expect([path, gone.length <= list.length / 4]).toEqual([path, true]);
  }
});

test("a drill file of whole numbers, zeros kept at the end, in micrometres", () =>
  expectSame(
    measure(
      change(
        (t) => t,
        (t) =>
          t
            .replace(/^METRIC.*$/m, "METRIC,TZ")
            .replace(/([XY])(-?[\d.]+)/g, (_, c, v) => `${c}${Math.round(Number(v) * 1000)}`),
      ),
    ),
    3,
  ));

test("a drill file in inches", () =>
  expectSame(
    measure(
      change(
        (t) => t,
        (t) =>
          t
            .replace(/^METRIC.*$/m, "INCH")
            .replace(/([XY])(-?[\d.]+)/g, (_, c, v) => `${c}${(Number(v) / 25.4).toFixed(6)}`)
            .replace(/^(T\d+)C([\d.]+)/gm, (_, n, d) => `${n}C${(Number(d) / 25.4).toFixed(7)}`),
      ),
    ),
  ));

test("every straight stroke outside of fills drawn in two halves", () => {
  const halve = (t: string) => {
    let inFill = false;
    let isStraight = true;
    let [x, y] = [0, 0];
    return t
      .split("\n")
      .flatMap((line) => {
        if (line.includes("G36")) inFill = true;
        if (line.includes("G37")) inFill = false;
        if (/G0?[23]/.test(line)) isStraight = false;
        if (/G0?1(?!\d)/.test(line)) isStraight = true;
        const m = /X(-?\d+)Y(-?\d+)(?:I-?\d+J-?\d+)?D0([123])/.exec(line);
        if (!m) return [line];
        const [nx, ny] = [Number(m[1]), Number(m[2])];
        const half = `G01X${Math.round((x + nx) / 2)}Y${Math.round((y + ny) / 2)}D01*`;
        [x, y] = [nx, ny];
        return m[3] === "1" && isStraight && !inFill ? [half, line] : [line];
      })
      .join("\n");
  };
  // the outline too: joints within a line are no gaps
  expectSame(measure(change(halve)));
});
