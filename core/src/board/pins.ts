import type { Measure } from "./measure-document.ts";

/** A pad whose pin the files tell. */
export interface KnownPin {
  readonly x: number;
  readonly y: number;
  /** Part and pin: "U1.4". */
  readonly pin: string;
}

/** Pads of a side whose pin the files tell. */
export const pinsOn = (measure: Pick<Measure, "nets">, side: "top" | "bottom"): KnownPin[] =>
  (measure.nets?.islands ?? []).flatMap((n) =>
    n.pads.flatMap((p) => (p.layer === side && p.pin !== undefined ? [{ x: p.x, y: p.y, pin: p.pin }] : [])),
  );

/** The part of a pin's name: "U1" of "U1.4"; nothing of none. */
export const refOf = <P extends string | undefined>(pin: P): P =>
  (pin === undefined ? undefined : pin.replace(/\.[^.]*$/, "")) as P;
