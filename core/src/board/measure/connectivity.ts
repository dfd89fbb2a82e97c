import { type Finding, type FindingTag, few } from "../../findings.ts";
import { distanceWithin } from "../../gerber/solids.ts";
import { addTo } from "../../grouped.ts";
import { NO_CONNECTION, type TestPoint } from "../../netlist/read.ts";
import type { LayerSolids } from "../copper/copper.ts";
import type { Net, Nets } from "../copper/nets.ts";
import type { NetlistCheck } from "../measure-document.ts";

/** A point of a netlist where it lies on the board, mm, and the group of copper it lies on. */
export interface ListedPoint {
  readonly net: string;
  readonly ref: string;
  readonly pin: string;
  readonly x: number;
  readonly y: number;
  readonly group: number;
  /** Sides it can be touched from. */
  readonly side: TestPoint["side"];
}

/** A pad's own middle may lie this far from where a list has it, mm. */
const SAME_PAD_MM = 0.1;

/**
 * The pins a netlist gives to pads whose own files name none: the point nearest to a pad's middle, on its side and its
 * copper. Vias and points without a pin are none.
 *
 * @returns by group, what finds the pin of a pad: `U1.4`
 */
export function pinsListed(
  on: readonly ListedPoint[],
): (group: number, layer: string, x: number, y: number) => string | undefined {
  const byGroup = new Map<number, ListedPoint[]>();
  for (const p of on) if (p.ref !== "" && p.ref !== "VIA" && p.pin !== "") addTo(byGroup, p.group, p);
  return (group, layer, x, y) => {
    let best: ListedPoint | undefined;
    let least = SAME_PAD_MM;
    for (const p of byGroup.get(group) ?? []) {
      const far = Math.hypot(p.x - x, p.y - y);
      if (far > least || (p.side !== "both" && p.side !== layer)) continue;
      [best, least] = [p, far];
    }
    return best && `${best.ref}.${best.pin}`;
  };
}

/** How far a listed point may lie from copper and still be on it, mm. */
const ON_COPPER_MM = 0.05;

/**
 * Compares a netlist with the copper (domain.md 2.9): an extracted net with two listed names is a short, a listed name on
 * two extracted nets an open, a point on no copper is missing. When more than a fifth of the points miss, factors of the
 * unit and one common shift are tried before anything is reported.
 *
 * @returns what the document says of it, and the points that lie on copper
 */
// biome-ignore lint/complexity/noExcessiveLinesPerFunction: one comparison: what the points gather is told at its end
export function checkNetlist(
  points: readonly TestPoint[],
  file: string,
  nets: Nets,
  copper: readonly LayerSolids[],
  findings: Finding[],
): { readonly check: NetlistCheck; readonly on: readonly ListedPoint[] } {
  const listed = new Set(points.filter((p) => p.net !== NO_CONNECTION).map((p) => p.net));
  const result = (agrees: boolean, on: readonly ListedPoint[]) => ({
    check: { nets: listed.size, points: points.length, agrees },
    on,
  });
  const fit = fitting(points, copper, nets);
  if (fit.misses > points.length * 0.2) {
    findings.push({
      tag: "netlist-mismatch",
      level: "warning",
      file,
      text: `${fit.misses} of ${points.length} listed points lie on no copper, in no unit and at no common shift that was tried.`,
      do: "Check that the netlist belongs to this revision and export it again.",
    });
    return result(false, []);
  }
  if (fit.says)
    findings.push({
      tag: "netlist-mismatch",
      level: "remark",
      file,
      text: `The netlist fits the copper only ${fit.says}; it was read so.`,
      do: "Check the origin and unit it is exported with.",
    });
  let isGood = true;
  const say = (finding: Finding) => {
    if (finding.level === "error") isGood = false;
    findings.push(finding);
  };
  const missing: TestPoint[] = [];
  const namesOf = new Map<number, Map<string, TestPoint>>();
  const groupsOf = new Map<string, Map<number, TestPoint[]>>();
  points.forEach((p, i) => {
    const g = fit.groups[i]!;
    if (g < 0) {
      missing.push(p);
      return;
    }
    const name = p.net === NO_CONNECTION ? `${NO_CONNECTION} ${pinOf(p)}` : p.net;
    const names = namesOf.get(g) ?? new Map<string, TestPoint>();
    if (!names.has(name)) names.set(name, p);
    namesOf.set(g, names);
    const groups = groupsOf.get(name) ?? new Map<number, TestPoint[]>();
    const list = groups.get(g);
    if (list) list.push(p);
    else groups.set(g, [p]);
    groupsOf.set(name, groups);
  });
  for (const names of namesOf.values()) {
    if (names.size < 2) continue;
    const [[a, p], [b, q]] = [...names] as [[string, TestPoint], [string, TestPoint]];
    say({
      tag: "net-short",
      level: "error",
      file,
      line: q.line,
      at: { x: fit.x(q), y: fit.y(q) },
      about: [...names.keys()],
      text: `${a} (${pinOf(p)}) and ${b} (${pinOf(q)}) are one piece of copper, the netlist lists them apart${names.size > 2 ? `, with ${names.size - 2} more` : ""}.`,
      do: "Find where they touch; if it is meant (a net tie), accept it with that reason.",
    });
  }
  for (const [name, groups] of groupsOf) {
    if (groups.size < 2) continue;
    const parts = [...groups.values()].sort((a, b) => b.length - a.length);
    const lone = parts.at(-1)!;
    say({
      tag: "net-open",
      level: "error",
      file,
      line: lone[0]!.line,
      at: { x: fit.x(lone[0]!), y: fit.y(lone[0]!) },
      about: [name],
      text: `${name} falls into ${groups.size} pieces that nothing joins: ${parts
        .slice(0, 4)
        .map((l) => few(l.map(pinOf), 5))
        .join(" | ")}.`,
      do: "Look for a missing track, via or drill file.",
    });
  }
  if (missing.length > 0)
    say({
      tag: "netlist-mismatch",
      level: "error",
      file,
      line: missing[0]!.line,
      at: { x: fit.x(missing[0]!), y: fit.y(missing[0]!) },
      about: missing.slice(0, 20).map(pinOf),
      text: `${missing.length} listed ${missing.length === 1 ? "point lies" : "points lie"} on no copper: ${few(missing.map(pinOf), 5)}.`,
      do: "Look whether the pads are missing from the copper, or the netlist is of another revision.",
    });
  return result(
    isGood,
    points.flatMap((p, i) =>
      fit.groups[i]! < 0
        ? []
        : [
            {
              net: p.net,
              ref: p.ref,
              pin: p.pin,
              x: fit.x(p),
              y: fit.y(p),
              group: fit.groups[i]!,
              side: p.side,
            },
          ],
    ),
  );
}

const pinOf = (p: TestPoint) =>
  p.ref === "" || p.ref === "VIA"
    ? `${p.ref || "point"} at ${p.x.toFixed(2)}, ${p.y.toFixed(2)}`
    : p.pin === ""
      ? p.ref
      : `${p.ref}.${p.pin}`;

interface Fit {
  readonly misses: number;
  readonly groups: Int32Array;
  readonly says?: string;
  readonly x: (p: TestPoint) => number;
  readonly y: (p: TestPoint) => number;
}

function fitting(points: readonly TestPoint[], copper: readonly LayerSolids[], nets: Nets): Fit {
  const attempt = (factor: number, dx: number, dy: number, says?: string): Fit => {
    const groups = new Int32Array(points.length).fill(-1);
    let misses = 0;
    points.forEach((p, i) => {
      groups[i] = groupAt(p.x * factor + dx, p.y * factor + dy, p.side, copper, nets);
      if (groups[i]! < 0) misses++;
    });
    return {
      misses,
      groups,
      ...(says ? { says } : {}),
      x: (p) => p.x * factor + dx,
      y: (p) => p.y * factor + dy,
    };
  };
  let best = attempt(1, 0, 0);
  const limit = points.length * 0.2;
  if (best.misses <= limit) return best;
  for (const [factor, says] of [
    [25.4, "in inches instead of millimetres"],
    [1 / 25.4, "in millimetres instead of inches"],
    [10, "ten times larger"],
    [0.1, "ten times smaller"],
    [1 / 2.54, "in micrometres instead of tenths of a mil"],
    [2.54, "in tenths of a mil instead of micrometres"],
  ] as const) {
    const next = attempt(factor, 0, 0, says);
    if (next.misses < best.misses) best = next;
    if (best.misses <= limit) return best;
  }
  const [dx, dy] = commonShift(points, copper);
  const moved = attempt(1, dx, dy, `shifted by ${dx.toFixed(3)}, ${dy.toFixed(3)} mm`);
  return moved.misses < best.misses ? moved : best;
}

/** The shift most points agree on, by votes of point and pad pairs in steps of 0.05 mm. */
function commonShift(points: readonly TestPoint[], copper: readonly LayerSolids[]): [number, number] {
  const votes = new Map<string, number>();
  let best = "0 0";
  const pads = copper.flatMap(({ image }) => {
    const out: [number, number][] = [];
    for (let i = 0; i < image.n && out.length < 400; i++)
      if (image.kind[i] === 4) out.push([image.geo[i * 6]!, image.geo[i * 6 + 1]!]);
    return out;
  });
  for (const p of points.slice(0, 60))
    for (const [x, y] of pads) {
      const key = `${Math.round((x - p.x) * 20)} ${Math.round((y - p.y) * 20)}`;
      const n = (votes.get(key) ?? 0) + 1;
      votes.set(key, n);
      if (n > (votes.get(best) ?? 0)) best = key;
    }
  const [dx, dy] = best.split(" ").map((v) => Number(v) / 20);
  return [dx!, dy!];
}

function groupAt(
  x: number,
  y: number,
  side: TestPoint["side"],
  copper: readonly LayerSolids[],
  nets: Nets,
): number {
  let group = -1;
  for (let i = 0; i < copper.length && group < 0; i++) {
    const l = copper[i]!;
    if (side !== "both" && l.name !== side && !(copper.length === 1)) continue;
    if (side === "both" && l.name.startsWith("inner")) continue;
    let nearest = ON_COPPER_MM;
    l.find(x, y, ON_COPPER_MM, (k) => {
      const d = distanceWithin(l.solids, k, x, y, nearest);
      if (d > nearest || (group >= 0 && d === nearest)) return;
      nearest = d;
      group = nets.groups.find(nets.offsets[i]! + k);
    });
  }
  return group;
}

/**
 * Compares the names the copper's own objects carry with what is connected: one piece of copper with pads of two names is
 * a short, pads of one name on two pieces an open. What a netlist has told already is not told again.
 */
export function checkNames(list: readonly Net[], findings: Finding[]): void {
  const groups = new Map<string, Net[]>();
  const word = (tag: FindingTag, about: readonly string[] | undefined) =>
    `${tag} ${[...(about ?? [])].sort().join(" ")}`;
  const told = new Set(findings.map((f) => word(f.tag, f.about)));
  const say = (f: Finding) => {
    if (!told.has(word(f.tag, f.about))) findings.push(f);
  };
  for (const n of list) {
    const byName = new Map<string, (typeof n.pads)[number]>();
    for (const p of n.pads) if (p.net && p.net !== NO_CONNECTION && !byName.has(p.net)) byName.set(p.net, p);
    if (byName.size > 1) {
      const [[a, p], [b, q]] = [...byName] as [
        [string, (typeof n.pads)[number]],
        [string, (typeof n.pads)[number]],
      ];
      const pin = (x: typeof p) => (x.ref ? ` (${x.ref}${x.pin ? `.${x.pin}` : ""})` : "");
      say({
        tag: "net-short",
        level: "error",
        at: { x: q.x, y: q.y },
        about: [...byName.keys()],
        text: `${a}${pin(p)} and ${b}${pin(q)} are one piece of copper, though the layers name them apart.`,
        do: "Find where they touch; if it is meant (a net tie), accept it with that reason.",
      });
    }
    for (const name of byName.keys()) {
      const found = groups.get(name);
      if (found) found.push(n);
      else groups.set(name, [n]);
    }
  }
  for (const [name, nets] of groups) {
    // vias and copper without a pin may stand alone; pins may not
    const withPins = nets.filter((n) => n.pads.some((p) => p.pin !== undefined && p.net === name));
    if (withPins.length < 2) continue;
    const lone = withPins.reduce((a, b) => (b.pads.length < a.pads.length ? b : a));
    const p = lone.pads.find((x) => x.net === name)!;
    say({
      tag: "net-open",
      level: "error",
      at: { x: p.x, y: p.y },
      about: [name],
      text: `${name} falls into ${withPins.length} pieces that nothing joins; ${p.ref ?? "a pad"}${p.pin ? `.${p.pin}` : ""} stands apart.`,
      do: "Look for a missing track, via or drill file.",
    });
  }
}
