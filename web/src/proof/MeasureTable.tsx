import type { LimitCheck } from "@kobbin/core";
import { useEffect, useRef } from "react";
import { Fold } from "../ui/Fold.tsx";
import { count, fixed, mil, mm, useFormats } from "../ui/text/format.ts";
import type { MeasureGroup, MeasureRow } from "./measureRows.ts";

const WORD: Readonly<Record<LimitCheck["level"], string>> = {
  fine: "fine",
  tight: "tight",
  look: "look",
  cannot: "cannot",
};
const INK: Readonly<Record<LimitCheck["level"], string>> = {
  fine: "text-ink-2",
  tight: "text-look",
  look: "text-look font-semibold",
  cannot: "text-stop font-semibold",
};

/**
 * Every least value with its places, against every house: what is fine here and refused there, with the headroom.
 * A press on a value shows its worst place, a further one the next.
 */
export function MeasureTable({
  groups,
  houses,
  chosen,
  shown,
  onShow,
}: {
  groups: readonly MeasureGroup[];
  houses: readonly string[];
  /** Index of the house chosen for the run. */
  chosen: number;
  shown: { readonly key: string; readonly place: number } | undefined;
  onShow: (row: MeasureRow, place: number) => void;
}) {
  useFormats();
  return (
    <Fold
      id="measured"
      title="Measured, and what each house says"
      verdict={verdictOf(groups, houses, chosen)}
      isOpen={shown !== undefined}
    >
      <div className="overflow-x-auto">
        <table className="mt-1 w-full text-[14px]">
          <thead>
            <tr className="text-left align-bottom text-[12.5px] text-ink-3">
              <th scope="col" className="min-w-[138px] py-1 pr-3 font-normal">
                least value
              </th>
              <th scope="col" className="py-1 pr-4 text-right font-normal">
                mm
              </th>
              <th scope="col" className="py-1 pr-4 font-normal">
                place
              </th>
              {houses.map((h, i) => (
                <th
                  key={h}
                  scope="col"
                  className={`min-w-[92px] py-1 pr-2 font-normal ${i === chosen ? "text-ink" : ""}`}
                >
                  {h}
                  {i === chosen && <span className="block text-metal">chosen</span>}
                </th>
              ))}
            </tr>
          </thead>
          {groups.map((g) => (
            <tbody key={g.label}>
              <tr>
                <th
                  scope="rowgroup"
                  colSpan={3 + houses.length}
                  className="pt-3 pb-1 text-left text-[12.5px] font-semibold text-ink-2"
                >
                  {g.label}
                </th>
              </tr>
              {g.rows.map((r) => (
                <Row
                  key={r.key}
                  row={r}
                  shown={shown?.key === r.key ? shown.place : undefined}
                  onShow={onShow}
                />
              ))}
            </tbody>
          ))}
        </table>
      </div>
    </Fold>
  );
}

/** "16 limits of Ninefold: 2 tight, 1 to look at". */
function verdictOf(groups: readonly MeasureGroup[], houses: readonly string[], chosen: number): string {
  const rows = groups.flatMap((g) => g.rows);
  const checks = rows.flatMap((r) => r.checks[chosen] ?? []);
  if (checks.length === 0) return `${count(rows.length, "least value")}, no house is chosen`;
  const n = (level: LimitCheck["level"]) => checks.filter((c) => c.level === level).length;
  const told = [
    ...(n("cannot") > 0 ? [`${n("cannot")} cannot be made`] : []),
    ...(n("look") > 0 ? [`${n("look")} to look at`] : []),
    ...(n("tight") > 0 ? [`${n("tight")} tight`] : []),
  ];
  return `${count(checks.length, "limit")} of ${houses[chosen]}: ${told.join(", ") || "all fine"}`;
}

function Row({
  row: r,
  shown,
  onShow,
}: {
  row: MeasureRow;
  shown: number | undefined;
  onShow: (row: MeasureRow, place: number) => void;
}) {
  const place = r.places[shown ?? 0];
  const next = shown === undefined ? 0 : (shown + 1) % r.places.length;
  const line = useRef<HTMLTableRowElement>(null);
  const wasShown = useRef(shown !== undefined);
  // the picture that comes to stay beside the table must not lie over the line that was pressed
  useEffect(() => {
    const isNew = shown !== undefined && !wasShown.current;
    wasShown.current = shown !== undefined;
    if (!isNew) return;
    const frame = requestAnimationFrame(() => line.current?.scrollIntoView({ block: "nearest" }));
    return () => cancelAnimationFrame(frame);
  }, [shown]);
  return (
    <tr
      ref={line}
      className={`scroll-mt-[430px] border-t border-rule align-baseline ${shown === undefined ? "" : "bg-sheet"}`}
    >
      <th scope="row" className="py-[5px] pr-3 text-left font-normal">
        {r.label}
      </th>
      <td className="num py-[5px] pr-4 text-right">
        {r.places.length > 0 ? (
          <button
            type="button"
            className="why"
            onClick={() => onShow(r, next)}
            aria-label={`${r.label} ${mm(r.mm)} mm, show ${shown === undefined ? "the worst place" : `place ${next + 1} of ${r.places.length}`}`}
          >
            {mm(r.mm)}
          </button>
        ) : (
          mm(r.mm)
        )}
        {mil(r.mm) && <span className="block text-[12px] text-ink-3">{mil(r.mm)}</span>}
      </td>
      <td className="py-[5px] pr-4 text-[12.5px] text-ink-3">
        {place && (
          <span className="whitespace-nowrap">
            <span className="num">
              {fixed(place.x, 1)} / {fixed(place.y, 1)}
            </span>{" "}
            {place.layer.replace("legend", "silkscreen")}
            {r.places.length > 1 && (
              <span className="num block">
                {shown === undefined ? `1 of ${r.places.length}` : `${shown + 1} of ${r.places.length}`}
              </span>
            )}
          </span>
        )}
      </td>
      {r.checks.map((c, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: one cell a house, in the table's order
        <td key={i} className="py-[5px] pr-2 text-[13px]">
          {c ? (
            <span className={INK[c.level]}>
              {WORD[c.level]}
              <span className="num ml-2 text-[12.5px] text-ink-3">
                {c.margin < 0 ? "−" : "+"}
                {fixed(Math.abs(c.margin), 3).replace(/0$/, "")}
              </span>
              <span className="block text-[12px] font-normal text-ink-3">
                limit <span className="num">{mm(c.limit)}</span>
              </span>
            </span>
          ) : (
            <span className="text-[12.5px] text-ink-3" title="the house states no limit">
              –
            </span>
          )}
        </td>
      ))}
    </tr>
  );
}
