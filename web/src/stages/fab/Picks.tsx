import { cheapestWithin, type FabPick, fabPicks, quickestBelow } from "@kobbin/core";
import { addDays, differenceInCalendarDays, formatISO, parseISO } from "date-fns";
import { useMemo, useState } from "react";
import { useRun } from "../../run/runState.ts";
import { DateField } from "../../ui/DateField.tsx";
import { Field } from "../../ui/Field.tsx";
import { useKeys } from "../../ui/keys.ts";
import { amount, count, day, typedNumber } from "../../ui/text/format.ts";

/** The cheapest house that is here in time, and the quickest within a sum: over every house and each of its lead times. */
export function Picks() {
  const { doc, result: r, change, isLocked } = useRun();
  const { currency } = doc.workshop;
  const picks = useMemo(() => fabPicks(doc, r.start), [doc, r.start]);
  const [by, setBy] = useState("");
  const [most, setMost] = useState("");
  const within = by === "" ? undefined : differenceInCalendarDays(parseISO(by), parseISO(doc.today));
  const sum = most.trim() === "" ? undefined : Number(typedNumber(most.trim()));
  const cheapest = within === undefined || Number.isNaN(within) ? undefined : cheapestWithin(picks, within);
  const quickest = sum === undefined || !Number.isFinite(sum) ? undefined : quickestBelow(picks, sum);
  const take = (p: FabPick | undefined) => {
    if (!p || p.isChosen || isLocked) return;
    change(
      { houseId: p.houseId, options: { ...p.with, leadDays: p.leadDays } } as never,
      `Boards by ${p.house} in ${p.leadDays} days`,
    );
  };
  // biome-ignore lint/correctness/useExhaustiveDependencies: take closes over what stands here
  const bindings = useMemo(
    () => [
      { keys: "c", does: "take the cheapest house that is here in time", run: () => take(cheapest) },
      { keys: "w", does: "take the quickest house within the sum", run: () => take(quickest) },
    ],
    [cheapest, quickest, isLocked],
  );
  useKeys(bindings);
  if (picks.length < 2) return null;
  return (
    <div className="mt-3 flex flex-wrap items-start gap-x-8 gap-y-2 border-t border-rule pt-2 text-[14px]">
      <div className="flex items-end gap-3">
        <DateField label="Boards here by" value={by} empty="any day" onSave={setBy} className="w-40" />
        {by !== "" && (
          <Picked
            pick={cheapest}
            today={doc.today}
            currency={currency}
            words="cheapest"
            none={`none: the soonest are here in ${count(Math.min(...picks.map((p) => p.days)), "day")}`}
            keyName="C"
            onTake={take}
          />
        )}
      </div>
      <div className="flex items-end gap-3">
        <Field
          label={`Landed for at most, ${currency}`}
          isNumber
          inputMode="decimal"
          value={most}
          onChange={(e) => setMost(e.target.value)}
          className="w-40"
        />
        {most.trim() !== "" && (
          <Picked
            pick={quickest}
            today={doc.today}
            currency={currency}
            words="quickest"
            none={
              sum === undefined || !Number.isFinite(sum)
                ? "that is no sum"
                : `none: the cheapest are ${amount(picks[0]!.landed, currency)}`
            }
            keyName="W"
            onTake={take}
          />
        )}
      </div>
    </div>
  );
}

function Picked({
  pick: p,
  today,
  currency,
  words,
  none,
  keyName,
  onTake,
}: {
  pick: FabPick | undefined;
  today: string;
  currency: string;
  words: string;
  none: string;
  keyName: string;
  onTake: (p: FabPick) => void;
}) {
  if (!p) return <p className="pb-1 text-look">{none}</p>;
  const door = formatISO(addDays(parseISO(today), Math.ceil(p.days)), { representation: "date" });
  return (
    <p className="pb-1">
      {words}: <b>{p.house}</b>, {count(p.leadDays, "day")} in the house
      {p.way === "ordinary" ? "" : `, sent ${p.way}`}, here {day(door)},{" "}
      <span className="num">{amount(p.landed, currency)}</span>{" "}
      {p.isChosen ? (
        <span className="text-ink-2">chosen</span>
      ) : (
        <>
          <button type="button" className="quiet-link" onClick={() => onTake(p)}>
            take it
          </button>{" "}
          <kbd className="text-[13px]">{keyName}</kbd>
        </>
      )}
      {(p.isGuessed || p.unstated.length > 0) && (
        <span className="block text-look">
          {[
            p.isGuessed && `its price is a guess for ${p.pieces} pieces`,
            p.unstated.length > 0 && `it does not say: ${p.unstated.join(", ")}`,
          ]
            .filter(Boolean)
            .join("; ")}
        </span>
      )}
      {p.gives.length > 0 && (
        <span className="block text-look">
          {p.gives.map((g) => `${g.wished} becomes ${g.got}`).join(", ")}
        </span>
      )}
    </p>
  );
}
