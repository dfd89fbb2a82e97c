import type { Measure } from "../board/measure-document.ts";
import type { Bodies, Body } from "../bodies/body.ts";
import { type Box, boxOf, cornersOf, gapOf, isApart, pointToBox } from "../bodies/boxes.ts";
import { lettersOf } from "../bom/refs.ts";
import { cornerOf } from "./features.ts";
import { judgeFit } from "./fit.ts";
import { type FitJudged, type FitSpec, mmWords as mm } from "./row.ts";

type Half = Omit<FitJudged, "row" | "verdict">;

/** Another board as it faces this one. */
export interface OtherBoard {
  readonly measure: Measure;
  readonly bodies: Bodies;
}

/** What is pressed, set or plugged by hand: hidden under something it is of no use. */
const REACHED = /^(SW|S|K|JP|BTN|KEY)$/;

/** Something of the board, or of what lies over it, with its height above its own face. */
interface Standing {
  readonly ref: string;
  readonly mm: number;
  readonly tolMm: number;
  readonly box: Box;
  readonly at: { readonly x: number; readonly y: number };
}

const standing = (b: Body): Standing => ({
  ref: b.ref,
  mm: b.heightMm!,
  tolMm: b.heightTolMm,
  box: boxOf(b),
  at: { x: b.x, y: b.y },
});

/** A rectangle of a board's own coordinates as a box. */
const boxFrom = ([x0, y0, x1, y1]: readonly [number, number, number, number]): Box => ({
  x: (x0 + x1) / 2,
  y: (y0 + y1) / 2,
  half: [Math.abs(x1 - x0) / 2, Math.abs(y1 - y0) / 2],
  cos: 1,
  sin: 0,
});

/**
 * The height under a lid or beside a neighbour: the tallest body of a side, in the whole or in a field of it, in the room there
 * is. A body counts as soon as a part of it lies in the field.
 */
export function judgeLid(
  id: string,
  s: Extract<FitSpec, { kind: "lid" }>,
  m: Measure,
  { bodies, unknown }: Bodies,
): Half {
  const [x0, y0] = cornerOf(m);
  const field = s.area && boxFrom([x0 + s.area[0], y0 + s.area[1], x0 + s.area[2], y0 + s.area[3]]);
  const here = bodies.filter((b) => b.side === s.side && (!field || gapOf(field, boxOf(b)) < 0));
  const known = here.filter((b) => b.heightMm !== undefined).map(standing);
  const blind = [
    ...here.filter((b) => b.heightMm === undefined).map((b) => b.ref),
    ...unknownIn(unknown, s.side, field),
  ];
  const rows = known.map((k): Row => ({ names: k.ref, standing: [k] }));
  const where = s.area ? "there" : `on the ${s.side}`;
  return tightest(rows, blind, where, { id, mm: s.roomMm, tolMm: s.roomTolMm });
}

/** Parts without a size that may stand in a field of a side: what is not known to stand elsewhere does. */
const unknownIn = (unknown: Bodies["unknown"], side: Body["side"], field: Box | undefined): string[] =>
  unknown
    .filter((u) => u.side === undefined || u.side === side)
    .filter((u) => !field || !u.at || pointToBox(u.at.x, u.at.y, field) === 0)
    .map((u) => u.ref);

/**
 * Another board of the product that lies over this one: their bodies against each other where they lie over each other, and
 * each against the other's board. The connectors that join the two are left out.
 */
export function judgeFacing(
  id: string,
  s: Extract<FitSpec, { kind: "facing" }>,
  m: Measure,
  own: Bodies,
  other: OtherBoard | undefined,
): Half {
  const extent = other?.measure.extentMm;
  if (!extent)
    return {
      board: "no such board",
      because: `The product has no board called ${s.other} whose size is known.`,
    };
  const joined = new Set(s.joinedBy ?? []);
  const place = placing(s, m, extent);
  const over = placedBox(boxFrom(extent), place);
  const isThere = (b: Body) => b.side === s.side && !joined.has(b.ref) && gapOf(over, boxOf(b)) < 0;
  const here = own.bodies.filter(isThere);
  const there = other.bodies.bodies
    .filter((b) => b.side === s.faces && !joined.has(b.ref))
    .map((b) => ({ b, box: placedBox(boxOf(b), place) }));
  const ground = boardBox(m);
  const onThis = there.filter((t) => gapOf(ground, t.box) < 0);
  const ours = here.filter((b) => b.heightMm !== undefined).map(standing);
  const theirs = onThis
    .filter((t) => t.b.heightMm !== undefined)
    .map((t): Standing => ({ ...standing(t.b), box: t.box, at: { x: t.box.x, y: t.box.y } }));
  const isJoined = (ref: string) => joined.has(ref);
  const blind = [
    ...[...here, ...onThis.map((t) => t.b)].filter((b) => b.heightMm === undefined).map((b) => b.ref),
    ...unknownIn(own.unknown, s.side, over).filter((ref) => !isJoined(ref)),
    ...unknownIn(other.bodies.unknown, s.faces, undefined)
      .filter((ref) => !isJoined(ref))
      .map((ref) => `${ref} of ${s.other}`),
  ];
  const rows: Row[] = [
    ...ours.map((k) => ({ names: k.ref, standing: [k] })),
    ...theirs.map((k) => ({ names: `${k.ref} of ${s.other}`, standing: [k] })),
    ...ours.flatMap((a) =>
      theirs
        .filter((b) => !isApart(a.box, b.box, SIDEWAYS_MM))
        .map((b) => ({ names: `${a.ref} under ${b.ref} of ${s.other}`, standing: [a, b] })),
    ),
  ];
  const covered = here.filter((b) => REACHED.test(lettersOf(b.ref))).map((b) => b.ref);
  const half = tightest(rows, blind, `under ${s.other}`, { id, mm: s.gapMm, tolMm: s.gapTolMm });
  return covered.length === 0
    ? half
    : { ...half, board: `${half.board}; it hangs over ${covered.join(", ")}` };
}

/** Bodies that pass each other nearer than this may meet, mm: the sides' tolerances of both and the play of the joint. */
const SIDEWAYS_MM = 0.3;

/** What stands over each other in the room, and what it is called. */
interface Row {
  readonly names: string;
  readonly standing: readonly Standing[];
}

/** The room something has, ± mm. */
interface Room {
  readonly id: string;
  readonly mm: number;
  readonly tolMm: number;
}

const heightOf = (r: Row) => r.standing.reduce((sum, k) => sum + k.mm + k.tolMm, 0);

/** The row that needs most at worst; what has no known height leaves it open unless something fails already. */
function tightest(rows: readonly Row[], blind: readonly string[], where: string, room: Room): Half {
  const worst = rows.reduce<Row | undefined>((a, b) => (a && heightOf(a) >= heightOf(b) ? a : b), undefined);
  if (!worst && blind.length === 0)
    return {
      board: `nothing stands ${where}`,
      because: `Nothing stands ${where}: there is nothing to judge.`,
    };
  const first = worst?.standing[0];
  const board = first
    ? `${worst!.names}, ${mm(first.mm)} mm high${first.tolMm > 0 ? ` ± ${mm(first.tolMm)}` : " at most"}`
    : "heights not known";
  const result =
    worst &&
    judgeFit({
      id: room.id,
      kind: "chain",
      terms: [
        { mm: room.mm, tolMm: room.tolMm, sign: 1 },
        ...worst.standing.map((k) => ({ mm: k.mm, tolMm: k.tolMm, sign: -1 })),
      ],
    });
  if (blind.length > 0 && (!result || result.verdict === "fits"))
    return {
      board,
      because: `The height of ${listed(blind)} is not known: say it in the library, or how tall ${blind.length === 1 ? "it stands" : "they stand"} cannot be judged.`,
      ...(first ? { at: first.at } : {}),
    };
  return {
    result: result!,
    board,
    mend: `room of ${mm(Math.ceil((room.mm + result!.missingMm) * 20 - 1e-6) / 20)} mm instead of ${mm(room.mm)}`,
    at: first!.at,
  };
}

const listed = (refs: readonly string[]) =>
  refs.length > 6 ? `${refs.slice(0, 6).join(", ")} and ${refs.length - 6} more` : refs.join(", ");

const boardBox = (m: Measure): Box => boxFrom(m.extentMm ?? [0, 0, 0, 0]);

interface Placing {
  readonly cos: number;
  readonly sin: number;
  readonly mirror: 1 | -1;
  readonly dx: number;
  readonly dy: number;
}

/**
 * Where a point of the other board lies on this one: mirrored where the same sides face each other, turned, and shifted so that
 * the lower left corner of its box comes to the stated place from this board's corner.
 */
function placing(
  s: Extract<FitSpec, { kind: "facing" }>,
  m: Measure,
  extent: readonly [number, number, number, number],
): Placing {
  const a = (s.turnDeg * Math.PI) / 180;
  const turn = { cos: Math.round(Math.cos(a) * 1e9) / 1e9, sin: Math.round(Math.sin(a) * 1e9) / 1e9 };
  const mirror = s.side === s.faces ? -1 : 1;
  const corners = cornersOf(placedBox(boxFrom(extent), { ...turn, mirror, dx: 0, dy: 0 }));
  const [x0, y0] = cornerOf(m);
  return {
    ...turn,
    mirror,
    dx: x0 + s.at[0] - Math.min(...corners.filter((_, i) => i % 2 === 0)),
    dy: y0 + s.at[1] - Math.min(...corners.filter((_, i) => i % 2 === 1)),
  };
}

function placedBox(b: Box, p: Placing): Box {
  const [x, y] = [b.x * p.mirror, b.y];
  const [c, s] = [b.cos * p.mirror, b.sin];
  return {
    half: b.half,
    x: x * p.cos - y * p.sin + p.dx,
    y: x * p.sin + y * p.cos + p.dy,
    cos: c * p.cos - s * p.sin,
    sin: c * p.sin + s * p.cos,
  };
}
