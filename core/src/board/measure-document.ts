import type { Place } from "./copper.ts";
import type { CrossCheck } from "./cross-check.ts";
import type { Finding } from "./findings.ts";
import type { Because, Role, Side } from "./role.ts";

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

/** The document `measure/1`: everything measured from a drop. A key whose value cannot be known is left out. */
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
  };
  /** Box of the closed outline, else of the copper: x0, y0, x1, y1 in the files' coordinates. */
  readonly extentMm?: readonly [number, number, number, number];
  readonly copperLayers: number;
  readonly thicknessMm?: number;
  readonly minTrackMm?: number;
  readonly minTrackAt?: readonly Place[];
  readonly minSpaceMm?: number;
  readonly minSpaceAt?: readonly Place[];
  readonly minNetSpaceMm?: number;
  readonly minNetSpaceAt?: readonly Place[];
  readonly minHoleMm?: number;
  readonly minHoleAt?: readonly Place[];
  readonly minAnnularMm?: number;
  readonly minAnnularAt?: readonly Place[];
  readonly minCopperToEdgeMm?: number;
  readonly minCopperToEdgeAt?: readonly Place[];
  readonly minCopperToCutoutMm?: number;
  readonly minMaskWebMm?: number;
  readonly minMaskWebAt?: readonly Place[];
  readonly minLegendLineMm?: number;
  readonly minLegendLineAt?: readonly Place[];
  readonly holes: readonly {
    readonly diameterMm: number;
    readonly plated: boolean;
    readonly count: number;
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
  readonly castellatedHoles?: {
    readonly count: number;
    readonly diameterMm: number;
    readonly edge: "left" | "right" | "top" | "bottom";
  };
  readonly nets?: { readonly count: number };
  readonly crossCheck?: CrossCheck;
  readonly findings: readonly Finding[];
}

/** A hole with its plating settled. */
export interface Hole {
  readonly x: number;
  readonly y: number;
  readonly diameterMm: number;
  readonly plated: boolean;
}
