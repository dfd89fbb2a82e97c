import {
  type BoardSet,
  chainOutline,
  type LayerImage,
  type PictureColours,
  shapesOfObject,
} from "@kobbin/core";
import { type Batch, batches, type Chunk, Gatherer, ringTo } from "./chunks.ts";

/** What to paint: a view in millimetres onto a canvas in pixels. */
export interface PaintRequest {
  readonly side: "top" | "bottom";
  readonly widthPx: number;
  readonly heightPx: number;
  /** Pixels per millimetre. */
  readonly scale: number;
  /** Board point at the canvas's centre, mm. */
  readonly cx: number;
  readonly cy: number;
  /** A layer brought forward over the dimmed board. */
  readonly forward?: "copper" | "mask" | "paste" | "legend" | undefined;
  readonly colours: BoardColours;
}

export interface BoardColours extends PictureColours {
  readonly forward: string;
  readonly paper: string;
  readonly grid: string;
}

/** Cells of the finest grid the pieces are gathered in, along the board's longer side. */
const CELLS = 20;

/** Paints a board as delivered: laminate, copper through the mask, openings with the finish, silkscreen, holes. */
export class Painter {
  private readonly images = new Map<string, LayerImage>();
  private readonly layers = new Map<string, Batch[]>();
  private readonly cellMm: number;
  private readonly outline: Path2D | undefined;
  private readonly holes: readonly Chunk[] = [];
  private readonly rings: readonly Chunk[] = [];
  private readonly slots: readonly Chunk[] = [];
  private sheets: OffscreenCanvas[] = [];
  /** The board's box, mm: its outline's, else its copper's. */
  readonly box: readonly [number, number, number, number] | undefined;

  constructor(set: BoardSet) {
    const profile = set.files.find((f) => f.role === "profile" && f.layer);
    const chained = profile?.layer ? chainOutline(profile.layer, profile.path) : undefined;
    if (chained?.isClosed && chained.box) {
      const path = new Path2D();
      for (const loop of chained.loops) ringTo(path, loop.ring);
      this.outline = path;
      this.box = chained.box;
    } else {
      const copper = set.files.find((f) => f.role === "copper" && f.layer)?.layer;
      if (copper) this.box = boxOf(copper);
    }
    const box = this.box ?? [0, 0, 0, 0];
    const cellMm = Math.max(0.5, box[2] - box[0], box[3] - box[1]) / CELLS;
    this.cellMm = cellMm;
    const [holes, rings, slots] = [new Gatherer(cellMm), new Gatherer(cellMm), new Gatherer(cellMm)];
    for (const f of set.files) {
      if (f.layer && f.side && ["copper", "mask", "paste", "legend"].includes(f.role)) {
        const key = `${f.role} ${f.side}`;
        if (!this.images.has(key)) this.images.set(key, f.layer);
      }
      if (f.role !== "drill" || !f.drill) continue;
      for (const h of f.drill.hits) {
        const r = h.diameterMm / 2;
        discTo(holes, h.x, h.y, r);
        if (h.plated !== false && f.plated !== false) discTo(rings, h.x, h.y, r + 0.03);
      }
      for (const r of f.drill.routs) {
        const [xs, ys] = [r.points.map((p) => p[0]), r.points.map((p) => p[1])];
        const path = slots.at(least(xs), least(ys), most(xs), most(ys), r.widthMm);
        r.points.forEach(([x, y], i) => {
          if (i === 0) path.moveTo(x, y);
          else path.lineTo(x, y);
        });
      }
    }
    this.holes = holes.chunks;
    this.rings = rings.chunks;
    this.slots = slots.chunks;
  }

  // biome-ignore lint/complexity/noExcessiveLinesPerFunction: one picture, sheet upon sheet in the order they cover each other
  paint(q: PaintRequest): ImageBitmap | undefined {
    if (!this.box || q.widthPx < 1 || q.heightPx < 1) return undefined;
    const page = new OffscreenCanvas(q.widthPx, q.heightPx);
    const p = page.getContext("2d")!;
    paper(p, q, this.box);
    const seen = seenBy(q);
    if (!meets(seen, this.box)) return page.transferToImageBitmap();
    this.taken = 0;
    const board = this.sheet(q);
    const b = board.ctx;
    const outline = this.outline ?? rectPath(this.box);
    b.fillStyle = q.colours.mask;
    b.fill(outline, "evenodd");
    const copper = this.layer("copper", q.side) ?? [];
    const under = this.sheet(q);
    draw(under.ctx, copper, seen, q.colours.copperUnderMask);
    b.save();
    b.clip(outline, "evenodd");
    reset(b, () => b.drawImage(under.canvas, 0, 0));
    const openings = this.layer("mask", q.side);
    if (openings) {
      // what the mask leaves open: laminate, and copper in its finish
      const open = this.sheet(q);
      draw(open.ctx, openings, seen, q.colours.laminate);
      const bare = this.sheet(q);
      draw(bare.ctx, copper, seen, q.colours.finish);
      open.ctx.globalCompositeOperation = "source-atop";
      reset(open.ctx, () => open.ctx.drawImage(bare.canvas, 0, 0));
      reset(b, () => b.drawImage(open.canvas, 0, 0));
    }
    const ink = this.layer("legend", q.side);
    if (ink) {
      const print = this.sheet(q);
      draw(print.ctx, ink, seen, q.colours.legend);
      if (openings) {
        print.ctx.globalCompositeOperation = "destination-out";
        draw(print.ctx, openings, seen, "#000", true);
      }
      reset(b, () => b.drawImage(print.canvas, 0, 0));
    }
    if (q.forward) {
      b.fillStyle = q.colours.paper;
      b.globalAlpha = 0.62;
      b.fill(outline, "evenodd");
      b.globalAlpha = 1;
      const front = this.sheet(q);
      draw(front.ctx, this.layer(q.forward, q.side) ?? [], seen, q.colours.forward);
      reset(b, () => b.drawImage(front.canvas, 0, 0));
    }
    b.restore();
    b.globalAlpha = 0.55;
    chunksTo(b, this.rings, seen, q.colours.finish, "source-atop");
    b.globalAlpha = 1;
    chunksTo(b, this.holes, seen, "#000", "destination-out");
    chunksTo(b, this.slots, seen, "#000", "destination-out");
    b.globalCompositeOperation = "source-over";
    b.strokeStyle = q.colours.edge;
    b.lineWidth = 1.2 / q.scale;
    b.stroke(outline);
    b.lineWidth = 0.6 / q.scale;
    for (const c of this.holes) if (meets(seen, c.box)) b.stroke(c.path);

    // the shadow is the outline's, not the picture's: a tile beside the board has its share too
    p.save();
    p.setTransform(b.getTransform());
    p.shadowColor = "rgb(0 0 0 / 0.22)";
    p.shadowBlur = 10;
    p.shadowOffsetY = 3;
    p.fillStyle = q.colours.paper;
    p.fill(outline, "evenodd");
    p.restore();
    p.drawImage(board.canvas, 0, 0);
    return page.transferToImageBitmap();
  }

  /** The whole side without paper, forty dots a millimetre, fewer where that would be more than 6,000 dots wide. */
  async whole(side: "top" | "bottom", colours: BoardColours): Promise<Blob | undefined> {
    if (!this.box) return undefined;
    const [x0, y0, x1, y1] = this.box;
    const scale = Math.min(40, 6000 / Math.max(x1 - x0 + 2, y1 - y0 + 2));
    const bitmap = this.paint({
      side,
      widthPx: Math.round((x1 - x0 + 2) * scale),
      heightPx: Math.round((y1 - y0 + 2) * scale),
      scale,
      cx: (x0 + x1) / 2,
      cy: (y0 + y1) / 2,
      colours: { ...colours, paper: "#ffffff", grid: "#ffffff" },
    });
    this.sheets = [];
    if (!bitmap) return undefined;
    const canvas = new OffscreenCanvas(bitmap.width, bitmap.height);
    canvas.getContext("2d")!.drawImage(bitmap, 0, 0);
    bitmap.close();
    return canvas.convertToBlob({ type: "image/png" });
  }

  /** A layer's batches, gathered when its side is first looked at. */
  private layer(role: string, side: string): Batch[] | undefined {
    const key = `${role} ${side}`;
    const image = this.images.get(key);
    if (image && !this.layers.has(key)) this.layers.set(key, batches(image, this.cellMm));
    return this.layers.get(key);
  }

  private taken = 0;

  /** A clear canvas whose unit is a millimetre, y up, mirrored for the bottom; used again by the next picture. */
  private sheet(q: PaintRequest): { canvas: OffscreenCanvas; ctx: OffscreenCanvasRenderingContext2D } {
    let canvas = this.sheets[this.taken];
    if (!canvas || canvas.width !== q.widthPx || canvas.height !== q.heightPx) {
      canvas = new OffscreenCanvas(q.widthPx, q.heightPx);
      this.sheets[this.taken] = canvas;
    }
    this.taken++;
    const ctx = canvas.getContext("2d")!;
    ctx.setTransform(1, 0, 0, 1, 0, 0);
    ctx.globalCompositeOperation = "source-over";
    ctx.globalAlpha = 1;
    ctx.clearRect(0, 0, q.widthPx, q.heightPx);
    const flip = q.side === "bottom" ? -1 : 1;
    ctx.setTransform(
      q.scale * flip,
      0,
      0,
      -q.scale,
      q.widthPx / 2 - q.cx * q.scale * flip,
      q.heightPx / 2 + q.cy * q.scale,
    );
    return { canvas, ctx };
  }
}

/** What a request shows of the board, mm, with room for the board's shadow and thin lines. */
function seenBy(q: PaintRequest): [number, number, number, number] {
  const [w, h] = [(q.widthPx / 2 + 16) / q.scale, (q.heightPx / 2 + 16) / q.scale];
  return [q.cx - w, q.cy - h, q.cx + w, q.cy + h];
}

const meets = (a: readonly number[], b: readonly number[]) =>
  a[0]! <= b[2]! && b[0]! <= a[2]! && a[1]! <= b[3]! && b[1]! <= a[3]!;
const least = (list: readonly number[]) => list.reduce((a, b) => Math.min(a, b), Infinity);
const most = (list: readonly number[]) => list.reduce((a, b) => Math.max(a, b), -Infinity);

function discTo(to: Gatherer, x: number, y: number, r: number): void {
  const path = to.at(x - r, y - r, x + r, y + r, 0);
  path.moveTo(x + r, y);
  path.arc(x, y, r, 0, 2 * Math.PI);
}

const reset = (ctx: OffscreenCanvasRenderingContext2D, work: () => void) => {
  ctx.save();
  ctx.setTransform(1, 0, 0, 1, 0, 0);
  work();
  ctx.restore();
};

function paper(
  p: OffscreenCanvasRenderingContext2D,
  q: PaintRequest,
  box: readonly [number, number, number, number],
): void {
  p.fillStyle = q.colours.paper;
  p.fillRect(0, 0, q.widthPx, q.heightPx);
  const flip = q.side === "bottom" ? -1 : 1;
  let step = 1;
  for (const s of [1, 2, 5, 10, 20, 50]) {
    step = s;
    if (s * q.scale >= 22) break;
  }
  p.strokeStyle = q.colours.grid;
  p.lineWidth = 1;
  p.beginPath();
  const toX = (x: number) => Math.round(q.widthPx / 2 + (x - q.cx) * q.scale * flip) + 0.5;
  const toY = (y: number) => Math.round(q.heightPx / 2 - (y - q.cy) * q.scale) + 0.5;
  const spanX = q.widthPx / q.scale / 2 + step;
  const spanY = q.heightPx / q.scale / 2 + step;
  for (let x = box[0] + Math.floor((q.cx - spanX - box[0]) / step) * step; x <= q.cx + spanX; x += step) {
    p.moveTo(toX(x), 0);
    p.lineTo(toX(x), q.heightPx);
  }
  for (let y = box[1] + Math.floor((q.cy - spanY - box[1]) / step) * step; y <= q.cy + spanY; y += step) {
    p.moveTo(0, toY(y));
    p.lineTo(q.widthPx, toY(y));
  }
  p.stroke();
}

function draw(
  ctx: OffscreenCanvasRenderingContext2D,
  list: readonly Batch[],
  seen: readonly number[],
  colour: string,
  keepsMode = false,
): void {
  const mode = ctx.globalCompositeOperation;
  for (const b of list)
    chunksTo(ctx, b.chunks, seen, colour, keepsMode ? mode : b.dark ? "source-over" : "destination-out");
  if (!keepsMode) ctx.globalCompositeOperation = "source-over";
}

function chunksTo(
  ctx: OffscreenCanvasRenderingContext2D,
  chunks: readonly Chunk[],
  seen: readonly number[],
  colour: string,
  mode: GlobalCompositeOperation,
): void {
  ctx.globalCompositeOperation = mode;
  ctx.fillStyle = colour;
  ctx.strokeStyle = colour;
  ctx.lineCap = "round";
  ctx.lineJoin = "round";
  for (const c of chunks) {
    if (!meets(seen, c.box)) continue;
    if (c.width === 0) ctx.fill(c.path, "nonzero");
    else {
      ctx.lineWidth = c.width;
      ctx.stroke(c.path);
    }
  }
}

function rectPath([x0, y0, x1, y1]: readonly [number, number, number, number]): Path2D {
  const path = new Path2D();
  path.rect(x0, y0, x1 - x0, y1 - y0);
  return path;
}

function boxOf(image: LayerImage): [number, number, number, number] | undefined {
  let b: [number, number, number, number] | undefined;
  for (let i = 0; i < image.n; i++)
    for (const s of shapesOfObject(image, i))
      b = b
        ? [
            Math.min(b[0], s.box[0]),
            Math.min(b[1], s.box[1]),
            Math.max(b[2], s.box[2]),
            Math.max(b[3], s.box[3]),
          ]
        : [...s.box];
  return b;
}
