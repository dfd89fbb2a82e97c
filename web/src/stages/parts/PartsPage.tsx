import { isUnnamed, timesInProduct } from "@kobbin/core";
import { useEffect, useMemo, useRef, useState } from "react";
import { addLines, type LineChange } from "../../resources/run.ts";
import { NumbersDialog } from "../../run/NumbersDialog.tsx";
import { notesOf, useRun } from "../../run/runState.ts";
import { useOtherRevisions } from "../../run/useOtherRevisions.ts";
import { After } from "../../ui/After.tsx";
import { Button } from "../../ui/Button.tsx";
import { Pick } from "../../ui/Field.tsx";
import { useParam } from "../../ui/params.ts";
import { Empty } from "../../ui/States.tsx";
import { count } from "../../ui/text/format.ts";
import { useSay, useSayError } from "../../ui/toast/Toast.tsx";
import { Against } from "./Against.tsx";
import { Bill } from "./Bill.tsx";
import { Fewer } from "./Fewer.tsx";
import { LineSheet } from "./LineSheet.tsx";
import { FILTERS, passes } from "./lineEdits.ts";
import { ListDialog } from "./list/ListDialog.tsx";
import { type PastedLines, readPastedLines } from "./pastedLines.ts";
import { Same } from "./Same.tsx";
import { Variants } from "./Variants.tsx";

/** The bill, and beneath it the sheet of one line: its part, what may stand in for it, its sums. */
export function PartsPage() {
  const { id, answer, doc, result: r, did, isLocked } = useRun();
  const [params, set] = useParam();
  const find = params.get("find") ?? "";
  const show = params.get("show") ?? "";
  const openId = params.get("line") ?? undefined;
  const against = params.get("against") ?? "";
  const showsVariants = params.get("variants") !== null;
  const [isReading, setReading] = useState(false);
  const [isPasting, setPasting] = useState(false);
  const hasUnnamed = doc.lines.some(isUnnamed);
  const others = useOtherRevisions();
  const variant = doc.variants?.find((v) => v.id === doc.choices.variant);
  const say = useSay();
  const sayError = useSayError();
  const numbers = useMemo(() => {
    const out = new Map<string, number>();
    notesOf(r, "parts").forEach((n, i) => {
      for (const line of n.lines ?? []) if (!out.has(line) && n.level !== "remark") out.set(line, i + 1);
    });
    return out;
  }, [r]);
  const lines = useMemo(() => {
    const missing = new Set(r.basket.lines.filter((l) => l.missing > 0).map((l) => l.line));
    const short = new Set(r.needs.filter((n) => missing.has(n.id)).flatMap((n) => n.lines));
    return doc.lines.filter((l) =>
      passes(l, show, find, { noted: numbers.has(l.id), short: short.has(l.id) }),
    );
  }, [doc.lines, r, numbers, show, find]);
  const add = (list: readonly LineChange[], words: string, hint?: string) => {
    const done = addLines(id, answer.revisionId, list);
    done.then(() => {
      did(words, done);
      if (hint) say(hint, { isProblem: true, hint: "The other rows were added; look at this one." });
    }, sayError);
  };
  const take = (read: PastedLines) => {
    if (read.problem)
      say(read.problem, { isProblem: true, hint: "Copy rows from a spreadsheet and paste them here." });
    else add(read.lines, `${count(read.lines.length, "line")} pasted`, read.remark);
  };
  const takeRef = useRef(take);
  takeRef.current = take;
  // rows pasted anywhere on the page, but in a field or the grid
  useEffect(() => {
    const paste = (e: ClipboardEvent) => {
      const at = e.target as HTMLElement;
      if (isLocked || e.defaultPrevented || ["INPUT", "TEXTAREA", "SELECT"].includes(at.tagName)) return;
      e.preventDefault();
      takeRef.current(readPastedLines(e.clipboardData?.getData("text/plain") ?? ""));
    };
    document.addEventListener("paste", paste);
    return () => document.removeEventListener("paste", paste);
  }, [isLocked]);
  const filters =
    doc.boards.length > 1
      ? [...FILTERS, ...doc.boards.map((b) => [`board:${b.id}`, `on ${b.name}`] as const)]
      : FILTERS;
  const times = timesInProduct(doc.lines, doc.boards);
  const fitted = doc.lines.filter((l) => !l.dnp);
  const open = doc.lines.find((l) => l.id === openId);
  return (
    <section>
      <div className="flex items-start justify-between gap-4 max-lg:flex-wrap">
        <h1>Parts</h1>
        <div className="flex shrink-0 items-center gap-2">
          <Pick
            label="Lines shown"
            hideLabel
            value={show}
            options={filters}
            onChange={(v) => set("show", v)}
          />
          <input
            type="search"
            aria-label="Find in the parts list"
            placeholder="find"
            className="w-24"
            value={find}
            onChange={(e) => set("find", e.target.value)}
          />
          {!isLocked && hasUnnamed && <Button onClick={() => setPasting(true)}>Paste numbers</Button>}
          {!isLocked && <Button onClick={() => setReading(true)}>Read a list</Button>}
          {!isLocked && (
            <Button
              onClick={() =>
                add(
                  [{ refs: [], qty: 1, valueText: "new part", mount: "none" }],
                  "A line was added at the end",
                )
              }
            >
              Add a line
            </Button>
          )}
        </div>
      </div>
      <p className="mb-3 text-ink-2">
        {count(fitted.length, "line")} fitted,{" "}
        {count(Math.round(fitted.reduce((n, l) => n + times.get(l.id)!, 0)), "piece")} a product;{" "}
        {count(doc.lines.filter((l) => l.dnp).length, "line")} not placed. The bill belongs to revision{" "}
        {doc.revision}; all its runs share it.{" "}
        {others.map((o) => (
          <button
            key={o.id}
            type="button"
            className="quiet-link mr-3"
            aria-expanded={against === o.id}
            onClick={() => set("against", against === o.id ? "" : o.id)}
          >
            against {o.label}
          </button>
        ))}
        <button
          type="button"
          className="quiet-link"
          aria-expanded={showsVariants}
          onClick={() => set("variants", showsVariants ? "" : "shown")}
        >
          {variant ? `variant: ${variant.name}` : "variants"}
        </button>
      </p>
      {against && others.some((o) => o.id === against) && (
        <Against revisionId={against} onClose={() => set("against", "")} />
      )}
      {showsVariants && <Variants onClose={() => set("variants", "")} />}
      <Same />
      {doc.lines.length === 0 ? (
        <Empty>
          There is no parts list. Drop one beside the layers, set a file's role to “parts list” in Board, or
          add lines here.
        </Empty>
      ) : lines.length === 0 ? (
        <p className="text-ink-2">
          No line is shown: {find && `none holds “${find}”`}
          {find && show && ", or "}
          {show && `none is “${filters.find(([v]) => v === show)?.[1]}”`}.
        </p>
      ) : (
        <>
          <Bill
            lines={lines}
            numbers={numbers}
            openId={open?.id}
            onOpen={(l) => set("line", l)}
            takesPaste={(text) => {
              const read = readPastedLines(text);
              if (isLocked || !read.hasHeader) return false;
              take(read);
              return true;
            }}
          />
          <p className="mt-1 text-[13px] text-ink-2">
            {lines.length < doc.lines.length &&
              `${lines.length} of ${count(doc.lines.length, "line")} shown. `}
            Type to edit, Ctrl+D fills down, Ctrl+Enter opens a line's sheet; rows can be pasted.
          </p>
        </>
      )}
      <After>
        <Fewer />
      </After>
      {isReading && <ListDialog onClose={() => setReading(false)} />}
      {isPasting && <NumbersDialog onClose={() => setPasting(false)} />}
      {open && <LineSheet key={open.id} line={open} onClose={() => set("line", "")} />}
    </section>
  );
}
