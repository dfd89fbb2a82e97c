import { clipAreas, shrinkAreas } from "../../geometry/clip.ts";
import { orGivenUp } from "../../geometry/work.ts";
import { ringsOfSolid, type Solids, solidCovers, solidsOf } from "../../gerber/solids.ts";
import type { BoardFile, BoardSet } from "../board-file.ts";
import { analyseLayer } from "../copper/copper.ts";
import { finderOf } from "../copper/finder.ts";
import { openingsOf } from "../copper/paste.ts";
import type { BoardDiff, DiffPlace, MorePlaces, StencilVerdict } from "../diff-document.ts";
import { layerName } from "../measure/measure-keys.ts";
import { ringBox } from "../outline/outline-loops.ts";
import { drillPlaces } from "./diff-drills.ts";
import { type RawPlace, together } from "./diff-places.ts";
import { commonShift, NOISE_MM, type Shift } from "./diff-shift.ts";
import { bareOf, compareOpenings } from "./diff-stencil.ts";

/**
 * This board against another, layer by layer: a layer is changed where the symmetric difference of its painted areas is
 * wider than 5 µm. Boards drawn about another origin are laid on each other first. A stencil can be used again where every
 * opening has one of its size at its place (domain.md 2.11), with none too many; what else would serve is told beside.
 */
export function diffBoards(now: BoardSet, other: BoardSet): BoardDiff {
  const [a, b] = [byKey(now), byKey(other)];
  const shift = commonShift(now, other);
  const changed: string[] = [];
  const unchanged: string[] = [];
  const places: Record<string, readonly DiffPlace[]> = {};
  const more: Record<string, MorePlaces> = {};
  const keep = (key: string, raw: readonly RawPlace[]) => {
    const found = together(raw);
    places[key] = found.places;
    if (found.more) more[key] = found.more;
    else delete more[key];
  };
  const stencil: Record<string, StencilVerdict> = {};
  const stencilReusable: Record<string, boolean> = {};
  for (const key of [...new Set([...a.keys(), ...b.keys()])].sort()) {
    const [f, g] = [a.get(key), b.get(key)];
    // what is too much to be compared is not called the same
    const found = f && g ? orGivenUp(() => differencesOf(f, g, shift), GIVEN_UP) : undefined;
    (found?.length === 0 ? unchanged : changed).push(key);
    if (found && found !== TOO_MUCH && found.length > 0) keep(key, found);
  }
  for (const side of ["top", "bottom"]) {
    const [f, g] = [a.get(`paste-${side}`), b.get(`paste-${side}`)];
    if (!f?.layer || f.layer.n === 0) continue;
    const opened = g?.layer
      ? orGivenUp(
          () => openingsAgainst(f, g, a.get(`mask-${side}`), shift),
          () => undefined,
        )
      : undefined;
    stencilReusable[side] = opened?.verdict.says === "reuse";
    if (!opened) continue;
    stencil[side] = opened.verdict;
    // openings are told as what became of each, not as slivers of areas
    if (opened.places.length > 0 && changed.includes(`paste-${side}`)) keep(`paste-${side}`, opened.places);
  }
  return {
    changed,
    unchanged,
    stencilReusable,
    stencil,
    places,
    ...(Object.keys(more).length > 0 ? { more } : {}),
    shift,
  };
}

const TOO_MUCH: readonly RawPlace[] = [{ box: [0, 0, 0, 0], kind: "changed" }];
const GIVEN_UP = () => TOO_MUCH;

const differencesOf = (f: BoardFile, g: BoardFile, shift: Shift): readonly RawPlace[] =>
  f.drill && g.drill
    ? drillPlaces(f.drill, g.drill, shift)
    : layerPlaces(solidsOf(f.layer!), solidsOf(g.layer!), shift);

function openingsAgainst(f: BoardFile, g: BoardFile, mask: BoardFile | undefined, shift: Shift) {
  const openings = (x: BoardFile) => openingsOf(analyseLayer(x.layer!, "paste"));
  return compareOpenings(
    openings(f),
    openings(g),
    shift,
    bareOf(mask?.layer ? analyseLayer(mask.layer, "mask") : undefined),
  );
}

/** Files by what they are on the board: "copper-top", "copper-inner-1", "mask-bottom", "profile", "drill-plated". */
function byKey(set: BoardSet): Map<string, BoardFile> {
  const out = new Map<string, BoardFile>();
  for (const f of set.files) {
    let key: string | undefined;
    if (f.role === "profile" && f.layer) key = "profile";
    else if (f.role === "drill" && f.drill)
      key = f.plated === true ? "drill-plated" : f.plated === false ? "drill-unplated" : "drill";
    else if (f.layer && ["copper", "mask", "legend", "paste"].includes(f.role))
      key = `${f.role}-${layerName(f).replace(" ", "-")}`;
    if (key && !out.has(key)) out.set(key, f);
  }
  return out;
}

function rings(s: Solids, pieces: Iterable<number>, [dx, dy]: Shift): number[][] {
  const out: number[][] = [];
  for (const k of pieces)
    for (const ring of ringsOfSolid(s, k)) out.push(ring.map((v, i) => v + (i % 2 === 0 ? dx : dy)));
  return out;
}

/** One word per piece, so that equal ones are told apart from others without any geometry. */
function wordOf(s: Solids, k: number, [dx, dy]: Shift): string {
  const r = (v: number) => Math.round(v * 1000);
  const parts: number[] = [r(s.radius[k]!)];
  for (let i = s.firstEdge[k]! * 4; i < s.firstEdge[k + 1]! * 4; i += 2)
    parts.push(r(s.edges[i]! + dx), r(s.edges[i + 1]! + dy));
  return parts.join(" ");
}

/**
 * Places where the painted areas of two layers differ by more than noise, each with whether something came or went.
 *
 * Pieces both have are left out of the clipping, with all that touch nothing but such: where only a few differ, only what
 * lies about them is clipped.
 */
function layerPlaces(s: Solids, t: Solids, shift: Shift): RawPlace[] {
  const [u, v] = [odd(s, [0, 0], t, shift), odd(t, shift, s, [0, 0])];
  if (u.length === 0 && v.length === 0) return [];
  const near =
    u.length + v.length > MOST_ODD
      ? {
          s: s.firstEdge.subarray(0, s.count).map((_, k) => k),
          t: t.firstEdge.subarray(0, t.count).map((_, k) => k),
        }
      : nearOf(s, [0, 0], t, shift, u, v);
  const left = shrinkAreas(clipAreas("xor", rings(s, near.s, [0, 0]), rings(t, near.t, shift)), NOISE_MM / 2);
  const findNow = finderOf(s);
  return left.map(([ring]): RawPlace => {
    // a corner of what is left after shrinking lies inside it: painted on one of the two only
    let isNow = false;
    findNow(ring![0]!, ring![1]!, 0, (k) => {
      isNow = solidCovers(s, k, ring![0]!, ring![1]!);
      return isNow;
    });
    return { box: ringBox(ring!), kind: isNow ? "added" : "gone" };
  });
}

/** Above this many odd pieces what lies about them is not looked for: all is clipped, which knows its own bounds. */
const MOST_ODD = 2000;

/** Pieces of one layer that the other has not alike. */
function odd(s: Solids, shift: Shift, t: Solids, other: Shift): number[] {
  const known = new Set<string>();
  for (let k = 0; k < t.count; k++) known.add(wordOf(t, k, other));
  const out: number[] = [];
  for (let k = 0; k < s.count; k++) if (!known.has(wordOf(s, k, shift))) out.push(k);
  return out;
}

/** The odd pieces of both and every piece whose box meets one of theirs: all that decides what is painted there. */
function nearOf(
  s: Solids,
  shiftS: Shift,
  t: Solids,
  shiftT: Shift,
  oddS: readonly number[],
  oddT: readonly number[],
): { readonly s: readonly number[]; readonly t: readonly number[] } {
  const boxes = [...oddS.map((k) => boxOf(s, k, shiftS)), ...oddT.map((k) => boxOf(t, k, shiftT))];
  const meeting = (x: Solids, [dx, dy]: Shift) => {
    const find = finderOf(x);
    const met = new Set<number>();
    for (const [x0, y0, x1, y1] of boxes) {
      const [cx, cy] = [(x0 + x1) / 2 - dx, (y0 + y1) / 2 - dy];
      const reach = Math.max(x1 - x0, y1 - y0) / 2;
      find(cx, cy, reach, (k) => {
        met.add(k);
        return false;
      });
    }
    return [...met].sort((p, q) => p - q);
  };
  return { s: meeting(s, shiftS), t: meeting(t, shiftT) };
}

const boxOf = (s: Solids, k: number, [dx, dy]: Shift): [number, number, number, number] => [
  s.box[k * 4]! + dx,
  s.box[k * 4 + 1]! + dy,
  s.box[k * 4 + 2]! + dx,
  s.box[k * 4 + 3]! + dy,
];
