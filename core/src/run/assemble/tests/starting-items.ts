import { lettersOf } from "../../../bom/refs.ts";
import { readValue } from "../../../bom/value.ts";
import type { WiredPart } from "../../../meet/wiring.ts";
import { wiringOf } from "../../../meet/wiring.ts";
import { railOf } from "../../../netlist/rails.ts";
import { TEST_STATES } from "../../../shape/test-item.ts";
import { costOfOrder, type OrderedItem, soonestOrder } from "../../../testing/order.ts";
import type { RunBoard } from "../../document/boards.ts";
import type { RunDocument, TestItem } from "../../document/document.ts";
import type { LinePart } from "../../document/parts.ts";
import { reachOf, wiredOf } from "../../document/wired.ts";
import { jointWeights } from "../../stage/joint-weights.ts";
import { voltsOn } from "../../stage/meetings.ts";
import { coverageOf } from "./test-plan.ts";

type Draft = Omit<TestItem, "id">;
/** An item that a board itself suggests, and how many pins leave *never* with it. */
export interface StartingItem {
  readonly kind: "lamp" | "key" | "level" | "divider" | "output" | "clock";
  readonly item: Draft;
  readonly gains: number;
}

/** What of a board is looked at for items. */
interface Look {
  readonly parts: readonly WiredPart[];
  readonly on: (net: number) => readonly WiredPart[];
  readonly name: (net: number) => string;
  readonly isGround: (net: number) => boolean;
  readonly railVolts: (net: number) => number | undefined;
  readonly value: (ref: string) => string;
  readonly words: (ref: string) => string;
  /** A pin of a net, the one that is got at best, as it is called in a plan. */
  readonly pin: (net: number, but?: string) => string | undefined;
  readonly called: (ref: string) => string;
}

function lookAt(doc: RunDocument, board: RunBoard): Look {
  const lines = doc.lines.filter((l) => l.board === undefined || l.board === board.id);
  const lineOf = new Map(lines.flatMap((l) => l.refs.map((r) => [r, l] as const)));
  const parts = wiringOf(board.measure).filter((p) => !lineOf.get(p.ref)?.dnp);
  const of = doc.boards.length > 1 ? ` of ${board.name}` : "";
  const names = new Map(parts.flatMap((p) => p.pins.map((q) => [q.net, q.name ?? ""] as const)));
  const on = new Map<number, WiredPart[]>();
  for (const p of parts)
    for (const net of new Set(p.pins.map((q) => q.net))) on.set(net, [...(on.get(net) ?? []), p]);
  const rails = new Map(
    voltsOn(doc, board).power.rails.flatMap((r) => r.nets.map((n) => [n, r.volts] as const)),
  );
  return {
    parts,
    on: (net) => on.get(net) ?? [],
    name: (net) => names.get(net) || `net ${net}`,
    isGround: (net) => railOf(names.get(net) ?? "") === "ground",
    railVolts: (net) => rails.get(net),
    value: (ref) => lineOf.get(ref)?.valueText ?? "",
    words: (ref) => [lineOf.get(ref)?.valueText, lineOf.get(ref)?.description].filter(Boolean).join(", "),
    pin: (net, but) =>
      (on.get(net) ?? [])
        .filter((p) => p.ref !== but)
        .flatMap((p) =>
          p.pins
            .filter((q) => q.net === net)
            .map((q) => ({ plain: `${p.ref}.${q.pin}`, full: `${p.ref}${of}.${q.pin}` })),
        )
        .sort((a, b) => reachOf(a.plain) - reachOf(b.plain))[0]?.full,
    called: (ref) => `${ref}${of}`,
  };
}

const netsOf = (p: WiredPart) => [...new Set(p.pins.map((q) => q.net))];
const other = (p: WiredPart, net: number) => netsOf(p).find((n) => n !== net);
const ohmOf = (l: Look, p: WiredPart): number | undefined =>
  lettersOf(p.ref) === "R" && netsOf(p).length === 2 ? readValue(l.value(p.ref), p.ref).value?.si : undefined;
const base = { drives: [], reads: [], through: [], expect: "", minutes: 0.3 } as const;
const four = (x: number) => String(Number(x.toPrecision(4)));

/** Lamps, each with its resistor where it has one of its own. */
const lamps = (l: Look): Draft[] =>
  l.parts
    .filter(
      (p) =>
        ["LED", "LD"].includes(lettersOf(p.ref)) ||
        (lettersOf(p.ref) === "D" && /\b(led|lamp)\b/i.test(l.words(p.ref))),
    )
    .map((p) => {
      const series = netsOf(p).flatMap((n) => {
        const mates = l.on(n).filter((q) => q !== p);
        return mates.length === 1 && ohmOf(l, mates[0]!) ? [mates[0]!.ref] : [];
      });
      const pin = p.pins.find((q) => !l.isGround(q.net)) ?? p.pins[0]!;
      return {
        ...base,
        name: `${l.called(p.ref)} lights`,
        state: "programmed",
        reads: [`${l.called(p.ref)}.${pin.pin}`],
        through: [p.ref, ...series].map(l.called),
        expect: `${l.words(p.ref)}: lit alone, and dark when it should be`,
      };
    });

const keys = (l: Look): Draft[] =>
  l.parts
    .filter((p) => ["SW", "S", "BTN", "PB"].includes(lettersOf(p.ref)))
    .flatMap((p): Draft[] => {
      const net = netsOf(p).find((n) => !l.isGround(n) && l.railVolts(n) === undefined);
      const pin = net === undefined ? undefined : l.pin(net, p.ref);
      return pin === undefined
        ? []
        : [
            {
              ...base,
              name: `${l.called(p.ref)} is seen`,
              state: "programmed",
              reads: [pin],
              through: [l.called(p.ref)],
              expect: "pressed and let go, each seen once",
            },
          ];
    });

/** Signals between two resistors, or pulled to a rail where their name says that they rest high. */
function levels(l: Look): { readonly dividers: Draft[]; readonly levels: Draft[] } {
  const out = { dividers: [] as Draft[], levels: [] as Draft[] };
  const nets = new Set(l.parts.flatMap(netsOf));
  for (const net of nets) {
    if (l.isGround(net) || l.railVolts(net) !== undefined) continue;
    const ends = l.on(net).flatMap((p) => {
      const [ohm, far] = [ohmOf(l, p), other(p, net)];
      return ohm && far !== undefined ? [{ ref: p.ref, ohm, far }] : [];
    });
    const up = ends.filter((e) => l.railVolts(e.far) !== undefined);
    const down = ends.filter((e) => l.isGround(e.far));
    const pin = l.pin(net);
    const [high, low] = [up[0], down[0]];
    if (pin === undefined || !high || up.length !== 1 || ends.length !== up.length + down.length) continue;
    const volts = l.railVolts(high.far)!;
    const made = { ...base, state: "powered" as const, reads: [pin], unit: "V" as const };
    const rail = l.name(high.far);
    if (low && down.length === 1) {
      const is = (volts * low.ohm) / (high.ohm + low.ohm);
      out.dividers.push({
        ...made,
        name: `${l.name(net)} volts`,
        through: [high.ref, low.ref].map(l.called),
        min: four(is - 0.05 * Math.abs(is)),
        max: four(is + 0.05 * Math.abs(is)),
        because: `${four(volts)} V of ${rail} × ${low.ref} ${l.value(low.ref)} / (${high.ref} ${l.value(high.ref)} + ${low.ref} ${l.value(low.ref)}) = ${four(is)} V, ± 5 %`,
      });
    } else if (down.length === 0 && volts > 0 && /(RST|RESET|SDA|SCL)/i.test(l.name(net)))
      out.levels.push({
        ...made,
        name: `${l.name(net)} rests high`,
        through: [l.called(high.ref)],
        min: four(volts * 0.8),
        max: four(volts * 1.05),
        because: `pulled to ${rail} of ${four(volts)} V by ${high.ref}`,
      });
  }
  return out;
}

/** What a transistor switches, whose control is held off by a resistor: it is off until somebody wants it. */
const outputs = (l: Look): Draft[] =>
  l.parts
    .filter((p) => lettersOf(p.ref) === "Q")
    .flatMap((p): Draft[] => {
      const held = netsOf(p).find((n) => l.on(n).some((q) => ohmOf(l, q) && l.isGround(other(q, n) ?? -1)));
      const out = netsOf(p).find((n) => n !== held && !l.isGround(n) && l.railVolts(n) === undefined);
      const pin = out === undefined || held === undefined ? undefined : l.pin(out, p.ref);
      return pin === undefined
        ? []
        : [
            {
              ...base,
              name: `${l.name(out!)} stays off`,
              state: "powered",
              reads: [pin],
              through: [l.called(p.ref)],
              expect:
                "while it is switched on, reset, and held in reset: a lamp stands in for what hangs there",
              minutes: 0.5,
            },
          ];
    });

const clocks = (l: Look): Draft[] =>
  l.parts
    .filter((p) => ["Y", "XTAL", "X"].includes(lettersOf(p.ref)))
    .flatMap((p): Draft[] => {
      const hz = readValue(l.value(p.ref), p.ref).value;
      const pin = p.pins.find((q) => !l.isGround(q.net));
      if (!pin || hz?.unit !== "hertz" || hz.si < 1000) return [];
      const isMega = hz.si >= 1e6;
      const n = (k: number) => String(Number(((hz.si * k) / (isMega ? 1e6 : 1e3)).toPrecision(6)));
      return [
        {
          ...base,
          name: `${l.called(p.ref)} runs`,
          state: "programmed",
          reads: [`${l.called(p.ref)}.${pin.pin}`],
          through: [l.called(p.ref)],
          expect: "read at an output that follows it: a probe on the crystal itself may stop it",
          unit: isMega ? "MHz" : "kHz",
          min: n(0.999),
          max: n(1.001),
          because: `${l.value(p.ref)}, ± 0.1 %`,
        },
      ];
    });

/**
 * Items that a board itself suggests: its lamps one by one, keys, what rests high, dividers with the volts they come to,
 * outputs that stay off at the start (needs N125), clocks. Those that the plan has are left out; the rest by how many pins
 * leave *never* with each a minute.
 */
export function startingItems(doc: RunDocument): StartingItem[] {
  const plan = doc.assembly.tests ?? [];
  const has = new Set(plan.map((t) => t.name));
  const before = coverageOf(doc)?.cover.pins.never;
  if (before === undefined) return [];
  const found = doc.boards.flatMap((board) => {
    const l = lookAt(doc, board);
    const { dividers, levels: rest } = levels(l);
    const kinds = {
      lamp: lamps(l),
      key: keys(l),
      level: rest,
      divider: dividers,
      output: outputs(l),
      clock: clocks(l),
    };
    return (Object.keys(kinds) as StartingItem["kind"][]).flatMap((kind) =>
      kinds[kind].filter((item) => !has.has(item.name)).map((item) => ({ kind, item })),
    );
  });
  return found
    .map(({ kind, item }): StartingItem => {
      const tests = [...plan, { ...item, id: "proposed" }];
      const after = coverageOf({ ...doc, assembly: { ...doc.assembly, tests } });
      return {
        kind,
        item,
        gains: after?.idle.every((i) => i.id !== "proposed") ? before - after.cover.pins.never : 0,
      };
    })
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
  const plan = doc.assembly.tests ?? [];
  const { parts } = wiredOf(doc);
  const netOf = new Map<string, string | undefined>(
    parts.flatMap((p) => p.pins.map((q) => [`${p.ref}.${q.pin}`, q.net] as const)),
  );
  const finds = (t: TestItem): string[] => {
    const ends = [...t.drives, ...t.reads];
    const nets = new Set(ends.flatMap((n) => netOf.get(n) ?? []));
    const named = new Set([...ends.map((n) => (netOf.has(n) ? refOf(n) : n)), ...t.through]);
    return [...netOf].flatMap(([pin, net]) =>
      net !== undefined && nets.has(net) && named.has(refOf(pin)) ? [pin] : [],
    );
  };
  const items = plan.map((t, i): OrderedItem => {
    // power is turned up stage by stage before anything else is read under it, whatever that finds
    const state = TEST_STATES.indexOf(t.state) - (isTurnedUp(t) ? 0.5 - (0.4 * i) / plan.length : 0);
    return { id: t.id, minutes: t.minutes, state, finds: finds(t) };
  });
  const all = [...new Set(items.flatMap((i) => i.finds))].reduce((a, f) => a + weightOf(f), 0);
  if (all === 0) return undefined;
  const order = soonestOrder(items, weightOf);
  const mean = (list: readonly OrderedItem[]) => costOfOrder(list, weightOf) / all;
  return {
    tests: order.map((id) => plan.find((t) => t.id === id)!),
    nowMinutes: mean(items),
    thenMinutes: mean(order.map((id) => items.find((i) => i.id === id)!)),
  };
}
/** The current into what it drives is read: power is turned up with it. */
const isTurnedUp = (t: TestItem): boolean =>
  t.state === "powered" && t.drives.length > 0 && ["A", "mA", "µA"].includes(t.unit ?? "");
const refOf = (pin: string) => pin.slice(0, pin.lastIndexOf("."));
