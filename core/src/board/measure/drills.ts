import { counted } from "../../counted.ts";
import type { Finding } from "../../findings.ts";
import { insideRings } from "../../geometry/polygon.ts";
import type { Attempts } from "../attempts.ts";
import type { BoardFile } from "../board-file.ts";
import { cutoutRings, edgeRings, type LayerSolids } from "../copper/copper.ts";
import { addHoleToHole, type Body, nearBody, passes, ringAround, ringDistance } from "../copper/holes.ts";
import type { Nets } from "../copper/nets.ts";
import type { Hole, Measure, Slot } from "../measure-document.ts";
import type { Outline } from "../outline/outline.ts";
import { Worst } from "../worst.ts";

interface Input {
  readonly drills: readonly BoardFile[];
  readonly holes: readonly Hole[];
  readonly slots: readonly Slot[];
  readonly bodies: readonly Body[];
  readonly copper: readonly LayerSolids[];
  readonly outline: Outline | undefined;
  readonly nets: Nets;
  readonly isOpen: (x: number, y: number) => boolean;
  readonly attempts: Attempts;
}

/** Everything measured about holes and slots. */
export interface Drilled {
  readonly keys: Record<string, unknown>;
  readonly throughHolePads: number;
  readonly viaPads: number;
  readonly leastPlated?: number;
  readonly castellated?: NonNullable<Measure["castellatedHoles"]>;
}

/** How far copper is looked for around holes, mm, each farther only where nearer there is none. */
const COPPER_REACHES_MM = [1, 5, 25];

/** Rings, distances from hole walls to copper, to each other and to the edge, half holes, pads with a hole. */
export function measureDrills(d: Input, findings: Finding[]): Drilled {
  const { holes, copper, outline } = d;
  if (d.drills.length === 0 && copper.length > 1)
    findings.push({
      tag: "drill-missing",
      level: "warning",
      text: "No drill file came with the copper.",
      do: "Export the drill file and drop it here.",
    });
  const [hole, annular, foreign, npth, slotCopper] = Array.from({ length: 5 }, () => new Worst()) as [
    Worst,
    Worst,
    Worst,
    Worst,
    Worst,
  ];
  for (const h of holes) hole.add(h.diameterMm, "drill", h.x, h.y);
  const ring = outline?.isClosed ? edgeRings(outline) : [];
  const inner = outline?.isClosed ? cutoutRings(outline) : [];
  const castellated = d.attempts.needed("The search for holes on the board's edge", (work) =>
    holes.filter((h) => {
      for (const r of ring) work.spend(r.length);
      return h.plated && ring.some((r) => ringDistance(r, h.x, h.y) <= h.diameterMm / 2);
    }),
  );
  const isCastellated = new Set(castellated);
  if (ring.length > 0) checkOutside(holes, isCastellated, ring, inner, findings);
  sayCastellated(castellated, findings);
  const toEdge = edgeDistances(d, isCastellated, [...ring, ...inner]);
  const { through, vias } = measureRings(d, isCastellated, annular, findings);
  measureAround(d, foreign, () => true);
  measureAround(d, npth, (b) => !b.plated && b.isRound);
  measureAround(d, slotCopper, (b) => !b.plated && !b.isRound);
  const apart = betweenHoles(d, findings);
  const leastPlated = holes.reduce(
    (m, h) => (h.plated ? Math.min(m, h.diameterMm) : m),
    Number.POSITIVE_INFINITY,
  );
  return {
    keys: {
      ...hole.keys("minHole"),
      ...annular.keys("minAnnular"),
      ...foreign.keys("minDrillToForeignCopper"),
      ...npth.keys("minNpthToCopper"),
      ...slotCopper.keys("minCopperToSlot"),
      ...apart?.keys("minHoleToHole"),
      ...toEdge?.keys("minHoleToEdge"),
    },
    throughHolePads: through,
    viaPads: vias,
    ...(Number.isFinite(leastPlated) ? { leastPlated } : {}),
    ...(castellated.length > 0
      ? {
          castellated: {
            count: castellated.length,
            diameterMm: Math.round(castellated[0]!.diameterMm * 1e6) / 1e6,
            edge: edgeOf(castellated, outline!.box!),
            at: { layer: "drill", x: castellated[0]!.x, y: castellated[0]!.y },
          },
        }
      : {}),
  };
}

function sayCastellated(castellated: readonly Hole[], findings: Finding[]): void {
  if (castellated.length > 0)
    findings.push({
      tag: "castellated-holes",
      level: "warning",
      at: { x: castellated[0]!.x, y: castellated[0]!.y },
      text: `${castellated.length} plated holes lie on the board's edge and will be cut in half.`,
      do: "Order the option for half holes on the edge, if the house has it.",
    });
}

/** Least distances from a hole's wall to the edges; nothing where that was given up. */
function edgeDistances(
  d: Input,
  isCastellated: ReadonlySet<Hole>,
  rings: readonly (readonly number[])[],
): Worst | undefined {
  return d.attempts.optional(
    "Comparing the holes with the board's edge",
    "The least distance from a hole to it is",
    (work) => {
      const near = new Worst();
      for (const h of d.holes)
        if (!isCastellated.has(h))
          for (const r of rings) {
            work.spend(r.length);
            const mm = ringDistance(r, h.x, h.y) - h.diameterMm / 2;
            if (mm < near.limit) near.add(Math.max(0, mm), "drill", h.x, h.y);
          }
      return near;
    },
  );
}

/** Copper left around plated holes, and what kind of pad each has; holes that meet none are said. */
function measureRings(
  d: Input,
  isCastellated: ReadonlySet<Hole>,
  annular: Worst,
  findings: Finding[],
): { through: number; vias: number } {
  const { holes, copper } = d;
  let [missed, through, vias] = [0, 0, 0];
  for (const h of holes) {
    if (!h.plated) continue;
    let meets = false;
    let fn: string | undefined;
    copper.forEach((layer, i) => {
      if (!passes(h, i)) return;
      const around = ringAround(layer, h.x, h.y, h.diameterMm / 2);
      if (!around) return;
      meets = true;
      const a = layer.image.aperture[layer.solids.object[around.piece]!]!;
      fn ??= a >= 0 ? layer.image.apertures[a]?.function?.[0] : undefined;
      if (!isCastellated.has(h)) annular.add(around.mm, layer.name, h.x, h.y);
    });
    if (!meets) missed++;
    else if (fn === "ViaPad" || (fn !== "ComponentPad" && !d.isOpen(h.x, h.y))) vias++;
    else through++;
  }
  if (missed > 0 && copper.length > 0)
    findings.push({
      tag: "drill-misaligned",
      level: missed > holes.length * 0.2 ? "error" : "warning",
      text: `${missed} of ${holes.length} plated holes meet no copper.`,
      do: "Check that drills and copper share origin and unit.",
    });
  return { through, vias };
}

/** Adds the distances from holes' walls to copper that is not their own, farther only where nearer there is none. */
function measureAround({ bodies, copper, nets }: Input, worst: Worst, isMeant: (b: Body) => boolean): void {
  for (const reach of COPPER_REACHES_MM) {
    bodies.forEach((b, n) => {
      if (!isMeant(b)) return;
      copper.forEach((layer, i) => {
        if (!passes(b, i)) return;
        nearBody(layer, b, reach, (k, mm, x, y) => {
          const isOwn = b.plated
            ? nets.groups.find(nets.offsets[i]! + k) === nets.ofBody[n]
            : // copper an unplated hole cuts is its own pad or a mistake of another kind, not a distance
              mm <= 0;
          if (!isOwn) worst.add(mm, layer.name, x, y);
        });
      });
    });
    if (worst.least !== undefined) return;
  }
}

/** Least distances between holes; those drilled twice are said. */
function betweenHoles(d: Input, findings: Finding[]): Worst | undefined {
  const between = d.attempts.optional(
    "Comparing the holes with each other",
    "The least distance between them is",
    (work) => {
      const apart = new Worst();
      return { apart, ...addHoleToHole(apart, d.bodies, work) };
    },
  );
  const doubled = between?.doubled ?? [];
  if (doubled.length > 0)
    findings.push({
      tag: "hole-doubled",
      level: "remark",
      at: { layer: "drill", x: doubled[0]!.points[0]![0], y: doubled[0]!.points[0]![1] },
      text: `${counted(doubled.length, "hole is", "holes are")} drilled twice at the same place.`,
      do: "A house drills them once; look whether two drill files hold the same holes.",
    });
  return between?.apart;
}

function checkOutside(
  holes: readonly Hole[],
  isCastellated: ReadonlySet<Hole>,
  ring: readonly (readonly number[])[],
  inner: readonly (readonly number[])[],
  findings: Finding[],
): void {
  const outside = holes.filter(
    (h) => !isCastellated.has(h) && (!insideRings(ring, h.x, h.y) || insideRings(inner, h.x, h.y)),
  );
  if (outside.length > 0)
    findings.push({
      tag: "hole-outside-board",
      level: "warning",
      at: { x: outside[0]!.x, y: outside[0]!.y },
      text: `${outside.length} ${outside.length === 1 ? "hole lies" : "holes lie"} outside the outline.`,
      do: "Check that drills and layers share one origin.",
    });
}

/** The side of the board's box that the holes lie nearest to, all together. */
function edgeOf(holes: readonly Hole[], [x0, y0, x1, y1]: readonly [number, number, number, number]) {
  const sum = (f: (h: Hole) => number) => holes.reduce((s, h) => s + f(h), 0);
  const sides = [
    ["left", sum((h) => Math.abs(h.x - x0))],
    ["right", sum((h) => Math.abs(x1 - h.x))],
    ["bottom", sum((h) => Math.abs(h.y - y0))],
    ["top", sum((h) => Math.abs(y1 - h.y))],
  ] as const;
  return sides.reduce((a, b) => (b[1] < a[1] ? b : a))[0];
}
