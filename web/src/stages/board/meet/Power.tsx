import type { PowerMap } from "@kobbin/core";

const COLUMN = 272;
const BOX = 190;
const LINE = 84;
/** Letters stand clear of the line they lie on. */
const HALO = { stroke: "var(--paper)", strokeWidth: 5, paintOrder: "stroke" } as const;
const WORDS = {
  diode: "one way",
  switch: "switched",
  link: "by link",
  fuse: "fuse",
  coil: "coil",
  resistor: "resistor",
  converter: "converts",
} as const;

/** Where each rail stands: what is fed from outside on the left, what hangs on it one column further. */
function columnsOf(map: PowerMap): number[] {
  const { rails } = map;
  const depth = rails.map((r): number => (r.sources.length > 0 ? 0 : -1));
  const queue = rails.flatMap((_, i) => (depth[i] === 0 ? [i] : []));
  for (const i of queue)
    for (const l of rails[i]!.links)
      if (depth[l.to] === -1) {
        depth[l.to] = depth[i]! + 1;
        queue.push(l.to);
      }
  // what nobody is known to feed begins on the left too, the higher volts first
  const rest = rails
    .flatMap((r, i) => (depth[i] === -1 ? [{ i, volts: r.volts ?? 0 }] : []))
    .sort((a, b) => Number(comesIn(map, b.i)) - Number(comesIn(map, a.i)) || b.volts - a.volts);
  for (const { i } of rest) {
    if (depth[i] !== -1) continue;
    depth[i] = 0;
    const more = [i];
    for (const k of more)
      for (const l of rails[k]!.links)
        if (depth[l.to] === -1) {
          depth[l.to] = depth[k]! + 1;
          more.push(l.to);
        }
  }
  return depth;
}

/** Named as what comes from outside. */
const comesIn = (map: PowerMap, i: number) => map.rails[i]!.names.some((n) => /IN\d*$|BAT|BUS/i.test(n));

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
    <div className="overflow-x-auto">
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
                {WORDS[w.kind]}
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
    </div>
  );
}
