import { XMLParser } from "fast-xml-parser";
import svgpath from "svgpath";
import { type Drawing, Gathered, LOOK, type ReadDrawing } from "./drawing.ts";

/** An element as the parser gives it in order: its name with its children, and its attributes beside. */
type Element = Readonly<Record<string, unknown>> & { readonly ":@"?: Readonly<Record<string, string>> };

/** Millimetres of the units that are lengths on paper. Pixels and bare numbers are none: how large they are hangs on who wrote them. */
const UNITS_MM: Readonly<Record<string, number>> = {
  mm: 1,
  cm: 10,
  in: 25.4,
  pt: 25.4 / 72,
  pc: 25.4 / 6,
  q: 0.25,
};
const HIDDEN = /^(defs|symbol|clipPath|mask|pattern|marker|style|title|desc|metadata|script|text)$/i;
const MOST_DEPTH = 200;
/** Points of each curve that are looked at. */
const STEPS = 12;

/**
 * Circles and size of a vector picture, in its own units, y up.
 *
 * Its scale is known where its width is a length on paper and its view box says how many units that is, and both directions
 * agree. Groups, transformations and re-used shapes are followed; what is hidden or only defined is not drawn.
 */
export function readSvg(text: string): ReadDrawing {
  let tree: Element[];
  try {
    tree = new XMLParser({
      preserveOrder: true,
      ignoreAttributes: false,
      attributeNamePrefix: "",
      processEntities: false,
      removeNSPrefix: true,
    }).parse(text) as Element[];
  } catch (error) {
    return { kind: "refused", why: `The drawing cannot be read: ${(error as Error).message}` };
  }
  const root = tree.find((e) => nameOf(e) === "svg");
  if (!root) return { kind: "refused", why: "The file is no vector drawing." };
  const walk = new Walk(root);
  walk.all(childrenOf(root), [], 0);
  const unitMm = unitOf(root[":@"] ?? {});
  return {
    kind: "drawing",
    ...(unitMm === undefined ? {} : { unitMm }),
    circles: walk.gathered.circles,
    ...(walk.gathered.size ? { size: walk.gathered.size } : {}),
    notes: walk.notes,
  } satisfies Drawing;
}

const nameOf = (e: Element) => Object.keys(e).find((k) => k !== ":@") ?? "";
const childrenOf = (e: Element): readonly Element[] => {
  const list = e[nameOf(e)];
  return Array.isArray(list) ? (list as Element[]) : [];
};
const num = (v: string | undefined) => Number.parseFloat(v ?? "") || 0;

/** Millimetres of a unit of the drawing by its stated size and its view box. */
function unitOf(a: Readonly<Record<string, string>>): number | undefined {
  const length = (text: string | undefined): number | undefined => {
    const m = /^\s*([\d.]+(?:e[+-]?\d+)?)\s*(mm|cm|in|pt|pc|q)\s*$/i.exec(text ?? "");
    return m ? Number(m[1]) * UNITS_MM[m[2]!.toLowerCase()]! : undefined;
  };
  const [w, h] = [length(a.width), length(a.height)];
  const box = (a.viewBox ?? "")
    .trim()
    .split(/[\s,]+/)
    .map(Number);
  if (box.length !== 4 || !(box[2]! > 0) || !(box[3]! > 0) || w === undefined) return undefined;
  const [sx, sy] = [w / box[2]!, h === undefined ? w / box[2]! : h / box[3]!];
  // a picture that is fitted into a frame of another shape is smaller than the frame says
  return Math.abs(sx / sy - 1) > 0.005 ? undefined : sx;
}

class Walk {
  readonly gathered = new Gathered();
  readonly notes: string[] = [];
  private readonly byId = new Map<string, Element>();
  private uses = 0;

  constructor(root: Element) {
    const todo: Element[] = [root];
    for (let e = todo.pop(); e; e = todo.pop()) {
      const id = e[":@"]?.id;
      if (id !== undefined && !this.byId.has(id)) this.byId.set(id, e);
      for (const c of childrenOf(e)) todo.push(c);
    }
  }

  /** @param moves transformations from the innermost out */
  all(list: readonly Element[], moves: readonly string[], depth: number): void {
    if (depth > MOST_DEPTH) {
      this.say("Groups inside of groups deeper than can be meant were not followed.");
      return;
    }
    for (const e of list) this.one(e, moves, depth);
  }

  private one(e: Element, outer: readonly string[], depth: number): void {
    this.gathered.spend(LOOK);
    const name = nameOf(e);
    const a = e[":@"] ?? {};
    if (HIDDEN.test(name) || a.display === "none" || /display\s*:\s*none/.test(a.style ?? "")) return;
    const moves = a.transform ? [a.transform, ...outer] : outer;
    const d = pathOf(name, a);
    if (d !== undefined) this.path(d, moves);
    else if (name === "use") this.use(a, moves, depth);
    else if (name === "image") this.say("A picture inside of the drawing was not taken.");
    else this.all(childrenOf(e), moves, depth + 1);
  }

  private use(a: Readonly<Record<string, string>>, moves: readonly string[], depth: number): void {
    const meant = this.byId.get((a.href ?? "").replace(/^#/, ""));
    // shapes that use each other in a ring, or by the thousand, end here
    if (!meant || ++this.uses > 20_000 || depth > MOST_DEPTH) {
      this.say("A re-used shape could not be followed.");
      return;
    }
    const at = `translate(${num(a.x)} ${num(a.y)})`;
    if (nameOf(meant) === "symbol") this.all(childrenOf(meant), [at, ...moves], depth + 1);
    else this.one(meant, [at, ...moves], depth + 1);
  }

  private say(note: string): void {
    if (!this.notes.includes(note)) this.notes.push(note);
  }

  private path(d: string, moves: readonly string[]): void {
    // every move is written out and walked, and each letter may be a curve of points
    this.gathered.spend(d.length * 4 + moves.reduce((n, m) => n + m.length, 0));
    let p = svgpath(d).abs().unshort().unarc();
    for (const m of moves) p = p.transform(m);
    let points: number[] = [];
    let start: readonly [number, number] = [0, 0];
    const end = () => {
      if (points.length >= 4) this.gathered.shape(points);
      points = [];
    };
    p.iterate((s, _, x, y) => {
      const [kind, ...v] = s as unknown as [string, ...number[]];
      if (kind === "M") {
        end();
        start = [v[0]!, v[1]!];
        points.push(v[0]!, -v[1]!);
        return;
      }
      if (kind === "Z" || kind === "z") points.push(start[0], -start[1]);
      else if (kind === "H") points.push(v[0]!, -y);
      else if (kind === "V") points.push(x, -v[0]!);
      else if (kind === "L") points.push(v[0]!, -v[1]!);
      else for (let i = 1; i <= STEPS; i++) points.push(...curve([x, y, ...v], i / STEPS));
    });
    end();
  }
}

/** A point of a curve of two or three degrees by its corners, y up (de Casteljau). */
function curve(corners: readonly number[], t: number): [number, number] {
  let c = corners;
  while (c.length > 2) {
    const next: number[] = [];
    for (let i = 0; i + 3 < c.length; i += 2)
      next.push(c[i]! + (c[i + 2]! - c[i]!) * t, c[i + 1]! + (c[i + 3]! - c[i + 1]!) * t);
    c = next;
  }
  return [c[0]!, -c[1]!];
}

/** A basic shape as a path; undefined for what is none. */
function pathOf(name: string, a: Readonly<Record<string, string>>): string | undefined {
  switch (name) {
    case "path":
      return a.d ?? "";
    case "circle":
      return ellipse(num(a.cx), num(a.cy), num(a.r), num(a.r));
    case "ellipse":
      return ellipse(num(a.cx), num(a.cy), num(a.rx), num(a.ry));
    case "rect": {
      const [x, y, w, h] = [num(a.x), num(a.y), num(a.width), num(a.height)];
      return w > 0 && h > 0 ? `M${x} ${y}h${w}v${h}h${-w}z` : "";
    }
    case "line":
      return `M${num(a.x1)} ${num(a.y1)}L${num(a.x2)} ${num(a.y2)}`;
    case "polyline":
    case "polygon":
      return a.points?.trim() ? `M${a.points}${name === "polygon" ? "z" : ""}` : "";
    default:
      return undefined;
  }
}

const ellipse = (cx: number, cy: number, rx: number, ry: number): string =>
  rx > 0 && ry > 0 ? `M${cx - rx} ${cy}a${rx} ${ry} 0 1 0 ${2 * rx} 0a${rx} ${ry} 0 1 0 ${-2 * rx} 0z` : "";
