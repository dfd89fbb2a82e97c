import {
  compareRefs,
  type KitLine,
  kitLines,
  numberKey,
  type PlanOfRun,
  type StepsDocument,
  spareByHand,
  unitOf,
} from "@kobbin/core";
import { useMemo } from "react";
import { DrawnBoard } from "../../../proof/DrawnBoard.tsx";
import { drawnParts, path } from "../../../proof/drawnParts.ts";
import { useLots } from "../../../resources/library.ts";
import { RunBags } from "../../../run/RunBags.tsx";
import { useRun } from "../../../run/runState.ts";
import { count } from "../../../ui/text/format.ts";
import type { Sitting } from "./useSitting.ts";

type Row = StepsDocument["steps"][number];
type Line = Row["lines"][number];
const NO_KIT: readonly KitLine[] = [];
const NO_DIRECTIONS: ReadonlySet<string> = new Set();

/** Everything of the run in the order in which one walks along the shelf; nothing at any other step. */
export function useKit(plan: PlanOfRun, row: Row): readonly KitLine[] {
  const { id, doc } = useRun();
  const { data: lots } = useLots();
  return useMemo(() => {
    if (row.kind !== "kit") return NO_KIT;
    const mpns = new Map(doc.lines.map((l) => [l.id, numberKey(l.mpn)]));
    const ours = (lots ?? []).filter((l) => l.reserved.some((r) => r.runId === id));
    return kitLines(plan.sheet.steps, (line) =>
      ours.filter((l) => numberKey(l.mpn) === mpns.get(line)).map((l) => l.place),
    );
  }, [plan, row.kind, doc.lines, lots, id]);
}

/** A kind to lay out: how many, what, from where; where it goes is lit on the board. */
export function KitCard({
  plan,
  kit,
  line,
  sitting,
}: {
  plan: PlanOfRun;
  kit: KitLine;
  line: Line;
  sitting: Sitting;
}) {
  const { doc, result: r } = useRun();
  // what is not soldered goes on good ones alone
  const isLoose = r.parts.some((p) => p.line.id === line.line && p.kind === "loose");
  const products = isLoose ? doc.goodBoards : r.start;
  const many = Math.ceil(kit.pieces * products);
  const spare = spareByHand(r.needs.find((n) => n.lines.includes(line.line)));
  const short = sitting.sat.lost[line.line] ?? 0;
  const field = useMemo(
    () =>
      plan.sheet.steps
        .flatMap((s) => (s.kind === "place" || s.kind === "iron" || s.kind === "mechanical" ? s.lines : []))
        .findIndex((l) => l.line === line.line) + 1,
    [plan.sheet, line.line],
  );
  return (
    <div className="grid grid-cols-[minmax(280px,1fr)_auto] gap-6 max-lg:grid-cols-1 max-lg:gap-3">
      <div aria-live="polite">
        <p className="text-[24px] text-ink-2 max-sm:text-[18px]">
          {kit.places.length > 0 ? `from ${kit.places.join(", then ")}` : "where it lies is not written down"}
        </p>
        <p className="num text-[64px] leading-none font-bold max-sm:text-[40px]">
          {Math.max(0, many - short)}
        </p>
        <p className="mt-2 text-[34px] leading-tight font-semibold max-sm:text-[24px]">
          {line.value || line.mpn}
        </p>
        <p className="num text-[22px] text-ink-2 max-sm:text-[17px]">
          {line.package} {line.mpn !== line.value ? line.mpn : ""}
        </p>
        <p className="mt-3 text-[20px] max-sm:text-[16px]">
          {field > 0 ? `into field ${field} of the tray, ` : ""}for {count(products, unitOf(doc))}
          {spare !== undefined && spare > 0 ? `, and ${spare} spare` : ""}
        </p>
        <RunBags line={line.line} isBig className="mt-3 text-[18px] max-sm:text-[16px]" />
        {line.mark !== undefined && (
          <p className="mt-3 border-l-4 border-metal bg-metal-soft px-3 py-2 text-[18px] max-sm:text-[16px]">
            One way round only: {line.mark || "how it is marked is not written down: look it up"}
          </p>
        )}
        {short > 0 && (
          <p className="mt-3 text-[20px] text-stop">
            {count(short, "piece")} short of {many}
            <button type="button" className="quiet-link ml-3" onClick={() => sitting.lose(line.line, -1)}>
              one is there after all
            </button>
          </p>
        )}
        <p className="num mt-3 text-[16px] text-ink-2">
          {[...kit.refs].sort(compareRefs).slice(0, 24).join(" ")}
          {kit.refs.length > 24 ? " …" : ""}
        </p>
      </div>
      <WhereItGoes kit={kit} />
    </div>
  );
}

/** The places of a kind on its board, on the side where most of them sit. */
export function WhereItGoes({
  kit,
  isRinged = false,
}: {
  kit: Pick<KitLine, "line" | "refs">;
  /** Ringed, so that what is there stays to be seen. */
  isRinged?: boolean;
}) {
  const { doc } = useRun();
  const line = doc.lines.find((l) => l.id === kit.line);
  const board = doc.boards.find((b) => b.id === line?.board) ?? doc.boards[0];
  const lit = useMemo(() => {
    if (!board || kit.refs.length === 0) return undefined;
    const on = (side: "top" | "bottom") => drawnParts(doc, board, side, kit.refs, NO_DIRECTIONS);
    const [top, bottom] = [on("top"), on("bottom")];
    return bottom.length > top.length
      ? { side: "bottom" as const, parts: bottom }
      : { side: "top" as const, parts: top };
  }, [doc, board, kit.refs]);
  if (!board || !lit || lit.parts.length === 0) return null;
  return (
    <div className="max-sm:hidden">
      <DrawnBoard board={board} side={lit.side} size={[480, 340]}>
        {(to) =>
          lit.parts.map((p) =>
            p.corners.length > 0 ? (
              <g key={p.ref}>
                <path d={path(p.corners.map(to))} fill="none" stroke="var(--sheet)" strokeWidth="8" />
                <path
                  d={path(p.corners.map(to))}
                  fill={isRinged ? "none" : "var(--metal)"}
                  stroke="var(--metal)"
                  strokeWidth="3"
                />
              </g>
            ) : (
              <circle
                key={p.ref}
                cx={to(p.at)[0]}
                cy={to(p.at)[1]}
                r="8"
                fill="none"
                stroke="var(--metal)"
                strokeWidth="3"
              />
            ),
          )
        }
      </DrawnBoard>
    </div>
  );
}
