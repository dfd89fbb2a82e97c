import { type Bodies, bodiesOf } from "../../bodies/body.ts";
import { type Clash, clashesOf } from "../../bodies/clashes.ts";
import { numberKey } from "../../bom/number.ts";
import { lettersOf } from "../../bom/refs.ts";
import { mmWords } from "../../fit/row.ts";
import { withVariant } from "./bill/structure.ts";
import { aboutBoard, boardMark, boardOf, Places, type RunBoard } from "./boards.ts";
import type { RunDocument } from "./document.ts";
import type { Add } from "./note.ts";

/** What stands on a board of a run, and what of it is in the way of something else. */
export interface BodiesOnBoard extends Bodies {
  readonly clashes: readonly Clash[];
}

type Kept = { readonly of: readonly unknown[]; readonly standing: BodiesOnBoard };
/** The last answer for a measured board: a roll-up asks anew for every quantity, and bodies hang on the bill alone. */
const kept = new WeakMap<RunBoard["measure"], Kept>();

/**
 * The parts of a board of a run as bodies: what the chosen variant fits, where it is placed, with the sizes of the library's
 * parts, of the packages' names or of the pads.
 */
export function standingOn(doc: RunDocument, board: RunBoard): BodiesOnBoard {
  const of = [
    doc.lines,
    doc.placements,
    doc.library,
    doc.variants,
    doc.choices.variant,
    board.id,
    doc.boards.length,
  ];
  const last = kept.get(board.measure);
  if (last && of.every((v, i) => v === last.of[i])) return last.standing;
  const places = new Places(doc);
  const parts = new Map((doc.library ?? []).map((p) => [numberKey(p.mpn), p]));
  const bodies = bodiesOf(
    withVariant(doc)
      .lines.filter((l) => !l.dnp && l.mount !== "none" && boardOf(doc, l) === board)
      .flatMap((l) => {
        const known = l.mpn === "" ? undefined : parts.get(numberKey(l.mpn));
        return l.refs.map((ref) => ({
          ref,
          package: l.package || known?.package || "",
          place: places.of(l, ref),
          bodyLengthMm: known?.bodyLengthMm,
          bodyWidthMm: known?.bodyWidthMm,
          heightMm: known?.heightMm,
        }));
      }),
    board.measure,
  );
  const standing = { ...bodies, clashes: clashesOf(bodies.bodies, board.measure) };
  kept.set(board.measure, { of, standing });
  return standing;
}

/** Parts that are meant to reach over the edge. */
const AT_EDGE = /^(J|P|X|CN|CON|SW|S|ANT|BTN|LED|D)$/;

const mm = (v: number) => mmWords(v).replace("-", "−");

/** A clash in words, and the smallest move that clears it. */
export function clashWords(c: Clash): { readonly text: string; readonly do?: string } {
  const [a, b] = c.refs;
  const over = mm(Math.abs(c.gapMm));
  const text =
    c.kind === "screw"
      ? c.gapMm < 0
        ? `${a} reaches ${over} mm under the head of a screw in the hole beside it.`
        : `${a} stands ${over} mm from the head of a screw in the hole beside it.`
      : c.kind === "edge"
        ? `${a} reaches ${over} mm over the edge of the board.`
        : c.byPads
          ? `${c.refs.find((r) => !c.byPads!.includes(r)) ?? b} stands ${c.gapMm < 0 ? "between" : `${over} mm from`} the pads of ${c.byPads[0]}, whose body is not known.`
          : c.gapMm < 0
            ? `The bodies of ${a} and ${b} lie ${over} mm in each other as drawn${c.verdict === "may-touch" ? ", within what placing and moulding may differ" : ""}.`
            : `The bodies of ${a} and ${b} are ${over} mm apart as drawn; placing and moulding may differ by ${mm(c.tolMm)} mm.`;
  return c.move ? { text, do: `Move ${moveWords(c.move)}: the smallest move that clears it.` } : { text };
}

/** "R4 0.35 mm to the left". */
export function moveWords({ ref, dx, dy }: NonNullable<Clash["move"]>): string {
  const steps = [
    Math.abs(dx) >= 0.005 && `${mm(Math.abs(dx))} mm ${dx < 0 ? "to the left" : "to the right"}`,
    Math.abs(dy) >= 0.005 && `${mm(Math.abs(dy))} mm ${dy < 0 ? "down" : "up"}`,
  ].filter(Boolean);
  return `${ref} ${steps.join(" and ")}`;
}

/** Bodies in each other's way, as notes: sizes are mostly those usual for a package's name, so they ask to be looked at. */
export function standingNotes(doc: RunDocument, add: Add): void {
  for (const board of doc.boards)
    for (const c of standingOn(doc, board).clashes) {
      // what may only touch stands on the page: a dense board has many, and their sizes are mostly guesses
      if (c.verdict !== "collides") continue;
      if (c.kind === "edge" && AT_EDGE.test(lettersOf(c.refs[0]!))) continue;
      const { text, do: todo } = clashWords(c);
      add(
        "board",
        `body-${c.kind} ${c.refs.join(" ")}${boardMark(doc, board.id)}`,
        "warning",
        `${text} Sizes are taken from the library and from package names.`,
        {
          ...(todo ? { do: todo } : {}),
          at: { layer: c.side, x: c.x, y: c.y },
          about: [...c.refs],
          ...aboutBoard(doc, board.id),
        },
      );
    }
}
