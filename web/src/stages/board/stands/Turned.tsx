import { type Body, type Isometric, isometricOf } from "@kobbin/core";
import { useMemo } from "react";
import { count, mm } from "../../../ui/text/format.ts";

/** Names are written at so many of the tallest. */
const NAMED = 7;
const NAMED_NARROW = 4;
const ROOM_MM = 3;

const pathOf = (rings: Isometric["faces"][number]["rings"]): string =>
  rings
    .map((r) => {
      let d = "";
      for (let i = 0; i < r.length; i += 2)
        d += `${i === 0 ? "M" : "L"}${r[i]!.toFixed(2)} ${r[i + 1]!.toFixed(2)}`;
      return `${d}Z`;
    })
    .join("");

/** A round corner's edge is many narrow faces: only those of straight sides are drawn with their lines. */
const STRAIGHT_MM = 2;

function strokeOf(
  f: Isometric["faces"][number],
  shown: ReadonlySet<string>,
  inTheWay: ReadonlySet<string>,
): string {
  if (f.kind === "edge") {
    const [ax, ay, bx, by] = f.rings[0]!;
    return Math.hypot(bx! - ax!, by! - ay!) < STRAIGHT_MM ? "var(--grid)" : "var(--ink-2)";
  }
  return f.ref !== undefined && (shown.has(f.ref) || inTheWay.has(f.ref)) ? "var(--ink)" : "var(--ink-2)";
}

/** The board with its bodies, seen from a corner above; what is looked at or in the way is filled. */
export function Turned({
  bodies,
  rings,
  thicknessMm,
  side,
  quarter,
  shown,
  inTheWay,
}: {
  bodies: readonly Body[];
  rings: readonly (readonly number[])[];
  thicknessMm: number;
  side: Body["side"];
  quarter: number;
  shown: ReadonlySet<string>;
  inTheWay: ReadonlySet<string>;
}) {
  const view = useMemo(
    () => isometricOf(bodies, rings, thicknessMm, side, quarter),
    [bodies, rings, thicknessMm, side, quarter],
  );
  const unknown = useMemo(
    () => new Set(bodies.filter((b) => b.heightMm === undefined).map((b) => b.ref)),
    [bodies],
  );
  const [x0, y0, x1, y1] = view.box;
  const [w, h] = [x1 - x0 + 2 * ROOM_MM, y1 - y0 + 2 * ROOM_MM];
  // letters keep their size on paper, whatever the board's
  const isNarrow = window.matchMedia("(max-width: 767px)").matches;
  const unit = Math.max(w / (isNarrow ? 430 : 980), h / 430);
  const tallest = [...view.tops]
    .sort((a, b) => Number(shown.has(b.ref)) - Number(shown.has(a.ref)) || b.mm - a.mm)
    .slice(0, isNarrow ? NAMED_NARROW : NAMED)
    .filter((t) => t.mm > 0 || shown.has(t.ref));
  const fill = (ref: string | undefined, kind: Isometric["faces"][number]["kind"]) =>
    ref !== undefined && shown.has(ref)
      ? "var(--metal-soft)"
      : ref !== undefined && inTheWay.has(ref)
        ? "var(--stop-soft)"
        : kind === "board"
          ? "var(--paper)"
          : kind === "wall" || kind === "edge"
            ? "var(--grid)"
            : "var(--sheet)";
  return (
    <svg
      className="block w-full bg-sheet"
      style={{ maxHeight: 430 }}
      viewBox={`${x0 - ROOM_MM} ${y0 - ROOM_MM} ${w} ${h}`}
      role="img"
      aria-label={`The ${side} with ${count(view.tops.length, "body", "bodies")}, seen from a corner above`}
    >
      {view.faces.map((f, i) => (
        <path
          // biome-ignore lint/suspicious/noArrayIndexKey: a face is its place in the order
          key={i}
          d={pathOf(f.rings)}
          fillRule="evenodd"
          fill={fill(f.ref, f.kind)}
          stroke={strokeOf(f, shown, inTheWay)}
          strokeWidth={unit * (f.kind === "board" ? 1.4 : 1)}
          strokeLinejoin="round"
          {...(f.ref !== undefined && unknown.has(f.ref)
            ? { strokeDasharray: `${unit * 4} ${unit * 3}` }
            : {})}
        />
      ))}
      {tallest.map((t) => (
        <g key={t.ref}>
          <path d={`M${t.x} ${t.y}v${-22 * unit}`} stroke="var(--ink)" strokeWidth={unit} fill="none" />
          <circle cx={t.x} cy={t.y} r={unit * 2.4} fill="var(--ink)" />
          <text
            x={t.x}
            y={t.y - 27 * unit}
            textAnchor="middle"
            fontSize={14 * unit}
            fontFamily="var(--font-mono)"
            fill="var(--ink)"
            stroke="var(--sheet)"
            strokeWidth={unit * 4}
            paintOrder="stroke"
          >
            {t.ref}
            {t.mm > 0 ? ` ${mm(t.mm)}` : ""}
          </text>
        </g>
      ))}
    </svg>
  );
}
