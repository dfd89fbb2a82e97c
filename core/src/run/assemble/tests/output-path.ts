import Big from "big.js";
import { lettersOf } from "../../../bom/refs.ts";
import type { FlowAsk, FlowPin } from "../../../flow/ask.ts";
import type { Flow } from "../../../flow/flow.ts";
import { netsOf } from "../../../meet/load-kinds.ts";
import { isConnector, type WiredPart } from "../../../meet/wiring.ts";
import { isRatingOf, type OutputRating } from "../../../testing/load.ts";
import type { RunBoard } from "../../document/boards.ts";
import type { RunDocument, TestItem } from "../../document/document.ts";
import { type BoardWires, boardWires } from "./board-wires.ts";
import { type FlowPlan, flowCopper } from "./flow-asks.ts";

/** The copper an output's current goes through: from each contact to each part it is said to go through, on the nets they share. */
export interface OutputPath {
  readonly board: RunBoard;
  /** All of the planned load flows through each. */
  readonly asks: readonly FlowAsk[];
  readonly copper: FlowPlan["copper"];
  readonly assumed: readonly string[];
  /** What is not followed, and what would have to be said for it. */
  readonly left: readonly string[];
}

/** Pads that carry nothing, whatever is said to go through them. */
const NO_CARRIERS = new Set(["TP", "C"]);
/** More pairs than any output has. */
const MOST_ASKS = 12;

/** A part an item names, and which of its pins where it names some. */
interface Named {
  readonly part: WiredPart;
  readonly pins: ReadonlySet<string>;
}

/**
 * Where an output's current flows on its board, to be followed through the copper ({@link Flow}) and judged by {@link pathRatings}.
 *
 * @param options what is ordered of the bare board
 * @returns nothing where no load is planned or no board has what the item names
 */
export function outputPath(
  doc: RunDocument,
  item: TestItem,
  options: RunDocument["options"] = doc.options,
): OutputPath | undefined {
  if (!item.load) return undefined;
  for (const board of doc.boards) {
    const b = boardWires(doc, board);
    const named = b ? namedOn(b, item) : [];
    if (b && named.length > 0) return onBoard(b, board, named, item, options);
  }
  return undefined;
}

/** Parts of a board that an item names: with a pin, without, or as what carries something in its path. */
function namedOn({ wires, called }: BoardWires, item: TestItem): Named[] {
  const words = [...item.drives, ...item.reads, ...item.through];
  const carriers = item.load?.ratings.map((r) => r.what) ?? [];
  return wires.parts.flatMap((part): Named[] => {
    const name = called(part.ref);
    if (NO_CARRIERS.has(lettersOf(part.ref))) return [];
    const pins = words.filter((w) => w.startsWith(`${name}.`)).map((w) => w.slice(name.length + 1));
    const isNamed = words.includes(name) || carriers.some((c) => isRatingOf(c, name));
    return pins.length > 0 || isNamed ? [{ part, pins: new Set(pins) }] : [];
  });
}

/** Pads of a named part on a net: those it names, all where it names none. */
const padsOn = ({ part, pins }: Named, net: number): FlowPin[] =>
  part.pins
    .filter((q) => q.net === net && (pins.size === 0 || pins.has(q.pin)))
    .map(({ pin, layer, x, y }) => ({ ref: part.ref, pin, layer, x, y }));

function onBoard(
  b: BoardWires,
  board: RunBoard,
  named: readonly Named[],
  item: TestItem,
  options: RunDocument["options"],
): OutputPath {
  const ma = Number(item.load!.amps) * 1000;
  const assumed = new Set<string>();
  const left: string[] = [];
  const asks: FlowAsk[] = [];
  const plugs = named.filter((n) => isConnector(n.part));
  if (!plugs.some((n) => n.pins.size > 0))
    left.push("over which contact it leaves the board is not said: name it where it is driven or read");
  for (const net of new Set(named.flatMap((n) => netsOf(n.part)))) {
    const on = named
      .flatMap((n) => {
        const pads = padsOn(n, net);
        return pads.length > 0 ? [{ ...n, pads, isPlug: plugs.includes(n) }] : [];
      })
      .sort((x, y) => Number(y.isPlug) - Number(x.isPlug));
    const [entry, ...others] = on;
    // a connector nobody names a pin of is on many nets that are none of this output's
    if (!entry || (entry.isPlug && entry.pins.size === 0)) continue;
    if (entry.isPlug && others.length === 0)
      left.push(`what feeds ${nameOf(b, entry.pads)} is not said: name it under Through`);
    for (const o of others)
      asks.push({
        net,
        name: b.wires.nameOf(net),
        isReturn: false,
        entry: entry.pads,
        taps: [{ ref: o.part.ref, pins: o.pads, ma }],
      });
  }
  if (asks.length > MOST_ASKS)
    left.push(
      `only the first ${MOST_ASKS} of ${asks.length} ways are followed: name fewer parts under Through`,
    );
  return {
    board,
    asks: asks.slice(0, MOST_ASKS),
    copper: flowCopper(options, board, assumed),
    assumed: [...assumed],
    left,
  };
}

const nameOf = (b: BoardWires, pads: readonly FlowPin[]): string => {
  const [first] = pads;
  const pins = pads.length > 1 ? "" : `.${first!.pin}`;
  return `${b.called(first!.ref)}${pins}`;
};

/** A current as it may be written on something: two digits, rounded down. */
const ampsText = (ma: number): string => Big(ma).div(1000).prec(2, Big.roundDown).toFixed();

/**
 * What copper and contacts of an output's path carry at the most: copper what warms its weakest track or hole by 10 K (the fit
 * of domain.md 2.4), a contact what the library says of it, shared by the contacts as the copper shares it.
 *
 * @param flows of {@link OutputPath.asks}, in their order
 * @returns the least of each; and what is not known
 */
export function pathRatings(
  doc: RunDocument,
  path: OutputPath,
  flows: readonly Flow[],
): { readonly ratings: readonly OutputRating[]; readonly left: readonly string[] } {
  const b = boardWires(doc, path.board);
  const least = new Map<string, number>();
  const left = [...path.left];
  const take = (what: string, ma: number) => least.set(what, Math.min(ma, least.get(what) ?? ma));
  if (!b) return { ratings: [], left };
  path.asks.forEach((ask, i) => {
    const flow = flows[i];
    const [tap] = ask.taps;
    const way = `copper ${nameOf(b, ask.entry)} to ${b.called(tap!.ref)}`;
    if (!flow || flow.reason !== undefined || flow.missed.length > 0) {
      left.push(`${way}: ${flow?.reason ?? `none of ${tap!.ref}’s pads is reached`}`);
      return;
    }
    const places = [...flow.stretches, ...flow.holes];
    if (places.length === 0) left.push(`${way}: an area without a track or hole that could be judged`);
    else take(way, Math.min(...places.map((p) => (p.takesMa / p.ma) * tap!.ma)));
    const share = Math.max(...flow.entries.map((e) => Math.abs(e.ma) / tap!.ma), 1 / ask.entry.length);
    const ends = [
      [ask.entry[0]!.ref, share],
      [tap!.ref, 1],
    ] as const;
    for (const [ref, part] of ends) {
      const carries = b.partOf(ref)?.carriesMa;
      if (carries !== undefined) take(b.called(ref), carries / part);
      else {
        const isPlug = b.wires.parts.some((p) => p.ref === ref && isConnector(p));
        left.push(
          `${b.called(ref)}: the library does not say what ${isPlug ? "a contact of it" : "it"} carries`,
        );
      }
    }
  });
  return {
    ratings: [...least].flatMap(([what, ma]) => {
      const amps = ampsText(ma);
      return Number(amps) > 0 ? [{ what, amps }] : [];
    }),
    left: [...new Set(left)],
  };
}
