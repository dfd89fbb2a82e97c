import { AppError } from "../errors.ts";
import { type DataShape, fields, list, maybe, number, oneOf, text, tuple } from "../shape/index.ts";
import { bestShift, type Round, roomAt, type Shift } from "./pattern.ts";
import { type Clearance, clearanceOf, type Readings, readingsOf } from "./stack.ts";
import { chanceOfAll } from "./together.ts";

const mm = number(-1e4, 1e4);
const size = number(0, 1e4);
const tol = number(0, 100);
const round = fields({ x: mm, y: mm, diameterMm: size });
const rounds = list(round, 200, 1);

const SHAPES = {
  slot: fields({
    id: text(80, 1),
    kind: oneOf("slot"),
    slotMm: size,
    slotTolMm: maybe(tol),
    tabMm: maybe(size),
    tabTolMm: maybe(tol),
    tabReadingsMm: maybe(list(size, 100, 1)),
    readTolMm: maybe(tol),
  }),
  chain: fields({
    id: text(80, 1),
    kind: oneOf("chain"),
    terms: list(fields({ mm, tolMm: maybe(tol), sign: oneOf(1, -1) }), 100, 1),
  }),
  range: fields({
    id: text(80, 1),
    kind: oneOf("range"),
    allowsMm: tuple(size, size),
    boardMm: size,
    boardTolMm: maybe(tol),
  }),
  pattern: fields({
    id: text(80, 1),
    kind: oneOf("pattern"),
    posts: rounds,
    holes: rounds,
    postTolMm: maybe(tol),
    holeTolMm: maybe(tol),
    sizeTolMm: maybe(tol),
  }),
} as const satisfies Readonly<Record<string, DataShape>>;

/** A tab in a slot. Its tab is a length, or what several readings say. */
export interface SlotCheck {
  readonly id: string;
  readonly kind: "slot";
  readonly slotMm: number;
  readonly slotTolMm?: number;
  readonly tabMm?: number;
  readonly tabTolMm?: number;
  readonly tabReadingsMm?: readonly number[];
  readonly readTolMm?: number;
}
/** Lengths one behind the other; what is left over is the clearance. */
export interface ChainCheck {
  readonly id: string;
  readonly kind: "chain";
  readonly terms: readonly { readonly mm: number; readonly tolMm?: number; readonly sign: 1 | -1 }[];
}
/** A board's thickness in what a socket takes. */
export interface RangeCheck {
  readonly id: string;
  readonly kind: "range";
  readonly allowsMm: readonly [number, number];
  readonly boardMm: number;
  readonly boardTolMm?: number;
}
/** Holes over posts, the board free to find its place. */
export interface PatternCheck {
  readonly id: string;
  readonly kind: "pattern";
  readonly posts: readonly Round[];
  readonly holes: readonly Round[];
  /** ± of a post's place, of a hole's place on each axis, and of a hole's size. */
  readonly postTolMm?: number;
  readonly holeTolMm?: number;
  readonly sizeTolMm?: number;
}
export type FitCheck = SlotCheck | ChainCheck | RangeCheck | PatternCheck;

/** What a check comes to. */
export interface FitResult extends Clearance, Partial<Omit<Readings, "meanMm">> {
  readonly id: string;
  /** The size of the slot or of the holes that is safe in the worst case, where one size can mend it. */
  readonly safeNominalMm?: number;
  /** Of a pattern: chance that all its holes go over their posts; `interference` is that of its tightest clearance alone. */
  readonly goesTogether?: number;
  /** Where the board lies best, and the room at each post there. */
  readonly shift?: Shift;
  readonly at?: readonly {
    readonly post: number;
    readonly nominalMm: number;
    readonly worstMm: readonly [number, number];
  }[];
}

const rounded = (v: number) => {
  const r = Math.round(v * 1e6) / 1e6;
  return Object.is(r, -0) ? 0 : r;
};

/**
 * Judges whether something goes together (domain.md 5.8): nominal, worst case, statistical, chance, and what would mend it.
 *
 * @throws AppError OUT_OF_RANGE naming the check and what is wrong with it
 */
export function judgeFit(check: unknown): FitResult {
  const c = checked(check);
  switch (c.kind) {
    case "slot":
      return judgeSlot(c);
    case "chain": {
      const lengths = c.terms.map((t) => t.sign * t.mm);
      return {
        id: c.id,
        ...clearanceOf(
          lengths,
          c.terms.map((t) => t.tolMm ?? 0),
        ),
      };
    }
    case "range":
      return judgeRange(c);
    case "pattern":
      return judgePattern(c);
  }
}

function checked(check: unknown): FitCheck {
  const { id, kind } = (typeof check === "object" && check !== null ? check : {}) as {
    id?: unknown;
    kind?: unknown;
  };
  const name = typeof id === "string" && id !== "" ? `Check ${id}` : "A check without a name";
  if (typeof kind !== "string" || !Object.hasOwn(SHAPES, kind))
    throw refuse(`${name} is of no kind there is.`, `Its kind is one of ${Object.keys(SHAPES).join(", ")}.`);
  const wrong = SHAPES[kind as keyof typeof SHAPES](check, "");
  if (wrong) throw refuse(`${name}: ${wrong}.`, "Correct it; lengths are in mm.");
  const c = check as FitCheck;
  if (c.kind === "slot" && (c.tabMm === undefined) === (c.tabReadingsMm === undefined))
    throw refuse(
      `${name} says its tab ${c.tabMm === undefined ? "not at all" : "twice"}.`,
      "Give tabMm or tabReadingsMm.",
    );
  if (c.kind === "pattern" && c.posts.length !== c.holes.length)
    throw refuse(
      `${name} has ${c.posts.length} posts and ${c.holes.length} holes.`,
      "Each hole belongs to the post at its place in the list.",
    );
  if (c.kind === "range" && c.allowsMm[0] > c.allowsMm[1])
    throw refuse(
      `${name} takes from ${c.allowsMm[0]} to ${c.allowsMm[1]} mm, which is nothing.`,
      "The least comes first.",
    );
  return c;
}

function judgeSlot(c: SlotCheck): FitResult {
  const read = c.tabReadingsMm ? readingsOf(c.tabReadingsMm) : undefined;
  const tab = read?.meanMm ?? c.tabMm!;
  const tabTol = (read ? c.readTolMm : c.tabTolMm) ?? 0;
  const slotTol = c.slotTolMm ?? 0;
  return {
    id: c.id,
    ...clearanceOf([c.slotMm, -tab], [slotTol, tabTol]),
    safeNominalMm: rounded(tab + tabTol + slotTol),
    ...(read ? { standardMm: read.standardMm, spreadMm: read.spreadMm } : {}),
    ...(read?.doubt ? { doubt: true as const } : {}),
  };
}

/** The clearance of a range is that of its nearer end. */
function judgeRange(c: RangeCheck): FitResult {
  const [least, most] = c.allowsMm;
  const tolerance = [c.boardTolMm ?? 0];
  const ends = [
    clearanceOf([c.boardMm, -least], tolerance),
    clearanceOf([most, -c.boardMm], tolerance),
  ] as const;
  return { id: c.id, ...(ends[0].nominalMm <= ends[1].nominalMm ? ends[0] : ends[1]) };
}

/** Places off by ± t on both axes lie in a zone of this many times t across. */
const ZONE = 2 * Math.SQRT2;

function judgePattern(c: PatternCheck): FitResult {
  const shift = bestShift(c.posts, c.holes);
  const room = roomAt(c.posts, c.holes, shift).map(rounded);
  const [postMm, holeMm, sizeMm] = [c.postTolMm ?? 0, c.holeTolMm ?? 0, c.sizeTolMm ?? 0];
  const tolerances = [sizeMm, ZONE * postMm, ZONE * holeMm];
  const whole = clearanceOf([Math.min(...room)], tolerances);
  const sizes = new Set(c.holes.map((h) => h.diameterMm));
  return {
    id: c.id,
    ...whole,
    ...(sizes.size === 1 ? { safeNominalMm: rounded([...sizes][0]! - whole.worstMm[0]) } : {}),
    goesTogether: rounded(chanceOfAll(room, { postMm, holeMm, sizeMm })),
    shift: { xMm: rounded(shift.xMm), yMm: rounded(shift.yMm), turnDeg: rounded(shift.turnDeg) },
    at: room.map((nominalMm, post) => ({
      post,
      nominalMm,
      worstMm: clearanceOf([nominalMm], tolerances).worstMm,
    })),
  };
}

const refuse = (message: string, hint: string) => new AppError("OUT_OF_RANGE", message, hint);
