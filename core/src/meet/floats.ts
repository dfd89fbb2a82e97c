import { lettersOf } from "../bom/refs.ts";
import { railOf } from "../netlist/rails.ts";
import type { WiredPart, WiredPin } from "./wiring.ts";

/** What a part is, as the bill says it. */
export interface SaidPart {
  readonly value: string;
  readonly description: string;
}
/** A control input that nothing holds while nothing drives it. */
export interface Floating {
  readonly ref: string;
  readonly pin: string;
  readonly net: string;
  readonly kind: "gate" | "enable" | "reset" | "unknown-drive";
  readonly text: string;
  readonly do: string;
  readonly at: { readonly layer: string; readonly x: number; readonly y: number };
}

const FIELD_EFFECT = /\bfet\b|mosfet|\b[np]-?(ch(annel)?)\b/i;
const BIPOLAR = /\bnpn\b|\bpnp\b|bipolar|\bbjt\b/i;
const CONTROL = new Set(["G", "GATE", "B", "BASE"]);
const ENABLE = /^(N|!|~)?(EN|ENABLE|SHDN|SHUTDOWN|OE|CE)\d*(_N|#)?$/;
const RESET = /^(N|!|~)?(RST|RESET|MCLR|CLR)\d*(_N|#|B)?$/;

/** The pin that controls a transistor: by its name, else pin 1 of three, as small outlines have it. */
function controlOf(p: WiredPart): { readonly pin: WiredPin; readonly isTaken: boolean } | undefined {
  const named = p.pins.find((q) => CONTROL.has(q.pin.toUpperCase()));
  if (named) return { pin: named, isTaken: false };
  const first = p.pins.length === 3 ? p.pins.find((q) => q.pin === "1") : undefined;
  return first && { pin: first, isTaken: true };
}

/** Every pin of the board by its net. */
type OnNets = ReadonlyMap<number, readonly { readonly part: WiredPart; readonly pin: WiredPin }[]>;
const isRail = (p: WiredPin) => p.name !== undefined && railOf(p.name) !== undefined;

/** Held by a resistor to a rail, on either side of a series resistor. */
function isHeld(net: number, on: OnNets): boolean {
  /** The far ends of the resistors on a net. */
  const over = (n: number) =>
    (on.get(n) ?? [])
      .filter(({ part }) => lettersOf(part.ref) === "R" && part.pins.length === 2)
      .map(({ part }) => part.pins.find((q) => q.net !== n))
      .filter((q): q is WiredPin => q !== undefined);
  return over(net).some((far) => isRail(far) || over(far.net).some((p) => p.net !== net && isRail(p)));
}

const told = (
  part: WiredPart,
  pin: WiredPin,
  kind: Floating["kind"],
  text: string,
  what: string,
): Floating => ({
  ref: part.ref,
  pin: pin.pin,
  net: pin.name ?? "",
  kind,
  text,
  do: what,
  at: { layer: pin.layer, x: pin.x, y: pin.y },
});

/** What a transistor's control says of itself; nothing where it is held. */
function control(part: WiredPart, said: SaidPart, on: OnNets): Floating[] {
  const found = ["Q", "M", "T"].includes(lettersOf(part.ref)) ? controlOf(part) : undefined;
  if (!found || isRail(found.pin) || isHeld(found.pin.net, on)) return [];
  const { pin } = found;
  const words = `${said.value} ${said.description}`;
  const onNet = pin.name === undefined ? "" : ` (${pin.name})`;
  const which = found.isTaken
    ? `${part.ref}.1, taken as its control${onNet},`
    : `${part.ref}.${pin.pin}${onNet}`;
  if (FIELD_EFFECT.test(words))
    return [
      told(
        part,
        pin,
        "gate",
        `${which} is a gate that no resistor holds: until its driver is up it may switch on by itself.`,
        "A resistor of 10 k to 100 k from the gate to the source keeps it off.",
      ),
    ];
  if (BIPOLAR.test(words)) return [];
  return [
    told(
      part,
      pin,
      "unknown-drive",
      `${which} has no resistor to a rail, and the bill does not say whether ${part.ref} is driven by current or by voltage.`,
      "Write in the bill what it is: a gate would float, a base does not.",
    ),
  ];
}

/** An enable or a reset of a part, by what its net is called. */
function input(net: number, pins: readonly { part: WiredPart; pin: WiredPin }[], on: OnNets): Floating[] {
  const { name } = pins[0]!.pin;
  const word = name?.slice(name.lastIndexOf("/") + 1).toUpperCase() ?? "";
  const kind = ENABLE.test(word) ? "enable" : RESET.test(word) ? "reset" : undefined;
  const found = pins.find(({ part }) => ["U", "IC"].includes(lettersOf(part.ref)));
  if (!kind || !found || isHeld(net, on)) return [];
  return [
    told(
      found.part,
      found.pin,
      kind,
      `${word} of ${found.part.ref} is held by no resistor: what it is at power-up hangs on the part alone.`,
      kind === "reset"
        ? "Many controllers hold it themselves; look into the data sheet, else 10 k to the supply."
        : "A resistor to the rail that means “off” makes it safe; look into the data sheet for one inside.",
    ),
  ];
}

/**
 * Control inputs without a defined state: gates, enable and reset pins that no resistor holds to a rail, so that they float
 * while the part that drives them is not up yet. A base needs current and does not float; where the bill does not say which
 * of the two a transistor is, that is told.
 *
 * @param parts those that are fitted
 */
export function floatsOf(parts: readonly WiredPart[], saidOf: (ref: string) => SaidPart): Floating[] {
  const on = new Map<number, { part: WiredPart; pin: WiredPin }[]>();
  for (const part of parts)
    for (const pin of part.pins) {
      const list = on.get(pin.net);
      if (list) list.push({ part, pin });
      else on.set(pin.net, [{ part, pin }]);
    }
  return [
    ...parts.flatMap((p) => control(p, saidOf(p.ref), on)),
    ...[...on].flatMap(([net, pins]) => input(net, pins, on)),
  ];
}
