/** Chip sizes: imperial name, metric name, body length and width in mm (published size codes; domain.md 3.4). */
const SIZES: readonly (readonly [imperial: string, metric: string, lengthMm: number, widthMm: number])[] = [
  ["01005", "0402", 0.4, 0.2],
  ["0201", "0603", 0.6, 0.3],
  ["0402", "1005", 1.0, 0.5],
  ["0603", "1608", 1.6, 0.8],
  ["0805", "2012", 2.0, 1.25],
  ["1206", "3216", 3.2, 1.6],
  ["1210", "3225", 3.2, 2.5],
  ["1806", "4516", 4.5, 1.6],
  ["1812", "4532", 4.5, 3.2],
  ["2010", "5025", 5.0, 2.5],
  ["2220", "5750", 5.7, 5],
  ["2512", "6332", 6.3, 3.2],
];

/** A chip size by its imperial name, in whatever else a package text holds. */
export const CHIP = new RegExp(`(?:^|[^0-9])(${SIZES.map(([i]) => i).join("|")})(?![0-9])`);

/** A chip's body by the size in its package text: imperial where both systems have the code, unless it says metric. */
export function chipBody(
  packageText: string,
): { readonly code: string; readonly lengthMm: number; readonly widthMm: number } | undefined {
  const metric = /(?:^|\D)(\d{4})\s*(?:M\b|METRIC)/i.exec(packageText)?.[1];
  const bare = /(?:^|\D)(\d{4})(?!\d)/.exec(packageText)?.[1];
  const imperial = CHIP.exec(packageText)?.[1];
  const size =
    metric === undefined
      ? (SIZES.find(([i]) => i === imperial) ?? SIZES.find(([, m]) => m === bare))
      : SIZES.find(([, m]) => m === metric);
  return size && { code: size[0], lengthMm: size[2], widthMm: size[3] };
}

/** Two pads' middles stand about as far apart as the body is long; thin and wide footprints stay within this. */
const FITS = (spanMm: number, lengthMm: number) => spanMm > 0.65 * lengthMm && spanMm < 1.45 * lengthMm;

/** A chip size that does not go with the pads it shall stand on. */
export interface SizeMisfit {
  /** The size as listed. */
  readonly listed: string;
  readonly spanMm: number;
  /** Sizes that would fit, both names; the one the same digits mean in the other system first. */
  readonly fits: readonly string[];
}

/** What is looked at of a measured board: its nets with the pads of each. */
export interface PadsByNet {
  readonly nets?: {
    readonly islands?: readonly {
      readonly pads: readonly { readonly x: number; readonly y: number; readonly pin?: string }[];
    }[];
  };
}

/** The pads of each part, by its reference: those whose pin says whose they are. */
export function padsByPart<P extends { readonly pin?: string }>(measure: {
  readonly nets?: { readonly islands?: readonly { readonly pads: readonly P[] }[] };
}): Map<string, (P & { readonly pin: string })[]> {
  const out = new Map<string, (P & { readonly pin: string })[]>();
  for (const island of measure.nets?.islands ?? [])
    for (const p of island.pads) {
      const dot = p.pin?.lastIndexOf(".") ?? -1;
      if (dot <= 0) continue;
      const ref = p.pin!.slice(0, dot);
      const own = { ...p, pin: p.pin!.slice(dot + 1) };
      const list = out.get(ref);
      if (list) list.push(own);
      else out.set(ref, [own]);
    }
  return out;
}

/** Distance between the middles of the two pads of each part that has just two pins, by reference. */
export function padSpans(measure: PadsByNet): Map<string, number> {
  const out = new Map<string, number>();
  for (const [ref, [a, b, ...more]] of padsByPart(measure))
    if (a && b && more.length === 0 && a.pin !== b.pin) out.set(ref, Math.hypot(a.x - b.x, a.y - b.y));
  return out;
}

/**
 * Checks a chip size against the distance of the pads. 0201, 0402 and 0603 mean something in either system: what the
 * pads say outranks the imperial reading, which is meant as a rule.
 *
 * @returns undefined where the package is no chip size, or fits
 */
export function sizeMisfit(packageText: string, spanMm: number): SizeMisfit | undefined {
  const code = /(?:^|[^0-9])(01005|\d{4})(M|\s*metric)?(?![0-9])/i.exec(packageText);
  if (!code) return undefined;
  const [, digits, metric] = code;
  const saysBoth = SIZES.some(([i, m]) => packageText.includes(i) && packageText.includes(m) && i !== m);
  const size =
    SIZES.find(([i, m]) => (metric ? m === digits : i === digits)) ??
    SIZES.find(([i, m]) => m === digits || i === digits);
  if (!size || saysBoth || FITS(spanMm, size[2])) return undefined;
  const fits = SIZES.filter(([, , length]) => FITS(spanMm, length))
    .sort(
      (a, b) =>
        Number(b[1] === digits) - Number(a[1] === digits) ||
        Math.abs(a[2] - spanMm) - Math.abs(b[2] - spanMm),
    )
    .map(([i, m]) => `${i} (${m} metric)`);
  return { listed: digits!, spanMm, fits: fits.slice(0, 2) };
}

/** Codes that name a size in either system. */
const IN_BOTH = /(?:^|[^0-9])(0201|0402|0603)(?![0-9])/;

/** A package text that names one size, in one system only and so that the other could be meant. */
export const isAmbiguousSize = (packageText: string): boolean =>
  IN_BOTH.test(packageText) &&
  !SIZES.some(([i, m]) => packageText.includes(i) && packageText.includes(m)) &&
  !/\d{4}\s*(M\b|metric)/i.test(packageText);

/**
 * Which system a bill is written in, told by sizes that exist in one only: 0805, 1206 … are imperial, 1608, 2012, 3216
 * metric (domain.md 3.4). Undefined where there are none, or both.
 */
export function sizeSystem(packages: readonly string[]): "imperial" | "metric" | undefined {
  const has = (codes: readonly string[]) =>
    packages.some((p) => codes.some((c) => new RegExp(`(^|[^0-9])${c}(?![0-9])`).test(p)));
  const imperial = has(["0805", "1206", "1210", "1812", "2512", "01005"]);
  const metric = has(["1005", "1608", "2012", "3216", "3225"]);
  return imperial === metric ? undefined : imperial ? "imperial" : "metric";
}

/**
 * A chip size under both its names, as it is written on documents; other packages as they are.
 * @example bothSizes("R_0603") // "R_0603 (1608 metric)"
 */
export function bothSizes(packageText: string): string {
  if (SIZES.some(([i, m]) => packageText.includes(i) && packageText.includes(m))) return packageText;
  const metric = /(?:^|[^0-9])(\d{4})\s*(M\b|metric)/i.exec(packageText)?.[1];
  if (metric) {
    const size = SIZES.find(([, m]) => m === metric);
    return size ? `${packageText} (${size[0]} imperial)` : packageText;
  }
  const size = SIZES.find(([i]) => i === CHIP.exec(packageText)?.[1]);
  return size ? `${packageText} (${size[1]} metric)` : packageText;
}
