import type { BoardConnection } from "../workers/board.ts";

/** Where the middle of the frame is on the board (mm) and how large a millimetre is (CSS pixels). */
export interface View {
  readonly scale: number;
  readonly cx: number;
  readonly cy: number;
}

type Request = Parameters<BoardConnection["paint"]>[0];

/** Everything a picture depends on beside its view: a newer one replaces it whole. */
export interface Look {
  readonly side: "top" | "bottom";
  readonly forward: Request["forward"];
  readonly colours: Request["colours"];
  /** Device pixels of a CSS pixel. */
  readonly ratio: number;
}

/** Side of a tile in CSS pixels. */
const TILE = 256;
/** Pixels a tile overlaps its neighbours by, so that no seam shows while it is scaled. */
const LAP = 1;
/** Tiles of one level kept at most; the farthest go first. */
const KEPT = 140;
/**
 * Tiles asked for at a time: the painter never waits for the page's next frame, and little of it grows stale.
 * While the scale is being changed it is one: most of those would never be seen.
 */
const ASKED = 5;
/** A change of scale this soon after another is one movement of the hand: it shows scaled tiles until it rests. */
const RESTS_MS = 70;

interface Level {
  readonly look: Look;
  readonly scale: number;
  readonly flip: number;
  readonly element: HTMLDivElement;
  readonly tiles: Map<string, HTMLCanvasElement | undefined>;
}

/**
 * A board as tiles that a worker paints: moving and scaling only moves what is there, new tiles come when they are done.
 *
 * One level (a scale, a side, a look) is current. The last whole one stays beneath it until it is whole itself.
 */
export class Tiles {
  private readonly host: HTMLElement;
  private readonly board: BoardConnection;
  private current: Level | undefined;
  private below: Level | undefined;
  private view: View | undefined;
  private size = { w: 0, h: 0 };
  private asked = 0;
  private scaledAt = 0;
  private rest: ReturnType<typeof setTimeout> | undefined;
  private isClosed = false;

  constructor(host: HTMLElement, board: BoardConnection) {
    this.host = host;
    this.board = board;
  }

  /** Shows a view. Cheap enough for every movement: nothing is painted on the page's own thread. */
  show(view: View, look: Look, size: { readonly w: number; readonly h: number }): void {
    this.size = size;
    const now = performance.now();
    const old = this.current;
    const isOther = !old || old.look !== look;
    if (this.view && this.view.scale !== view.scale) {
      const isMoving = now - this.scaledAt < RESTS_MS;
      this.scaledAt = now;
      clearTimeout(this.rest);
      if (!isOther && isMoving && view.scale / old.scale < 1.6 && view.scale / old.scale > 0.6)
        this.rest = setTimeout(() => this.view && this.show(this.view, look, this.size), RESTS_MS);
      else this.begin(view.scale, look);
    } else if (isOther || (old.scale !== view.scale && now - this.scaledAt >= RESTS_MS - 5))
      this.begin(view.scale, look);
    this.view = view;
    for (const level of [this.below, this.current]) if (level) this.put(level, view);
    this.fill();
  }

  /** Ends it; what is still being painted is dropped when it comes. */
  close(): void {
    this.isClosed = true;
    clearTimeout(this.rest);
    this.host.replaceChildren();
  }

  private begin(scale: number, look: Look): void {
    // what waited for the hand to rest would bring back the look of that moment
    clearTimeout(this.rest);
    const old = this.current;
    // the whole one stays beneath; of two that are not whole the older goes on being seen
    if (old && (!this.below || this.isWhole(old))) {
      this.below?.element.remove();
      this.below = old;
    } else old?.element.remove();
    const element = document.createElement("div");
    element.className = "absolute left-0 top-0 origin-top-left will-change-transform";
    this.host.append(element);
    this.current = { look, scale, flip: look.side === "bottom" ? -1 : 1, element, tiles: new Map() };
    delete this.host.dataset.painted;
  }

  private put(level: Level, view: View): void {
    const k = view.scale / level.scale;
    const { ratio } = level.look;
    let x = this.size.w / 2 - view.cx * view.scale * level.flip;
    let y = this.size.h / 2 + view.cy * view.scale;
    // on whole pixels where nothing is scaled, so that what was painted sharp is shown sharp
    if (k === 1) [x, y] = [Math.round(x * ratio) / ratio, Math.round(y * ratio) / ratio];
    level.element.style.transform = `translate(${x}px, ${y}px) scale(${k})`;
  }

  /** Tiles of the current level that touch the frame widened by `beyond` tiles, nearest to its middle first. */
  private needed(level: Level, beyond: number): [number, number][] {
    const { view, size } = this;
    if (!view) return [];
    const k = level.scale / view.scale;
    const [mx, my] = [view.cx * level.scale * level.flip, -view.cy * level.scale];
    const [w, h] = [(size.w / 2) * k, (size.h / 2) * k];
    const list: [number, number, number][] = [];
    for (let y = Math.floor((my - h) / TILE) - beyond; y <= Math.floor((my + h) / TILE) + beyond; y++)
      for (let x = Math.floor((mx - w) / TILE) - beyond; x <= Math.floor((mx + w) / TILE) + beyond; x++)
        list.push([x, y, ((x + 0.5) * TILE - mx) ** 2 + ((y + 0.5) * TILE - my) ** 2]);
    return list.sort((a, b) => a[2] - b[2]).map(([x, y]) => [x, y]);
  }

  private isWhole(level: Level): boolean {
    return this.needed(level, 0).every(([x, y]) => level.tiles.get(`${x} ${y}`));
  }

  private fill(): void {
    const level = this.current;
    if (!level || this.isClosed) return;
    if (this.isWhole(level)) {
      this.below?.element.remove();
      this.below = undefined;
      this.host.dataset.painted = level.look.side;
    }
    const isMoving = performance.now() - this.scaledAt < RESTS_MS;
    while (this.asked < (isMoving ? 1 : ASKED)) {
      const isMissing = ([x, y]: [number, number]) => !level.tiles.has(`${x} ${y}`);
      const next = this.needed(level, 0).find(isMissing) ?? this.needed(level, 1).find(isMissing);
      if (!next) return;
      this.ask(level, ...next);
    }
  }

  private async ask(level: Level, x: number, y: number): Promise<void> {
    const key = `${x} ${y}`;
    const { ratio, side, forward, colours } = level.look;
    level.tiles.set(key, undefined);
    this.asked++;
    const sidePx = Math.round((TILE + 2 * LAP) * ratio);
    try {
      const bitmap = await this.board.paint({
        side,
        widthPx: sidePx,
        heightPx: sidePx,
        scale: level.scale * ratio,
        cx: ((x + 0.5) * TILE * level.flip) / level.scale,
        cy: (-(y + 0.5) * TILE) / level.scale,
        forward,
        colours,
      });
      if (!bitmap) return;
      if (!this.isClosed && (level === this.current || level === this.below)) {
        const canvas = document.createElement("canvas");
        canvas.width = bitmap.width;
        canvas.height = bitmap.height;
        canvas.className = "absolute";
        Object.assign(canvas.style, {
          left: `${x * TILE - LAP}px`,
          top: `${y * TILE - LAP}px`,
          width: `${TILE + 2 * LAP}px`,
          height: `${TILE + 2 * LAP}px`,
        });
        canvas.getContext("2d")!.drawImage(bitmap, 0, 0);
        level.element.append(canvas);
        level.tiles.set(key, canvas);
        this.drop(level);
      }
      bitmap.close();
    } finally {
      this.asked--;
      this.fill();
    }
  }

  private drop(level: Level): void {
    if (level.tiles.size <= KEPT) return;
    const near = new Set(this.needed(level, 2).map(([x, y]) => `${x} ${y}`));
    for (const [key, canvas] of level.tiles) {
      if (level.tiles.size <= KEPT) return;
      if (!canvas || near.has(key)) continue;
      canvas.remove();
      level.tiles.delete(key);
    }
  }
}
