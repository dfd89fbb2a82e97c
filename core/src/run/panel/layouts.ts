import { fitOptions } from "../../fab/fit-options.ts";
import { fabQuote } from "../../fab/price.ts";
import { microsToNumber } from "../../money/money.ts";
import { choiceOf, type PanelChoice } from "../../panel/choice.ts";
import { coverDemand, mixedRun } from "../../panel/lay/several.ts";
import { solvePanel } from "../../panel/lay/solve.ts";
import { isRefusal, type PanelDesign } from "../../panel/spec.ts";
import type { RunDocument } from "../document/document.ts";
import { demandFor, sheetBoards } from "../sheet/guests.ts";
import { runDesigns, sheetFacts } from "../sheet/panel.ts";
import { gapFor, REACHES, specOfWish } from "./panel-proposals.ts";

/** A layout with the sheets of it that are ordered. */
export interface LaidOut {
  /** Boards of each design on a sheet. */
  readonly counts: readonly number[];
  readonly widthMm: number;
  readonly heightMm: number;
  readonly sheets: number;
  /** Bare boards at the chosen house, in its currency, without the parcel. */
  readonly cost: number;
}

/** Boards of several designs on sheets of one layout, and of as many layouts as are cheapest. */
export interface Covering {
  readonly names: readonly string[];
  readonly demand: readonly number[];
  readonly currency: string;
  readonly one: LaidOut & { readonly over: readonly number[] };
  /** Proven to be the cheapest of all there are with these layouts; left out where the search was too long to prove it. */
  readonly several?: {
    readonly layouts: readonly LaidOut[];
    readonly cost: number;
    readonly over: readonly number[];
  };
}

/** Steps of the search before it is given up: about a second. */
const MOST_STEPS = 1_500_000;

/**
 * Whether one layout for all designs is the cheapest, or several (domain.md 6.5): the sheets that were proposed and each
 * design on sheets of its own, at the house's prices with a set-up each.
 *
 * @param start products begun
 * @param mixed sheets that hold all of them, the one in hand first
 * @returns nothing for one design, without a house or without a sheet that holds all
 */
export function coveringOf(
  doc: RunDocument,
  start: number,
  mixed: readonly PanelChoice[],
): Covering | undefined {
  const { house } = doc;
  const boards = sheetBoards(doc);
  const designs = runDesigns(doc).filter((d): d is PanelDesign => !("reason" in d));
  if (boards.length < 2 || designs.length < boards.length || !house || house.bench) return undefined;
  const keys = boards.map((b) => b.key);
  const demand = demandFor(doc, start);
  const countsOf = (c: PanelChoice) => keys.map((k) => c.places.filter((p) => p.board === k).length);
  const { step, minPieces } = house.price;
  const least = Math.max(step, minPieces);
  const alone = designs.flatMap((d, i): PanelChoice[] => {
    // as many as go on a sheet, and as many as the least number of sheets, and twice as many, need
    const counts = ["fill" as const, Math.ceil(demand[i]! / least), Math.ceil(demand[i]! / least / 2)];
    return counts.flatMap((count) => {
      const wish = { key: "", maxMm: REACHES.printer.mm, separation: "auto" } as const;
      const spec = { ...specOfWish(doc, wish, [count], gapFor([d])), turns: [[0, 90, 180, 270]] };
      const made = solvePanel([d], spec);
      return isRefusal(made) ? [] : [choiceOf(made, spec, [keys[i]!])];
    });
  });
  const options = fitOptions(house, doc.options);
  const sold = (n: number) => Math.max(minPieces, Math.ceil(n / step - 1e-9) * step);
  const priced = distinct([...mixed, ...alone], countsOf).map((choice) => {
    const counts = countsOf(choice);
    const facts = sheetFacts(doc, { choice, perSheet: counts });
    const known = new Map<number, number>();
    const cost = (n: number) => {
      const pieces = sold(n);
      let c = known.get(pieces);
      if (c === undefined) {
        c = microsToNumber(fabQuote(house, facts, options, pieces).boards);
        known.set(pieces, c);
      }
      return c;
    };
    return { choice, counts, cost };
  });
  const [first] = priced;
  if (!first || first.counts.some((n) => n === 0)) return undefined;
  const laidOut = (p: typeof first, n: number): LaidOut => ({
    counts: p.counts,
    widthMm: p.choice.widthMm,
    heightMm: p.choice.heightMm,
    sheets: sold(n),
    cost: p.cost(n),
  });
  const overOf = (list: readonly LaidOut[]) =>
    demand.map((d, i) => list.reduce((n, l) => n + l.counts[i]! * l.sheets, 0) - d);
  const one = laidOut(first, mixedRun(demand, first.counts).sheets);
  const cover = coverDemand(demand, priced, MOST_STEPS);
  const several = cover?.sheets.flatMap((n, j) => (n > 0 ? [laidOut(priced[j]!, n)] : []));
  return {
    names: boards.map((b) => b.name),
    demand,
    currency: house.currency,
    one: { ...one, over: overOf([one]) },
    ...(several ? { several: { layouts: several, cost: cover!.cost, over: overOf(several) } } : {}),
  };
}

/** Sheets that hold other numbers than those before them. */
function distinct(
  list: readonly PanelChoice[],
  countsOf: (c: PanelChoice) => readonly number[],
): PanelChoice[] {
  const seen = new Set<string>();
  return list.filter((c) => {
    const key = countsOf(c).join();
    return !seen.has(key) && seen.add(key);
  });
}
