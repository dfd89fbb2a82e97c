import {
  type BoardSet,
  boardSvg,
  type Corrections,
  type Entry,
  kindOf,
  type Measure,
  type Memory,
  measureBoard,
  readBoard,
  withMemory,
} from "@kobbin/core";
import { type FileEntry, openDrop, readTable } from "@kobbin/formats";
import * as Comlink from "comlink";
import { Painter, type PaintRequest } from "./paint.ts";
import { type Snapped, Snapper } from "./snap.ts";

/** What reading a drop gives the page. */
export type Loaded =
  | {
      readonly kind: "ok";
      readonly measure: Measure;
      readonly parts: number;
      readonly places: number;
      readonly corrections: Corrections;
    }
  | { readonly kind: "error"; readonly message: string; readonly hint: string };

let painter: Painter | undefined;
let shown: BoardSet | undefined;
let snapper: Snapper | undefined;

function show(set: BoardSet): void {
  shown = set;
  snapper = undefined;
  painter = new Painter(set);
}
let opened: { entries: Entry[]; notes: BoardSet["findings"] } | undefined;

const api = {
  /** Opens, reads and measures a drop; says what it is doing. The picture can be painted afterwards. */
  async load(
    files: readonly FileEntry[],
    corrections: Corrections,
    memory: Memory,
    progress: (what: string, share: number) => void,
  ): Promise<Loaded> {
    progress("opening the drop", 0.02);
    const drop = openDrop(files);
    if (drop.rejected)
      return {
        kind: "error",
        message: drop.rejected,
        hint: drop.notes.at(-1)?.do ?? "Pack the files again and drop the new archive.",
      };
    const entries: Entry[] = [];
    for (const f of drop.files) {
      const cells = kindOf(f.bytes) === "table" ? await readTable(f.bytes) : undefined;
      entries.push({ ...f, ...(cells ? { cells } : {}) });
    }
    opened = { entries, notes: drop.notes };
    return this.reread(corrections, memory, progress);
  },

  /** Opens a stored board for its picture only: it was measured when it was kept. */
  open(
    files: readonly FileEntry[],
    corrections: Corrections,
    progress: (what: string, share: number) => void,
  ): boolean {
    progress("opening the files", 0.05);
    const drop = openDrop(files);
    if (drop.rejected) return false;
    show(readBoard(drop.files, corrections, (path, share) => progress(path, 0.1 + share * 0.9)));
    return true;
  },

  /** Reads the open drop again under other corrections. */
  reread(corrections: Corrections, memory: Memory, progress: (what: string, share: number) => void): Loaded {
    if (!opened) return { kind: "error", message: "No drop is open.", hint: "Drop the files again." };
    const all = withMemory(
      opened.entries.map((e) => e.path),
      corrections,
      memory,
    );
    const set = readBoard(opened.entries, all, (path, share) => progress(path, 0.05 + share * 0.4));
    show(set);
    const measure = measureBoard({ ...set, findings: [...opened.notes, ...set.findings] }, (what, share) =>
      progress(`measuring: ${what}`, 0.45 + share * 0.55),
    );
    return {
      kind: "ok",
      measure,
      parts: set.bom?.lines.length ?? 0,
      places: set.placements?.parts.length ?? 0,
      corrections: all,
    };
  },

  /** The point of the board that is meant by a place near it. */
  snap(x: number, y: number, reachMm: number, side: "top" | "bottom"): Snapped | undefined {
    if (!shown) return undefined;
    snapper ??= new Snapper(shown);
    return snapper.nearest(x, y, reachMm, side);
  },

  /** One side for documents: a vector drawing, or a picture of forty dots a millimetre at most. */
  async picture(
    side: "top" | "bottom",
    kind: "svg" | "png",
    colours: PaintRequest["colours"],
  ): Promise<Blob | undefined> {
    if (!shown || !painter) return undefined;
    if (kind === "svg") {
      const svg = boardSvg(shown, side, colours);
      return svg ? new Blob([svg], { type: "image/svg+xml" }) : undefined;
    }
    return painter.whole(side, colours);
  },

  /** Paints a view of the board; undefined when there is nothing to paint. */
  paint(request: PaintRequest): ImageBitmap | undefined {
    const bitmap = painter?.paint(request);
    return bitmap ? Comlink.transfer(bitmap, [bitmap]) : undefined;
  },
};

export type BoardApi = typeof api;
Comlink.expose(api);
