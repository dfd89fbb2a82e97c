import * as dxf from "dxf-parser";
import { type Drawing, Gathered, LOOK, type ReadDrawing } from "./drawing.ts";

/** Millimetres of a unit by the header's number of it; 0 and whatever else is not said here states none. */
const UNITS_MM: Readonly<Record<number, number>> = {
  1: 25.4,
  2: 304.8,
  4: 1,
  5: 10,
  6: 1000,
  8: 0.0000254,
  9: 0.0254,
  13: 0.001,
  14: 100,
};

interface Point {
  readonly x: number;
  readonly y: number;
}
/** What is looked at of an entity, whichever kind it is. */
interface Entity {
  readonly type: string;
  readonly center?: Point;
  readonly radius?: number;
  readonly startAngle?: number;
  readonly endAngle?: number;
  readonly vertices?: readonly (Point & { readonly bulge?: number })[];
  readonly shape?: boolean;
  readonly name?: string;
  readonly position?: Point;
  readonly rotation?: number;
  readonly xScale?: number;
  readonly yScale?: number;
  readonly extrusionDirectionZ?: number;
  readonly layer?: string;
  /** False where this one is hidden whatever its layer. */
  readonly visible?: boolean;
}
interface Parsed {
  readonly header?: Readonly<Record<string, unknown>>;
  readonly entities?: readonly Entity[];
  readonly tables?: {
    readonly layer?: {
      readonly layers?: Readonly<Record<string, { readonly visible?: boolean; readonly frozen?: boolean }>>;
    };
  };
  readonly blocks?: Readonly<
    Record<string, { readonly position?: Point; readonly entities?: readonly Entity[] }>
  >;
}

/** From an entity's own plane to the drawing: x' = a·x + c·y + e, y' = b·x + d·y + f. */
type Matrix = readonly [number, number, number, number, number, number];
const PLAIN: Matrix = [1, 0, 0, 1, 0, 0];
const times = (m: Matrix, n: Matrix): Matrix => [
  m[0] * n[0] + m[2] * n[1],
  m[1] * n[0] + m[3] * n[1],
  m[0] * n[2] + m[2] * n[3],
  m[1] * n[2] + m[3] * n[3],
  m[0] * n[4] + m[2] * n[5] + m[4],
  m[1] * n[4] + m[3] * n[5] + m[5],
];

/** Blocks inside of blocks are followed so deep. */
const MOST_DEPTH = 16;
const STEPS = 48;
/** Drawn, but neither a shape nor in the way of one. */
const WORDS = /^(TEXT|MTEXT|ATTDEF|ATTRIB|DIMENSION|POINT|VIEWPORT|LEADER|MLEADER|HATCH)$/;

/**
 * Circles and size of a text exchange drawing: circles, arcs that close, polylines with bulges, and all of them in inserted
 * blocks. What is another kind of shape is counted and said.
 */
export function readDxf(text: string): ReadDrawing {
  let parsed: Parsed | null;
  try {
    const Parser = parserOf(dxf);
    parsed = new Parser().parseSync(text) as unknown as Parsed | null;
  } catch (error) {
    return { kind: "refused", why: `The drawing cannot be read: ${(error as Error).message}` };
  }
  if (!parsed?.entities) return { kind: "refused", why: "The drawing holds no shapes." };
  const walk = new Walk(parsed);
  walk.entities(parsed.entities, PLAIN, 0);
  const unit = UNITS_MM[Number(parsed.header?.$INSUNITS ?? 0)];
  const notes = walk.notes();
  // circles on a plane that looks down lose their direction in reading
  if (/\n\s*230\s*\r?\n\s*-1(\.0*)?\s*\r?\n/.test(text))
    notes.push("Some shapes are drawn as seen from below: look whether their places are mirrored.");
  return {
    kind: "drawing",
    ...(unit === undefined ? {} : { unitMm: unit }),
    circles: walk.gathered.circles,
    ...(walk.gathered.size ? { size: walk.gathered.size } : {}),
    notes,
  } satisfies Drawing;
}

/** The package's door, which bundlers and Node hand on in different wrappings. */
function parserOf(module: unknown): new () => { parseSync(text: string): unknown } {
  let m = module as Record<string, unknown>;
  for (let i = 0; i < 3 && m && typeof m.DxfParser !== "function" && m.default; i++)
    m = m.default as Record<string, unknown>;
  return (typeof m === "function" ? m : m.DxfParser) as new () => { parseSync(text: string): unknown };
}

class Walk {
  readonly gathered = new Gathered();
  private readonly parsed: Parsed;
  private readonly others = new Map<string, number>();
  /** Shapes that are not shown, by the layer that is off or frozen. */
  private readonly unseen = new Map<string, number>();
  private readonly arcs = new Map<string, { at: Point; r: number; sweep: number }>();

  constructor(parsed: Parsed) {
    this.parsed = parsed;
  }

  entities(list: readonly Entity[], m: Matrix, depth: number): void {
    for (const e of list) this.entity(e, m, depth);
  }

  private entity(e: Entity, m: Matrix, depth: number): void {
    this.gathered.spend(LOOK);
    if (this.isUnseen(e)) return;
    switch (e.type) {
      case "CIRCLE":
        if (e.center && e.radius) this.round(e.center, e.radius, 0, 2 * Math.PI, m);
        return;
      case "ARC":
        if (e.center && e.radius) this.arc(e.center, e.radius, e.startAngle ?? 0, e.endAngle ?? 0, m);
        return;
      case "LINE":
      case "LWPOLYLINE":
      case "POLYLINE":
        if (!e.vertices) return;
        this.gathered.spend(e.vertices.length * (e.vertices.some((v) => v.bulge) ? STEPS / 2 : 1));
        this.gathered.shape(mapped(polyline(e), m));
        return;
      case "INSERT":
        this.insert(e, m, depth);
        return;
      default:
        if (!WORDS.test(e.type)) this.others.set(e.type, (this.others.get(e.type) ?? 0) + 1);
    }
  }

  /** What its layer or its own mark keeps out of sight is no part of the drawing; it is counted. */
  private isUnseen(e: Entity): boolean {
    const own = this.parsed.tables?.layer?.layers?.[e.layer ?? ""];
    const isOff = own?.visible === false || own?.frozen === true;
    if (!isOff && e.visible !== false) return false;
    const name = isOff ? `“${e.layer}”` : "hidden by itself";
    this.unseen.set(name, (this.unseen.get(name) ?? 0) + 1);
    return true;
  }

  private insert(e: Entity, m: Matrix, depth: number): void {
    const block = this.parsed.blocks?.[e.name ?? ""];
    if (!block?.entities || depth >= MOST_DEPTH) {
      this.others.set("INSERT", (this.others.get("INSERT") ?? 0) + 1);
      return;
    }
    const a = ((e.rotation ?? 0) * Math.PI) / 180;
    const [c, s] = [Math.cos(a), Math.sin(a)];
    const [sx, sy] = [e.xScale || 1, e.yScale || 1];
    const base = block.position ?? { x: 0, y: 0 };
    const own: Matrix = [c * sx, s * sx, -s * sy, c * sy, e.position?.x ?? 0, e.position?.y ?? 0];
    this.entities(block.entities, times(times(m, own), [1, 0, 0, 1, -base.x, -base.y]), depth + 1);
  }

  private arc(at: Point, r: number, from: number, until: number, m: Matrix): void {
    const sweep = until <= from ? until - from + 2 * Math.PI : until - from;
    if (sweep > 2 * Math.PI - 1e-3) {
      this.round(at, r, 0, 2 * Math.PI, m);
      return;
    }
    this.round(at, r, from, sweep, m);
    // arcs about one middle that make the turn full are a circle
    const [x, y] = mapped([at.x, at.y], m) as [number, number];
    const key = [x, y, r, ...m.slice(0, 4)].map((v) => Math.round(v * 1e4)).join(" ");
    const seen = this.arcs.get(key);
    const whole = (seen?.sweep ?? 0) + sweep;
    this.arcs.set(key, { at, r, sweep: whole });
    if (Math.abs(whole - 2 * Math.PI) < 1e-2) this.round(at, r, 0, 2 * Math.PI, m);
  }

  private round(at: Point, r: number, from: number, sweep: number, m: Matrix): void {
    this.gathered.spend(STEPS);
    const points: number[] = [];
    for (let i = 0; i <= STEPS; i++) {
      const a = from + (sweep * i) / STEPS;
      points.push(at.x + r * Math.cos(a), at.y + r * Math.sin(a));
    }
    this.gathered.shape(mapped(points, m));
  }

  notes(): string[] {
    const kinds = [...this.others].map(([kind, n]) => `${n} × ${kind.toLowerCase()}`);
    const unseen = [...this.unseen].map(([layer, n]) => `${n} on ${layer}`);
    return [
      ...(kinds.length > 0 ? [`Not taken: ${kinds.join(", ")}.`] : []),
      ...(unseen.length > 0
        ? [`Left out because their layer is off or frozen: ${unseen.join(", ")}. Turn it on if they count.`]
        : []),
    ];
  }
}

function mapped(points: readonly number[], [a, b, c, d, e, f]: Matrix): number[] {
  const out: number[] = [];
  for (let i = 0; i < points.length; i += 2) {
    const [x, y] = [points[i]!, points[i + 1]!];
    out.push(a * x + c * y + e, b * x + d * y + f);
  }
  return out;
}

/** Points of a polyline; a bulge is the tangent of a quarter of its arc's angle, left of the way walked where it is above 0. */
function polyline(e: Entity): number[] {
  const v = e.vertices!;
  const out: number[] = [];
  const n = e.shape ? v.length : v.length - 1;
  if (v[0]) out.push(v[0].x, v[0].y);
  for (let i = 0; i < n; i++) {
    const [p, q] = [v[i]!, v[(i + 1) % v.length]!];
    const bulge = p.bulge ?? 0;
    if (bulge !== 0) out.push(...bulged(p, q, bulge));
    out.push(q.x, q.y);
  }
  // a plane that looks down mirrors its own x
  if ((e.extrusionDirectionZ ?? 1) < 0) for (let i = 0; i < out.length; i += 2) out[i] = -out[i]!;
  return out;
}

function bulged(p: Point, q: Point, bulge: number): number[] {
  const [dx, dy] = [q.x - p.x, q.y - p.y];
  const k = (1 - bulge * bulge) / (4 * bulge);
  const [cx, cy] = [(p.x + q.x) / 2 - dy * k, (p.y + q.y) / 2 + dx * k];
  const r = Math.hypot(p.x - cx, p.y - cy);
  const from = Math.atan2(p.y - cy, p.x - cx);
  const sweep = 4 * Math.atan(bulge);
  const out: number[] = [];
  for (let i = 1; i < STEPS / 2; i++) {
    const a = from + (sweep * i) / (STEPS / 2);
    out.push(cx + r * Math.cos(a), cy + r * Math.sin(a));
  }
  return out;
}
