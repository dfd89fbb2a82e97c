import { type BoardJudged, judgeLot, type LotMeasured, type MeasurePoint } from "@kobbin/core";
import { useMemo } from "react";
import { removeMeasured } from "../../../resources/record.ts";
import { useRun } from "../../../run/runState.ts";
import { Fold } from "../../../ui/Fold.tsx";
import { count, mm } from "../../../ui/text/format.ts";
import { useSayError } from "../../../ui/toast/Toast.tsx";

/** How a lot of bare boards stands as far as it was measured: every reading as a dot in the room the order allows. */
export function LotPanel({
  index,
  isOpen,
  onMeasure,
}: {
  index: number;
  isOpen: boolean;
  onMeasure: () => void;
}) {
  const { id, doc, record, result, did } = useRun();
  const sayError = useSayError();
  const lot = useMemo(() => judgeLot(doc, result, record, index), [doc, result, record, index]);
  const apart = useMemo(() => judgeLot(doc, result, record, index, "apart"), [doc, result, record, index]);
  const boards = [...lot.boards, ...apart.boards];
  if (lot.lot === 0 && boards.length === 0) return null;
  const seen = new Set(lot.boards.map((b) => b.board.label)).size;
  return (
    <div className="mt-1 text-[14px]">
      {(lot.lot > 0 || lot.boards.length > 0) && (
        <p>
          <span className={COLOUR[lot.verdict]}>{saysLot(lot, seen)}</span>{" "}
          {isOpen && lot.points.length > 0 && (
            <button type="button" className="quiet-link min-h-6" onClick={onMeasure}>
              measure one
            </button>
          )}
        </p>
      )}
      {[...lot.notAsOrdered, ...lot.doesNotFit].map((b) => (
        <p key={b} className="text-stop">
          {b}
        </p>
      ))}
      {lot.doesNotFit.length > 0 && lot.notAsOrdered.length === 0 && (
        <p className="text-ink-2">
          All of it is within what was ordered: the drawing asks for something a house need not hold. Rework
          the boards or what they go into, and change the drawing for the next revision.
        </p>
      )}
      {lot.tryIn.length > 0 && (
        <p className="text-look">Not settled by sizes alone, so try one in: {lot.tryIn.join(", ")}.</p>
      )}
      {boards.length > 0 && (
        <Fold
          id={`measured-${index}`}
          title="What was measured"
          verdict={`${count(boards.length, "board")}${apart.boards.length > 0 ? `, ${apart.boards.length} of what is set apart` : ""}`}
        >
          <ul aria-label="Readings" className="mb-2">
            {lot.points.map((p) => (
              <Dots key={p.key} point={p} boards={boards} />
            ))}
          </ul>
          <ul aria-label="Measured boards">
            {boards.map((b) => (
              <li key={b.board.id} className="flex gap-3 py-[2px]">
                <span>
                  board {b.board.label}
                  {b.isGood ? "" : ": does not hold"}
                </span>
                {isOpen && (
                  <button
                    type="button"
                    className="quiet-link ml-auto min-h-6"
                    aria-label={`Remove what was measured of board ${b.board.label}`}
                    onClick={() => {
                      const gone = removeMeasured(id, b.board.id);
                      gone.catch(sayError);
                      did(`What was measured of board ${b.board.label} is removed`, gone);
                    }}
                  >
                    remove
                  </button>
                )}
              </li>
            ))}
          </ul>
        </Fold>
      )}
    </div>
  );
}

const COLOUR = { none: "text-ink-2", more: "text-ink-2", holds: "text-fine", fails: "text-stop" } as const;

function saysLot(lot: LotMeasured, seen: number): string {
  switch (lot.verdict) {
    case "none":
      return `Measure ${lot.sample} of ${lot.lot}: if one in ten is bad, that finds it nine times in ten.`;
    case "more":
      return `${seen} of ${lot.sample} measured, all as ordered so far.`;
    case "holds":
      return `${count(seen, "board")} measured, all as ordered: the lot holds.`;
    case "fails":
      return `${count(seen, "board")} measured; the lot does not hold:`;
  }
}

const [WIDE, HIGH] = [260, 22];

/** Readings of one size: the room the order allows as a band about what was ordered, each reading a dot. */
function Dots({ point: p, boards }: { point: MeasurePoint; boards: readonly BoardJudged[] }) {
  const values = boards.flatMap((b) =>
    b.points.filter((x) => x.point.key === p.key).flatMap((x) => x.values),
  );
  if (values.length === 0) return null;
  const reach = Math.max(p.tolMm * 1.5, ...values.map((v) => Math.abs(v - p.mm))) * 1.1;
  const x = (v: number) => WIDE / 2 + ((v - p.mm) / reach) * (WIDE / 2 - 6);
  const out = values.filter((v) => Math.abs(v - p.mm) > p.tolMm + 1e-9).length;
  return (
    <li className="grid grid-cols-[minmax(90px,160px)_auto_1fr] items-center gap-x-3 max-sm:grid-cols-1">
      <span>{p.what}</span>
      <svg
        width={WIDE}
        height={HIGH}
        role="img"
        aria-label={`${p.what}: ${values.map(mm).join(", ")} mm, ordered ${mm(p.mm)} ± ${mm(p.tolMm)}`}
      >
        <rect
          x={x(p.mm - p.tolMm)}
          y="4"
          width={x(p.mm + p.tolMm) - x(p.mm - p.tolMm)}
          height={HIGH - 8}
          fill="var(--fine-soft)"
        />
        <line x1={x(p.mm)} x2={x(p.mm)} y1="2" y2={HIGH - 2} stroke="var(--ink-3)" />
        {values.map((v, i) => (
          <circle
            // biome-ignore lint/suspicious/noArrayIndexKey: readings have no other name
            key={i}
            cx={x(v)}
            cy={HIGH / 2}
            r="4"
            fill={Math.abs(v - p.mm) <= p.tolMm + 1e-9 ? "var(--metal)" : "var(--stop)"}
          />
        ))}
      </svg>
      <span className="num text-[13px] text-ink-2">
        {mm(Math.min(...values))} to {mm(Math.max(...values))}, ordered {mm(p.mm)} ± {mm(p.tolMm)}
        {out > 0 ? `; ${out} outside` : ""}
      </span>
    </li>
  );
}
