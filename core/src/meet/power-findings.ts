import Big from "big.js";
import { compareRefs } from "../bom/refs.ts";
import type { PowerFinding, PowerRail, PowerSource } from "./supplies.ts";
import type { WiredPart, WiredPin } from "./wiring.ts";

const says = (s: PowerSource) =>
  `${s.what === "cell" ? `the cell ${s.ref}` : `${s.what} at ${s.ref}.${s.pin}`}${s.volts === undefined ? "" : ` (${s.volts} V)`}`;
const list = (refs: readonly string[]) => [...refs].sort(compareRefs).slice(0, 4).join(", ");

/** Supplies that feed one another, that feed nobody, or that have no way back; only what follows from what was said. */
export function supplyFindings(
  parts: readonly WiredPart[],
  rails: readonly PowerRail[],
  all: readonly PowerSource[],
  grounds: ReadonlySet<number>,
): PowerFinding[] {
  const placeOf = (s: { readonly ref: string; readonly pin: string }) => {
    const p: WiredPin | undefined = parts.find((x) => x.ref === s.ref)?.pins.find((q) => q.pin === s.pin);
    return p ? { at: { layer: p.layer, x: p.x, y: p.y } } : {};
  };
  const out: PowerFinding[] = [];
  for (const r of rails) {
    const name = r.names[0] ?? "a net without a name";
    const refs = [...new Set(r.sources.map((s) => s.ref))];
    if (refs.length > 1) {
      const [a, b] = [r.sources[0]!, r.sources.find((s) => s.ref !== r.sources[0]!.ref)!];
      const only = r.through.length > 0 ? `only ${list(r.through)}, which keeps nothing apart` : "nothing";
      const cell = r.sources.find((s) => s.isCell);
      const apart =
        a.volts === undefined || b.volts === undefined ? undefined : Big(a.volts).minus(b.volts).abs();
      out.push({
        kind: cell ? "cell-fed" : "two-sources",
        text: `${says(a)} and ${says(b)} both feed ${name}: between them is ${only}.${cell ? " A cell that is not made to be charged may leak or burst." : apart?.gt("0.1") ? ` They are ${apart} V apart.` : ""}`,
        do: "Put a diode or a switch in the way of each, or say that only one is ever there.",
        ...placeOf(b),
      });
    }
    if (r.sources.length > 0 && r.loads.length === 0 && r.links.length === 0)
      out.push({
        kind: "nobody-loads",
        text: `${says(r.sources[0]!)} feeds ${name}, and nothing draws from it.`,
        do: "Look whether a link, a coil or a diode to the rest is missing.",
        ...placeOf(r.sources[0]!),
      });
  }
  // a supply that comes in and has no way back
  for (const ref of new Set(all.filter((s) => !s.isCell).map((s) => s.ref))) {
    const part = parts.find((p) => p.ref === ref);
    if (!part || part.pins.some((p) => grounds.has(p.net))) continue;
    const own = all.find((s) => s.ref === ref)!;
    out.push({
      kind: "no-return",
      text: `${says(own)} has no ground beside it: its current has no way back over ${ref}.`,
      do: "Look whether another connector is the return, and that it is never left off.",
      ...placeOf(own),
    });
  }
  // only where somebody said what feeds the board at all
  if (all.length > 0) {
    const reached = new Set<number>(rails.flatMap((r, i) => (r.sources.length > 0 ? [i] : [])));
    for (const i of reached) for (const l of rails[i]!.links) reached.add(l.to);
    rails.forEach((r, i) => {
      if (reached.has(i) || r.loads.length === 0) return;
      out.push({
        kind: "nobody-feeds",
        text: `${r.names[0] ?? "a net"} feeds ${list(r.loads)}${r.loads.length > 4 ? " and more" : ""}, and nothing that is known feeds it.`,
        do: "Say what is put onto the connector that feeds it, or what gives it.",
      });
    });
  }
  return out;
}
