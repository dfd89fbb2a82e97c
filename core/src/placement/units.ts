import type { LengthUnit } from "./column.ts";

/** Words of units in a heading, a cell or a comment, with millimetres in one of them. */
const WORDS: readonly (readonly [RegExp, number])[] = [
  [/^(mms?|mm\.|millim[eè]t(er|re)s?|milímetros?|millimetri|milimetry|milimetrów|metric|мм)$/i, 1],
  [/^(mils?|thous?|th|milésimas?)$/i, 0.0254],
  [
    /^(in|inch|inches|ins|imperial|"|″|''|zoll|pouces?|pulgadas?|pollic[ei]|duim|cal|cale|cali|polegadas?|palce|palců|tum|tommer)$/i,
    25.4,
  ],
  [/^(µm|μm|um|microns?|micromet(er|re)s?|mikrometer|mikron)$/i, 0.001],
  [/^(nm|nanomet(er|re)s?)$/i, 1e-6],
  [/^(cm|centimet(er|re)s?|zentimeter)$/i, 10],
];

/** Millimetres in one of a unit by its word; undefined where it is none. */
export const factorOf = (word: string): number | undefined => WORDS.find(([is]) => is.test(word.trim()))?.[1];

const PARTS: readonly (readonly [RegExp, number])[] = [
  [/^(tenths?|zehntel)$/i, 0.1],
  [/^(hundredths?|hundertstel|centièmes?|centésim[oa]s?)$/i, 0.01],
  [/^(thousandths?|tausendstel|millièmes?)$/i, 0.001],
];
/** 1/100, 1:1000, 0.01, 0,1, 10: how many of the unit behind it. */
const COUNT =
  /(?<![\p{L}\p{N}.,])(?:(1)\s*[/:]\s*(10{1,4})|(\d{1,4}(?:[.,]\d{1,5})?))\s*-?\s*(?=[\p{L}°"″])/gu;

/** A unit found in a text: how many of its base there are in one, and where it stands. */
export interface UnitFound {
  readonly factor: number;
  readonly from: number;
  readonly to: number;
}

/**
 * The unit a text names, with a count in front of it or parts of it in words: "1/100 mm", "0.1 mil", "thousandths of an
 * inch"; undefined where it names none, or several that differ.
 *
 * @param base of a word: millimetres or degrees in one
 */
export function unitIn(
  text: string,
  base: (word: string) => number | undefined = factorOf,
): UnitFound | undefined {
  const found: UnitFound[] = [];
  for (const m of text.matchAll(/[\p{L}µμ]+\.?|["″°]|''/gu)) {
    const word = m[0].replace(/\.$/, "");
    const factor = base(word);
    if (factor === undefined) continue;
    const before = text.slice(0, m.index);
    const to = m.index + m[0].length;
    const part = /([\p{L}]+)\s+(?:of\s+(?:an?\s+)?|eines\s+|d[e']\s*|di\s+)?$/iu.exec(before);
    const parts = part ? PARTS.find(([is]) => is.test(part[1]!))?.[1] : undefined;
    if (parts !== undefined) {
      found.push({ factor: factor * parts, from: part!.index, to });
      continue;
    }
    const count = [...before.matchAll(new RegExp(COUNT.source.replace(/\(\?=.*$/, "$"), "gu"))].at(-1);
    const n = !count ? 1 : count[1] ? 1 / Number(count[2]) : Number(count[3]!.replace(",", "."));
    found.push({ factor: Number((factor * n).toPrecision(12)), from: count?.index ?? m.index, to });
  }
  const kinds = new Set(found.map((f) => f.factor));
  return kinds.size === 1 ? found[0] : undefined;
}

/** Degrees in one of a unit of angle. */
export const degreesOf = (word: string): number | undefined =>
  /^(°|deg|degs|degrees?|grad|grade|grados?|gradi|graden|stopni[ei]?|graus?|degrés?)$/i.test(word)
    ? 1
    : /^(mdeg|millidegrees?)$/i.test(word)
      ? 0.001
      : /^(cdeg|centidegrees?)$/i.test(word)
        ? 0.01
        : /^(ddeg|decidegrees?)$/i.test(word)
          ? 0.1
          : /^(rad|radians?|radiant|bogenmaß)$/i.test(word)
            ? 180 / Math.PI
            : /^(mrad|milliradians?)$/i.test(word)
              ? 0.18 / Math.PI
              : /^(gon|gradians?|gons)$/i.test(word)
                ? 0.9
                : undefined;

const CLOCKWISE =
  /(?:^|[^\p{L}])(?:clock ?wise|cw|(?:im )?uhrzeigersinn|(?:sens|sentido|senso) (?:horaire|horario|horário|orario|des aiguilles)|met de klok mee|zgodnie z ruchem wskazówek)(?=$|[^\p{L}])/iu;
const AGAINST = /counter|anti|ccw|gegen|entgegen|trigonom|tegen|przeciwnie|inverso|sinistrorso/i;

/** Which way round a text says that parts are turned; undefined where it says nothing of it. */
export function senseIn(text: string): "clockwise" | "counter-clockwise" | undefined {
  if (/counter[- ]?clock|anti[- ]?clock|(^|[^a-z])ccw([^a-z]|$)/i.test(text)) return "counter-clockwise";
  if (!CLOCKWISE.test(text)) return undefined;
  return AGAINST.test(text) ? "counter-clockwise" : "clockwise";
}

/** The name of the unit a table is told as. */
export const nameOfFactor = (factor: number): LengthUnit =>
  factor === 25.4 ? "inch" : Math.abs(factor - 0.0254) < 1e-12 ? "mil" : "mm";

/** How a factor is told to people. */
export const saysFactor = (factor: number): string =>
  ({
    "1": "millimetres",
    "0.0254": "mil",
    "25.4": "inches",
    "0.001": "micrometres",
    "0.01": "hundredths of a millimetre",
    "0.1": "tenths of a millimetre",
    "0.00254": "tenths of a mil",
    "10": "centimetres",
  })[String(Number(factor.toPrecision(6)))] ?? `${Number(factor.toPrecision(6))} mm`;
