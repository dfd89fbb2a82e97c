import { boardFacts, type House, type HouseEffect } from "@kobbin/core";
import { useEffects, useRun } from "../../../run/runState.ts";
import { DaysDelta, Delta } from "../../../ui/ChoiceRow.tsx";
import { Skeleton } from "../../../ui/States.tsx";
import { Sum } from "../../../ui/Sum.tsx";
import { amount, count, fixed, said } from "../../../ui/text/format.ts";

/** The own bench beside the cheapest and the quickest that can make the board: money, hours, days, and what may go wrong. */
export function AgainstOrdering() {
  const { doc, result: r } = useRun();
  const effects = useEffects("fab");
  if (!effects) return <Skeleton rows={3} label="Effects are being computed" />;
  const isOwn = (h: HouseEffect) => doc.houses?.find((x) => x.id === h.house)?.bench !== undefined;
  const own = effects.houses.filter(isOwn);
  const able = effects.houses.filter((h) => !isOwn(h) && !h.cannot);
  const least = (by: (h: HouseEffect) => number) => [...able].sort((a, b) => by(a) - by(b))[0];
  const [cheapest, quickest] = [least((h) => h.boardsTotal), least((h) => h.daysAtDoor)];
  const rows: readonly (readonly [string, HouseEffect | undefined])[] = [
    ...own.map((h) => ["here", h] as const),
    [cheapest === quickest ? "cheapest and quickest" : "cheapest to order", cheapest],
    ...(cheapest === quickest ? [] : [["quickest to order", quickest] as const]),
  ];
  const bench = doc.houses?.find((h) => h.bench)?.bench;
  const holes = (b: (typeof doc.boards)[number]) => boardFacts(b.measure).holes * b.perProduct;
  const drilled = doc.boards.reduce((n, b) => n + holes(b), 0);
  const each = doc.boards.reduce((n, b) => n + b.perProduct, 0);
  /** Set-up of each board's kind, the boards themselves, and every hole of them. */
  const minutesOf = (b: NonNullable<House["bench"]>, h: HouseEffect) => {
    const setups = doc.boards.length * b.setupMin;
    const boards = h.pieces * b.perBoardMin;
    return [
      { label: count(doc.boards.length, "set-up"), value: fixed(setups, 1) },
      { label: count(h.pieces, "board"), value: fixed(boards, 1), note: `${b.perBoardMin} min each` },
      {
        label: "drilled",
        value: fixed(60 * h.ownHours! - setups - boards, 1),
        note: `${b.secondsAHole} s a hole, ${Math.round(drilled / each)} on a board`,
      },
    ];
  };
  const risk = (h: HouseEffect) =>
    h.cannot
      ? `cannot: ${h.cannot}`
      : isOwn(h)
        ? `${Math.round(100 * (1 - (bench?.yield ?? 1)))} % are expected to fail and are etched anew; no mask, nothing plated`
        : "a parcel may be late; a house that tested answers for it";
  return (
    <section aria-labelledby="against-ordering">
      <h2 id="against-ordering" className="mb-1">
        Made here or ordered
      </h2>
      <table className="rows w-full">
        <thead>
          <tr>
            <th>Who</th>
            <th className="text-right">Money, {doc.workshop.currency}</th>
            <th className="text-right">Own hours</th>
            <th className="text-right">Per good one</th>
            <th className="text-right">Days</th>
            <th>Risk</th>
          </tr>
        </thead>
        <tbody>
          {rows.map(([what, h]) =>
            h ? (
              <tr key={what} className={h.isChosen ? "bg-metal-soft" : ""}>
                <td className="pl-2!">
                  <span className="font-semibold">{h.label}</span>
                  <span className="block text-[12.5px] text-ink-2">
                    {h.isChosen ? `${what}, chosen` : what}
                  </span>
                </td>
                <td className="num text-right">{amount(h.boardsTotal, doc.workshop.currency)}</td>
                <td className="num text-right">
                  {isOwn(h) && bench ? (
                    <Sum
                      title="Own hours for the boards, min"
                      terms={minutesOf(bench, h)}
                      result={fixed(60 * h.ownHours!, 1)}
                    >
                      {fixed(h.ownHours!, 1)}
                    </Sum>
                  ) : (
                    fixed(0, 1)
                  )}
                </td>
                <td className="text-right">
                  {h.isChosen ? (
                    <span className="text-[13px] text-ink-2">chosen</span>
                  ) : (
                    <Delta value={h.perGood} />
                  )}
                </td>
                <td className="num text-right">
                  {fixed(h.daysAtDoor, 1)}
                  {!h.isChosen && (
                    <span className="block text-[12.5px]">
                      <DaysDelta value={h.days} />
                    </span>
                  )}
                </td>
                <td className={`text-[13.5px] ${h.cannot ? "text-stop" : "text-ink-2"}`}>{said(risk(h))}</td>
              </tr>
            ) : null,
          )}
        </tbody>
      </table>
      <p className="mt-1 text-[13px] text-ink-2">
        Own hours count at {doc.workshop.hourlyRate} {doc.workshop.currency} in the price of a good one;{" "}
        {r.start} are started.
      </p>
    </section>
  );
}
