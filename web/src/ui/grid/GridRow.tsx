// biome-ignore-all lint/a11y/useSemanticElements: rows are placed by themselves, which the elements of a table cannot be
// biome-ignore-all lint/a11y/useFocusableInteractive: the grid holds the focus and names its active cell
// biome-ignore-all lint/a11y/useKeyWithClickEvents: the grid takes the keys of all its cells
import { memo, type ReactNode } from "react";
import { type GridColumn, ROW_HEIGHT } from "./column.ts";
import type { Spot } from "./gridModel.ts";

/** What a row is drawn from; a row whose share is as it was is not drawn again. */
interface RowProps {
  readonly id: string;
  readonly row: object;
  /** What the row is about, for whoever follows the pointer. */
  readonly rowId: string;
  readonly index: number;
  readonly top: number;
  readonly width: number;
  readonly columns: readonly GridColumn<object>[];
  readonly pinned: number;
  readonly activeCol: number;
  /** Columns of the selection in this row; -1 for none. */
  readonly from: number;
  readonly to: number;
  readonly isTop: boolean;
  readonly isBottom: boolean;
  readonly isFramed: boolean;
  readonly className: string;
  readonly editor: ReactNode;
  readonly onPress: (spot: Spot, shift: boolean, isDouble: boolean) => void;
}

/** One row of the grid; drawn again only when its own share changes. */
export const GridRow = memo(function GridRow(p: RowProps) {
  let left = 0;
  return (
    <div
      role="row"
      aria-rowindex={p.index + 2}
      data-lines={p.rowId}
      className={`absolute left-0 flex ${p.className}`}
      style={{ top: p.top, height: ROW_HEIGHT, width: p.width }}
    >
      {p.columns.map((c, col) => {
        const at = left;
        left += c.width;
        const text = c.text(p.row);
        const isActive = col === p.activeCol;
        const isSelected = p.from >= 0 && col >= p.from && col <= p.to;
        const isPinned = col < p.pinned;
        const frame =
          isSelected && p.isFramed
            ? `${p.isTop ? "border-t-metal" : ""} ${p.isBottom ? "border-b-metal" : ""} ${col === p.from ? "border-l-metal" : ""} ${col === p.to ? "border-r-metal" : ""}`
            : "";
        return (
          <div
            key={c.key}
            id={`${p.id}-${p.index}-${col}`}
            role="gridcell"
            aria-colindex={col + 1}
            aria-selected={isSelected}
            aria-readonly={!c.canEdit(p.row)}
            aria-label={`${c.name(p.row)}: ${text || "empty"}`}
            title={text.length * 7.2 > c.width ? text : undefined}
            onClick={(e) => p.onPress({ row: p.index, col }, e.shiftKey, false)}
            onDoubleClick={() => p.onPress({ row: p.index, col }, false, true)}
            className={`flex shrink-0 cursor-default items-center border border-transparent border-t-rule px-[6px] ${c.align === "right" ? "justify-end" : ""} ${c.isMono ? "num" : ""} ${isPinned ? "sticky z-10" : ""} ${isPinned && !isSelected ? "bg-inherit" : ""} ${isSelected ? `bg-metal-soft ${frame}` : ""} ${isActive ? "outline-2 -outline-offset-2 outline-ink-3 group-focus/grid:outline-link" : ""}`}
            style={{ width: c.width, ...(isPinned ? { left: at } : {}) }}
          >
            {isActive && p.editor
              ? p.editor
              : c.draw
                ? c.draw(p.row)
                : text && <span className="truncate">{text}</span>}
          </div>
        );
      })}
    </div>
  );
});
