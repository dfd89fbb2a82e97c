import { lettersOf } from "../../../bom/refs.ts";
import { netsOf } from "../../../meet/load-kinds.ts";
import type { WiredPart } from "../../../meet/wiring.ts";
import type { BoardWires } from "./board-wires.ts";
import { base, type Draft, isSignal } from "./draft.ts";

/** A word in a net's name with nothing of a longer one about it: SDA in I2C1_SDA, and not in SDATA; TX in TXD1. */
const word = (of: string) => new RegExp(`(?<![A-Z])${of}(?![A-Z+-])`, "i");

/** Nets in pairs by their names: those that are called alike but for one word. */
function pairs({ wires: w }: BoardWires, one: RegExp, two: RegExp): (readonly [number, number])[] {
  const nets = [...new Set(w.parts.flatMap(netsOf))].filter((n) => isSignal(w, n));
  const stem = (n: number, is: RegExp) => w.nameOf(n).replace(is, "*").toUpperCase();
  return nets.flatMap((a) => {
    if (!one.test(w.nameOf(a))) return [];
    const b = nets.find((n) => two.test(w.nameOf(n)) && stem(n, two) === stem(a, one));
    return b === undefined ? [] : [[a, b] as const];
  });
}
const on = (p: WiredPart, net: number) => p.pins.some((q) => q.net === net);

/** Two wires on which several chips stand: whichever asks, the others answer. */
export function buses(b: BoardWires): Draft[] {
  const { wires: w, volts, called, pinOf } = b;
  const isPlug = (p: WiredPart) => volts.connectors.some((c) => c.ref === p.ref);
  return pairs(b, word("SDA"), word("SCL")).flatMap(([data, clock]): Draft[] => {
    const both = w.parts.filter((p) => on(p, data) && on(p, clock));
    const chips = both.filter((p) => !isPlug(p) && p.pins.length >= 4);
    const [one, two] = [pinOf([data]), pinOf([clock])];
    if (chips.length < 2 || one === undefined || two === undefined) return [];
    const pulls = [data, clock].flatMap((n) => w.on(n).filter((q) => w.ohmOf(q)));
    const plugs = both.filter(isPlug).map((p) => called(p.ref));
    const many = String(chips.length - 1);
    return [
      {
        ...base,
        name: `all answer on ${called(w.nameOf(data))}, ${called(w.nameOf(clock))}`,
        state: "programmed",
        reads: [one, two],
        through: [...chips, ...pulls].map((p) => called(p.ref)),
        expect: "each at an address of its own: two that are set alike are counted once",
        unit: "pieces",
        min: many,
        max: many,
        ...(plugs.length > 0 ? { absent: plugs } : {}),
        because: `${chips.map((p) => called(p.ref)).join(", ")} are on both: one asks, the others answer${plugs.length > 0 ? `; nothing on ${plugs.join(", ")}` : ""}`,
        minutes: 0.5,
      },
    ];
  });
}

/** A way out and a way in that lie on one connector: what is sent comes back over a wire between them. */
export function loops(b: BoardWires): Draft[] {
  const { wires: w, volts, called } = b;
  return pairs(b, word("TXD?"), word("RXD?")).flatMap(([out, back]): Draft[] => {
    const plug = volts.connectors.find((c) => on(c, out) && on(c, back));
    const pin = (net: number) => plug?.pins.find((q) => q.net === net)?.pin;
    const [from, to] = [pin(out), pin(back)].map((p) => `${called(plug?.ref ?? "")}.${p}`);
    if (!plug) return [];
    const chips = w.parts.filter(
      (p) => p.ref !== plug.ref && (on(p, out) || on(p, back)) && p.pins.length >= 4,
    );
    return [
      {
        ...base,
        name: `${called(w.nameOf(out))} comes back at ${called(w.nameOf(back))}`,
        state: "programmed",
        drives: [from!],
        reads: [to!],
        through: chips.map((p) => called(p.ref)),
        expect: `with ${from} and ${to} joined what is sent comes back; with the wire taken out nothing does`,
        minutes: 0.5,
      },
    ];
  });
}

/** Parts that pass a signal on from one to the next, first to last, and each with the pin it comes in at. */
export interface Chain {
  readonly parts: readonly WiredPart[];
  readonly into: readonly string[];
}

/** Three in a row are a chain; two that feed each other may be anything. */
const LEAST = 3;

/**
 * Chains of a board: parts of one line, of three pins and more, each fed at the same pin by the same pin of another, over a net
 * that has nothing else on it but points to probe at. The end that something else feeds is the first; where both or neither are
 * fed the lower number is.
 */
export function chainsOf({ wires: w, lineOf }: BoardWires): Chain[] {
  /** "line out in" → part → the next. */
  const links = new Map<string, Map<WiredPart, WiredPart>>();
  for (const net of new Set(w.parts.flatMap(netsOf))) {
    const ends = w
      .on(net)
      .filter((p) => lettersOf(p.ref) !== "TP")
      .flatMap((p) => p.pins.filter((q) => q.net === net).map((q) => ({ p, pin: q.pin })));
    const [a, b] = ends;
    if (!a || !b || ends.length !== 2 || a.p === b.p || a.pin === b.pin || !isSignal(w, net)) continue;
    if (a.p.pins.length < 3 || lineOf.get(a.p.ref) === undefined) continue;
    if (lineOf.get(a.p.ref) !== lineOf.get(b.p.ref)) continue;
    for (const [from, to] of [
      [a, b],
      [b, a],
    ] as const) {
      const key = JSON.stringify([lineOf.get(from.p.ref)!.id, from.pin, to.pin]);
      const next = links.get(key) ?? new Map<WiredPart, WiredPart>();
      links.set(key, next.set(from.p, to.p));
    }
  }
  const found: Chain[] = [];
  for (const [key, next] of links) {
    const [, , into] = JSON.parse(key) as [string, string, string];
    const fed = new Set(next.values());
    for (const first of next.keys()) {
      if (fed.has(first)) continue;
      const parts = [first];
      for (let p = next.get(first); p && !parts.includes(p); p = next.get(p)) parts.push(p);
      if (parts.length >= LEAST) found.push({ parts, into: parts.map(() => into) });
    }
  }
  // each was found both ways round
  const isFed = ({ parts: [first], into: [pin] }: Chain) => {
    const net = first!.pins.find((q) => q.pin === pin)?.net;
    return net !== undefined && w.on(net).some((p) => p !== first);
  };
  const number = (c: Chain) => Number(/\d+/.exec(c.parts[0]!.ref)?.[0] ?? 0);
  const taken = new Set<string>();
  return found
    .sort((a, b) => Number(isFed(b)) - Number(isFed(a)) || number(a) - number(b))
    .filter((c) => {
      if (c.parts.some((p) => taken.has(p.ref))) return false;
      for (const p of c.parts) taken.add(p.ref);
      return true;
    });
}

/** A chain is counted: the first that is dark says where to look (needs N127, N129). */
export const chainItems = ({ wires: w, called }: BoardWires, chains: readonly Chain[]): Draft[] =>
  chains.map(({ parts, into }) => {
    const [first, last] = [called(parts[0]!.ref), called(parts.at(-1)!.ref)];
    const many = String(parts.length);
    const isLit = w.isLamp(parts[0]!);
    return {
      ...base,
      name: `${first} to ${last} ${isLit ? "light" : "answer"} in their order`,
      state: "programmed",
      reads: parts.map((p, i) => `${called(p.ref)}.${into[i]}`).slice(0, 200),
      through: parts.map((p) => called(p.ref)).slice(0, 200),
      expect: isLit
        ? "one after another, in each colour: the first dark one, the one before it and the joint between are to blame; a good light says nothing of a weak joint"
        : "what is sent in comes out at the end, so many steps later",
      unit: "pieces",
      min: many,
      max: many,
      because: `${first} feeds the next and so on to ${last}: ${many} by the nets`,
      minutes: 0.5,
    };
  });
