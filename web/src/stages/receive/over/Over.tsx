import { type BareKept, type BareLeft, bareLeft, PURPOSES, SURPLUS, type SurplusPurpose } from "@kobbin/core";
import { useId, useMemo, useState } from "react";
import { addKept, removeKept, saveKept } from "../../../resources/record.ts";
import { useRun } from "../../../run/runState.ts";
import { Button } from "../../../ui/Button.tsx";
import { Fold } from "../../../ui/Fold.tsx";
import { Kept } from "../../../ui/Kept.tsx";
import { todayIso } from "../../../ui/text/dates.ts";
import { count } from "../../../ui/text/format.ts";
import { useSayError } from "../../../ui/toast/Toast.tsx";

/** Bare boards that came and are not built: each has a purpose and a place, so that it is there when that is needed. */
export function Over({ index, isOpen }: { index: number; isOpen: boolean }) {
  const { doc, result, record, life } = useRun();
  const o = useMemo(
    () => bareLeft(doc, result, record, index, life === "closed"),
    [doc, result, record, index, life],
  );
  // what is put by one after the other lies in one drawer
  const [place, setPlace] = useState("");
  if (o.usable + o.apart === 0 || o.left + o.leftApart + o.kept.length === 0) return null;
  return (
    <Fold id={`over-${index}`} title="Left over" verdict={verdict(o)}>
      {o.kept.length > 0 && (
        <ul aria-label="Put by" className="mb-2">
          {o.kept.map((k) => (
            <PutBy key={k.id} kept={k} isOpen={isOpen} />
          ))}
        </ul>
      )}
      {isOpen && o.left + o.leftApart > 0 && (
        <Purposes
          key={JSON.stringify([o.left, o.leftApart, o.proposed])}
          of={o}
          place={place}
          onPlace={setPlace}
        />
      )}
    </Fold>
  );
}

/** @example "3 without a purpose, 2 put by" */
function verdict(o: BareLeft): string {
  const put = o.kept.reduce((n, k) => n + k.pieces, 0);
  return [
    o.left > 0 ? `${o.left} without a purpose` : "",
    put > 0 ? `${put} put by` : "",
    o.leftApart > 0 ? `${o.leftApart} set apart could still serve` : "",
  ]
    .filter(Boolean)
    .join(", ");
}

function PutBy({ kept: k, isOpen }: { kept: BareKept; isOpen: boolean }) {
  const { id, did } = useRun();
  const sayError = useSayError();
  return (
    <li className="flex flex-wrap items-end gap-x-4 gap-y-1 border-t border-rule py-1 text-[14px]">
      <span className="num w-6 self-center text-right">{k.pieces}</span>
      <span className="min-w-[200px] flex-1 self-center">
        {SURPLUS[k.purpose]}
        {k.isApart && <span className="text-ink-2">, of those set apart</span>}
      </span>
      {isOpen ? (
        <Kept
          label="Where it lies"
          className="w-40"
          maxLength={80}
          value={k.place}
          onSave={(place) => {
            saveKept(id, k.id, place).catch(sayError);
          }}
        />
      ) : (
        <span className="text-ink-2">{k.place}</span>
      )}
      {isOpen && (
        <button
          type="button"
          className="quiet-link min-h-6 self-center"
          aria-label={`Take back: ${k.pieces}, ${SURPLUS[k.purpose]}`}
          onClick={() => {
            const gone = removeKept(id, k.id);
            gone.catch(sayError);
            did(`${count(k.pieces, "bare board")} no longer put by`, gone);
          }}
        >
          take back
        </button>
      )}
    </li>
  );
}

/** What the rest could be for: all as proposed by one press, or one purpose after the other. */
function Purposes({
  of: o,
  place,
  onPlace,
}: {
  of: BareLeft;
  place: string;
  onPlace: (place: string) => void;
}) {
  const { id, did } = useRun();
  const sayError = useSayError();
  const proposed = PURPOSES.flatMap((purpose) => {
    const pieces = o.proposed[purpose];
    return pieces ? [{ purpose, pieces }] : [];
  });
  const first = proposed[0] ?? { purpose: "practice" as const, pieces: o.leftApart };
  const [purpose, setPurpose] = useState<SurplusPurpose>(first.purpose);
  const [pieces, setPieces] = useState(String(first.pieces));
  const [isApart, setApart] = useState(o.left === 0);
  // what is set apart is not built, so it is no spare one
  const purposes = PURPOSES.filter((p) => p !== "spare" || !isApart);
  const ids = useId();
  const n = Number(pieces);
  const most = isApart ? o.leftApart : o.left;
  const put = (
    list: readonly { purpose: SurplusPurpose; pieces: number }[],
    from: boolean,
    words: string,
  ) => {
    const done = addKept(id, {
      item: o.item,
      isApart: from,
      boards: [...list],
      place: place.trim(),
      on: todayIso(),
    });
    done.catch(sayError);
    did(words, done);
  };
  return (
    <>
      {proposed.length > 0 && (
        <p className="flex flex-wrap items-center gap-x-3 gap-y-1 text-[14px]">
          <span>Proposed: {proposed.map((p) => `${p.pieces} ${SURPLUS[p.purpose]}`).join("; ")}.</span>
          {proposed.length > 1 && (
            <button
              type="button"
              className="quiet-link min-h-6"
              onClick={() =>
                put(proposed, false, `${count(o.left, "bare board is", "bare boards are")} put by`)
              }
            >
              put them by as proposed
            </button>
          )}
        </p>
      )}
      <form
        className="mt-1 flex flex-wrap items-end gap-3 text-[14px]"
        onSubmit={(e) => {
          e.preventDefault();
          if (!(n >= 1)) return;
          put([{ purpose, pieces: n }], isApart, `${count(n, "bare board is", "bare boards are")} put by`);
        }}
      >
        <label className="grid">
          <span className="text-[13px] text-ink-2">Boards</span>
          <input
            inputMode="numeric"
            className="num w-16"
            value={pieces}
            onChange={(e) => setPieces(e.target.value)}
          />
        </label>
        <label className="grid">
          <span className="text-[13px] text-ink-2">For</span>
          <select value={purpose} onChange={(e) => setPurpose(e.target.value as SurplusPurpose)}>
            {purposes.map((p) => (
              <option key={p} value={p}>
                {SURPLUS[p]}
              </option>
            ))}
          </select>
        </label>
        <label className="grid">
          <span className="text-[13px] text-ink-2">Where it lies</span>
          <input
            className="w-40"
            maxLength={80}
            value={place}
            onChange={(e) => onPlace(e.target.value)}
            aria-describedby={ids}
          />
        </label>
        {o.left > 0 && o.leftApart > 0 && (
          <label className="flex items-center gap-2 self-end pb-2">
            <input
              type="checkbox"
              checked={isApart}
              onChange={(e) => {
                setApart(e.target.checked);
                if (e.target.checked && purpose === "spare") setPurpose("practice");
              }}
            />{" "}
            of those set apart
          </label>
        )}
        <Button type="submit" disabled={!(Number.isInteger(n) && n >= 1 && n <= most)}>
          Put by
        </Button>
        <span id={ids} className="pb-2 text-[13px] text-ink-2">
          {[o.left > 0 ? `${o.left} left` : "", o.leftApart > 0 ? `${o.leftApart} set apart` : ""]
            .filter(Boolean)
            .join(", ")}
        </span>
      </form>
    </>
  );
}
