import { CUTTERS_MM, type Measure, NECK_MM, type Routing, routingOf } from "@kobbin/core";
import { useMemo, useState } from "react";
import type { Show } from "../../proof/Details.tsx";
import { Fold } from "../../ui/Fold.tsx";
import { Tab } from "../../ui/Tab.tsx";
import { count, mm, useFormats } from "../../ui/text/format.ts";

/** The outline under a cutter: what it leaves standing, where the board is thin, and where tabs can sit. */
export function Cutting({ measure: m, onShow }: { measure: Measure; onShow: Show }) {
  useFormats();
  const [cutter, setCutter] = useState<number>(CUTTERS_MM[0]);
  const routing = useMemo(() => routingOf(m, cutter), [m, cutter]);
  if (!routing || !m.outline?.rings || !m.extentMm) return null;
  return (
    <Fold id="cutting" title="Cutting the outline" verdict={verdict(routing, cutter)}>
      <div className="my-2 flex flex-wrap gap-x-5 text-[14px]">
        <span className="text-ink-2">cutter</span>
        {CUTTERS_MM.map((c) => (
          <Tab key={c} isOn={c === cutter} onClick={() => setCutter(c)}>
            {mm(c)} mm
          </Tab>
        ))}
      </div>
      <div className="grid grid-cols-[minmax(0,1fr)_280px] gap-6 max-md:grid-cols-1">
        <Drawing rings={m.outline.rings} extent={m.extentMm} routing={routing} />
        <ul className="text-[14px]">
          {routing.left.slice(0, MOST).map((p) => (
            <li key={`${p.x} ${p.y}`} className="border-t border-rule py-1">
              <button
                type="button"
                className="why text-left"
                onClick={() => onShow({ layer: "profile", x: p.x, y: p.y }, `left ${p.x} ${p.y}`)}
              >
                {mm(p.areaMm2)} mm² stay standing
              </button>
            </li>
          ))}
          {routing.thin.slice(0, MOST).map((p) => (
            <li key={`${p.x} ${p.y}`} className="border-t border-rule py-1">
              <button
                type="button"
                className="why text-left text-look"
                onClick={() => onShow({ layer: "profile", x: p.x, y: p.y }, `thin ${p.x} ${p.y}`)}
              >
                narrower than {NECK_MM} mm: it breaks easily
              </button>
            </li>
          ))}
          {routing.narrowSlots.slice(0, MOST).map((s) => (
            <li key={`${s.x} ${s.y}`} className="border-t border-rule py-1">
              <button
                type="button"
                className="why text-left"
                onClick={() => onShow({ layer: "profile", x: s.x, y: s.y }, `slot ${s.x} ${s.y}`)}
              >
                a slot of {mm(s.widthMm)} mm takes a thinner tool
              </button>
            </li>
          ))}
          <li className="border-t border-rule py-1 text-ink-2">
            {routing.sides.length === 0
              ? "No side is straight for 5 mm: tabs have to sit on curves."
              : `Tabs can sit on ${count(routing.sides.length, "straight side")}, the longest ${mm(longest(routing))} mm.`}
          </li>
        </ul>
      </div>
    </Fold>
  );
}

const MOST = 12;
const longest = (r: Routing) =>
  r.sides.reduce((most, [ax, ay, bx, by]) => Math.max(most, Math.hypot(bx - ax, by - ay)), 0);

function verdict(r: Routing, cutter: number): string {
  const parts = [
    r.left.length > 0
      ? `a cutter of ${mm(cutter)} mm leaves something in ${count(r.left.length, "place")}`
      : `a cutter of ${mm(cutter)} mm reaches everything`,
    r.thin.length > 0 && `thin in ${count(r.thin.length, "place")}`,
    r.sides.length === 0 && "no straight side for a tab",
  ];
  return parts.filter(Boolean).join(", ");
}

/** The outline to scale: sides for tabs thick, what stays standing and what is thin filled. */
function Drawing({
  rings,
  extent: [x0, y0, x1, y1],
  routing: r,
}: {
  rings: readonly (readonly number[])[];
  extent: readonly [number, number, number, number];
  routing: Routing;
}) {
  const [w, h] = [x1 - x0, y1 - y0];
  const unit = Math.max(w / 640, h / 300);
  const path = (ring: readonly number[]) => {
    let d = "";
    for (let i = 0; i < ring.length; i += 2)
      d += `${i === 0 ? "M" : "L"}${(ring[i]! - x0).toFixed(3)} ${(y1 - ring[i + 1]!).toFixed(3)}`;
    return `${d}Z`;
  };
  const room = 12 * unit;
  return (
    <svg
      className="w-full bg-sheet"
      style={{ maxHeight: 320 }}
      viewBox={`${-room} ${-room} ${w + 2 * room} ${h + 2 * room}`}
      role="img"
      aria-label={`The outline: ${count(r.left.length, "place stays", "places stay")} standing, ${count(r.thin.length, "is", "are")} thin, ${count(r.sides.length, "side holds", "sides hold")} tabs`}
    >
      <path
        d={rings.map(path).join("")}
        fillRule="evenodd"
        fill="var(--paper)"
        stroke="var(--ink)"
        strokeWidth={unit * 1.3}
      />
      {r.sides.map(([ax, ay, bx, by]) => (
        <path
          key={`${ax} ${ay} ${bx} ${by}`}
          d={`M${ax - x0} ${y1 - ay}L${bx - x0} ${y1 - by}`}
          stroke="var(--fine)"
          strokeWidth={unit * 4}
        />
      ))}
      {r.thin.map((p) => (
        <path key={`thin ${p.x} ${p.y}`} d={path(p.ring)} fill="var(--look)" fillOpacity="0.55" />
      ))}
      {r.left.map((p) => (
        <g key={`left ${p.x} ${p.y}`}>
          <path d={path(p.ring)} fill="var(--stop)" />
          <circle
            cx={p.x - x0}
            cy={y1 - p.y}
            r={unit * 9}
            fill="none"
            stroke="var(--stop)"
            strokeWidth={unit * 1.5}
          />
        </g>
      ))}
      {r.narrowSlots.map((s) => (
        <circle
          key={`slot ${s.x} ${s.y}`}
          cx={s.x - x0}
          cy={y1 - s.y}
          r={unit * 7}
          fill="none"
          stroke="var(--ink-2)"
          strokeWidth={unit * 1.5}
          strokeDasharray={`${unit * 3} ${unit * 2}`}
        />
      ))}
    </svg>
  );
}
