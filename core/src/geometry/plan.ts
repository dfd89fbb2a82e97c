/** A drawing to scale, in mm, y up: what is printed one to one, or fitted onto a page. */
export interface Plan {
  readonly title: string;
  readonly subtitle: string;
  readonly box: readonly [number, number, number, number];
  /** Filled areas: outer rings and holes by the even-odd rule. */
  readonly areas: readonly {
    readonly rings: readonly (readonly number[])[];
    readonly tone: "board" | "frame" | "hole" | "none";
  }[];
  readonly lines: readonly {
    readonly x1: number;
    readonly y1: number;
    readonly x2: number;
    readonly y2: number;
    readonly kind: "edge" | "score" | "dimension" | "guide";
  }[];
  readonly circles: readonly {
    readonly x: number;
    readonly y: number;
    readonly d: number;
    readonly isFilled?: boolean;
  }[];
  readonly texts: readonly {
    readonly x: number;
    readonly y: number;
    readonly mm: number;
    readonly text: string;
    readonly isMiddle?: boolean;
    readonly isUpright?: boolean;
  }[];
  /** A bar of this length that shows whether the printer kept the size. */
  readonly barMm?: number;
  readonly notes: readonly string[];
}
