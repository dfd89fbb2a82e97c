import {
  type BasketCache,
  type BoardSet,
  type Covering,
  cornersPlan,
  coveringOf,
  drillPlan,
  drillWorkOf,
  isRefusal,
  layoutOfChoice,
  nestPlan,
  type PanelChoice,
  type PanelDesign,
  type PanelLayout,
  type PanelOffers,
  type PanelProposal,
  type PanelRefusal,
  type PanelSpec,
  type Plan,
  panelOffers,
  panelPlan,
  panelThickness,
  proposalOf,
  type RunDocument,
  rollUp,
  runDesigns,
  sheetBoards,
  sisterPlan,
  solvePanel,
  specOf,
  toWire,
  trayParts,
  trayPlan,
  type WireError,
} from "@kobbin/core";
import { planSvg, writePlan } from "@kobbin/formats";
import { packRunSheet, readAsBoard } from "@kobbin/packing";
import * as Comlink from "comlink";
import type { StoredBoard } from "./board.worker.ts";

/** The sheet a run has, with its boards as they lie. */
export interface SheetShown {
  /** Of the boards its places and its designs are numbered by. */
  readonly boardKeys: readonly string[];
  readonly designs: readonly PanelDesign[];
  readonly layout?: PanelLayout;
  readonly refusal?: PanelRefusal;
}

/** A sheet that was written, with what reading it back says. */
export type Written =
  | {
      readonly kind: "ok";
      readonly zip: Uint8Array;
      readonly agrees: boolean;
      readonly checked: readonly { readonly what: string; readonly panel: number; readonly boards: number }[];
      readonly wrong: readonly string[];
      readonly said: readonly string[];
    }
  | WireError;

/** What a board gives for the bench. */
export type AidKind = "nest" | "corners" | "sisters" | "tray-top" | "tray-bottom" | "drill" | "sheet";

const readStored = async (b: StoredBoard): Promise<BoardSet> =>
  (await readAsBoard([{ path: "board.zip", bytes: b.bytes }], { corrections: b.corrections })).set;

function planOf(doc: RunDocument, d: PanelDesign, kind: AidKind, board: number): Plan | undefined {
  if (kind === "nest") return nestPlan(d, panelThickness(doc));
  if (kind === "corners") return cornersPlan(d, panelThickness(doc));
  if (kind === "sisters") return sisterPlan(d);
  if (kind === "sheet") {
    const choice = doc.choices.panel;
    const made = choice && layoutOfChoice(doc, choice);
    if (!made || isRefusal(made)) return undefined;
    const designs = runDesigns(doc).filter((x): x is PanelDesign => !("reason" in x));
    return panelPlan(designs, made, { name: doc.product, revision: doc.revision }, panelThickness(doc));
  }
  const side = kind === "tray-top" ? "top" : "bottom";
  const { beside, ...sides } = trayParts(doc, board);
  // what has no place is counted once, beside the map of the top
  const rest = side === "top" ? beside : [];
  return sides[side].length + rest.length > 0 ? trayPlan(d, side, sides[side], rest) : undefined;
}

const roller = (doc: RunDocument) => {
  const cache: BasketCache = new Map();
  const roll = (d: RunDocument) => rollUp(d, { cache, scope: "the best", notes: "none" });
  return { base: roll(doc), roll };
};

const keysOf = (doc: RunDocument) => sheetBoards(doc).map((b) => b.key);

const api = {
  shown(doc: RunDocument): SheetShown {
    const all = runDesigns(doc);
    const designs = all.filter((d): d is PanelDesign => !("reason" in d));
    const choice = doc.choices.panel;
    const boardKeys = keysOf(doc);
    if (!choice) return { boardKeys, designs };
    const made = layoutOfChoice(doc, choice);
    return isRefusal(made) ? { boardKeys, designs, refusal: made } : { boardKeys, designs, layout: made };
  },
  offers(doc: RunDocument): PanelOffers {
    const { base, roll } = roller(doc);
    return panelOffers(doc, base, roll);
  },
  /** Whether one of these sheets for all designs is the cheapest, or several layouts. */
  covering(doc: RunDocument, mixed: readonly PanelChoice[]): Covering | undefined {
    return coveringOf(doc, roller(doc).base.start, mixed);
  },
  /** A sheet by a wish of one's own, with what it would change. */
  wish(doc: RunDocument, spec: PanelSpec): PanelProposal | PanelRefusal {
    const designs = runDesigns(doc);
    const refused = designs.find((d): d is PanelRefusal => "reason" in d);
    if (refused) return refused;
    const made = solvePanel(designs as PanelDesign[], spec);
    if (isRefusal(made)) return made;
    const { base, roll } = roller(doc);
    return proposalOf(doc, base, roll, made, spec);
  },
  /** A sheet whose boards or rails were moved by hand. */
  moved(doc: RunDocument, choice: PanelChoice): PanelProposal | PanelRefusal {
    const made = layoutOfChoice(doc, choice);
    if (isRefusal(made)) return made;
    const { base, roll } = roller(doc);
    return proposalOf(doc, base, roll, made, specOf(choice, keysOf(doc), panelThickness(doc)));
  },
  /** A drawing one to one for the bench, as a page to print or a drawing to cut. */
  async aid(
    doc: RunDocument,
    kind: AidKind,
    board: number,
    as: "pdf" | "svg",
    createdAt: string,
    /** The board's files, where the drawing is made from them. */
    stored?: StoredBoard,
  ): Promise<Uint8Array | undefined> {
    const d = runDesigns(doc)[board];
    if (!d || "reason" in d) return undefined;
    const plan =
      kind === "drill" && stored
        ? drillPlan(d, drillWorkOf((await readStored(stored)).files))
        : planOf(doc, d, kind, board);
    if (!plan) return undefined;
    return as === "pdf"
      ? writePlan(plan, new Date(createdAt), true)
      : new TextEncoder().encode(planSvg(plan));
  },
  /** Writes the run's sheet from the boards' own files, and proves it by reading it back. */
  async write(
    doc: RunDocument,
    stored: readonly StoredBoard[],
    mode: "copies" | "step-repeat",
    createdAt: string,
  ): Promise<Written> {
    try {
      const sets: BoardSet[] = [];
      for (const b of stored) sets.push(await readStored(b));
      const packed = await packRunSheet(doc, sets, { mode, createdAt, isMeasured: true });
      return {
        kind: "ok",
        zip: packed.zip,
        agrees: packed.proof.agrees,
        checked: packed.proof.checked,
        wrong: packed.proof.wrong.map((w) => w.text),
        said: packed.findings.map((f) => f.text),
      };
    } catch (error) {
      return (
        toWire(error) ?? {
          kind: "error",
          code: "DOCUMENT_INVALID",
          message: error instanceof Error ? error.message : "The sheet cannot be written.",
          hint: "Take a sheet anew, or order singly.",
        }
      );
    }
  },
};

export type PanelApi = typeof api;
Comlink.expose(api);
