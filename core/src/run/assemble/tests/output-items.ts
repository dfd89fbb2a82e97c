import { lettersOf } from "../../../bom/refs.ts";
import { netsOf, other } from "../../../meet/load-kinds.ts";
import type { WiredPart } from "../../../meet/wiring.ts";
import type { BoardWires } from "./board-wires.ts";
import { base, type Draft, isSignal } from "./draft.ts";

/** Something a transistor switches, whose control is held off by a resistor. */
export interface SwitchedOutput {
  readonly by: WiredPart;
  readonly control: number;
  /** What its net is called, and where it is read. */
  readonly name: string;
  readonly pin: string;
  readonly through: readonly string[];
}

/** What is switched on a board: it is off until somebody wants it. */
export function outputsOf({ wires: w, called, pinOf }: BoardWires): SwitchedOutput[] {
  return w.parts
    .filter((p) => lettersOf(p.ref) === "Q")
    .flatMap((by): SwitchedOutput[] => {
      const control = netsOf(by).find((n) => w.on(n).some((q) => w.ohmOf(q) && w.isGround(other(q, n))));
      const out = netsOf(by).find((n) => n !== control && isSignal(w, n));
      const pin = out === undefined || control === undefined ? undefined : pinOf([out], by.ref);
      return pin === undefined
        ? []
        : [{ by, control: control!, name: called(w.nameOf(out!)), pin, through: [called(by.ref)] }];
    });
}

/** Each output while the board is switched on and reset (needs N125). */
export const startItems = (list: readonly SwitchedOutput[]): Draft[] =>
  list.map((o) => ({
    ...base,
    name: `${o.name} stays off`,
    state: "powered",
    reads: [o.pin],
    through: o.through,
    expect: "while it is switched on, reset, and held in reset: a lamp stands in for what hangs there",
    minutes: 0.5,
  }));

/** Outputs whose control comes in over a connector, with nothing on it: by itself or through a resistor. */
export function unpluggedItems(
  { wires: w, volts, called }: BoardWires,
  list: readonly SwitchedOutput[],
): Draft[] {
  return list.flatMap((o): Draft[] => {
    const across = w.on(o.control).flatMap((q) => {
      const far = w.ohmOf(q) === undefined ? undefined : other(q, o.control);
      return far === undefined || !isSignal(w, far) ? [] : [far];
    });
    const plug = volts.connectors.find((c) => netsOf(c).some((n) => n === o.control || across.includes(n)));
    return plug
      ? [
          {
            ...base,
            name: `${o.name} stays off with ${called(plug.ref)} unplugged`,
            state: "powered",
            reads: [o.pin],
            through: o.through,
            absent: [called(plug.ref)],
            expect:
              "while it is switched on, and when the plug is drawn under power: nothing holds its control then",
            minutes: 0.5,
          },
        ]
      : [];
  });
}

/** All outputs while the supply sinks and comes back: what resets late lets them float. */
export function sinkingItems(b: BoardWires, list: readonly SwitchedOutput[]): Draft[] {
  const rail = b.volts.power.rails.find((r) => r.sources.length > 0 && r.volts !== undefined);
  const pin = rail && b.pinOf(rail.nets);
  return list.length === 0 || pin === undefined
    ? []
    : [
        {
          ...base,
          name: b.called("outputs stay off while the supply sinks"),
          state: "programmed",
          drives: [pin],
          reads: [...new Set(list.map((o) => o.pin))],
          through: [...new Set(list.flatMap((o) => o.through))],
          expect: `turned down from ${rail!.volts} V to nothing and up again, slowly, then by a jerk: none of them comes on`,
          minutes: 1,
        },
      ];
}
