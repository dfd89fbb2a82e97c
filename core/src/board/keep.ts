import type { Measure } from "./measure-document.ts";

/** Characters of a kept document; a board of 70,000 objects has about two thirds of it. */
const MOST = 3_000_000;

/** A measure whose stencils lack one of their lists. */
const stencilsWithout = (key: "apertures" | "openings") => (m: Measure) =>
  m.stencil && {
    list: Object.keys(m.stencil).length,
    without: {
      ...m,
      stencil: Object.fromEntries(
        Object.entries(m.stencil).map(([side, { [key]: _, ...s }]) => [side, s]),
      ) as NonNullable<Measure["stencil"]>,
    },
  };

/** Lists that may be long, the least missed first, with what they are called. */
const LISTS: readonly (readonly [string, (m: Measure) => { list: number; without: Measure } | undefined])[] =
  [
    [
      "the pads of each net",
      (m) =>
        m.nets?.islands && {
          list: m.nets.islands.length,
          without: { ...m, nets: { ...m.nets, islands: [] } },
        },
    ],
    ["routed paths", (m) => ({ list: m.routedPaths.length, without: { ...m, routedPaths: [] } })],
    ["slots", (m) => ({ list: m.slots.length, without: { ...m, slots: [] } })],
    ["openings of the stencil by size", stencilsWithout("apertures")],
    ["openings of the stencil one by one", stencilsWithout("openings")],
    [
      "findings beyond the first 500",
      (m) => ({ list: m.findings.length - 500, without: { ...m, findings: m.findings.slice(0, 500) } }),
    ],
    [
      "differences between list, places and pads",
      (m) => {
        if (!m.crossCheck) return undefined;
        const { crossCheck: _, ...without } = m;
        return { list: 1, without };
      },
    ],
    ["sizes of holes", (m) => ({ list: m.holes.length, without: { ...m, holes: m.holes.slice(0, 500) } })],
  ];

/**
 * A measured board as it is kept and sent: where it would be too long, lists are left out, the least missed first, and
 * a finding says which. Figures are never left out.
 */
export function measureToKeep(m: Measure, most = MOST): Measure {
  if (JSON.stringify(m).length <= most) return m;
  let now = m;
  const gone: string[] = [];
  for (const [name, cut] of LISTS) {
    const c = cut(now);
    if (!c || c.list <= 0) continue;
    now = c.without;
    gone.push(name);
    if (JSON.stringify(now).length <= most - 2000) break;
  }
  const text = `This board has more in it than is kept beside its files: ${gone.join(", ")} are not in the kept figures.`;
  return {
    ...now,
    findings: [
      ...now.findings,
      {
        tag: "budget-reached",
        level: "warning",
        text,
        do: "The page shows them while the board is open; if the files hold more than one board, drop them one by one.",
      },
    ],
  };
}
