import { capsuleRing, circleRing } from "../geometry/arc.ts";
import { type Area, clipAreas } from "../geometry/clip.ts";
import type { Aperture } from "./image.ts";
import { drawMacro, type Macro } from "./macro.ts";

/** Mirror, rotation and scale in force for a flash or stroke (layer transformations). */
export interface Transform {
  readonly mirrorX: boolean;
  readonly mirrorY: boolean;
  readonly degrees: number;
  readonly scale: number;
}

/** Nothing changed. */
export const IDENTITY: Transform = { mirrorX: false, mirrorY: false, degrees: 0, scale: 1 };

/** Mirror first, then scale and turn (published layer format: mirror, rotate, scale about the aperture's origin). */
export function apply(t: Transform, x: number, y: number): [number, number] {
  const a = (t.degrees * Math.PI) / 180;
  const mx = t.mirrorX ? -x : x;
  const my = t.mirrorY ? -y : y;
  const c = Math.cos(a) * t.scale;
  const s = Math.sin(a) * t.scale;
  return [mx * c - my * s, mx * s + my * c];
}

/** Parameters each template takes at most, a hole's two sizes among them. */
const MOST_PARAMETERS: Readonly<Record<string, number>> = { C: 3, R: 4, O: 4, P: 5 };
const rectangle = (w: number, h: number) => [-w, -h, w, -h, w, h, -w, h];

/**
 * Builds the stamp of an aperture definition.
 *
 * @param template C circle, R rectangle, O obround, P regular polygon, or a macro's name
 * @param p parameters in units of the file
 * @throws Error with a sentence when the definition cannot be drawn
 */
export function defineAperture(
  code: number,
  template: string,
  p: readonly number[],
  macros: ReadonlyMap<string, Macro>,
  unitMm: number,
): Aperture {
  const mm = p.map((v) => v * unitMm);
  const size = (i: number) => {
    const v = mm[i];
    if (v === undefined || !Number.isFinite(v) || v < 0)
      throw new Error(`parameter ${i + 1} of D${code} is missing or negative`);
    return v;
  };
  const most = MOST_PARAMETERS[template];
  if (most !== undefined && p.length > most)
    throw new Error(`D${code} has ${p.length} parameters; ${template} takes ${most} at most`);
  /** A round hole, or of very old writers a rectangular one, by its width and height. */
  const hole = (i: number): number[][] => {
    const [w, h] = [mm[i] ?? 0, mm[i + 1] ?? 0];
    if (w < 0 || h < 0) throw new Error(`the hole of D${code} is negative`);
    if (w === 0) return [];
    return [h > 0 ? rectangle(w / 2, h / 2) : circleRing(0, 0, w / 2)];
  };
  const make = (capsules: Aperture["capsules"], areas: Area[], circleMm?: number): Aperture => ({
    code,
    template,
    capsules,
    areas,
    box: boxOf(capsules, areas),
    ...(circleMm === undefined ? {} : { circleMm }),
  });
  if (template === "C") {
    const d = size(0);
    if (hole(1).length > 0) return make([], clipAreas("difference", [circleRing(0, 0, d / 2)], hole(1)));
    return make([{ x1: 0, y1: 0, x2: 0, y2: 0, r: d / 2 }], [], d);
  }
  if (template === "R") {
    const [w, h] = [size(0) / 2, size(1) / 2];
    if (w === 0 || h === 0) return make([], []);
    const ring = rectangle(w, h);
    return make([], hole(2).length > 0 ? clipAreas("difference", [ring], hole(2)) : [[ring]]);
  }
  if (template === "O") {
    const [w, h] = [size(0), size(1)];
    const r = Math.min(w, h) / 2;
    const [dx, dy] = [w / 2 - r, h / 2 - r];
    if (hole(2).length > 0)
      return make([], clipAreas("difference", [capsuleRing(-dx, -dy, dx, dy, r)], hole(2)));
    return make([{ x1: -dx, y1: -dy, x2: dx, y2: dy, r }], []);
  }
  if (template === "P") {
    const [d, n] = [size(0), p[1] ?? 0];
    if (!Number.isInteger(n) || n < 3 || n > 12)
      throw new Error(`D${code} has ${n} corners; 3 to 12 are allowed`);
    const turn = ((p[2] ?? 0) * Math.PI) / 180;
    const ring: number[] = [];
    for (let k = 0; k < n; k++) {
      const a = turn + (2 * Math.PI * k) / n;
      ring.push((d / 2) * Math.cos(a), (d / 2) * Math.sin(a));
    }
    return make([], hole(3).length > 0 ? clipAreas("difference", [ring], hole(3)) : [[ring]]);
  }
  const macro = macros.get(template);
  if (!macro) throw new Error(`D${code} uses the macro ${template}, which is not defined before it`);
  return make([], drawMacro(macro, p, unitMm));
}

/** The same stamp mirrored, turned and scaled. */
export function transformAperture(a: Aperture, t: Transform): Aperture {
  const flips = t.mirrorX !== t.mirrorY;
  const capsules = a.capsules.map((c) => {
    const [x1, y1] = apply(t, c.x1, c.y1);
    const [x2, y2] = apply(t, c.x2, c.y2);
    return { x1, y1, x2, y2, r: c.r * t.scale };
  });
  const areas = a.areas.map((area) =>
    area.map((ring) => {
      const out: number[] = [];
      for (let i = 0; i < ring.length; i += 2) {
        const k = flips ? ring.length - 2 - i : i;
        out.push(...apply(t, ring[k]!, ring[k + 1]!));
      }
      return out;
    }),
  );
  return {
    ...a,
    capsules,
    areas,
    box: boxOf(capsules, areas),
    ...(a.circleMm === undefined ? {} : { circleMm: a.circleMm * t.scale }),
  };
}

function boxOf(
  capsules: Aperture["capsules"],
  areas: readonly (readonly (readonly number[])[])[],
): [number, number, number, number] {
  let [x0, y0, x1, y1] = [
    Number.POSITIVE_INFINITY,
    Number.POSITIVE_INFINITY,
    Number.NEGATIVE_INFINITY,
    Number.NEGATIVE_INFINITY,
  ];
  const add = (x: number, y: number, r: number) => {
    x0 = Math.min(x0, x - r);
    y0 = Math.min(y0, y - r);
    x1 = Math.max(x1, x + r);
    y1 = Math.max(y1, y + r);
  };
  for (const c of capsules) {
    add(c.x1, c.y1, c.r);
    add(c.x2, c.y2, c.r);
  }
  for (const area of areas)
    for (const ring of area) for (let i = 0; i < ring.length; i += 2) add(ring[i]!, ring[i + 1]!, 0);
  return x0 <= x1 ? [x0, y0, x1, y1] : [0, 0, 0, 0];
}
