/** As many boards may be named at once as the server takes. */
const MOST = 2000;

/**
 * Boards as people write them: "3", "3, 5", "3-6", "1 4 7–9". In order, each once.
 *
 * @returns what is wrong with it in words, where something is
 */
export function unitsIn(text: string): { readonly units: readonly number[] } | { readonly wrong: string } {
  const pieces = text
    .replace(/\s*[-–—]\s*/g, "-")
    .split(/[\s,;]+/)
    .filter((p) => p !== "");
  if (pieces.length === 0) return { wrong: "Say which boards." };
  const units = new Set<number>();
  for (const piece of pieces) {
    const [, a, b] = /^(\d{1,6})(?:-(\d{1,6}))?$/.exec(piece) ?? [];
    if (a === undefined) return { wrong: `“${piece}” is no board: 3, 5-8.` };
    const [from, to] = [Number(a), Number(b ?? a)];
    if (from < 1 || to < from) return { wrong: `“${piece}” names no board.` };
    if (to - from >= MOST) return { wrong: `At most ${MOST} boards at once.` };
    for (let u = from; u <= to; u++) units.add(u);
  }
  if (units.size > MOST) return { wrong: `At most ${MOST} boards at once.` };
  return { units: [...units].sort((x, y) => x - y) };
}
