import type { Entry } from "../board/board-file.ts";
import { plainBytes } from "../gerber/write.ts";

/** A corner, or an arc to it about a middle (counter-clockwise). */
type Corner = readonly [x: number, y: number] | readonly [x: number, y: number, cx: number, cy: number];

/** A small board drawn for tests: its edge, a place inside it, and what makes it odd. */
export interface MadeBoard {
  readonly name: string;
  readonly corners: readonly Corner[];
  /** Places at least 1.5 mm inside. */
  readonly at: readonly (readonly [number, number])[];
  readonly layers?: 1 | 2 | 4;
  readonly isInch?: boolean;
  readonly cutout?: readonly (readonly [number, number])[];
  readonly slot?: readonly [number, number, number, number];
  /** Ink that lies over the edge. */
  readonly overInk?: boolean;
  readonly isOffset?: boolean;
}

const nm = (mm: number) => Math.round(mm * 1e6);
const X = (x: number, y: number) => `X${nm(x)}Y${nm(y)}`;
const head = (fn: string, polarity = "Positive", inch = false) =>
  `%TF.FileFunction,${fn}*%\n%TF.FilePolarity,${polarity}*%\n%FSLAX46Y46*%\n${inch ? "%MOIN*%" : "%MOMM*%"}\nG75*\nG01*\n`;

/** A layer in another unit: the same places, counted in inches. */
const inches = (text: string) =>
  text
    .replace("%MOMM*%", "%MOIN*%")
    .replace(/([XYIJ])(-?\d+)/g, (_, a: string, v: string) => `${a}${Math.round(Number(v) / 25.4)}`)
    .replace(
      /%ADD(\d+)([CRO]),([\d.]+)(?:X([\d.]+))?\*%/g,
      (_, d: string, t: string, a: string, b?: string) =>
        `%ADD${d}${t},${(Number(a) / 25.4).toFixed(7)}${b ? `X${(Number(b) / 25.4).toFixed(7)}` : ""}*%`,
    );

function profile(b: MadeBoard): string {
  const lines = [`${head("Profile,NP")}%ADD10C,0.1*%\nD10*`];
  const [first] = b.corners;
  lines.push(`${X(first![0], first![1])}D02*`);
  const rest = [...b.corners.slice(1), first!];
  let [px, py] = [first![0], first![1]];
  for (const c of rest) {
    const [x, y, cx, cy] = c;
    if (cx !== undefined && cy !== undefined)
      lines.push(`G03*\n${X(x, y)}I${nm(cx - px)}J${nm(cy - py)}D01*\nG01*`);
    else lines.push(`${X(x, y)}D01*`);
    [px, py] = [x, y];
  }
  if (b.cutout) {
    lines.push(`${X(...b.cutout[0]!)}D02*`);
    for (const c of [...b.cutout.slice(1), b.cutout[0]!]) lines.push(`${X(...c)}D01*`);
  }
  return `${lines.join("\n")}\nM02*\n`;
}

/** Pads of every kind of stamp, a track, an arc, an area with something cleared out of it. */
function copper(b: MadeBoard, fn: string, isTop: boolean): string {
  const lines = [
    head(fn),
    "%AMTILT*4,1,4,-0.5,-0.2,0.5,-0.2,0.3,0.2,-0.5,0.2,-0.5,-0.2,30*%",
    "%ADD10C,0.2*%\n%ADD11R,0.8X0.4*%\n%ADD12O,0.5X0.9*%\n%ADD13TILT*%\n%ADD14C,0.7*%",
  ];
  b.at.forEach(([x, y], i) => {
    lines.push(`D14*\n${X(x, y)}D03*`);
    if (!isTop) return;
    lines.push(`D${11 + (i % 3)}*\n${X(x + 0.9, y)}D03*`);
    lines.push(`D10*\n${X(x, y)}D02*\n${X(x + 0.9, y)}D01*`);
    // a stroke of a stamp that may not draw: readers take it, writers must not
    if (i === 0) lines.push(`D11*\n${X(x - 0.3, y - 0.7)}D02*\n${X(x + 0.2, y - 0.7)}D01*\nD10*`);
    if (i === 0) lines.push(`${X(x - 0.6, y)}D02*\nG03*\n${X(x, y + 0.6)}I600000J0D01*\nG01*`);
  });
  const [x, y] = b.at[0]!;
  if (!isTop)
    lines.push(
      `G36*\n${X(x - 1, y - 1)}D02*\n${X(x + 1, y - 1)}D01*\n${X(x + 1, y + 1)}D01*\n${X(x - 1, y + 1)}D01*\n${X(x - 1, y - 1)}D01*\nG37*`,
      `%LPC*%\nD14*\n${X(x + 0.3, y + 0.3)}D03*\n%LPD*%\nD10*\n${X(x - 0.2, y - 0.2)}D02*\n${X(x + 0.3, y + 0.3)}D01*`,
    );
  lines.push("M02*", "");
  return lines.join("\n");
}

const flashes = (b: MadeBoard, fn: string, polarity: string, stamp: string) =>
  `${head(fn, polarity)}%ADD10${stamp}*%\nD10*\n${b.at.map(([x, y]) => `${X(x, y)}D03*`).join("\n")}\nM02*\n`;

/** A plane drawn as its own negative: what is drawn is taken away. */
const plane = (b: MadeBoard, fn: string) =>
  `${head(fn, "Negative")}%ADD10C,1.1*%\nD10*\n${b.at.map(([x, y]) => `${X(x, y)}D03*`).join("\n")}\nM02*\n`;

function drill(b: MadeBoard): string {
  const holes = b.at.map(([x, y]) => `X${x.toFixed(3)}Y${y.toFixed(3)}`).join("\n");
  return `M48\n; #@! TF.FileFunction,Plated,1,${b.layers ?? 2},PTH\nMETRIC\nT01C0.300\n%\nG05\nT01\n${holes}\nM30\n`;
}

function unplated(b: MadeBoard): string {
  const [x1, y1, x2, y2] = b.slot!;
  return `M48\n; #@! TF.FileFunction,NonPlated,1,${b.layers ?? 2},NPTH\nMETRIC\nT01C1.000\n%\nG05\nT01\nG00X${x1}Y${y1}\nM15\nG01X${x2}Y${y2}\nM16\nG05\nM30\n`;
}

/** The board's files as a layout program would write them. */
export function entriesOf(b: MadeBoard): Entry[] {
  const n = b.layers ?? 2;
  const text: Record<string, string> = {
    [`${b.name}-profile.gbr`]: profile(b),
    [`${b.name}-top.gbr`]: copper(b, "Copper,L1,Top", true),
  };
  if (n > 1) text[`${b.name}-bottom.gbr`] = copper(b, `Copper,L${n},Bot`, false);
  if (n === 4) {
    text[`${b.name}-in1.gbr`] = copper(b, "Copper,L2,Inr", false);
    text[`${b.name}-in2.gbr`] = plane(b, "Copper,L3,Inr");
  }
  text[`${b.name}-mask.gbr`] = flashes(b, "Soldermask,Top", "Negative", "C,0.9");
  text[`${b.name}-paste.gbr`] = flashes(b, "Paste,Top", "Positive", "R,0.6X0.3");
  const [x, y] = b.at[0]!;
  const [ex, ey] = b.corners[0]!;
  text[`${b.name}-ink.gbr`] =
    `${head("Legend,Top")}%ADD10C,0.15*%\nD10*\n${X(x - 0.5, y + 0.8)}D02*\n${X(x + 0.5, y + 0.8)}D01*\n${b.overInk ? `${X(x, y)}D02*\n${X(2 * ex - x, 2 * ey - y)}D01*\n` : ""}M02*\n`;
  text[`${b.name}-plated.drl`] = drill(b);
  if (b.slot) text[`${b.name}-unplated.drl`] = unplated(b);
  return Object.entries(text).map(([path, t]) => ({
    path,
    bytes: plainBytes(b.isInch && path.endsWith(".gbr") ? inches(t) : t),
  }));
}

const rect = (w: number, h: number, x = 0, y = 0): Corner[] => [
  [x, y],
  [x + w, y],
  [x + w, y + h],
  [x, y + h],
];
const polygon = (n: number, r: number, turn = 0): Corner[] =>
  Array.from({ length: n }, (_, i) => {
    const a = turn + (2 * Math.PI * i) / n;
    return [r * Math.cos(a), r * Math.sin(a)] as const;
  });
const star = (n: number, r: number, q: number): Corner[] =>
  Array.from({ length: 2 * n }, (_, i) => {
    const s = i % 2 === 0 ? r : q;
    return [s * Math.cos((Math.PI * i) / n), s * Math.sin((Math.PI * i) / n)] as const;
  });
/** A circle in four quarter arcs. */
const disc = (r: number): Corner[] => [
  [r, 0, 0, 0],
  [0, r, 0, 0],
  [-r, 0, 0, 0],
  [0, -r, 0, 0],
];
const rounded = (w: number, h: number, r: number): Corner[] => [
  [r, 0, r, r],
  [w - r, 0],
  [w, r, w - r, r],
  [w, h - r],
  [w - r, h, w - r, h - r],
  [r, h],
  [0, h - r, r, h - r],
  [0, r],
];

/** Boards of every kind of edge there is, small; numbers are theirs alone. */
export const MADE: readonly MadeBoard[] = [
  {
    name: "rectangle",
    corners: rect(50, 40),
    at: [
      [10, 10],
      [30, 25],
    ],
  },
  {
    name: "strip",
    corners: rect(62, 28),
    at: [
      [10, 10],
      [40, 14],
    ],
  },
  { name: "square", corners: rect(20, 20), at: [[8, 8]] },
  { name: "tiny", corners: rect(8, 6), at: [[3, 3]] },
  {
    name: "needle",
    corners: rect(70, 5),
    at: [
      [10, 2.5],
      [50, 2.5],
    ],
  },
  {
    name: "large",
    corners: rect(120, 80),
    at: [
      [20, 20],
      [90, 60],
    ],
  },
  { name: "elsewhere", corners: rect(30, 20, 100, -50), at: [[110, -40]] },
  {
    name: "rounded",
    corners: rounded(40, 30, 3),
    at: [
      [10, 10],
      [25, 20],
    ],
  },
  { name: "pill", corners: rounded(40, 16, 7.9), at: [[12, 8]] },
  {
    name: "chamfered",
    corners: [
      [4, 0],
      [36, 0],
      [40, 4],
      [40, 26],
      [36, 30],
      [4, 30],
      [0, 26],
      [0, 4],
    ],
    at: [[10, 10]],
  },
  {
    name: "ell",
    corners: [
      [0, 0],
      [60, 0],
      [60, 20],
      [30, 20],
      [30, 40],
      [0, 40],
    ],
    at: [
      [10, 10],
      [45, 8],
    ],
  },
  {
    name: "tee",
    corners: [
      [15, 0],
      [30, 0],
      [30, 25],
      [45, 25],
      [45, 40],
      [0, 40],
      [0, 25],
      [15, 25],
    ],
    at: [
      [22, 10],
      [10, 32],
    ],
  },
  {
    name: "you",
    corners: [
      [0, 0],
      [40, 0],
      [40, 30],
      [28, 30],
      [28, 12],
      [12, 12],
      [12, 30],
      [0, 30],
    ],
    at: [
      [6, 6],
      [34, 20],
    ],
  },
  {
    name: "aitch",
    corners: [
      [0, 0],
      [12, 0],
      [12, 12],
      [28, 12],
      [28, 0],
      [40, 0],
      [40, 36],
      [28, 36],
      [28, 24],
      [12, 24],
      [12, 36],
      [0, 36],
    ],
    at: [
      [6, 18],
      [34, 8],
    ],
  },
  {
    name: "zed",
    corners: [
      [0, 0],
      [30, 0],
      [30, 20],
      [50, 20],
      [50, 36],
      [20, 36],
      [20, 16],
      [0, 16],
    ],
    at: [
      [10, 8],
      [36, 28],
    ],
  },
  {
    name: "cross",
    corners: [
      [12, 0],
      [28, 0],
      [28, 12],
      [40, 12],
      [40, 28],
      [28, 28],
      [28, 40],
      [12, 40],
      [12, 28],
      [0, 28],
      [0, 12],
      [12, 12],
    ],
    at: [[20, 20]],
  },
  {
    name: "comb",
    corners: [
      [0, 0],
      [48, 0],
      [48, 30],
      [40, 30],
      [40, 14],
      [28, 14],
      [28, 30],
      [20, 30],
      [20, 14],
      [8, 14],
      [8, 30],
      [0, 30],
    ],
    at: [
      [6, 7],
      [40, 7],
    ],
  },
  {
    name: "triangle",
    corners: [
      [0, 0],
      [40, 0],
      [20, 34],
    ],
    at: [[20, 10]],
  },
  {
    name: "wedge",
    corners: [
      [0, 0],
      [50, 0],
      [50, 24],
      [0, 12],
    ],
    at: [[30, 8]],
  },
  {
    name: "trapezoid",
    corners: [
      [0, 0],
      [44, 0],
      [34, 24],
      [10, 24],
    ],
    at: [[20, 10]],
  },
  {
    name: "kite",
    corners: [
      [0, 16],
      [16, 0],
      [44, 16],
      [16, 32],
    ],
    at: [[18, 16]],
  },
  { name: "hexagon", corners: polygon(6, 15), at: [[0, 0]] },
  { name: "octagon", corners: polygon(8, 14, Math.PI / 8), at: [[2, 2]] },
  { name: "star", corners: star(5, 22, 11), at: [[0, 0]] },
  { name: "disc", corners: disc(10), at: [[2, 0]] },
  {
    name: "ring",
    corners: disc(14),
    at: [[-10.5, 0]],
    cutout: [
      [-6, -6],
      [6, -6],
      [6, 6],
      [-6, 6],
    ],
  },
  {
    name: "half-round",
    corners: [
      [0, 0],
      [30, 0],
      [30, 15],
      [0, 15, 15, 15],
    ],
    at: [[14, 6]],
  },
  {
    name: "framed",
    corners: rect(40, 30),
    at: [[5, 5]],
    cutout: [
      [12, 10],
      [30, 10],
      [30, 22],
      [12, 22],
    ],
  },
  { name: "slotted", corners: rect(36, 24), at: [[8, 8]], slot: [20, 12, 28, 12] },
  {
    name: "inch",
    corners: rect(25.4, 50.8),
    at: [
      [10, 10],
      [12, 40],
    ],
    isInch: true,
  },
  {
    name: "four-layers",
    corners: rect(30, 22),
    at: [
      [8, 8],
      [20, 14],
    ],
    layers: 4,
  },
  { name: "one-layer", corners: rect(30, 18), at: [[8, 8]], layers: 1 },
  { name: "inked-over", corners: rect(30, 18), at: [[8, 8]], overInk: true },
  {
    name: "notched",
    corners: [
      [0, 0],
      [40, 0],
      [40, 24],
      [24, 24],
      [24, 18],
      [16, 18],
      [16, 24],
      [0, 24],
    ],
    at: [[10, 10]],
  },
];
