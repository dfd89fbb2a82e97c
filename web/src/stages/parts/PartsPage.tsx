import { compareRefs, expandRefs, type Mount, type RunLine } from "@kobbin/core";
import { useEffect, useMemo, useRef } from "react";
import { useSearchParams } from "react-router";
import { addLines, type LineChange, removeLine } from "../../resources/run.ts";
import { notesOf, useRun } from "../../run/runState.ts";
import { Button } from "../../ui/Button.tsx";
import { count, typedNumber } from "../../ui/format.ts";
import { Mark } from "../../ui/Mark.tsx";
import { Empty } from "../../ui/States.tsx";
import { useSay, useSayError } from "../../ui/Toast.tsx";
import { Cell } from "./Cell.tsx";
import { readPastedLines } from "./pastedLines.ts";
import { Same } from "./Same.tsx";

const MOUNTS: readonly (readonly [Mount, string])[] = [
  ["machine", "by machine"],
  ["hand", "by hand"],
  ["none", "not soldered"],
];

const textOf = (l: RunLine) =>
  [l.refs.join(" "), l.valueText, l.package, l.mpn, l.maker, l.description].join(" ").toLowerCase();

/** The bill: grouped lines, quantities, do-not-place, who mounts it; edited in place. */
export function PartsPage() {
  const { id, answer, doc, result, changeLine, did, isLocked } = useRun();
  const [params, setParams] = useSearchParams();
  const filter = params.get("find") ?? "";
  const say = useSay();
  const sayError = useSayError();
  const lines = useMemo(
    () => doc.lines.filter((l) => textOf(l).includes(filter.toLowerCase())),
    [doc.lines, filter],
  );
  const numbers = useMemo(() => {
    const out = new Map<string, number>();
    notesOf(result, "parts").forEach((n, i) => {
      for (const line of n.lines ?? []) if (!out.has(line) && n.level !== "remark") out.set(line, i + 1);
    });
    return out;
  }, [result]);
  const save = (line: RunLine, change: LineChange, words: string) => changeLine(line.id, change, words);
  const add = (list: readonly LineChange[], words: string, hint?: string) => {
    const done = addLines(id, answer.revisionId, list);
    done.then(() => {
      did(words, done);
      if (hint) say(hint, { isProblem: true, hint: "The other rows were added; look at this one." });
    }, sayError);
  };
  // rows pasted anywhere on the page, but in a field
  useEffect(() => {
    const paste = (e: ClipboardEvent) => {
      const at = e.target as HTMLElement;
      if (isLocked || ["INPUT", "TEXTAREA", "SELECT"].includes(at.tagName)) return;
      const read = readPastedLines(e.clipboardData?.getData("text/plain") ?? "");
      e.preventDefault();
      if (read.problem)
        say(read.problem, { isProblem: true, hint: "Copy rows from a spreadsheet and paste them here." });
      else addRef.current(read.lines, `${count(read.lines.length, "line")} pasted`, read.remark);
    };
    document.addEventListener("paste", paste);
    return () => document.removeEventListener("paste", paste);
  }, [isLocked, say]);
  const addRef = useRef(add);
  addRef.current = add;
  const nameOf = (l: RunLine) => l.refs[0] ?? (l.valueText || l.mpn || "the line");
  const saveRefs = (l: RunLine, text: string) => {
    const read = expandRefs(text);
    if (read.bad.length > 0)
      return say(`${read.bad[0]!.text}: ${read.bad[0]!.why}.`, {
        isProblem: true,
        hint: "The references were not changed.",
      });
    save(
      l,
      { refs: [...read.refs], ...(read.refs.length > 0 ? { qty: read.refs.length } : {}) },
      `${nameOf(l)}: references changed`,
    );
  };
  const saveQty = (l: RunLine, text: string) => {
    const n = Number(typedNumber(text));
    if (!Number.isFinite(n) || n < 0)
      return say(`“${text}” is ${n < 0 ? "negative" : "not a number"}.`, {
        isProblem: true,
        hint: "The quantity was not changed.",
      });
    save(l, { qty: n }, `${nameOf(l)}: quantity ${l.qty} → ${n}`);
  };
  const fitted = doc.lines.filter((l) => !l.dnp);
  return (
    <section>
      <div className="mb-3 flex items-start justify-between gap-4 max-lg:flex-wrap">
        <div>
          <h1>Parts</h1>
          <p className="text-ink-2">
            {count(fitted.length, "line")} fitted,{" "}
            {count(Math.round(fitted.reduce((n, l) => n + l.qty, 0)), "piece")} a product;{" "}
            {count(doc.lines.filter((l) => l.dnp).length, "line")} not placed. The bill belongs to revision{" "}
            {doc.revision}; all its runs share it.{!isLocked && " Rows can be pasted here."}
          </p>
        </div>
        <div className="flex shrink-0 items-center gap-3">
          <input
            type="search"
            aria-label="Find in the parts list"
            placeholder="find"
            className="w-28"
            value={filter}
            onChange={(e) => setParams(e.target.value ? { find: e.target.value } : {}, { replace: true })}
          />
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
      <Same />
      {doc.lines.length === 0 ? (
        <Empty>
          There is no parts list. Drop one beside the layers, set a file's role to “parts list” in Board, or
          add lines here.
        </Empty>
      ) : lines.length === 0 ? (
        <p className="text-ink-2">No line holds “{filter}”.</p>
      ) : (
        <div className="overflow-x-auto">
          <table className="rows tight w-full min-w-[640px]">
            <thead>
              <tr>
                <th>
                  <span className="sr-only">Notes</span>
                </th>
                <th>References</th>
                <th className="text-right">Pieces</th>
                <th>Value</th>
                <th>Package</th>
                <th>Part number</th>
                <th>Mounted</th>
                <th>Placed</th>
                <th>
                  <span className="sr-only">Remove</span>
                </th>
              </tr>
            </thead>
            <tbody>
              {lines.map((l) => (
                <tr key={l.id} className={l.dnp ? "text-ink-3" : ""}>
                  <td className="w-6">
                    {numbers.has(l.id) && <Mark kind="blocked" count={numbers.get(l.id)} />}
                  </td>
                  <td className="min-w-[130px]">
                    <Cell
                      label={`References of ${nameOf(l)}`}
                      value={[...l.refs].sort(compareRefs).join(" ")}
                      empty="loose"
                      isMono
                      disabled={isLocked}
                      onSave={(t) => saveRefs(l, t)}
                    />
                  </td>
                  <td className="num text-right">
                    {l.refs.length > 0 ? (
                      l.qty
                    ) : (
                      <Cell
                        label={`Quantity of ${nameOf(l)}`}
                        value={String(l.qty)}
                        isMono
                        disabled={isLocked}
                        onSave={(t) => saveQty(l, t)}
                      />
                    )}
                  </td>
                  <td>
                    <Cell
                      label={`Value of ${nameOf(l)}`}
                      value={l.valueText}
                      disabled={isLocked}
                      onSave={(t) => save(l, { valueText: t }, `${nameOf(l)}: value changed`)}
                    />
                  </td>
                  <td className="whitespace-nowrap">
                    <Cell
                      label={`Package of ${nameOf(l)}`}
                      value={l.package}
                      disabled={isLocked}
                      onSave={(t) => save(l, { package: t }, `${nameOf(l)}: package changed`)}
                    />
                  </td>
                  <td className="whitespace-nowrap">
                    <Cell
                      label={`Part number of ${nameOf(l)}`}
                      value={l.mpn}
                      isMono
                      disabled={isLocked}
                      onSave={(t) => save(l, { mpn: t }, `${nameOf(l)}: part number changed`)}
                    />
                    <div className="text-[12.5px] leading-tight text-ink-2">
                      <Cell
                        empty="maker"
                        label={`Maker of ${nameOf(l)}`}
                        value={l.maker}
                        disabled={isLocked}
                        onSave={(t) => save(l, { maker: t }, `${nameOf(l)}: maker changed`)}
                      />
                    </div>
                  </td>
                  <td>
                    <select
                      aria-label={`Who mounts ${nameOf(l)}`}
                      value={l.mount}
                      disabled={isLocked}
                      className="border-transparent bg-transparent px-0"
                      onChange={(e) =>
                        save(
                          l,
                          { mount: e.target.value as Mount },
                          `${nameOf(l)}: ${MOUNTS.find(([v]) => v === e.target.value)?.[1]}`,
                        )
                      }
                    >
                      {MOUNTS.map(([v, t]) => (
                        <option key={v} value={v}>
                          {t}
                        </option>
                      ))}
                    </select>
                  </td>
                  <td>
                    <input
                      type="checkbox"
                      aria-label={`Place ${nameOf(l)}`}
                      checked={!l.dnp}
                      disabled={isLocked}
                      onChange={(e) =>
                        save(
                          l,
                          { dnp: !e.target.checked },
                          `${nameOf(l)}: ${e.target.checked ? "placed" : "do not place"}`,
                        )
                      }
                    />
                    {l.dnp && <span className="ml-1 text-[13px]">not placed</span>}
                  </td>
                  <td>
                    {!isLocked && l.refs.length === 0 && (
                      <button
                        type="button"
                        className="quiet-link"
                        aria-label={`Remove ${nameOf(l)}`}
                        onClick={() => {
                          const done = removeLine(id, l.id);
                          done.then(() => did(`${nameOf(l)} was removed`, done), sayError);
                        }}
                      >
                        remove
                      </button>
                    )}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      )}
    </section>
  );
}
