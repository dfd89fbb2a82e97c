import { counted } from "../../counted.ts";
import { offsetRings } from "../../geometry/clip.ts";
import type { Plan } from "../../geometry/plan.ts";
import { boxAround, posedRing } from "../../geometry/turn.ts";
import { addTo } from "../../grouped.ts";
import type { PanelDesign } from "../spec.ts";
import { dimension } from "./drawing.ts";

/** A pocket is wider than the board by this much all around, mm: what routing may be off, and a sheet of paper. */
const POCKET_MM = 0.15;
/** The pocket is less deep than the board is thick, so that the foil lies on the board. */
const PROUD_MM = 0.05;
const WALL_MM = 14;
const BAR_MM = 50;
const two = (v: number) => String(Math.round(v * 100) / 100);

type Area = Plan["areas"][number];

/**
 * A nest for printing paste: a frame with a pocket of the board's own outline, relief for fingers, and the line along which
 * the foil is hinged.
 *
 * @param thicknessMm of the board; the pocket is {@link PROUD_MM} less deep
 */
export function nestPlan(d: PanelDesign, thicknessMm: number): Plan {
  const [x0, y0, x1, y1] = d.box;
  const outer = [x0 - WALL_MM, y0 - WALL_MM, x1 + WALL_MM, y1 + WALL_MM] as const;
  const frame = [outer[0], outer[1], outer[2], outer[1], outer[2], outer[3], outer[0], outer[3]];
  const pocket = offsetRings([d.outline], POCKET_MM);
  const [cx, cy] = [(x0 + x1) / 2, (y0 + y1) / 2];
  const depth = thicknessMm - PROUD_MM;
  const wide = dimension(
    x0 - POCKET_MM,
    outer[1] - 5,
    x1 + POCKET_MM,
    outer[1] - 5,
    two(x1 - x0 + 2 * POCKET_MM),
  );
  const high = dimension(
    outer[0] - 5,
    y0 - POCKET_MM,
    outer[0] - 5,
    y1 + POCKET_MM,
    two(y1 - y0 + 2 * POCKET_MM),
  );
  return {
    title: `${d.name}: nest for printing paste`,
    subtitle: `pocket ${two(depth)} mm deep, ${POCKET_MM} mm wider than the board all around`,
    box: [outer[0] - 10, outer[1] - 10, outer[2] + 4, outer[3] + 4],
    areas: [{ rings: [frame, ...pocket], tone: "board" }],
    lines: [
      ...wide.lines,
      ...high.lines,
      { x1: outer[0], y1: outer[3] - 3, x2: outer[2], y2: outer[3] - 3, kind: "guide" },
    ],
    circles: [
      { x: cx, y: y0 - POCKET_MM, d: 14 },
      { x: cx, y: y1 + POCKET_MM, d: 14 },
    ],
    texts: [
      ...wide.texts,
      ...high.texts,
      { x: cx, y: outer[3] - 2.4, mm: 2.2, text: "foil is taped along this line", isMiddle: true },
      { x: cx, y: cy, mm: 3, text: `${two(depth)} deep`, isMiddle: true },
    ],
    barMm: BAR_MM,
    notes: [
      `Print or cut it ${two(depth)} mm high, or glue strips of that height around the pocket: the board then stands ${PROUD_MM} mm proud and the foil lies flat on it.`,
      "The round pieces are room for a finger; cut them through.",
      "Hinge the foil with tape along the broken line, line it up once on a board, and do not move it again.",
    ],
  };
}

/** Length of a corner's legs, mm. */
const LEG_MM = 22;

/**
 * Four corners in the place of a frame: less to print, and good for any rectangle. Each is a wall of the pocket's depth
 * with the board's corner in it, taped down along its legs.
 *
 * @returns nothing where a corner of the board is no right angle: nothing would lie in it
 */
export function cornersPlan(d: PanelDesign, thicknessMm: number): Plan | undefined {
  const [x0, y0, x1, y1] = d.box;
  const leg = Math.min(LEG_MM, (x1 - x0) / 2 - 2, (y1 - y0) / 2 - 2);
  const isSquare = [
    [x0, y0],
    [x1, y0],
    [x1, y1],
    [x0, y1],
  ].every(([x, y]) =>
    d.outline.some(
      (v, i) => i % 2 === 0 && Math.abs(v - x!) < 0.02 && Math.abs(d.outline[i + 1]! - y!) < 0.02,
    ),
  );
  if (!isSquare || leg < 5) return undefined;
  const depth = two(thicknessMm - PROUD_MM);
  const corners = [
    [x0 - POCKET_MM, y0 - POCKET_MM, 1, 1],
    [x1 + POCKET_MM, y0 - POCKET_MM, -1, 1],
    [x1 + POCKET_MM, y1 + POCKET_MM, -1, -1],
    [x0 - POCKET_MM, y1 + POCKET_MM, 1, -1],
  ] as const;
  const wall = 10;
  const rings = corners.map(([x, y, u, v]) =>
    [
      [-wall, -wall],
      [leg, -wall],
      [leg, 0],
      [0, 0],
      [0, leg],
      [-wall, leg],
    ].flatMap(([a, b]) => [x + u * a!, y + v * b!]),
  );
  const box = boxAround(rings);
  return {
    title: `${d.name}: corners for printing paste`,
    subtitle: `four pieces ${depth} mm high, taped to the table around a board`,
    box: [box[0] - 4, box[1] - 4, box[2] + 4, box[3] + 4],
    areas: [...rings.map((r): Area => ({ rings: [r], tone: "board" })), { rings: [d.outline], tone: "none" }],
    lines: [{ x1: box[0], y1: box[3] - 2, x2: box[2], y2: box[3] - 2, kind: "guide" }],
    circles: [],
    texts: [
      { x: (x0 + x1) / 2, y: box[3] - 1.4, mm: 2.2, text: "foil is taped along this line", isMiddle: true },
      { x: (x0 + x1) / 2, y: (y0 + y1) / 2, mm: 3, text: "the board", isMiddle: true },
    ],
    barMm: BAR_MM,
    notes: [
      `Print or cut the four ${depth} mm high: the board then stands ${PROUD_MM} mm proud and the foil lies flat on it.`,
      "Lay a board down, push the corners against it, tape their outer edges; lift the board between two corners.",
      "Hinge the foil with tape along the broken line, line it up once on a board, and do not move it again.",
    ],
  };
}

/** The same without a printer: boards of the run around the one that is printed on, taped down. */
export function sisterPlan(d: PanelDesign): Plan {
  const [x0, y0, x1, y1] = d.box;
  const [w, h] = [x1 - x0, y1 - y0];
  const g = 0.2;
  const at = (dx: number, dy: number) => posedRing({ xMm: dx, yMm: dy, turnDeg: 0 }, d.outline);
  const around: readonly (readonly [number, number])[] = [
    [-(w + g), 0],
    [w + g, 0],
    [0, -(h + g)],
    [0, h + g],
  ];
  const rings = around.map(([dx, dy]) => at(dx, dy));
  const box = boxAround([...rings, d.outline]);
  return {
    title: `${d.name}: boards around the one that is printed on`,
    subtitle: "four spare boards, taped to the table; the fifth is the one that changes",
    box: [box[0] - 4, box[1] - 4, box[2] + 4, box[3] + 4],
    areas: [
      ...rings.map((r): Area => ({ rings: [r], tone: "frame" })),
      { rings: [d.outline], tone: "board" },
    ],
    lines: rings.flatMap((r) => {
      const b = boxAround([r]);
      const y = (b[1] + b[3]) / 2;
      return [{ x1: b[0] - 3, y1: y, x2: b[2] + 3, y2: y, kind: "guide" as const }];
    }),
    circles: [],
    texts: [
      { x: (x0 + x1) / 2, y: (y0 + y1) / 2, mm: 3, text: "printed on", isMiddle: true },
      ...around.map(([dx, dy]) => ({
        x: (x0 + x1) / 2 + dx,
        y: (y0 + y1) / 2 + dy + 1,
        mm: 3,
        text: "taped down",
        isMiddle: true,
      })),
    ],
    barMm: BAR_MM,
    notes: [
      "Lay the four around one board, push them together, tape them along the broken lines.",
      "Tape the foil to the upper one as a hinge. The board in the middle comes out with a knife's tip.",
    ],
  };
}

/** A part for a tray map. */
export interface TrayPart {
  readonly ref: string;
  readonly x: number;
  readonly y: number;
  readonly value: string;
  /** It must not be turned round: how its direction is marked on the body, "" where nobody wrote that down. */
  readonly direction?: string;
}

/** Beside the reference of what has a direction. */
const DIRECTED = "*";

/**
 * Parts on a map one to one, each at its place, with what to fill in by value: nothing is missing once it is full. What has a
 * direction is marked, with how to tell it; what has no known place is counted beside.
 *
 * @param beside parts that are fitted and whose place no file tells
 */
export function trayPlan(
  d: PanelDesign,
  side: "top" | "bottom",
  parts: readonly TrayPart[],
  beside: readonly Omit<TrayPart, "x" | "y">[] = [],
): Plan {
  const [x0, y0, x1, y1] = d.box;
  const flip = side === "bottom";
  const fx = (x: number) => (flip ? x0 + x1 - x : x);
  const ring = d.outline.map((v, i) => (i % 2 === 0 ? fx(v) : v));
  const isDirected = (p: { readonly direction?: string }) => p.direction !== undefined;
  const named = (p: Omit<TrayPart, "x" | "y">) => `${p.ref}${isDirected(p) ? DIRECTED : ""}`;
  return {
    title: `${d.name}: map of the parts, ${side}`,
    subtitle: `${counted(parts.length, "part")}; lay each on its place before anything is soldered`,
    box: [x0 - 3, y0 - 3, x1 + 3, y1 + 3],
    areas: [{ rings: [ring], tone: "none" }],
    lines: [],
    circles: parts.flatMap((p) => [
      { x: fx(p.x), y: p.y, d: 0.6, isFilled: true },
      ...(isDirected(p) ? [{ x: fx(p.x), y: p.y, d: 1.6, isFilled: false }] : []),
    ]),
    texts: parts.map((p) => ({ x: fx(p.x), y: p.y + 0.5, mm: 1.4, text: named(p), isMiddle: true })),
    barMm: Math.min(BAR_MM, Math.max(10, Math.floor((x1 - x0) / 10) * 10)),
    notes: [
      ...byValue(parts).map(
        ([value, refs]) => `${refs.length} x ${value || "without a value"}: ${refs.join(" ")}`,
      ),
      ...directionNotes([...parts, ...beside]),
      ...byValue(beside).map(
        ([value, refs]) =>
          `beside the map, no file tells the place: ${refs.length} x ${value || "without a value"}: ${refs.join(" ")}`,
      ),
    ],
  };
}

/** References by value, the most first. */
function byValue(parts: readonly Omit<TrayPart, "x" | "y">[]): [string, string[]][] {
  const found = new Map<string, string[]>();
  for (const p of parts) addTo(found, p.value, p.ref);
  return [...found].sort((a, b) => b[1].length - a[1].length || (a[0] < b[0] ? -1 : 1));
}

/** How the direction of marked parts is told, those of which nobody wrote it down first. */
function directionNotes(parts: readonly Omit<TrayPart, "x" | "y">[]): string[] {
  const found = new Map<string, string[]>();
  for (const p of parts) if (p.direction !== undefined) addTo(found, p.direction, p.ref);
  return [...found]
    .sort(([a], [b]) => (a < b ? -1 : 1))
    .map(([mark, refs]) =>
      mark === ""
        ? `${DIRECTED} has a direction, look it up in the data sheet: ${refs.join(" ")}`
        : `${DIRECTED} ${mark}: ${refs.join(" ")}`,
    );
}
