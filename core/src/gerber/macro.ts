import { circleRing } from "../geometry/arc.ts";
import { type Area, clipAreas } from "../geometry/clip.ts";
import { convexHull, signedArea } from "../geometry/polygon.ts";

/** A macro as written: its statements, one per star. */
export interface Macro {
  readonly name: string;
  readonly statements: readonly string[];
}

/**
 * Value of a macro expression: + - x X / ( ) $n and unary signs (published layer format, aperture macros).
 * @throws Error when the text is no expression; the caller makes it a finding
 */
export function evaluate(text: string, variables: ReadonlyMap<number, number>): number {
  let p = 0;
  const fail = (): never => {
    throw new Error(`“${text}” is no expression`);
  };
  const peek = () => text[p];
  const atom = (): number => {
    const c = peek();
    if (c === "-") {
      p++;
      return -atom();
    }
    if (c === "+") {
      p++;
      return atom();
    }
    if (c === "(") {
      p++;
      const v = sum();
      if (peek() !== ")") fail();
      p++;
      return v;
    }
    const rest = text.slice(p);
    const variable = /^\$(\d+)/.exec(rest);
    if (variable) {
      p += variable[0].length;
      return variables.get(Number(variable[1])) ?? 0;
    }
    const number = /^(\d+\.?\d*|\.\d+)/.exec(rest);
    if (!number) return fail();
    p += number[0].length;
    return Number(number[0]);
  };
  const product = (): number => {
    let v = atom();
    for (let c = peek(); c === "x" || c === "X" || c === "/"; c = peek()) {
      p++;
      const w = atom();
      v = c === "/" ? v / w : v * w;
    }
    return v;
  };
  const sum = (): number => {
    let v = product();
    for (let c = peek(); c === "+" || c === "-"; c = peek()) {
      p++;
      const w = product();
      v = c === "-" ? v - w : v + w;
    }
    return v;
  };
  const value = sum();
  if (p !== text.length || !Number.isFinite(value)) fail();
  return value;
}

const turn = (ring: number[], degrees: number): number[] => {
  if (degrees % 360 === 0) return ring;
  const a = (degrees * Math.PI) / 180;
  const [c, s] = [Math.cos(a), Math.sin(a)];
  const out: number[] = [];
  for (let i = 0; i < ring.length; i += 2)
    out.push(ring[i]! * c - ring[i + 1]! * s, ring[i]! * s + ring[i + 1]! * c);
  return out;
};
const box = (cx: number, cy: number, w: number, h: number) => [
  cx - w / 2,
  cy - h / 2,
  cx + w / 2,
  cy - h / 2,
  cx + w / 2,
  cy + h / 2,
  cx - w / 2,
  cy + h / 2,
];
const ccw = (ring: number[]) => {
  if (signedArea(ring) >= 0) return ring;
  const out: number[] = [];
  for (let i = ring.length - 2; i >= 0; i -= 2) out.push(ring[i]!, ring[i + 1]!);
  return out;
};

const clockwise = (ring: number[]) => {
  const out: number[] = [];
  const up = ccw(ring);
  for (let i = up.length - 2; i >= 0; i -= 2) out.push(up[i]!, up[i + 1]!);
  return out;
};

/** Corners of a macro's polygon and rings of a moiré beyond these are a broken file, far above what the format allows. */
const MAX_CORNERS = 360;
const MAX_RINGS = 50;
/** Statements of one macro; each may cut all that was drawn before it. */
const MAX_STATEMENTS = 2_000;

/** Numbers of a primitive without its turn, which may be left out. */
const LEAST_NUMBERS: Readonly<Record<string, number>> = { 1: 4, 2: 6, 20: 6, 21: 5, 22: 5, 5: 5, 6: 8, 7: 5 };

/**
 * Draws a macro with its parameters into filled areas.
 *
 * Primitives 1 circle, 2 and 20 vector line, 21 and 22 centre and lower-left line, 4 outline, 5 polygon, 6 moiré,
 * 7 thermal; exposure off cuts what the macro drew before. Rotation is about the macro's origin.
 *
 * @param unitMm millimetres per unit of the file
 * @throws Error naming the statement that cannot be read
 */
// biome-ignore lint/complexity/noExcessiveLinesPerFunction: one list of primitives, each by its number
export function drawMacro(macro: Macro, parameters: readonly number[], unitMm: number): Area[] {
  const variables = new Map(parameters.map((v, i) => [i + 1, v]));
  let areas: Area[] = [];
  let pending: number[][] = [];
  const flush = () => {
    if (pending.length === 0) return;
    areas = clipAreas("union", [...areas.flat(), ...pending], []);
    pending = [];
  };
  const paint = (ring: number[], isOn: boolean) => {
    const mm = ccw(ring.map((v) => v * unitMm));
    if (isOn) pending.push(mm);
    else {
      flush();
      areas = clipAreas("difference", areas.flat(), [mm]);
    }
  };
  if (macro.statements.length > MAX_STATEMENTS)
    throw new Error(
      `the macro has ${macro.statements.length} statements; ${MAX_STATEMENTS} are drawn at most`,
    );
  for (const raw of macro.statements) {
    const statement = raw.replace(/\s+/g, "");
    if (statement === "" || /^0(?![\d.,])/.test(raw.trim()) || raw.trim().startsWith("0 ")) continue;
    const define = /^\$(\d+)=(.+)$/.exec(statement);
    if (define) {
      variables.set(Number(define[1]), evaluate(define[2]!, variables));
      continue;
    }
    const [code, ...rest] = statement.split(",");
    const v = rest.map((t) => evaluate(t, variables));
    const least = LEAST_NUMBERS[code!];
    if (least !== undefined && v.length < least)
      throw new Error(`primitive ${code} has ${v.length} numbers; it takes ${least} at least`);
    const at = (i: number) => v[i] ?? 0;
    if (code === "1") {
      paint(turn(circleRing(at(2), at(3), at(1) / 2), at(4)), at(0) !== 0);
    } else if (code === "2" || code === "20") {
      const [x1, y1, x2, y2, w] = [at(2), at(3), at(4), at(5), at(1)];
      const l = Math.hypot(x2 - x1, y2 - y1) || 1;
      const [nx, ny] = [(-(y2 - y1) / l) * (w / 2), ((x2 - x1) / l) * (w / 2)];
      paint(
        turn([x1 - nx, y1 - ny, x2 - nx, y2 - ny, x2 + nx, y2 + ny, x1 + nx, y1 + ny], at(6)),
        at(0) !== 0,
      );
    } else if (code === "21") paint(turn(box(at(3), at(4), at(1), at(2)), at(5)), at(0) !== 0);
    else if (code === "22")
      paint(turn(box(at(3) + at(1) / 2, at(4) + at(2) / 2, at(1), at(2)), at(5)), at(0) !== 0);
    else if (code === "4") {
      const n = at(1);
      if (!(Number.isInteger(n) && n >= 3) || ![2, 3].includes(v.length - 2 * (n + 1)))
        throw new Error(`outline of ${n} sides has ${v.length} numbers`);
      paint(turn(v.slice(2, 2 + 2 * n), at(2 + 2 * (n + 1))), at(0) !== 0);
    } else if (code === "5") {
      if (!(Number.isInteger(at(1)) && at(1) >= 3 && at(1) <= MAX_CORNERS))
        throw new Error(`a polygon of ${at(1)} corners`);
      const ring: number[] = [];
      for (let k = 0; k < at(1); k++) {
        const a = (2 * Math.PI * k) / at(1);
        ring.push(at(2) + (at(4) / 2) * Math.cos(a), at(3) + (at(4) / 2) * Math.sin(a));
      }
      paint(turn(ring, at(5)), at(0) !== 0);
    } else if (code === "6") {
      if (at(5) > MAX_RINGS) throw new Error(`a moiré of ${at(5)} rings; ${MAX_RINGS} are drawn at most`);
      let d = at(2);
      for (let k = 0; k < at(5) && d > 0; k++, d -= 2 * (at(3) + at(4))) {
        // the inner circle runs the other way, so that the union leaves it open
        paint(turn(circleRing(at(0), at(1), d / 2), at(8)), true);
        if (d - 2 * at(3) > 0)
          pending.push(
            clockwise(turn(circleRing(at(0), at(1), d / 2 - at(3)), at(8)).map((v) => v * unitMm)),
          );
      }
      paint(turn(box(at(0), at(1), at(7), at(6)), at(8)), true);
      paint(turn(box(at(0), at(1), at(6), at(7)), at(8)), true);
    } else if (code === "7") {
      paint(turn(circleRing(at(0), at(1), at(2) / 2), at(5)), true);
      paint(turn(circleRing(at(0), at(1), at(3) / 2), at(5)), false);
      paint(turn(box(at(0), at(1), at(2), at(4)), at(5)), false);
      paint(turn(box(at(0), at(1), at(4), at(2)), at(5)), false);
    } else throw new Error(`primitive ${code} is not known`);
  }
  flush();
  return areas;
}

/** Hull of a stamp at both ends of a straight stroke: exact for convex stamps, which strokes must have. */
export function strokeRing(
  stamp: readonly number[],
  x1: number,
  y1: number,
  x2: number,
  y2: number,
): number[] {
  const all: number[] = [];
  for (let i = 0; i < stamp.length; i += 2)
    all.push(stamp[i]! + x1, stamp[i + 1]! + y1, stamp[i]! + x2, stamp[i + 1]! + y2);
  return convexHull(all);
}
