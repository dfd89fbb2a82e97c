import { fitOptions } from "../../fab/fit-options.ts";
import { limitsOf } from "../../fab/limits.ts";
import { type Micros, microsToNumber } from "../../money/money.ts";
import { choiceOf, type PanelChoice } from "../../panel/choice.ts";
import { CLEAR_MM } from "../../panel/lay/laid-notes.ts";
import { sagMm } from "../../panel/lay/sag.ts";
import { mostOnSheet, solvePanel } from "../../panel/lay/solve.ts";
import {
  ALL_TURNS,
  DEFAULT_SPEC,
  isRefusal,
  type PanelDesign,
  type PanelLayout,
  type PanelRefusal,
  type PanelSpec,
} from "../../panel/spec.ts";
import type { RunDocument } from "../document/document.ts";
import { demandFor, sheetBoards } from "../sheet/guests.ts";
import {
  knowLayout,
  liesOn,
  PLATE_MM,
  panelOf,
  panelThickness,
  runDesigns,
  sheetsFor,
} from "../sheet/panel.ts";
import { round1 } from "../stage/effect.ts";
import type { RunResult } from "../stage/result.ts";

/** What sheets have to lie in or on, mm (domain.md 6.4, typical). */
export const REACHES = {
  printer: { mm: [200, 150] as const, words: "hand printer" },
  plate: { mm: PLATE_MM, words: "hot plate" },
  oven: { mm: [250, 300] as const, words: "oven" },
  line: { mm: [330, 250] as const, words: "placing line" },
} as const;
export type Reach = keyof typeof REACHES;

/** A sheet that could be taken, with what it would change against the run as it stands. */
export interface PanelProposal {
  readonly key: string;
  readonly layout: PanelLayout;
  readonly choice: PanelChoice;
  readonly sheets: number;
  /** Bare boards beyond those that are started. */
  readonly over: number;
  readonly start: number;
  readonly perGood: number;
  readonly days: number;
  readonly cash: number;
  /** Own hours more or fewer. */
  readonly hours: number;
  readonly reaches: Readonly<Record<Reach, boolean>>;
  readonly sagHotMm: number;
  readonly isChosen: boolean;
  /** What speaks for it among the others. */
  readonly because: readonly string[];
}

/** Everything the panel stage shows. */
export interface PanelOffers {
  readonly proposals: readonly PanelProposal[];
  /** Single boards against the run as it stands. */
  readonly single: {
    readonly perGood: number;
    readonly days: number;
    readonly hours: number;
    readonly isChosen: boolean;
  };
  /** Ways to part the boards that cannot be, with the reason. */
  readonly refused: readonly { readonly separation: string; readonly refusal: PanelRefusal }[];
}

/** One wish for a sheet. */
export interface PanelWish {
  readonly key: string;
  readonly maxMm: readonly [number, number];
  readonly separation: PanelSpec["separation"];
  readonly most?: number;
  /** Turns the boards may take; all where left out. */
  readonly turns?: readonly number[];
}

/** Boards of a sheet that are needed at all, spread evenly over the sheets the house would sell for them. */
function evenly(doc: RunDocument, need: number, most: number): number {
  const { step = 1, minPieces = 1 } = doc.house?.price ?? {};
  const sheets = Math.max(minPieces, Math.ceil(Math.ceil(need / most) / step) * step);
  return Math.max(1, Math.min(most, Math.ceil(need / sheets)));
}

/** The largest sheet of a wish the house makes. */
function maxOf(doc: RunDocument, [w, h]: readonly [number, number]): readonly [number, number] {
  const { house } = doc;
  if (!house) return [w, h];
  const layers = Math.max(...sheetBoards(doc).map((b) => b.measure.copperLayers));
  const max = limitsOf(house, layers, fitOptions(house, doc.options)).maxBoardMm;
  return max ? [Math.min(w, Math.max(...max)), Math.min(h, Math.min(...max))] : [w, h];
}

/** The spec of a wish for a run's boards. */
export function specOfWish(
  doc: RunDocument,
  wish: PanelWish,
  counts: readonly (number | "fill")[],
  more: Partial<PanelSpec> = {},
): PanelSpec {
  const [maxWidthMm, maxHeightMm] = maxOf(doc, wish.maxMm);
  return {
    ...DEFAULT_SPEC,
    maxWidthMm,
    maxHeightMm,
    separation: wish.separation,
    thicknessMm: panelThickness(doc),
    turns: sheetBoards(doc).map(() => [...(wish.turns ?? ALL_TURNS)]),
    ...more,
    counts,
  };
}

/** What is tried: sizes people have something for, smallest first; all one way round; few on a sheet. */
const WISHES: readonly PanelWish[] = [
  { key: "printer", maxMm: REACHES.printer.mm, separation: "auto" },
  { key: "plate", maxMm: REACHES.plate.mm, separation: "auto" },
  { key: "oven", maxMm: [300, 250], separation: "auto" },
  { key: "line", maxMm: REACHES.line.mm, separation: "auto" },
  { key: "upright", maxMm: REACHES.plate.mm, separation: "auto", turns: [0] },
  { key: "scored", maxMm: REACHES.plate.mm, separation: "score" },
  { key: "some", maxMm: REACHES.printer.mm, separation: "auto", most: 10 },
  { key: "few", maxMm: REACHES.printer.mm, separation: "auto", most: 4 },
];
/** Proposals shown at most. */
const MOST = 6;

/** A gap that parts hanging over an edge have room in, in half millimetres; the usual one where none does. */
export function gapFor(designs: readonly PanelDesign[]): Pick<PanelSpec, "gapMm"> {
  const over = Math.max(0, ...designs.flatMap((d) => d.overhangs.map((o) => o.mm)));
  return {
    gapMm:
      over === 0 ? DEFAULT_SPEC.gapMm : Math.max(DEFAULT_SPEC.gapMm, Math.ceil((over + CLEAR_MM) * 2) / 2),
  };
}

/** Sheets for a run of one design, or of all its designs as often as one product has them. */
function solvedFor(
  doc: RunDocument,
  designs: readonly PanelDesign[],
  wish: PanelWish,
  start: number,
  solved: Set<string>,
  more: Partial<PanelSpec>,
): { layout: PanelLayout; spec: PanelSpec } | PanelRefusal | undefined {
  const fill = (n: number | "fill") => doc.boards.map((b) => (n === "fill" ? "fill" : n * b.perProduct));
  if (designs.length === 1) {
    const need = start * doc.boards[0]!.perProduct;
    const first = specOfWish(doc, wish, wish.most ? [Math.min(wish.most, need)] : ["fill"], more);
    const most = Math.min(wish.most ?? Number.POSITIVE_INFINITY, mostOnSheet(designs, first));
    const n = most > 0 ? evenly(doc, need, most) : 1;
    // the least sheet for so many is the same, however large it might be
    const key = `${n} ${wish.separation} ${wish.turns ?? ""}`;
    if (solved.has(key)) return undefined;
    solved.add(key);
    const spec = { ...first, counts: [n] };
    const made = solvePanel(designs, spec);
    return isRefusal(made) ? made : { layout: made, spec };
  }
  if (doc.guests?.length) return inProportion(doc, designs, wish, start, more);
  // as many whole products as go on it
  let best: { layout: PanelLayout; spec: PanelSpec } | PanelRefusal | undefined;
  for (let n = 1; n <= Math.min(start, 40); n++) {
    const spec = specOfWish(doc, wish, fill(n), more);
    const made = solvePanel(designs, spec);
    if (isRefusal(made)) {
      best ??= made;
      break;
    }
    best = { layout: made, spec };
    if (wish.most && n >= wish.most) break;
  }
  return best;
}

/** Numbers of sheets that are tried for boards of several products. */
const MOST_NUMBERS = 14;

/**
 * Boards of several products in proportion to what is wanted of each: on the fewest sheets on which ⌈Dᵢ/P⌉ of each go
 * together (domain.md 6.5), in the house's own steps.
 */
function inProportion(
  doc: RunDocument,
  designs: readonly PanelDesign[],
  wish: PanelWish,
  start: number,
  more: Partial<PanelSpec>,
): { layout: PanelLayout; spec: PanelSpec } | PanelRefusal | undefined {
  const demand = demandFor(doc, start);
  const { step = 1, minPieces = 1 } = doc.house?.price ?? {};
  const [w, h] = maxOf(doc, wish.maxMm);
  const area = designs.reduce((n, d, i) => n + d.areaMm2 * demand[i]!, 0);
  const most = Math.max(...demand);
  let sheets = Math.max(1, minPieces, Math.ceil(area / (w * h)));
  let refused: PanelRefusal | undefined;
  for (let k = 0; k < MOST_NUMBERS; k++) {
    sheets = Math.min(Math.ceil(sheets / step) * step, Math.max(most, step));
    const counts = demand.map((n) => Math.max(1, Math.ceil(n / sheets)));
    if (!wish.most || counts.reduce((a, b) => a + b, 0) <= wish.most || sheets >= most) {
      const spec = specOfWish(doc, wish, counts, more);
      const made = solvePanel(designs, spec);
      if (!isRefusal(made)) return { layout: made, spec };
      refused ??= made;
    }
    if (sheets >= most) break;
    sheets += Math.max(step, Math.floor(sheets / 4));
  }
  return refused;
}

/**
 * Sheets a run's boards could be ordered on, each worked out whole and rolled up: for the printer, the plate, the oven, the
 * placing line, few on a sheet, all by tabs. Equal ones are named once; the cheapest per good board comes first.
 *
 * @param roll rolls an alternative up
 */
export function panelOffers(
  doc: RunDocument,
  base: RunResult,
  roll: (doc: RunDocument) => RunResult,
): PanelOffers {
  const designs = runDesigns(doc);
  const refused = designs.find((d): d is PanelRefusal => "reason" in d);
  const single = { ...doc, choices: { ...doc.choices, panel: null } };
  const isSingle = !panelOf(doc);
  const alone = isSingle ? base : roll(single);
  const singly = {
    perGood: microsToNumber((alone.perGood - base.perGood) as Micros),
    days: round1(alone.ready.days - base.ready.days),
    hours: (alone.ownMinutes - base.ownMinutes) / 60,
    isChosen: isSingle,
  };
  if (refused) return { proposals: [], single: singly, refused: [{ separation: "any", refusal: refused }] };
  const all = designs as PanelDesign[];
  const found = new Map<string, PanelProposal>();
  const more = gapFor(all);
  const solved = new Set<string>();
  const cannot: { separation: string; refusal: PanelRefusal }[] = [];
  for (const wish of WISHES) {
    const made = solvedFor(doc, all, wish, alone.start, solved, more);
    if (!made) continue;
    if ("reason" in made) {
      if (!cannot.some((c) => c.refusal.reason === made.reason))
        cannot.push({ separation: wish.separation, refusal: made });
      continue;
    }
    const p = proposalOf(doc, base, roll, made.layout, made.spec);
    // one board in a frame of its own holds nothing together
    if (p.layout.places.length > 1 && !found.has(p.key)) found.set(p.key, p);
  }
  const sorted = [...found.values()]
    .sort((a, b) => a.perGood - b.perGood || a.sheets - b.sheets)
    .slice(0, MOST);
  return { proposals: reasoned(sorted), single: singly, refused: cannot };
}

/** A sheet with what it would change. */
export function proposalOf(
  doc: RunDocument,
  base: RunResult,
  roll: (doc: RunDocument) => RunResult,
  layout: PanelLayout,
  spec: PanelSpec,
): PanelProposal {
  const choice = choiceOf(
    layout,
    spec,
    sheetBoards(doc).map((b) => b.key),
  );
  const with_ = { ...doc, choices: { ...doc.choices, panel: choice } };
  knowLayout(with_, choice, layout);
  const r = roll(with_);
  const panel = panelOf(with_);
  const sheets = panel ? sheetsFor(with_, panel, r.start) : 0;
  return {
    key: `${layout.counts.join("+")} ${layout.widthMm}x${layout.heightMm} ${layout.separation}`,
    layout,
    choice,
    sheets,
    over: r.orders.reduce(
      (n, o, i) => n + (o.sheet ? o.quote.pieces - r.start * doc.boards[i]!.perProduct : 0),
      0,
    ),
    start: r.start,
    perGood: microsToNumber((r.perGood - base.perGood) as Micros),
    days: round1(r.ready.days - base.ready.days),
    cash: microsToNumber((r.cashNeeded - base.cashNeeded) as Micros),
    hours: (r.ownMinutes - base.ownMinutes) / 60,
    reaches: Object.fromEntries(
      (Object.keys(REACHES) as Reach[]).map((k) => [k, liesOn(choice, REACHES[k].mm)]),
    ) as Record<Reach, boolean>,
    sagHotMm: sagMm(Math.min(choice.widthMm, choice.heightMm), spec.thicknessMm, "hot"),
    isChosen: isSameSheet(doc.choices.panel, choice),
    because: [],
  };
}

/** The same boards at the same places on the same sheet, held alike. */
function isSameSheet(a: PanelChoice | null | undefined, b: PanelChoice): boolean {
  const near = (p: number, q: number) => Math.abs(p - q) < 1e-6;
  return (
    a !== null &&
    a !== undefined &&
    near(a.widthMm, b.widthMm) &&
    near(a.heightMm, b.heightMm) &&
    near(a.gapMm, b.gapMm) &&
    near(a.tabMm, b.tabMm) &&
    a.across === b.across &&
    a.along === b.along &&
    a.places.length === b.places.length &&
    a.places.every((p, i) => {
      const q = b.places[i]!;
      return p.board === q.board && near(p.xMm, q.xMm) && near(p.yMm, q.yMm) && near(p.turnDeg, q.turnDeg);
    })
  );
}

/** What each of them is best at; what all are alike in is said of none. */
function reasoned(list: readonly PanelProposal[]): PanelProposal[] {
  const best = (f: (p: PanelProposal) => number, words: string) => {
    const least = Math.min(...list.map(f));
    const are = list.filter((p) => f(p) <= least + 1e-9);
    return are.length < list.length ? (p: PanelProposal) => (are.includes(p) ? [words] : []) : () => [];
  };
  const cost = best((p) => Math.round(p.perGood * 100), "cheapest a good board");
  const hours = best((p) => Math.round(p.hours * 10), "fewest own hours");
  const cuts = best(
    (p) => (p.layout.tabs.length + p.layout.scores.length) / p.layout.places.length,
    "least to cut a board",
  );
  return list.map((p) => ({
    ...p,
    because: [
      ...cost(p),
      ...hours(p),
      ...cuts(p),
      ...(p.reaches.printer && p.reaches.plate ? ["prints and melts in one"] : []),
    ],
  }));
}
