import type { LotRow } from "@kobbin/contract";
import { apart, type LotSample, type SampleResult, sampleOf } from "@kobbin/core";
import { useState } from "react";
import { saveLot } from "../../resources/library.ts";
import { Button } from "../../ui/Button.tsx";
import { Field } from "../../ui/Field.tsx";
import { count, day, fixed, written } from "../../ui/text/format.ts";
import { useSay, useSayError } from "../../ui/toast/Toast.tsx";

/** Readings out of what was typed or pasted: one a row, else set apart by blanks or semicolons. */
const readingsOf = (text: string): string[] => {
  const rows = text.split(/[\r\n\t;]+/).map((t) => t.trim());
  const parts = rows.length > 1 ? rows : text.trim().split(/\s+/);
  return parts.filter((t) => t !== "");
};

/** Up to five digits that say something; of a spread three do. */
const figure = (v: number, digits = 5): string => written(String(Number(v.toPrecision(digits))));

/** What was measured on some pieces of a lot: mean, spread, what it says of the lot, and of it against other lots. */
export function Sample({ lot, lots, isOwner }: { lot: LotRow; lots: readonly LotRow[]; isOwner: boolean }) {
  const say = useSay();
  const sayError = useSayError();
  // what matters in a part stays the same from lot to lot
  const before = lot.sample ?? lots.find((l) => l.mpn === lot.mpn && l.sample)?.sample;
  const [draft, setDraft] = useState({
    parameter: before?.parameter ?? "",
    low: before?.low ?? "",
    high: before?.high ?? "",
    text: lot.sample?.readings.join("\n") ?? "",
  });
  const { parameter, low, high } = draft;
  const sample: LotSample = {
    parameter,
    low,
    high,
    readings: readingsOf(draft.text),
    on: lot.sample?.on ?? "",
  };
  const result = sampleOf(sample);
  const field = (key: keyof typeof draft) => ({
    value: draft[key],
    disabled: !isOwner,
    onChange: (e: { target: { value: string } }) => setDraft({ ...draft, [key]: e.target.value }),
  });
  const save = (change: Parameters<typeof saveLot>[1], words: string) =>
    saveLot(lot.id, change).then(() => say(words), sayError);
  const isReady = parameter.trim() !== "" && result !== undefined && result.unread.length === 0;
  return (
    <form
      aria-label={`What was measured of ${lot.mpn}`}
      className="grid grid-cols-[minmax(0,1fr)_minmax(0,1fr)] gap-6 px-1 py-2 max-md:grid-cols-1 max-sm:sticky max-sm:left-0 max-sm:w-[calc(100vw-34px)] max-sm:pl-3"
      onSubmit={(e) => {
        e.preventDefault();
        if (!isReady) return;
        const { on: _, ...kept } = sample;
        save({ version: lot.version, sample: kept }, `${count(result.n, "reading")} of ${lot.mpn} kept`);
      }}
    >
      <div className="flex flex-col gap-3">
        <div className="grid grid-cols-[2fr_1fr_1fr] gap-3 max-sm:grid-cols-2 max-sm:*:first:col-span-2">
          <Field label="What is measured" maxLength={120} required {...field("parameter")} />
          <Field label="At least" isNumber maxLength={40} {...field("low")} />
          <Field label="At most" isNumber maxLength={40} {...field("high")} />
        </div>
        <label className="flex flex-col gap-[3px]">
          <span className="text-[13.5px] text-ink-2">Readings, one a row, as 4.68k or 12.1 mV</span>
          <textarea className="num min-h-28" {...field("text")} />
        </label>
        {isOwner && (
          <div className="flex flex-wrap gap-3">
            <Button type="submit" look="main" disabled={!isReady}>
              Keep the readings
            </Button>
            {result?.verdict === "hold" && lot.condition !== "quarantine" && (
              <Button
                onClick={() =>
                  save(
                    { version: lot.version, condition: "quarantine" },
                    `${lot.mpn} is set apart: no run takes from it`,
                  )
                }
              >
                Set the lot apart
              </Button>
            )}
          </div>
        )}
      </div>
      <div aria-live="polite" className="text-[14px]">
        {result ? (
          <Said result={result} lot={lot} lots={lots} parameter={parameter} />
        ) : (
          <p className="text-ink-2">
            Type what some pieces measured: mean, spread and what they say of the whole lot stand here.
          </p>
        )}
      </div>
    </form>
  );
}

function Said({
  result: r,
  lot,
  lots,
  parameter,
}: {
  result: SampleResult;
  lot: LotRow;
  lots: readonly LotRow[];
  parameter: string;
}) {
  const others = lots.flatMap((l) => {
    const other =
      l.id !== lot.id && l.sample?.parameter.toLowerCase() === parameter.trim().toLowerCase()
        ? sampleOf(l.sample)
        : undefined;
    const difference = other && apart(r, other);
    return difference ? [{ lot: l, difference }] : [];
  });
  return (
    <>
      <p className="num">
        {r.n} pieces: mean {figure(r.mean)}, spread {figure(r.spread, 3)}, from {figure(r.min)} to{" "}
        {figure(r.max)}
      </p>
      {r.unread.length > 0 && (
        <p role="alert" className="text-stop">
          {r.unread.slice(0, 3).join(", ")}: no amount. Correct it or take it out.
        </p>
      )}
      {r.verdict === "hold" && (
        <p className="mt-1 border-l-[3px] border-stop bg-stop-soft px-3 py-1">
          {count(r.outside, "piece")} outside the limits. Hold the lot until somebody knows why.
        </p>
      )}
      {r.verdict === "few" && (
        <p className="mt-1 text-look">
          All within, but {r.n} are few: with 90 % confidence no more is shown than that{" "}
          {fixed(r.within * 100, 0)} % of the lot is. Twenty-two show 90 %.
        </p>
      )}
      {r.verdict === "fine" && (
        <p className="mt-1">
          All within: at least {fixed(r.within * 100, 0)} % of the lot, with 90 % confidence.
        </p>
      )}
      {r.verdict === "no limits" && (
        <p className="mt-1 text-ink-2">Say what is the least and the most that will do.</p>
      )}
      {others.length > 0 && (
        <ul className="mt-2">
          {others.map(({ lot: l, difference: d }) => (
            <li key={l.id} className={d.isSure ? "" : "text-ink-2"}>
              <span className="num">
                {d.share >= 0 ? "+" : "−"}
                {fixed(Math.abs(d.share) * 100, 1)} %
              </span>{" "}
              against {l.mpn === lot.mpn ? "the lot" : <span className="num">{l.mpn}</span>} of{" "}
              {day(l.receivedOn)}
              {l.place && `, ${l.place}`}: {d.isSure ? "more than chance would make" : "may be chance"}
            </li>
          ))}
        </ul>
      )}
    </>
  );
}
