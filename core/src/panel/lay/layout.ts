import type { Finding } from "../../findings.ts";
import { posedBox } from "../../geometry/turn.ts";
import { placeTabs, tabbedSides } from "../hold/tabs.ts";
import { withFreeSides } from "../shape/free-sides.ts";
import { laidOut } from "../shape/laid.ts";
import type {
  PanelDesign,
  PanelLayout,
  PanelRefusal,
  PanelSpec,
  Separation,
  SheetParts,
  WasteItem,
} from "../spec.ts";
import { clashOf } from "./clash.ts";
import { type Framed, placesOf } from "./framed.ts";
import { BALANCE_MM, furnish } from "./furnish.ts";
import {
  LOOSE_RAIL,
  looseOf,
  sayOutward,
  sayOverhangs,
  sayOwnTabs,
  sayPerforations,
  sayUntabbed,
} from "./laid-notes.ts";
import { frameOf, materialOf } from "./material.ts";
import { checkScores, scoreLines } from "./scores.ts";
import { placeWaste } from "./waste.ts";

/** A field made into a sheet. */
export const layoutOf = (
  designs: readonly PanelDesign[],
  spec: PanelSpec,
  f: Framed,
): PanelLayout | PanelRefusal =>
  layoutAt(designs, spec, {
    widthMm: f.widthMm,
    heightMm: f.heightMm,
    rails: f.rails,
    across: f.field.across,
    along: f.field.along,
    places: placesOf(designs, f),
  });

/**
 * A sheet from where its boards lie: gaps, tabs, scores, rails with what stands on them, and what is to be said of it.
 *
 * @returns a refusal where boards overlap, leave the sheet, or cannot be parted so
 */
export function layoutAt(
  designs: readonly PanelDesign[],
  spec: PanelSpec,
  s: SheetParts,
): PanelLayout | PanelRefusal {
  const laid = laidOut(withFreeSides(designs, spec), s.places);
  const clash = clashOf(laid, s, spec.gapMm);
  if (clash) return clash;
  const findings: Finding[] = [];
  const rings = laid.map((l) => l.ring);
  const cells = laid.map((l) => posedBox(l.place, l.design.box));
  const frame = frameOf([s.widthMm, s.heightMm], s.rails, rings, cells, s, spec.gapMm);
  const scores = scoreLines(cells, s);
  if (scores.length > 0) {
    const wrong = checkScores(laid, scores, spec.thicknessMm, findings);
    if (wrong) return wrong;
  }
  const held =
    s.across === "tabs" || s.along === "tabs"
      ? placeTabs({ laid, frame, gapMm: spec.gapMm }, spec.tabMm, spec.thicknessMm, tabbedSides(s), spec.tabs)
      : { tabs: [], untabbed: [], loose: [], isFrameLoose: false };
  const isRouted = s.across === "tabs" && s.along === "tabs";
  const isMixed = !isRouted && (s.across === "tabs" || s.along === "tabs");
  const loose = isRouted
    ? looseOf(laid, held)
    : isMixed && materialOf(frame, rings, held.tabs, []).length > 1
      ? LOOSE_RAIL
      : undefined;
  if (loose) return loose;
  if (spec.tabs) sayOwnTabs(held, laid, isRouted, findings);
  else sayUntabbed(held.untabbed, s, findings);
  const separation: Separation = isRouted
    ? "tabs"
    : s.across === "score" && s.along === "score"
      ? "score"
      : "mixed";
  if (held.tabs.length > 0) sayPerforations(laid, findings);
  sayOutward(laid, s, findings);
  sayOverhangs(laid, findings);
  const stands = furnish(spec, s, laid, findings);
  const waste =
    spec.waste.length > 0 ? placeWaste(spec, [s.widthMm, s.heightMm], frame, stands, designs, findings) : [];
  const boards = laid.reduce((n, l) => n + l.design.areaMm2, 0);
  return {
    widthMm: s.widthMm,
    heightMm: s.heightMm,
    places: s.places,
    counts: designs.map((_, i) => s.places.filter((p) => p.board === i).length),
    separation,
    across: s.across,
    along: s.along,
    gapMm: spec.gapMm,
    rails: s.rails,
    scores,
    tabs: held.tabs,
    frame,
    ...stands,
    balance: stands.balance.filter((b) =>
      waste.every((w) => !holds(w.box, b.xMm, b.yMm, BALANCE_MM / 2 + 0.3)),
    ),
    waste,
    utilisation: boards / (s.widthMm * s.heightMm),
    findings,
  };
}

/** Whether a disc meets a box. */
const holds = ([x0, y0, x1, y1]: WasteItem["box"], x: number, y: number, r: number) =>
  Math.hypot(Math.max(x0 - x, 0, x - x1), Math.max(y0 - y, 0, y - y1)) < r;
