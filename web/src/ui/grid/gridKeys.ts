import type { GridColumn } from "./column.ts";
import { type Block, moved, type Spot } from "./gridModel.ts";

/** What a key may do in a grid, as the grid does it. */
export interface GridHands {
  readonly at: Spot;
  readonly block: Block;
  readonly size: { readonly rows: number; readonly cols: number };
  readonly pageRows: number;
  /** Of the active cell's column. */
  readonly kind: GridColumn<unknown>["kind"];
  readonly isFull: (cell: Spot) => boolean;
  readonly go: (to: Spot, extends_: boolean) => void;
  readonly fillDown: () => void;
  readonly all: () => void;
  readonly open: () => void;
  readonly begin: (start?: string) => void;
  readonly flip: () => void;
  readonly clear: () => void;
  /** The selection goes, but for the active cell. */
  readonly narrow: () => void;
  /** Gives the keys back to the page. */
  readonly leave: () => void;
}

type Pressed = Pick<KeyboardEvent, "key" | "ctrlKey" | "metaKey" | "altKey" | "shiftKey">;

/**
 * Does what a key means in a grid that is not being written in: arrows move, Shift extends, Ctrl jumps, D fills down, A takes
 * all; Enter and letters begin to write, Space turns a tick, Delete clears, Escape first gives up the selection, then the focus.
 *
 * @returns false where the key is the page's
 */
export function gridKey(e: Pressed, g: GridHands): boolean {
  const jumps = e.ctrlKey || e.metaKey;
  const next = e.altKey ? undefined : moved(g.at, e.key, jumps, g.size, g.pageRows, g.isFull);
  const key = e.key.toLowerCase();
  const isOne = g.block.top === g.block.bottom && g.block.left === g.block.right;
  if (next) g.go(next, e.shiftKey);
  else if (jumps && key === "d") g.fillDown();
  else if (jumps && key === "a") g.all();
  else if (jumps && e.key === "Enter") g.open();
  else if (jumps || e.altKey) return false;
  else if (e.key === "Enter" || e.key === "F2") g.begin();
  else if (e.key === " " && g.kind === "flag") g.flip();
  else if (e.key === "Delete" || e.key === "Backspace") g.clear();
  else if (e.key === "Escape") {
    if (isOne) g.leave();
    else g.narrow();
  } else if (e.key.length === 1 && e.key !== "?" && e.key !== "/" && g.kind === "text") g.begin(e.key);
  else return false;
  return true;
}
