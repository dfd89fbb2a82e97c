import { quantityRows, SURPLUS, type SurplusPurpose, surplusPlan, unitOf } from "@kobbin/core";
import { useMemo } from "react";
import { BareBy } from "../../run/BareBy.tsx";
import { useRun } from "../../run/runState.ts";
import { Fold } from "../../ui/Fold.tsx";
import { Sum } from "../../ui/Sum.tsx";
import { amount, count, fixed } from "../../ui/text/format.ts";

/** How many boards to order: the chance of enough good ones against a second order, and a purpose for what is left. */
export function HowMany() {
  const { doc, result: r, change, isLocked } = useRun();
  const rows = useMemo(() => quantityRows(doc, r), [doc, r]);
  const { currency } = doc.workshop;
  const ordered = rows.find((q) => q.isOrdered);
  const best = rows.find((q) => q.isBest);
  if (rows.length === 0) return null;
  const verdict =
    ordered === undefined
      ? ""
      : `${ordered.pieces} ordered, ${count(ordered.left, "bare one")} left${best && best !== ordered ? `; ${best.pieces} would cost least in the long run` : ", least in the long run"}`;
  return (
    <Fold id="how-many" title="How many" verdict={verdict}>
      <p className="mb-1 text-[14px] text-ink-2">
        In the long run: landed, and the price of a second small order as often as one is needed.
      </p>
      {(r.house?.usualOvers ?? 0) > 0 && (
        <p className="mb-1 text-[14px] text-ink-2">
          {r.house!.name} usually sends {fixed(100 * r.house!.usualOvers!, 0)} % more than ordered, by its
          profile: of {ordered?.pieces ?? r.start} about{" "}
          {fixed((ordered?.pieces ?? r.start) * r.house!.usualOvers!, 1)}. Nothing is counted on it.
        </p>
      )}
      <div className="overflow-x-auto">
        <table className="rows w-full min-w-[520px]">
          <thead>
            <tr>
              <th className="text-right">Boards</th>
              <th className="text-right">Landed, {currency}</th>
              <th className="text-right">Enough good ones</th>
              <th className="text-right">In the long run</th>
              <th className="text-right">Left bare</th>
              <th>
                <span className="sr-only">Choose</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {rows.map((q) => (
              <tr
                key={q.pieces}
                className={q.isOrdered ? "bg-metal-soft shadow-[inset_3px_0_0_var(--metal)]" : ""}
              >
                <td className="num text-right">{q.pieces}</td>
                <td className="num text-right">{amount(q.landed, currency)}</td>
                <td className="num text-right">{fixed(100 * q.chance, 1)} %</td>
                <td className="num text-right">
                  <Sum
                    title={`${q.pieces} boards in the long run`}
                    terms={[
                      { label: "landed", value: amount(q.landed, currency) },
                      {
                        label: `a second order of the least it sells, ${amount(q.again, currency)}`,
                        value: amount((1 - q.chance) * q.again, currency),
                        note: `needed in ${fixed(100 * (1 - q.chance), 1)} % of cases`,
                      },
                    ]}
                    result={amount(q.expected, currency)}
                  >
                    {amount(q.expected, currency)}
                  </Sum>
                  {q.isBest && <span className="block font-sans text-[12.5px] text-fine">least</span>}
                </td>
                <td className="num text-right">{q.left}</td>
                <td className="text-right">
                  {!q.isOrdered && !isLocked && q.pieces >= r.start && (
                    <button
                      type="button"
                      className="quiet-link"
                      aria-label={`Order ${q.pieces} boards`}
                      onClick={() =>
                        change({ options: { pieces: q.pieces } } as never, `${q.pieces} boards ordered`)
                      }
                    >
                      order these
                    </button>
                  )}
                  {q.pieces < r.start && (
                    <span className="text-[13px] text-ink-3">{r.start} are started</span>
                  )}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      {(doc.options.pieces ?? 0) > r.start && !isLocked && (
        <p className="mt-1 text-[14px]">
          <button
            type="button"
            className="quiet-link"
            onClick={() =>
              change({ options: { pieces: 0 } } as never, `As many ${unitOf(doc)}s as are started`)
            }
          >
            order only as many as are started
          </button>
        </p>
      )}
      <BareBy purpose="spare" className="mt-2 text-[14px]" />
      {ordered && ordered.left > 0 && <Surplus left={ordered.left} />}
    </Fold>
  );
}

/** What one has of a lot before serves the next one too. */
const NEEDED_ONCE = ["nest", "tray", "practice"] as const;

/** What the bare boards that are left are for; proposed, and changed one by one. */
function Surplus({ left }: { left: number }) {
  const { doc, result: r, change, isLocked } = useRun();
  const proposed = surplusPlan(left, r.goes.has("stencil"));
  const set = doc.choices.surplus;
  const plan = set ?? proposed;
  const given = Object.values(plan).reduce((n, k) => n + (k ?? 0), 0);
  const put = (what: SurplusPurpose, n: number) =>
    change({ surplus: { ...plan, [what]: Math.max(0, n) } } as never, `${n} left boards: ${SURPLUS[what]}`);
  return (
    <section aria-labelledby="surplus" className="mt-4">
      <h3 id="surplus" className="font-semibold">
        {count(left, "bare board")} left: a purpose for each
      </h3>
      <p className="text-[13.5px] text-ink-2">
        {set ? "As you set it" : "A proposal"}
        {given !== left &&
          `; ${given > left ? `${given - left} too many` : `${left - given} without a purpose`}`}
      </p>
      {NEEDED_ONCE.map((purpose) => (
        <BareBy key={purpose} purpose={purpose} className="text-[13.5px]" />
      ))}
      <ul className="grid grid-cols-2 gap-x-8 text-[14px] max-md:grid-cols-1">
        {(Object.entries(SURPLUS) as [SurplusPurpose, string][]).map(([what, words]) => (
          <li key={what} className="flex items-baseline gap-3 border-t border-rule py-1">
            <span className="num w-6 text-right">{plan[what] ?? 0}</span>
            <span className="flex-1">{words}</span>
            {!isLocked && (
              <span className="whitespace-nowrap">
                <button
                  type="button"
                  className="px-2 text-link"
                  aria-label={`One fewer: ${words}`}
                  disabled={(plan[what] ?? 0) === 0}
                  onClick={() => put(what, (plan[what] ?? 0) - 1)}
                >
                  −
                </button>
                <button
                  type="button"
                  className="px-2 text-link"
                  aria-label={`One more: ${words}`}
                  onClick={() => put(what, (plan[what] ?? 0) + 1)}
                >
                  +
                </button>
              </span>
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}
