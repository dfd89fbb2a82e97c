import {
  DEFAULT_SPEC,
  type OwnTab,
  type PanelLayout,
  type PanelSpec,
  type Parting,
  type SheetSide,
  type Waste,
} from "./spec.ts";

/** A sheet as a run keeps it. Everything else of it follows from its boards. */
export interface PanelChoice {
  readonly widthMm: number;
  readonly heightMm: number;
  readonly rails: Readonly<Record<SheetSide, number>>;
  readonly across: Parting;
  readonly along: Parting;
  readonly gapMm: number;
  readonly tabMm: number;
  readonly fiducials: boolean;
  readonly toolingHoles: boolean;
  readonly badMarks: boolean;
  readonly copperBalance: boolean;
  /** What is put into the waste; nothing where left out. */
  readonly waste?: readonly Waste[];
  /** Sides of a board, by its key, that get no tab. */
  readonly free?: Readonly<Record<string, readonly SheetSide[]>>;
  /** Tabs by hand, in the place of those that are found. */
  readonly tabs?: readonly OwnTab[];
  /** Key of each copy's board in the run, and where it lies. */
  readonly places: readonly {
    readonly board: string;
    readonly xMm: number;
    readonly yMm: number;
    readonly turnDeg: number;
  }[];
  /** Holes besides those of its boards: perforations and tooling. */
  readonly holes: number;
}

/** A sheet that was worked out, as a run keeps it. @param keys of the designs' boards in the run */
export const choiceOf = (layout: PanelLayout, spec: PanelSpec, keys: readonly string[]): PanelChoice => ({
  widthMm: layout.widthMm,
  heightMm: layout.heightMm,
  rails: layout.rails,
  across: layout.across,
  along: layout.along,
  gapMm: spec.gapMm,
  tabMm: spec.tabMm,
  fiducials: spec.fiducials,
  toolingHoles: spec.toolingHoles,
  badMarks: spec.badMarks,
  copperBalance: spec.copperBalance,
  ...(spec.waste.length > 0 ? { waste: spec.waste } : {}),
  ...(spec.free?.some((f) => f.length > 0)
    ? {
        free: Object.fromEntries(keys.flatMap((k, i) => (spec.free?.[i]?.length ? [[k, spec.free[i]]] : []))),
      }
    : {}),
  ...(spec.tabs ? { tabs: spec.tabs } : {}),
  places: layout.places.map((p) => ({
    board: keys[p.board]!,
    xMm: p.xMm,
    yMm: p.yMm,
    turnDeg: p.turnDeg,
  })),
  holes: layout.toolingHoles.length + layout.tabs.reduce((n, t) => n + t.holes, 0),
});

/** The wish behind a kept sheet, so that it can be worked out again. */
export const specOf = (c: PanelChoice, keys: readonly string[], thicknessMm: number): PanelSpec => ({
  ...DEFAULT_SPEC,
  counts: keys.map((k) => c.places.filter((p) => p.board === k).length),
  turns: keys.map(() => [0, 90, 180, 270]),
  gapMm: c.gapMm,
  tabMm: c.tabMm,
  fiducials: c.fiducials,
  toolingHoles: c.toolingHoles,
  badMarks: c.badMarks,
  copperBalance: c.copperBalance,
  waste: c.waste ?? [],
  thicknessMm,
  ...(c.free ? { free: keys.map((k) => c.free?.[k] ?? []) } : {}),
  ...(c.tabs ? { tabs: c.tabs } : {}),
});
