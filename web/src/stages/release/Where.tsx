import type { AskedAgain } from "@kobbin/core";
import { useRun } from "../../run/runState.ts";

const [WIDE, HIGH, EDGE] = [520, 360, 40];

/** The bare edge of the board with what is asked about on it: ink and colour would say what is asked later. */
export function Where({ ask, at }: { ask: AskedAgain; at: NonNullable<AskedAgain["at"]> }) {
  const { doc } = useRun();
  const m = doc.boards[at.board]?.measure;
  const box = m?.extentMm;
  if (!box) return null;
  const [x0, y0, x1, y1] = box;
  const k = Math.min((WIDE - 2 * EDGE) / (x1 - x0), (HIGH - 2 * EDGE) / (y1 - y0));
  const to = (x: number, y: number) => [EDGE + (x - x0) * k, EDGE + (y1 - y) * k] as const;
  const rings = m?.outline?.rings ?? [[x0, y0, x1, y0, x1, y1, x0, y1]];
  const path = rings
    .map((r) =>
      Array.from({ length: r.length / 2 }, (_, i) =>
        to(r[2 * i]!, r[2 * i + 1]!)
          .map((v) => v.toFixed(1))
          .join(" "),
      ),
    )
    .map((points) => `M${points.join("L")}Z`)
    .join("");
  const [wide, high] = [(x1 - x0) * k, (y1 - y0) * k];
  const side = ask.key.startsWith("long ")
    ? wide >= high
    : ask.key.startsWith("short ")
      ? wide < high
      : undefined;
  const place = at.from && to(...at.from);
  return (
    <svg width={WIDE} viewBox={`0 0 ${WIDE} ${high + 2 * EDGE}`} className="max-w-full" aria-hidden="true">
      <path d={path} fill="var(--sheet)" fillRule="evenodd" stroke="var(--ink-2)" strokeWidth="1.5" />
      {place && (
        <circle cx={place[0]} cy={place[1]} r="12" fill="none" stroke="var(--metal)" strokeWidth="3" />
      )}
      {side !== undefined && (
        <path
          // along the edge that is meant, outside of it
          d={
            side
              ? `M${EDGE} ${EDGE - 14}H${EDGE + wide}M${EDGE} ${EDGE - 22}v16M${EDGE + wide} ${EDGE - 22}v16`
              : `M${EDGE - 14} ${EDGE}V${EDGE + high}M${EDGE - 22} ${EDGE}h16M${EDGE - 22} ${EDGE + high}h16`
          }
          stroke="var(--metal)"
          strokeWidth="2.5"
        />
      )}
    </svg>
  );
}
