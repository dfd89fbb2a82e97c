import {
  type BoardSet,
  chainOutline,
  KIND,
  type LayerImage,
  type PictureColours,
  shapesOfObject,
} from "@kobbin/core";

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

interface Stroke {
  readonly width: number;
  readonly path: Path2D;
}
/** Objects of one polarity that stand together: their order does not matter, so strokes gather by width. */
interface Batch {
  readonly dark: boolean;
  readonly fill: Path2D;
  readonly strokes: Stroke[];
}

/** Paints a board as delivered: laminate, copper through the mask, openings with the finish, silkscreen, holes. */
export class Painter {
  private readonly layers = new Map<string, Batch[]>();
  private readonly outline: Path2D | undefined;
  private readonly holes = new Path2D();
  private readonly rings = new Path2D();
  private readonly slots: { width: number; path: Path2D }[] = [];
  private readonly box: readonly [number, number, number, number] | undefined;

  constructor(set: BoardSet) {
    for (const f of set.files) {
      if (f.layer && f.side && ["copper", "mask", "paste", "legend"].includes(f.role)) {
        const key = `${f.role} ${f.side}`;
        if (!this.layers.has(key)) this.layers.set(key, batches(f.layer));
      }
      if (f.role === "drill" && f.drill) {
        for (const h of f.drill.hits) {
          this.holes.moveTo(h.x + h.diameterMm / 2, h.y);
          this.holes.arc(h.x, h.y, h.diameterMm / 2, 0, 2 * Math.PI);
          if (h.plated !== false && f.plated !== false) {
            this.rings.moveTo(h.x + h.diameterMm / 2 + 0.03, h.y);
            this.rings.arc(h.x, h.y, h.diameterMm / 2 + 0.03, 0, 2 * Math.PI);
          }
        }
        for (const r of f.drill.routs) {
          const path = new Path2D();
          r.points.forEach(([x, y], i) => {
            if (i === 0) path.moveTo(x, y);
            else path.lineTo(x, y);
          });
          this.slots.push({ width: r.widthMm, path });
        }
      }
    }
    const profile = set.files.find((f) => f.role === "profile" && f.layer);
    const chained = profile?.layer ? chainOutline(profile.layer, profile.path) : undefined;
    if (chained?.isClosed) {
      const path = new Path2D();
      for (const loop of chained.loops) ringTo(path, loop.ring);
      this.outline = path;
      this.box = chained.box;
    } else {
      const copper = set.files.find((f) => f.role === "copper" && f.layer)?.layer;
      if (copper) this.box = boxOf(copper);
    }
  }

  paint(q: PaintRequest): ImageBitmap | undefined {
    if (!this.box || q.widthPx < 1 || q.heightPx < 1) return undefined;
    const board = this.sheet(q);
    const b = board.ctx;
    const outline = this.outline ?? rectPath(this.box);
    b.fillStyle = q.colours.mask;
    b.fill(outline, "evenodd");
    const copper = this.layers.get(`copper ${q.side}`) ?? [];
    const under = this.sheet(q);
    draw(under.ctx, copper, q.colours.copperUnderMask);
    b.save();
    b.clip(outline, "evenodd");
    reset(b, () => b.drawImage(under.canvas, 0, 0));
    const openings = this.layers.get(`mask ${q.side}`);
    if (openings) {
      // what the mask leaves open: laminate, and copper in its finish
      const open = this.sheet(q);
      draw(open.ctx, openings, q.colours.laminate);
      const bare = this.sheet(q);
      draw(bare.ctx, copper, q.colours.finish);
      open.ctx.globalCompositeOperation = "source-atop";
      reset(open.ctx, () => open.ctx.drawImage(bare.canvas, 0, 0));
      reset(b, () => b.drawImage(open.canvas, 0, 0));
    }
    const ink = this.layers.get(`legend ${q.side}`);
    if (ink) {
      const print = this.sheet(q);
      draw(print.ctx, ink, q.colours.legend);
      if (openings) {
        print.ctx.globalCompositeOperation = "destination-out";
        draw(print.ctx, openings, "#000", true);
      }
      reset(b, () => b.drawImage(print.canvas, 0, 0));
    }
    if (q.forward) {
      b.fillStyle = q.colours.paper;
      b.globalAlpha = 0.62;
      b.fill(outline, "evenodd");
      b.globalAlpha = 1;
      const front = this.sheet(q);
      draw(front.ctx, this.layers.get(`${q.forward} ${q.side}`) ?? [], q.colours.forward);
      reset(b, () => b.drawImage(front.canvas, 0, 0));
    }
    b.restore();
    b.fillStyle = q.colours.finish;
    b.globalCompositeOperation = "source-atop";
    b.globalAlpha = 0.55;
    b.fill(this.rings);
    b.globalAlpha = 1;
    b.globalCompositeOperation = "destination-out";
    b.fill(this.holes);
    b.lineCap = "round";
    b.lineJoin = "round";
    for (const s of this.slots) {
      b.lineWidth = s.width;
      b.stroke(s.path);
    }
    b.globalCompositeOperation = "source-over";
    b.strokeStyle = q.colours.edge;
    b.lineWidth = 1.2 / q.scale;
    b.stroke(outline);
    b.lineWidth = 0.6 / q.scale;
    b.stroke(this.holes);

    const page = new OffscreenCanvas(q.widthPx, q.heightPx);
    const p = page.getContext("2d")!;
    paper(p, q, this.box);
    p.shadowColor = "rgb(0 0 0 / 0.22)";
    p.shadowBlur = 10;
    p.shadowOffsetY = 3;
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
    if (!bitmap) return undefined;
    const canvas = new OffscreenCanvas(bitmap.width, bitmap.height);
    canvas.getContext("2d")!.drawImage(bitmap, 0, 0);
    bitmap.close();
    return canvas.convertToBlob({ type: "image/png" });
  }

  /** A canvas whose unit is a millimetre, y up, mirrored for the bottom. */
  private sheet(q: PaintRequest): { canvas: OffscreenCanvas; ctx: OffscreenCanvasRenderingContext2D } {
    const canvas = new OffscreenCanvas(q.widthPx, q.heightPx);
    const ctx = canvas.getContext("2d")!;
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
  colour: string,
  keepsMode = false,
): void {
  ctx.fillStyle = colour;
  ctx.strokeStyle = colour;
  ctx.lineCap = "round";
  ctx.lineJoin = "round";
  for (const b of list) {
    if (!keepsMode) ctx.globalCompositeOperation = b.dark ? "source-over" : "destination-out";
    ctx.fill(b.fill, "nonzero");
    for (const s of b.strokes) {
      ctx.lineWidth = s.width;
      ctx.stroke(s.path);
    }
  }
  if (!keepsMode) ctx.globalCompositeOperation = "source-over";
}

function batches(image: LayerImage): Batch[] {
  const out: Batch[] = [];
  let open: { dark: boolean; fill: Path2D; byWidth: Map<number, { path: Path2D; n: number }[]> } | undefined;
  const close = () => {
    if (open)
      out.push({
        dark: open.dark,
        fill: open.fill,
        strokes: [...open.byWidth].flatMap(([width, list]) => list.map(({ path }) => ({ width, path }))),
      });
    open = undefined;
  };
  for (let i = 0; i < image.n; i++) {
    const dark = image.dark[i] === 1;
    if (!open || open.dark !== dark) {
      close();
      open = { dark, fill: new Path2D(), byWidth: new Map() };
    }
    const kind = image.kind[i]!;
    const a = kind === KIND.region ? undefined : image.apertures[image.aperture[i]!];
    const o = i * 6;
    const g = image.geo;
    if (kind === KIND.line && a?.circleMm !== undefined && (g[o] !== g[o + 2] || g[o + 1] !== g[o + 3])) {
      // paths of a few hundred pieces are fastest: neither one an object nor one for all
      const list = open.byWidth.get(a.circleMm) ?? [];
      let last = list.at(-1);
      if (!last || last.n >= 300) {
        last = { path: new Path2D(), n: 0 };
        list.push(last);
        open.byWidth.set(a.circleMm, list);
      }
      last.n++;
      last.path.moveTo(g[o]!, g[o + 1]!);
      last.path.lineTo(g[o + 2]!, g[o + 3]!);
      continue;
    }
    for (const s of shapesOfObject(image, i)) {
      if (s.rings.length > 0) {
        for (const ring of s.rings) ringTo(open.fill, ring);
        continue;
      }
      for (let k = 0; k < s.edges.length; k += 4)
        capsuleTo(open.fill, s.edges[k]!, s.edges[k + 1]!, s.edges[k + 2]!, s.edges[k + 3]!, s.r);
    }
  }
  close();
  return out;
}

function ringTo(path: Path2D, ring: readonly number[]): void {
  path.moveTo(ring[0]!, ring[1]!);
  for (let i = 2; i < ring.length; i += 2) path.lineTo(ring[i]!, ring[i + 1]!);
  path.closePath();
}

function capsuleTo(path: Path2D, x1: number, y1: number, x2: number, y2: number, r: number): void {
  const a = Math.atan2(y2 - y1, x2 - x1);
  path.moveTo(x1 + r * Math.cos(a + Math.PI / 2), y1 + r * Math.sin(a + Math.PI / 2));
  path.arc(x1, y1, r, a + Math.PI / 2, a + 1.5 * Math.PI);
  path.arc(x2, y2, r, a - Math.PI / 2, a + Math.PI / 2);
  path.closePath();
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
