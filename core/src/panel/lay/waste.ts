import type { Finding } from "../../findings.ts";
import { Strips } from "../../geometry/strips.ts";
import type { Box } from "../../geometry/turn.ts";
import type { PracticePads } from "../practice.ts";
import type { PanelDesign, PanelLayout, PanelSpec, Waste, WasteItem } from "../spec.ts";
import { BAD_MARK_MM, FIDUCIAL } from "./furnish.ts";

/** Slots of the gauge against the board's thickness, mm; each so long, with room for its figure behind it. */
const STEPS_MM = [-0.05, 0, 0.05, 0.1, 0.15] as const;
const SLOT_MM = 8;
const PITCH_MM = 12.4;
/** Squares of the field paste is tried on, mm. */
const SQUARES_MM = [0.2, 0.25, 0.3, 0.35, 0.4, 0.5, 0.6, 0.8] as const;
const SQUARE_PITCH_MM = 1.8;
/** A letter of the labels with its space, mm. */
const LETTER_MM = 0.9;
/** Left around what is put there. */
const EDGE_MM = 1.2;

/** What goes into the waste, drawn from its own lower left corner on. */
interface Drawn {
  readonly widthMm: number;
  readonly heightMm: number;
  readonly slots: readonly Box[];
  readonly pads: readonly Box[];
  readonly openings: readonly Box[];
  readonly labels: readonly {
    readonly x: number;
    readonly y: number;
    readonly text: string;
    readonly mm: number;
  }[];
}

/** Slots graded around the thickness: which one the board goes into is its thickness, as delivered (needs: X08). */
export function gauge(thicknessMm: number): Drawn {
  const most = thicknessMm + Math.max(...STEPS_MM);
  const heightMm = most + 2 * EDGE_MM;
  const slots = STEPS_MM.map((step, i): Box => {
    const half = (thicknessMm + step) / 2;
    const x = EDGE_MM + i * PITCH_MM;
    return [x, heightMm / 2 - half, x + SLOT_MM, heightMm / 2 + half];
  });
  return {
    widthMm: EDGE_MM + STEPS_MM.length * PITCH_MM,
    heightMm,
    slots,
    pads: [],
    openings: [],
    labels: STEPS_MM.map((step, i) => ({
      x: EDGE_MM + i * PITCH_MM + SLOT_MM + 0.5,
      y: heightMm / 2 - 0.5,
      text: (thicknessMm + step).toFixed(2),
      mm: 1,
    })),
  };
}

/** Bare squares with openings of their own size: the smallest that prints tells the paste, the foil and the hand. */
export function pasteTest(): Drawn {
  const heightMm = 0.8 + 2 * EDGE_MM;
  const squares = SQUARES_MM.map((size, i): Box => {
    const x = EDGE_MM + 0.4 + i * SQUARE_PITCH_MM;
    return [x - size / 2, heightMm / 2 - size / 2, x + size / 2, heightMm / 2 + size / 2];
  });
  return {
    widthMm: 2 * EDGE_MM + 0.8 + (SQUARES_MM.length - 1) * SQUARE_PITCH_MM,
    heightMm,
    slots: [],
    pads: squares,
    openings: squares,
    labels: [],
  };
}

/** Pads of a part as they stand on its board, bare and with openings in the paste, its name beside them. */
export function practice({ ref, pads }: PracticePads): Drawn {
  const [x0, y0] = [Math.min(...pads.map((p) => p[0])), Math.min(...pads.map((p) => p[1]))];
  const [x1, y1] = [Math.max(...pads.map((p) => p[2])), Math.max(...pads.map((p) => p[3]))];
  const label = ref.length * LETTER_MM + 0.4;
  const moved = pads.map(
    ([a, b, c, d]): Box => [a - x0 + EDGE_MM, b - y0 + EDGE_MM, c - x0 + EDGE_MM, d - y0 + EDGE_MM],
  );
  const heightMm = y1 - y0 + 2 * EDGE_MM;
  return {
    widthMm: x1 - x0 + 2 * EDGE_MM + label,
    heightMm,
    slots: [],
    pads: moved,
    openings: moved,
    labels: [{ x: x1 - x0 + 2 * EDGE_MM, y: heightMm / 2 - 0.5, text: ref, mm: 1 }],
  };
}

/**
 * Puts what was asked for into the frame, lying or upright, at the first place from below where nothing else stands. What
 * finds no room is said, with the rail that would have it.
 */
export function placeWaste(
  spec: PanelSpec,
  sheet: readonly [number, number],
  frame: PanelLayout["frame"],
  stands: Pick<PanelLayout, "fiducials" | "toolingHoles" | "badMarks">,
  designs: readonly PanelDesign[],
  findings: Finding[],
): WasteItem[] {
  const strips = new Strips(frame.flat());
  const out: WasteItem[] = [];
  const circles = [
    ...stands.fiducials.map((f) => ({ ...f, r: FIDUCIAL.clearMm })),
    ...stands.toolingHoles.map((h) => ({ ...h, r: h.diameterMm / 2 + 0.5 })),
    ...stands.badMarks.map((b) => ({ ...b, r: BAD_MARK_MM / 2 + 0.5 })),
  ];
  const isFree = (b: Box) =>
    strips.holds(b) &&
    circles.every((c) => distance(b, c.xMm, c.yMm) >= c.r) &&
    out.every((w) => b[0] >= w.box[2] || b[2] <= w.box[0] || b[1] >= w.box[3] || b[3] <= w.box[1]);
  for (const kind of spec.waste) {
    const drawn = drawnOf(kind, spec.thicknessMm, designs);
    const item = drawn && placed(kind, drawn, sheet, isFree);
    if (item) out.push(item);
    else
      findings.push({
        tag: "no-room-in-waste",
        level: "warning",
        text: drawn
          ? `The frame has no room for the ${WORDS[kind]}, ${drawn.widthMm.toFixed(1)} × ${drawn.heightMm.toFixed(1)} mm.`
          : `There are no ${WORDS[kind]}: the files do not tell which pads are whose, or the hardest part lies askew.`,
        ...(drawn
          ? {
              do: `A rail of ${Math.ceil(drawn.heightMm + 1)} mm, ${Math.ceil(drawn.widthMm + 10)} mm long, has it.`,
            }
          : {}),
      });
  }
  return out;
}

function drawnOf(kind: Waste, thicknessMm: number, designs: readonly PanelDesign[]): Drawn | undefined {
  if (kind === "gauge") return gauge(thicknessMm);
  if (kind === "paste-test") return pasteTest();
  const hardest = designs.flatMap((d) => d.practice ?? []).sort((a, b) => a.pitchMm - b.pitchMm)[0];
  return hardest && practice(hardest);
}

const WORDS: Readonly<Record<Waste, string>> = {
  gauge: "gauge of slots",
  practice: "practice pads",
  "paste-test": "paste test",
};

const distance = ([x0, y0, x1, y1]: Box, x: number, y: number) =>
  Math.hypot(Math.max(x0 - x, 0, x - x1), Math.max(y0 - y, 0, y - y1));

function placed(
  kind: Waste,
  d: Drawn,
  [W, H]: readonly [number, number],
  isFree: (b: Box) => boolean,
): WasteItem | undefined {
  for (const isUpright of [false, true]) {
    const [w, h] = isUpright ? [d.heightMm, d.widthMm] : [d.widthMm, d.heightMm];
    for (let y = 0.3; y + h <= H; y += 0.5)
      for (let x = 0.3; x + w <= W; x += 0.5) {
        const box: Box = [x, y, x + w, y + h];
        if (!isFree(box)) continue;
        // upright is turned by a quarter, counter-clockwise
        const at = (b: Box): Box =>
          isUpright
            ? [x + d.heightMm - b[3], y + b[0], x + d.heightMm - b[1], y + b[2]]
            : [x + b[0], y + b[1], x + b[2], y + b[3]];
        return {
          kind,
          box,
          slots: d.slots.map(at),
          pads: d.pads.map(at),
          openings: d.openings.map(at),
          labels: d.labels.map((l) => ({
            ...l,
            x: isUpright ? x + d.heightMm - l.y : x + l.x,
            y: isUpright ? y + l.x : y + l.y,
            isUpright,
          })),
        };
      }
  }
  return undefined;
}
