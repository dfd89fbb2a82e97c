// biome-ignore-all lint/a11y/useFocusableInteractive: the grid holds the focus and names its active cell
// biome-ignore-all lint/a11y/useSemanticElements: rows are placed by themselves, which the elements of a table cannot be
import { CellEditor } from "./CellEditor.tsx";
import type { GridColumn } from "./column.ts";
import { GridRow } from "./GridRow.tsx";
import type { Spot } from "./gridModel.ts";
import { type GridProps, useGrid } from "./useGrid.ts";

/**
 * A grid that is worked like a spreadsheet: arrows, Shift to select, typing edits, Enter and Tab go on, Ctrl+D fills
 * down, Delete clears, blocks are copied and pasted. Only rows in view are in the page, so a thousand stay fluid.
 *
 * The grid itself holds the focus and names its active cell.
 */
export function Grid<R>(props: GridProps<R>) {
  const { label, rows, columns, idOf, classOf, openId, pinned = 0, isShort = false } = props;
  const { id, frame, at, block, editing, virtual, lefts, width, onKeyDown, onPress, end } = useGrid(props);
  const cellId = (s: Spot) => `${id}-${s.row}-${s.col}`;
  return (
    <div
      ref={frame}
      role="grid"
      aria-label={label}
      aria-rowcount={rows.length + 1}
      aria-colcount={columns.length}
      aria-multiselectable
      aria-activedescendant={rows.length > 0 && !editing ? cellId(at) : undefined}
      tabIndex={0}
      onKeyDown={onKeyDown}
      className={`group/grid relative ${isShort ? "max-h-[max(190px,30vh)]" : "max-h-[max(320px,calc(100vh-250px))]"} text-[14px] overflow-auto rounded-[3px] border border-rule bg-sheet max-md:max-h-none`}
    >
      <GridHead columns={columns as readonly GridColumn<object>[]} lefts={lefts} pinned={pinned} />
      <div role="presentation" style={{ height: virtual.getTotalSize(), width, position: "relative" }}>
        {virtual.getVirtualItems().map((item) => {
          const row = rows[item.index]!;
          const isActive = item.index === at.row;
          const isIn = item.index >= block.top && item.index <= block.bottom;
          const isOne = block.top === block.bottom && block.left === block.right;
          return (
            <GridRow
              key={idOf(row)}
              id={id}
              row={row as object}
              rowId={idOf(row)}
              index={item.index}
              top={item.start}
              width={width}
              columns={columns as readonly GridColumn<object>[]}
              pinned={pinned}
              activeCol={isActive ? at.col : -1}
              from={isIn ? block.left : -1}
              to={isIn ? block.right : -1}
              isTop={!isOne && item.index === block.top}
              isBottom={!isOne && item.index === block.bottom}
              isFramed={!isOne}
              className={`${classOf?.(row) ?? ""} ${idOf(row) === openId ? "bg-metal-soft" : ""}`}
              editor={
                isActive && editing ? (
                  <CellEditor
                    label={columns[at.col]!.name(row)}
                    text={editing.start ?? columns[at.col]!.text(row)}
                    options={columns[at.col]!.options}
                    isMono={columns[at.col]!.isMono ?? false}
                    onEnd={end}
                  />
                ) : undefined
              }
              onPress={onPress}
            />
          );
        })}
      </div>
    </div>
  );
}

/** The names of the columns, which stay when the rows are scrolled. */
function GridHead({
  columns,
  lefts,
  pinned,
}: {
  columns: readonly GridColumn<object>[];
  lefts: readonly number[];
  pinned: number;
}) {
  return (
    <div
      role="row"
      aria-rowindex={1}
      className="sticky top-0 z-20 flex bg-sheet"
      style={{ width: lefts.at(-1) }}
    >
      {columns.map((c, i) => (
        <div
          key={c.key}
          role="columnheader"
          aria-colindex={i + 1}
          className={`shrink-0 border-b border-rule px-[6px] py-[5px] text-[13px] text-ink-2 ${c.align === "right" ? "text-right" : ""} ${i < pinned ? "sticky z-10 bg-sheet" : ""}`}
          style={{ width: c.width, ...(i < pinned ? { left: lefts[i] } : {}) }}
        >
          {c.label}
        </div>
      ))}
    </div>
  );
}
