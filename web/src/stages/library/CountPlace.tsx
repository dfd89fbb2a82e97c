import type { LotRow } from "@kobbin/contract";
import { bagCode } from "@kobbin/core";
import { type KeyboardEvent, type RefObject, useMemo, useRef, useState } from "react";
import { saveCounts } from "../../resources/library.ts";
import { Button } from "../../ui/Button.tsx";
import { Field, Pick } from "../../ui/Field.tsx";
import { printAlone } from "../../ui/printed.ts";
import { count } from "../../ui/text/format.ts";
import { useSay, useSayError } from "../../ui/toast/Toast.tsx";
import {
  ALL_PLACES,
  comeTo,
  lotsIn,
  NO_PLACE,
  placesOf,
  typedCount,
  worthOf,
  worthWords,
} from "./countModel.ts";

/** What lies at a place is counted, blind: what is written stands beside a count only once it is typed. */
export function CountPlace({
  lots,
  place,
  currency,
  rates,
  onPlace,
}: {
  lots: readonly LotRow[];
  place: string;
  currency: string;
  rates: Readonly<Record<string, string>>;
  /** Another place, or none: the counting is left. */
  onPlace: (place: string) => void;
}) {
  const say = useSay();
  const sayError = useSayError();
  const paper = useRef<HTMLTableElement>(null);
  const [typed, setTyped] = useState<Readonly<Record<string, string>>>({});
  const [because, setBecause] = useState("");
  const rows = useMemo(() => lotsIn(lots, place), [lots, place]);
  const { counts, differ, wrong, left } = comeTo(rows, typed);
  const moved = counts.map((c) => ({ lot: c.lot, qty: c.qty - c.lot.qty }));
  const worth = worthWords(worthOf(moved, currency, rates), currency);
  const save = () =>
    saveCounts({
      counts: counts.map((c) => ({ id: c.lot.id, version: c.lot.version, qty: c.qty })),
      place: place === ALL_PLACES || place === NO_PLACE ? "" : place,
      because,
    }).then(() => {
      say(`${count(counts.length, "lot")} counted, ${differ} otherwise than written`);
      setTyped({});
      onPlace("");
    }, sayError);
  /** Enter goes to the next; a label that is scanned goes to its own row, and is no count. */
  const press = (e: KeyboardEvent<HTMLInputElement>, at: number) => {
    if (e.key !== "Enter") return;
    e.preventDefault();
    const lot = rows[at]!;
    const read = typedCount(e.currentTarget.value);
    if (read.is !== "label") return focusRow(paper.current, at + 1);
    setTyped({ ...typed, [lot.id]: "" });
    const to = rows.findIndex((l) => l.number === read.number);
    if (to >= 0) return focusRow(paper.current, to);
    const other = lots.find((l) => l.number === read.number);
    say(
      other
        ? `${bagCode(read.number)} ${other.mpn} belongs to ${other.place || "no place"}.`
        : `${bagCode(read.number)} lies nowhere on the shelf.`,
      { isProblem: true, hint: "Nothing was counted by it." },
    );
  };
  return (
    <section aria-label="Counting the shelf">
      <div className="mb-3 flex flex-wrap items-end gap-4">
        <Pick
          label="What is counted"
          value={place}
          options={[
            [ALL_PLACES, `all of it, ${count(lots.length, "lot")}`],
            ...placesOf(lots).map(
              ([p, n]) => [p, `${p === NO_PLACE ? "what has no place" : p}, ${count(n, "lot")}`] as const,
            ),
          ]}
          onChange={onPlace}
        />
        <Button onClick={() => paper.current && printAlone(paper.current)}>Print the list</Button>
        <Button onClick={() => onPlace("")}>Leave it</Button>
        <p className="text-[14px] text-ink-2 print:hidden">
          Enter goes to the next; a scanned label goes to its own. What is left blank stays as it is.
        </p>
      </div>
      <CountTable rows={rows} paper={paper} typed={typed} onType={setTyped} onPress={press} />
      <div className="mt-3 flex flex-wrap items-end gap-4">
        <Field
          label="Because"
          className="w-72"
          placeholder="once a quarter"
          maxLength={300}
          value={because}
          onChange={(e) => setBecause(e.target.value)}
        />
        <Button look="main" disabled={counts.length === 0 || wrong > 0} onClick={() => void save()}>
          Keep {count(counts.length, "count")}
        </Button>
        <p role="status" className="text-[14.5px]">
          {counts.length > 0 &&
            `${differ === 0 ? "All as written" : `${differ} otherwise than written, in all ${worth}`}; `}
          {wrong > 0 ? (
            <span className="text-stop">{count(wrong, "field")} cannot be read</span>
          ) : (
            `${left} not counted`
          )}
        </p>
      </div>
    </section>
  );
}

const focusRow = (table: HTMLElement | null, at: number): void =>
  table?.querySelector<HTMLInputElement>(`[data-row="${at}"]`)?.focus();

/** What was written, once something is counted. */
function Against({ lot: l, text }: { lot: LotRow; text: string }) {
  const read = typedCount(text);
  if (read.is === "nothing") return null;
  if (read.is !== "count") return <span className="text-stop">no count: write it as 120 or 100+20</span>;
  const by = read.qty - l.qty;
  if (by === 0) return <span className="text-fine">as written</span>;
  const reserved = l.reserved.reduce((n, r) => n + r.qty, 0);
  return (
    <span className="text-look">
      {l.qty} written, {Math.abs(by)} {by < 0 ? "fewer" : "more"}
      {read.qty < reserved && (
        <span className="block text-stop">
          {reserved} of it {reserved === 1 ? "is" : "are"} reserved for{" "}
          {l.reserved.map((r) => r.run).join(", ")}
        </span>
      )}
    </span>
  );
}

/** The list that is walked along: label, number, what is counted, and then what it comes to. */
function CountTable({
  rows,
  paper,
  typed,
  onType,
  onPress,
}: {
  rows: readonly LotRow[];
  paper: RefObject<HTMLTableElement | null>;
  typed: Readonly<Record<string, string>>;
  onType: (typed: Readonly<Record<string, string>>) => void;
  onPress: (e: KeyboardEvent<HTMLInputElement>, at: number) => void;
}) {
  return (
    <table ref={paper} className="rows w-full max-w-[900px]">
      <thead>
        <tr>
          <th>Label</th>
          <th>Number</th>
          <th className="max-sm:hidden">Place</th>
          <th className="text-right">Counted</th>
          <th className="max-sm:hidden">Against what is written</th>
        </tr>
      </thead>
      <tbody>
        {rows.map((l, at) => (
          <tr key={l.id}>
            <td className="num whitespace-nowrap">{bagCode(l.number)}</td>
            <td>
              <span className="num">{l.mpn}</span>
              <span className="hidden text-[13px] max-sm:block print:hidden">
                {l.place && <span className="block text-ink-2">{l.place}</span>}
                <Against lot={l} text={typed[l.id] ?? ""} />
              </span>
            </td>
            <td className="max-sm:hidden">{l.place || "–"}</td>
            <td className="text-right">
              <input
                className="num min-h-9 w-28 text-right"
                inputMode="numeric"
                aria-label={`Counted of ${l.mpn}, ${bagCode(l.number)}`}
                data-row={at}
                value={typed[l.id] ?? ""}
                onChange={(e) => onType({ ...typed, [l.id]: e.target.value })}
                onKeyDown={(e) => onPress(e, at)}
              />
            </td>
            <td className="max-sm:hidden print:hidden">
              <Against lot={l} text={typed[l.id] ?? ""} />
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
