import { asTree, type RunLine } from "@kobbin/core";
import { useMemo, useRef } from "react";
import { addLines, type LineChange } from "../../resources/run.ts";
import { useRun } from "../../run/runState.ts";
import { Grid } from "../../ui/grid/Grid.tsx";
import { count } from "../../ui/text/format.ts";
import { useSay, useSayError } from "../../ui/toast/Toast.tsx";
import { billColumns, type Row } from "./billColumns.tsx";
import { lineEdit, nameOf } from "./lineEdits.ts";

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
  const columns = useMemo(
    () => billColumns(doc.boards, isLocked, (lineId) => openRef.current(lineId)),
    [isLocked, doc.boards],
  );
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
