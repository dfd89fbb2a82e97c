/** The generator's own drawing list: what the writers write and what expected figures are counted from. */

/** A pad in board coordinates. */
export interface Pad {
  readonly ref: string;
  readonly pin: string;
  readonly net: string;
  readonly x: number;
  readonly y: number;
  readonly shape: "circle" | "rect" | "oval" | "rounded";
  readonly w: number;
  readonly h: number;
  readonly side: "top" | "bottom" | "through";
  readonly drill?: number;
  readonly function:
    | "SMDPad,CuDef"
    | "ComponentPad"
    | "ViaPad"
    | "FiducialPad,Global"
    | "ConnectorPad"
    | "CastellatedPad";
  readonly mask: boolean;
  readonly paste: boolean;
}

/** A straight piece of track. */
export interface Track {
  readonly net: string;
  readonly layer: "top" | "bottom";
  readonly x1: number;
  readonly y1: number;
  readonly x2: number;
  readonly y2: number;
  readonly width: number;
}

/** A piece of outline or of a cut-out: a line, or an arc about a centre. */
export interface Edge {
  readonly x1: number;
  readonly y1: number;
  readonly x2: number;
  readonly y2: number;
  readonly arc?: { readonly cx: number; readonly cy: number; readonly ccw: boolean };
}

export interface Ink {
  readonly side: "top" | "bottom";
  readonly width: number;
  readonly lines: readonly (readonly [number, number, number, number])[];
}

/** A part of the parts list and, with a footprint, of the board. */
export interface Part {
  readonly ref: string;
  readonly value: string;
  readonly package: string;
  readonly mpn: string;
  readonly maker: string;
  readonly description: string;
  readonly dnp?: boolean;
  readonly x?: number;
  readonly y?: number;
  readonly rotation?: number;
  readonly side?: "top" | "bottom";
  readonly smd: boolean;
}

export interface Design {
  readonly name: string;
  readonly revision: string;
  readonly thickness: number;
  readonly edges: readonly Edge[];
  readonly cutouts: readonly (readonly Edge[])[];
  readonly pads: readonly Pad[];
  readonly tracks: readonly Track[];
  readonly fills: readonly {
    readonly layer: "top" | "bottom";
    readonly net: string;
    readonly outer: readonly number[];
    readonly holes: readonly (readonly number[])[];
  }[];
  readonly ink: readonly Ink[];
  readonly parts: readonly Part[];
  /** Unplated round holes and slots. */
  readonly holes: readonly { readonly x: number; readonly y: number; readonly d: number }[];
  readonly slots: readonly {
    readonly x1: number;
    readonly y1: number;
    readonly x2: number;
    readonly y2: number;
    readonly d: number;
    readonly plated: boolean;
  }[];
  readonly maskExtra: readonly {
    readonly side: "top" | "bottom";
    readonly x: number;
    readonly y: number;
    readonly w: number;
    readonly h: number;
  }[];
}

/** A rounded rectangle as edges, counter-clockwise from the lower left. */
export function roundedRect(x: number, y: number, w: number, h: number, r: number): Edge[] {
  const line = (x1: number, y1: number, x2: number, y2: number): Edge => ({ x1, y1, x2, y2 });
  const arc = (x1: number, y1: number, x2: number, y2: number, cx: number, cy: number): Edge => ({
    x1,
    y1,
    x2,
    y2,
    arc: { cx, cy, ccw: true },
  });
  return [
    line(x + r, y, x + w - r, y),
    arc(x + w - r, y, x + w, y + r, x + w - r, y + r),
    line(x + w, y + r, x + w, y + h - r),
    arc(x + w, y + h - r, x + w - r, y + h, x + w - r, y + h - r),
    line(x + w - r, y + h, x + r, y + h),
    arc(x + r, y + h, x, y + h - r, x + r, y + h - r),
    line(x, y + h - r, x, y + r),
    arc(x, y + r, x + r, y, x + r, y + r),
  ];
}
