import { type Range, useVirtualizer } from "@tanstack/react-virtual";
import { useCallback, useEffect, useId, useRef, useState } from "react";
import { type GridColumn, ROW_HEIGHT } from "./column.ts";
import { gridKey } from "./gridKeys.ts";
import { blockOf, type CellEdit, filledDown, fromTsv, pasted, type Spot, toTsv } from "./gridModel.ts";
import { useClipboard } from "./useClipboard.ts";

export interface GridProps<R> {
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
}

/** Where one is in a grid, what is selected and written, and what keys, presses and the clipboard do. */
export function useGrid<R>({
  rows,
  columns,
  onEdit,
  takesPaste,
  onCopied,
  onBeyond,
  onOpen,
  pinned = 0,
  isShort = false,
}: GridProps<R>) {
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
  return { id, frame, at, block, editing, virtual, lefts, width, onKeyDown, onPress, end };
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
