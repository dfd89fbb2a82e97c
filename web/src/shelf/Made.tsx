import type { LotRow } from "@kobbin/contract";
import { madeWords, monthsOld, OLD_YEARS, readDateCode } from "@kobbin/core";
import { saveLot } from "../resources/library.ts";
import { Kept } from "../ui/Kept.tsx";
import { todayIso } from "../ui/text/dates.ts";
import { count } from "../ui/text/format.ts";
import { useSay, useSayError } from "../ui/toast/Toast.tsx";

/** "week 39 of 2026, 2 months old", what else it may be, and that solder may not take; that it cannot be read where it cannot. */
export function MadeWords({ code, isBrief = false }: { code: string; isBrief?: boolean }) {
  const today = todayIso();
  const made = readDateCode(code, today);
  if (!made)
    return isBrief ? (
      <span>{code}</span>
    ) : (
      <span className="text-ink-2">not read as a date; kept as it stands</span>
    );
  const months = monthsOld(made, today);
  const age =
    months === 0
      ? "new"
      : months < 24
        ? `${count(months, "month")} old`
        : `${count(Math.floor(months / 12), "year")} old`;
  const isOld = months >= 12 * OLD_YEARS;
  return (
    <span className={isOld ? "text-look" : "text-ink-2"}>
      {isBrief ? `${code}: ${age}${made.or ? ", or read otherwise" : ""}` : `${madeWords(made)}, ${age}`}
      {!isBrief && made.or && <span className="text-look">, unless it is {made.or}</span>}
      {!isBrief && isOld && ": try solder on one before it is used"}
    </span>
  );
}

/** The date code of a lot, kept as it is typed, with what it says. */
export function Made({ lot: l, isOwner }: { lot: LotRow; isOwner: boolean }) {
  const say = useSay();
  const sayError = useSayError();
  if (!isOwner && l.made === undefined) return null;
  return (
    <div className="mb-2 flex flex-wrap items-end gap-x-3">
      <Kept
        label={`Date code of ${l.mpn}`}
        className="w-48"
        placeholder="2639, 26W39, 09/2026"
        disabled={!isOwner}
        isMono
        maxLength={20}
        value={l.made ?? ""}
        onSave={(v) =>
          saveLot(l.id, { version: l.version, made: v === "" ? null : v }).then(
            () => say(v === "" ? `${l.mpn} says no date code` : `${l.mpn}: date code ${v}`),
            sayError,
          )
        }
      />
      {l.made !== undefined && (
        <p className="pb-2 text-[14px]">
          <MadeWords code={l.made} />
        </p>
      )}
    </div>
  );
}
