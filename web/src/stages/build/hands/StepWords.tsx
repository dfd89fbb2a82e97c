import type { StepStand, StepsDocument } from "@kobbin/core";
import type { ReactNode } from "react";
import { TAKEN, takenAs } from "./taken.ts";

/** A step without pieces, or one whose pieces are all on: what it is, how it is done well, what to mind. */
export function StepWords({
  row,
  stand,
  beside,
}: {
  row: StepsDocument["steps"][number];
  stand: StepStand;
  beside: ReactNode;
}) {
  return (
    <div className="max-w-[62ch] text-[22px] leading-snug max-sm:text-[17px]">
      {stand.of > 0 ? (
        <p className="text-[34px] font-semibold max-sm:text-[24px]">
          All {stand.of} are {TAKEN[takenAs(row.kind)].are}
          {stand.doubts > 0
            ? `, ${stand.doubts} ${row.kind === "test" ? "failed" : "to be looked at again"}`
            : ""}
          .
        </p>
      ) : (
        <p className="text-[34px] font-semibold max-sm:text-[24px]">
          {row.words}
          {row.side ? `, ${row.side}` : ""}
        </p>
      )}
      {beside}
      {row.refs.length > 0 && stand.of === 0 && <p className="num mt-2">{row.refs.join(" ")}</p>}
      <ul className="mt-3">
        {row.how.map((h) => (
          <li key={h} className="py-1">
            {h}
          </li>
        ))}
      </ul>
      {row.covers.length > 0 && (
        <p className="mt-3 text-look">Out of reach from here on: {row.covers.join(", ")}.</p>
      )}
      {row.caution && (
        <p className="mt-4 border-l-4 border-rule-2 px-3 text-[18px] text-ink-2">{row.caution}</p>
      )}
    </div>
  );
}
