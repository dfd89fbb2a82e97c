import { straightShare } from "../shape/stretch.ts";
import {
  type PanelDesign,
  type PanelSpec,
  type Parting,
  type Separation,
  type SheetSide,
  SIDES,
} from "../spec.ts";
import { type Framed, framed } from "./framed.ts";
import {
  type Field,
  gridFields,
  mixedFields,
  onItsSide,
  outwardFields,
  type Room,
  turnedSide,
} from "./grid.ts";
import { Interlock } from "./interlock.ts";
import { nestedFields } from "./nest.ts";
import { severalFields } from "./several.ts";

/** Share of a side that is straight where a score is taken without being asked for, and where it is possible at all. */
export const STRAIGHT = { auto: 0.98, asked: 0.5 } as const;
/** Share of its box an outline fills below which it is called irregular: its sheet has rails all around. */
const REGULAR = 0.97;
/** Below this thickness a sheet wants rails all around, mm (domain.md 6.3). */
const THIN_MM = 1;

/** True where an outline fills its box but for its corners. */
const isRegular = (d: PanelDesign): boolean =>
  d.areaMm2 >= REGULAR * (d.box[2] - d.box[0]) * (d.box[3] - d.box[1]);

/** A field with the rails it is to have, and how it ranks. */
export interface Candidate {
  readonly framed: Framed;
  readonly kind: "grid" | "turned rows" | "nested" | "outward" | "several";
}

/** Which rails may be tried. */
export function railSets(
  spec: PanelSpec,
  designs: readonly PanelDesign[],
): readonly (readonly SheetSide[])[] {
  if (spec.rails !== "auto") return [spec.rails];
  if (spec.thicknessMm < THIN_MM || designs.length > 1 || designs.some((d) => !isRegular(d))) return [SIDES];
  // a least size is reached by rails on the sides that lack it
  const isLeast = spec.minWidthMm > 0 || spec.minHeightMm > 0;
  return [["top", "bottom"], ["left", "right"], ...(isLeast ? [SIDES] : [])];
}

/** What of the largest sheet is left for boards. */
export function roomOf(spec: PanelSpec, sides: readonly SheetSide[], across: Parting, along: Parting): Room {
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
export const partingsOf = (separation: Separation, { scored }: PanelSpec): (readonly [Parting, Parting])[] =>
  PARTINGS[separation].filter(
    ([across]) => separation !== "mixed" || !scored || (scored === "columns") === (across === "score"),
  );

/** Why a design cannot be scored on the sides that a parting would score; undefined where it can. */
export function notScored(
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
export function candidatesOf(
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
        if (!isRegular(design)) {
          const nested = nestedFields(design, 0, room, count, turns, spec.gapMm);
          add(nested, sides, "nested");
          const most = Math.max(0, ...out.map((c) => c.framed.field.slots.length));
          add(lockedFields(design, room, count, turns, spec.gapMm, most), sides, "nested");
        }
      }
    }
  return out.filter((c) => fits(spec, c.framed)).sort((a, b) => rank(designs, a, b));
}

/**
 * One design by its outlines, board by board: finds what no lattice does, at its price; so only where lattices and grids
 * hold fewer than are asked for, and where the sheet is to be filled as many more as it finds.
 *
 * @param most boards that a field found so far holds
 */
function lockedFields(
  d: PanelDesign,
  room: Room,
  count: number | "fill",
  turns: readonly number[],
  gap: number,
  most: number,
): Field[] {
  const first = count === "fill" ? most + 1 : count;
  if (first <= most || first < 2) return [];
  const lock = new Interlock([d], [turns], gap);
  const isQuarter = turns.every((t) => turns.includes((t + 90) % 360));
  const onSide = { widthMm: room.heightMm, heightMm: room.widthMm };
  let found: Field[] = [];
  for (let n = first; n * d.areaMm2 <= room.widthMm * room.heightMm; n++) {
    const lying = lock.field([n], room);
    const standing = isQuarter ? lock.field([n], onSide) : undefined;
    if (!lying && !standing) break;
    found = [...(lying ? [lying] : []), ...(standing ? [onItsSide(standing, [d])] : [])];
    if (count !== "fill") break;
  }
  return found;
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
