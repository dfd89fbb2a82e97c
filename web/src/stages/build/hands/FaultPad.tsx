import { suspectsOfUnit, unitOf } from "@kobbin/core";
import { type KeyboardEvent, useEffect, useMemo, useState } from "react";
import { Take } from "../../../photos/Take.tsx";
import { useAddPhotos } from "../../../photos/useAddPhotos.ts";
import { addDefect } from "../../../resources/record.ts";
import { useRun } from "../../../run/runState.ts";
import { type KeyBinding, useKeys } from "../../../ui/keys.ts";
import { todayIso } from "../../../ui/text/dates.ts";
import { count } from "../../../ui/text/format.ts";
import { useSay, useSayError } from "../../../ui/toast/Toast.tsx";
import { FAULT_KEYS, FAULTS } from "./faultKeys.ts";

type Code = (typeof FAULTS)[number]["codes"][number];

/** Something is found wrong: where is known or a digit away, what it is is one key. */
export function FaultPad({
  unit,
  step,
  at,
  onDone,
}: {
  unit: number;
  step: number;
  /** The piece that is looked at; empty where none is. */
  at: string;
  onDone: () => void;
}) {
  const { id, doc, record, result } = useRun();
  const say = useSay();
  const sayError = useSayError();
  const suspects = useMemo(
    () => suspectsOfUnit(doc, result.parts, record, unit).map((s) => s.ref),
    [doc, result.parts, record, unit],
  );
  const places = useMemo(() => [...new Set([...(at ? [at] : []), ...suspects])].slice(0, 9), [at, suspects]);
  const [place, setPlace] = useState(places[0] ?? "");
  /** Taken before it is said what they show. */
  const [photos, setPhotos] = useState<readonly File[]>([]);
  const { add } = useAddPhotos();
  const note = (code: Code) => {
    const found = addDefect(id, {
      unit,
      at: place.trim(),
      code,
      step,
      on: todayIso(),
      isMended: false,
      note: "",
    });
    found
      .then(({ value }) => add(photos, { defect: value.id }, `${unitOf(doc)} ${unit}: ${code}`))
      .catch(sayError);
    say(`${unitOf(doc)} ${unit}${place ? `, ${place}` : ""}: ${code}`);
    onDone();
  };
  // biome-ignore lint/correctness/useExhaustiveDependencies: what a key notes hangs on the place
  const bindings = useMemo<KeyBinding[]>(
    () => [
      ...FAULTS.flatMap((f) =>
        f.codes.flatMap((code) => {
          const key = FAULT_KEYS[code];
          return key ? [{ keys: key, does: `it is ${code}`, run: () => note(code) }] : [];
        }),
      ),
      ...places.map((p, i) => ({ keys: String(i + 1), does: `it is at ${p}`, run: () => setPlace(p) })),
    ],
    [place, places, photos],
  );
  useKeys(bindings, true);
  // back to the piece, not out of the bench
  useEffect(() => {
    const close = (e: globalThis.KeyboardEvent) => {
      if (e.key !== "Escape") return;
      e.preventDefault();
      e.stopImmediatePropagation();
      onDone();
    };
    window.addEventListener("keydown", close, true);
    return () => window.removeEventListener("keydown", close, true);
  }, [onDone]);
  return (
    <section aria-label="What is wrong" className="max-w-[1100px]">
      <div className="mb-4 flex flex-wrap items-end gap-3">
        <p className="mr-3 text-[30px] font-bold max-sm:text-[22px]">What is wrong</p>
        {places.map((p, i) => (
          <button
            key={p}
            type="button"
            aria-pressed={p === place}
            onClick={() => setPlace(p)}
            className={`num min-h-[44px] rounded-[4px] border px-3 text-[18px] font-semibold ${p === place ? "border-metal bg-metal-soft" : "border-rule-2"}`}
          >
            {p} <kbd className="text-[13px] font-normal text-ink-2">{i + 1}</kbd>
          </button>
        ))}
        <label className="flex flex-col text-[13.5px] text-ink-2">
          another place, or none
          <input
            className="num min-h-[44px] w-[9em] text-[18px]!"
            value={place}
            maxLength={80}
            onChange={(e) => setPlace(e.target.value)}
            onKeyDown={(e: KeyboardEvent<HTMLInputElement>) => e.key === "Enter" && e.currentTarget.blur()}
          />
        </label>
        <Take what="what is wrong" onTaken={(files) => setPhotos([...photos, ...files])} />
        {photos.length > 0 && (
          <p role="status" className="self-center text-[15px]">
            {count(photos.length, "photo goes", "photos go")} with it
          </p>
        )}
        <button type="button" className="quiet-link ml-auto" onClick={onDone}>
          nothing, back <kbd>Esc</kbd>
        </button>
      </div>
      <Codes onCode={note} />
    </section>
  );
}

/** All it can be, by kind, each with its key. */
function Codes({ onCode }: { onCode: (code: Code) => void }) {
  return (
    <div className="grid grid-cols-3 gap-x-6 gap-y-4 max-md:grid-cols-1">
      {FAULTS.map((f) => (
        <fieldset key={f.name}>
          <legend className="mb-1 text-[16px] font-semibold">{f.name}</legend>
          <div className="flex flex-wrap gap-2">
            {f.codes.map((code) => (
              <button
                key={code}
                type="button"
                onClick={() => onCode(code)}
                className="min-h-[44px] rounded-[4px] border border-rule-2 bg-paper px-3 text-[17px] hover:bg-metal-soft max-sm:text-[15px]"
              >
                {code}{" "}
                {FAULT_KEYS[code] && (
                  <kbd className="text-[13px] text-ink-2 max-sm:hidden">
                    {FAULT_KEYS[code]!.toUpperCase()}
                  </kbd>
                )}
              </button>
            ))}
          </div>
        </fieldset>
      ))}
    </div>
  );
}
