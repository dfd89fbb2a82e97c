import { type LimitCheck, measureSpec, OPTION_WORDS, type OptionKey, unitOf } from "@kobbin/core";
import { useState } from "react";
import { InColours } from "../../proof/InColours.tsx";
import { removeQuote } from "../../resources/run.ts";
import { QuoteDialog } from "../../run/QuoteDialog.tsx";
import { useRun } from "../../run/runState.ts";
import { DaysDelta, Delta } from "../../ui/ChoiceRow.tsx";
import { amount, fromMicros, mm, money, said, written } from "../../ui/format.ts";
import { Skeleton } from "../../ui/States.tsx";
import { useSayError } from "../../ui/Toast.tsx";
import { HouseDialog } from "./HouseDialog.tsx";
import { Limits } from "./Limits.tsx";
import { NewHouse } from "./NewHouse.tsx";
import { OptionRow } from "./OptionRow.tsx";
import { Picks } from "./Picks.tsx";
import { Price } from "./Price.tsx";
import { ProfileOut } from "./ProfileFile.tsx";

/** What is decided by a row, in the order of the table of decisions. */
const DECISIONS = Object.entries(OPTION_WORDS) as [OptionKey, (typeof OPTION_WORDS)[OptionKey]][];
/** Where the cheaper alternative gives up something that was asked for, it is not offered as a saving. */
const NO_SAVING: ReadonlySet<OptionKey> = new Set([
  "bevel",
  "contacts",
  "castellation",
  "test",
  "edgePlating",
]);

const value = (c: LimitCheck) => `${mm(c.value)} of ${written(String(c.limit))}`;

/** Which house makes the bare board, and how; every line shows what it would change before it is chosen. */
export function FabPage() {
  const { id, doc, result: r, effects, change, did, isLocked } = useRun();
  const { currency } = doc.workshop;
  const sayError = useSayError();
  const [dialog, setDialog] = useState<{ kind: "quote" | "edit" | "copy" | "new"; house: string }>();
  const order = r.orders[0];
  return (
    <section>
      <div className="mb-3 flex items-start justify-between gap-x-6 gap-y-2 max-md:flex-wrap">
        <div className="min-w-0">
          <h1>Fab</h1>
          <p className="text-ink-2">
            Which house makes the bare board, and how. Every line shows what it would change before you choose
            it.
          </p>
        </div>
        <InColours />
      </div>
      {!effects ? (
        <Skeleton rows={6} label="Effects are being computed" />
      ) : (
        <>
          <div className="overflow-x-auto">
            <table className="rows w-full min-w-[600px]">
              <thead>
                <tr>
                  <th>House</th>
                  <th className="text-right">Per good {unitOf(doc)}</th>
                  <th className="text-right">Landed, {currency}</th>
                  <th className="text-right">At your door</th>
                  <th>Tightest limit</th>
                  <th>
                    <span className="sr-only">Choose</span>
                  </th>
                </tr>
              </thead>
              <tbody>
                {effects.houses.map((h) => {
                  const quoted = h.isQuoted;
                  return (
                    <tr
                      key={h.house}
                      className={h.isChosen ? "bg-metal-soft shadow-[inset_3px_0_0_var(--metal)]" : ""}
                    >
                      <td className="pl-3!">
                        <span className={h.isChosen ? "font-bold" : "font-semibold"}>{h.label}</span>
                        <span className="block text-[12.5px] text-ink-2">
                          {h.cannot ? (
                            <span className="text-stop">cannot: {said(h.cannot)}</span>
                          ) : (
                            (doc.houses?.find((x) => x.id === h.house)?.about ?? "")
                          )}
                          {h.unstated.length > 0 && (
                            <span className="block text-look">does not say: {h.unstated.join(", ")}</span>
                          )}
                          {h.gives.map((g) => (
                            <span key={g.key} className="block text-look">
                              no {OPTION_WORDS[g.key].word} {g.wished}: {g.got}
                            </span>
                          ))}
                        </span>
                      </td>
                      <td className="text-right">
                        {h.isChosen ? (
                          <span className="num">{amount(h.boardsPerGood, currency)}</span>
                        ) : (
                          <Delta value={h.perGood} />
                        )}
                      </td>
                      <td className="num text-right">
                        {amount(h.boardsTotal, currency)}
                        <span className="block font-sans text-[12.5px] text-ink-2">
                          {quoted
                            ? "quoted"
                            : h.isGuessed
                              ? `a guess for ${h.pieces} pieces`
                              : `${h.pieces} pieces${h.insteadOf === undefined ? "" : `, cheaper than ${h.insteadOf}`}`}
                        </span>
                      </td>
                      <td className="num text-right whitespace-nowrap">
                        {h.daysAtDoor} days
                        <span className="block text-[12.5px]">
                          {h.isChosen ? (
                            <span className="font-sans text-ink-2">chosen</span>
                          ) : (
                            <DaysDelta value={h.days} />
                          )}
                        </span>
                      </td>
                      <td className="text-[13px] text-ink-2">
                        {h.tightest && (
                          <>
                            {measureSpec(h.tightest.measure).short}{" "}
                            <span className="num">{value(h.tightest)}</span>
                          </>
                        )}
                      </td>
                      <td className="text-right whitespace-nowrap">
                        {!h.isChosen && !isLocked && (
                          <button
                            type="button"
                            className="quiet-link"
                            aria-label={`Choose ${h.label}`}
                            onClick={() => change({ houseId: h.house }, `Boards by ${h.label}`)}
                          >
                            {h.cannot ? "choose anyway" : "choose"}
                          </button>
                        )}
                      </td>
                    </tr>
                  );
                })}
              </tbody>
            </table>
          </div>
          {effects.houses.some((h) => h.isPartial) && (
            <p className="mt-1 text-[13px] text-ink-2">
              Not everything is priced: the differences are of what is.
            </p>
          )}
          <Picks />
          {!isLocked && (
            <p className="mt-2 text-[14px]">
              {effects.houses.length === 0 && (
                <span className="text-ink-2">No house is known yet; what one quoted is enough to </span>
              )}
              <button
                type="button"
                className="quiet-link"
                onClick={() => setDialog({ kind: "new", house: "" })}
              >
                {effects.houses.length === 0 ? "begin one" : "begin a house that is not listed"}
              </button>
            </p>
          )}
          {r.house && (
            <p className="mt-2 flex flex-wrap gap-x-5 text-[14px]">
              <span className="text-ink-2">{r.house.name}:</span>
              {!isLocked && (
                <>
                  <button
                    type="button"
                    className="quiet-link"
                    onClick={() => setDialog({ kind: "quote", house: r.house!.id })}
                  >
                    type its quotation
                  </button>
                  <button
                    type="button"
                    className="quiet-link"
                    onClick={() => setDialog({ kind: "copy", house: r.house!.id })}
                  >
                    copy it and edit the copy
                  </button>
                  <button
                    type="button"
                    className="quiet-link"
                    onClick={() => setDialog({ kind: "edit", house: r.house!.id })}
                  >
                    edit its profile
                  </button>
                </>
              )}
              <ProfileOut house={r.house} />
              {order && (order.quoted ?? order.unfit) && (
                <span className="text-ink-2">
                  {order.quoted
                    ? `quotation ${money(Number(order.quoted.total), order.quoted.currency)} overrides the estimate of ${amount(fromMicros(order.quote.total), currency)} `
                    : `quotation ${money(Number(order.unfit!.quote.total), order.unfit!.quote.currency)} was for ${order.unfit!.misfits.join("; for ")}: the estimate counts `}
                  {!isLocked && (
                    <button
                      type="button"
                      className="quiet-link"
                      onClick={() => {
                        const done = removeQuote(id, r.house!.id, "fab");
                        done.then(() => did("The quotation is removed, the estimate counts", done), sayError);
                      }}
                    >
                      remove it
                    </button>
                  )}
                </span>
              )}
            </p>
          )}
          {order?.quoted?.basis && (
            <p className="text-[13px] text-ink-2">
              The quotation is for these options alone: each alternative below is set against it with the
              house's estimate.
            </p>
          )}
          <div className="mt-5">
            {DECISIONS.filter(([key]) => effects.options[key].length > (key === "freight" ? 1 : 0)).map(
              ([key, { label, why }]) => (
                <OptionRow key={key} option={key} label={label} why={why} showsSaving={!NO_SAVING.has(key)} />
              ),
            )}
            <div className="border-t border-rule" />
          </div>
          {order && (
            <div className="mt-5 grid grid-cols-2 gap-8 max-md:grid-cols-1">
              <div className="flex flex-col gap-5">
                {r.orders.map((o, i) => (
                  <Price key={o.name} order={o} at={i} />
                ))}
              </div>
              <Limits checks={r.checks} />
            </div>
          )}
        </>
      )}
      {dialog?.kind === "new" && <NewHouse onClose={() => setDialog(undefined)} />}
      {dialog?.kind === "quote" && (
        <QuoteDialog houseId={dialog.house} kind="fab" onClose={() => setDialog(undefined)} />
      )}
      {(dialog?.kind === "edit" || dialog?.kind === "copy") && (
        <HouseDialog
          houseId={dialog.house}
          isCopy={dialog.kind === "copy"}
          onClose={() => setDialog(undefined)}
        />
      )}
    </section>
  );
}
