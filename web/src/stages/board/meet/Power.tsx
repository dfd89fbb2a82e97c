import { feedWalk, type PowerMap } from "@kobbin/core";
import { FEED_WORDS } from "../../../run/feedWords.ts";

const COLUMN = 272;
const BOX = 190;
const LINE = 84;
/** Letters stand clear of the line they lie on. */
const HALO = { stroke: "var(--paper)", strokeWidth: 5, paintOrder: "stroke" } as const;
/** Where each rail stands: what is fed from outside on the left, what hangs on it one column further. */
function columnsOf(map: PowerMap): number[] {
  const { order, parent } = feedWalk(map);
  const depth: number[] = [];
  for (const i of order) depth[i] = parent.has(i) ? depth[parent.get(i)!.from]! + 1 : 0;
  return depth;
}

/** The supplies as a tree on the board's own nets: what feeds, through which part, what draws. */
export function Power({ map }: { map: PowerMap }) {
  const depth = columnsOf(map);
  const filled: number[] = [];
  const spots = map.rails.map((_, i) => {
    const c = depth[i]!;
    filled[c] = (filled[c] ?? 0) + 1;
    return { x: 6 + c * COLUMN, y: 10 + (filled[c]! - 1) * LINE };
  });
  const width = 12 + (Math.max(0, ...depth) + 1) * COLUMN;
  const height = 16 + Math.max(1, ...filled.map((n) => n ?? 0)) * LINE;
  const seen = new Set<string>();
  const ways = map.rails.flatMap((r, i) =>
    r.links.flatMap((l) => {
      const key = `${l.ref} ${Math.min(i, l.to)} ${Math.max(i, l.to)}`;
      if (seen.has(key)) return [];
      seen.add(key);
      return [{ ...l, from: depth[i]! <= depth[l.to]! ? i : l.to, to: depth[i]! <= depth[l.to]! ? l.to : i }];
    }),
  );
  const words = map.rails
    .map(
      (r) =>
        `${r.names[0] ?? "a rail"}${r.volts === undefined ? "" : ` of ${r.volts} V${r.isByName ? " by its name" : ""}`}, ${r.sources.length > 0 ? `fed by ${r.sources.map((s) => s.what).join(" and ")}` : "fed by nothing that is known"}${r.links.length > 0 ? `, joined by ${r.links.map((l) => l.ref).join(", ")}` : ""}`,
    )
    .join("; ");
  return (
    <section
      className="overflow-x-auto"
      aria-label="Tree of supplies"
      // biome-ignore lint/a11y/noNoninteractiveTabindex: a wide tree is scrolled by keys
      tabIndex={0}
    >
      <svg width={width} viewBox={`0 0 ${width} ${height}`} role="img" aria-label={`Supplies: ${words}`}>
        {ways.map((w) => {
          const [a, b] = [spots[w.from]!, spots[w.to]!];
          const isBeside = a.x === b.x;
          const [x1, y1] = isBeside ? [a.x + BOX / 2, a.y + 58] : [a.x + BOX, a.y + 28];
          const [x2, y2] = isBeside ? [b.x + BOX / 2, b.y] : [b.x, b.y + 28];
          return (
            <g key={`${w.ref} ${w.from} ${w.to}`}>
              <path d={`M${x1} ${y1}L${x2} ${y2}`} stroke="var(--ink-2)" strokeWidth="2" />
              <text
                x={(x1 + x2) / 2}
                y={(y1 + y2) / 2 - 6}
                textAnchor="middle"
                fontSize="12.5"
                fill="var(--ink)"
                fontFamily="var(--font-mono)"
                {...HALO}
              >
                {w.ref}
              </text>
              <text
                x={(x1 + x2) / 2}
                y={(y1 + y2) / 2 + 16}
                textAnchor="middle"
                fontSize="11.5"
                fill="var(--ink-2)"
                {...HALO}
              >
                {FEED_WORDS[w.kind]}
              </text>
            </g>
          );
        })}
        {map.rails.map((r, i) => {
          const { x, y } = spots[i]!;
          const isFed = r.sources.length > 0;
          return (
            <g key={r.nets.join(" ")} transform={`translate(${x} ${y})`}>
              <rect
                width={BOX}
                height="58"
                rx="3"
                fill="var(--sheet)"
                stroke={r.sources.length > 1 ? "var(--stop)" : isFed ? "var(--metal)" : "var(--ink-3)"}
                strokeWidth={isFed ? 2.5 : 1.2}
              />
              <text x="9" y="18" fontSize="13.5" fontWeight="700" fill="var(--ink)">
                {r.names.join(" · ").slice(0, 15) || "no name"}
                {r.volts === undefined ? "" : `, ${r.volts} V${r.isByName ? " by name" : ""}`}
              </text>
              <text x="9" y="34" fontSize="12" fill={r.sources.length > 1 ? "var(--stop)" : "var(--ink-2)"}>
                {isFed
                  ? `from ${[...new Set(r.sources.map((s) => `${s.what} at ${s.ref}`))].join(" + ")}`.slice(
                      0,
                      27,
                    )
                  : r.links.length > 0
                    ? `over ${r.links.map((l) => l.ref).join(", ")}`.slice(0, 27)
                    : "not known what feeds it"}
              </text>
              <text x="9" y="50" fontSize="12" fill="var(--ink-2)">
                {r.loads.length === 0
                  ? "nothing draws"
                  : `${r.loads.slice(0, 3).join(", ")}${r.loads.length > 3 ? ` and ${r.loads.length - 3} more` : ""}`}
              </text>
            </g>
          );
        })}
      </svg>
    </section>
  );
}
