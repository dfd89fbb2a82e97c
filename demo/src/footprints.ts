import type { Pad } from "./design.ts";

/** A pad of a land pattern about the part's centre, rotation 0. */
interface Land {
  pin: string;
  x: number;
  y: number;
  w: number;
  h: number;
  shape: Pad["shape"];
  drill?: number;
}

/** A land pattern: its pads and the half size of its body for the silkscreen. */
export interface Pattern {
  readonly lands: readonly Land[];
  readonly body: readonly [number, number];
  readonly isThrough: boolean;
}

const two = (dx: number, w: number, h: number, body: [number, number]): Pattern => ({
  lands: [
    { pin: "1", x: -dx, y: 0, w, h, shape: "rounded" },
    { pin: "2", x: dx, y: 0, w, h, shape: "rounded" },
  ],
  body,
  isThrough: false,
});

/** Two rows, pins counted counter-clockwise from the lower left. */
function dual(n: number, pitch: number, dx: number, w: number, h: number, body: [number, number]): Pattern {
  const lands: Land[] = [];
  const half = n / 2;
  for (let k = 0; k < half; k++)
    lands.push({
      pin: String(k + 1),
      x: -((half - 1) / 2) * pitch + k * pitch,
      y: -dx,
      w: h,
      h: w,
      shape: "rect",
    });
  for (let k = 0; k < half; k++)
    lands.push({
      pin: String(half + k + 1),
      x: ((half - 1) / 2) * pitch - k * pitch,
      y: dx,
      w: h,
      h: w,
      shape: "rect",
    });
  return { lands, body, isThrough: false };
}

function quad(n: number, pitch: number, d: number, l: number, w: number, body: [number, number]): Pattern {
  const side = n / 4;
  const lands: Land[] = [];
  for (let k = 0; k < n; k++) {
    const t = ((k % side) - (side - 1) / 2) * pitch;
    const [x, y] = [
      [-d, -t],
      [t, -d],
      [d, t],
      [-t, d],
    ][Math.floor(k / side)]! as [number, number];
    const isUpright = Math.floor(k / side) % 2 === 1;
    lands.push({ pin: String(k + 1), x, y, w: isUpright ? w : l, h: isUpright ? l : w, shape: "rect" });
  }
  return { lands, body, isThrough: false };
}

function row(n: number, pitch: number, d: number, drill: number, depth: number): Pattern {
  const lands: Land[] = [];
  for (let k = 0; k < n; k++)
    lands.push({
      pin: String(k + 1),
      x: (k - (n - 1) / 2) * pitch,
      y: 0,
      w: d,
      h: d,
      shape: k === 0 ? "rect" : "circle",
      drill,
    });
  return { lands, body: [((n - 1) / 2) * pitch + pitch / 2, depth], isThrough: true };
}

/** The land patterns of the demo boards, by package. */
export const PATTERNS: Record<string, Pattern> = {
  "0603": two(0.75, 0.8, 0.95, [0.8, 0.4]),
  "0805": two(1, 1, 1.45, [1, 0.65]),
  "1206": two(1.5, 1.1, 1.8, [1.6, 0.8]),
  "SOD-123": two(1.65, 0.9, 1.2, [1.35, 0.8]),
  "SOT-23": {
    lands: [
      { pin: "1", x: -1, y: -1, w: 0.7, h: 1, shape: "rounded" },
      { pin: "2", x: 1, y: -1, w: 0.7, h: 1, shape: "rounded" },
      { pin: "3", x: 0, y: 1, w: 0.7, h: 1, shape: "rounded" },
    ],
    body: [1.45, 0.65],
    isThrough: false,
  },
  "SOT-223": {
    lands: [
      { pin: "1", x: -2.25, y: -3, w: 1.2, h: 2, shape: "rect" },
      { pin: "2", x: 0, y: -3, w: 1.2, h: 2, shape: "rect" },
      { pin: "3", x: 2.25, y: -3, w: 1.2, h: 2, shape: "rect" },
      { pin: "2", x: 0, y: 3, w: 3.6, h: 2, shape: "rect" },
    ],
    body: [3.3, 1.75],
    isThrough: false,
  },
  "SOIC-8": dual(8, 1.27, 2.7, 1.5, 0.6, [2.45, 1.95]),
  "QFP-48": quad(48, 0.5, 4.25, 1.4, 0.28, [3.5, 3.5]),
  "XTAL-3225": {
    lands: [
      { pin: "1", x: -1.1, y: -0.8, w: 1.3, h: 1.1, shape: "rect" },
      { pin: "2", x: 1.1, y: -0.8, w: 1.3, h: 1.1, shape: "rect" },
      { pin: "3", x: 1.1, y: 0.8, w: 1.3, h: 1.1, shape: "rect" },
      { pin: "4", x: -1.1, y: 0.8, w: 1.3, h: 1.1, shape: "rect" },
    ],
    body: [1.6, 1.25],
    isThrough: false,
  },
  "HDR-1x4": row(4, 2.54, 1.7, 1, 1.27),
  "HDR-1x6": row(6, 2.54, 1.7, 1, 1.27),
  "TERM-2": row(2, 5.08, 2.6, 1.3, 3.8),
  "TERM-4": row(4, 5.08, 2.6, 1.3, 3.8),
  "KEY-6x6": {
    lands: [
      { pin: "1", x: -3.25, y: 2.25, w: 1.9, h: 1.9, shape: "circle", drill: 1.1 },
      { pin: "1", x: 3.25, y: 2.25, w: 1.9, h: 1.9, shape: "circle", drill: 1.1 },
      { pin: "2", x: -3.25, y: -2.25, w: 1.9, h: 1.9, shape: "circle", drill: 1.1 },
      { pin: "2", x: 3.25, y: -2.25, w: 1.9, h: 1.9, shape: "circle", drill: 1.1 },
    ],
    body: [3, 3],
    isThrough: true,
  },
};

/** Pads of a part placed on a board; rotation in steps of 90°. */
export function placePads(
  pattern: Pattern,
  ref: string,
  x: number,
  y: number,
  rotation: number,
  netOf: (pin: string) => string,
): Pad[] {
  return pattern.lands.map((l): Pad => {
    const a = (rotation * Math.PI) / 180;
    const [c, s] = [Math.round(Math.cos(a)), Math.round(Math.sin(a))];
    const isTurned = Math.abs(s) === 1;
    return {
      ref,
      pin: l.pin,
      net: netOf(l.pin),
      x: x + l.x * c - l.y * s,
      y: y + l.x * s + l.y * c,
      shape: l.shape,
      w: isTurned ? l.h : l.w,
      h: isTurned ? l.w : l.h,
      side: l.drill ? "through" : "top",
      ...(l.drill ? { drill: l.drill } : {}),
      function: l.drill ? "ComponentPad" : "SMDPad,CuDef",
      mask: true,
      paste: !l.drill,
    };
  });
}
