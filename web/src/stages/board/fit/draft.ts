import {
  cornerOf,
  type FitRow,
  type FitSpec,
  type HoleFeature,
  holesOf,
  type Intended,
  type Measure,
  pinHolesOf,
  type SlotFeature,
  slotsOf,
} from "@kobbin/core";

export type Kind = FitSpec["kind"];

export const KINDS: readonly (readonly [Kind, string])[] = [
  ["pattern", "holes on posts"],
  ["slot", "a tab in a slot"],
  ["pin", "pins in holes"],
  ["edge", "an edge in a socket or groove"],
  ["contacts", "edge contacts on a socket's"],
  ["outline", "a side in an opening"],
  ["stack", "boards in a gap"],
  ["lid", "under a lid"],
  ["facing", "under another board"],
  ["intended", "a place that is meant to be something"],
];

/** What is typed of a row; the board's own side is picked. */
export interface Draft {
  readonly kind: Kind;
  readonly label: string;
  readonly play: string;
  /** Numbers of the picked holes or of the one slot, in the order they were picked. */
  readonly picked: readonly number[];
  readonly tab: string;
  readonly tabTol: string;
  readonly tabWidth: string;
  readonly pin: string;
  readonly pinTol: string;
  readonly shape: "round" | "square";
  readonly least: string;
  readonly most: string;
  readonly across: "width" | "height";
  readonly opening: string;
  readonly openingTol: string;
  readonly edgeSide: "top" | "bottom";
  readonly contact: string;
  readonly posts: string;
  readonly postMm: string;
  readonly postTol: string;
  /** The person said that another unit, or the other side, is meant. */
  readonly believesUnit: boolean;
  readonly believesMirror: boolean;
  readonly boards: string;
  readonly spacers: string;
  readonly gap: string;
  readonly gapTol: string;
  /** Side of the board something lies over. */
  readonly overSide: "top" | "bottom";
  /** A field of it, as four numbers; the whole side where it is empty. */
  readonly area: string;
  readonly other: string;
  readonly faces: "top" | "bottom";
  readonly corner: string;
  readonly turn: "0" | "90" | "180" | "270";
  readonly joinedBy: string;
  /** A picked place, mm as in the files, how large it is and what it is meant to be. */
  readonly spot: readonly [number, number] | undefined;
  readonly diameter: string;
  readonly what: Intended;
}

export const EMPTY: Draft = {
  kind: "pattern",
  label: "",
  play: "",
  picked: [],
  tab: "",
  tabTol: "0.1",
  tabWidth: "",
  pin: "",
  pinTol: "0.03",
  shape: "square",
  least: "",
  most: "",
  across: "width",
  opening: "",
  openingTol: "0.1",
  edgeSide: "top",
  contact: "",
  posts: "",
  postMm: "3",
  postTol: "0.1",
  believesUnit: false,
  believesMirror: false,
  boards: "1",
  spacers: "",
  gap: "",
  gapTol: "0.1",
  overSide: "top",
  area: "",
  other: "",
  faces: "bottom",
  corner: "0 0",
  turn: "0",
  joinedBy: "",
  spot: undefined,
  diameter: "2",
  what: "solder",
};

/** What can be picked of a board for a kind of row, in one order. */
export const featuresFor = (m: Measure, kind: Kind): readonly (HoleFeature | SlotFeature)[] =>
  kind === "pattern" ? holesOf(m) : kind === "slot" ? slotsOf(m) : kind === "pin" ? toolsOf(m) : [];

/** Of each tool for pins its first hole: all of the tool are meant. */
export const toolsOf = (m: Measure): HoleFeature[] => {
  const seen = new Set<number>();
  return pinHolesOf(m).filter((h) => !seen.has(h.diameterMm) && seen.add(h.diameterMm));
};

/** A kept row as a draft, to be changed. What was picked is found again where it still is. */
export function draftOf(row: FitRow, m: Measure): Draft {
  const s = row.spec;
  const [x0, y0] = cornerOf(m);
  const near = (at: readonly [number, number], features: readonly { x: number; y: number }[]) =>
    features.findIndex((f) => Math.hypot(f.x - x0 - at[0], f.y - y0 - at[1]) < 3);
  const base: Draft = {
    ...EMPTY,
    kind: s.kind,
    label: row.label,
    play: row.playMm === undefined ? "" : String(row.playMm),
  };
  const spots = (
    list: readonly (readonly [number, number])[],
    features: readonly { x: number; y: number }[],
  ) => list.map((at) => near(at, features)).filter((i) => i >= 0);
  switch (s.kind) {
    case "pattern":
      return {
        ...base,
        picked: spots(s.holes, holesOf(m)),
        posts: s.posts.map((p) => `${p.x} ${p.y} ${p.diameterMm}`).join("\n"),
        postTol: String(s.postTolMm),
      };
    case "slot":
      return {
        ...base,
        picked: spots([s.at], slotsOf(m)),
        tab: (s.tabReadingsMm ?? [s.tabMm!]).join(" "),
        tabTol: String(s.tabTolMm),
        tabWidth: s.tabWidthMm === undefined ? "" : String(s.tabWidthMm),
      };
    case "pin":
      return {
        ...base,
        // another hole of the tool may stand for it now
        picked: spots([s.at], pinHolesOf(m)).flatMap((i) => {
          const size = pinHolesOf(m)[i]!.diameterMm;
          return toolsOf(m).findIndex((h) => h.diameterMm === size);
        }),
        pin: String(s.pinMm),
        pinTol: String(s.pinTolMm),
        shape: s.shape,
      };
    case "edge":
      return { ...base, least: String(s.allowsMm[0]), most: String(s.allowsMm[1]) };
    case "contacts":
      return {
        ...base,
        edgeSide: s.side,
        opening: String(s.openingMm),
        openingTol: String(s.openingTolMm),
        contact: String(s.contactMm),
      };
    case "outline":
      return { ...base, across: s.across, opening: String(s.openingMm), openingTol: String(s.openingTolMm) };
    case "intended":
      return { ...base, ...placeDraft(s, x0, y0) };
    case "lid":
    case "facing":
      return { ...base, ...overDraft(s) };
    case "stack":
      return {
        ...base,
        boards: String(s.boards),
        gap: String(s.gapMm),
        gapTol: String(s.gapTolMm),
        spacers: s.spacers.map((x) => `${x.mm} ± ${x.tolMm}`).join("; "),
      };
  }
}

/** What lies over the board, as it is typed. */
const overDraft = (s: Extract<FitSpec, { kind: "lid" | "facing" }>): Partial<Draft> =>
  s.kind === "lid"
    ? {
        overSide: s.side,
        gap: String(s.roomMm),
        gapTol: String(s.roomTolMm),
        area: s.area ? s.area.join(" ") : "",
      }
    : {
        overSide: s.side,
        other: s.other,
        faces: s.faces,
        gap: String(s.gapMm),
        gapTol: String(s.gapTolMm),
        corner: s.at.join(" "),
        turn: String(s.turnDeg) as Draft["turn"],
        joinedBy: (s.joinedBy ?? []).join(", "),
      };

const placeDraft = (s: Extract<FitSpec, { kind: "intended" }>, x0: number, y0: number): Partial<Draft> => ({
  spot: [x0 + s.at[0], y0 + s.at[1]],
  diameter: String(s.diameterMm),
  overSide: s.side,
  what: s.what,
});
