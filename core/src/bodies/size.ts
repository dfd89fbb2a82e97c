import { chipBody } from "../bom/chip-size.ts";

/** Extents of a part's pads in its own axes, between their middles: along the row of its first pins, and across it. */
export interface PadSpan {
  readonly alongMm: number;
  readonly acrossMm: number;
}

/** A body's size and where it is from: the shop's own word, the name of the package, what is usual, or the pads alone. */
export interface BodySize {
  readonly lengthMm: number;
  readonly widthMm: number;
  /** Left out where nothing says it. */
  readonly heightMm?: number;
  readonly sizeFrom: "stated" | "package" | "pads";
  readonly heightFrom?: "stated" | "package" | "usual";
  /** Which way the length lies: along the row of the first pins, or along the greater extent of the pads. */
  readonly lies: "row" | "longest";
}

/** What the library knows of a body. */
export interface StatedSize {
  readonly bodyLengthMm?: number | undefined;
  readonly bodyWidthMm?: number | undefined;
  readonly heightMm?: number | undefined;
}

/** Usual greatest heights of chips by imperial code, mm: resistors, everything else (recalled from published outlines). */
const CHIP_HEIGHTS: Readonly<Record<string, readonly [resistor: number, other: number]>> = {
  "01005": [0.15, 0.22],
  "0201": [0.26, 0.33],
  "0402": [0.4, 0.6],
  "0603": [0.55, 0.95],
  "0805": [0.65, 1.45],
  "1206": [0.7, 1.8],
  "1210": [0.7, 2.8],
  "1806": [0.7, 1.8],
  "1812": [0.7, 3.2],
  "2010": [0.7, 2.8],
  "2220": [0.7, 3.2],
  "2512": [0.7, 3.2],
};

/**
 * Families whose leads reach beyond their body: what is added to the pads' span along and across the row, and the usual
 * greatest height, mm (recalled from published outlines).
 */
const LEADED: readonly (readonly [RegExp, number, number, number])[] = [
  [/SOT-?223/, 1.9, 1, 1.8],
  [/SOT-?89/, 1.5, 1, 1.6],
  [/SOT|SC-?70|SC-?88/, 1, 0.4, 1.3],
  [/SOD-?(123|323|523)/, 0.4, 1.6, 1.35],
  [/\bSM[ABC]\b|DO-?214/, 0.8, 3, 2.6],
  [/D2PAK|TO-?263/, 4, 2, 4.7],
  [/DPAK|TO-?252/, 2, 2, 2.5],
  [/TSSOP|MSOP|VSSOP/, 1.1, 0.6, 1.2],
  [/SSOP/, 1.1, 0.6, 2],
  [/SOIC|SOP|\bSO-?\d/, 1.1, 0.6, 1.75],
  [/QFP/, 0.6, 0.6, 1.6],
  [/QFN|DFN|SON\b|LCC/, 0.6, 0.6, 1],
  [/BGA|LGA|CSP/, 1, 1, 1.7],
];

/**
 * How large a part's body is, by the shop's own word, else by the name of its package, else by its pads.
 *
 * A land pattern's name carries span and height in hundredths of a millimetre (RESC1608X55N); chips go by their size code;
 * leaded families by their pads and what their leads and moulding reach beyond them; rows of pins by rows, columns and
 * pitch. What only its pads tell is at least as large as they reach, and no height is claimed.
 *
 * @param letters of its reference, which tell a resistor's height from a capacitor's
 * @returns undefined where neither name nor pads say anything
 * @example bodySize("RESC1608X55N", "R") // 1.6 × 0.8 × 0.55
 */
export function bodySize(
  packageText: string,
  letters: string,
  span?: PadSpan,
  stated: StatedSize = {},
): BodySize | undefined {
  const named = byName(packageText.toUpperCase(), letters, span) ?? byPads(span);
  const { bodyLengthMm, bodyWidthMm, heightMm } = stated;
  const hasBody = bodyLengthMm !== undefined && bodyWidthMm !== undefined;
  if (!named && !hasBody) return undefined;
  const size: BodySize = hasBody
    ? {
        ...named,
        lengthMm: Math.max(bodyLengthMm, bodyWidthMm),
        widthMm: Math.min(bodyLengthMm, bodyWidthMm),
        sizeFrom: "stated",
        lies: "longest",
      }
    : named!;
  return heightMm === undefined ? size : { ...size, heightMm, heightFrom: "stated" };
}

const byPads = (span: PadSpan | undefined): BodySize | undefined =>
  span && { lengthMm: span.alongMm, widthMm: span.acrossMm, sizeFrom: "pads", lies: "row" };

function byName(p: string, letters: string, span: PadSpan | undefined): BodySize | undefined {
  const rows =
    /(?:HDR|HEADER|PINS?|SOCKET|CONN)\D*(\d{1,2})X0*(\d{1,3})/.exec(p) ??
    // rows by columns with a pitch behind them, whatever family it is
    /(?:^|[^\d.])(\d{1,2})X0*(\d{1,3})[-_ ]*P\d/.exec(p);
  if (rows) return pinRows(Number(rows[1]), Number(rows[2]), p, span);
  return landPattern(p, span) ?? can(p) ?? chip(p, letters) ?? leaded(p, span) ?? digits(p);
}

/** A row of pins of one pitch: each pin takes a square of it. */
function pinRows(rows: number, columns: number, p: string, span: PadSpan | undefined): BodySize {
  const stated = /P(\d(?:\.\d+)?)\s*MM/.exec(p)?.[1];
  const along = span && Math.max(span.alongMm, span.acrossMm);
  const pitch = stated ? Number(stated) : along && columns > 1 ? along / (columns - 1) : 2.54;
  return {
    lengthMm: round(columns * pitch),
    widthMm: round(rows * pitch),
    sizeFrom: "package",
    lies: "longest",
  };
}

/** A land pattern's name: body of chips, span or body of what has leads, height, all in hundredths of a millimetre. */
function landPattern(p: string, span: PadSpan | undefined): BodySize | undefined {
  const two = /^(?:RES|CAP|IND|DIO|LED|FUS)[A-Z]*?(\d{2})(\d{2})X(\d{2,3})/.exec(p);
  if (two) {
    const known = chipBody(`${two[1]}${two[2]}M`);
    const [length, width] = known
      ? [known.lengthMm, known.widthMm]
      : [Number(two[1]) / 10, Number(two[2]) / 10];
    return { lengthMm: length, widthMm: width, lies: "row", ...height(Number(two[3])) };
  }
  const three = /\d+P(\d{2,4})X(\d{2,4})X(\d{2,4})-/.exec(p);
  if (three)
    return {
      lengthMm: Math.max(Number(three[1]), Number(three[2])) / 100,
      widthMm: Math.min(Number(three[1]), Number(three[2])) / 100,
      lies: "longest",
      ...height(Number(three[3])),
    };
  const gull = /(\d+)P(\d{2,4})X(\d{2,4})-(\d{1,3})/.exec(p);
  if (!gull) return undefined;
  const along = (Number(gull[4]) / 2 - 1) * (Number(gull[1]) / 100);
  return {
    lengthMm: round((span?.alongMm ?? along) + 1.1),
    widthMm: Number(gull[2]) / 100,
    lies: "row",
    ...height(Number(gull[3])),
  };
}
const height = (hundredths: number) =>
  ({ heightMm: hundredths / 100, sizeFrom: "package", heightFrom: "package" }) as const;

function chip(p: string, letters: string): BodySize | undefined {
  const known = chipBody(p);
  if (!known) return undefined;
  const { code, lengthMm, widthMm } = known;
  const [low, high] = CHIP_HEIGHTS[code]!;
  return {
    lengthMm,
    widthMm,
    sizeFrom: "package",
    lies: "row",
    // a crystal or an oscillator of such a size is no chip: its height is its own
    ...(/^(?:R|C|L|FB|F|D|LED)$/.test(letters)
      ? { heightMm: letters === "R" ? low : high, heightFrom: "usual" as const }
      : {}),
  };
}

function leaded(p: string, span: PadSpan | undefined): BodySize | undefined {
  const family = LEADED.find(([is]) => is.test(p));
  if (!family || !span) return undefined;
  const [, along, across, heightMm] = family;
  return {
    lengthMm: round(span.alongMm + along),
    widthMm: round(span.acrossMm + across),
    heightMm,
    sizeFrom: "package",
    heightFrom: "usual",
    lies: "row",
  };
}

/** Round cans by diameter and height (D6.3_H5.4, Elec 6.3x5.4), and what lies on its wires by length and diameter. */
function can(p: string): BodySize | undefined {
  const d = /(?:^|[-_ ])D(\d{1,2}(?:\.\d+)?)(?:MM|[-_ ]|$)/.exec(p)?.[1];
  const elec = /ELEC\D*(\d{1,2}(?:\.\d+)?)X(\d{1,2}(?:\.\d+)?)/.exec(p);
  const across = Number(elec?.[1] ?? d ?? 0);
  if (across <= 0) return undefined;
  const long = /AXIAL/.test(p) ? /(?:^|[-_ ])L(\d{1,2}(?:\.\d+)?)/.exec(p)?.[1] : undefined;
  const stated = elec?.[2] ?? /(?:^|[-_ ])H(\d{1,2}(?:\.\d+)?)/.exec(p)?.[1];
  // lying on its wires it is as high as it is thick
  const heightMm = long ? across : stated ? Number(stated) : undefined;
  return {
    lengthMm: long ? Number(long) : across,
    widthMm: across,
    sizeFrom: "package",
    lies: "row",
    ...(heightMm === undefined ? {} : { heightMm, heightFrom: "package" as const }),
  };
}

/** Two numbers are a size where they are millimetres, or the part is of those that are called by their size. */
const CALLED_BY_SIZE = /KEY|\bSW|BTN|BUTTON|TACT|PUSH|\bIND|COIL|XTAL|CRYSTAL|OSC|MODULE/;

/** Sizes written out in a name: KEY-6x6, 12x12x7.3mm. Elsewhere two numbers may be rows and columns. */
function digits(p: string): BodySize | undefined {
  const m =
    /(?:^|[^\d.])(\d{1,2}(?:\.\d+)?)\s*[X×]\s*(\d{1,2}(?:\.\d+)?)(?:\s*[X×]\s*(\d{1,2}(?:\.\d+)?))?\s*(MM)?/.exec(
      p,
    );
  if (!m || !(m[4] || /\./.test(`${m[1]}${m[2]}`) || CALLED_BY_SIZE.test(p))) return undefined;
  const [a, b] = [Number(m[1]), Number(m[2])];
  if (a < 0.5 || b < 0.5) return undefined;
  return {
    lengthMm: Math.max(a, b),
    widthMm: Math.min(a, b),
    sizeFrom: "package",
    lies: "longest",
    ...(m[3] ? { heightMm: Number(m[3]), heightFrom: "package" as const } : {}),
  };
}

const round = (v: number) => Math.round(v * 1000) / 1000;
