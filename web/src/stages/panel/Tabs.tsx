import { type PanelLayout, type Tab, tabRing } from "@kobbin/core";
import { pathOf } from "./drawn.ts";
import type { useTabHands } from "./useTabHands.ts";

/** The bridges of a sheet: each is dragged along its board's edge; those of the board that is picked take keys too. */
export function Tabs({
  layout: l,
  unit,
  hands,
  picked,
  isLocked,
}: {
  layout: PanelLayout;
  unit: number;
  hands: ReturnType<typeof useTabHands>;
  /** Place in the list of the board that is picked. */
  picked: number | undefined;
  isLocked: boolean;
}) {
  const { held } = hands;
  const path = (t: Tab) => pathOf([tabRing(t, t.widthMm, 0.05)], l.heightMm);
  return (
    <g>
      {l.tabs.map((t, i) => {
        const isHeld = held?.index === i;
        const now = isHeld && held.where.why === undefined ? held.where.tab : t;
        const isNear = picked !== undefined && t.between.includes(picked + 1);
        return (
          // biome-ignore lint/a11y/useSemanticElements: a tab on a drawing is no button of a form
          <path
            key={`${t.xMm} ${t.yMm}`}
            role="button"
            tabIndex={!isLocked && isNear ? 0 : -1}
            aria-label={`Tab ${i + 1} between ${t.between.map((c) => (c === 0 ? "the frame" : `board ${c}`)).join(" and ")}`}
            d={path(now)}
            fill={isHeld && held.where.why !== undefined ? "var(--stop-soft)" : "var(--metal-soft)"}
            stroke={isHeld && held.where.why !== undefined ? "var(--stop)" : "var(--metal)"}
            strokeWidth={(isHeld ? 0.6 : 0.2) * unit}
            className={`outline-none focus-visible:stroke-ink ${isLocked ? "" : "cursor-grab"}`}
            style={{ paintOrder: "stroke" }}
            onPointerDown={(e) => hands.begin(e, i)}
            onKeyDown={(e) => hands.keys(e, i)}
          />
        );
      })}
      {held?.where.why !== undefined && held.where.nearest && (
        <path
          d={path(held.where.nearest.tab)}
          fill="none"
          stroke="var(--metal)"
          strokeWidth={0.4 * unit}
          strokeDasharray={`${unit} ${0.6 * unit}`}
        />
      )}
    </g>
  );
}
