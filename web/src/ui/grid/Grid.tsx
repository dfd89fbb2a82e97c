// biome-ignore-all lint/a11y/useFocusableInteractive: the grid holds the focus and names its active cell
// biome-ignore-all lint/a11y/useSemanticElements: rows are placed by themselves, which the elements of a table cannot be
import { type Range, useVirtualizer } from "@tanstack/react-virtual";
import { useCallback, useEffect, useId, useRef, useState } from "react";
import { CellEditor } from "./CellEditor.tsx";
import { type GridColumn, ROW_HEIGHT } from "./column.ts";
import { GridRow } from "./GridRow.tsx";
import { gridKey } from "./gridKeys.ts";
import { blockOf, type CellEdit, filledDown, fromTsv, pasted, type Spot, toTsv } from "./gridModel.ts";
import { useClipboard } from "./useClipboard.ts";

/**
 * A grid that is worked like a spreadsheet: arrows, Shift to select, typing edits, Enter and Tab go on, Ctrl+D fills
 * down, Delete clears, blocks are copied and pasted. Only rows in view are in the page, so a thousand stay fluid.
 *
 * The grid itself holds the focus and names its active cell.
 */
export function Grid<R>({
  label,
  rows,
  columns,
  idOf,
  classOf,
  onEdit,
  takesPaste,
  onCopied,
  onBeyond,
  onOpen,
  openId,
  pinned = 0,
  isShort = false,
}: {
  label: string;
  rows: readonly R[];
  columns: readonly GridColumn<R>[];
  idOf: (row: R) => string;
  classOf?: (row: R) => string;
  /** Texts for cells that may be edited, all of one act. */
  onEdit: (edits: readonly { readonly row: R; readonly column: string; readonly text: string }[]) => void;
  /** What is pasted that is no block of cells: true when it was taken. */
  takesPaste?: (text: string) => boolean;
  /** So many cells were copied. */
  onCopied?: (cells: number) => void;
  /** Pasted rows that reach beyond the last one. */
  onBeyond?: (cells: readonly (readonly string[])[]) => void;
  /** Ctrl+Enter, or the open mark: more about a row. */
  onOpen?: (row: R) => void;
  openId?: string | undefined;
  /** Columns that stay when the others are scrolled. */
  pinned?: number;
  /** Leaves room for what is shown beneath it. */
  isShort?: boolean;
}) {
  const id = useId();
  const frame = useRef<HTMLDivElement>(null);
  const [active, setActive] = useState<Spot>({ row: 0, col: 0 });
  const [anchor, setAnchor] = useState<Spot>({ row: 0, col: 0 });
  const [editing, setEditing] = useState<{ readonly start?: string }>();
  const size = { rows: rows.length, cols: columns.length };
  const at = { row: Math.min(active.row, Math.max(0, rows.length - 1)), col: active.col };
  const from = { row: Math.min(anchor.row, Math.max(0, rows.length - 1)), col: anchor.col };
  const block = blockOf(at, from);
  const textAt = (s: Spot) => columns[s.col]!.text(rows[s.row]!);
  const canEdit = (s: Spot) => columns[s.col]!.canEdit(rows[s.row]!);
  const virtual = useVirtualizer({
    count: rows.length,
    getScrollElement: () => frame.current,
    estimateSize: () => ROW_HEIGHT,
    overscan: 4,
    scrollPaddingStart: 30,
    rangeExtractor: rangeWith(at.row),
  });
  const lefts = [0];
  for (const c of columns) lefts.push(lefts.at(-1)! + c.width);
  const width = lefts.at(-1)!;

  const show = (s: Spot) => {
    virtual.scrollToIndex(s.row, { align: "auto" });
    const el = frame.current;
    if (!el || s.col < pinned) return;
    const [left, right] = [lefts[s.col]!, lefts[s.col + 1]!];
    if (left - lefts[pinned]! < el.scrollLeft) el.scrollLeft = left - lefts[pinned]!;
    else if (right > el.scrollLeft + el.clientWidth) el.scrollLeft = right - el.clientWidth;
  };
  const go = (s: Spot, extends_ = false) => {
    setActive(s);
    if (!extends_) setAnchor(s);
    show(s);
  };
  const edit = (edits: readonly CellEdit[]) => {
    const allowed = edits.filter((e) => canEdit(e) && textAt(e) !== e.text);
    if (allowed.length > 0)
      onEdit(allowed.map((e) => ({ row: rows[e.row]!, column: columns[e.col]!.key, text: e.text })));
  };
  const flip = (s: Spot) => {
    if (columns[s.col]!.kind === "flag" && canEdit(s))
      edit([{ ...s, text: textAt(s) === "yes" ? "no" : "yes" }]);
  };
  const begin = (s: Spot, start?: string) => {
    const press = columns[s.col]!.onPress;
    if (press) press(rows[s.row]!);
    else if (columns[s.col]!.kind === "flag") flip(s);
    else if (canEdit(s)) setEditing(start === undefined ? {} : { start });
  };
  const clear = () => {
    const out: CellEdit[] = [];
    for (let row = block.top; row <= block.bottom; row++)
      for (let col = block.left; col <= block.right; col++)
        if (columns[col]!.kind === "text") out.push({ row, col, text: "" });
    edit(out);
  };
  const onKeyDown = (e: React.KeyboardEvent) => {
    if (editing || rows.length === 0 || e.target !== e.currentTarget) return;
    const isTaken = gridKey(e, {
      at,
      block,
      size,
      pageRows: pageRows(),
      kind: columns[at.col]!.kind,
      isFull: (c) => textAt(c) !== "",
      go,
      fillDown: () => edit(filledDown(block, textAt)),
      all: () => {
        setAnchor({ row: 0, col: 0 });
        setActive({ row: size.rows - 1, col: size.cols - 1 });
      },
      open: () => onOpen?.(rows[at.row]!),
      begin: (start) => begin(at, start),
      flip: () => flip(at),
      clear,
      narrow: () => setAnchor(at),
      leave: () => frame.current?.blur(),
    });
    if (!isTaken) return;
    e.preventDefault();
    e.stopPropagation();
    e.nativeEvent.stopPropagation();
  };
  const pageRows = () => Math.max(1, Math.floor((frame.current?.clientHeight ?? 300) / ROW_HEIGHT) - 2);
  const end = (text: string | undefined, then: "down" | "right" | "left" | "stay") => {
    setEditing(undefined);
    if (text !== undefined) edit([{ ...at, text }]);
    const step = { down: [1, 0], right: [0, 1], left: [0, -1], stay: [0, 0] }[then] as [number, number];
    if (then !== "stay")
      go({
        row: Math.min(size.rows - 1, at.row + step[0]),
        col: Math.max(0, Math.min(size.cols - 1, at.col + step[1])),
      });
    frame.current?.focus({ preventScroll: true });
  };
  // a grid that became short would leave the row one is in below its edge
  // biome-ignore lint/correctness/useExhaustiveDependencies: only when its height changes
  useEffect(() => {
    if (isShort && rows.length > 0) virtual.scrollToIndex(at.row, { align: "center" });
  }, [isShort]);
  const press = useRef((_spot: Spot, _shift: boolean, _isDouble: boolean): void => undefined);
  press.current = (spot, shift, isDouble) => {
    if (editing) return;
    const c = columns[spot.col]!;
    if (isDouble) {
      if (c.kind !== "flag" && !c.onPress) begin(spot);
      return;
    }
    go(spot, shift);
    frame.current?.focus({ preventScroll: true });
    if (shift) return;
    if (c.onPress) c.onPress(rows[spot.row]!);
    else if (c.kind === "flag") flip(spot);
  };
  const onPress = useCallback(
    (spot: Spot, shift: boolean, isDouble: boolean) => press.current(spot, shift, isDouble),
    [],
  );
  useClipboard(frame, {
    copy: () =>
      toTsv(
        rows
          .slice(block.top, block.bottom + 1)
          .map((r) => columns.slice(block.left, block.right + 1).map((c) => c.text(r))),
      ),
    copied: () => onCopied?.((block.bottom - block.top + 1) * (block.right - block.left + 1)),
    paste: (text) => {
      if (takesPaste?.(text)) return;
      const { edits, beyond } = pasted(fromTsv(text), block, size);
      edit(edits);
      if (beyond.length > 0) onBeyond?.(beyond);
    },
    clear,
  });
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

/** Rows in view with some around them; the active one stays in the page, so that the focus has something to name. */
const rangeWith =
  (active: number) =>
  ({ startIndex, endIndex, overscan, count }: Range): number[] => {
    const [first, last] = [Math.max(0, startIndex - overscan), Math.min(count - 1, endIndex + overscan)];
    const list = Array.from({ length: last - first + 1 }, (_, i) => first + i);
    return active >= count || (active >= first && active <= last)
      ? list
      : [...list, active].sort((a, b) => a - b);
  };
