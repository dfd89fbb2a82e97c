import { type ItemSum, testLimits } from "@kobbin/core";
import { stripOf } from "./stripModel.ts";

const WIDE = 250;
const HIGH = 30;
const MID = 14;

/** Readings of an item as dots between their limits; what is outside is a cross, at the edge where it lies far away. */
export function ReadingStrip({ sum }: { sum: ItemSum }) {
  const { min, max } = testLimits(sum.item);
  const { lo, hi } = stripOf(
    sum.readings.map((r) => r.value),
    { min, max },
  );
  const x = (v: number) => 8 + (WIDE - 16) * Math.min(1, Math.max(0, (v - lo) / (hi - lo)));
  const [from, to] = [min === undefined ? 8 : x(Number(min)), max === undefined ? WIDE - 8 : x(Number(max))];
  const words = sum.readings.map((r) => `${r.unit}: ${r.value} ${sum.item.unit}`).join(", ");
  return (
    <svg width={WIDE} height={HIGH} role="img" aria-label={`Readings by board: ${words}`}>
      <rect x={from} y={MID - 7} width={Math.max(0, to - from)} height="14" fill="var(--fine-soft)" />
      <path d={`M8 ${MID}H${WIDE - 8}`} stroke="var(--rule-2)" />
      {min !== undefined && <path d={`M${from} ${MID - 10}v20`} stroke="var(--ink)" strokeWidth="1.5" />}
      {max !== undefined && <path d={`M${to} ${MID - 10}v20`} stroke="var(--ink)" strokeWidth="1.5" />}
      {sum.readings.map((r) => {
        const at = x(r.value);
        return r.verdict === "pass" ? (
          <circle key={r.unit} cx={at} cy={MID} r="4" fill="var(--metal)" fillOpacity="0.75" />
        ) : (
          <path
            key={r.unit}
            d={`M${at - 5} ${MID - 5}l10 10M${at + 5} ${MID - 5}l-10 10`}
            stroke="var(--stop)"
            strokeWidth="2.5"
          />
        );
      })}
    </svg>
  );
}
