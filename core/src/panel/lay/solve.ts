import { counted } from "../../counted.ts";
import {
  isRefusal,
  type PanelDesign,
  type PanelLayout,
  type PanelRefusal,
  type PanelSpec,
  type Separation,
} from "../spec.ts";
import { candidatesOf, notScored, partingsOf, STRAIGHT } from "./candidates.ts";
import { cannotGo } from "./cannot.ts";
import { clean, turnedSize } from "./grid.ts";
import { layoutOf } from "./layout.ts";

/** Sheets worked out whole, of the best fields, before the search gives up. */
const MOST_TRIED = 12;

/** The ways to part that are tried, the first that serves is taken. */
const waysOf = ({ separation }: PanelSpec): readonly Separation[] =>
  separation === "auto" ? ["score", "mixed", "tabs"] : [separation];
const leastStraight = ({ separation }: PanelSpec): number =>
  separation === "auto" ? STRAIGHT.auto : STRAIGHT.asked;

/** The best sheet of one way to part, or why there is none. */
function bestOf(
  designs: readonly PanelDesign[],
  spec: PanelSpec,
  separation: Separation,
): PanelLayout | PanelRefusal | undefined {
  let first: PanelRefusal | undefined;
  let tried = 0;
  for (const c of candidatesOf(designs, spec, separation, leastStraight(spec))) {
    if (tried++ >= MOST_TRIED) break;
    const made = layoutOf(designs, spec, c.framed);
    if (!isRefusal(made)) return made;
    first ??= made;
  }
  return first;
}

/**
 * The best sheet for designs and a wish: scores where every edge allows them, else tabs, unless a way is asked for; as
 * many boards as asked or as go on it; the least sheet of those.
 *
 * A field is a grid either way round, rows turned by a quarter over others, boards interlocked by their true outlines, or
 * contacts outward; each is made into a whole sheet before it counts.
 */
export function solvePanel(designs: readonly PanelDesign[], spec: PanelSpec): PanelLayout | PanelRefusal {
  const unfit = unfitTogether(designs, spec);
  if (unfit) return unfit;
  let refused: PanelRefusal | undefined;
  for (const way of waysOf(spec)) {
    const made = bestOf(designs, spec, way);
    if (!made) continue;
    if (isRefusal(made)) {
      refused = made;
      continue;
    }
    // without being asked, nothing is scored that wants a look
    if (
      spec.separation === "auto" &&
      way !== "tabs" &&
      made.findings.some((f) => f.level === "warning" && f.tag.startsWith("score-"))
    )
      continue;
    return made;
  }
  return refused ?? noRoom(designs, spec);
}

/** Copies of one design that the best sheet of a wish would hold, before it is worked out whole. */
export function mostOnSheet(designs: readonly PanelDesign[], spec: PanelSpec): number {
  for (const way of waysOf(spec)) {
    const [best] = candidatesOf(designs, { ...spec, counts: ["fill"] }, way, leastStraight(spec));
    if (best) return best.framed.field.slots.length;
  }
  return 0;
}

function unfitTogether(designs: readonly PanelDesign[], spec: PanelSpec): PanelRefusal | undefined {
  const [first] = designs;
  if (!first) return { tag: "no-board", reason: "No board is named.", nearest: [] };
  for (const d of designs.slice(1)) {
    if (d.layers !== first.layers)
      return {
        tag: "layers-differ",
        reason: `${first.name} has ${first.layers} copper layers and ${d.name} has ${d.layers}: one sheet has one number of layers.`,
        nearest: [],
        do: "Order them on sheets of their own.",
      };
    if (d.thicknessMm !== undefined && first.thicknessMm !== undefined && d.thicknessMm !== first.thicknessMm)
      return {
        tag: "thickness-differs",
        reason: `${first.name} is ${first.thicknessMm} mm thick and ${d.name} ${d.thicknessMm} mm: one sheet has one thickness.`,
        nearest: [],
        do: "Order them on sheets of their own, or let one take the other's thickness.",
      };
  }
  if (spec.counts.some((c) => c !== "fill" && c < 1))
    return { tag: "no-count", reason: "A count of boards on the sheet is below 1.", nearest: [1] };
  return undefined;
}

/** Why nothing fits, with the counts that would. */
function noRoom(designs: readonly PanelDesign[], spec: PanelSpec): PanelRefusal {
  const [d] = designs as readonly [PanelDesign];
  const asked = spec.counts[0]!;
  const isLeast = spec.minWidthMm > 0 || spec.minHeightMm > 0;
  if (isLeast && !isRefusal(solvePanel(designs, { ...spec, minWidthMm: 0, minHeightMm: 0 })))
    return {
      tag: "smaller-than-least",
      reason: `The sheet would be smaller than ${spec.minWidthMm} × ${spec.minHeightMm} mm, and has no rail there that could be wider.`,
      nearest: [],
      do: "Let it have rails on all sides, or put more boards on it.",
    };
  if (designs.length === 1) {
    const found = solvableCounts(designs, spec, asked);
    if (found.length > 0)
      return {
        ...notLaid(designs, spec, `${asked} of ${d.name}`),
        nearest: found,
        do: `${found[0]} do.`,
      };
    const why = waysOf(spec)
      .flatMap((w) => partingsOf(w, spec))
      .map((p) => notScored(d, spec.turns[0]!, p, STRAIGHT.asked))
      .find((w) => w !== undefined);
    if (why && spec.separation !== "auto" && spec.separation !== "tabs")
      return {
        tag: "edges-not-straight",
        reason: `The sheet cannot be parted so: ${why}.`,
        nearest: [],
        do: "Part the boards by tabs.",
      };
    const [w, h] = turnedSize(d, 0);
    if (!cannotGo(designs, spec, waysOf(spec), [1]))
      return { ...notLaid(designs, spec, d.name), nearest: [], do: leastSheet(d, spec) };
    return {
      tag: "larger-than-sheet",
      reason: `${d.name}, ${clean(w)} × ${clean(h)} mm, does not go on a sheet of ${spec.maxWidthMm} × ${spec.maxHeightMm} mm with its rails.`,
      nearest: [],
      do: leastSheet(d, spec),
    };
  }
  if (spec.separation === "score" || spec.separation === "mixed")
    return {
      tag: "several-by-tabs",
      reason:
        "Several designs on one sheet are parted by tabs: a score would run from edge to edge through other boards.",
      nearest: [],
      do: "Take tabs.",
    };
  const nearest = solvableCounts(designs, spec, asked);
  return {
    ...notLaid(designs, spec, spec.counts.map((c, i) => `${c} of ${designs[i]!.name}`).join(" and ")),
    nearest,
    ...(nearest.length > 0
      ? { do: `${nearest[0]} of ${d.name} beside the others do.` }
      : { do: "Take a larger sheet, or fewer of each." }),
  };
}

/** That boards do not go on a sheet, where that is certain; else that no way was found. */
function notLaid(
  designs: readonly PanelDesign[],
  spec: PanelSpec,
  what: string,
): Pick<PanelRefusal, "tag" | "reason"> {
  const sheet = `a sheet of ${spec.maxWidthMm} × ${spec.maxHeightMm} mm`;
  const counts = spec.counts.map((c) => (c === "fill" ? 1 : c));
  if (cannotGo(designs, spec, waysOf(spec), counts))
    return { tag: "count-does-not-fit", reason: `${what} do not go on ${sheet}.` };
  const tried = waysOf(spec).reduce(
    (n, way) => n + candidatesOf(designs, spec, way, leastStraight(spec)).length,
    0,
  );
  return {
    tag: "no-way-found",
    reason: `No way was found to lay ${what} on ${sheet}${tried > 0 ? `: ${counted(tried, "layout")} of boards would go, and none of them can be parted and held` : ", in grids, in rows turned by a quarter, or in each other's corners"}. That there is none is not certain.`,
  };
}

/** Counts of the first design that fit, the nearest to what was asked first. */
function solvableCounts(designs: readonly PanelDesign[], spec: PanelSpec, asked: number | "fill"): number[] {
  if (asked === "fill") return [];
  const has = (n: number) => {
    const s = { ...spec, counts: [n, ...spec.counts.slice(1)] };
    return waysOf(spec).some((w) => {
      const made = bestOf(designs, s, w);
      return made !== undefined && !isRefusal(made);
    });
  };
  if (designs.length === 1) {
    const most = solvePanelFill(designs, spec);
    if (!most) return [];
    return most < asked ? [most] : [];
  }
  for (let n = Math.min(asked - 1, 100); n >= 1; n--) if (has(n)) return [n];
  return [];
}

function solvePanelFill(designs: readonly PanelDesign[], spec: PanelSpec): number | undefined {
  const s = { ...spec, counts: ["fill" as const] };
  const counts = waysOf(spec).flatMap((w) => {
    const made = bestOf(designs, s, w);
    return made && !isRefusal(made) ? [made.counts[0]!] : [];
  });
  return counts.length > 0 ? Math.max(...counts) : undefined;
}

/** The least sheet one board would need. */
function leastSheet(d: PanelDesign, spec: PanelSpec): string {
  const [w, h] = turnedSize(d, 0);
  const rails = spec.rails === "auto" ? 2 : Math.max(0, spec.rails.length);
  const more = rails > 0 ? 2 * (spec.railMm + spec.gapMm) : 0;
  return `One needs ${clean(w)} × ${clean(h + more)} mm.`;
}
