import {
  type HardPart,
  hardestParts,
  isComplete,
  microsToNumber,
  type Route,
  type RunResult,
  togetherOf,
  unitOf,
} from "@kobbin/core";
import { lazy, Suspense } from "react";
import { CurveSays } from "../../run/CurveSays.tsx";
import { KIND_WORDS } from "../../run/kindWords.ts";
import { useRun } from "../../run/runState.ts";
import { Skeleton } from "../../ui/States.tsx";
import { amount, count, fixed } from "../../ui/text/format.ts";
import { type RouteFigures, useRoutes } from "./useRoutes.ts";

const chart = () => import("./RoutesChart.tsx");
const RoutesChart = lazy(async () => ({ default: (await chart()).RoutesChart }));
const Stroke = lazy(async () => ({ default: (await chart()).Stroke }));

/** The ways side by side at this run's quantity, what each costs over quantity, and where one becomes the cheaper. */
export function Routes() {
  const { doc } = useRun();
  const { routes, figures } = useRoutes();
  const { currency } = doc.workshop;
  const can = routes.filter((r) => !r.cannot);
  return (
    <div className="mb-4">
      <Suspense fallback={<Skeleton rows={6} label="The ways are being worked out" />}>
        <Side routes={routes} figures={figures} />
        {figures.curve.size > 0 ? (
          <RoutesChart
            routes={can}
            curve={figures.curve}
            chosen={doc.goodBoards}
            currency={currency}
            unit={unitOf(doc)}
          />
        ) : (
          <Skeleton rows={4} label="The curves are being worked out" />
        )}
      </Suspense>
      <CurveSays curve={togetherOf(figures.curve.values())} goodBoards={doc.goodBoards} />
      <Crossings routes={can} figures={figures} />
    </div>
  );
}

/** A row a way: what one costs, cash, own hours, days, good ones to expect. */
function Side({ routes, figures }: { routes: readonly Route[]; figures: RouteFigures }) {
  const { doc, change, isLocked } = useRun();
  const { currency } = doc.workshop;
  const unit = unitOf(doc);
  return (
    <div className="overflow-x-auto">
      <table className="rows tight w-full text-[14px] [&_td]:pr-2 [&_th]:pr-2">
        <thead>
          <tr>
            <th>Way</th>
            <th className="text-right">per good {unit}</th>
            <th className="text-right">cash, {currency}</th>
            <th className="text-right">hours</th>
            <th className="text-right">days</th>
            <th className="text-right">to start</th>
            <th className="text-right" title="expected on one board, before they are mended">
              defects each
            </th>
            <th />
          </tr>
        </thead>
        <tbody>
          {routes.map((r) => {
            const f = figures.result.get(r.key);
            const index = routes.filter((x) => !x.cannot).indexOf(r);
            return (
              <tr key={r.key} className={r.isOwn ? "font-semibold" : ""}>
                <td className="min-w-56">
                  {index >= 0 && <Stroke index={index} />}
                  {r.label}
                </td>
                {r.cannot || figures.failed.has(r.key) ? (
                  <td colSpan={6} className="text-ink-2">
                    {r.cannot ? `cannot be: ${r.cannot}` : figures.failed.get(r.key)}
                  </td>
                ) : (
                  <Figures result={f} />
                )}
                <td>
                  {!r.isOwn && !r.cannot && !isLocked && (
                    <button
                      type="button"
                      className="quiet-link whitespace-nowrap"
                      aria-label={`Take ${r.label}`}
                      onClick={() => change({ assembly: r.change } as never, `Soldered: ${r.label}`)}
                    >
                      take it
                    </button>
                  )}
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </div>
  );
}

/** One way at the run's own quantity; what nothing prices makes its money the least it can be. */
function Figures({ result: f }: { result: RunResult | undefined }) {
  const { doc } = useRun();
  const { currency } = doc.workshop;
  if (!f) return <td colSpan={6}>…</td>;
  const least = isComplete(f.unpriced) ? "" : "≥ ";
  return (
    <>
      <td className="num text-right">
        {least}
        {amount(microsToNumber(f.perGood), currency)}
      </td>
      <td className="num text-right">
        {least}
        {amount(microsToNumber(f.cashNeeded), currency)}
      </td>
      <td className="num text-right">{fixed(f.ownMinutes / 60, 1)}</td>
      <td className="num text-right">{fixed(f.ready.days, 0)}</td>
      <td className="num text-right">{f.start}</td>
      <td className="num text-right">{fixed(f.yield.lambda, 3)}</td>
    </>
  );
}

/** From how many on another way costs no more than the chosen one, or the chosen one no more than another. */
function Crossings({ routes, figures }: { routes: readonly Route[]; figures: RouteFigures }) {
  const { doc } = useRun();
  const unit = unitOf(doc);
  if (!figures.isDone)
    return <p className="text-[14px] text-ink-2">Where they cross is found once every line is there.</p>;
  const labelOf = (key: string) => routes.find((r) => r.key === key)!.label;
  const own = routes.find((r) => r.isOwn);
  const crossings = [...figures.crossings].sort((a, b) => a.from - b.from);
  if (!own) return null;
  return (
    <>
      <p className="mt-1 text-[14.5px] text-ink-2">
        Against {own.label}, which is chosen; looked at in {curveLength(figures)} quantities
        {crossings.length === 0 ? ": no other way crosses it." : ":"}
      </p>
      <ul aria-label="Where one way becomes the cheaper" className="text-[14.5px]">
        {crossings.map((c) => (
          <li key={`${c.route} ${c.against}`} className="py-[2px]">
            from <b className="num">{count(c.from, unit)}</b> on{" "}
            {c.route === own.key ? "no cheaper any more" : "no dearer any more"}:{" "}
            <b>{labelOf(c.route === own.key ? c.against : c.route)}</b>
          </li>
        ))}
      </ul>
    </>
  );
}

const curveLength = ({ curve }: RouteFigures) => togetherOf(curve.values()).length;

const easier = (h: HardPart): string => {
  const now = h.defects;
  const ways = (["stencil", "house"] as const)
    .filter((m) => h.by[m] < now * 0.9)
    .map((m) => `${m === "stencil" ? "with paste" : "at a house"} ${fixed(h.by[m], 4)}`);
  return ways.length > 0 ? ways.join(", ") : "no other way makes it easier";
};

/** Lines that make the most of the expected defects, by name; they light up on the board. */
export function Hardest() {
  const { result: r } = useRun();
  const list = hardestParts(r.parts, 5, r.yield.faults?.factors);
  if (list.length === 0) return null;
  return (
    <section aria-labelledby="hardest" className="mt-5">
      <h2 id="hardest" className="mb-1">
        Hardest
      </h2>
      <table className="rows w-full text-[14.5px]">
        <thead>
          <tr>
            <th>Part</th>
            <th className="text-right">of all defects</th>
            <th>because; defects a board, otherwise</th>
          </tr>
        </thead>
        <tbody>
          {list.map((h) => (
            <tr key={h.line} data-lines={h.line}>
              <td className="num">
                {h.refs.slice(0, 3).join(" ")}
                {h.refs.length > 3 ? " …" : ""}
              </td>
              <td className="num text-right">{fixed(100 * h.share, 0)} %</td>
              <td className="text-[14px] text-ink-2">
                {h.refs.length > 1 ? `${h.refs.length} with ` : ""}
                {count(h.joints, "joint")}, {KIND_WORDS[h.kind]}
                {h.isPolarised ? ", one way round only" : ""}
                <span className="block">
                  now {fixed(h.defects, 4)}; {easier(h)}
                </span>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}
