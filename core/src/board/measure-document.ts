import type { Rout } from "../drill/read.ts";
import type { Finding } from "../findings.ts";
import type { Because, Role, Side } from "../role/role.ts";
import type { BoardDiff } from "./diff-document.ts";
import type { Place } from "./worst.ts";

/** A file's row in the document. */
export interface LayerRow {
  readonly file: string;
  readonly role: Role;
  readonly side?: Side;
  readonly index?: number;
  readonly plated?: boolean | "mixed";
  readonly because: Because;
  readonly reason: string;
  readonly objects: number;
  readonly bytes: number;
  readonly headers?: readonly string[];
}

/** Openings of a side that are listed one by one. */
export const MOST_OPENINGS = 4000;

/**
 * The document `measure/1`: everything measured from a drop. A key whose value cannot be known is left out; documents
 * kept by earlier versions lack the keys that came later.
 */
export interface Measure {
  readonly kobbin: "measure/1";
  readonly outcome: "accept" | "reject";
  readonly reason?: string;
  readonly layers: readonly LayerRow[];
  readonly layerOrder: readonly string[];
  readonly outline?: {
    readonly widthMm?: number;
    readonly heightMm?: number;
    readonly areaMm2?: number;
    readonly perimeterMm?: number;
    readonly cutouts: number;
    readonly closed: boolean;
    readonly minInnerRadiusMm?: number;
    readonly minInnerRadiusAt?: readonly Place[];
    /**
     * The board's edge and its cut-outs, to {@link RING_MM}: x0, y0, x1, y1 … each, the first ring the largest. Only of a
     * closed outline, and left out where it would take more than {@link MOST_RING_POINTS} points.
     */
    readonly rings?: readonly (readonly number[])[];
  };
  /** Box of the closed outline, else of the copper: x0, y0, x1, y1 in the files' coordinates. */
  readonly extentMm?: readonly [number, number, number, number];
  readonly copperLayers: number;
  readonly thicknessMm?: number;
  /** Narrowest stroke, or neck of a filled area. */
  readonly minTrackMm?: number;
  readonly minTrackAt?: readonly Place[];
  /** Narrowest place inside a filled area, up to 0.3 mm. */
  readonly minNeckMm?: number;
  readonly minNeckAt?: readonly Place[];
  /** Least gap between separate islands of one layer. */
  readonly minSpaceMm?: number;
  readonly minSpaceAt?: readonly Place[];
  /** Least gap between different nets. */
  readonly minNetSpaceMm?: number;
  readonly minNetSpaceAt?: readonly Place[];
  readonly minHoleMm?: number;
  readonly minHoleAt?: readonly Place[];
  /** Least ring of copper around a plated hole, on its worst layer. */
  readonly minAnnularMm?: number;
  readonly minAnnularAt?: readonly Place[];
  /** Narrowest place of the board itself between two of its edges, up to 3 mm. */
  readonly minBoardNeckMm?: number;
  readonly minBoardNeckAt?: readonly Place[];
  readonly minCopperToEdgeMm?: number;
  readonly minCopperToEdgeAt?: readonly Place[];
  readonly minCopperToCutoutMm?: number;
  readonly minCopperToCutoutAt?: readonly Place[];
  /** Copper to the wall of an unplated slot or routed path. */
  readonly minCopperToSlotMm?: number;
  readonly minCopperToSlotAt?: readonly Place[];
  /** Hole wall to copper it is not connected to. */
  readonly minDrillToForeignCopperMm?: number;
  readonly minDrillToForeignCopperAt?: readonly Place[];
  /** Wall of an unplated hole to any copper it does not cut. */
  readonly minNpthToCopperMm?: number;
  readonly minNpthToCopperAt?: readonly Place[];
  /** Wall to wall. */
  readonly minHoleToHoleMm?: number;
  readonly minHoleToHoleAt?: readonly Place[];
  /** Hole wall to the outline, half holes on the edge left out. */
  readonly minHoleToEdgeMm?: number;
  readonly minHoleToEdgeAt?: readonly Place[];
  readonly minMaskWebMm?: number;
  readonly minMaskWebAt?: readonly Place[];
  /** (opening − pad) / 2; negative where the mask lies on the pad. */
  readonly minMaskExpansionMm?: number;
  readonly minMaskExpansionAt?: readonly Place[];
  readonly minLegendLineMm?: number;
  readonly minLegendLineAt?: readonly Place[];
  /** Ink to the opening of a pad. */
  /** Mask opening of a pad to copper of another net; 0 where it bares it. */
  readonly minOpeningToCopperMm?: number;
  readonly minOpeningToCopperAt?: readonly Place[];
  readonly minLegendToOpeningMm?: number;
  readonly minLegendToOpeningAt?: readonly Place[];
  /** Height of the smallest text, a guess. */
  readonly minLegendTextMm?: number;
  readonly minLegendTextAt?: readonly Place[];
  /** Middles of neighbouring pads of one shape. */
  readonly minPitchMm?: number;
  readonly minPitchAt?: readonly Place[];
  readonly holes: readonly {
    readonly diameterMm: number;
    readonly plated: boolean;
    readonly count: number;
  }[];
  /** One row per tool of each drill file; left out on boards measured before it was known. */
  readonly drillTable?: readonly {
    readonly file: string;
    readonly tool?: string;
    readonly diameterMm: number;
    readonly plated: boolean;
    readonly holes: number;
    /** Slots and routed paths. */
    readonly slots: number;
    readonly use?: string;
    /** How much larger and smaller the finished hole may be, where the file says it. */
    readonly toleranceMm?: readonly [number, number];
    readonly span?: readonly [number, number];
    /** The first of its places. */
    readonly at: readonly Place[];
  }[];
  readonly slots: readonly {
    readonly widthMm: number;
    readonly lengthMm: number;
    readonly plated: boolean;
    readonly from: readonly [number, number];
    readonly to: readonly [number, number];
  }[];
  readonly routedPaths: readonly {
    readonly widthMm: number;
    readonly plated: boolean;
    readonly points: readonly (readonly [number, number])[];
  }[];
  readonly copperFlashes: Readonly<Record<string, number>>;
  readonly copperAreaMm2: Readonly<Record<string, number>>;
  readonly copperIslands: Readonly<Record<string, number>>;
  readonly smdPads: Readonly<Record<string, number>>;
  readonly throughHolePads: number;
  readonly viaPads: number;
  readonly maskOpenings: Readonly<Record<string, { readonly count: number }>>;
  readonly paste: Readonly<Record<string, { readonly count: number; readonly areaMm2: number }>>;
  /** Openings' figures per foil thickness in mm. */
  readonly stencil?: Readonly<
    Record<
      string,
      {
        readonly byThicknessMm: Readonly<Record<string, StencilFigures>>;
        readonly thickestMm: number;
        /** Openings by size, the one that releases worst first; left out on boards measured before it was known. */
        readonly apertures?: readonly PasteAperture[];
        /** Every opening: x, y, lesser and greater side, mm, up to {@link MOST_OPENINGS}; left out beyond, and on boards measured before. */
        readonly openings?: readonly number[];
        readonly pasteGrams: Readonly<Record<string, number>>;
      }
    >
  >;
  readonly edgeContacts?: Readonly<Record<string, EdgeContacts>>;
  readonly castellatedHoles?: {
    readonly count: number;
    readonly diameterMm: number;
    readonly edge: "left" | "right" | "top" | "bottom";
    readonly at?: Place;
  };
  readonly nets?: {
    readonly count: number;
    /** Nets that hold pads. */
    readonly islands?: readonly {
      readonly net: number;
      readonly name?: string;
      readonly pads: readonly {
        readonly layer: string;
        readonly x: number;
        readonly y: number;
        readonly pin?: string;
      }[];
    }[];
    /** Nets of one pad only. */
    readonly singlePad?: number;
  };
  readonly netlist?: NetlistCheck;
  readonly diff?: BoardDiff;
  readonly fiducials?: Readonly<Record<string, number>>;
  readonly testPads?: Readonly<Record<string, number>>;
  /** Unplated round holes of a millimetre and more. */
  readonly toolingHoles?: number;
  /** Boards on it where it is a panel already, as far as they can be told. */
  readonly copies?: number;
  /** Each kind of board on it; of a single board its own. Left out where the outline is open, and before it was known. */
  readonly pieces?: readonly PanelPiece[];
  /** Thickness over the smallest plated hole, where a file states the thickness. */
  readonly aspectRatio?: number;
  /** Copper over board area, per layer. */
  readonly copperShare?: Readonly<Record<string, number>>;
  /** Bare board with 35 µm copper, where a file states the thickness. */
  readonly massG?: number;
  readonly crossCheck?: CrossCheck;
  readonly findings: readonly Finding[];
}

/** One kind of board on a panel, by what tells it again however it is turned. */
export interface PanelPiece {
  /** How often it lies there. */
  readonly copies: number;
  readonly areaMm2: number;
  /** Holes but perforations, the sum of their diameters, and how far they lie from their middle, root mean square. */
  readonly holes: number;
  readonly diametersMm: number;
  readonly holesSpreadMm: number;
  /** Flashes of its top copper, and how far they lie from their middle. */
  readonly pads: number;
  readonly padsSpreadMm: number;
}

/** A hole with its plating settled. */
export interface Hole {
  readonly x: number;
  readonly y: number;
  readonly diameterMm: number;
  readonly plated: boolean;
  /** Copper layers it joins, first and last from 1; all where left out. */
  readonly span?: readonly [number, number];
}

/** A slot or routed path with its plating settled. */
export interface Slot extends Rout {
  readonly plated: boolean;
  readonly span?: readonly [number, number];
}

/** The listed nets against those extracted from the copper. */
export interface NetlistCheck {
  /** Listed names, unconnected points left out. */
  readonly nets: number;
  readonly points: number;
  readonly agrees: boolean;
}

/** A row of contacts along a straight edge of the board. */
export interface EdgeContacts {
  readonly count: number;
  readonly pitchMm: number;
  readonly widthMm: number;
  readonly lengthMm: number;
  /** From the contacts' outer ends to the edge. */
  readonly setbackMm: number;
  readonly edge: "left" | "right" | "top" | "bottom";
  /** Width of the board across the contacts' middle: of the tab that goes into the socket. */
  readonly tabMm?: number;
  /** The contact in the middle of the row. */
  readonly at?: { readonly x: number; readonly y: number };
  /** Middles of the first and the last contact. */
  readonly from?: { readonly x: number; readonly y: number };
  readonly to?: { readonly x: number; readonly y: number };
  /** The place that is left free, for a key. */
  readonly freeAt?: { readonly x: number; readonly y: number };
  /** Contacts at places of the row that are of another size, or set back otherwise. */
  readonly odd?: readonly { readonly x: number; readonly y: number }[];
  /** Gaps between neighbours that mask covers; left out without a mask layer. */
  readonly maskBetween?: number;
  /** Contacts from which copper runs on to the edge. */
  readonly tieBars?: number;
}

/** Figures of one foil thickness over all openings of a side. */
export interface StencilFigures {
  readonly minAreaRatio: number;
  readonly minAspectRatio: number;
  /** Openings whose area ratio is below 0.66. */
  readonly below066: number;
}

/** Openings of one size and shape, with what each foil makes of them. */
export interface PasteAperture {
  readonly widthMm: number;
  readonly lengthMm: number;
  readonly areaMm2: number;
  readonly count: number;
  /** Area ratio by foil thickness. */
  readonly areaRatio: Readonly<Record<string, number>>;
  /** One of them. */
  readonly x: number;
  readonly y: number;
}

/** Parts list against placement file against pads. */
export interface CrossCheck {
  readonly inBomNotPlaced: readonly string[];
  readonly placedNotInBom: readonly string[];
  readonly placedButDnp: readonly string[];
  readonly partsOnBottom: readonly string[];
  /** Parts with a pad that is drilled. */
  readonly throughHole: readonly string[];
  /** Fitted parts without a pad on the board; left out where no file says which pads are whose. */
  readonly withoutPads?: readonly string[];
  /** Pads whose part stands in no line of the list; left out likewise. */
  readonly padsWithoutPart?: readonly string[];
}
