import type { MistakesOfYear } from "@kobbin/contract";
import { FactorRows } from "../../run/learn/FactorRows.tsx";
import { count, day } from "../../ui/text/format.ts";

/** What the faults of all closed runs of a year have in common: parts, sides, heaters, lots, houses, people. */
export function InCommon({ mistakes: { common, since } }: { mistakes: MistakesOfYear }) {
  if (common.closed === 0) return null;
  const isOut = common.factors.some((f) => f.standsOut);
  const without = common.closed - common.runs;
  return (
    <section aria-labelledby="common" className="mt-7">
      <h2 id="common" className="mb-1 text-[16px]">
        What faults have in common
      </h2>
      <p className="mb-2 max-w-[78ch] text-[14.5px]">
        {common.factors.length === 0
          ? "Too few faults, or nothing to set them against: of one heater, one house, one lot nothing can be said."
          : isOut
            ? "More fell on these than their share, so much more that chance would rarely do it."
            : "Nothing stands out: what is above its share may be so by chance."}{" "}
        <span className="text-ink-2">
          From {count(common.runs, "run")} closed since {day(since)}
          {without > 0 &&
            `; of ${count(without, "other")} nothing was kept of how ${without === 1 ? "its" : "their"} faults fall`}
          .
        </span>
      </p>
      {common.factors.length > 0 && <FactorRows factors={common.factors} />}
    </section>
  );
}
