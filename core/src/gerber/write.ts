/** A statement about a whole layer, as its name and fields. */
export type FileAttribute = readonly [name: string, ...fields: string[]];

/** Six decimals of a millimetre: the file counts nanometres. */
export const nm = (mm: number): number => Math.round(mm * 1e6);

/** Letters that end a field, and those beyond plain ones, are written as their code (domain.md 11.1). */
const field = (text: string): string =>
  text.replace(/[%*,\\]|[^ -~]/g, (c) => `\\u${c.charCodeAt(0).toString(16).padStart(4, "0").toUpperCase()}`);

/** The first lines of a layer file: who wrote it, what it is, its unit. */
export const fileHead = (attributes: readonly FileAttribute[]): string[] => [
  ...[["GenerationSoftware", "Kobbin", "Kobbin", "1"] as const, ...attributes].map(
    ([name, ...fields]) => `%TF.${[name, ...fields.map(field)].join(",")}*%`,
  ),
  "%FSLAX46Y46*%",
  "%MOMM*%",
];

/**
 * A layer of filled areas in the published layer format: millimetres, six decimals, dark, each ring a region of its own.
 *
 * Corners are rounded to a nanometre; a ring that shrinks to fewer than three corners by it is left out.
 *
 * @param rings [x0, y0, x1, y1, …] in mm, not closed, without holes
 * @param attributes of the file, besides who wrote it
 * @returns the file's text, line ends LF, plain letters only
 */
export function writeAreas(
  rings: readonly (readonly number[])[],
  attributes: readonly FileAttribute[],
): string {
  const lines = [...fileHead(attributes), "%LPD*%", "G01*"];
  for (const ring of rings) {
    const corners: string[] = [];
    for (let i = 0; i < ring.length; i += 2) {
      const at = `X${nm(ring[i]!)}Y${nm(ring[i + 1]!)}`;
      if (at !== corners.at(-1)) corners.push(at);
    }
    if (corners.length > 1 && corners[0] === corners.at(-1)) corners.pop();
    if (corners.length < 3) continue;
    lines.push(
      "G36*",
      `${corners[0]}D02*`,
      ...[...corners.slice(1), corners[0]].map((c) => `${c}D01*`),
      "G37*",
    );
  }
  lines.push("M02*", "");
  return lines.join("\n");
}

/** A text of plain letters as bytes. */
export const plainBytes = (text: string): Uint8Array => Uint8Array.from(text, (c) => c.charCodeAt(0));
