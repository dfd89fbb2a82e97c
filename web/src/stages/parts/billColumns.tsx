import { compareRefs, ORIGINS, type RunDocument, type RunLine, type RunNeed } from "@kobbin/core";
import { ChevronRight } from "lucide-react";
import { Coverage } from "../../ui/Coverage.tsx";
import type { GridColumn } from "../../ui/grid/column.ts";
import { Mark } from "../../ui/Mark.tsx";
import { MOUNTS, mountWords, nameOf, OF_PRODUCT } from "./lineEdits.ts";

/** A line with what is drawn beside it. */
export interface Row {
  readonly line: RunLine;
  /** How deep in the product: a part of a made item of the product is 1. */
  readonly depth: number;
  readonly note: number | undefined;
  readonly need: RunNeed | undefined;
  readonly bought: number;
}

/** The columns of the bill: how each is read, drawn, and whether it may be written. */
export function billColumns(
  boards: RunDocument["boards"],
  isLocked: boolean,
  onOpen: (lineId: string) => void,
): readonly GridColumn<Row>[] {
  const text = (
    key: keyof RunLine & string,
    label: string,
    width: number,
    isMono = false,
  ): GridColumn<Row> => ({
    key,
    label,
    width,
    isMono,
    text: (x) => String(x.line[key]),
    name: (x) => `${label} of ${nameOf(x.line)}`,
    kind: "text",
    canEdit: () => !isLocked,
  });
  return [
    {
      key: "sheet",
      label: "",
      width: 28,
      text: (x) => (x.note === undefined ? "" : String(x.note)),
      name: (x) => `Sheet of ${nameOf(x.line)}`,
      kind: "text",
      canEdit: () => false,
      onPress: (x) => onOpen(x.line.id),
      draw: (x) =>
        x.note === undefined ? (
          <ChevronRight className="size-4 text-ink-3" aria-hidden />
        ) : (
          <Mark kind="blocked" count={x.note} />
        ),
    },
    {
      ...text("refs", "References", 107, true),
      text: (x) => [...x.line.refs].sort(compareRefs).join(" "),
      draw: (x) => (
        <span className="truncate" style={{ paddingLeft: x.depth * 12 }}>
          {x.depth > 0 && <span className="text-ink-3">└ </span>}
          {[...x.line.refs].sort(compareRefs).join(" ") || (x.depth > 0 ? "" : "–")}
        </span>
      ),
    },
    ...(boards.length > 1
      ? [
          {
            ...text("board", "Board", 96),
            text: (x: Row) => boards.find((b) => b.id === x.line.board)?.name ?? OF_PRODUCT,
            kind: "choice" as const,
            options: [...boards.map((b) => b.name), OF_PRODUCT].map((n) => [n, n] as const),
          },
        ]
      : []),
    {
      ...text("qty", "Pieces", 50, true),
      name: (x) => `Quantity of ${nameOf(x.line)}`,
      align: "right",
      canEdit: (x) => !isLocked && x.line.refs.length === 0,
    },
    text("valueText", "Value", 88),
    text("package", "Package", 72),
    text("mpn", "Part number", 128, true),
    {
      ...text("mount", "Mounted", 86),
      text: (x) => mountWords(x.line.mount),
      name: (x) => `Who mounts ${nameOf(x.line)}`,
      kind: "choice",
      options: MOUNTS.map(([, w]) => [w, w]),
    },
    {
      key: "placed",
      label: "Placed",
      width: 52,
      text: (x) => (x.line.dnp ? "no" : "yes"),
      name: (x) => `Place ${nameOf(x.line)}`,
      kind: "flag",
      canEdit: () => !isLocked,
      draw: (x) => (x.line.dnp ? <b className="text-[13px] font-semibold">no</b> : "yes"),
    },
    {
      key: "cover",
      label: "Covered",
      width: 62,
      text: (x) => (x.need ? `${x.need.whole - x.need.need + x.bought} of ${x.need.whole}` : ""),
      name: (x) => `Coverage of ${nameOf(x.line)}`,
      kind: "text",
      canEdit: () => false,
      draw: (x) =>
        x.need && (
          <div className="w-full *:min-w-0!">
            <Coverage
              need={x.need.whole}
              parts={[
                { label: "own shelf", qty: x.need.whole - x.need.need, index: 5 },
                { label: "the basket", qty: x.bought, index: 0 },
              ].filter((p) => p.qty > 0)}
            />
          </div>
        ),
    },
    {
      key: "origin",
      label: "From",
      width: 86,
      text: (x) => x.line.origin ?? "bought",
      name: (x) => `Origin of ${nameOf(x.line)}`,
      kind: "choice",
      options: ORIGINS.map((o) => [o, o]),
      canEdit: () => !isLocked,
    },
    text("maker", "Maker", 130),
    text("description", "Description", 240),
  ];
}
