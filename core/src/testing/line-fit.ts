import Big from "big.js";

/** Something known that is applied while an item is read: one point of a line that is worked out for each board. */
export interface LinePoint {
  /** What is calibrated: points that say the same are of one line. */
  readonly of: string;
  /** Decimal text in the unit. */
  readonly applied: string;
  readonly unit: string;
  /** How far off the line a point may lie, ±; where several points of a line say it, the least counts. */
  readonly worst?: string;
  /** The most that may ever be applied; where several say it, the least counts. */
  readonly most?: string;
  /** For so many days the line is taken to be true; where several say it, the least counts. */
  readonly days?: number;
  /** What is read follows no straight line: constants are the points themselves. One point that says so speaks for its line. */
  readonly form?: "pieces";
}

/** What is read follows what is applied straight from point to point: the points are the constants. */
export interface PiecesFit {
  readonly kind: "pieces";
  /** By what is applied, ascending. */
  readonly points: readonly { readonly applied: number; readonly reading: number }[];
}

/** What comes of the points of a line. */
export type LineFit = StraightFit | PiecesFit;

/** A straight line through what was read, turned round: what was applied = gain × what is read + offset. */
export interface StraightFit {
  readonly kind: "straight";
  readonly gain: number;
  readonly offset: number;
  /** Each point, and by how much the line misses what was applied there. */
  readonly points: readonly { readonly applied: number; readonly reading: number; readonly off: number }[];
  /** The point that is missed by most. */
  readonly worst: number;
}

/**
 * Constants of a line from the points that were applied and read (needs N128).
 *
 * Least squares of the readings over what was applied, since the error is in the reading and not in what is applied, then turned
 * round (the classical estimator of linear calibration; recalled): with g = Sxy / Sxx and o = ȳ − g x̄ it is gain = 1/g,
 * offset = −o/g. Through two points the line goes exactly, and misses neither.
 *
 * @returns undefined for fewer than two different points, or where the reading does not follow what is applied
 * @example fitLine([{ applied: 0.5, reading: 512 }, { applied: 2.5, reading: 2540 }]) // gain 1/1014, offset −5/1014
 */
export function fitLine(
  points: readonly { readonly applied: number; readonly reading: number }[],
): StraightFit | undefined {
  const n = points.length;
  const mean = (of: (p: (typeof points)[number]) => number) => points.reduce((a, p) => a + of(p), 0) / n;
  const [x, y] = [mean((p) => p.applied), mean((p) => p.reading)];
  const sum = (of: (p: (typeof points)[number]) => number) => points.reduce((a, p) => a + of(p), 0);
  const sxx = sum((p) => (p.applied - x) ** 2);
  const sxy = sum((p) => (p.applied - x) * (p.reading - y));
  // means of equal numbers may miss them by a last bit
  const isFlat = (of: (p: (typeof points)[number]) => number) => new Set(points.map(of)).size < 2;
  if (isFlat((p) => p.applied) || isFlat((p) => p.reading) || sxy === 0) return undefined;
  const slope = sxy / sxx;
  const origin = y - slope * x;
  const fitted = points.map((p) => ({ ...p, off: (p.reading - origin) / slope - p.applied }));
  const off = fitted.map((p) => Math.abs(p.off));
  return {
    kind: "straight",
    gain: 1 / slope,
    offset: -origin / slope,
    points: fitted,
    worst: off.indexOf(Math.max(...off)),
  };
}

/**
 * Constants of what follows no straight line: the points, between which it is taken to be straight.
 *
 * @returns undefined for fewer than two points, or where what is read turns back or stands still: it could not be told from it
 */
export function fitPieces(
  points: readonly { readonly applied: number; readonly reading: number }[],
): PiecesFit | undefined {
  const sorted = [...points].sort((a, b) => a.applied - b.applied);
  const steps = sorted.slice(1).map((p, i) => Math.sign(p.reading - sorted[i]!.reading));
  const isSteady = steps.length > 0 && steps[0] !== 0 && steps.every((s) => s === steps[0]);
  return isSteady
    ? { kind: "pieces", points: sorted.map(({ applied, reading }) => ({ applied, reading })) }
    : undefined;
}

/** A constant as it is written down: six digits, no power of ten. */
export const constant = (n: number): string => Big(n.toPrecision(6)).toFixed();

/** Whether something is off by more than is allowed, as far as it is written down: what no figure shows fails nothing. */
export const isTooFar = (off: number, allowed: string | undefined): boolean =>
  allowed !== undefined && Big(Math.abs(off).toPrecision(6)).gt(allowed);

/**
 * How far something is off beside what is allowed: two digits, or as many as tell the two apart.
 *
 * @example offWords(0.016852, "0.05") // "0.017"
 */
export function offWords(off: number, allowed?: string): string {
  const far = Math.abs(off);
  for (let digits = 2; digits < 6; digits++) {
    const text = Big(far.toPrecision(digits)).toFixed();
    if (allowed === undefined || Math.sign(Big(text).cmp(allowed)) === Math.sign(Big(far).cmp(allowed)))
      return text;
  }
  return constant(far);
}

/**
 * Constants of a line in words: "true V = 0.000986193 × what is read − 0.00493097".
 *
 * @param unit of what is applied @param read unit of what is read; "pieces" are a bare number
 */
export function lineWords(fit: LineFit, unit: string, read: string): string {
  if (fit.kind === "pieces") {
    const of = read === "pieces" ? "" : ` ${read}`;
    return `straight from point to point: ${fit.points.map((p) => `${constant(p.reading)}${of} is ${constant(p.applied)} ${unit}`).join(", ")}`;
  }
  const { gain, offset } = fit;
  const by = constant(Math.abs(offset));
  const rest = Number(by) === 0 ? "" : ` ${offset < 0 ? "−" : "+"} ${by}`;
  return `true ${unit} = ${constant(gain)} × ${read === "pieces" ? "what is read" : `read ${read}`}${rest}`;
}

/**
 * What of a line is written into a board, by the name of a value: "light input gain", "light input offset", or
 * "light input points" where it goes from point to point (what is read, a colon, what is true). In the units of the plan.
 *
 * @returns undefined where the name is of no such line
 */
export function lineValue(
  name: string,
  lines: readonly { readonly of: string; readonly fit: LineFit }[],
): string | undefined {
  const said = name.trim().replace(/\s+/g, " ").toLowerCase();
  for (const { of, fit } of lines) {
    const own = of.trim().replace(/\s+/g, " ").toLowerCase();
    if (fit.kind === "pieces" && said === `${own} points`)
      return fit.points.map((p) => `${constant(p.reading)}:${constant(p.applied)}`).join(" ");
    if (fit.kind === "straight" && said === `${own} gain`) return constant(fit.gain);
    if (fit.kind === "straight" && said === `${own} offset`) return constant(fit.offset);
  }
  return undefined;
}

/** The points of one line, as a plan has them. */
export interface PlannedLine<T> {
  readonly of: string;
  readonly items: readonly T[];
  /** Of what is applied, and of what is read. */
  readonly unit: string;
  readonly read: string;
  readonly worst?: string;
  readonly most?: string;
  readonly days?: number;
  /** Straight through all, or straight from point to point. */
  readonly form: LineFit["kind"];
}

interface PointItem {
  readonly name: string;
  readonly unit?: string;
  readonly point?: LinePoint;
}

const least = (list: readonly (string | undefined)[]): string | undefined =>
  list.filter((v) => v !== undefined).sort((a, b) => Big(a).abs().cmp(Big(b).abs()))[0];

/** The lines of a plan, in the order of their first points. */
export function linesOf<T extends PointItem>(plan: readonly T[]): PlannedLine<T>[] {
  const names = [...new Set(plan.flatMap((t) => (t.point ? [t.point.of] : [])))];
  return names.map((of) => {
    const items = plan.filter((t) => t.point?.of === of);
    const points = items.map((t) => t.point!);
    const [worst, most] = [least(points.map((p) => p.worst)), least(points.map((p) => p.most))];
    const days = points.flatMap((p) => (p.days === undefined ? [] : [p.days]));
    return {
      of,
      items,
      unit: points[0]!.unit,
      read: items[0]!.unit ?? "",
      ...(worst === undefined ? {} : { worst }),
      ...(most === undefined ? {} : { most }),
      ...(days.length === 0 ? {} : { days: Math.min(...days) }),
      form: points.some((p) => p.form === "pieces") ? "pieces" : "straight",
    };
  });
}

/** Why no line comes of some points, or what they say nothing of; undefined where all is well. */
export function lineWrong(
  l: PlannedLine<PointItem>,
): { readonly because: string; readonly isNone: boolean } | undefined {
  const points = l.items.map((t) => t.point!);
  const none = (because: string) => ({ because, isNone: true });
  if (l.items.some((t) => t.unit === undefined)) return none("a point that is answered by yes or no is none");
  if (new Set(points.map((p) => p.unit)).size > 1) return none("its points are applied in different units");
  if (new Set(l.items.map((t) => t.unit)).size > 1) return none("its points are read in different units");
  const apart = new Set(points.map((p) => Big(p.applied).toFixed())).size;
  if (apart < points.length) return none("a point is in it twice");
  if (apart < 2) return none("one point makes no line");
  if (apart === 2 && l.form === "straight")
    return {
      because: "two points lie on a line whatever they read: nothing is known of what is between them",
      isNone: false,
    };
  return l.worst === undefined && l.form === "straight"
    ? { because: "how far off a point may lie is not said, so every line passes", isNone: false }
    : undefined;
}

/** What is done at a point, in words: "0.5 V applied, never more than 3.3 V". */
export const pointWords = ({
  applied,
  unit,
  most,
}: Pick<LinePoint, "applied" | "unit"> & { readonly most?: string | undefined }): string =>
  `${applied} ${unit} applied${most === undefined ? "" : `, never more than ${most} ${unit}`}`;
