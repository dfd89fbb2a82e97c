import { packageKey, turnFor } from "../../assembly/turns.ts";
import { patternOf } from "../../board/copper/pattern.ts";
import { compareRefs } from "../../bom/refs.ts";
import type { AssemblyPrice } from "../../fab/house.ts";
import { posed } from "../../geometry/turn.ts";
import { addTo } from "../../grouped.ts";
import { boardOf, Places, type RunBoard } from "../document/boards.ts";
import type { RunDocument, RunPlacement } from "../document/document.ts";
import type { LinePart } from "../document/parts.ts";
import type { BoardSide } from "../document/ways.ts";
import type { AssemblyHouse } from "../document/who-places.ts";

/** Pins a direction is told by, the first that a part has: pin 1, or the cathode of a diode. */
const FIRST_PINS = ["1", "K", "A1", "+", "C"];
/** Directions nearer than this are the same: pads of one package differ a little (domain.md 7.7). */
const SAME_DEG = 45;

/** A pad as its house has it while its part lies at 0°: from the middle of its pads, mm, x right, y up, seen from the top. */
export interface ZeroPad {
  readonly pin: string;
  readonly x: number;
  readonly y: number;
}

/** Parts of one package on one side that a house places and whose direction matters. */
export interface RotationClass {
  /** As it is kept with the house: the package, with its side where that is the bottom. */
  readonly key: string;
  readonly package: string;
  readonly side: BoardSide;
  readonly lines: readonly string[];
  readonly refs: readonly string[];
  readonly isPolarised: boolean;
  /** Angles in the placement file, ascending, each once, before any turn. */
  readonly angles: readonly number[];
  /** Degrees this house expects the package turned. */
  readonly turnDeg: number;
  /** The pads of one of them at 0° in what goes out; empty where no file says whose pads are whose. */
  readonly pads: readonly ZeroPad[];
  /** The pin its direction is told by, and where it lies from the middle at 0° in what goes out, [0, 360). */
  readonly first?: { readonly pin: string; readonly deg: number };
  /** Parts whose pads lie otherwise than those of their like, with by how much, degrees. */
  readonly apart: readonly { readonly ref: string; readonly deg: number }[];
  /** The placement file counts angles of the bottom as seen from below: the other way round than it goes out as. */
  readonly isFromBelow?: true;
  /** Looked at as it is now; never; or looked at when its pads lay otherwise. */
  readonly stands: "looked" | "open" | "other";
}

const within = (deg: number): number => ((deg % 360) + 360) % 360;
/** How far two directions lie apart, 0 to 180. */
export const apartDeg = (a: number, b: number): number => {
  const d = Math.abs(within(a - b));
  return Math.min(d, 360 - d);
};

/**
 * What is to be looked at before a house places: packages with a direction, by side, those that disagree with their like
 * first, then those nobody looked at. Where pin 1 lies at 0° is measured from the pads and the stated angle, counter-clockwise
 * from the top; on the bottom the angle turns the mirrored footprint (domain.md 7.7).
 */
export function rotationClasses(
  doc: RunDocument,
  parts: readonly LinePart[],
  house: AssemblyHouse,
): RotationClass[] {
  const places = new Places(doc);
  const classes = new Map<string, Seen[]>();
  for (const p of parts) {
    // two ends without a direction lie as well the other way round; what goes through the board no machine turns
    if (p.method !== "house" || p.kind === "loose" || p.kind === "through") continue;
    if (!p.isPolarised && p.joints <= 2) continue;
    const board = boardOf(doc, p.line) ?? doc.boards[0];
    for (const ref of p.line.refs) {
      const place = places.of(p.line, ref);
      if (!place) continue;
      const pads = aboutMiddle(ref, board ? padsOf(board, ref) : []);
      addTo(classes, keyOf(p.line.package, firstPin(pads), place.side), { part: p, ref, place, pads });
    }
  }
  return [...classes].map(([key, seen]) => classOf(key, seen, house)).sort(byUrgency);
}

/** A house's profile once a package was looked at and lies as it expects. */
export const lookedAt = (p: AssemblyPrice, c: RotationClass): AssemblyPrice => ({
  ...p,
  zeros: { ...p.zeros, [c.key]: c.first ? Math.round(c.first.deg) % 360 : -1 },
});

/** A house's profile that expects a package turned by so much more, counter-clockwise: it is to be looked at anew, on both sides. */
export function turnedBy(p: AssemblyPrice, c: RotationClass, deg: number): AssemblyPrice {
  const own = packageKey(c.package) || "no package";
  const others = (map: Readonly<Record<string, number>> | undefined, isOwn: (key: string) => boolean) =>
    Object.entries(map ?? {}).filter(([key]) => !isOwn(key));
  const turn = within(c.turnDeg + deg);
  const turns = [
    ...others(p.turns, (pkg) => packageKey(pkg) === own),
    ...(turn === 0 ? [] : [[c.package, turn > 180 ? turn - 360 : turn] as const]),
  ];
  const zeros = others(p.zeros, (key) => key === own || key.startsWith(`${own} `));
  const { turns: _, zeros: __, ...rest } = p;
  return {
    ...rest,
    ...(turns.length > 0 ? { turns: Object.fromEntries(turns) } : {}),
    ...(zeros.length > 0 ? { zeros: Object.fromEntries(zeros) } : {}),
  };
}

interface Seen {
  readonly part: LinePart;
  readonly ref: string;
  readonly place: RunPlacement;
  /** About their middle, as the part lies; empty where no file names its pins. */
  readonly pads: readonly ZeroPad[];
}

/** Parts of a package whose direction is told by another pin are another class: their directions are not the same thing. */
const keyOf = (pkg: string, pin: string | undefined, side: BoardSide): string =>
  [
    packageKey(pkg) || "no package",
    ...(pin && pin !== "1" ? [pin] : []),
    ...(side === "bottom" ? [side] : []),
  ].join(" ");

const ORDER = { other: 0, open: 1, looked: 2 } as const;
const byUrgency = (a: RotationClass, b: RotationClass): number =>
  Math.sign(b.apart.length) - Math.sign(a.apart.length) ||
  ORDER[a.stands] - ORDER[b.stands] ||
  Number(b.isPolarised) - Number(a.isPolarised) ||
  compareRefs(a.refs[0]!, b.refs[0]!);

function classOf(key: string, seen: readonly Seen[], house: AssemblyHouse): RotationClass {
  const [{ part, place }] = seen as [Seen];
  const pkg = part.line.package;
  const turnDeg = turnFor(house.assembly.turns, pkg);
  const fromTop = toldOf(seen, -1);
  // where only the other way round makes all of them alike, the file counts the bottom as seen from below
  const fromBelow = place.side === "bottom" && fromTop.apart.length > 0 ? toldOf(seen, 1) : undefined;
  const isFromBelow = fromBelow !== undefined && fromBelow.apart.length === 0;
  const { usual, apart } = isFromBelow ? fromBelow : fromTop;
  const first = usual && { pin: usual.first.pin, deg: within(usual.first.deg + turnDeg) };
  const was = house.assembly.zeros?.[key];
  return {
    key,
    package: pkg,
    side: place.side,
    lines: [...new Set(seen.map((s) => s.part.line.id))],
    refs: seen.map((s) => s.ref).sort(compareRefs),
    isPolarised: seen.some((s) => s.part.isPolarised),
    angles: [...new Set(seen.map((s) => within(s.place.rotationDeg)))].sort((a, b) => a - b),
    turnDeg,
    pads: usual ? turned(usual.at, turnDeg) : [],
    ...(first ? { first } : {}),
    apart,
    ...(isFromBelow ? { isFromBelow: true as const } : {}),
    stands: was === undefined ? "open" : agrees(was, first?.deg) ? "looked" : "other",
  };
}

interface Told {
  readonly ref: string;
  readonly at: readonly ZeroPad[];
  readonly first: First;
}

/** Parts whose pads tell a direction: the one that most have (of as many, the first), and those that lie otherwise. */
function toldOf(
  seen: readonly Seen[],
  sign: 1 | -1,
): { readonly usual?: Told; readonly apart: RotationClass["apart"] } {
  const told = seen.flatMap((s): Told[] => {
    const at = turned(s.pads, sign * s.place.rotationDeg);
    const first = firstOf(at);
    return first ? [{ ref: s.ref, at, first }] : [];
  });
  const like = (t: Told) => told.filter((o) => isSame(o.first, t.first)).length;
  const usual = told.reduce<Told | undefined>(
    (best, t) => (best && like(best) >= like(t) ? best : t),
    undefined,
  );
  if (!usual) return { apart: [] };
  const apart = told.flatMap((t) =>
    isSame(t.first, usual.first)
      ? []
      : [{ ref: t.ref, deg: Math.round(apartDeg(t.first.deg, usual.first.deg)) }],
  );
  return { usual, apart };
}

/** Whether what was looked at is what there is now. What was looked at without pads is, whatever they tell. */
const agrees = (was: number, now: number | undefined): boolean =>
  was < 0 || now === undefined || apartDeg(was, now) <= SAME_DEG;

const isSame = (a: First, b: First): boolean => apartDeg(a.deg, b.deg) <= SAME_DEG;

type First = NonNullable<RotationClass["first"]>;

/** The pin a direction is told by; where none has a name that is known, the first by name. */
const firstPin = (pads: readonly ZeroPad[]): string | undefined =>
  FIRST_PINS.find((name) => pads.some((p) => p.pin === name)) ?? pads.map((p) => p.pin).sort()[0];

function firstOf(pads: readonly ZeroPad[]): First | undefined {
  if (pads.length < 2) return undefined;
  const pin = firstPin(pads);
  const { x, y } = pads.find((p) => p.pin === pin)!;
  // a pin in the middle tells no direction
  return Math.hypot(x, y) < 0.05 ? undefined : { pin: pin!, deg: within((Math.atan2(y, x) * 180) / Math.PI) };
}

const turned = (pads: readonly ZeroPad[], turnDeg: number): ZeroPad[] =>
  pads.map(({ pin, x, y }) => {
    const [u, v] = posed({ xMm: 0, yMm: 0, turnDeg }, x, y);
    return { pin, x: u, y: v };
  });

/** Pads about their middle, as seen from the top. */
function aboutMiddle(ref: string, pads: readonly ZeroPad[]): ZeroPad[] {
  const { pins, at } = patternOf(ref, "top", pads);
  return pins.map((pin, i) => ({ pin, x: at[i]![0], y: at[i]![1] }));
}

const kept = new WeakMap<RunBoard["measure"], Map<string, ZeroPad[]>>();

/** Pads of a part where its board's nets name their pins; in the board's millimetres. */
function padsOf(board: RunBoard, ref: string): readonly ZeroPad[] {
  let all = kept.get(board.measure);
  if (!all) {
    all = new Map();
    for (const { pads } of board.measure.nets?.islands ?? [])
      for (const { pin: name, x, y } of pads) {
        const dot = name?.indexOf(".") ?? -1;
        if (dot > 0) addTo(all, name!.slice(0, dot), { pin: name!.slice(dot + 1), x, y });
      }
    kept.set(board.measure, all);
  }
  return all.get(ref) ?? [];
}
