import Big from "big.js";
import { lettersOf } from "../bom/refs.ts";
import { railOf } from "../netlist/rails.ts";
import { voltsOfName } from "./row.ts";
import { isLink, type WiredPart, type WiredPin } from "./wiring.ts";

/** One way a link may be set. */
export interface LinkPosition {
  readonly name: string;
  /** Pins it joins; none where it is left open. */
  readonly joins?: readonly [string, string];
  /** What it does, in the words of who knows the board. */
  readonly does: string;
}
/** A link, solder bridge, strap or switch of a product's board that has to be set, and how. */
export interface LinkRow {
  readonly id: string;
  readonly board?: string;
  readonly ref: string;
  readonly positions: readonly LinkPosition[];
  readonly set: string;
  readonly variants: Readonly<Record<string, string>>;
  readonly isCap: boolean;
}
export interface LinkStanding {
  readonly row: LinkRow;
  readonly part: WiredPart | undefined;
  /** As it is set for the version that is made. */
  readonly position: LinkPosition | undefined;
  /** Positions that hurt, by name, and why. */
  readonly hurts: Readonly<Record<string, string>>;
}

/** What may be set by hand: two or three places of a link, a solder bridge or a switch. */
export const maySet = (part: WiredPart): boolean =>
  part.pins.length >= 2 && part.pins.length <= 3 && (isLink(part) || lettersOf(part.ref) === "SW");

const netOf = (p: WiredPin) => p.name ?? "a net without a name";

/** The positions a part of two or three places may have, by the nets they join; what each does is for a person to say. */
export function proposedPositions(part: WiredPart): LinkPosition[] {
  const open: LinkPosition = { name: "open", does: "" };
  const [a, b, c] = part.pins;
  if (!a || !b) return [open];
  const join = (x: WiredPin, y: WiredPin): LinkPosition => ({
    name: `${x.pin}–${y.pin}`,
    joins: [x.pin, y.pin],
    does: "",
  });
  return c ? [join(a, b), join(b, c), open] : [join(a, b), open];
}

/** Why a position hurts: it puts a supply on ground, or two supplies on each other. */
function hurt(part: WiredPart, { joins }: LinkPosition): string | undefined {
  const [a, b] = (joins ?? []).map((pin) => part.pins.find((p) => p.pin === pin));
  if (!a?.name || !b?.name || a.net === b.net) return undefined;
  const rails = [railOf(a.name), railOf(b.name)];
  if (rails.includes("ground") && rails.includes("supply")) return `it puts ${netOf(a)} on ${netOf(b)}`;
  const volts = [voltsOfName(a.name), voltsOfName(b.name)];
  const areSupplies = rails[0] === "supply" && rails[1] === "supply";
  if (
    areSupplies &&
    volts[0] !== undefined &&
    volts[1] !== undefined &&
    Big(volts[0]).minus(volts[1]).abs().gt("0.1")
  )
    return `it joins ${netOf(a)} and ${netOf(b)}`;
  return undefined;
}

/** A link as it stands for a version of the product. @param variant its id; none: the bill as it is */
export function judgeLink(row: LinkRow, parts: readonly WiredPart[], variant?: string): LinkStanding {
  const part = parts.find((p) => p.ref === row.ref);
  const set = (variant !== undefined && row.variants[variant]) || row.set;
  const hurts = Object.fromEntries(
    row.positions.flatMap((p) => {
      const because = part && hurt(part, p);
      return because ? [[p.name, because]] : [];
    }),
  );
  return { row, part, position: row.positions.find((p) => p.name === set), hurts };
}

/** Nets that a link as it is set puts on a named rail: net → the rail's name and the link that does it. */
export function railsByLinks(
  standings: readonly LinkStanding[],
): ReadonlyMap<number, { readonly name: string; readonly by: string }> {
  const out = new Map<number, { name: string; by: string }>();
  for (const { part, position, row } of standings) {
    const [a, b] = (position?.joins ?? []).map((pin) => part?.pins.find((p) => p.pin === pin));
    if (!a || !b) continue;
    for (const [on, rail] of [
      [a, b],
      [b, a],
    ] as const)
      if (rail.name !== undefined && railOf(rail.name) && (on.name === undefined || !railOf(on.name)))
        out.set(on.net, { name: rail.name, by: `${row.ref} ${position!.name}` });
  }
  return out;
}
