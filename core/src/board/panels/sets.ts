import type { Finding } from "../../findings.ts";
import type { BoardFile } from "../board-file.ts";
import type { PanelPiece } from "../measure-document.ts";
import type { Loop, Outline } from "../outline/outline.ts";
import { reversed } from "../outline/outline-loops.ts";
import { kindsOfPieces } from "./panel-alike.ts";
import { boardsOfPanel } from "./panel-copies.ts";

/** Says when a drop holds two sets of layers: files of one folder, or of one first name, that double another's roles. */
export function saySets(files: readonly BoardFile[], findings: Finding[]): void {
  const groupOf = (f: BoardFile) =>
    f.path.includes("/") ? f.path.slice(0, f.path.lastIndexOf("/")) : stem(f.path);
  const sets = new Map<string, Set<string>>();
  for (const f of files) {
    if (!["copper", "mask", "legend", "paste", "profile"].includes(f.role)) continue;
    const g = groupOf(f);
    const set = sets.get(g) ?? new Set<string>();
    set.add(`${f.role} ${f.side ?? ""} ${f.index ?? ""}`);
    sets.set(g, set);
  }
  const list = [...sets].filter(([, roles]) => roles.size >= 3);
  for (const [name, roles] of list.slice(1)) {
    const [first, other] = list[0]!;
    const shared = [...roles].filter((r) => other.has(r)).length;
    if (shared < 3) continue;
    findings.push({
      tag: "two-sets",
      level: "warning",
      text: `The drop holds two sets of layers: “${first || "the top folder"}” and “${name || "the top folder"}” share ${shared} roles. The first is used.`,
      do: "Drop the set you mean alone, or set the files of the other one to unknown.",
    });
    return;
  }
}

const stem = (path: string) => path.toLowerCase().replace(/[-_.].*$/, "");

/**
 * Says when the archive is a panel already: several equal outlines, several equal boards inside a frame, or what falls
 * apart into equal boards along perforations and scores.
 *
 * @returns how many boards it holds and of which kinds, as far as that can be told
 */
export function sayPanel(
  files: readonly BoardFile[],
  outline: Outline | undefined,
  findings: Finding[],
): { readonly copies?: number; readonly pieces?: readonly PanelPiece[] } {
  const loops = outline?.loops ?? [];
  const equal = mostEqual(loops.filter((l) => l.areaMm2 > 25));
  const hasScore = files.some((f) => f.role === "score" && (f.layer?.n ?? 0) > 0);
  const parted = boardsOfPanel(files, outline);
  const isStated = files.some((f) => /^array$/i.test(f.layer?.fileAttributes.Part?.[0] ?? ""));
  if (equal.length < 2 && !hasScore && parted === undefined && !isStated) {
    const own = outline?.isClosed ? kindsOfPieces(files, [areaOf(outline)]) : undefined;
    return own ? { pieces: own } : {};
  }
  const [first] = equal;
  const size = first
    ? `${(first.box[2] - first.box[0]).toFixed(1)} × ${(first.box[3] - first.box[1]).toFixed(1)} mm`
    : "";
  const areas = parted ?? (equal.length >= 2 ? equal.map((l) => [l.ring]) : undefined);
  const because =
    parted !== undefined
      ? `it falls apart into ${parted.length} boards where it is perforated or scored.`
      : equal.length >= 2
        ? `${equal.length} equal outlines of ${size}.`
        : hasScore
          ? "it comes with score lines."
          : "its files call it an array.";
  findings.push({
    tag: "already-panel",
    level: "warning",
    ...(first && parted === undefined ? { at: { layer: "profile", x: first.box[0], y: first.box[1] } } : {}),
    text: `This looks like a panel already: ${because}`,
    do: "Hand over one board and let Kobbin make the panel, or go on: size, price and counts are then those of the panel.",
  });
  if (!areas) return {};
  const pieces = kindsOfPieces(files, areas);
  return { copies: areas.length, ...(pieces ? { pieces } : {}) };
}

/** All within an outline, its cut-outs clockwise. */
const areaOf = (outline: Outline): readonly (readonly number[])[] => {
  const [first, ...others] = [...outline.loops].sort((a, b) => b.areaMm2 - a.areaMm2);
  return [first!.ring, ...others.filter((l) => l.depth % 2 === 1).map((l) => reversed(l.ring))];
};

/** The largest group of equal outlines; inside a frame they must fill two fifths of it, else they are cut-outs. */
function mostEqual(loops: readonly Loop[]): readonly Loop[] {
  const largest = loops.reduce((a, l) => Math.max(a, l.areaMm2), 0);
  let best: readonly Loop[] = [];
  for (const l of loops) {
    const same = loops.filter(
      (m) =>
        m.depth === l.depth &&
        Math.abs(m.areaMm2 - l.areaMm2) < 0.01 * l.areaMm2 &&
        Math.abs(m.perimeterMm - l.perimeterMm) < 0.01 * l.perimeterMm,
    );
    const fills = l.depth === 0 || same.length * l.areaMm2 > 0.4 * largest;
    if (same.length > best.length && same.length >= 2 && fills) best = same;
  }
  return best;
}
