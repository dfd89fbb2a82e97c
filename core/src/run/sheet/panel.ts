import type { BoardTime } from "../../assembly/time.ts";
import { bodiesOf } from "../../bodies/body.ts";
import { fineOf } from "../../fab/check.ts";
import { type BoardFacts, type FabQuote, PACKING_KG } from "../../fab/price.ts";
import { type Micros, roundMoney } from "../../money/money.ts";
import { type PanelChoice, specOf } from "../../panel/choice.ts";
import { type DesignParts, panelDesign } from "../../panel/design.ts";
import { layoutAt } from "../../panel/lay/layout.ts";
import { mixedRun } from "../../panel/lay/several.ts";
import type { PanelDesign, PanelLayout, PanelRefusal } from "../../panel/spec.ts";
import { boardFacts } from "../document/board-facts.ts";
import type { RunDocument } from "../document/document.ts";
import type { PasteSides } from "../document/sides.ts";
import { standingOn } from "../document/standing.ts";
import { demandFor, sheetBoards } from "./guests.ts";

/** The sheet a run's boards are ordered on. */
export interface RunPanel {
  readonly choice: PanelChoice;
  /** Copies of each board on one sheet: the run's own in the order of the document, then its guests. */
  readonly perSheet: readonly number[];
}

/** The sheet of a run, as far as boards of it are on one. At the own bench boards are made one by one. */
export function panelOf(doc: RunDocument): RunPanel | undefined {
  const choice = doc.choices.panel;
  if (!choice || doc.house?.bench) return undefined;
  const perSheet = sheetBoards(doc).map(({ key }) => choice.places.filter((p) => p.board === key).length);
  return perSheet.slice(0, doc.boards.length).some((n) => n > 0) ? { choice, perSheet } : undefined;
}

/** What a sheet's price depends on: its own size, the holes of all its boards and its own. */
export function sheetFacts(doc: RunDocument, { choice, perSheet }: RunPanel): BoardFacts {
  const on = sheetBoards(doc).flatMap(({ measure: m }, i) =>
    perSheet[i]! > 0 ? [{ f: boardFacts(m), n: perSheet[i]!, m }] : [],
  );
  const area = choice.widthMm * choice.heightMm;
  const copper = on.reduce((s, { f, n }) => s + n * f.widthMm * f.heightMm * f.copperShare, 0);
  return {
    widthMm: choice.widthMm,
    heightMm: choice.heightMm,
    layers: Math.max(...on.map(({ f }) => f.layers)),
    holes: on.reduce((s, { f, n }) => s + n * f.holes, choice.holes),
    copperShare: area > 0 ? Math.min(1, copper / area) : 0.6,
    fine: leastOf(on.map(({ m }) => fineOf(m))),
  };
}

/** The least of each measure over several boards. */
function leastOf(list: readonly NonNullable<BoardFacts["fine"]>[]): NonNullable<BoardFacts["fine"]> {
  const out = new Map<string, number>();
  for (const fine of list)
    for (const [key, v] of Object.entries(fine)) out.set(key, Math.min(v, out.get(key) ?? v));
  return Object.fromEntries(out);
}

/** Sheets for so many products, and for what guests of them are wanted. */
export const sheetsFor = (doc: RunDocument, { perSheet }: RunPanel, products: number): number =>
  mixedRun(
    demandFor(doc, products).map((n, i) => (perSheet[i]! > 0 ? n : 0)),
    perSheet,
  ).sheets;

/**
 * Products that are started where every board of the sheets they need is: at least as many as asked for. Sheets that only
 * a guest asks for are none of them.
 */
export function wholeSheets(doc: RunDocument, panel: RunPanel, start: number): number {
  const sheets = Math.max(
    ...doc.boards.map((b, i) =>
      panel.perSheet[i]! > 0 ? Math.ceil((start * b.perProduct) / panel.perSheet[i]!) : 0,
    ),
  );
  const whole = doc.boards.map((b, i) =>
    panel.perSheet[i]! > 0
      ? Math.floor((sheets * panel.perSheet[i]!) / b.perProduct)
      : Number.POSITIVE_INFINITY,
  );
  return Math.max(start, Math.min(...whole));
}

/** Products to start: as many as are needed; where that was chosen, all that the sheets they need have. */
export function startedOf(doc: RunDocument, panel: RunPanel | undefined, needed: number): number {
  return panel && doc.choices.overrun === "start" ? wholeSheets(doc, panel, needed) : needed;
}

/** A sheet's price shared among its boards by their area on it; the rest of the rounding with the last. */
export function sharedQuotes(
  doc: RunDocument,
  { perSheet }: RunPanel,
  quote: FabQuote,
  currency: string,
): (FabQuote | undefined)[] {
  const areas = sheetBoards(doc).map((b, i) => {
    const f = boardFacts(b.measure);
    return perSheet[i]! * f.widthMm * f.heightMm;
  });
  const whole = areas.reduce((a, b) => a + b, 0);
  const last = areas.reduce((k, a, i) => (a > 0 ? i : k), -1);
  const keys = ["boards", "freight", "handling"] as const;
  const given = { boards: 0, freight: 0, handling: 0 };
  const terms = quote.sum.map(() => 0);
  return areas.map((a, i): FabQuote | undefined => {
    if (a <= 0) return undefined;
    const share = a / whole;
    const part = (total: number, sofar: number) =>
      (i === last ? total - sofar : roundMoney(total * share, currency)) as Micros;
    const own = Object.fromEntries(keys.map((k) => [k, part(quote[k], given[k])])) as Record<
      (typeof keys)[number],
      Micros
    >;
    for (const k of keys) given[k] += own[k];
    return {
      ...quote,
      ...own,
      pieces: quote.pieces * perSheet[i]!,
      kg: PACKING_KG + (quote.kg - PACKING_KG) * share,
      total: (own.boards + own.freight + own.handling) as Micros,
      sum: quote.sum.map((t, k) => {
        const micros = part(t.micros, terms[k]!);
        terms[k]! += micros;
        return { ...t, micros, fixed: Math.min(micros, Math.round(t.fixed * share)) as Micros };
      }),
      ...(quote.insteadOf
        ? {
            insteadOf: {
              pieces: quote.insteadOf.pieces * perSheet[i]!,
              total: roundMoney(quote.insteadOf.total * share, currency),
            },
          }
        : {}),
    };
  });
}

/** Thickness of the run's boards, mm: as chosen, else as the files state it. */
export function panelThickness(doc: RunDocument): number {
  const chosen = Number.parseFloat(doc.options.thickness ?? "");
  return Number.isFinite(chosen) && chosen > 0
    ? chosen
    : (doc.boards.map((b) => b.measure.thicknessMm).find((t) => t !== undefined) ?? 1.6);
}

/**
 * The run's boards as designs for a sheet, with what stands on them; then its guests.
 *
 * @param exact rings of each where the files are at hand, in the order of `sheetBoards`; else those of the measures
 */
export function runDesigns(
  doc: RunDocument,
  exact: readonly (DesignParts["rings"] | undefined)[] = [],
): (PanelDesign | PanelRefusal)[] {
  const ringsOf = (i: number) => (exact[i] ? { rings: exact[i] } : {});
  const { bevel } = doc.options;
  const isBevelled = bevel !== undefined && bevel !== "none";
  const packages = new Map(doc.lines.flatMap((l) => l.refs.map((r) => [r, l.package] as const)));
  const own = doc.boards.map((b, i) =>
    panelDesign({ ...b, ...ringsOf(i), bodies: standingOn(doc, b).bodies, packages, isBevelled }),
  );
  const guests = (doc.guests ?? []).map((g, i) => {
    const parts = g.parts ?? [];
    return panelDesign({
      ...g,
      ...ringsOf(doc.boards.length + i),
      bodies: bodiesOf(
        parts.map((p) => ({ ref: p.ref, package: p.package, place: p })),
        g.measure,
      ).bodies,
      packages: new Map(parts.map((p) => [p.ref, p.package] as const)),
      isBevelled,
    });
  });
  return [...own, ...guests];
}

type Kept = { readonly key: string; readonly layout: PanelLayout | PanelRefusal };
const MOST_KEPT = 12;
/** Sheets worked out last: a roll-up asks for the same one again and again. */
const kept: Kept[] = [];

/** Remembers a sheet that was just worked out. */
export function knowLayout(doc: RunDocument, choice: PanelChoice, layout: PanelLayout | PanelRefusal): void {
  const designs = runDesigns(doc).filter((d): d is PanelDesign => !("reason" in d));
  if (designs.length < sheetBoards(doc).length) return;
  kept.unshift({ key: keyOfLayout(doc, choice, designs), layout });
  kept.length = Math.min(kept.length, MOST_KEPT);
}

const keyOfLayout = (doc: RunDocument, choice: PanelChoice, designs: readonly PanelDesign[]): string =>
  JSON.stringify([
    choice,
    panelThickness(doc),
    designs.map((d) => [d.outline, d.bans, d.outward, d.copperToEdge, d.practice]),
  ]);

/** A kept sheet, worked out anew from the boards there are now; a refusal says why it cannot be any more. */
export function layoutOfChoice(doc: RunDocument, choice: PanelChoice): PanelLayout | PanelRefusal {
  const designs = runDesigns(doc);
  const refused = designs.find((d): d is PanelRefusal => "reason" in d);
  if (refused) return refused;
  const all = designs as PanelDesign[];
  const key = keyOfLayout(doc, choice, all);
  const found = kept.find((k) => k.key === key);
  if (found) return found.layout;
  const keys = sheetBoards(doc).map((b) => b.key);
  const unknown = choice.places.find((p) => !keys.includes(p.board));
  const layout: PanelLayout | PanelRefusal = unknown
    ? {
        tag: "board-gone",
        reason: "A board on the sheet is no longer part of the product, nor its guest.",
        nearest: [],
        do: "Take a sheet anew.",
      }
    : layoutAt(all, specOf(choice, keys, panelThickness(doc)), {
        ...choice,
        places: choice.places.map((p, i) => ({ ...p, board: keys.indexOf(p.board), copy: i + 1 })),
      });
  kept.unshift({ key, layout });
  kept.length = Math.min(kept.length, MOST_KEPT);
  return layout;
}

/** Taking a board off its sheet, s (domain.md 7.3; a placeholder of a practised hand). */
const PARTING_S = 15;

/** Own minutes to part the boards that are started. */
export function partingMinutes(doc: RunDocument, start: number): number {
  const panel = panelOf(doc);
  if (!panel) return 0;
  // a guest's boards are parted in its own run
  const boards = doc.boards.reduce((n, b, i) => n + (panel.perSheet[i]! > 0 ? b.perProduct : 0), 0);
  return (start * boards * PARTING_S) / 60;
}

/** What a hot plate takes, mm (domain.md 6.4, typical). */
export const PLATE_MM = [180, 180] as const;

/** True where a sheet lies on something of a size, either way round. */
export const liesOn = (
  c: { readonly widthMm: number; readonly heightMm: number },
  [a, b]: readonly [number, number],
) => Math.max(c.widthMm, c.heightMm) <= Math.max(a, b) && Math.min(c.widthMm, c.heightMm) <= Math.min(a, b);

/** Own time with boards on sheets: a sheet is printed at once, and goes onto the plate whole where it fits. */
export function onSheets(
  time: BoardTime,
  doc: RunDocument,
  panel: RunPanel | undefined,
  sides: PasteSides,
): BoardTime {
  if (!panel || time.print === 0) return time;
  const onSheet = panel.choice.places.length;
  const perProduct = doc.boards.reduce((n, b) => n + b.perProduct, 0);
  // a sheet of n boards is one print a side in the place of n
  const print = (time.print * Math.max(1, perProduct)) / Math.max(onSheet, perProduct);
  const load = liesOn(panel.choice, PLATE_MM)
    ? Math.max(doc.assembly.perLoad, onSheet)
    : doc.assembly.perLoad;
  const reflow = sides.perProduct > 0 ? (time.reflow * doc.assembly.perLoad) / load : time.reflow;
  return {
    ...time,
    print,
    reflow,
    perLoad: load,
    total: time.total - time.print - time.reflow + print + reflow,
  };
}
