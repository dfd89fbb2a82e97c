import type { HouseLimits } from "@kobbin/core";
import type { ReactNode } from "react";

/** The letter a limit has in the drawing and before its field. */
export const LETTERS: Readonly<Partial<Record<keyof HouseLimits, string>>> = {
  minTrackMm: "a",
  minNetSpaceMm: "b",
  minHoleMm: "c",
  minAnnularMm: "d",
  minHoleToHoleMm: "e",
  minDrillToForeignCopperMm: "f",
  minNpthToCopperMm: "g",
  minHoleToEdgeMm: "h",
  minCopperToEdgeMm: "i",
  minSlotMm: "j",
  minMaskWebMm: "k",
  minLegendLineMm: "l",
  minLegendTextMm: "m",
  maxAspect: "n",
};

/** A corner of a board from above and a cut through it: what each limit of a house means, with the value it has. */
export function LimitsDrawn({
  shown,
  focused,
}: {
  /** What stands in a field now; empty where the house does not state it. */
  shown: (key: keyof HouseLimits) => string;
  focused: string | undefined;
}) {
  const at = (
    key: keyof HouseLimits,
    x: number,
    y: number,
    from: readonly [number, number, number, number],
  ) => {
    const isOn = focused === `limits.${key}`;
    const value = shown(key);
    return (
      <g key={key} stroke={isOn ? "var(--metal)" : "var(--ink)"} strokeWidth={isOn ? 1.6 : 0.8}>
        <path
          d={`M${from[0]} ${from[1]}L${from[2]} ${from[3]}`}
          markerStart="url(#tick)"
          markerEnd="url(#tick)"
        />
        <text
          x={x}
          y={y}
          stroke="var(--sheet)"
          strokeWidth={3}
          paintOrder="stroke"
          fill={isOn ? "var(--metal)" : "var(--ink)"}
          fontSize={10}
          fontWeight={isOn ? 700 : 400}
        >
          <tspan fontStyle="italic">{LETTERS[key]}</tspan> {value === "" ? "–" : value}
        </text>
      </g>
    );
  };
  return (
    <svg
      role="img"
      aria-label="A corner of a board from above and a cut through it, with a letter at each limit"
      viewBox="0 0 640 178"
      className="mb-3 w-full border border-rule bg-sheet"
    >
      <defs>
        <marker id="tick" viewBox="0 0 4 8" refX={2} refY={4} markerWidth={4} markerHeight={8} orient="auto">
          <path d="M2 0V8" stroke="var(--ink)" strokeWidth={1} />
        </marker>
      </defs>
      <Corner />
      {at("minTrackMm", 26, 46, [52, 30, 64, 30])}
      {at("minNetSpaceMm", 62, 66, [64, 50, 82, 50])}
      {at("minHoleMm", 138, 98, [140, 60, 160, 60])}
      {at("minAnnularMm", 176, 30, [160, 46, 170, 38])}
      {at("minHoleToHoleMm", 172, 92, [160, 66, 208, 66])}
      {at("minDrillToForeignCopperMm", 214, 98, [228, 62, 248, 62])}
      {at("minNpthToCopperMm", 330, 40, [326, 48, 344, 48])}
      {at("minHoleToEdgeMm", 330, 138, [316, 122, 316, 156])}
      {at("minCopperToEdgeMm", 92, 148, [86, 128, 86, 156])}
      {at("minSlotMm", 246, 122, [240, 110, 240, 124])}
      {at("minMaskWebMm", 380, 30, [388, 48, 396, 48])}
      {at("minLegendLineMm", 380, 100, [404, 106, 404, 110])}
      {at("minLegendTextMm", 424, 128, [418, 106, 418, 136])}
      {at("maxAspect", 560, 98, [552, 62, 552, 126])}
    </svg>
  );
}

/** Board, copper, holes and ink the letters stand at. */
function Corner(): ReactNode {
  const copper = { fill: "none", stroke: "var(--metal-line, var(--metal))", strokeWidth: 12 } as const;
  const hole = { fill: "var(--paper)", stroke: "var(--ink)", strokeWidth: 1 } as const;
  return (
    <>
      <path d="M440 156H20V10" fill="none" stroke="var(--ink)" strokeWidth={2} />
      <path d="M58 12V110M88 12V122H150" {...copper} />
      <circle cx={150} cy={60} r={20} fill="var(--metal-soft)" stroke="var(--metal)" />
      <circle cx={218} cy={60} r={20} fill="var(--metal-soft)" stroke="var(--metal)" />
      <circle cx={150} cy={60} r={10} {...hole} />
      <circle cx={218} cy={60} r={10} {...hole} />
      <path d="M254 14V96" {...copper} />
      <circle cx={312} cy={48} r={14} {...hole} strokeDasharray="3 2" />
      <path d="M350 14V92" {...copper} />
      <circle cx={316} cy={112} r={10} {...hole} />
      <rect x={186} y={110} width={50} height={14} rx={7} {...hole} />
      <rect x={372} y={40} width={16} height={34} fill="none" stroke="var(--fine)" strokeDasharray="3 2" />
      <rect x={396} y={40} width={16} height={34} fill="none" stroke="var(--fine)" strokeDasharray="3 2" />
      <path
        d="M376 136V108H390Q398 115 390 122H376M390 122L400 136M404 108V136"
        fill="none"
        stroke="var(--ink)"
        strokeWidth={3}
      />
      <text x={20} y={172} fontSize={9} fill="var(--ink-3)">
        from above
      </text>
      <rect x={470} y={62} width={60} height={64} fill="var(--metal-soft)" stroke="var(--ink)" />
      <rect x={494} y={62} width={12} height={64} fill="var(--paper)" stroke="var(--metal)" strokeWidth={2} />
      <path d="M470 59H494M506 59H530M470 129H494M506 129H530" stroke="var(--metal)" strokeWidth={5} />
      <text x={470} y={172} fontSize={9} fill="var(--ink-3)">
        cut through: thickness over hole
      </text>
    </>
  );
}
