import type { Entry } from "../../src/board/board-file.ts";
import { type Chance, chance } from "../random.ts";
import { at, entry } from "../write-board.ts";
import { writeDrill } from "../write-drill.ts";

type Point = readonly [number, number];
interface Hole {
  readonly x: number;
  readonly y: number;
  readonly mm: number;
  readonly isPlated: boolean;
}
interface Pad {
  readonly x: number;
  readonly y: number;
  readonly w: number;
  readonly h: number;
}

/** What a board is, however it is written; what is left out cannot be told from its files. */
export interface TrueBoard {
  readonly widthMm?: number;
  readonly heightMm?: number;
  readonly areaMm2?: number;
  readonly cutouts?: number;
  readonly holes?: readonly Hole[];
  readonly smdPads?: number;
  readonly openings?: number;
  /** No copper is narrower. */
  readonly narrowestMm?: number;
}

/** A board somebody wrote, and what was meant by it. */
export interface WrittenBoard {
  readonly kind: string;
  readonly entries: readonly Entry[];
  readonly truth: TrueBoard;
  /** File that is not as the others are: what is said has to be said of it. */
  readonly culprit?: string;
}

/** A board under way. */
interface Draft {
  readonly w: number;
  readonly h: number;
  readonly holes: Hole[];
  readonly pads: Pad[];
  /** Bodies of layer files in mm, by name; numbers are written at the end. */
  readonly layers: Map<string, Layer>;
  drills: Entry[];
  truth: TrueBoard;
  culprit?: string;
}
/** One layer: its head and its body, each coordinate a function of the scale it is written in. */
interface Layer {
  head: string;
  body: (k: number) => string;
  /** How many times too large every coordinate and size is. */
  scale: number;
}

type Dress = (d: Draft, c: Chance) => void;

const HEAD = "%FSLAX46Y46*%\n%MOMM*%\nG75*\n";
const put = (k: number, x: number, y: number) => at(x * k, y * k);
const line = (k: number, a: Point, b: Point) => `${put(k, ...a)}D02*\nG01${put(k, ...b)}D01*\n`;
const circle = (n: number, mm: number, k: number) => `%ADD${n}C,${(mm * k).toFixed(5)}*%\n`;
const rect = (n: number, w: number, h: number, k: number) =>
  `%ADD${n}R,${(w * k).toFixed(5)}X${(h * k).toFixed(5)}*%\n`;
const dot = (k: number, x: number, y: number) => `${put(k, x, y)}D03*\n`;
const region = (k: number, points: readonly Point[]) =>
  `G36*\n${put(k, ...points[0]!)}D02*\nG01*\n${[...points.slice(1), points[0]!].map((p) => `${put(k, ...p)}D01*\n`).join("")}G37*\n`;

const corners = (x: number, y: number, w: number, h: number): Point[] => [
  [x, y],
  [x + w, y],
  [x + w, y + h],
  [x, y + h],
];
const sides = (points: readonly Point[]): (readonly [Point, Point])[] =>
  points.map((p, i) => [p, points[(i + 1) % points.length]!]);

/** Pads of holes and of parts, grown by so much. */
function padsBody(d: Draft, grown: number, isTop: boolean): (k: number) => string {
  const plated = d.holes.filter((h) => h.isPlated);
  return (k) => {
    const sizes = [...new Set(plated.map((h) => h.mm))];
    return [
      ...sizes.map((mm, i) => circle(20 + i, mm + 0.6 + grown, k)),
      rect(10, 1.2 + grown, 0.9 + grown, k),
      ...sizes.map(
        (mm, i) =>
          `D${20 + i}*\n${plated
            .filter((h) => h.mm === mm)
            .map((h) => dot(k, h.x, h.y))
            .join("")}`,
      ),
      ...(isTop ? [`D10*\n${d.pads.map((p) => dot(k, p.x, p.y)).join("")}`] : []),
    ].join("");
  };
}

const outlineBody =
  (pieces: readonly (readonly [Point, Point])[], mm = 0.1) =>
  (k: number) =>
    `${circle(10, mm, k)}D10*\n${pieces.map(([a, b]) => line(k, a, b)).join("")}`;

function drillFile(name: string, holes: readonly Hole[], c: Chance): Entry {
  return entry(
    name,
    writeDrill(
      holes.map((h) => ({ x: h.x, y: h.y, mm: h.mm })),
      c,
    ).text,
  );
}

/** A drill file in millimetres with decimal points; its tools and head as given. */
function plainDrill(
  name: string,
  holes: readonly Hole[],
  {
    head = "M48\nMETRIC",
    tool = (mm: number) => mm.toFixed(3),
    k = 1,
    note = (_mm: number, _n: number): string => "",
  } = {},
): Entry {
  const sizes = [...new Set(holes.map((h) => h.mm))];
  return entry(
    name,
    [
      head,
      ...sizes.map((mm, i) => note(mm, i + 1)).filter((t) => t !== ""),
      ...sizes.flatMap((mm, i) => (tool(mm) === "" ? [] : [`T${i + 1}C${tool(mm)}`])),
      "%",
      ...sizes.flatMap((mm, i) => [
        `T${i + 1}`,
        ...holes.filter((h) => h.mm === mm).map((h) => `X${(h.x * k).toFixed(4)}Y${(h.y * k).toFixed(4)}`),
      ]),
      "M30",
      "",
    ].join("\n"),
  );
}

const plated = (d: Draft) => d.holes.filter((h) => h.isPlated);
const bare = (d: Draft) => d.holes.filter((h) => !h.isPlated);
const withDrills = (d: Draft, made: (name: string, holes: readonly Hole[]) => Entry) => {
  d.drills = [made("b-pth.drl", plated(d)), made("b-npth.drl", bare(d))];
};

/** A frame with a title block about a board, as drawings have it. */
const frame = (d: Draft): (readonly [Point, Point])[] => [
  ...sides(corners(-25, -45, d.w + 50, d.h + 70)),
  ...sides(corners(d.w - 30, -45, 55, 18)),
  [
    [d.w - 30, -36],
    [d.w + 25, -36],
  ],
];

export const BOARD_DRESSES: Readonly<Record<string, Dress>> = {
  "holes in one of the dialects": () => {},
  "holes whose tools are in inches under a head in millimetres": (d) =>
    withDrills(d, (name, holes) => plainDrill(name, holes, { tool: (mm) => (mm / 25.4).toFixed(4) })),
  "holes whose tools are in mil": (d) =>
    withDrills(d, (name, holes) =>
      plainDrill(name, holes, { head: "M48\nINCH", k: 1 / 25.4, tool: (mm) => (mm / 0.0254).toFixed(1) }),
    ),
  "holes whose tools are in micrometres": (d) =>
    withDrills(d, (name, holes) => plainDrill(name, holes, { tool: (mm) => (mm * 1000).toFixed(0) })),
  "holes whose tools stand in remarks": (d, c) => {
    const as = c.pick([
      (mm: number, n: number) => `; T${n} = ${mm.toFixed(3)} mm`,
      (mm: number, n: number) => `;TOOL ${n} DIAMETER ${mm.toFixed(3)} MM`,
      (mm: number, n: number) => `; T0${n} ${mm.toFixed(3)}mm drill`,
    ]);
    withDrills(d, (name, holes) => plainDrill(name, holes, { tool: () => "", note: as }));
  },
  "holes in inches under a head in millimetres": (d) => {
    d.drills = [
      plainDrill("b-pth.drl", plated(d), { k: 1 / 25.4, tool: (mm) => (mm / 25.4).toFixed(4) }),
      plainDrill("b-npth.drl", bare(d)),
    ];
    d.culprit = "b-pth.drl";
  },
  "holes at a tenth of their places": (d) => {
    d.drills = [plainDrill("b-pth.drl", plated(d), { k: 0.1 }), plainDrill("b-npth.drl", bare(d))];
    d.culprit = "b-pth.drl";
  },
  "holes flashed in a layer": (d) => {
    const flashed = (holes: readonly Hole[], kind: string) => ({
      head: `%TF.FileFunction,${kind},1,2,${kind === "Plated" ? "PTH" : "NPTH"}*%\n`,
      body: (k: number) =>
        [...new Set(holes.map((h) => h.mm))]
          .map(
            (mm, i) =>
              `${circle(30 + i, mm, k)}D${30 + i}*\n${holes
                .filter((h) => h.mm === mm)
                .map((h) => dot(k, h.x, h.y))
                .join("")}`,
          )
          .join(""),
      scale: 1,
    });
    d.drills = [];
    d.layers.set("b-plated.gbr", flashed(plated(d), "Plated"));
    d.layers.set("b-nonplated.gbr", flashed(bare(d), "NonPlated"));
  },
  "an outline whose pieces lie in any order": (d, c) => {
    const pieces = c
      .shuffled(
        sides(corners(0, 0, d.w, d.h)).flatMap(([a, b]): (readonly [Point, Point])[] => {
          const m: Point = [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2];
          return [
            [a, m],
            [m, b],
          ];
        }),
      )
      .map(([a, b]) => (c.is(0.5) ? ([b, a] as const) : ([a, b] as const)));
    d.layers.get("b.gko")!.body = outlineBody(pieces);
  },
  "an outline drawn twice": (d, c) => {
    const once = sides(corners(0, 0, d.w, d.h));
    d.layers.get("b.gko")!.body = outlineBody(
      c.is(0.5) ? [...once, ...once] : [...once, ...once.map(([a, b]) => [b, a] as const)],
    );
  },
  "an outline drawn with overlapping lines": (d) => {
    const pieces = sides(corners(0, 0, d.w, d.h)).flatMap(([a, b]): (readonly [Point, Point])[] => {
      const p = (t: number): Point => [a[0] + (b[0] - a[0]) * t, a[1] + (b[1] - a[1]) * t];
      return [
        [a, p(0.6)],
        [p(0.4), b],
      ];
    });
    d.layers.get("b.gko")!.body = outlineBody(pieces);
  },
  "an outline as an area": (d) => {
    d.layers.get("b.gko")!.body = (k) => region(k, corners(0, 0, d.w, d.h));
  },
  "an outline flashed": (d) => {
    d.layers.get("b.gko")!.body = (k) => `${rect(10, d.w, d.h, k)}D10*\n${dot(k, d.w / 2, d.h / 2)}`;
  },
  "an outline with round corners": (d) => {
    const r = 3;
    d.layers.get("b.gko")!.body = (k) =>
      `${circle(10, 0.1, k)}D10*\n${put(k, r, 0)}D02*\nG01${put(k, d.w - r, 0)}D01*\nG03${put(k, d.w, r)}I0J${Math.round(r * k * 1e6)}D01*\nG01${put(k, d.w, d.h - r)}D01*\nG03${put(k, d.w - r, d.h)}I${-Math.round(r * k * 1e6)}J0D01*\nG01${put(k, r, d.h)}D01*\nG03${put(k, 0, d.h - r)}I0J${-Math.round(r * k * 1e6)}D01*\nG01${put(k, 0, r)}D01*\nG03${put(k, r, 0)}I${Math.round(r * k * 1e6)}J0D01*\n`;
    d.truth = { ...d.truth, areaMm2: d.w * d.h - (4 - Math.PI) * r * r };
  },
  "an outline with cut-outs": (d) => {
    const hole = corners(d.w / 2 - 4, 3, 8, 3);
    d.layers.get("b.gko")!.body = outlineBody([...sides(corners(0, 0, d.w, d.h)), ...sides(hole)]);
    d.truth = { ...d.truth, cutouts: 1, areaMm2: d.w * d.h - 24 };
  },
  "an outline in a drawing's frame": (d) => {
    d.layers.get("b.gko")!.body = outlineBody([...sides(corners(0, 0, d.w, d.h)), ...frame(d)]);
    d.truth = { ...d.truth, cutouts: 0 };
  },
  "an outline with its dimensions": (d, c) => {
    const y = -6;
    const more: (readonly [Point, Point])[] = [
      [
        [0, y],
        [d.w, y],
      ],
      [
        [0, -1],
        [0, y - 1],
      ],
      [
        [d.w, -1],
        [d.w, y - 1],
      ],
      ...(c.is(0.5) ? sides(corners(d.w / 2 - 3, y - 4, 2, 3)) : []),
    ];
    d.layers.get("b.gko")!.body = outlineBody([...sides(corners(0, 0, d.w, d.h)), ...more]);
    d.truth = { ...d.truth, cutouts: 0 };
  },
  "an outline as a cutter's path": (d) => {
    // the middle of a cutter of two millimetres, outside of the board
    d.layers.get("b.gko")!.body = outlineBody(sides(corners(-1, -1, d.w + 2, d.h + 2)), 2);
    d.culprit = "b.gko";
  },
  "two boards that share a line": (d) => {
    d.layers.get("b.gko")!.body = outlineBody([
      ...sides(corners(0, 0, d.w, d.h)),
      [
        [d.w / 2, 0],
        [d.w / 2, d.h],
      ],
    ]);
    d.culprit = "b.gko";
  },
  "a layer at another scale": (d, c) => {
    const name = c.pick([...d.layers.keys()]);
    // a board twice as large as what is on it may be meant so
    d.layers.get(name)!.scale = c.pick([25.4, 1 / 25.4, 10, 0.1, ...(name === "b.gko" ? [] : [2])]);
    d.culprit = name;
    const { smdPads: _p, openings: _o, ...rest } = d.truth;
    d.truth = name === "b.gko" ? { holes: d.holes } : rest;
  },
  "a layer somewhere else": (d, c) => {
    const name = c.pick(["b.gbl", "b.gts", "b.gbs"]);
    const body = d.layers.get(name)!.body;
    const [dx, dy] = [c.pick([1, 2.54, 100]), c.pick([-1, 0.5, 50])];
    d.layers.get(name)!.body = (k) =>
      body(k).replace(/X(-?\d+)Y(-?\d+)/g, (_, x, y) => at(Number(x) / 1e6 + dx, Number(y) / 1e6 + dy));
    d.culprit = name;
    d.truth = { holes: d.holes };
  },
  "a mask that says it is positive": (d) => {
    d.layers.get("b.gts")!.head = "%TF.FileFunction,Soldermask,Top*%\n%TF.FilePolarity,Positive*%\n";
    d.culprit = "b.gts";
  },
  "pads as areas": (d) => {
    const other = padsBody({ ...d, pads: [] }, 0, false);
    d.layers.get("b.gtl")!.body = (k) =>
      `${other(k)}${d.pads.map((p) => region(k, corners(p.x - 0.6, p.y - 0.45, 1.2, 0.9))).join("")}`;
  },
  "pads as strokes": (d) => {
    const other = padsBody({ ...d, pads: [] }, 0, false);
    d.layers.get("b.gtl")!.body = (k) =>
      `${other(k)}${circle(60, 0.9, k)}D60*\n${d.pads.map((p) => line(k, [p.x - 0.15, p.y], [p.x + 0.15, p.y])).join("")}`;
  },
  "spokes cut from a pour": (d) => {
    const top = d.layers.get("b.gbl")!;
    const body = top.body;
    const holes = plated(d);
    top.body = (k) =>
      `${region(k, corners(1, 1, d.w - 2, d.h - 2))}%LPC*%\n${circle(70, 0.5, k)}D70*\n${bare(d)
        .map((h) => `${circle(71, h.mm + 1, k)}D71*\n${dot(k, h.x, h.y)}`)
        .join("")}D70*\n${holes
        .map((h) => {
          const r = h.mm / 2 + 0.3 + 0.15;
          // four quarter rings, as strokes, leave spokes between them
          return [0, 1, 2, 3]
            .map((q) => {
              const [a, b] = [q * 90 + 20, q * 90 + 70].map((t) => (t * Math.PI) / 180) as [number, number];
              const m = (a + b) / 2;
              const p = (t: number): Point => [h.x + r * Math.cos(t), h.y + r * Math.sin(t)];
              return `${line(k, p(a), p(m))}${line(k, p(m), p(b))}`;
            })
            .join("");
        })
        .join("")}%LPD*%\n${body(k)}`;
    d.truth = { ...d.truth, narrowestMm: 0.12 };
  },
};

/**
 * Ways in which a file says one thing and its neighbours another, each with its reason: it goes to a house as it is, which
 * reads what it says, so telling it, of the file that is odd, is what is right.
 */
export const BOARD_UNDECIDED: Readonly<Record<string, string>> = {
  "holes in inches under a head in millimetres": "a house drills what the head says",
  "holes at a tenth of their places": "a house drills where the file says",
  "an outline as a cutter's path": "the board ends at either side of the path, or at its middle",
  "two boards that share a line": "one board with a score, or two boards: both are ordered",
  "a layer at another scale": "a house makes it as it is drawn",
  "a layer somewhere else": "a house makes it where it is drawn, or moves it",
  "a mask that says it is positive": "its pads say openings and its head says mask",
};

function draftOf(c: Chance): Draft {
  const [w, h] = [40 + 2 * c.below(20), 30 + 2 * c.below(15)];
  const holes: Hole[] = [];
  const isFree = (x: number, y: number) => holes.every((o) => Math.hypot(o.x - x, o.y - y) > 5);
  for (const [x, y] of [
    [5.08, 5.08],
    [Math.floor((w - 5) / 2.54) * 2.54, 5.08],
  ] as const)
    holes.push({ x, y, mm: 3.2, isPlated: false });
  const sizes = c.shuffled([0.6, 0.8, 0.9, 1, 1.2]).slice(0, 1 + c.below(2));
  for (let i = 0; i < 40 && holes.length < 14; i++) {
    const x = (4 + c.below(Math.floor(w / 2.54) - 7)) * 2.54;
    const y = (4 + c.below(Math.floor(h / 2.54) - 7)) * 2.54;
    if (isFree(x, y)) holes.push({ x, y, mm: c.pick(sizes), isPlated: true });
  }
  const pads: Pad[] = [];
  for (let i = 0; i < 60 && pads.length < 12; i++) {
    const [x, y] = [8 + c.below(w - 16), h - 6 - 3 * c.below(2)];
    if (isFree(x, y) && pads.every((p) => Math.hypot(p.x - x, p.y - y) > 2.5))
      pads.push({ x, y, w: 1.2, h: 0.9 });
  }
  const d: Draft = { w, h, holes, pads, layers: new Map(), drills: [], truth: {} };
  const layer = (body: (k: number) => string): Layer => ({ head: "", body, scale: 1 });
  d.layers.set("b.gtl", layer(padsBody(d, 0, true)));
  d.layers.set("b.gbl", layer(padsBody(d, 0, false)));
  d.layers.set("b.gts", layer(padsBody(d, 0.1, true)));
  d.layers.set("b.gbs", layer(padsBody(d, 0.1, false)));
  d.layers.set("b.gko", layer(outlineBody(sides(corners(0, 0, w, h)))));
  withDrills(d, (name, list) => drillFile(name, list, c));
  d.truth = {
    widthMm: w,
    heightMm: h,
    areaMm2: w * h,
    cutouts: 0,
    holes,
    smdPads: pads.length,
    openings: pads.length + holes.filter((o) => o.isPlated).length,
  };
  return d;
}

/** A board of a seed and a number. */
export function writtenBoard(seed: number, n: number): WrittenBoard {
  const c = chance(seed * 1_000_003 + n);
  const kinds = Object.keys(BOARD_DRESSES);
  const kind = kinds[n % kinds.length]!;
  const d = draftOf(c);
  BOARD_DRESSES[kind]!(d, c);
  return {
    kind,
    entries: [
      ...[...d.layers].map(([name, l]) => entry(name, `${HEAD}${l.head}${l.body(l.scale)}M02*\n`)),
      ...d.drills,
    ],
    truth: d.truth,
    ...(d.culprit ? { culprit: d.culprit } : {}),
  };
}
