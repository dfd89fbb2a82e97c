import type { FactLine } from "./fact-line.ts";

const COLOURS = [
  ["green", /\b(green|grn|gn|gruen|grün|vert|verde)\b/i],
  ["red", /\b(red|rd|rot|rouge|rosso)\b/i],
  ["amber", /\b(amber|orange|ambre)\b/i],
  ["yellow", /\b(yellow|yel|ye|gelb|jaune|giallo)\b/i],
  ["blue", /\b(blue|blu|bl|blau|bleu)\b/i],
  ["white", /\b(white|wht|wh|weiss|weiß|blanc|bianco)\b/i],
] as const;

const textOf = (l: FactLine) => `${l.valueText} ${l.description} ${l.package}`.replace(/_/g, " ");

/** The colour of a lamp out of a line's words; none where they name several. */
export function colourOf(line: FactLine): string | undefined {
  const text = textOf(line);
  const said = COLOURS.filter(([, is]) => is.test(text));
  return said.length === 1 ? said[0]![0] : undefined;
}

/**
 * What a line's words say of a row of pins: "1 × 4 header 2.54", "Conn_01x04", "PinHeader_1x04_P2.54mm_Horizontal".
 * Empty where they name no rows and columns.
 */
export function headerOf(line: FactLine): Record<string, string> {
  const text = textOf(line).replace(/(\d),(\d)/g, "$1.$2");
  const grid = /(?<![\d.])0?(\d)\s*[x×*]\s*0?(\d{1,2})(?![\d.])/i.exec(text);
  if (!grid) return {};
  const pitch = /(?<![\d.])(1\.27|2\.54|3\.81|5\.08|2\.0|3\.5|5\.0)(?!\d)|(?<![\d.])2(?=\s*mm)/.exec(
    text,
  )?.[0];
  const words = /socket|female|receptacle|buchse/i.test(text)
    ? { gender: "socket" }
    : /\b(pins?|header|male|stift\w*|hdr)\b|pin\s*header/i.test(text)
      ? { gender: "pins" }
      : {};
  const lies = /right.?angle|horizontal|lying|angled|90\s*°|\b90deg/i.test(text)
    ? { orientation: "lying" }
    : /vertical|upright|straight/i.test(text)
      ? { orientation: "upright" }
      : {};
  return {
    pins: `${Number(grid[1]) * Number(grid[2])}`,
    rows: `${grid[1]}`,
    ...(pitch ? { pitch: `${Number(pitch)} mm` } : {}),
    ...words,
    ...lies,
  };
}

/** A capacitor that is no ceramic one, by its words or its body. */
export const isOtherCapacitor = (line: FactLine): boolean =>
  /electrolyt|\belko\b|alu(mini)?um|tantal|\btant\b|polymer|film|folie|mica|supercap|radial|axial|\bcase.?[a-e]\b|\bCP[_ ]/i.test(
    `${line.valueText} ${line.description} ${line.package}`,
  );
