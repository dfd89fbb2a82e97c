import type { FoilPlace, Measure } from "@kobbin/core";
import { useMemo } from "react";
import { count, mm } from "../../../ui/text/format.ts";

/** Marks of openings at fault that are drawn; the list beside it counts them all. */
const MOST_MARKS = 120;

const pathOf = (rings: readonly (readonly number[])[]) =>
  rings
    .map((r) => {
      const points: string[] = [];
      for (let i = 0; i < r.length; i += 2) points.push(`${r[i]!.toFixed(3)} ${(-r[i + 1]!).toFixed(3)}`);
      return `M${points.join("L")}Z`;
    })
    .join("");

/** The foil as it will be cut, seen from the side that is printed on: what is left out dashed, what is at fault marked. */
export function FoilPicture({
  measure: m,
  side,
  openings,
  picked,
  onPick,
}: {
  measure: Measure;
  side: "top" | "bottom";
  openings: readonly FoilPlace[];
  picked: FoilPlace | undefined;
  onPick: (o: FoilPlace) => void;
}) {
  const [x0, y0, x1, y1] = m.extentMm ?? [0, 0, 1, 1];
  const [w, h] = [x1 - x0, y1 - y0];
  const unit = Math.max(w, h) / 100;
  const paths = useMemo(() => {
    const of = (test: (o: FoilPlace) => boolean, rings: (o: FoilPlace) => FoilPlace["drawn"]) =>
      pathOf(openings.filter(test).flatMap(rings));
    return {
      cut: of(
        (o) => o.cut.kind !== "left out",
        (o) => o.cut.rings,
      ),
      left: of(
        (o) => o.cut.kind === "left out",
        (o) => o.drawn,
      ),
      changed: of(
        (o) => o.cut.kind === "narrowed" || o.cut.kind === "panes",
        (o) => o.drawn,
      ),
    };
  }, [openings]);
  const faults = openings.filter((o) => o.fault).slice(0, MOST_MARKS);
  const press = (e: React.MouseEvent<SVGSVGElement>) => {
    const box = e.currentTarget.getScreenCTM();
    if (!box) return;
    const at = new DOMPoint(e.clientX, e.clientY).matrixTransform(box.inverse());
    const x = side === "bottom" ? x0 + x1 - at.x : at.x;
    const near = openings.reduce<{ d: number; o?: FoilPlace }>(
      (best, o) => {
        const d = Math.hypot(o.x - x, o.y + at.y);
        return d < best.d ? { d, o } : best;
      },
      { d: 3 * unit },
    );
    if (near.o) onPick(near.o);
  };
  const pad = 3 * unit;
  return (
    // biome-ignore lint/a11y/useKeyWithClickEvents: every opening at fault is a button in the list beside it
    <svg
      role="img"
      aria-label={`The foil of the ${side}: ${count(openings.length, "opening")}, ${openings.filter((o) => o.fault).length} at fault in this thickness, ${openings.filter((o) => o.cut.kind === "left out").length} left out`}
      viewBox={`${x0 - pad} ${-y1 - pad} ${w + 2 * pad} ${h + 2 * pad}`}
      className="max-h-[460px] w-full cursor-crosshair border border-rule bg-sheet"
      onClick={press}
    >
      <g transform={side === "bottom" ? `translate(${x0 + x1} 0) scale(-1 1)` : undefined}>
        {m.outline?.rings && (
          <path
            d={pathOf(m.outline.rings)}
            fillRule="evenodd"
            fill="var(--paper)"
            stroke="var(--rule-2, var(--rule))"
            strokeWidth={0.25 * unit}
          />
        )}
        <path d={paths.changed} fill="none" stroke="var(--ink-3)" strokeWidth={0.12 * unit} />
        <path
          d={paths.left}
          fill="none"
          stroke="var(--ink-3)"
          strokeWidth={0.15 * unit}
          strokeDasharray={`${0.5 * unit} ${0.4 * unit}`}
        />
        <path d={paths.cut} fill="var(--metal)" />
        {faults.map((o) => (
          <Mark key={`${o.x} ${o.y}`} place={o} unit={unit} />
        ))}
        {picked && (
          <circle
            cx={picked.x}
            cy={-picked.y}
            r={picked.lengthMm / 2 + 1.2 * unit}
            fill="none"
            stroke="var(--ink)"
            strokeWidth={0.35 * unit}
          />
        )}
      </g>
      <title>{`${mm(w)} × ${mm(h)} mm`}</title>
    </svg>
  );
}

/** A circle around what stays in the foil, a square around what floods. */
function Mark({ place: o, unit }: { place: FoilPlace; unit: number }) {
  const r = o.lengthMm / 2 + 0.5 * unit;
  const line = { fill: "none", stroke: "var(--stop)", strokeWidth: 0.3 * unit };
  return o.fault === "stays in the foil" ? (
    <circle cx={o.x} cy={-o.y} r={r} {...line} />
  ) : (
    <rect x={o.x - r} y={-o.y - r} width={2 * r} height={2 * r} {...line} />
  );
}
