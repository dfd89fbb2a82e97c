import type { Finding } from "../../findings.ts";
import { posed, posedBox } from "../../geometry/turn.ts";
import { COPPER_WANTED_MM, perforationToCopper } from "../hold/perforate.ts";
import type { Untabbed } from "../hold/tabs.ts";
import type { Laid } from "../shape/laid.ts";
import type { PanelLayout, PanelRefusal, SheetParts } from "../spec.ts";
import { clean, turnedSide } from "./grid.ts";

/** A part of the frame that nothing holds. */
export const LOOSE_RAIL: PanelRefusal = {
  tag: "cannot-be-held",
  reason: "A rail would be held by nothing: no edge beside it has room for a tab.",
  nearest: [],
  do: "Take narrower tabs, or leave that rail away.",
};

/** Why boards would be held by nothing; undefined where all are held. */
export function looseOf(
  laid: readonly Laid[],
  held: {
    readonly untabbed: readonly Untabbed[];
    readonly loose: readonly number[];
    readonly isFrameLoose: boolean;
  },
): PanelRefusal | undefined {
  if (held.loose.length === 0) return held.isFrameLoose ? LOOSE_RAIL : undefined;
  const l = laid.find((k) => k.place.copy === held.loose[0])!;
  const why = held.untabbed.find((u) => held.loose.includes(u.copy))?.why;
  return {
    tag: "cannot-be-held",
    reason: `Copy ${held.loose.join(", ")} would be held by nothing${why ? `: ${why}` : ""}.`,
    at: { x: (l.box[0] + l.box[2]) / 2, y: (l.box[1] + l.box[3]) / 2 },
    nearest: [],
    do: "Give the sheet rails on more sides, a wider gap, or narrower tabs.",
  };
}

/** Tabs by hand that cannot stand any more, and boards that hang by one alone. */
export function sayOwnTabs(
  held: { readonly tabs: PanelLayout["tabs"]; readonly untabbed: readonly Untabbed[] },
  laid: readonly Laid[],
  isRouted: boolean,
  findings: Finding[],
): void {
  for (const u of held.untabbed)
    findings.push({
      tag: "tab-left-out",
      level: "warning",
      at: { x: clean(u.x), y: clean(u.y) },
      text: `The tab put at ${u.x.toFixed(1)}, ${u.y.toFixed(1)} mm on copy ${u.copy} cannot stand there: ${u.why}. It is left out.`,
      do: "Put it elsewhere, or let tabs be found anew.",
    });
  if (!isRouted) return;
  for (const l of laid) {
    const n = held.tabs.filter((t) => t.between.includes(l.place.copy)).length;
    if (n === 1)
      findings.push({
        tag: "held-by-one-tab",
        level: "warning",
        at: { x: clean((l.box[0] + l.box[2]) / 2), y: clean((l.box[1] + l.box[3]) / 2) },
        text: `Copy ${l.place.copy} hangs by one tab: it swings when it is milled and printed.`,
        do: "Put a second one, opposite.",
      });
  }
}

/** Stretches that got no tab, each reason of a design once. */
export function sayUntabbed(untabbed: readonly Untabbed[], s: SheetParts, findings: Finding[]): void {
  const said = new Set<string>();
  for (const u of untabbed) {
    const key = `${s.places.find((p) => p.copy === u.copy)?.board} ${u.why}`;
    if (said.has(key) || said.size >= 4) continue;
    said.add(key);
    findings.push({
      tag: "edge-without-tab",
      level: "remark",
      at: { x: clean(u.x), y: clean(u.y) },
      text: `Copy ${u.copy} has no tab at ${u.x.toFixed(1)}, ${u.y.toFixed(1)} mm: ${u.why}.`,
    });
  }
}

/** Copper that perforations would come nearer to than is usual, wherever along the edge it is. */
export function sayPerforations(laid: readonly Laid[], findings: Finding[]): void {
  const said = new Set<unknown>();
  for (const { design, place } of laid) {
    const c = design.copperToEdge;
    if (!c || said.has(design)) continue;
    said.add(design);
    const mm = perforationToCopper(c.mm);
    if (mm >= COPPER_WANTED_MM - 1e-9) continue;
    const [x, y] = posed(place, c.x, c.y);
    findings.push({
      tag: "perforation-near-copper",
      level: mm < 0.1 ? "warning" : "remark",
      at: { x: clean(x), y: clean(y) },
      text: `Copper of ${design.name} comes within ${Number(c.mm.toFixed(2))} mm of its edge: perforations there would leave ${Number(Math.max(0, mm).toFixed(2))} mm to it, ${COPPER_WANTED_MM} mm is usual.`,
      do: "Draw the copper back where tabs stand, or cut tabs with a cutter instead of breaking them.",
    });
  }
}

/** Parts of one copy that would stand over another: they are in the way when boards are placed on the sheet. */
export function sayOverhangs(laid: readonly Laid[], findings: Finding[]): void {
  const said = new Set<string>();
  for (const l of laid)
    for (const o of l.design.overhangs) {
      const key = `${l.place.board} ${o.ref}`;
      if (said.has(key)) continue;
      const b = posedBox(l.place, o.box);
      const other = laid.find(
        (k) => k !== l && k.box[0] < b[2] && k.box[2] > b[0] && k.box[1] < b[3] && k.box[3] > b[1],
      );
      if (!other) continue;
      said.add(key);
      findings.push({
        tag: "part-over-neighbour",
        level: "warning",
        at: { x: clean((b[0] + b[2]) / 2), y: clean((b[1] + b[3]) / 2) },
        text: `${o.ref} of copy ${l.place.copy} reaches over copy ${other.place.copy}: it hangs ${o.mm} mm over its board's edge.`,
        do: `Make the gap ${Math.ceil((o.mm + CLEAR_MM) * 2) / 2} mm, turn the boards, or solder ${o.ref} after they are parted.`,
      });
    }
}

/** Room an overhanging part wants to the next board, mm. */
export const CLEAR_MM = 0.5;

/** Contacts that are bevelled and do not look out of the sheet. */
export function sayOutward(laid: readonly Laid[], s: SheetParts, findings: Finding[]): void {
  const hidden = laid.filter((l) =>
    l.design.outward.some((edge) => {
      if (l.place.turnDeg % 90 !== 0) return true;
      const side = turnedSide(edge, l.place.turnDeg);
      const at = {
        left: l.box[0],
        bottom: l.box[1],
        right: s.widthMm - l.box[2],
        top: s.heightMm - l.box[3],
      };
      return at[side] > 1e-3;
    }),
  );
  const [first] = hidden;
  if (first)
    findings.push({
      tag: "bevel-inside",
      level: "warning",
      at: { x: first.box[0], y: first.box[1] },
      text: `The contacts of copy ${hidden
        .map((l) => l.place.copy)
        .slice(0, 6)
        .join(", ")} do not lie at the sheet's edge, where a bevel is ground.`,
      do: "Take one row, or two back to back, without a rail on those sides; or have the boards bevelled singly.",
    });
}
