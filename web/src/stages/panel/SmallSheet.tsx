import type { PanelDesign, PanelLayout } from "@kobbin/core";
import { memo } from "react";
import { outlinePath, pathOf, placeTransform, tabsPath } from "./drawn.ts";

/** A sheet in small: its frame, its boards as they lie, scores and tabs. */
export const SmallSheet = memo(function SmallSheet({
  layout: l,
  designs,
  width = 84,
  height = 64,
}: {
  layout: PanelLayout;
  designs: readonly PanelDesign[];
  width?: number;
  height?: number;
}) {
  const line = Math.max(l.widthMm / width, l.heightMm / height);
  return (
    <svg
      width={width}
      height={height}
      viewBox={`${-line} ${-line} ${l.widthMm + 2 * line} ${l.heightMm + 2 * line}`}
      aria-hidden="true"
      className="block shrink-0"
    >
      <path
        d={l.frame.map((a) => pathOf(a, l.heightMm)).join("")}
        fillRule="evenodd"
        fill="var(--grid)"
        stroke="var(--ink-3)"
        strokeWidth={line * 0.6}
      />
      {l.places.map((p) => (
        <path
          key={p.copy}
          d={outlinePath(designs[p.board]!)}
          transform={placeTransform(p, l.heightMm)}
          fill={p.board === 0 ? "var(--fine-soft)" : "var(--look-soft)"}
          fillRule="evenodd"
          stroke="var(--ink-2)"
          strokeWidth={line * 0.6}
        />
      ))}
      <path d={tabsPath(l)} fill="var(--metal)" />
      {l.scores.map((s) => (
        <line
          key={`${s.x1} ${s.y1}`}
          x1={s.x1}
          y1={l.heightMm - s.y1}
          x2={s.x2}
          y2={l.heightMm - s.y2}
          stroke="var(--metal)"
          strokeWidth={line}
        />
      ))}
    </svg>
  );
});
