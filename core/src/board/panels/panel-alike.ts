import { insideRings, signedArea } from "../../geometry/polygon.ts";
import { type Box, boxAround } from "../../geometry/turn.ts";
import { KIND, type LayerImage } from "../../gerber/image.ts";
import type { BoardFile } from "../board-file.ts";
import type { PanelPiece } from "../measure-document.ts";
import { r6 } from "../worst.ts";
import { PERFORATION_MM } from "./panel-copies.ts";

/** Holes and pads of an edge may lie as far outside of a piece that was cut along its perforations, mm. */
const BESIDE_MM = 0.6;
/** Places of two files lie as far from their middle within this, mm. */
const SAME_MM = 0.01;
/** Cutting along perforations takes at most this share off a board. */
const CUT_SHARE = 0.15;
/** Equal pieces differ by less of their area. */
const EQUAL = 0.03;
/** Beyond this nothing is counted. */
const MOST_POINTS = 200_000;

/**
 * What of each kind of board lies on a panel: by its area, its holes and its pads, so that a shop knows its own boards again,
 * however they are turned.
 *
 * @param areas boards of the panel as areas, mm
 */
export function kindsOfPieces(
  files: readonly BoardFile[],
  areas: readonly (readonly (readonly number[])[])[],
): PanelPiece[] | undefined {
  const holes = distinct(
    files.flatMap((f) =>
      f.role === "drill"
        ? (f.drill?.hits ?? []).flatMap((h) =>
            isPerforation(h.diameterMm, h.plated ?? f.plated) ? [] : [[h.x, h.y, h.diameterMm] as const],
          )
        : [],
    ),
  );
  const pads = distinct(flashesOf(files.find((f) => f.role === "copper" && f.side === "top")?.layer));
  if (holes.length + pads.length > MOST_POINTS) return undefined;
  const pieces = areas.map((area) => ({
    area,
    areaMm2: Math.abs(area.reduce((n, r) => n + signedArea(r), 0)),
    box: boxAround([area[0]!]),
    holes: new Spread(),
    diametersMm: 0,
    pads: new Spread(),
  }));
  for (const [x, y, mm] of holes) {
    const p = holding(pieces, x, y);
    if (!p) continue;
    p.holes.add(x, y);
    p.diametersMm += mm!;
  }
  for (const [x, y] of pads) holding(pieces, x, y)?.pads.add(x, y);
  const kinds: (PanelPiece & { copies: number })[] = [];
  for (const p of pieces) {
    const own = {
      areaMm2: r6(p.areaMm2),
      holes: p.holes.n,
      diametersMm: r6(p.diametersMm),
      holesSpreadMm: r6(p.holes.mm),
      pads: p.pads.n,
      padsSpreadMm: r6(p.pads.mm),
    };
    const kind = kinds.find((k) => isAlike(k, own) && Math.abs(k.areaMm2 - own.areaMm2) <= EQUAL * k.areaMm2);
    if (kind) kind.copies++;
    else kinds.push({ copies: 1, ...own });
  }
  return kinds;
}

type Spot = readonly [x: number, y: number, mm?: number];

function* flashesOf(layer: LayerImage | undefined): Generator<Spot> {
  for (let i = 0; layer && i < layer.n; i++)
    if (layer.kind[i] === KIND.flash) yield [layer.geo[i * 6]!, layer.geo[i * 6 + 1]!];
}

/** What is drawn twice on one spot is there once. */
function distinct(spots: Iterable<Spot>): Spot[] {
  const seen = new Map<string, Spot>();
  for (const s of spots) {
    const key = s.map((v) => Math.round(v! * 1e4)).join();
    if (!seen.has(key)) seen.set(key, s);
    // more than is counted: nothing further needs to be known
    if (seen.size > MOST_POINTS) break;
  }
  return [...seen.values()];
}

/** How far points lie from their middle, root mean square: the same however a board is turned. */
class Spread {
  n = 0;
  private x = 0;
  private y = 0;
  private squares = 0;

  /** Running means: sums of squares would lose what is far from the origin. */
  add(x: number, y: number): void {
    this.n++;
    const [dx, dy] = [x - this.x, y - this.y];
    this.x += dx / this.n;
    this.y += dy / this.n;
    this.squares += dx * (x - this.x) + dy * (y - this.y);
  }

  get mm(): number {
    return this.n === 0 ? 0 : Math.sqrt(this.squares / this.n);
  }
}

const isPerforation = (mm: number, isPlated: boolean | "mixed" | undefined) =>
  mm <= PERFORATION_MM && isPlated === false;

/** The piece a point lies in, or just beside. */
function holding<P extends { readonly area: readonly (readonly number[])[]; readonly box: Box }>(
  pieces: readonly P[],
  x: number,
  y: number,
): P | undefined {
  const at = (px: number, py: number) =>
    pieces.find(
      ({ area, box: b }) => px >= b[0] && px <= b[2] && py >= b[1] && py <= b[3] && insideRings(area, px, py),
    );
  const within = at(x, y);
  if (within) return within;
  for (let a = 0; a < 8; a++) {
    const beside = at(
      x + BESIDE_MM * Math.cos((a * Math.PI) / 4),
      y + BESIDE_MM * Math.sin((a * Math.PI) / 4),
    );
    if (beside) return beside;
  }
  return undefined;
}

type Mark = Omit<PanelPiece, "copies">;

const isAlike = (a: Mark, b: Mark) =>
  a.pads === b.pads &&
  a.holes === b.holes &&
  Math.abs(a.diametersMm - b.diametersMm) <= SAME_MM * Math.max(1, a.holes) &&
  Math.abs(a.padsSpreadMm - b.padsSpreadMm) <= SAME_MM &&
  Math.abs(a.holesSpreadMm - b.holesSpreadMm) <= SAME_MM;

/**
 * Whether a piece of a panel is that board: as many holes and pads, as large and as far apart, and its area but for what
 * cutting along the perforations took. A board with fewer than three of them is never known again: it could be any.
 */
export const isBoardOfPiece = (piece: Mark, board: Mark): boolean =>
  board.pads + board.holes >= 3 &&
  piece.areaMm2 <= board.areaMm2 * 1.01 &&
  piece.areaMm2 >= board.areaMm2 * (1 - CUT_SHARE) &&
  isAlike(piece, board);

/**
 * Which boards of a shop lie on a panel: of each kind the copies and those it may be, the first named first.
 *
 * @param known the shop's boards, those to be named first before others
 */
export function knownOnPanel<K extends { readonly mark: Mark }>(
  pieces: readonly PanelPiece[],
  known: readonly K[],
): { readonly copies: number; readonly boards: readonly K[] }[] {
  return pieces.map((p) => ({ copies: p.copies, boards: known.filter((k) => isBoardOfPiece(p, k.mark)) }));
}
