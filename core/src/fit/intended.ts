import type { PlaceReading } from "../board/measure/place.ts";
import { type Condition, type FitJudged, type FitSpec, type Intended, mmWords as mm } from "./row.ts";

/** What a place may be meant to be, as it is called. */
export const INTENDED = {
  solder: "metal to solder to",
  contact: "a contact that is touched",
  copper: "bare copper",
  window: "a window for light",
  drawing: "a drawing in copper, mask or ink",
  cutout: "cut out",
} as const satisfies Record<Intended, string>;

/** Shares below and above these are none and all of the place: a place is picked by hand, and edges take their part. */
const NONE = 0.03;
const ALL = 0.97;

type Spec = Extract<FitSpec, { kind: "intended" }>;

/**
 * Whether the files make of a place what it is meant to be: every layer that has a say is asked.
 *
 * @returns a condition per layer that counts; all of them hold where the files do it
 */
export function conditionsOf(s: Spec, r: PlaceReading): Condition[] {
  const board: Condition[] = r.board === undefined ? [] : [wants(r.board, true, "board there", "board")];
  const holes = r.drilled + r.platedShare;
  const whole = wants(holes, false, "no hole in it", "drilled");
  switch (s.what) {
    case "solder":
      // a plated hole may be a part of what is soldered to
      return [...board, ...bared(s, r), wants(r.drilled, false, "no unplated hole in it", "drilled")];
    case "contact":
    case "copper":
      return [
        ...board,
        ...bared(s, r),
        wants(shareOf(r, "paste", s.side), false, "no solder paste", "paste"),
        whole,
      ];
    case "window":
      return [...board, ...transparent(r), whole];
    case "drawing":
      return [...board, drawn(s, r)];
    case "cutout": {
      const gone = Math.min(1, holes + (r.board === undefined ? 0 : 1 - r.board));
      return [wants(gone, true, "no board there", "cut or drilled")];
    }
  }
}

type Layer = PlaceReading["layers"][number];
const layerOf = (r: PlaceReading, role: Layer["role"], side: string): Layer | undefined =>
  r.layers.find((l) => l.role === role && l.side === side);
/** Copper, paste and ink that no file draws are not there. Of a mask that is not so: {@link unknownMasks}. */
const shareOf = (r: PlaceReading, role: Layer["role"], side: string): number =>
  layerOf(r, role, side)?.share ?? 0;

/** Sides whose mask has a say and of which no file says where it is open: a board without a mask there, or a file forgotten. */
function unknownMasks(s: Spec, r: PlaceReading): string[] {
  const asked =
    s.what === "window" ? ["top", "bottom"] : ["drawing", "cutout"].includes(s.what) ? [] : [s.side];
  return asked.filter((side) => !layerOf(r, "mask", side));
}
const percent = (v: number) =>
  v >= ALL ? "everywhere" : v <= NONE ? "nowhere" : `on ${Math.round(v * 100)} %`;

/** A layer that has to be all of the place, or none of it. */
const wants = (share: number, isAll: boolean, asks: string, says: string): Condition => ({
  asks,
  holds: isAll ? share >= ALL : share <= NONE,
  found: `${says} ${percent(share)}`,
});

/** The mask open on a side; nothing where no file says where it is. */
const open = (r: PlaceReading, side: string, asks: string, says: string): Condition[] => {
  const mask = layerOf(r, "mask", side);
  return mask ? [wants(mask.share, true, asks, says)] : [];
};

/** Copper without mask and ink on it. */
const bared = (s: Spec, r: PlaceReading): Condition[] => [
  wants(shareOf(r, "copper", s.side), true, `copper on the ${s.side}`, "copper"),
  ...open(r, s.side, "the mask open", "mask open"),
  wants(shareOf(r, "legend", s.side), false, "no silkscreen on it", "silkscreen"),
];

/** Nothing that stops light: no copper on any layer, no ink, the mask open on both sides. */
const transparent = (r: PlaceReading): Condition[] => [
  ...r.layers
    .filter((l) => l.role === "copper" || l.role === "legend")
    .map((l) => {
      const says = l.role === "copper" ? l.name : `silkscreen ${l.side}`;
      return wants(l.share, false, `no ${says}`, says);
    }),
  ...(["top", "bottom"] as const).flatMap((side) =>
    open(r, side, `the mask open on the ${side}`, `mask ${side} open`),
  ),
];

/** Something of a picture: a layer of the side that has the place in part. */
function drawn(s: Spec, r: PlaceReading): Condition {
  const parts = (["copper", "mask", "legend"] as const).map((role) => ({
    says: role === "legend" ? "silkscreen" : role === "mask" ? "mask open" : "copper",
    share: shareOf(r, role, s.side),
  }));
  return {
    asks: `something drawn on the ${s.side}`,
    holds: parts.some((p) => p.share > NONE && p.share < ALL),
    found: parts.map((p) => `${p.says} ${percent(p.share)}`).join(", "),
  };
}

/** A row of the sheet about what a place is meant to be. */
export function judgeIntended(
  s: Spec,
  reading: PlaceReading | undefined,
): Omit<FitJudged, "row" | "verdict"> & { readonly settled?: "fits" | "does-not-fit" } {
  const board = `${mm(s.diameterMm)} mm around ${mm(s.at[0])} / ${mm(s.at[1])}`;
  if (!reading) return { board, because: "The files are being read at this place." };
  if (reading.givenUp.length > 0)
    return { board, because: `${reading.givenUp.join(", ")} could not be read at this place.` };
  const blind = unknownMasks(s, reading);
  const conditions = conditionsOf(s, reading);
  const missed = conditions.filter((c) => !c.holds);
  if (blind.length > 0 && missed.length === 0)
    return {
      board,
      conditions,
      because: `There is no mask layer for the ${blind.join(" and the ")}: whether it is open there is not known.`,
    };
  return {
    board,
    conditions,
    settled: missed.length === 0 ? "fits" : "does-not-fit",
    ...(missed.length === 0 ? {} : { because: `The files have ${missed.map((c) => c.found).join(", ")}.` }),
  };
}
