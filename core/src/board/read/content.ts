import type { Finding } from "../../findings.ts";
import { KIND, type LayerImage } from "../../gerber/image.ts";
import type { BoardFile } from "../board-file.ts";
import { words } from "./guess.ts";

/** Spots of two layers this near are over each other, mm. */
const SAME_MM = 0.06;
/** Fewer spots tell nothing. */
const FEW = 4;
/** A layer of more objects is not held against others: half of its spots would look like another layer's. */
const MOST_OBJECTS = 300_000;

interface Spot {
  readonly x: number;
  readonly y: number;
  readonly mm2: number;
}

/** Flashes and filled areas of a layer by their middles. */
function spotsOf(image: LayerImage): Spot[] {
  const out: Spot[] = [];
  const { geo: g, points } = image;
  for (let i = 0; i < image.n; i++) {
    if (image.dark[i] === 0) continue;
    const o = i * 6;
    if (image.kind[i] === KIND.flash) {
      const b = image.apertures[image.aperture[i]!]!.box;
      out.push({ x: g[o]!, y: g[o + 1]!, mm2: (b[2] - b[0]) * (b[3] - b[1]) });
    } else if (image.kind[i] === KIND.region) {
      let [x0, y0, x1, y1] = [1e9, 1e9, -1e9, -1e9];
      for (let k = g[o]! * 2; k < g[o + 1]! * 2; k += 2) {
        x0 = Math.min(x0, points[k]!);
        x1 = Math.max(x1, points[k]!);
        y0 = Math.min(y0, points[k + 1]!);
        y1 = Math.max(y1, points[k + 1]!);
      }
      out.push({ x: (x0 + x1) / 2, y: (y0 + y1) / 2, mm2: (x1 - x0) * (y1 - y0) });
    }
  }
  return out;
}

/** For each spot the one of another layer over it, if any. */
function over(spots: readonly Spot[], others: readonly Spot[]): (Spot | undefined)[] {
  const cell = 2 * SAME_MM;
  const grid = new Map<string, Spot[]>();
  for (const s of others) {
    const key = `${Math.floor(s.x / cell)} ${Math.floor(s.y / cell)}`;
    const list = grid.get(key);
    if (list) list.push(s);
    else grid.set(key, [s]);
  }
  return spots.map((s) => {
    const [cx, cy] = [Math.floor(s.x / cell), Math.floor(s.y / cell)];
    for (let a = cx - 1; a <= cx + 1; a++)
      for (let b = cy - 1; b <= cy + 1; b++)
        for (const o of grid.get(`${a} ${b}`) ?? [])
          if (Math.hypot(o.x - s.x, o.y - s.y) <= SAME_MM) return o;
    return undefined;
  });
}

const share = (list: readonly unknown[]) =>
  list.length === 0 ? 0 : list.filter((x) => x !== undefined).length / list.length;

/** True where nobody but the file's name gave it its role. */
const isByName = (f: BoardFile) => f.because === "name";

/**
 * Holds the roles of masks and stencils that only names gave against what is in them: paste lies within the mask's
 * openings, never the other way round, and both lie over the pads of their own side. Where the content says otherwise it
 * counts, and that is said; where it cannot tell which of two names is wrong, it asks.
 */
export function heldAgainstContent(files: readonly BoardFile[], findings: Finding[]): BoardFile[] {
  if (files.some((f) => (f.layer?.n ?? 0) > MOST_OBJECTS)) return [...files];
  const spots = new Map<BoardFile, Spot[]>();
  const of = (f: BoardFile) => {
    const known = spots.get(f) ?? spotsOf(f.layer!);
    spots.set(f, known);
    return known;
  };
  const out = [...files];
  const find = (role: string, side: string) =>
    out.find((f) => f.role === role && f.side === side && f.layer && f.layer.n > 0);
  for (const side of ["top", "bottom"] as const) {
    const [mask, paste] = [find("mask", side), find("paste", side)];
    if (!mask || !paste || !isByName(mask) || !isByName(paste)) continue;
    const [m, p] = [of(mask), of(paste)];
    if (m.length < FEW || p.length < FEW) continue;
    const [overMask, overPaste] = [over(p, m), over(m, p)];
    // all of one within the other tells nothing alone: a mask may lack an opening. It has to be the smaller one too, or
    // of one size and only over some of what the other opens
    const ratios = m
      .flatMap((s, i) => (overPaste[i] ? [overPaste[i].mm2 / s.mm2] : []))
      .sort((a, b) => a - b);
    const ratio = ratios[ratios.length >> 1] ?? 0;
    const isWithin = share(overPaste) > 0.95 && (ratio > 1.02 || (ratio > 0.98 && share(overMask) < 0.7));
    if (!isWithin) continue;
    const swap = (f: BoardFile, role: "mask" | "paste"): BoardFile => ({
      ...f,
      role,
      because: "content",
      reason: `its openings ${role === "mask" ? "hold all of the paste's" : "lie within the mask's"}`,
    });
    out[out.indexOf(mask)] = swap(mask, "paste");
    out[out.indexOf(paste)] = swap(paste, "mask");
    findings.push({
      tag: "role-contradiction",
      level: "warning",
      file: mask.path,
      text: `${mask.path} is named as the ${words(mask)} and ${paste.path} as the ${words(paste)}, but the openings of the first lie within those of the second: they were taken the other way round.`,
      do: "Look at both on the picture; set their roles if the names are right.",
    });
  }
  return sidesByPads(out, of, findings);
}

/** Masks and stencils over the pads of the side they name. */
function sidesByPads(
  files: readonly BoardFile[],
  spotsIn: (f: BoardFile) => readonly Spot[],
  findings: Finding[],
): BoardFile[] {
  const pads = (side: string) => files.find((f) => f.role === "copper" && f.side === side && f.layer);
  const [top, bottom] = [pads("top"), pads("bottom")];
  if (!top || !bottom) return [...files];
  const crossed = new Set<BoardFile>();
  const straight = new Set<BoardFile>();
  for (const f of files) {
    if (!["mask", "paste"].includes(f.role) || !f.layer || (f.side !== "top" && f.side !== "bottom"))
      continue;
    const own = spotsIn(f);
    if (own.length < FEW) continue;
    const [here, there] = (f.side === "top" ? [top, bottom] : [bottom, top]).map((c) =>
      share(over(own, spotsIn(c))),
    ) as [number, number];
    if (here < 0.4 && there > 0.8) crossed.add(f);
    else if (here > 0.8 && there < 0.4) straight.add(f);
  }
  if (crossed.size === 0) return [...files];
  const names = [...crossed].map((f) => f.path).join(", ");
  const isTold = straight.size > 0 && [...crossed].every(isByName);
  findings.push({
    tag: "role-contradiction",
    level: isTold ? "warning" : "error",
    file: [...crossed][0]!.path,
    text: isTold
      ? `${names}: named as one side, but over the pads of the other; what lies in them counts.`
      : `${names}: over the pads of the other side than their names say. Either they or the two outer coppers are exchanged; which, nothing here tells.`,
    do: isTold
      ? "Look at both sides on the picture; set the sides if the names are right."
      : "Look at both sides on the picture and set the roles; a board with its sides exchanged is scrap.",
  });
  if (!isTold) return [...files];
  return files.map((f) =>
    crossed.has(f)
      ? {
          ...f,
          side: f.side === "top" ? ("bottom" as const) : ("top" as const),
          because: "content" as const,
          reason: "it lies over the pads of that side",
        }
      : f,
  );
}
