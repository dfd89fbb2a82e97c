import type { Measure } from "../../board/measure-document.ts";
import type { Place } from "../../board/worst.ts";
import { cornerOf } from "../../fit/features.ts";
import { mmWords as mm } from "../../fit/row.ts";
import { boardFor, Places, type RunBoard } from "../document/boards.ts";
import type { RunDocument } from "../document/document.ts";
import { spotOf } from "../stage/calliper-points.ts";

/** A spot of a board that is photographed on the one that is kept back of each lot. */
export interface ReferenceSpot {
  /** Stands at its photos: the same spot of another lot, or of another revision drawn elsewhere, has the same. */
  readonly key: string;
  readonly side: "top" | "bottom";
  /** As in the files; left out for a whole side. */
  readonly at?: readonly [number, number];
  readonly what: string;
}

/** Spots of a board but its two sides, so many at most: more are not photographed by anybody. */
const MOST = 7;
/** Two reasons within one close-up are one photo, mm. */
const NEAR_MM = 3;

type Reason = Omit<ReferenceSpot, "key"> & { readonly at: readonly [number, number] };

/**
 * The agreed spots of a board (N096, X15): both sides whole, then what a house does worst and a lens shows: the closest copper,
 * the thinnest ring, the narrowest web of mask, the finest pads, contacts, half holes, slots and print, and where something was
 * found wrong before. Each is where the files have its worst place, so the next lot is photographed at the same ones.
 *
 * @returns whole sides first, then at most {@link MOST} spots, what was found wrong before in front; inner layers show nothing
 */
export function referenceSpots(doc: RunDocument, index: number): ReferenceSpot[] {
  const board = doc.boards[index]!;
  const m = board.measure;
  const found: Reason[] = [];
  for (const r of [...beforeOf(doc, board), ...drawnOf(m)]) {
    const near = found.findIndex(
      (f) => f.side === r.side && Math.hypot(f.at[0] - r.at[0], f.at[1] - r.at[1]) <= NEAR_MM,
    );
    if (near < 0) found.push(r);
    else found[near] = { ...found[near]!, what: `${found[near]!.what}; ${r.what}` };
  }
  const sides = (["top", "bottom"] as const).filter((s) => m.copperLayers > 1 || hasSide(m, s));
  return [
    ...sides.map((side) => ({ key: `whole ${side}`, side, what: `all of the ${side} side` })),
    ...found.slice(0, MOST).map((f) => ({ ...f, key: `${f.side} ${spotOf(m, { x: f.at[0], y: f.at[1] })}` })),
  ];
}

const hasSide = (m: Measure, side: "top" | "bottom"): boolean =>
  m.layers.some((l) => l.side === side && (l.role === "copper" || l.role === "legend"));

/** On which side a place can be looked at; nothing for one inside. */
const sideOf = (layer: string): "top" | "bottom" | undefined =>
  /\btop\b/.test(layer) ? "top" : /\bbottom\b/.test(layer) ? "bottom" : undefined;

/** What was found wrong on the board before, where its place is known. */
function beforeOf(doc: RunDocument, board: RunBoard): Reason[] {
  const places = new Places(doc);
  const [x0, y0] = cornerOf(board.measure);
  return (doc.errata ?? []).flatMap(({ spot, title }): Reason[] => {
    if (boardFor(doc, spot) !== board) return [];
    // a pin is where its part is
    const part =
      spot.ref && places.of({ ...(board.id ? { board: board.id } : {}) }, spot.ref.replace(/\..*$/, ""));
    const at = spot.at
      ? ([x0 + spot.at[0], y0 + spot.at[1]] as const)
      : part
        ? ([part.xMm, part.yMm] as const)
        : undefined;
    return at ? [{ at, side: spot.side, what: `found wrong before: ${title}` }] : [];
  });
}

/** What of a measure is looked at, the words for it. */
const LOOKED: readonly (readonly [keyof Measure, (v: string) => string])[] = [
  ["minNetSpaceAt", (v) => `closest copper, ${v} mm apart`],
  ["minAnnularAt", (v) => `thinnest ring, ${v} mm`],
  ["minMaskWebAt", (v) => `narrowest web of mask, ${v} mm`],
  ["minPitchAt", (v) => `finest pads, ${v} mm apart`],
];
const PRINT: typeof LOOKED = [["minLegendTextAt", (v) => `smallest print, about ${v} mm high`]];

function drawnOf(m: Measure): Reason[] {
  const ofMeasures = (list: typeof LOOKED): Reason[] =>
    list.flatMap(([key, words]) => {
      const place = ((m[key] ?? []) as readonly Place[]).find((p) => sideOf(p.layer));
      if (!place || place.mm === undefined) return [];
      return [{ at: [place.x, place.y], side: sideOf(place.layer)!, what: words(mm(place.mm)) }];
    });
  const contacts = Object.entries(m.edgeContacts ?? {}).flatMap(([side, c]): Reason[] =>
    c.at && (side === "top" || side === "bottom")
      ? [{ at: [c.at.x, c.at.y], side, what: `${c.count} contacts at the edge` }]
      : [],
  );
  const half = m.castellatedHoles;
  const slot = [...m.slots].sort((a, b) => a.widthMm - b.widthMm)[0];
  return [
    ...ofMeasures(LOOKED),
    ...contacts,
    ...(half?.at
      ? [{ at: [half.at.x, half.at.y] as const, side: "top" as const, what: "half holes at the edge" }]
      : []),
    ...(slot ? [{ at: slot.from, side: "top" as const, what: `slot, ${mm(slot.widthMm)} mm wide` }] : []),
    ...ofMeasures(PRINT),
  ];
}
