import { Attempts, NotMeasurable } from "../board/attempts.ts";
import type { BoardSet } from "../board/board-file.ts";
import { type Ground, groundOf } from "../board/measure/measure-ground.ts";
import { type Joined, joinBoard } from "../board/measure/measure-nets.ts";
import type { Finding } from "../findings.ts";
import { orGivenUp, Work } from "../geometry/work.ts";
import type { FlowAsk, FlowCopper } from "./ask.ts";
import { type CopperSheet, sheetOf } from "./sheet.ts";
import { voltsOf } from "./solve.ts";
import {
  densityOf,
  type FlowHole,
  type FlowPicture,
  type FlowStretch,
  holesOf,
  stretchesOf,
} from "./worst-places.ts";

/** What flows in a net's copper. */
export interface Flow {
  readonly net: number;
  readonly name: string;
  readonly isReturn: boolean;
  /** Why nothing is known. */
  readonly reason?: string;
  /** Taps none of whose pads lies on copper that the entry reaches; they are counted nowhere. */
  readonly missed: readonly string[];
  readonly ma: number;
  /** What each tap loses on its way, most first. */
  readonly drops: readonly { readonly ref: string; readonly ma: number; readonly mv: number }[];
  /** How the current is shared by the pads where it comes in (goes out of a return); negative where it flows the other way. */
  readonly entries: readonly { readonly ref: string; readonly pin: string; readonly ma: number }[];
  /** Warmest first. */
  readonly stretches: readonly FlowStretch[];
  readonly holes: readonly FlowHole[];
  readonly picture?: FlowPicture;
}

const MOST_PLACES = 12;

/**
 * Currents in the copper of a board: each net as a sheet of its measured shape (finite volumes with exact faces), its plated
 * holes as walls between layers, pads as wide as their lead is soldered. Copper at 20 °C, as thick as ordered.
 *
 * @returns one for each that was asked; what is over a board's budget or does not settle has a reason and no figure
 */
export function flowOf(
  set: BoardSet,
  asks: readonly FlowAsk[],
  copper: FlowCopper,
  work = Work.ofBoard(),
): Flow[] {
  const findings: Finding[] = [];
  const attempts = new Attempts(findings, work);
  try {
    return orGivenUp(
      () => {
        const ground = groundOf(set, findings, attempts, () => {});
        const joined = joinBoard(set, ground, findings, () => {});
        return asks.map((ask) => oneFlow(ground, joined, ask, copper));
      },
      (error) => attempts.giveUp("Following the current", error),
    );
  } catch (error) {
    if (!(error instanceof NotMeasurable)) throw error;
    return asks.map((ask) => nothing(ask, error.message));
  }
}

const nothing = (ask: FlowAsk, reason: string): Flow => ({
  net: ask.net,
  name: ask.name,
  isReturn: ask.isReturn,
  reason,
  missed: [],
  ma: 0,
  drops: [],
  entries: [],
  stretches: [],
  holes: [],
});

function oneFlow(ground: Ground, joined: Joined, ask: FlowAsk, copper: FlowCopper): Flow {
  const group = joined.netList.find((n) => n.net === ask.net)?.group;
  if (group === undefined) return nothing(ask, "The files of the board have no such net any more.");
  const sheet = sheetOf(ground, joined, group, copper);
  const held = sheet.join(ask.entry);
  if (held === undefined) return nothing(ask, "Where it comes in is on no copper of the net.");
  const taps = ask.taps.map((t) => ({ ...t, cell: sheet.join(t.pins) }));
  const mesh = sheet.mesh(held);
  const into = new Float64Array(mesh.nodes);
  const missed: string[] = [];
  const reached: { readonly ref: string; readonly ma: number; readonly node: number }[] = [];
  for (const { ref, ma, cell } of taps) {
    const node = cell === undefined ? -1 : sheet.nodeOf(cell);
    if (node < 0) missed.push(ref);
    else {
      into[node]! += ma / 1000;
      reached.push({ ref, ma, node });
    }
  }
  let volts: Float64Array;
  try {
    volts = voltsOf(mesh, into, sheet.nodeOf(held));
  } catch (error) {
    if (!(error instanceof RangeError)) throw error;
    return nothing(ask, "The current in this copper could not be settled.");
  }
  const flowing = sheet.flowing(volts);
  const all = reached.reduce((s, t) => s + Math.max(0, t.ma), 0);
  return {
    net: ask.net,
    name: ask.name,
    isReturn: ask.isReturn,
    missed,
    ma: reached.reduce((s, t) => s + t.ma, 0),
    drops: reached
      .map(({ ref, ma, node }) => ({ ref, ma, mv: volts[node]! * 1000 }))
      .sort((a, b) => b.mv - a.mv),
    entries: entriesOf(sheet, ask, flowing.intoCells),
    stretches: stretchesOf(sheet, flowing, all).slice(0, MOST_PLACES),
    holes: holesOf(sheet, volts, all).slice(0, MOST_PLACES),
    picture: densityOf(sheet, flowing),
  };
}

/** Shares of the pads where it comes in, by what flows over the edges of each. */
const entriesOf = (
  sheet: CopperSheet,
  ask: FlowAsk,
  intoCells: (cells: ReadonlySet<number>) => number,
): Flow["entries"] =>
  ask.entry.flatMap((p) => {
    const cells = sheet.cellsOf(p);
    return cells.size === 0 ? [] : [{ ref: p.ref, pin: p.pin, ma: 1000 * intoCells(cells) }];
  });
