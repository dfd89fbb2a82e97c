import { HOLDS, isGate, type PlanOfRun, type Step, unitOf } from "@kobbin/core";
import { useMemo } from "react";
import { boardOfStep, drawnParts, sideOfStep } from "../../../proof/drawnParts.ts";
import { useRun } from "../../../run/runState.ts";
import { usePrinted } from "../../../ui/printed.ts";
import { money } from "../../../ui/text/format.ts";
import { minutesWords } from "./orderPlan.ts";

/** Width of a step's drawing; of one with many parts, so that their names can be read. */
const WIDE = 230;
const WIDE_MANY = 340;
const MANY = 12;

/** What stands beside a line: its direction, the tools for it, where it lies. */
const besides = (l: PlanOfRun["sheet"]["steps"][number]["lines"][number]) =>
  [
    l.mark === "" ? "direction: look it up" : l.mark,
    l.tools.tip?.split(",")[0],
    l.tools.hold && HOLDS[l.tools.hold].label,
    ...(l.lies ?? []),
  ]
    .filter(Boolean)
    .join("; ");

/** The order of work on paper: a sheet to tick, in black and white; it prints itself and goes. */
export function Traveller({ plan, onDone }: { plan: PlanOfRun; onDone: () => void }) {
  const { doc } = useRun();
  const { sheet, order } = plan;
  const paper = usePrinted(onDone);
  const unit = unitOf(doc);
  const known = (doc.errata ?? []).filter((e) => e.isHere || e.decision?.is === "stays");
  return (
    <section ref={paper} aria-label="Traveller" className="hidden text-[11px] leading-snug print:block">
      <h1 className="text-[20px]">
        {sheet.product} {sheet.revision}: {sheet.run}
      </h1>
      <p className="mb-2">
        {sheet.start} {unit}s to start for {doc.goodBoards} good ones. {minutesWords(sheet.minutes)} of own
        work as planned. Begun ____________ by ____________ Batch no. ____________
      </p>
      {sheet.conflicts.length > 0 && (
        <p className="mb-2 border-2 border-black p-1 font-bold">
          Not all rules hold: {sheet.conflicts.map((c) => c.text).join(" ")}
        </p>
      )}
      {known.length > 0 && (
        <div className="mb-2 border-2 border-black p-1">
          <b>Known to be wrong with {doc.revision}:</b>
          {known.map((e) => (
            <p key={e.id}>
              ☐ {e.title}.{" "}
              {e.workaround
                ? `On each ${unit}: ${e.workaround}.`
                : "No workaround was known when it was released."}
            </p>
          ))}
        </div>
      )}
      {sheet.steps.map((s) => (
        <section key={s.n} className="break-inside-avoid border-t-2 border-black py-[6px]">
          <h2 className="flex items-baseline gap-3 text-[14px]">
            <span className="num">☐ {s.n}</span>
            <span>
              {s.words}
              {s.side ? `, ${s.side}` : ""}
              {s.board ? `, ${s.board}` : ""}
            </span>
            <span className="num ml-auto text-[11px] font-normal">
              {minutesWords(s.minutes)} planned, took ________ in ______ good ______ bad ______
            </span>
          </h2>
          <div className="flex gap-4">
            <div className="flex-1">
              {s.lines.length > 0 && (
                <table className="mt-1 w-full text-left">
                  <tbody>
                    {s.lines.map((l) => (
                      <tr key={l.line} className="border-t border-black/30 align-baseline">
                        <td className="w-5 pr-1">☐</td>
                        <td className="num w-[30%] pr-2">{l.refs.join(" ")}</td>
                        <td className="num pr-2 text-right">{l.pieces}</td>
                        <td className="whitespace-nowrap pr-2">
                          {l.value || l.mpn} <span className="num">{l.package}</span>
                        </td>
                        <td className="w-[28%]">{besides(l)}</td>
                      </tr>
                    ))}
                  </tbody>
                </table>
              )}
              {isGate(s.kind) && (
                <p className="mt-1">
                  Keeps up to {money(Number(s.protects ?? 0), sheet.currency)}. Readings:
                  ______________________________________________
                </p>
              )}
              {s.tools.some((t) => t.can !== "no") && (
                <p className="mt-1">
                  With{" "}
                  {s.tools
                    .filter((t) => t.can !== "no")
                    .map((t) => t.name)
                    .join(", ")}
                  .
                </p>
              )}
              {[...s.how, ...s.because, ...s.traps].map((t) => (
                <p key={t}>{t}</p>
              ))}
              <p className="italic">{s.caution}</p>
            </div>
            {s.refs.length > 0 && (s.kind === "place" || s.kind === "iron" || s.kind === "mechanical") && (
              <Drawing step={order.steps[s.n - 1]!} row={s} />
            )}
          </div>
        </section>
      ))}
      <p className="mt-2 border-t-2 border-black pt-1">
        Cautions are reminders. Data sheets, local law and, where required, a licensed person come first.
      </p>
    </section>
  );
}

/** The board in lines: what was on before is thin, what is put on now is filled and named, directions are marked. */
function Drawing({ step, row }: { step: Step; row: PlanOfRun["sheet"]["steps"][number] }) {
  const { doc } = useRun();
  const board = boardOfStep(doc, step);
  const side = sideOfStep(doc, step);
  const directed = useMemo(
    () => new Set(row.lines.filter((l) => l.mark !== undefined).flatMap((l) => l.refs)),
    [row],
  );
  if (!board) return null;
  const wide = step.refs.length > MANY ? WIDE_MANY : WIDE;
  const m = board.measure;
  const [x0, y0, x1, y1] = m.extentMm ?? [0, 0, 1, 1];
  const k = wide / Math.max(1, x1 - x0);
  const to = ([x, y]: readonly [number, number]) =>
    [side === "bottom" ? (x1 - x) * k : (x - x0) * k, (y1 - y) * k] as const;
  const path = (list: readonly (readonly [number, number])[]) =>
    `M${list
      .map((p) =>
        to(p)
          .map((v) => v.toFixed(1))
          .join(" "),
      )
      .join("L")}Z`;
  const rings = m.outline?.rings ?? [[x0, y0, x1, y0, x1, y1, x0, y1]];
  const parts = drawnParts(doc, board, side, step.refs, directed);
  return (
    <svg
      width={wide}
      viewBox={`-2 -2 ${wide + 4} ${(y1 - y0) * k + 4}`}
      className="h-fit shrink-0"
      aria-hidden="true"
    >
      {rings.map((r) => (
        <path
          key={r.slice(0, 4).join(" ")}
          d={path(Array.from({ length: r.length / 2 }, (_, i) => [r[2 * i]!, r[2 * i + 1]!] as const))}
          fill="none"
          stroke="black"
          strokeWidth="1"
        />
      ))}
      {parts.map((p) => {
        const [x, y] = to(p.at);
        return (
          <g key={p.ref}>
            {p.corners.length > 0 ? (
              <path d={path(p.corners)} fill="#ddd" stroke="black" strokeWidth="0.9" />
            ) : (
              <circle cx={x} cy={y} r="4" fill="none" stroke="black" />
            )}
            {p.mark && <circle cx={to(p.mark.at)[0]} cy={to(p.mark.at)[1]} r="1.9" fill="black" />}
            <text x={x} y={y - 2.6} textAnchor="middle" fontSize="6.4" fontWeight="700">
              {p.ref}
            </text>
          </g>
        );
      })}
    </svg>
  );
}
