import { asTree, compareRefs, ORIGINS, type RunLine, type RunNeed } from "@kobbin/core";
import { ChevronRight } from "lucide-react";
import { useMemo, useRef } from "react";
import { addLines, type LineChange } from "../../resources/run.ts";
import { useRun } from "../../run/runState.ts";
import { Coverage } from "../../ui/Coverage.tsx";
import { count } from "../../ui/format.ts";
import type { GridColumn } from "../../ui/grid/column.ts";
import { Grid } from "../../ui/grid/Grid.tsx";
import { Mark } from "../../ui/Mark.tsx";
import { useSay, useSayError } from "../../ui/Toast.tsx";
import { lineEdit, MOUNTS, mountWords, OF_PRODUCT } from "./lineEdits.ts";

export const nameOf = (l: RunLine): string => l.refs[0] ?? (l.valueText || l.mpn || "the line");

/** A line with what is drawn beside it. */
interface Row {
  readonly line: RunLine;
  /** How deep in the product: a part of a made item of the product is 1. */
  readonly depth: number;
  readonly note: number | undefined;
  readonly need: RunNeed | undefined;
  readonly bought: number;
}

/** The bill as a grid: worked like a spreadsheet, a note's number and the coverage beside each line. */
export function Bill({
  lines,
  numbers,
  openId,
  onOpen,
  takesPaste,
}: {
  lines: readonly RunLine[];
  numbers: ReadonlyMap<string, number>;
  openId: string | undefined;
  onOpen: (id: string) => void;
  /** A pasted list of its own, with headings: true when it was taken. */
  takesPaste: (text: string) => boolean;
}) {
  const { id, answer, doc, result: r, changeLine, changeLines, did, isLocked } = useRun();
  const say = useSay();
  const sayError = useSayError();
  const rows = useMemo<readonly Row[]>(() => {
    const needs = new Map(r.needs.flatMap((n) => n.lines.map((l) => [l, n] as const)));
    const bought = new Map(r.basket.lines.map((l) => [l.line, l.buys.reduce((s, b) => s + b.qty, 0)]));
    return asTree(lines).map(({ line, depth }) => {
      const need = needs.get(line.id);
      return { line, depth, note: numbers.get(line.id), need, bought: need ? (bought.get(need.id) ?? 0) : 0 };
    });
  }, [lines, numbers, r.needs, r.basket.lines]);
  const openRef = useRef(onOpen);
  openRef.current = onOpen;
  const columns = useMemo<readonly GridColumn<Row>[]>(() => {
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
        onPress: (x) => openRef.current(x.line.id),
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
      ...(doc.boards.length > 1
        ? [
            {
              ...text("board", "Board", 96),
              text: (x: Row) => doc.boards.find((b) => b.id === x.line.board)?.name ?? OF_PRODUCT,
              kind: "choice" as const,
              options: [...doc.boards.map((b) => b.name), OF_PRODUCT].map((n) => [n, n] as const),
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
  }, [isLocked, doc.boards]);
  const edit = (edits: readonly { readonly row: Row; readonly column: string; readonly text: string }[]) => {
    const changes = new Map<string, LineChange>();
    let problem: string | undefined;
    let bad = 0;
    for (const e of edits) {
      const made = lineEdit(e.row.line, e.column, e.text, doc.boards);
      if ("problem" in made) {
        bad++;
        problem ??= `${nameOf(e.row.line)}: ${made.problem}.`;
      } else changes.set(e.row.line.id, { ...changes.get(e.row.line.id), ...made.change });
    }
    if (problem)
      say(problem, {
        isProblem: true,
        hint: bad === 1 ? "That cell stays as it was." : `${count(bad, "cell")} like it stay as they were.`,
      });
    const list = [...changes].map(([lineId, change]) => ({ id: lineId, change }));
    if (list.length === 0) return;
    if (list.length > 1) return changeLines(list, `${count(list.length, "line")} changed`);
    const label = columns.find((c) => c.key === edits[0]!.column)!.label.toLowerCase();
    changeLine(list[0]!.id, list[0]!.change, `${nameOf(edits[0]!.row.line)}: ${label} changed`);
  };
  const addBeyond = (cells: readonly (readonly string[])[]) => {
    const empty: RunLine = {
      id: "",
      refs: [],
      qty: 1,
      valueText: "",
      package: "",
      mpn: "",
      maker: "",
      description: "",
      dnp: false,
      mount: "none",
    };
    // rows beyond the end are whole rows of the bill when they are as wide, else they begin at the references
    const keys = columns.map((c) => c.key);
    const list = cells.map((row) => {
      const first = row.length >= keys.length ? 0 : 1;
      const made = row.map((t, i) => lineEdit(empty, keys[first + i] ?? "", t, doc.boards));
      return Object.assign({}, ...made.flatMap((m) => ("change" in m ? [m.change] : []))) as LineChange;
    });
    const done = addLines(id, answer.revisionId, list);
    done.then(() => did(`${count(list.length, "line")} added at the end`, done), sayError);
  };
  return (
    <Grid
      label={`Bill of ${doc.product} ${doc.revision}`}
      rows={rows}
      columns={columns}
      idOf={(x) => x.line.id}
      classOf={(x) => (x.line.dnp ? "bg-sheet text-ink-3" : "bg-sheet")}
      onEdit={edit}
      takesPaste={takesPaste}
      onCopied={(n) => say(`${count(n, "cell")} copied`)}
      {...(isLocked ? {} : { onBeyond: addBeyond })}
      onOpen={(x) => onOpen(x.line.id)}
      openId={openId}
      pinned={2}
      isShort={openId !== undefined}
    />
  );
}
