import type { Measure } from "./measure-document.ts";

type Read = Pick<Measure, "layers" | "findings">;

/** Roles whose files make the board: what is lost of one is missing in the figures. */
const ON_THE_BOARD = ["copper", "mask", "paste", "legend", "profile", "drill"];
/** Losses of a whole file, which name no line. */
const WHOLE = ["empty-file", "not-a-layer-file"];

/**
 * The files of a board of which something, or all, could not be read, in the order of its files. Figures of such a board
 * are of what could be read: a count is at least so much, a least value may be less.
 *
 * @returns paths; empty where everything was read
 */
export function partlyRead({ layers, findings }: Read): string[] {
  const lost = findings.filter((f) => f.level === "error" && f.file);
  const inPart = new Set(lost.flatMap((f) => (f.line ? [f.file] : [])));
  const whole = new Set(lost.flatMap((f) => (WHOLE.includes(f.tag) ? [f.file] : [])));
  return layers
    .filter((l) => whole.has(l.file) || (ON_THE_BOARD.includes(l.role) && inPart.has(l.file)))
    .map((l) => l.file);
}

/** Whether holes are among what could not be read: what is counted of them is then a least number. */
export const isHolesLeast = (m: Read): boolean => {
  const lost = partlyRead(m);
  return m.layers.some((l) => (l.role === "drill" || l.role === "unknown") && lost.includes(l.file));
};
