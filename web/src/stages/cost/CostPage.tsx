import { type CostNode, microsToNumber, quotedOf, saysUnpriced, unitOf } from "@kobbin/core";
import { ChevronDown, ChevronRight } from "lucide-react";
import { lazy, Suspense, useState } from "react";
import { CurveSays } from "../../run/CurveSays.tsx";
import { Quantity } from "../../run/Quantity.tsx";
import { useEffects, useRun } from "../../run/runState.ts";
import { ChoiceRow } from "../../ui/ChoiceRow.tsx";
import { sweetSpots } from "../../ui/chart/sweetSpots.ts";
import { Fold } from "../../ui/Fold.tsx";
import { Skeleton } from "../../ui/States.tsx";
import { Sum } from "../../ui/Sum.tsx";
import { amount, count, day, dayRange, fixed, fromMicros, money } from "../../ui/text/format.ts";

import { PricePart } from "./price/PricePart.tsx";

const CurveChart = lazy(async () => ({ default: (await import("./CurveChart.tsx")).CurveChart }));

/** Cost per good board with its tree, cash, dates, and the curve over quantity. */
export function CostPage() {
  const { doc, result: r } = useRun();
  const { currency } = doc.workshop;
  const unit = unitOf(doc);
  const open = saysUnpriced(r.unpriced);
  return (
    <section>
      <div className="mb-4 grid grid-cols-[auto_1fr] items-end gap-10 max-md:grid-cols-1">
        <div>
          <h1>Cost</h1>
          {open && <p className="mt-1 text-[15px] font-semibold text-stop">at least</p>}
          <p className="num mt-1 text-[40px] leading-none font-bold tracking-tight">
            {amount(microsToNumber(r.perGood), currency)}
          </p>
          <p className="text-ink-2">
            {currency} per good {unit}, of {fixed(r.expectedGood, 1)} expected
          </p>
          {open && (
            <p className="text-[14px] text-stop">
              {open}: {r.unpriced.lines.slice(0, 6).join(", ")}
              {r.unpriced.lines.length > 6 && ` and ${r.unpriced.lines.length - 6} more`}
            </p>
          )}
        </div>
        <Quantity />
      </div>
      <Stays />
      <div className="overflow-x-auto">
        <table className="rows w-full min-w-[560px]">
          <thead>
            <tr>
              <th>What</th>
              <th className="text-right">Fixed, {currency}</th>
              <th className="text-right">Grows with {unit}s</th>
              <th className="text-right">The run</th>
              <th className="text-right">Per good {unit}</th>
            </tr>
          </thead>
          <tbody>
            {r.tree.children.map((n) => (
              <Branch key={n.key} node={n} depth={0} good={r.expectedGood} currency={currency} />
            ))}
            <tr className="font-bold">
              <td>{open ? "Run, at least" : "Run"}</td>
              <td className="num text-right">{amount(fromMicros(r.tree.fixedMicros), currency)}</td>
              <td className="num text-right">
                {amount(fromMicros(r.tree.micros - r.tree.fixedMicros), currency)}
              </td>
              <td className="num text-right">{amount(fromMicros(r.total), currency)}</td>
              <td className="num text-right">
                <Sum
                  title={`cost per good ${unit}`}
                  formula={`total ÷ expected good ${unit}s`}
                  terms={[
                    { label: "total of the run", value: money(fromMicros(r.total), currency) },
                    {
                      label: `expected good ${unit}s`,
                      value: fixed(r.expectedGood, 3),
                      note: `${r.start} started × ${fixed(r.yield.final * 100, 2)} %`,
                    },
                  ]}
                  result={`${open ? "at least " : ""}${money(microsToNumber(r.perGood), currency)}`}
                >
                  {amount(microsToNumber(r.perGood), currency)}
                </Sum>
              </td>
            </tr>
          </tbody>
        </table>
      </div>
      <div className="mt-6 grid grid-cols-2 gap-8 max-md:grid-cols-1">
        <section aria-labelledby="cash">
          <h2 id="cash" className="mb-1">
            Cash needed
          </h2>
          <table className="rows w-full">
            <tbody>
              {r.cash.map((c) => (
                <tr key={c.label}>
                  <td>
                    {c.label}
                    {c.note && <span className="block text-[12.5px] text-ink-3">{c.note}</span>}
                  </td>
                  <td className="num text-right">{amount(fromMicros(c.micros), currency)}</td>
                </tr>
              ))}
              <tr className="font-semibold">
                <td>{open ? "at least, " : "greatest outlay, "}own hours left out</td>
                <td className="num text-right">{money(microsToNumber(r.cashNeeded), currency)}</td>
              </tr>
            </tbody>
          </table>
        </section>
        <section aria-labelledby="ready">
          <h2 id="ready" className="mb-1">
            Ready by
          </h2>
          <table className="rows w-full">
            <tbody>
              {r.ready.sum.map((t) => (
                <tr key={t.label}>
                  <td>
                    {t.label}
                    {t.note && <span className="block text-[12.5px] text-ink-3">{t.note}</span>}
                  </td>
                  <td className="num text-right">{fixed(t.days, 1)} d</td>
                </tr>
              ))}
              <tr className="font-semibold">
                <td>{open ? `not before; ${open}` : `from ${doc.today}, 10 to 90 % of cases`}</td>
                <td className="num text-right">
                  {open ? day(r.ready.p10) : dayRange(r.ready.p10, r.ready.p90)}
                </td>
              </tr>
            </tbody>
          </table>
        </section>
      </div>
      <Leftovers />
      <PriceFold />
      <FallsWithQuantity />
    </section>
  );
}

/** The curve over quantity, with what of it is no price, and as a table; an old one says so. */
function FallsWithQuantity() {
  const { doc, curve, isCurveOld } = useRun();
  return (
    <section aria-labelledby="curve" className="mt-8">
      <h2 id="curve" className="mb-1">
        How it falls with quantity
      </h2>
      {curve.length < 5 ? (
        <Skeleton rows={4} label="The curve is being computed" />
      ) : (
        <>
          <Suspense fallback={<Skeleton rows={6} />}>
            <CurveChart
              points={curve}
              currency={doc.workshop.currency}
              chosen={doc.goodBoards}
              unit={unitOf(doc)}
            />
          </Suspense>
          <p role="status" className="min-h-[1.5em] text-[14px] text-look">
            {isCurveOld && "As it was before the last change; counted anew once the run rests."}
          </p>
          <CurveSays curve={curve} goodBoards={doc.goodBoards} isDashed />
          <CurveTable />
        </>
      )}
    </section>
  );
}

/** What left-over parts count as, with the effect of the other way. */
function Leftovers() {
  const { change, isLocked } = useRun();
  const effects = useEffects("cost");
  if (!effects) return null;
  return (
    <div className="mt-6">
      <ChoiceRow
        decision="Left-over parts"
        why="what is bought and not used"
        alternatives={effects.leftovers}
        disabled={isLocked}
        onChoose={(v) =>
          change({ leftovers: v as "stock" | "expense" }, "Left-over parts counted the other way")
        }
      />
    </div>
  );
}

/** What it must be sold for, behind the least of what it is. */
function PriceFold() {
  const { doc } = useRun();
  const ways = doc.choices.price?.channels.length ?? 0;
  return (
    <Fold
      id="price"
      title="Price"
      verdict={
        ways === 0 ? "what it must be, after fees and tax" : count(ways, "way of selling", "ways of selling")
      }
    >
      <PricePart />
    </Fold>
  );
}

/** The run, its cash, and what of it stays: good ones beyond those wanted are stock, not sold. */
function Stays() {
  const { doc, result: r } = useRun();
  const { currency } = doc.workshop;
  const unit = unitOf(doc);
  const spare = Math.max(0, r.expectedGood - doc.goodBoards);
  const least = saysUnpriced(r.unpriced) ? "at least " : "";
  const hasSpare = Number(spare.toFixed(1)) > 0;
  const sum = (value: number) => <span className="num text-ink">{amount(value, currency)}</span>;
  return (
    <p className="mb-3 text-[14px] text-ink-2" data-testid="stays">
      The run costs {least}
      {sum(microsToNumber(r.total))}, cash {least}
      {sum(microsToNumber(r.cashNeeded))}.
      {hasSpare && (
        <>
          {" "}
          On average {fixed(spare, 1)} good {unit}s more than the {doc.goodBoards} wanted come of it, worth{" "}
          {sum(spare * microsToNumber(r.perGood))} at that cost.
        </>
      )}
      {r.leftover > 0 && (
        <> Parts left over for {sum(microsToNumber(r.leftover))} are kept as stock and not in it.</>
      )}
    </p>
  );
}

function Branch({
  node,
  depth,
  good,
  currency,
}: {
  node: CostNode;
  depth: number;
  good: number;
  currency: string;
}) {
  const [open, setOpen] = useState(depth === 0 && node.children.length < 4 && node.key !== "parts");
  const canOpen = node.children.length > 0;
  return (
    <>
      <tr className={depth === 0 ? "font-semibold" : ""}>
        <td style={{ paddingLeft: depth * 22 }}>
          {canOpen ? (
            <button
              type="button"
              aria-expanded={open}
              onClick={() => setOpen(!open)}
              className="inline-flex items-baseline gap-1"
            >
              {open ? (
                <ChevronDown className="size-3.5 self-center" aria-hidden />
              ) : (
                <ChevronRight className="size-3.5 self-center" aria-hidden />
              )}
              {node.label}
            </button>
          ) : (
            <span className="pl-[18px]">{node.label}</span>
          )}
        </td>
        <td className="num text-right">{amount(fromMicros(node.fixedMicros), currency)}</td>
        <td className="num text-right">{amount(fromMicros(node.micros - node.fixedMicros), currency)}</td>
        <td className="num text-right">
          {node.terms.length > 0 ? (
            <Sum
              title={node.label}
              terms={node.terms.map((t) => ({
                label: t.label,
                value: amount(fromMicros(t.micros), currency),
                note: t.note,
                from: t.from,
              }))}
              result={money(fromMicros(node.micros), currency)}
            >
              {amount(fromMicros(node.micros), currency)}
            </Sum>
          ) : (
            amount(fromMicros(node.micros), currency)
          )}
        </td>
        <td className="num text-right">{amount(fromMicros(node.micros / good), currency)}</td>
      </tr>
      {open &&
        node.children.map((c) => (
          <Branch key={c.key} node={c} depth={depth + 1} good={good} currency={currency} />
        ))}
    </>
  );
}

function CurveTable() {
  const { doc, curve } = useRun();
  const { currency } = doc.workshop;
  const unit = unitOf(doc);
  const spots = new Set(sweetSpots(curve).map((p) => p.quantity));
  const isMixed = quotedOf(curve) !== undefined;
  return (
    <details className="mt-3">
      <summary className="quiet-link">the {curve.length} quantities as a table</summary>
      <div className="mt-2 columns-2 gap-8 max-md:columns-1">
        <table className="rows w-full" aria-label="Cost by quantity">
          <thead>
            <tr>
              <th className="text-right">Good {unit}s</th>
              <th className="text-right">Start</th>
              <th className="text-right">Per good {unit}</th>
              <th className="text-right">The run</th>
            </tr>
          </thead>
          <tbody>
            {curve.map((p) => (
              <tr key={p.quantity} className={p.quantity === doc.goodBoards ? "bg-metal-soft" : ""}>
                <td className="num text-right">
                  {p.quantity}
                  {spots.has(p.quantity) ? " ▾" : ""}
                </td>
                <td className="num text-right">{p.start}</td>
                <td className="num text-right">
                  {p.unpriced ? "≥ " : ""}
                  {p.isEstimate ? "~ " : ""}
                  {p.quoted && isMixed ? "quoted " : ""}
                  {amount(p.perGood, currency)}
                </td>
                <td className="num text-right">{amount(p.total, currency)}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </details>
  );
}
