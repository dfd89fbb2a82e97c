/** A cell by row and column, from 0. */
export interface Spot {
  readonly row: number;
  readonly col: number;
}

/** A block of cells, edges included. */
export interface Block {
  readonly top: number;
  readonly left: number;
  readonly bottom: number;
  readonly right: number;
}

/** A text for a cell. */
export interface CellEdit extends Spot {
  readonly text: string;
}

export const blockOf = (a: Spot, b: Spot): Block => ({
  top: Math.min(a.row, b.row),
  left: Math.min(a.col, b.col),
  bottom: Math.max(a.row, b.row),
  right: Math.max(a.col, b.col),
});

const STEPS: Readonly<Record<string, readonly [number, number]>> = {
  ArrowDown: [1, 0],
  ArrowUp: [-1, 0],
  ArrowLeft: [0, -1],
  ArrowRight: [0, 1],
};

/**
 * Where a key leads from a cell; undefined for a key that leads nowhere.
 *
 * @param jumps with Ctrl: an arrow goes to the edge of the filled cells, Home and End to the corners
 * @param page rows in a screenful
 * @param isFilled whether a cell holds something
 */
export function moved(
  at: Spot,
  key: string,
  jumps: boolean,
  size: { readonly rows: number; readonly cols: number },
  page: number,
  isFilled: (spot: Spot) => boolean,
): Spot | undefined {
  const within = (s: Spot): Spot => ({
    row: Math.max(0, Math.min(size.rows - 1, s.row)),
    col: Math.max(0, Math.min(size.cols - 1, s.col)),
  });
  const step = STEPS[key];
  if (step) {
    const next = (s: Spot): Spot => ({ row: s.row + step[0], col: s.col + step[1] });
    const isIn = (s: Spot) => s.row >= 0 && s.col >= 0 && s.row < size.rows && s.col < size.cols;
    if (!jumps) return within(next(at));
    let s = at;
    // over the filled cells to the last of them; over empty ones to the next filled
    const runs = isIn(next(s)) && isFilled(s) && isFilled(next(s));
    while (isIn(next(s)) && (runs ? isFilled(next(s)) : s === at || !isFilled(s))) s = next(s);
    return s;
  }
  if (key === "Home") return within({ row: jumps ? 0 : at.row, col: 0 });
  if (key === "End") return within({ row: jumps ? size.rows - 1 : at.row, col: size.cols - 1 });
  if (key === "PageDown") return within({ row: at.row + page, col: at.col });
  if (key === "PageUp") return within({ row: at.row - page, col: at.col });
  return undefined;
}

/** Cells as a spreadsheet takes them: apart by tabs, rows by line ends, quoted where they hold either. */
export const toTsv = (rows: readonly (readonly string[])[]): string =>
  rows
    .map((r) => r.map((t) => (/[\t\n\r"]/.test(t) ? `"${t.replaceAll('"', '""')}"` : t)).join("\t"))
    .join("\n");

/** Cells out of what a spreadsheet put on the clipboard; a quoted cell may hold tabs, line ends and quotes. */
export function fromTsv(text: string): string[][] {
  const rows: string[][] = [[]];
  const clean = text.replace(/\r\n?/g, "\n").replace(/\n$/, "");
  const cell = /("(?:[^"]|"")*"(?=[\t\n]|$)|[^\t\n]*)([\t\n]|$)/y;
  for (;;) {
    const m = cell.exec(clean);
    if (!m) break;
    const raw = m[1]!;
    rows.at(-1)!.push(/^"(?:[^"]|"")*"$/.test(raw) ? raw.slice(1, -1).replaceAll('""', '"') : raw);
    if (m[2] === "") break;
    if (m[2] === "\n") rows.push([]);
  }
  return rows;
}

/**
 * What pasting cells at a block changes: one cell fills the whole block, several are laid from its corner on, again
 * and again where the block is a whole multiple of them.
 *
 * @returns edits inside the grid, and the rows that reach beyond its end
 */
export function pasted(
  cells: readonly (readonly string[])[],
  block: Block,
  size: { readonly rows: number; readonly cols: number },
): { readonly edits: readonly CellEdit[]; readonly beyond: readonly (readonly string[])[] } {
  const [h, w] = [cells.length, Math.max(...cells.map((r) => r.length))];
  const [bh, bw] = [block.bottom - block.top + 1, block.right - block.left + 1];
  const rows = bh % h === 0 ? bh : h;
  const cols = bw % w === 0 ? bw : w;
  const edits: CellEdit[] = [];
  for (let r = 0; r < rows; r++)
    for (let c = 0; c < cols; c++) {
      const text = cells[r % h]![c % w];
      const spot = { row: block.top + r, col: block.left + c };
      if (text !== undefined && spot.row < size.rows && spot.col < size.cols) edits.push({ ...spot, text });
    }
  return { edits, beyond: cells.slice(Math.max(0, size.rows - block.top)) };
}

/** The first row of a block written over the rows below it; a block of one row takes the row above. */
export function filledDown(block: Block, textAt: (spot: Spot) => string): CellEdit[] {
  const from = block.top === block.bottom ? block.top - 1 : block.top;
  if (from < 0) return [];
  const out: CellEdit[] = [];
  for (let row = from + 1; row <= block.bottom; row++)
    for (let col = block.left; col <= block.right; col++)
      out.push({ row, col, text: textAt({ row: from, col }) });
  return out;
}
