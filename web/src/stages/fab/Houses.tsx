import type { HouseRecord } from "@kobbin/contract";
import { type HouseEffect, type LimitCheck, OPTION_WORDS, shortOf, unitOf } from "@kobbin/core";
import { useState } from "react";
import { Link } from "react-router";
import { useHouseRecords } from "../../resources/run.ts";
import { useEffects, useRun } from "../../run/runState.ts";
import { DaysDelta, Delta } from "../../ui/ChoiceRow.tsx";
import { MadeUp } from "../../ui/MadeUp.tsx";
import { amount, count, fixed, mm, said, written } from "../../ui/text/format.ts";
import { valuesWith } from "./OptionRow.tsx";
import { onBoard } from "./onBoard.ts";

const value = (c: LimitCheck) => `${mm(c.value)} of ${written(String(c.limit))}`;

/** The same boards at every house, side by side: landed cost, date, what each would change and cannot. */
export function Houses() {
  const { doc, change, isLocked } = useRun();
  const effects = useEffects("fab")!;
  const { currency } = doc.workshop;
  const { data: records } = useHouseRecords();
  return (
    <>
      <div className="overflow-x-auto">
        <table className="rows w-full min-w-[600px]">
          <thead>
            <tr>
              <th className="w-[32%]">House</th>
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
                    {doc.madeUp?.includes(h.house) && <MadeUp />}
                    <span className="block text-[12.5px] text-ink-2">
                      {h.cannot ? (
                        <Refusal house={h} />
                      ) : (
                        (doc.houses?.find((x) => x.id === h.house)?.about ?? "")
                      )}
                      <Unstated of={h.unstated} />
                      {doc.houses
                        ?.find((x) => x.id === h.house)
                        ?.promotions?.filter((x) => x.until === undefined || x.until >= doc.today)
                        .map((x) => (
                          <span key={x.label} className="block text-ink-2">
                            {said(
                              `not counted: ${x.label}, ${Math.round(100 * x.share)} % off the boards, ${x.conditions}${x.until ? `, until ${x.until}` : ""}`,
                            )}
                          </span>
                        ))}
                      <OwnRecord record={records?.find((x) => x.houseId === h.house)} />
                      {h.gives.map((g) => (
                        <span key={g.key} className="block text-look">
                          no {OPTION_WORDS[g.key].word} {g.wished}: {g.got}
                        </span>
                      ))}
                      {h.with?.map((c) => (
                        <span key={c.key} className="block text-look">
                          {said(`with ${OPTION_WORDS[c.key].word} ${c.to}: ${c.because}`)}
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
                      {h.ownHours !== undefined && `, and ${fixed(h.ownHours, 1)} own hours`}
                    </span>
                  </td>
                  <td className="num text-right whitespace-nowrap">
                    {Number.isInteger(h.daysAtDoor) ? h.daysAtDoor : fixed(h.daysAtDoor, 1)} days
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
                        {shortOf(h.tightest)} <span className="num">{value(h.tightest)}</span>
                      </>
                    )}
                  </td>
                  <td className="text-right whitespace-nowrap">
                    {!h.isChosen && !isLocked && (
                      <button
                        type="button"
                        className="quiet-link"
                        aria-label={`Choose ${h.label}`}
                        onClick={() =>
                          change(
                            { houseId: h.house, ...(h.with ? { options: valuesWith(h) } : {}) } as never,
                            `Boards by ${h.label}`,
                          )
                        }
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
    </>
  );
}

/** Of several reasons the first stands there, the others behind a press. */
const FIRST = 1;

function Rest({ of, onAll }: { of: number; onAll: () => void }) {
  if (of <= 0) return null;
  return (
    <>
      {" "}
      <button type="button" className="quiet-link" onClick={onAll}>
        and {of} more
      </button>
    </>
  );
}

/** Limits a house does not state. */
function Unstated({ of }: { of: readonly string[] }) {
  const [isAll, setAll] = useState(false);
  if (of.length === 0) return null;
  const shown = isAll ? of : of.slice(0, FIRST);
  return (
    <span className="block text-look">
      does not say: {shown.join(", ")}
      <Rest of={of.length - shown.length} onAll={() => setAll(true)} />
    </span>
  );
}

/** Why a house cannot make the boards: each measure with its limit, and its place on the picture. */
function Refusal({ house: h }: { house: HouseEffect }) {
  const { id, doc } = useRun();
  const [isAll, setAll] = useState(false);
  if (h.breaches.length === 0) return <span className="text-stop">cannot: {said(h.cannot!)}</span>;
  const shown = isAll ? h.breaches : h.breaches.slice(0, FIRST);
  return (
    <span className="text-stop">
      cannot:{" "}
      {shown.map((c, i) => {
        const words = `${shortOf(c)} ${mm(c.value)}, holds ${written(String(c.limit))}`;
        const to = onBoard(id, doc, c);
        return (
          <span key={`${c.measure} ${c.label} ${c.board ?? ""}`}>
            {i > 0 && "; "}
            {to ? (
              <Link className="underline" to={to}>
                {words}
              </Link>
            ) : (
              words
            )}
          </span>
        );
      })}
      <Rest of={h.breaches.length - shown.length} onAll={() => setAll(true)} />
    </span>
  );
}

/** What the shop's own orders showed, with how many they were; nothing while there are none. */
function OwnRecord({ record: r }: { record: HouseRecord | undefined }) {
  if (!r || r.orders === 0) return null;
  return (
    <span className="block">
      {[
        `your ${count(r.orders, "order")}`,
        r.promisedDays !== undefined &&
          r.realDays !== undefined &&
          `${fixed(r.promisedDays, 1)} days promised, ${fixed(r.realDays, 1)} real`,
        r.boards > 0 && `${r.apart} of ${count(r.boards, "board")} set apart`,
        r.questions > 0 && count(r.questions, "question"),
      ]
        .filter(Boolean)
        .join("; ")}
    </span>
  );
}
