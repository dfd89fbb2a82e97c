import type { BoardSet } from "../board/board-file.ts";
import type { Finding, FindingTag } from "../findings.ts";
import type { Box, Pose } from "../geometry/turn.ts";
import type { PracticePads } from "./practice.ts";

/** Whether columns, or rows, are parted by a score or by tabs. */
export type Parting = "score" | "tabs";

/** How boards come off the sheet. */
export type Separation = "score" | "tabs" | "mixed";
export const SIDES = ["left", "right", "top", "bottom"] as const;
export type SheetSide = (typeof SIDES)[number];

/** What may go into the waste of a sheet. */
export const WASTE = ["gauge", "practice", "paste-test"] as const;
export type Waste = (typeof WASTE)[number];

/** What a sheet is to be; lengths in mm. */
export interface PanelSpec {
  /** Copies of each design on the sheet, or as many as go on it. */
  readonly counts: readonly (number | "fill")[];
  /** Turns each design may take, degrees counter-clockwise; never mirrored. */
  readonly turns: readonly (readonly number[])[];
  readonly maxWidthMm: number;
  readonly maxHeightMm: number;
  readonly minWidthMm: number;
  readonly minHeightMm: number;
  readonly separation: Separation | "auto";
  /** Cutter's width between boards where they are held by tabs. */
  readonly gapMm: number;
  readonly rails: readonly SheetSide[] | "auto";
  readonly railMm: number;
  readonly tabMm: number;
  readonly fiducials: boolean;
  readonly toolingHoles: boolean;
  readonly badMarks: boolean;
  /** Dots on the rails that even the copper out for plating. */
  readonly copperBalance: boolean;
  readonly waste: readonly Waste[];
  readonly thicknessMm: number;
  /** Sides of each design, as it is drawn, that get no tab. */
  readonly free?: readonly (readonly SheetSide[])[];
  /** Which are scored where scores and tabs are mixed; whichever is better where left out. */
  readonly scored?: "columns" | "rows";
  /** Tabs by hand, in the place of those that would be found. */
  readonly tabs?: readonly OwnTab[];
}

/** A tab put by hand, on a copy's edge: a point of it in the board's own coordinates. */
export interface OwnTab {
  readonly copy: number;
  readonly xMm: number;
  readonly yMm: number;
}

export const DEFAULT_SPEC: Omit<PanelSpec, "counts" | "turns"> = {
  maxWidthMm: 250,
  maxHeightMm: 200,
  minWidthMm: 0,
  minHeightMm: 0,
  separation: "auto",
  gapMm: 2,
  rails: "auto",
  railMm: 7,
  tabMm: 5,
  fiducials: true,
  toolingHoles: true,
  badMarks: true,
  copperBalance: false,
  waste: [],
  thicknessMm: 1.6,
};

export const ALL_TURNS = [0, 90, 180, 270] as const;

/** A stretch of a board where nothing may be cut, or only with a look. */
export interface Ban {
  /** In the board's own coordinates. */
  readonly box: Box;
  readonly why: string;
  /** Distance a tab keeps from it, mm; left out where it does not matter to tabs. */
  readonly tabMm?: number;
  /** Distance a score keeps from it, mm; left out likewise. */
  readonly scoreMm?: number;
  /** A score cannot be made there at all; else it is made and said. */
  readonly isHard?: boolean;
}

/** A board that goes on a sheet. */
export interface PanelDesign {
  readonly name: string;
  /** Outer edge, counter-clockwise, mm as in its files. */
  readonly outline: readonly number[];
  readonly cutouts: readonly (readonly number[])[];
  /** Of the outline, cut-outs not taken off. */
  readonly areaMm2: number;
  readonly box: Box;
  readonly layers: number;
  readonly thicknessMm?: number;
  readonly bans: readonly Ban[];
  /** Sides whose contacts are bevelled: the wheel needs them at the sheet's edge. */
  readonly outward: readonly SheetSide[];
  /** Parts that hang over its edge, as boxes in its own coordinates. */
  readonly overhangs: readonly { readonly ref: string; readonly box: Box; readonly mm: number }[];
  /** Pads of its hardest part, to be tried on. */
  readonly practice?: PracticePads;
  /** Parts stand on it on the bottom. */
  readonly isTwoSided: boolean;
  /** Least distance of copper from its edge, and where. */
  readonly copperToEdge?: { readonly mm: number; readonly x: number; readonly y: number };
  readonly holeToEdge?: { readonly mm: number; readonly x: number; readonly y: number };
}

/** A board on the sheet; `copy` counts over the whole sheet from 1. */
export interface PanelPlace extends Pose {
  readonly board: number;
  readonly copy: number;
}

/** Where the boards of a sheet lie, by solving or by hand: everything else follows. */
export interface SheetParts {
  readonly widthMm: number;
  readonly heightMm: number;
  readonly rails: Readonly<Record<SheetSide, number>>;
  readonly across: Parting;
  readonly along: Parting;
  readonly places: readonly PanelPlace[];
}

/** A line scored from edge to edge. */
export interface Score {
  readonly x1: number;
  readonly y1: number;
  readonly x2: number;
  readonly y2: number;
}

/** A bridge over the gap: its middle, and the way across it. */
export interface Tab {
  readonly xMm: number;
  readonly yMm: number;
  readonly widthMm: number;
  /** Copies it joins; 0 is the frame. */
  readonly between: readonly [number, number];
  /** Perforations, of both rows. */
  readonly holes: number;
  /** Direction from the first copy to the other, degrees. */
  readonly acrossDeg: number;
  /** From edge to edge of the gap. */
  readonly gapMm: number;
  /** Middles of the perforations. */
  readonly at: readonly (readonly [number, number])[];
  /** How far it reaches into what it holds, on the first copy's side and on the other: as far as their edges draw back. */
  readonly intoMm?: readonly [number, number];
}

export interface SheetHole {
  readonly xMm: number;
  readonly yMm: number;
  readonly diameterMm: number;
}

/** Something useful in the waste of a sheet: milled slots, bare pads, openings in the paste, figures in the ink. */
export interface WasteItem {
  readonly kind: Waste;
  readonly box: Box;
  readonly slots: readonly Box[];
  readonly pads: readonly Box[];
  readonly openings: readonly Box[];
  readonly labels: readonly {
    readonly x: number;
    readonly y: number;
    readonly text: string;
    readonly mm: number;
    readonly isUpright: boolean;
  }[];
}

/** A sheet as designed: everything that is written, and what is to be said of it. */
export interface PanelLayout {
  readonly widthMm: number;
  readonly heightMm: number;
  readonly places: readonly PanelPlace[];
  readonly counts: readonly number[];
  readonly separation: Separation;
  readonly across: Parting;
  readonly along: Parting;
  readonly gapMm: number;
  readonly rails: Readonly<Record<SheetSide, number>>;
  readonly scores: readonly Score[];
  readonly tabs: readonly Tab[];
  /** Areas of the sheet that are frame: outer edges counter-clockwise, what is taken out of them clockwise. */
  readonly frame: readonly (readonly (readonly number[])[])[];
  readonly fiducials: readonly { readonly xMm: number; readonly yMm: number }[];
  readonly toolingHoles: readonly SheetHole[];
  readonly badMarks: readonly { readonly xMm: number; readonly yMm: number; readonly copy: number }[];
  readonly balance: readonly { readonly xMm: number; readonly yMm: number }[];
  readonly waste: readonly WasteItem[];
  /** Area of the outlines over that of the sheet. */
  readonly utilisation: number;
  readonly findings: readonly Finding[];
}

/** A sheet that cannot be, and what would work. */
export interface PanelRefusal {
  readonly tag: FindingTag;
  readonly reason: string;
  readonly at?: { readonly x: number; readonly y: number };
  /** Counts of the first design that do fit, the nearest first. */
  readonly nearest: readonly number[];
  readonly do?: string;
}

export const isRefusal = (x: PanelLayout | PanelRefusal): x is PanelRefusal => "reason" in x;

/** A board that is written onto the sheet. */
export interface PanelSource {
  readonly design: PanelDesign;
  readonly set: BoardSet;
}

/** How copies are written: each whole, or one with its steps where the sheet is a plain grid. */
export type WriteMode = "copies" | "step-repeat";

/** What the sheet is called. */
export interface PanelName {
  readonly name: string;
  readonly revision: string;
}

/** A file of the panel. */
export interface PanelFile {
  readonly path: string;
  readonly bytes: Uint8Array;
}

/** Files of a sheet, tables as rows of cells. */
export interface PanelFiles {
  readonly files: readonly PanelFile[];
  readonly tables: readonly { readonly path: string; readonly rows: readonly (readonly string[])[] }[];
  readonly findings: readonly Finding[];
}
