import { counted } from "../../counted.ts";
import type { Plan } from "../../geometry/plan.ts";
import type { RunBoard } from "../document/boards.ts";
import type { RunDocument } from "../document/document.ts";
import { standingOn } from "../document/standing.ts";
import type { PocketPlate } from "./pocket-plate.ts";
import type { StepsDocument } from "./steps-document.ts";

const BAR_MM = 50;
const WALL_MM = 5;
const one = (v: number) => String(Math.round(v * 10) / 10);

/** A board's outline and its extent, as they lie in the files; undefined where it is not closed. */
function shapeOf(board: RunBoard) {
  const rings = board.measure.outline?.rings;
  const box = board.measure.extentMm;
  return rings?.length && box ? { rings, box } : undefined;
}

/** A drawing seen from the other side where it is asked for. */
const flipper = (box: readonly [number, number, number, number], isFlipped: boolean) => {
  const fx = (x: number) => (isFlipped ? box[0] + box[2] - x : x);
  return { fx, ring: (r: readonly number[]) => r.map((v, i) => (i % 2 === 0 ? fx(v) : v)) };
};

/**
 * The plate with pockets as a drawing one to one, seen as the board lies on it: from the side where the solder goes. Each
 * pocket has its reference and its depth; one depth clears all that is on the board already.
 */
export function pocketPlan(doc: RunDocument, board: RunBoard, plate: PocketPlate): Plan | undefined {
  const shape = shapeOf(board);
  if (!shape) return undefined;
  const { rings, box } = shape;
  const { fx, ring } = flipper(box, plate.side === "top");
  const corners = (p: PocketPlate["pockets"][number]) => {
    const t = (p.turnDeg * Math.PI) / 180;
    const [c, s] = [Math.cos(t), Math.sin(t)];
    return [-1, -1, 1, -1, 1, 1, -1, 1].flatMap((_, i, all) => {
      if (i % 2 === 1) return [];
      const [u, v] = [(all[i]! * p.lengthMm) / 2, (all[i + 1]! * p.widthMm) / 2];
      return [p.x + u * c - v * s, p.y + u * s + v * c];
    });
  };
  const pockets = plate.pockets.map((p) => ring(corners(p)));
  const xs = [...pockets.flatMap((r) => r.filter((_, i) => i % 2 === 0)), box[0], box[2]];
  const ys = [...pockets.flatMap((r) => r.filter((_, i) => i % 2 === 1)), box[1], box[3]];
  const outer = [
    Math.min(...xs) - WALL_MM,
    Math.min(...ys) - WALL_MM,
    Math.max(...xs) + WALL_MM,
    Math.max(...ys) + WALL_MM,
  ] as const;
  const frame = [outer[0], outer[1], outer[2], outer[1], outer[2], outer[3], outer[0], outer[3]];
  const name = doc.boards.length > 1 ? board.name : doc.product;
  const held = plate.pockets.filter((p) => p.isHeld);
  const cleared = plate.pockets.filter((p) => !p.isHeld);
  return {
    title: `${name}: plate with pockets, ${plate.side} side down`,
    subtitle: `${counted(held.length, "part")} held; ${one(plate.thicknessMm)} mm thick, or of layers of that height`,
    box: [...outer],
    areas: [
      { rings: [frame], tone: "frame" },
      ...pockets.map((r) => ({ rings: [r], tone: "hole" as const })),
      { rings: rings.map(ring), tone: "none" },
    ],
    lines: [],
    circles: [],
    texts: held.flatMap((p) => [
      { x: fx(p.x), y: p.y + 0.4, mm: 2, text: p.ref, isMiddle: true },
      { x: fx(p.x), y: p.y - 1.8, mm: 1.4, text: `${one(p.depthMm)} deep`, isMiddle: true },
    ]),
    barMm: Math.min(BAR_MM, Math.max(10, Math.floor((box[2] - box[0]) / 10) * 10)),
    notes: [
      "Parts are put into their pockets with the leads up, the board is laid over them, held by tape, and soldered from above.",
      "Depths are from the face the board lies on.",
      ...(cleared.length > 0
        ? [
            `Pockets without a name clear what is on the board already: ${one(Math.max(...cleared.map((p) => p.depthMm)))} mm deep clears all of it.`,
          ]
        : []),
      "Cut from what stands the heat of the iron's far end: card, wood, glass fibre; not foam near the joints.",
      ...(plate.without.length > 0
        ? [`No pocket, as size, height or place are not known: ${plate.without.join(" ")}.`]
        : []),
    ],
  };
}

/**
 * A spare bare board as a rack: each part on its own place, told by the number of its field on the tray, so that the board
 * that is laid out is the picture of the board that is made.
 *
 * @param fields number of each line's field on the tray
 */
export function rackPlan(
  doc: RunDocument,
  board: RunBoard,
  side: "top" | "bottom",
  sheet: Pick<StepsDocument, "steps">,
  fields: ReadonlyMap<string, number>,
): Plan | undefined {
  const shape = shapeOf(board);
  if (!shape) return undefined;
  const { rings, box } = shape;
  const { fx, ring } = flipper(box, side === "bottom");
  const short = (ref: string) => ref.split(" of ")[0]!;
  const isHere = (ref: string) => doc.boards.length < 2 || ref.endsWith(` of ${board.name}`);
  const { bodies, unknown } = standingOn(doc, board);
  const at = new Map([
    ...unknown.flatMap((u) => (u.at ? [[u.ref, { ...u.at, side: u.side ?? "top" }] as const] : [])),
    ...bodies.map((b) => [b.ref, b] as const),
  ]);
  const lines = sheet.steps.flatMap((s) =>
    s.kind === "place" || s.kind === "iron" || s.kind === "mechanical" ? s.lines : [],
  );
  const lying = lines.flatMap((l) =>
    l.refs.filter(isHere).flatMap((r) => {
      const p = at.get(short(r));
      return p && p.side === side ? [{ ref: short(r), x: p.x, y: p.y, line: l }] : [];
    }),
  );
  if (lying.length === 0) return undefined;
  const used = lines.filter((l) => lying.some((p) => p.line === l));
  const [x0, y0, x1, y1] = box;
  return {
    title: `${doc.boards.length > 1 ? board.name : doc.product}: spare board as a rack, ${side}`,
    subtitle: `${counted(lying.length, "part")}, each on its own place; the number is its field on the tray`,
    box: [x0 - 3, y0 - 3, x1 + 3, y1 + 3],
    areas: [{ rings: rings.map(ring), tone: "none" }],
    lines: [],
    circles: lying.map((p) => ({ x: fx(p.x), y: p.y, d: 0.5, isFilled: true })),
    texts: lying.map((p) => ({
      x: fx(p.x),
      y: p.y + 0.4,
      mm: 1.6,
      text: String(fields.get(p.line.line) ?? p.ref),
      isMiddle: true,
    })),
    barMm: Math.min(BAR_MM, Math.max(10, Math.floor((x1 - x0) / 10) * 10)),
    notes: used.map(
      (l) =>
        `${fields.get(l.line) ?? "-"}: ${l.refs.filter(isHere).length} x ${l.value || l.mpn} ${l.package}: ${l.refs.filter(isHere).map(short).join(" ")}`,
    ),
  };
}
