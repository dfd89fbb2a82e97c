import { refOf } from "../../../board/pins.ts";
import { lettersOf } from "../../../bom/refs.ts";
import { readValue } from "../../../bom/value.ts";
import { netsOf, other } from "../../../meet/load-kinds.ts";
import { TEST_STATES, testItemShape } from "../../../shape/test-item.ts";
import { costOfOrder, type OrderedItem, soonestOrder } from "../../../testing/order.ts";
import { Reaches } from "../../../testing/reach.ts";
import type { RunDocument, TestItem } from "../../document/document.ts";
import type { LinePart } from "../../document/parts.ts";
import { wiredOf } from "../../document/wired.ts";
import { jointWeights } from "../../stage/joint-weights.ts";
import { type BoardWires, boardWires } from "./board-wires.ts";
import { base, type Draft, four, isSignal } from "./draft.ts";
import { outputsOf, sinkingItems, startItems, unpluggedItems } from "./output-items.ts";
import { buses, chainItems, chainsOf, loops } from "./signal-items.ts";
import { cells } from "./supply-items.ts";
import { coverageOf, gainsOf } from "./test-plan.ts";

/** An item that a board itself suggests, and how many pins leave *never* with it. */
export interface StartingItem {
  readonly kind:
    | "lamp"
    | "key"
    | "level"
    | "divider"
    | "output"
    | "unplugged"
    | "sinking"
    | "clock"
    | "bus"
    | "loop"
    | "chain"
    | "cell";
  readonly item: Draft;
  readonly gains: number;
}

/** Lamps, each with its resistor where it has one of its own; those of a chain are counted with it. */
const lamps = ({ wires: w, called }: BoardWires, chained: ReadonlySet<string>): Draft[] =>
  w.parts
    .filter((p) => w.isLamp(p) && !chained.has(p.ref))
    .map((p) => {
      const series = netsOf(p).flatMap((n) => {
        const mates = w.on(n).filter((q) => q !== p);
        return mates.length === 1 && w.ohmOf(mates[0]!) ? [mates[0]!.ref] : [];
      });
      const pin = p.pins.find((q) => !w.isGround(q.net)) ?? p.pins[0]!;
      return {
        ...base,
        name: `${called(p.ref)} lights`,
        state: "programmed",
        reads: [`${called(p.ref)}.${pin.pin}`],
        through: [p.ref, ...series].map(called),
        expect: `${w.facts.wordsOf(p.ref)}: lit alone, and dark when it should be`,
      };
    });

const keys = ({ wires: w, called, pinOf }: BoardWires): Draft[] =>
  w.parts
    .filter((p) => ["SW", "S", "BTN", "PB"].includes(lettersOf(p.ref)))
    .flatMap((p): Draft[] => {
      const net = netsOf(p).find((n) => isSignal(w, n));
      const pin = net === undefined ? undefined : pinOf([net], p.ref);
      return pin === undefined
        ? []
        : [
            {
              ...base,
              name: `${called(p.ref)} is seen`,
              state: "programmed",
              reads: [pin],
              through: [called(p.ref)],
              expect: "pressed and let go, each seen once",
            },
          ];
    });

/** Signals between two resistors, or pulled to a rail where their name says that they rest high. */
function levels({ wires: w, called, pinOf }: BoardWires): {
  readonly dividers: Draft[];
  readonly levels: Draft[];
} {
  const out = { dividers: [] as Draft[], levels: [] as Draft[] };
  for (const net of new Set(w.parts.flatMap(netsOf))) {
    const ends = w.on(net).flatMap((p) => {
      const [ohm, far] = [w.ohmOf(p), other(p, net)];
      return ohm && far !== undefined ? [{ ref: p.ref, ohm, far }] : [];
    });
    const up = ends.filter((e) => w.voltsAt(e.far) !== undefined);
    const down = ends.filter((e) => w.isGround(e.far));
    const pin = pinOf([net]);
    const [high, low] = [up[0], down[0]];
    if (!isSignal(w, net) || pin === undefined || !high || up.length !== 1) continue;
    // a third resistor, to a signal, says that something else sets it
    if (ends.length !== up.length + down.length) continue;
    const volts = w.voltsAt(high.far)!;
    const made = { ...base, state: "powered" as const, reads: [pin], unit: "V" as const };
    const rail = w.nameOf(high.far);
    if (low && down.length === 1) {
      const is = (volts * low.ohm) / (high.ohm + low.ohm);
      const value = (ref: string) => `${ref} ${w.facts.valueOf(ref)}`;
      out.dividers.push({
        ...made,
        name: `${called(w.nameOf(net))} volts`,
        through: [high.ref, low.ref].map(called),
        min: four(is - 0.05 * Math.abs(is)),
        max: four(is + 0.05 * Math.abs(is)),
        because: `${four(volts)} V of ${rail} × ${value(low.ref)} / (${value(high.ref)} + ${value(low.ref)}) = ${four(is)} V, ± 5 %`,
      });
    } else if (down.length === 0 && volts > 0 && /(RST|RESET|SDA|SCL)/i.test(w.nameOf(net)))
      out.levels.push({
        ...made,
        name: `${called(w.nameOf(net))} rests high`,
        through: [called(high.ref)],
        min: four(volts * 0.8),
        max: four(volts * 1.05),
        because: `pulled to ${rail} of ${four(volts)} V by ${high.ref}`,
      });
  }
  return out;
}

const clocks = ({ wires: w, called }: BoardWires): Draft[] =>
  w.parts
    .filter((p) => ["Y", "XTAL", "X"].includes(lettersOf(p.ref)))
    .flatMap((p): Draft[] => {
      const hz = readValue(w.facts.valueOf(p.ref), p.ref).value;
      const pin = p.pins.find((q) => !w.isGround(q.net));
      if (!pin || hz?.unit !== "hertz" || hz.si < 1000) return [];
      const isMega = hz.si >= 1e6;
      const n = (k: number) => String(Number(((hz.si * k) / (isMega ? 1e6 : 1e3)).toPrecision(6)));
      return [
        {
          ...base,
          name: `${called(p.ref)} runs`,
          state: "programmed",
          reads: [`${called(p.ref)}.${pin.pin}`],
          through: [called(p.ref)],
          expect: "read at an output that follows it: a probe on the crystal itself may stop it",
          unit: isMega ? "MHz" : "kHz",
          min: n(0.999),
          max: n(1.001),
          because: `${w.facts.valueOf(p.ref)}, ± 0.1 %`,
        },
      ];
    });

/**
 * Items that a board itself suggests: its lamps one by one, keys, what rests high, dividers with the volts they come to,
 * outputs that stay off at the start, unplugged, and while the supply sinks (needs N125), clocks, what answers on a bus, what
 * comes back over a wire, chains counted (needs N127), what a cell is drawn on for. Those that the plan has are left out; the
 * rest by how many pins leave *never* with each a minute.
 */
export function startingItems(doc: RunDocument): StartingItem[] {
  const plan = doc.assembly.tests ?? [];
  const has = new Set(plan.map((t) => t.name));
  const before = coverageOf(doc);
  if (before === undefined) return [];
  const found = doc.boards.flatMap((board) => {
    const b = boardWires(doc, board);
    if (!b) return [];
    const { dividers, levels: rest } = levels(b);
    const rows = chainsOf(b);
    const switched = outputsOf(b);
    const kinds: Readonly<Record<StartingItem["kind"], Draft[]>> = {
      lamp: lamps(b, new Set(rows.flatMap((c) => c.parts.map((p) => p.ref)))),
      key: keys(b),
      level: rest,
      divider: dividers,
      output: startItems(switched),
      unplugged: unpluggedItems(b, switched),
      sinking: sinkingItems(b, switched),
      clock: clocks(b),
      bus: buses(b),
      loop: loops(b),
      chain: chainItems(b, rows),
      cell: cells(b),
    };
    return (Object.keys(kinds) as StartingItem["kind"][]).flatMap((kind) =>
      kinds[kind]
        // what the plan itself would refuse is not proposed: names and reasons that are too long
        .filter((item) => !has.has(item.name) && !testItemShape({ ...item, id: "proposed" }, ""))
        .map((item) => ({ kind, item })),
    );
  });
  const gains = gainsOf(
    doc,
    before,
    found.map((f) => f.item),
  );
  return found
    .map((f, i): StartingItem => ({ ...f, gains: gains[i]! }))
    .sort((a, b) => b.gains / b.item.minutes - a.gains / a.item.minutes);
}

/** A plan in another order, and after how many minutes a bad joint that it finds is found, in the middle, now and then. */
export interface SoonestPlan {
  readonly tests: readonly TestItem[];
  readonly nowMinutes: number;
  readonly thenMinutes: number;
}

/**
 * The plan in the order in which a fault is found soonest, state by state: a joint counts as found by the first item that
 * exercises it, by how likely such joints are bad. Nothing where no item finds anything.
 *
 * @param soldered parts as they are soldered
 */
export function soonestPlan(doc: RunDocument, soldered: readonly LinePart[]): SoonestPlan | undefined {
  const weights = jointWeights(doc, soldered);
  const weightOf = (pin: string) => weights.get(refOf(pin)) ?? 0;
  const whole = doc.assembly.tests ?? [];
  // what is tried besides the bench has no place in its order
  const plan = whole.filter((t) => !t.besides);
  const reaches = new Reaches(wiredOf(doc).parts);
  const items = plan.map((t, i): OrderedItem => {
    // power is turned up stage by stage before anything else is read under it, whatever that finds
    const state = TEST_STATES.indexOf(t.state) - (isTurnedUp(t) ? 0.5 - (0.4 * i) / plan.length : 0);
    return { id: t.id, minutes: t.minutes, state, finds: reaches.tests(t) };
  });
  const all = [...new Set(items.flatMap((i) => i.finds))].reduce((a, f) => a + weightOf(f), 0);
  if (all === 0) return undefined;
  const order = soonestOrder(items, weightOf);
  const mean = (list: readonly OrderedItem[]) => costOfOrder(list, weightOf) / all;
  return {
    tests: [...order.map((id) => plan.find((t) => t.id === id)!), ...whole.filter((t) => t.besides)],
    nowMinutes: mean(items),
    thenMinutes: mean(order.map((id) => items.find((i) => i.id === id)!)),
  };
}
/** The current into what it drives is read: power is turned up with it. */
const isTurnedUp = (t: TestItem): boolean =>
  t.state === "powered" && t.drives.length > 0 && ["A", "mA", "µA"].includes(t.unit ?? "");
