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
  readonly at: { readonly x: number; readonly y: number };
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

/**
 * Control inputs without a defined state: gates, enable and reset pins that no resistor holds to a rail, so that they float
 * while the part that drives them is not up yet. A base needs current and does not float; where the bill does not say which
 * of the two a transistor is, that is told.
 *
 * @param parts those that are fitted
 */
export function floatsOf(parts: readonly WiredPart[], saidOf: (ref: string) => SaidPart): Floating[] {
  const on = new Map<number, { readonly part: WiredPart; readonly pin: WiredPin }[]>();
  for (const part of parts)
    for (const pin of part.pins) on.set(pin.net, [...(on.get(pin.net) ?? []), { part, pin }]);
  const isRail = (p: WiredPin) => p.name !== undefined && railOf(p.name) !== undefined;
  /** The far ends of the resistors on a net. */
  const over = (net: number) =>
    (on.get(net) ?? [])
      .filter(({ part }) => lettersOf(part.ref) === "R" && part.pins.length === 2)
      .map(({ part }) => part.pins.find((q) => q.net !== net))
      .filter((q): q is WiredPin => q !== undefined);
  /** Held by a resistor to a rail, on either side of a series resistor. */
  const isHeld = (net: number) =>
    over(net).some((far) => isRail(far) || over(far.net).some((p) => p.net !== net && isRail(p)));
  const out: Floating[] = [];
  const say = (ref: string, pin: WiredPin, kind: Floating["kind"], text: string, what: string) =>
    out.push({ ref, pin: pin.pin, net: pin.name ?? "", kind, text, do: what, at: { x: pin.x, y: pin.y } });
  for (const part of parts) {
    if (!["Q", "M", "T"].includes(lettersOf(part.ref))) continue;
    const control = controlOf(part);
    if (!control || isRail(control.pin) || isHeld(control.pin.net)) continue;
    const said = saidOf(part.ref);
    const words = `${said.value} ${said.description}`;
    const { pin } = control;
    const which = control.isTaken ? `${part.ref}.1, taken as its control` : `${part.ref}.${pin.pin}`;
    const onNet = pin.name === undefined ? "" : ` (${pin.name})`;
    if (FIELD_EFFECT.test(words))
      say(
        part.ref,
        pin,
        "gate",
        `${which}${onNet}, is a gate that no resistor holds: until its driver is up it may switch on by itself.`,
        "A resistor of 10 k to 100 k from the gate to the source keeps it off.",
      );
    else if (!BIPOLAR.test(words))
      say(
        part.ref,
        pin,
        "unknown-drive",
        `${which}${onNet}, has no resistor to a rail, and the bill does not say whether ${part.ref} is driven by current or by voltage.`,
        "Write in the bill what it is: a gate would float, a base does not.",
      );
  }
  for (const [net, pins] of on) {
    const { name } = pins[0]!.pin;
    const word = name?.slice(name.lastIndexOf("/") + 1).toUpperCase() ?? "";
    const kind = ENABLE.test(word) ? "enable" : RESET.test(word) ? "reset" : undefined;
    const input = pins.find(({ part }) => ["U", "IC"].includes(lettersOf(part.ref)));
    if (!kind || !input || isHeld(net)) continue;
    say(
      input.part.ref,
      input.pin,
      kind,
      `${word} of ${input.part.ref} is held by no resistor: what it is at power-up hangs on the part alone.`,
      kind === "reset"
        ? "Many controllers hold it themselves; look into the data sheet, else 10 k to the supply."
        : "A resistor to the rail that means “off” makes it safe; look into the data sheet for one inside.",
    );
  }
  return out;
}
