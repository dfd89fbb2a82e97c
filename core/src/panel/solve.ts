import {
  clean,
  type Field,
  gridFields,
  mixedFields,
  onItsSide,
  outwardFields,
  type Room,
  turnedSide,
  turnedSize,
} from "./grid.ts";
import { Interlock } from "./interlock.ts";
import { type Framed, framed, layoutOf } from "./layout.ts";
import { nestedFields } from "./nest.ts";
import { severalFields } from "./several.ts";
import {
  isRefusal,
  type PanelDesign,
  type PanelLayout,
  type PanelRefusal,
  type PanelSpec,
  type Parting,
  type Separation,
  type SheetSide,
  SIDES,
} from "./spec.ts";
import { straightShare } from "./stretch.ts";

/** Share of a side that is straight where a score is taken without being asked for, and where it is possible at all. */
const STRAIGHT = { auto: 0.98, asked: 0.5 } as const;
/** Share of its box an outline fills below which it is called irregular: its sheet has rails all around. */
const REGULAR = 0.97;
/** Sheets worked out whole, of the best fields, before the search gives up. */
const MOST_TRIED = 12;
/** Below this thickness a sheet wants rails all around, mm (domain.md 6.3). */
const THIN_MM = 1;

/** True where an outline fills its box but for its corners. */
export const isRegular = (d: PanelDesign): boolean =>
  d.areaMm2 >= REGULAR * (d.box[2] - d.box[0]) * (d.box[3] - d.box[1]);

/** A field with the rails it is to have, and how it ranks. */
interface Candidate {
  readonly framed: Framed;
  readonly kind: "grid" | "turned rows" | "nested" | "outward" | "several";
}

/** Which rails may be tried. */
function railSets(spec: PanelSpec, designs: readonly PanelDesign[]): readonly (readonly SheetSide[])[] {
  if (spec.rails !== "auto") return [spec.rails];
  if (spec.thicknessMm < THIN_MM || designs.length > 1 || designs.some((d) => !isRegular(d))) return [SIDES];
  // a least size is reached by rails on the sides that lack it
  const isLeast = spec.minWidthMm > 0 || spec.minHeightMm > 0;
  return [["top", "bottom"], ["left", "right"], ...(isLeast ? [SIDES] : [])];
}

/** What of the largest sheet is left for boards. */
function roomOf(spec: PanelSpec, sides: readonly SheetSide[], across: Parting, along: Parting): Room {
  const n = (a: SheetSide, b: SheetSide) => Number(sides.includes(a)) + Number(sides.includes(b));
  const rail = (p: Parting) => spec.railMm + (p === "tabs" ? spec.gapMm : 0);
  return {
    widthMm: spec.maxWidthMm - n("left", "right") * rail(across),
    heightMm: spec.maxHeightMm - n("top", "bottom") * rail(along),
  };
}

const PARTINGS: Readonly<Record<Separation, readonly (readonly [Parting, Parting])[]>> = {
  score: [["score", "score"]],
  tabs: [["tabs", "tabs"]],
  mixed: [
    ["score", "tabs"],
    ["tabs", "score"],
  ],
};

/** Ways columns and rows may be parted; where mixed, those that are asked for. */
const partingsOf = (separation: Separation, { scored }: PanelSpec): (readonly [Parting, Parting])[] =>
  PARTINGS[separation].filter(
    ([across]) => separation !== "mixed" || !scored || (scored === "columns") === (across === "score"),
  );

/** Why a design cannot be scored on the sides that a parting would score; undefined where it can. */
function notScored(
  d: PanelDesign,
  turns: readonly number[],
  [across, along]: readonly [Parting, Parting],
  least: number,
): string | undefined {
  const upright = turns.some((t) => t % 180 === 0);
  for (const [parting, pair] of [
    [across, upright ? (["left", "right"] as const) : (["top", "bottom"] as const)],
    [along, upright ? (["top", "bottom"] as const) : (["left", "right"] as const)],
  ] as const) {
    if (parting !== "score") continue;
    for (const side of pair)
      if (straightShare(d, side) < least)
        return `the ${side} edge of ${d.name} is not straight enough to be scored`;
  }
  return undefined;
}

/** All fields of a way to part, the best first. */
function candidatesOf(
  designs: readonly PanelDesign[],
  spec: PanelSpec,
  separation: Separation,
  least: number,
): Candidate[] {
  const out: Candidate[] = [];
  const add = (fields: readonly Field[], sides: readonly SheetSide[], kind: Candidate["kind"]) => {
    for (const f of fields) out.push({ framed: framed(spec, f, sides), kind });
  };
  const [design] = designs;
  for (const sides of railSets(spec, designs))
    for (const [across, along] of partingsOf(separation, spec)) {
      const room = roomOf(spec, sides, across, along);
      if (designs.length > 1 || !design) {
        if (across === "tabs" && along === "tabs")
          add(severalBothWays(designs, room, spec), sides, "several");
        continue;
      }
      const count = spec.counts[0]!;
      const turns = spec.turns[0]!;
      const quarter = turns.filter((t) => t % 90 === 0);
      // which sides are scored depends on how the board lies
      const scorable = turns.filter((t) => !notScored(design, [t], [across, along], least));
      const used = across === "tabs" && along === "tabs" ? turns : scorable.filter((t) => t % 90 === 0);
      if (design.outward.length > 0) {
        if (across !== along) continue;
        for (const f of outwardFields(
          design,
          0,
          roomOf(spec, [], across, along),
          count,
          quarter,
          across,
          spec.gapMm,
        )) {
          const facing = f.slots.map((s) => turnedSide(design.outward[0]!, s.turnDeg));
          const free = SIDES.filter((s) => !facing.includes(s));
          const wanted = spec.rails === "auto" ? free : spec.rails.filter((s) => free.includes(s));
          const fr = framed(spec, f, facing.length > 1 || spec.rails !== "auto" ? wanted : free);
          if (fits(spec, fr)) out.push({ framed: fr, kind: "outward" });
        }
      }
      add(gridFields(design, 0, room, count, once(used), [[across, along]], spec.gapMm), sides, "grid");
      if (across === "tabs" && along === "tabs") {
        add(mixedFields(design, 0, room, count, quarter, spec.gapMm), sides, "turned rows");
        if (!isRegular(design)) add(nestedFields(design, 0, room, count, turns, spec.gapMm), sides, "nested");
      }
    }
  return out.filter((c) => fits(spec, c.framed)).sort((a, b) => rank(designs, a, b));
}

/** Several designs in a room, and in the room on its side where they may lie so. */
function severalBothWays(designs: readonly PanelDesign[], room: Room, spec: PanelSpec): Field[] {
  const fields = severalIn(designs, room, spec);
  const isQuarter = spec.turns.every((t) => t.every((u) => t.includes((u + 90) % 360)));
  if (!isQuarter) return fields;
  const onSide = { widthMm: room.heightMm, heightMm: room.widthMm };
  return [...fields, ...severalIn(designs, onSide, spec).map((f) => onItsSide(f, designs))];
}

/** By their boxes; where an outline leaves its box, by the outlines too, as wide as the room and as the best of those. */
function severalIn(designs: readonly PanelDesign[], room: Room, spec: PanelSpec): Field[] {
  const fields = severalFields(designs, room, spec.counts, spec.turns, spec.gapMm);
  const counts = spec.counts.filter((c) => c !== "fill");
  if (counts.length < spec.counts.length || designs.every(isRegular)) return fields;
  const lock = new Interlock(designs, spec.turns, spec.gapMm);
  const widths = new Set([room.widthMm, ...fields.map((f) => f.widthMm)]);
  return [...fields, ...[...widths].flatMap((widthMm) => lock.field(counts, { ...room, widthMm }) ?? [])];
}

/** Half a turn makes no other grid. */
const once = (turns: readonly number[]): readonly number[] => {
  const seen = new Set<number>();
  return turns.filter((t) => {
    const half = ((t % 180) + 180) % 180;
    if (seen.has(half)) return false;
    seen.add(half);
    return true;
  });
};

const fits = (spec: PanelSpec, f: Framed) =>
  f.widthMm <= spec.maxWidthMm + 1e-6 &&
  f.heightMm <= spec.maxHeightMm + 1e-6 &&
  f.widthMm >= spec.minWidthMm - 1e-6 &&
  f.heightMm >= spec.minHeightMm - 1e-6;

/** Rails on the short sides count as so much more sheet: a machine grips the long ones (domain.md 6.3). */
const SHORT_RAILS = 1.5;

/** Contacts outward, more boards, less sheet with rails on the long sides, squarer, fewer turned (domain.md 6.3, 6.4). */
function rank(designs: readonly PanelDesign[], a: Candidate, b: Candidate): number {
  const n = (c: Candidate) => c.framed.field.slots.length;
  const area = (c: Candidate) => c.framed.widthMm * c.framed.heightMm;
  const outward = (c: Candidate) =>
    Number(c.kind === "outward") * Number(designs.some((d) => d.outward.length > 0));
  const long = (c: Candidate) => {
    const { rails, widthMm, heightMm } = c.framed;
    return rails.top > 0 && rails.left === 0
      ? Number(widthMm >= heightMm)
      : rails.left > 0 && rails.top === 0
        ? Number(heightMm >= widthMm)
        : 1;
  };
  const weighed = (c: Candidate) => area(c) * (long(c) === 1 ? 1 : SHORT_RAILS);
  const square = (c: Candidate) =>
    Math.max(c.framed.widthMm, c.framed.heightMm) / Math.min(c.framed.widthMm, c.framed.heightMm);
  const turned = (c: Candidate) => c.framed.field.slots.filter((s) => s.turnDeg !== 0).length;
  return (
    outward(b) - outward(a) ||
    n(b) - n(a) ||
    Math.round((weighed(a) - weighed(b)) * 1e3) / 1e3 ||
    Math.round((square(a) - square(b)) * 1e6) / 1e6 ||
    turned(a) - turned(b)
  );
}

/** The best sheet of one way to part, or why there is none. */
function bestOf(
  designs: readonly PanelDesign[],
  spec: PanelSpec,
  separation: Separation,
  least: number,
): PanelLayout | PanelRefusal | undefined {
  let first: PanelRefusal | undefined;
  let tried = 0;
  for (const c of candidatesOf(designs, spec, separation, least)) {
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
  const ways: readonly Separation[] =
    spec.separation === "auto" ? ["score", "mixed", "tabs"] : [spec.separation];
  const least = spec.separation === "auto" ? STRAIGHT.auto : STRAIGHT.asked;
  let refused: PanelRefusal | undefined;
  for (const way of ways) {
    const made = bestOf(designs, spec, way, least);
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
  const ways: readonly Separation[] =
    spec.separation === "auto" ? ["score", "mixed", "tabs"] : [spec.separation];
  const least = spec.separation === "auto" ? STRAIGHT.auto : STRAIGHT.asked;
  for (const way of ways) {
    const [best] = candidatesOf(designs, { ...spec, counts: ["fill"] }, way, least);
    if (best) return best.framed.field.slots.length;
  }
  return 0;
}

function unfitTogether(designs: readonly PanelDesign[], spec: PanelSpec): PanelRefusal | undefined {
  const [first] = designs;
  if (!first) return { tag: "nothing", reason: "No board is named.", nearest: [] };
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
  const least = (Object.keys(PARTINGS) as Separation[]).filter(
    (w) => spec.separation === "auto" || w === spec.separation,
  );
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
        tag: "count-does-not-fit",
        reason: `${asked} of ${d.name} do not go on a sheet of ${spec.maxWidthMm} × ${spec.maxHeightMm} mm.`,
        nearest: found,
        do: `${found[0]} do.`,
      };
    const why = least
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
    tag: "count-does-not-fit",
    reason: `${spec.counts.map((c, i) => `${c} of ${designs[i]!.name}`).join(" and ")} do not go on a sheet of ${spec.maxWidthMm} × ${spec.maxHeightMm} mm.`,
    nearest,
    ...(nearest.length > 0
      ? { do: `${nearest[0]} of ${d.name} beside the others do.` }
      : { do: "Take a larger sheet, or fewer of each." }),
  };
}

/** Counts of the first design that fit, the nearest to what was asked first. */
function solvableCounts(designs: readonly PanelDesign[], spec: PanelSpec, asked: number | "fill"): number[] {
  if (asked === "fill") return [];
  const has = (n: number) => {
    const s = { ...spec, counts: [n, ...spec.counts.slice(1)] };
    const ways: readonly Separation[] =
      spec.separation === "auto" ? ["tabs", "score", "mixed"] : [spec.separation];
    return ways.some((w) => {
      const made = bestOf(designs, s, w, spec.separation === "auto" ? STRAIGHT.auto : STRAIGHT.asked);
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
  const ways: readonly Separation[] =
    spec.separation === "auto" ? ["score", "tabs", "mixed"] : [spec.separation];
  const counts = ways.flatMap((w) => {
    const made = bestOf(designs, s, w, spec.separation === "auto" ? STRAIGHT.auto : STRAIGHT.asked);
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
