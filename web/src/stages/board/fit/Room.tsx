import { type FitJudged, type FitResult, missChance } from "@kobbin/core";
import { mm } from "../../../ui/text/format.ts";

const W = 300;
const H = 58;

/** The room that is left, from worst to best: a line, the likely part of it thick, and nothing at the zero. */
export function Room({
  result: r,
  widest,
  playMm,
}: {
  result: FitResult;
  /** Greatest room or lack of the sheet, so that rows compare. */
  widest: number;
  playMm: number | undefined;
}) {
  const x = (v: number) => W / 2 + (Math.max(-widest, Math.min(widest, v)) / widest) * (W / 2 - 26);
  const [least, most] = r.worstMm;
  const isShort = least < 0;
  const signed = (v: number) => (v < 0 ? `−${mm(-v)}` : mm(v));
  return (
    <figure>
      <svg
        width="100%"
        viewBox={`0 0 ${W} ${H}`}
        role="img"
        aria-label={`Room from ${signed(least)} to ${signed(most)} mm, ${mm(r.nominalMm < 0 ? -r.nominalMm : r.nominalMm)} mm ${r.nominalMm < 0 ? "missing" : "left"} as drawn`}
      >
        <rect x="0" y="16" width={W / 2} height="24" fill="var(--stop-soft)" />
        <path d={`M${W / 2} 12V44`} stroke="var(--ink-2)" strokeWidth="1.5" />
        {playMm !== undefined && playMm <= widest && (
          <path d={`M${x(playMm)} 14V42`} stroke="var(--look)" strokeWidth="1.5" strokeDasharray="3 3" />
        )}
        <path
          d={`M${x(least)} 28H${x(most)}M${x(least)} 22v12M${x(most)} 22v12`}
          stroke={isShort ? "var(--stop)" : "var(--fine)"}
          strokeWidth="1.6"
        />
        <path
          d={`M${x(r.rssMm[0])} 28H${x(r.rssMm[1])}`}
          stroke={isShort ? "var(--stop)" : "var(--fine)"}
          strokeWidth="6"
        />
        <circle cx={x(r.nominalMm)} cy="28" r="4.5" fill="var(--sheet)" stroke="var(--ink)" strokeWidth="2" />
        <g fontFamily="var(--font-mono)" fontSize="12.5" fill="var(--ink)">
          <text x={x(least)} y="55" textAnchor={x(most) - x(least) < 70 ? "end" : "middle"}>
            {signed(least)}
          </text>
          <text x={x(most)} y="55" textAnchor={x(most) - x(least) < 70 ? "start" : "middle"}>
            {signed(most)}
          </text>
          <text x={W / 2} y="9" textAnchor="middle" fill="var(--ink-2)">
            0
          </text>
        </g>
      </svg>
      <figcaption className="text-center text-[13px] text-ink-2">
        {r.verdict === "fits" ? "mm of room, at worst and at best" : chance(missChance(r))}
      </figcaption>
    </figure>
  );
}

const chance = (p: number): string =>
  p >= 0.9995
    ? "mm of room; none goes together"
    : p < 0.001
      ? "mm of room; under one in a thousand does not go together"
      : `mm of room; ${Math.round(p * 1000) / 10} % do not go together`;

/** Three contacts of the board and one of the socket's, in the middle and as far as it can slip. */
export function Slip({ slip: s }: { slip: NonNullable<FitJudged["slip"]> }) {
  const scale = (W - 20) / (3 * s.pitchMm);
  const x = (v: number) => W / 2 + v * scale;
  const gap = s.pitchMm - (s.widthMm + s.contactMm) / 2 - s.mostMm;
  const isShort = gap < 0;
  return (
    <figure className="mt-1">
      <svg
        width="100%"
        viewBox={`0 0 ${W} 66`}
        role="img"
        aria-label={`A contact of the socket slips ${mm(s.mostMm)} mm each way; ${isShort ? `it lies ${mm(-gap)} mm on the next one` : `${mm(gap)} mm are left to the next one`}`}
      >
        {[-1, 0, 1].map((k) => (
          <rect
            key={k}
            x={x(k * s.pitchMm - s.widthMm / 2)}
            y="22"
            width={s.widthMm * scale}
            height="40"
            fill="var(--metal-soft)"
            stroke="var(--metal-line)"
          />
        ))}
        {[-s.mostMm, s.mostMm].map((d) => (
          <rect
            key={d}
            x={x(d - s.contactMm / 2)}
            y="6"
            width={s.contactMm * scale}
            height="30"
            fill="none"
            stroke={isShort ? "var(--stop)" : "var(--ink-2)"}
            strokeDasharray="4 3"
          />
        ))}
        <rect
          x={x(-s.contactMm / 2)}
          y="6"
          width={s.contactMm * scale}
          height="30"
          fill="none"
          stroke="var(--ink)"
          strokeWidth="1.6"
        />
      </svg>
      <figcaption className="text-center text-[13px] text-ink-2">
        slips {mm(s.mostMm)} mm each way;{" "}
        {isShort ? `lies ${mm(-gap)} mm on the next contact` : `${mm(gap)} mm left to the next contact`}
      </figcaption>
    </figure>
  );
}
