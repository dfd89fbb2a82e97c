import {
  type BoardSet,
  boardSvg,
  type Corrections,
  type CorrectionWishes,
  copperPrint,
  type Entry,
  type Flow,
  type FlowPlan,
  type FoilWork,
  flowOf,
  foilWork,
  type KnownPin,
  type ListHead,
  type Measure,
  type Memory,
  measureBoard,
  type PlaceReading,
  type ProbeDocument,
  placeReader,
  probeBoard,
  type Recipe,
  type Resist,
  recipeOf,
} from "@kobbin/core";
import { type FileEntry, openDrop, type ReadDrawing, readDrawing, splitTables } from "@kobbin/formats";
import { boardOf, isTable } from "@kobbin/packing";
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
      /** Top of the parts list, with its columns as they are taken. */
      readonly list: ListHead | undefined;
      readonly corrections: Corrections;
    }
  | { readonly kind: "error"; readonly message: string; readonly hint: string };

/** A board's files as they are stored, and the corrections they are read under. */
export interface StoredBoard {
  readonly bytes: Uint8Array;
  readonly corrections: Corrections;
}

/** What can be drawn of a board: its box in mm, once its picture can be painted. */
export type Shown =
  | { readonly kind: "ok"; readonly box: readonly [number, number, number, number] | undefined }
  | { readonly kind: "error"; readonly message: string; readonly hint: string };

let painter: Painter | undefined;
let shown: BoardSet | undefined;
let snapper: Snapper | undefined;
let drop: ReturnType<typeof openDrop> | undefined;
let entries: Entry[] | undefined;

type Progress = (what: string, share: number) => void;

const refused = (why: string, hint: string | undefined) =>
  ({ kind: "error", message: why, hint: hint ?? "Pack the files again and drop the new archive." }) as const;
const NOTHING_OPEN = { kind: "error", message: "No drop is open.", hint: "Drop the files again." } as const;

/** Stored files that cannot be opened any more. */
export interface Unread {
  readonly kind: "error";
  readonly message: string;
}
const isUnread = (of: BoardSet | Unread): of is Unread => "kind" in of;

function readStored({ bytes, corrections }: StoredBoard): BoardSet | Unread {
  const opened = openDrop([{ path: "board.zip", bytes }]);
  if (opened.rejected) return { kind: "error", message: opened.rejected };
  return boardOf(opened.files, opened.notes, { corrections }).set;
}

type Spots = readonly { readonly x: number; readonly y: number; readonly diameterMm: number }[];
function placesOf(set: BoardSet, spots: Spots): PlaceReading[] {
  const read = placeReader(set);
  return spots.map((s) => read(s, s.diameterMm));
}

const api = {
  /** Unpacks a drop; what is asked of this worker afterwards is about it. */
  unpack(files: readonly FileEntry[]): { readonly rejected?: string } {
    drop = openDrop(files);
    entries = undefined;
    return drop.rejected ? { rejected: drop.rejected } : {};
  },

  /** Reads the layers and drills for their picture only. */
  show(corrections: Corrections, memory: Memory, progress: Progress): Shown {
    if (!drop) return NOTHING_OPEN;
    if (drop.rejected) return refused(drop.rejected, drop.notes.at(-1)?.do);
    const { set } = boardOf(drop.files, [], { corrections, memory, progress });
    shown = set;
    snapper = undefined;
    painter = new Painter(set);
    return { kind: "ok", box: painter.box };
  },

  /** Reads and measures everything; says what it is doing. Long: a worker that paints is not asked this. */
  async measure(corrections: Corrections, memory: Memory, progress: Progress): Promise<Loaded> {
    if (!drop) return NOTHING_OPEN;
    if (drop.rejected) return refused(drop.rejected, drop.notes.at(-1)?.do);
    if (!entries) {
      const split = await splitTables(drop.files, isTable);
      entries = split.entries;
      drop = { ...drop, notes: [...drop.notes, ...split.notes] };
    }
    const read = boardOf(entries, drop.notes, {
      corrections,
      memory,
      progress: (path, share) => progress(path, 0.05 + share * 0.4),
    });
    const { set } = read;
    const measure = measureBoard(set, (what, share) => progress(`measuring: ${what}`, 0.45 + share * 0.55));
    return {
      kind: "ok",
      measure,
      parts: set.bom?.lines.length ?? 0,
      places: set.placements?.parts.length ?? 0,
      list: set.list,
      corrections: read.corrections,
    };
  },

  /** What to try on a stored board while it is bare, in the minutes there are. */
  probe(board: StoredBoard, minutes: number): ProbeDocument | Unread {
    const set = readStored(board);
    return isUnread(set) ? set : probeBoard(set, minutes);
  },

  /** What a stored board's files have at round places. */
  places(board: StoredBoard, spots: Spots): readonly PlaceReading[] | Unread {
    const set = readStored(board);
    return isUnread(set) ? set : placesOf(set, spots);
  },

  /** Currents in the copper of a stored board. */
  flow(board: StoredBoard, { asks, copper }: Pick<FlowPlan, "asks" | "copper">): readonly Flow[] | Unread {
    const set = readStored(board);
    return isUnread(set) ? set : flowOf(set, asks, copper);
  },

  /** Circles and size of a drawing of what the board must fit. */
  drawing(bytes: Uint8Array): ReadDrawing {
    return readDrawing(bytes);
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

  /** The foil of one side of the shown board, worked out; nothing where it has no paste layer there. */
  foil(side: "top" | "bottom", pins: readonly KnownPin[], wishes: CorrectionWishes): FoilWork | undefined {
    const paste = shown?.files.find((f) => f.role === "paste" && f.side === side && f.layer)?.layer;
    return paste ? foilWork(paste, side, pins, wishes) : undefined;
  },

  /** One side's copper as it is printed to be etched here; nothing where it has none. */
  print(side: "top" | "bottom", resist: Resist): string | undefined {
    return shown && copperPrint(shown, side, resist);
  },

  /** What making one of the shown board here comes to. */
  recipe(measure: Measure, copperUm: number): Recipe | undefined {
    return shown && recipeOf(shown, measure, copperUm);
  },

  /** Paints a view of the board, or a tile of one; undefined when there is nothing to paint. */
  paint(request: PaintRequest): ImageBitmap | undefined {
    const bitmap = painter?.paint(request);
    return bitmap ? Comlink.transfer(bitmap, [bitmap]) : undefined;
  },
};

export type BoardApi = typeof api;
Comlink.expose(api);
