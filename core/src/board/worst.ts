/** A place on the board with the value measured there. */
export interface Place {
  readonly layer: string;
  readonly x: number;
  readonly y: number;
  /** The value at this place, mm. */
  readonly mm?: number;
}

/** Places kept of each measure. */
export const MOST_PLACES = 20;

/** Places nearer than this are one place to a person. */
const SAME_PLACE_MM = 0.3;

/**
 * The least values of a measure with their places, at most {@link MOST_PLACES}, ascending; places of one spot count once.
 */
export class Worst {
  private readonly list: { mm: number; layer: string; x: number; y: number }[] = [];

  /** Values above this need not be added. */
  get limit(): number {
    return this.list.length < MOST_PLACES ? Number.POSITIVE_INFINITY : this.list[MOST_PLACES - 1]!.mm;
  }

  get least(): number | undefined {
    return this.list[0]?.mm;
  }

  add(mm: number, layer: string, x: number, y: number): void {
    if (mm >= this.limit) return;
    const { list } = this;
    const near = list.findIndex(
      (p) => p.layer === layer && Math.abs(p.x - x) < SAME_PLACE_MM && Math.abs(p.y - y) < SAME_PLACE_MM,
    );
    if (near >= 0) {
      if (list[near]!.mm <= mm) return;
      list.splice(near, 1);
    }
    let i = list.length;
    while (i > 0 && list[i - 1]!.mm > mm) i--;
    list.splice(i, 0, { mm, layer, x, y });
    if (list.length > MOST_PLACES) list.pop();
  }

  /** `keyMm` and `keyAt` of the document; nothing where nothing was measured. */
  keys(key: string): Record<string, unknown> {
    const first = this.list[0];
    if (!first) return {};
    return {
      [`${key}Mm`]: r6(first.mm),
      [`${key}At`]: this.list.map((p) => ({ layer: p.layer, x: r6(p.x), y: r6(p.y), mm: r6(p.mm) })),
    };
  }
}

/** A length as documents carry it: no dust below a nanometre. */
export const r6 = (v: number): number => Math.round(v * 1e6) / 1e6;
