import type { Wires } from "../../../meet/load-kinds.ts";
import type { TestItem } from "../../document/document.ts";

/** An item that is not in a plan yet. */
export type Draft = Omit<TestItem, "id">;

/** What of a suggested item is nothing, or as usual, where it is not said. */
export const base = { drives: [], reads: [], through: [], expect: "", minutes: 0.3 } as const;

/** Neither ground nor a rail, whatever its volts. */
export const isSignal = (w: Wires, net: number): boolean => !w.isGround(net) && !w.railOfNet.has(net);

/** Four digits of a figure, as decimal text. */
export const four = (x: number): string => String(Number(x.toPrecision(4)));
