import { type PanelChoice, type PanelLayout, type SheetSide, SIDES } from "@kobbin/core";
import type { PointerEvent } from "react";
import { mm } from "../../ui/text/format.ts";
import { STEP_MM } from "./sheetModel.ts";

/** What stands on the rails and in the waste, scores, and perforations. */
export function Furniture({ layout: l, unit }: { layout: PanelLayout; unit: number }) {
  const y = (v: number) => l.heightMm - v;
  return (
    <g fill="none" strokeWidth={0.3 * unit}>
      {l.scores.map((s) => (
        <line
          key={`${s.x1} ${s.y1}`}
          x1={s.x1}
          y1={y(s.y1)}
          x2={s.x2}
          y2={y(s.y2)}
          stroke="var(--metal)"
          strokeDasharray={`${2 * unit} ${unit}`}
          strokeWidth={0.5 * unit}
        />
      ))}
      {l.fiducials.map((f) => (
        <g key={`${f.xMm} ${f.yMm}`}>
          <circle cx={f.xMm} cy={y(f.yMm)} r={1} stroke="var(--ink-3)" />
          <circle cx={f.xMm} cy={y(f.yMm)} r={0.5} fill="var(--metal)" />
        </g>
      ))}
      {l.toolingHoles.map((h) => (
        <circle
          key={`${h.xMm} ${h.yMm}`}
          cx={h.xMm}
          cy={y(h.yMm)}
          r={h.diameterMm / 2}
          fill="var(--sheet)"
          stroke="var(--ink-2)"
        />
      ))}
      {l.waste.flatMap((w) =>
        [...w.slots, ...w.pads].map(([x0, y0, x1, y1]) => (
          <rect
            key={`${x0} ${y0}`}
            x={x0}
            y={y(y1)}
            width={x1 - x0}
            height={y1 - y0}
            fill={w.slots.length > 0 ? "var(--sheet)" : "var(--metal)"}
            stroke="var(--ink-3)"
            strokeWidth={0.15 * unit}
          />
        )),
      )}
      {l.badMarks.map((b) => (
        <circle key={b.copy} cx={b.xMm} cy={y(b.yMm)} r={1} stroke="var(--metal-line)" />
      ))}
      {l.tabs.flatMap((t) =>
        t.at.map(([x, v]) => <circle key={`${x} ${v}`} cx={x} cy={y(v)} r={0.25} fill="var(--sheet)" />),
      )}
    </g>
  );
}

/** Inner edges of the rails: each is dragged, or set by the arrow keys. */
export function Rails({
  now,
  unit,
  isLocked,
  onBegin,
  onSet,
}: {
  now: PanelChoice;
  unit: number;
  isLocked: boolean;
  onBegin: (e: PointerEvent, what: { rail: SheetSide }) => void;
  onSet: (side: SheetSide, widthMm: number) => void;
}) {
  if (isLocked) return null;
  const { widthMm: W, heightMm: H, rails } = now;
  return SIDES.filter((s) => rails[s] > 0).map((s) => {
    const w = rails[s];
    const [x1, y1, x2, y2] =
      s === "left"
        ? [w, 0, w, H]
        : s === "right"
          ? [W - w, 0, W - w, H]
          : s === "top"
            ? [0, w, W, w]
            : [0, H - w, W, H - w];
    const isUpright = s === "left" || s === "right";
    return (
      <line
        key={s}
        role="slider"
        tabIndex={0}
        aria-label={`Rail ${s}`}
        aria-valuenow={w}
        aria-valuemin={3}
        aria-valuemax={60}
        aria-valuetext={`${mm(w)} mm`}
        x1={x1}
        y1={y1}
        x2={x2}
        y2={y2}
        stroke="transparent"
        strokeWidth={2.2 * unit}
        className={`outline-none focus-visible:stroke-metal ${isUpright ? "cursor-ew-resize" : "cursor-ns-resize"}`}
        onPointerDown={(e) => onBegin(e, { rail: s })}
        onKeyDown={(e) => {
          const by = { ArrowRight: STEP_MM, ArrowUp: STEP_MM, ArrowLeft: -STEP_MM, ArrowDown: -STEP_MM }[
            e.key
          ];
          if (by === undefined) return;
          e.preventDefault();
          onSet(s, w + by);
        }}
      />
    );
  });
}

/** Width and height as a drawing has them. */
export function Size({ w, h, unit }: { w: number; h: number; unit: number }) {
  const o = 4 * unit;
  const line = { stroke: "var(--ink-3)", strokeWidth: 0.2 * unit };
  const text = { fontSize: 3.6 * unit, fill: "var(--ink-2)", textAnchor: "middle" as const };
  return (
    <g className="num pointer-events-none">
      <line x1={0} y1={-o} x2={w} y2={-o} {...line} />
      <line x1={0} y1={-o - unit} x2={0} y2={-o + unit} {...line} />
      <line x1={w} y1={-o - unit} x2={w} y2={-o + unit} {...line} />
      <text x={w / 2} y={-o - unit} {...text}>
        {mm(w)}
      </text>
      <line x1={-o} y1={0} x2={-o} y2={h} {...line} />
      <line x1={-o - unit} y1={0} x2={-o + unit} y2={0} {...line} />
      <line x1={-o - unit} y1={h} x2={-o + unit} y2={h} {...line} />
      <text x={-o - unit} y={h / 2} transform={`rotate(-90 ${-o - unit} ${h / 2})`} {...text}>
        {mm(h)}
      </text>
    </g>
  );
}
