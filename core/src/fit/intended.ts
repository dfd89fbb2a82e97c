import type { PlaceReading } from "../board/place.ts";
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
  const board: Condition[] =
    r.board === undefined
      ? []
      : [{ asks: "board there", holds: r.board >= ALL, found: `board ${percent(r.board)}` }];
  const holes = r.drilled + r.platedShare;
  const whole: Condition = {
    asks: "no hole in it",
    holds: holes <= NONE,
    found: `drilled ${percent(holes)}`,
  };
  switch (s.what) {
    case "solder":
      // a plated hole may be a part of what is soldered to
      return [
        ...board,
        ...bared(s, r),
        {
          asks: "no unplated hole in it",
          holds: r.drilled <= NONE,
          found: `drilled ${percent(r.drilled)}`,
        },
      ];
    case "contact":
    case "copper":
      return [...board, ...bared(s, r), free(r, "paste", s.side, "no solder paste", "paste"), whole];
    case "window":
      return [...board, ...transparent(r), whole];
    case "drawing":
      return [...board, drawn(s, r)];
    case "cutout": {
      const gone = Math.min(1, holes + (r.board === undefined ? 0 : 1 - r.board));
      return [{ asks: "no board there", holds: gone >= ALL, found: `cut or drilled ${percent(gone)}` }];
    }
  }
}

type Layer = PlaceReading["layers"][number];
const shareOf = (r: PlaceReading, role: Layer["role"], side: string): number =>
  r.layers.find((l) => l.role === role && l.side === side)?.share ?? 0;
const percent = (v: number) =>
  v >= ALL ? "everywhere" : v <= NONE ? "nowhere" : `on ${Math.round(v * 100)} %`;

const filled = (
  r: PlaceReading,
  role: Layer["role"],
  side: string,
  asks: string,
  says: string,
): Condition => {
  const share = shareOf(r, role, side);
  return { asks, holds: share >= ALL, found: `${says} ${percent(share)}` };
};
const free = (r: PlaceReading, role: Layer["role"], side: string, asks: string, says: string): Condition => {
  const share = shareOf(r, role, side);
  return { asks, holds: share <= NONE, found: `${says} ${percent(share)}` };
};

/** Copper without mask and ink on it. */
const bared = (s: Spec, r: PlaceReading): Condition[] => [
  filled(r, "copper", s.side, `copper on the ${s.side}`, "copper"),
  filled(r, "mask", s.side, "the mask open", "mask open"),
  free(r, "legend", s.side, "no silkscreen on it", "silkscreen"),
];

/** Nothing that stops light: no copper on any layer, no ink, the mask open on both sides. */
const transparent = (r: PlaceReading): Condition[] => [
  ...r.layers
    .filter((l) => l.role === "copper" || l.role === "legend")
    .map((l): Condition => {
      const says = l.role === "copper" ? l.name : `silkscreen ${l.side}`;
      return { asks: `no ${says}`, holds: l.share <= NONE, found: `${says} ${percent(l.share)}` };
    }),
  ...(["top", "bottom"] as const).map((side) =>
    filled(r, "mask", side, `the mask open on the ${side}`, `mask ${side} open`),
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
  const conditions = conditionsOf(s, reading);
  const missed = conditions.filter((c) => !c.holds);
  return {
    board,
    conditions,
    settled: missed.length === 0 ? "fits" : "does-not-fit",
    ...(missed.length === 0 ? {} : { because: `The files have ${missed.map((c) => c.found).join(", ")}.` }),
  };
}
