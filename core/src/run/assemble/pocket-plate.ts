import type { Body } from "../../bodies/body.ts";
import type { Step, Work } from "../../steps/step.ts";
import type { RunDocument } from "../document/document.ts";
import { standingOn } from "../document/standing.ts";

/** Play of a body in its pocket, mm on each side. */
const PLAY_MM = 0.3;
/** Over what is on the board already there is this much air, mm. */
const AIR_MM = 0.5;

/** A pocket of a plate, in the board's own coordinates. */
export interface Pocket {
  readonly ref: string;
  readonly x: number;
  readonly y: number;
  readonly turnDeg: number;
  readonly lengthMm: number;
  readonly widthMm: number;
  /** How deep from the face the board lies on. */
  readonly depthMm: number;
  /** Held: the part stands on the floor of its pocket. Else only cleared: it is on the board already. */
  readonly isHeld: boolean;
}

/** A plate that parts stand in while their board lies on it upside down. */
export interface PocketPlate {
  readonly side: "top" | "bottom";
  /** Thickness at which the tallest stands on the bench through its pocket. */
  readonly thicknessMm: number;
  readonly pockets: readonly Pocket[];
  /** Parts of the step of which size, height or place are not known: they have no pocket. */
  readonly without: readonly string[];
}

/**
 * The plate for a step: a pocket as deep as each of its parts is tall, so that all bodies touch the board at once, and room
 * over what is on that side already. Undefined where no part of it has a body and a height.
 *
 * @param side of the board the bodies are on
 */
export function pocketPlate(
  doc: RunDocument,
  work: Work,
  step: Pick<Step, "n" | "board" | "refs">,
  side: "top" | "bottom",
  before: readonly Pick<Step, "refs" | "kind">[],
): PocketPlate | undefined {
  const index = step.board ?? 0;
  const board = doc.boards[index];
  if (!board) return undefined;
  const heights = new Map(work.parts.map((p) => [p.name, p.heightMm]));
  const name = (ref: string) => (doc.boards.length > 1 ? `${ref} of ${board.name}` : ref);
  const bodies = new Map(standingOn(doc, board).bodies.map((b) => [name(b.ref), b]));
  const on = new Set([
    ...before.filter((s) => ["place", "iron", "mechanical"].includes(s.kind)).flatMap((s) => s.refs),
    ...work.given.filter((p) => p.board === index).map((p) => p.name),
  ]);
  const heightOf = (n: string, b: Body) => heights.get(n) ?? b.heightMm;
  const pocket = (n: string, b: Body, depthMm: number, play: number, isHeld: boolean): Pocket => ({
    ref: n,
    x: b.x,
    y: b.y,
    turnDeg: b.turnDeg,
    lengthMm: b.lengthMm + 2 * play,
    widthMm: b.widthMm + 2 * play,
    depthMm,
    isHeld,
  });
  const held = step.refs.flatMap((n) => {
    const b = bodies.get(n);
    const h = b && b.side === side ? heightOf(n, b) : undefined;
    return b && h !== undefined ? [pocket(n, b, h, PLAY_MM, true)] : [];
  });
  if (held.length === 0) return undefined;
  const mine = new Set(step.refs);
  const cleared = [...bodies].flatMap(([n, b]) => {
    const h = heightOf(n, b);
    return b.side === side && on.has(n) && !mine.has(n) && h !== undefined
      ? [pocket(n, b, h + AIR_MM, AIR_MM, false)]
      : [];
  });
  const has = new Set(held.map((p) => p.ref));
  return {
    side,
    thicknessMm: Math.max(...held.map((p) => p.depthMm), ...cleared.map((p) => p.depthMm)),
    pockets: [...held, ...cleared],
    without: step.refs.filter((n) => !has.has(n)),
  };
}
