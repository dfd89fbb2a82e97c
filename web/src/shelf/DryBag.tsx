import type { LotRow } from "@kobbin/contract";
import { type AirState, type AirStep, airOf, needsBaking, nextAir } from "@kobbin/core";
import { useState } from "react";
import { sayAir } from "../resources/library.ts";
import { useKept } from "../ui/Kept.tsx";
import { useOnce } from "../ui/once.ts";
import { clock, dayName, said, typedNumber, written } from "../ui/text/format.ts";
import { useSay, useSayError } from "../ui/toast/Toast.tsx";
import { useNow } from "./useNow.ts";

/** What is pressed, by what happened. */
const KEYS: Readonly<Record<AirStep, string>> = {
  dry: "back, sealed dry",
  out: "taken out",
  baked: "baked through",
  damp: "its card says damp",
  plain: "came in no dry bag",
};
/** How it is seen, worst last. */
const LOOK: Readonly<Record<AirState["is"], string>> = {
  none: "",
  dry: "text-ink-2",
  out: "text-ink-2",
  unsaid: "text-look",
  soon: "text-look",
  old: "text-look",
  unbaked: "text-stop",
  unknown: "text-stop",
  damp: "text-stop",
  spent: "text-stop",
};
/** What is done about a bag that may not go through heat, with what it may be baked in. */
export const BAKE =
  "Bake it as its maker’s sheet says before it meets solder, or use another bag. Tape, reels, tubes and unmarked trays stand 40 °C, not 125 °C; an oven for food is never used.";

/** "today 14:05", else the day as the shop writes it, and the hour. */
const moment = (iso: string): string =>
  `${dayName(iso).replace(/^(Today|Yesterday)/, (d) => d.toLowerCase())} ${clock(new Date(iso))}`;

/** How it is with a lot's dry bag now. */
export function useAir(lot: Pick<LotRow, "moisture" | "air">): AirState {
  return airOf(lot.moisture, lot.air, new Date(useNow()).toISOString());
}

/** As a list has it: its level, and what is to be minded. Nothing where it needs no bag. */
export function DryBagBrief({ lot }: { lot: LotRow }) {
  const s = useAir(lot);
  if (s.is === "none") return null;
  const level = s.level === "" ? "" : `level ${s.level}, `;
  return (
    <span className={`block text-[13px] ${LOOK[s.is]}`}>
      {s.is === "dry" ? `${level}dry` : said(s.words)}
    </span>
  );
}

/** What is said of a lot's dry bag, and how much of its hours is used, as a bar. Nothing where it needs none. */
export function DryBagWords({ lot }: { lot: LotRow }) {
  const s = useAir(lot);
  if (s.is === "none") return null;
  const used = s.floorHours ? Math.min(1, s.outHours / s.floorHours) : 0;
  return (
    <span className={`block ${LOOK[s.is]}`}>
      {said(s.words)}
      {s.until && s.is !== "spent" && ` · until ${moment(s.until)}`}
      {s.resetOn && ` · as new from ${moment(s.resetOn)}, if it stays dry`}
      {s.floorHours !== undefined && s.is !== "unsaid" && (
        <svg
          viewBox="0 0 100 4"
          preserveAspectRatio="none"
          className="mt-[3px] block h-1 w-full max-w-56"
          aria-hidden="true"
        >
          <rect width="100" height="4" fill="var(--rule)" />
          <rect width={100 * used} height="4" fill={used >= 1 ? "var(--stop)" : "var(--metal)"} />
        </svg>
      )}
    </span>
  );
}

/** A press for each thing that may have happened to a lot's bag. */
export function DryBagKeys({
  lot,
  isBig = false,
  when = "",
  onSaid,
}: {
  lot: LotRow;
  isBig?: boolean;
  /** When it happened, as a field for it has it; empty: now. */
  when?: string;
  onSaid?: () => void;
}) {
  const s = useAir(lot);
  const sayError = useSayError();
  const once = useOnce();
  if (s.is === "none" && !lot.air) return null;
  const first = !lot.air || lot.air.events.length === 0;
  return (
    <span className="flex flex-wrap gap-x-4 gap-y-1">
      {nextAir(lot.air).map((is) => (
        <button
          key={is}
          type="button"
          className={
            isBig
              ? "min-h-11 rounded-[3px] border border-rule-2 bg-sheet px-3 text-[16px] font-semibold"
              : "quiet-link min-h-6"
          }
          aria-label={`${lot.mpn}: ${first && is === "dry" ? FIRST : KEYS[is]}`}
          onClick={() =>
            once(() =>
              sayAir(lot.id, { is, ...(when ? { at: new Date(when).toISOString() } : {}) }).then(
                onSaid,
                sayError,
              ),
            )
          }
        >
          {first && is === "dry" ? FIRST : KEYS[is]}
        </button>
      ))}
    </span>
  );
}
const FIRST = "sealed in its dry bag";

/** The bag of a lot on the shelf: what is said of it, the keys, when it was where that is not now, and what its label allows. */
export function DryBag({ lot }: { lot: LotRow }) {
  const s = useAir(lot);
  const say = useSay();
  const sayError = useSayError();
  const [when, setWhen] = useState("");
  const hours = useKept(
    lot.air?.floorHours === undefined ? "" : written(String(lot.air.floorHours)),
    (text) => {
      const typed = text === "" ? null : Number(typedNumber(text));
      if (typed !== null && !(typed > 0)) {
        say(`“${text}” is no number of hours.`, { isProblem: true, hint: "Nothing was changed." });
        return;
      }
      sayAir(lot.id, { floorHours: typed }).catch(sayError);
    },
  );
  if (s.is === "none") return null;
  const events = lot.air?.events ?? [];
  return (
    <section aria-label={`Dry bag of ${lot.mpn}`} className="mb-3 border-b border-rule px-1 pb-3 text-[14px]">
      <DryBagWords lot={lot} />
      {needsBaking(s) && <p className="mt-1 max-w-[70ch] border-l-4 border-stop px-2">{BAKE}</p>}
      <div className="mt-2 flex flex-wrap items-end gap-x-5 gap-y-2">
        <DryBagKeys lot={lot} when={when} onSaid={() => setWhen("")} />
        <label className="flex items-center gap-2 text-ink-2">
          not now, but
          <input type="datetime-local" value={when} onChange={(e) => setWhen(e.target.value)} />
        </label>
        <label className="ml-auto flex items-center gap-2 text-ink-2">
          hours its label allows
          <input
            className="num w-16 text-right"
            inputMode="decimal"
            maxLength={8}
            placeholder={s.floorHours === undefined ? "" : String(s.floorHours)}
            {...hours}
          />
        </label>
      </div>
      {events.length > 0 && (
        <ol className="mt-2 text-[13.5px] text-ink-2">
          {[...events].reverse().map((e) => (
            <li key={`${e.at} ${e.is}`}>
              <span className="num">{moment(e.at)}</span> {WAS[e.is]}, {e.by}
            </li>
          ))}
        </ol>
      )}
    </section>
  );
}
const WAS: Readonly<Record<AirStep, string>> = {
  dry: "sealed dry",
  out: "taken out",
  baked: "baked through and sealed",
  damp: "its card said damp",
  plain: "came in no dry bag",
};
