import { chooseSheet, type Finding, inCells, looksLikeBom, toRunLines } from "@kobbin/core";
import { useMemo, useState } from "react";
import { ListAccount } from "../../../proof/ListAccount.tsx";
import { ListTable } from "../../../proof/ListTable.tsx";
import {
  addLines,
  addVariant,
  type LineChange,
  rememberList,
  replaceLines,
  useLists,
} from "../../../resources/run.ts";
import { useRun } from "../../../run/runState.ts";
import { Button } from "../../../ui/Button.tsx";
import { Dialog } from "../../../ui/Dialog.tsx";
import { Pick } from "../../../ui/Field.tsx";
import { TableInput } from "../../../ui/TableInput.tsx";
import { count } from "../../../ui/text/format.ts";
import { useSayError } from "../../../ui/toast/Toast.tsx";
import {
  byRow,
  type ColumnRole,
  ROLE_WORDS,
  readList,
  roleWords,
  sourceOf,
  type TakenList,
  takeList,
  withRole,
} from "./listModel.ts";

/** A parts list of any form, its columns confirmed on the data itself before a line of it is kept. */
export function ListDialog({ onClose }: { onClose: () => void }) {
  const { id, answer, doc, did } = useRun();
  const { data: known } = useLists();
  const sayError = useSayError();
  const [list, setList] = useState<TakenList>();
  const [problem, setProblem] = useState<string>();
  /** Which sheet of a workbook was taken, and what it shows beside its text. */
  const [sheet, setSheet] = useState<string>();
  const [isSaving, setSaving] = useState(false);
  const read = useMemo(() => (list ? readList(list) : undefined), [list]);
  const several = doc.boards.length > 1;
  const [board, setBoard] = useState(doc.boards[0]?.id);
  const take = async (bytes: Uint8Array, name: string) => {
    const { readTables } = await import("@kobbin/formats");
    let why = "";
    const sheets = await readTables(bytes).catch((error: Error) => {
      why = ` ${error.message}`;
      return undefined;
    });
    const said: Finding[] = [];
    const taken = sheets && chooseSheet(sheets, looksLikeBom, "a parts list", name, said);
    if (!taken || taken.cells.length === 0) {
      setProblem(`${name} holds no table that can be read.${why}`);
      return;
    }
    setProblem(undefined);
    setSheet(said.map((f) => f.text).join(" ") || undefined);
    setList(takeList(inCells(taken.cells), known ?? {}));
  };
  const keep = async (inPlace: boolean) => {
    if (!list || !read) return;
    setSaving(true);
    try {
      if (Object.values(list.because).includes("you"))
        await rememberList(
          sourceOf(list),
          Object.fromEntries(Object.entries(list.roles).map(([i, r]) => [i, r])),
        );
      // rows of one part become one line, but for a list with variants, whose rows the versions speak of
      const lines: readonly LineChange[] =
        read.variants.length > 0
          ? read.lines
          : toRunLines(
              read.bom.lines,
              doc.placements.filter((p) => !several || p.board === board),
            );
      const done = inPlace
        ? replaceLines(id, answer.revisionId, lines, several ? board : undefined)
        : addLines(id, answer.revisionId, several && board ? lines.map((l) => ({ ...l, board })) : lines);
      const { ids } = (await done).value;
      for (const v of read.variants)
        await addVariant(
          id,
          answer.revisionId,
          v.name,
          Object.fromEntries([...v.overrides].map(([i, o]) => [ids[i]!, o])),
        );
      did(
        `${count(lines.length, "line")} ${inPlace ? "took the place of the bill" : "added at the end"}${read.variants.length > 0 ? `, with ${count(read.variants.length, "variant")}` : ""}`,
        done,
      );
      onClose();
    } catch (error) {
      sayError(error);
    } finally {
      setSaving(false);
    }
  };
  /** What marks its lines is not kept before it is said what for. */
  const isOpen = read?.bom.account?.columns.some((c) => c.marks) ?? false;
  const pieces = read?.lines.filter((l) => !l.dnp).reduce((n, l) => n + l.qty, 0) ?? 0;
  const bad = byRow(read?.bom.findings.filter((f) => f.level !== "remark") ?? []);
  return (
    <Dialog
      open
      onClose={onClose}
      wide
      title="Read a parts list"
      about="Any table: CSV of any kind, a workbook, or rows copied from a spreadsheet. Say what its columns hold; it is remembered for lists with the same headings."
    >
      <div className="mb-3 flex flex-wrap items-end gap-4">
        <TableInput fileLabel="Parts list" rowsLabel="Rows of a parts list" onTable={take} />
      </div>
      {sheet && list && <p className="mb-2 text-[13.5px] text-ink-2">{sheet}</p>}
      {problem && (
        <p role="alert" className="text-stop">
          {problem}
        </p>
      )}
      {list && read && (
        <>
          <ListTable
            list={list}
            words={roleWords(list)}
            findings={read.bom.findings}
            onRole={(i, role) => setList(withRole(list, i, role as ColumnRole | ""))}
          />
          {read.bom.account && (
            <ListAccount
              account={read.bom.account}
              onAnswer={(i, role) => setList(withRole(list, i, role))}
            />
          )}
          <p className="mt-2 text-[14px]" aria-live="polite">
            {read.lines.length === 0 ? (
              "No line yet: say which column holds the references, or the quantities of loose parts."
            ) : (
              <>
                Becomes <b>{count(read.lines.length, "line")}</b>, {count(Math.round(pieces), "piece")} a
                product
                {read.variants.length > 0 &&
                  `, in versions: ${read.variants.map((v) => `${v.name} (${v.overrides.size} otherwise)`).join(", ")}`}
                .{" "}
                {(["value", "mpn"] as const)
                  .filter((k) => !Object.values(list.roles).includes(k))
                  .map((k) => `No column is the ${ROLE_WORDS.find(([r]) => r === k)![1]}. `)}
              </>
            )}
          </p>
          {bad.length > 0 && (
            <ul className="mt-1 max-h-28 overflow-y-auto text-[13.5px] text-look">
              {bad.slice(0, 20).map((f) => (
                <li key={`${f.row} ${f.texts[0]}`}>
                  {f.row ? `Row ${f.row}: ` : ""}
                  {f.texts.join(" ")}
                </li>
              ))}
            </ul>
          )}
          <div className="mt-3 flex flex-wrap items-end gap-3">
            {several && (
              <Pick
                label="Of which board"
                value={board ?? ""}
                options={doc.boards.map((b) => [b.id ?? "", b.name] as const)}
                onChange={setBoard}
              />
            )}
            {doc.lines.length > 0 && (
              <Button
                look="main"
                disabled={isSaving || isOpen || read.lines.length === 0}
                onClick={() => keep(true)}
              >
                {several ? "Let it take the place of that board’s lines" : "Let it take the bill’s place"}
              </Button>
            )}
            <Button
              look={doc.lines.length > 0 ? "plain" : "main"}
              disabled={isSaving || isOpen || read.lines.length === 0}
              onClick={() => keep(false)}
            >
              Add to the bill
            </Button>
          </div>
        </>
      )}
    </Dialog>
  );
}
