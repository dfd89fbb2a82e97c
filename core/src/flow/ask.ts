/** A pad of a part where it lies on the board, mm as in the files. */
export interface FlowPin {
  readonly ref: string;
  readonly pin: string;
  readonly layer: string;
  readonly x: number;
  readonly y: number;
}
/** What draws from a net, or gives back to it, shared by its pads as the copper has it. */
export interface FlowTap {
  readonly ref: string;
  readonly pins: readonly FlowPin[];
  readonly ma: number;
}
/** Copper that current flows through, from where it comes in (or goes out) to what draws. */
export interface FlowAsk {
  /** Its number in the measure. */
  readonly net: number;
  readonly name: string;
  readonly isReturn: boolean;
  /** Of the supply it carries, where they are known. */
  readonly volts?: number;
  readonly entry: readonly FlowPin[];
  readonly taps: readonly FlowTap[];
}
/** What the files do not say: thickness of copper and board, as ordered. */
export interface FlowCopper {
  readonly outerMm: number;
  readonly innerMm: number;
  readonly boardMm: number;
}
