import type { CoverPart } from "../../cover/cover.ts";
import type { RunDocument } from "./document.ts";

/** Parts of a run's boards with their pins and nets, and where each pin is. */
export interface Wired {
  readonly parts: CoverPart[];
  readonly at: Map<
    string,
    { readonly board: number; readonly layer: string; readonly x: number; readonly y: number }
  >;
  /** Every pad of every pin: one that goes through has one on each layer. */
  readonly pads: {
    readonly name: string;
    readonly board: number;
    readonly layer: string;
    readonly x: number;
    readonly y: number;
  }[];
}

/** Parts with their pins by the boards' own nets; of several boards each is called with its board. */
export function wiredOf(doc: RunDocument): Wired {
  const parts = new Map<string, { pin: string; net: string }[]>();
  const at: Wired["at"] = new Map();
  const pads: Wired["pads"] = [];
  doc.boards.forEach((b, board) => {
    const of = doc.boards.length > 1 ? ` of ${b.name}` : "";
    for (const island of b.measure.nets?.islands ?? [])
      for (const pad of island.pads) {
        const dot = pad.pin?.indexOf(".") ?? -1;
        if (pad.pin === undefined || dot < 1) continue;
        const [ref, pin] = [`${pad.pin.slice(0, dot)}${of}`, pad.pin.slice(dot + 1)];
        const name = `${ref}.${pin}`;
        pads.push({ name, board, layer: pad.layer, x: pad.x, y: pad.y });
        if (at.has(name)) continue;
        at.set(name, { board, layer: pad.layer, x: pad.x, y: pad.y });
        const list = parts.get(ref) ?? [];
        list.push({ pin, net: `${island.name ?? `net ${island.net}`}${of}` });
        parts.set(ref, list);
      }
  });
  return { parts: [...parts].map(([ref, pins]) => ({ ref, pins })), at, pads };
}

/** References one gets at with a needle, the best first: test points, connectors, then anything with leads out. */
const REACH: readonly RegExp[] = [/^(TP|T)\d/, /^(J|P|X|CN)\d/, /^(R|C|L|D)\d/];
/** How well a pin is got at with a needle: 0 the best. */
export const reachOf = (pin: string): number => {
  const k = REACH.findIndex((is) => is.test(pin));
  return k < 0 ? REACH.length : k;
};
