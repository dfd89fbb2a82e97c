import { lineWords, type TestItem } from "@kobbin/core";
import { said, written } from "../../../ui/text/format.ts";
import { LineGraph } from "./LineGraph.tsx";
import { standWords } from "./lineModel.ts";
import { useLines } from "./UnitLines.tsx";

const useLineOf = (item: TestItem, unit: number) => useLines(unit).find((l) => l.line.of === item.point?.of);

/** At a point of a line: what is applied now, and never more than. */
export function ApplyNow({ item, unit }: { item: TestItem; unit: number }) {
  const { point } = item;
  const most = useLineOf(item, unit)?.line.most ?? point?.most;
  return point ? (
    <p className="flex flex-wrap items-baseline gap-x-4 text-[32px] leading-tight max-sm:text-[22px]">
      <b>
        apply{" "}
        <span className="num">
          {written(point.applied)} {point.unit}
        </span>
      </b>
      {most !== undefined && (
        <span className="text-[20px] text-look max-sm:text-[16px]">
          never more than{" "}
          <span className="num">
            {written(most)} {point.unit}
          </span>
        </span>
      )}
    </p>
  ) : null;
}

/** Once all points of its line are read: the constants, and how far off they lie. */
export function LineSoFar({ item, unit }: { item: TestItem; unit: number }) {
  const is = useLineOf(item, unit);
  return is?.fit ? (
    <div className="mt-3" role="status">
      <p className="num text-[20px] font-semibold max-sm:text-[16px]">
        {said(lineWords(is.fit, is.line.unit, is.line.read))}
      </p>
      <p className={`text-[18px] max-sm:text-[15px] ${is.stand === "fail" ? "text-stop" : "text-ink-2"}`}>
        {said(standWords(is))}
      </p>
      <LineGraph is={is} wide={320} />
    </div>
  ) : null;
}
