/** The pins of one part as points, about their common middle. */
export interface Pattern {
  readonly ref: string;
  readonly side: "top" | "bottom";
  /** Middle of the pins in the board's coordinates, mm. */
  readonly x: number;
  readonly y: number;
  /** Pin names in order, and where each lies from the middle, as seen from the part's own side: x right, y up. */
  readonly pins: readonly string[];
  readonly at: readonly (readonly [number, number])[];
  /** As stated; undefined where no file places the part. */
  readonly rotationDeg?: number;
}

type Point = readonly [number, number];

/** Pads of one pattern may lie this far from those of its like, mm. */
const SLACK_MM = 0.04;
/** Patterns of more pins are compared pin by pin only. */
const MOST_UNNAMED = 160;

/** A pattern from pins and places in the board's coordinates; the middle of a pin's pads stands for it. */
export function patternOf(
  ref: string,
  side: "top" | "bottom",
  places: readonly { readonly pin: string; readonly x: number; readonly y: number }[],
  rotationDeg?: number,
): Pattern {
  const sums = new Map<string, [number, number, number]>();
  for (const p of places) {
    const s = sums.get(p.pin) ?? [0, 0, 0];
    sums.set(p.pin, [s[0] + p.x, s[1] + p.y, s[2] + 1]);
  }
  const pins = [...sums.keys()].sort();
  const means = pins.map((p): Point => {
    const [x, y, n] = sums.get(p)!;
    return [x / n, y / n];
  });
  const x = means.reduce((a, p) => a + p[0], 0) / means.length;
  const y = means.reduce((a, p) => a + p[1], 0) / means.length;
  const sign = side === "bottom" ? -1 : 1;
  return {
    ref,
    side,
    x,
    y,
    pins,
    at: means.map((p): Point => [sign * (p[0] - x), p[1] - y]),
    ...(rotationDeg === undefined ? {} : { rotationDeg }),
  };
}

const turn = ([x, y]: Point, degrees: number): Point => {
  const [c, s] = [Math.cos((degrees * Math.PI) / 180), Math.sin((degrees * Math.PI) / 180)];
  return [x * c - y * s, x * s + y * c];
};
const mirrored = (p: Pattern): Pattern => ({ ...p, at: p.at.map(([x, y]): Point => [-x, y]) });

/**
 * Degrees, counter-clockwise seen from the part's side, by which `from` must be turned so that each pin lies on the pin
 * of the same name of `to`: the least squares turn, checked pin by pin. Undefined where no turn does it.
 */
export function turnBetween(from: Pattern, to: Pattern): number | undefined {
  if (from.pins.length !== to.pins.length) return undefined;
  let [dot, cross] = [0, 0];
  from.at.forEach(([x, y], i) => {
    const [u, v] = to.at[i]!;
    dot += x * u + y * v;
    cross += x * v - y * u;
  });
  const degrees = (Math.atan2(cross, dot) * 180) / Math.PI;
  const fits = from.at.every((p, i) => {
    const [x, y] = turn(p, degrees);
    return from.pins[i] === to.pins[i] && Math.hypot(x - to.at[i]![0], y - to.at[i]![1]) <= SLACK_MM;
  });
  return fits ? degrees : undefined;
}

/** Turns that lay the points of `from` onto those of `to`, whatever their names. */
export function turnsOfPoints(from: Pattern, to: Pattern): number[] {
  if (from.pins.length !== to.pins.length || from.pins.length > MOST_UNNAMED) return [];
  const reach = ([x, y]: Point) => Math.hypot(x, y);
  const far = to.at.reduce((a, p) => (reach(p) > reach(a) ? p : a));
  const angle = (p: Point) => (Math.atan2(p[1], p[0]) * 180) / Math.PI;
  return from.at
    .filter((p) => Math.abs(reach(p) - reach(far)) <= SLACK_MM && reach(p) > SLACK_MM)
    .map((p) => ((angle(far) - angle(p) + 540) % 360) - 180)
    .filter((degrees) => {
      const free = new Set(to.at.keys());
      return from.at.every((p) => {
        const [x, y] = turn(p, degrees);
        for (const k of free)
          if (Math.hypot(to.at[k]![0] - x, to.at[k]![1] - y) <= SLACK_MM) return free.delete(k);
        return false;
      });
    });
}

/** How a pattern lies against its like. */
export type Relation =
  | { readonly kind: "same" }
  | { readonly kind: "mirrored" }
  /** Pins that lie where others of its like do. */
  | { readonly kind: "swapped"; readonly pins: readonly string[] };

/** How `one` is made against `like`; undefined where they are patterns of different parts. */
export function relationOf(one: Pattern, like: Pattern): Relation | undefined {
  if (one.pins.join("\n") !== like.pins.join("\n")) return undefined;
  if (turnBetween(like, one) !== undefined) return { kind: "same" };
  // as few pins as can be are called swapped: of the turns that lay pads on pads, the one that fits most names
  const swapped = turnsOfPoints(like, one)
    .map((degrees) =>
      like.pins.filter((_, i) => {
        const [x, y] = turn(like.at[i]!, degrees);
        return Math.hypot(x - one.at[i]![0], y - one.at[i]![1]) > SLACK_MM;
      }),
    )
    .sort((a, b) => a.length - b.length)[0];
  if (swapped?.length === 2) return { kind: "swapped", pins: swapped };
  if (turnBetween(mirrored(like), one) !== undefined) return { kind: "mirrored" };
  if (swapped) return { kind: "swapped", pins: swapped };
  return turnsOfPoints(mirrored(like), one).length > 0 ? { kind: "swapped", pins: like.pins } : undefined;
}

/** Turns other than none that lay the pads of a pattern on themselves. */
export const ownTurns = (p: Pattern): number[] =>
  turnsOfPoints(p, p).filter((degrees) => Math.abs(degrees) > 1);
