import type { BoardFile } from "../../board/board-file.ts";
import { counted } from "../../counted.ts";
import { offsetRings } from "../../geometry/clip.ts";
import type { Plan } from "../../geometry/plan.ts";
import { boxAround } from "../../geometry/turn.ts";
import type { PanelDesign } from "../spec.ts";

/** Half of what a saw or a cutter takes, and what is filed down to the line, mm (placeholder). */
const SAW_MM = 0.5;
/** A mark to centre a drill on, mm. */
const CROSS_MM = 0.7;
const BAR_MM = 50;
/** Letters that cannot be taken for each other. */
const LETTERS = "ABCDEFGHKLMNPQRSTUVWXYZ";
/** Beyond these sizes a drill has no letter of its own; beyond these holes a paper is no aid. */
export const MOST_SIZES = LETTERS.length;
export const MOST_HOLES = 2000;

/** What is drilled or milled into a board: round holes and paths, mm. */
export interface DrillWork {
  readonly holes: readonly { readonly x: number; readonly y: number; readonly diameterMm: number }[];
  readonly paths: readonly {
    readonly points: readonly (readonly [number, number])[];
    readonly widthMm: number;
  }[];
}

/** All that the drill files of a board ask for. */
export const drillWorkOf = (files: readonly BoardFile[]): DrillWork => {
  const drills = files.flatMap((f) => (f.role === "drill" && f.drill ? [f.drill] : []));
  return { holes: drills.flatMap((d) => d.hits), paths: drills.flatMap((d) => d.routs) };
};

/**
 * A template for drilling and cutting a board by hand: the line of its edge, the line to saw along outside of it, and a
 * cross for every hole with the letter of its drill; glued onto the board, or onto what becomes a jig for several.
 *
 * @returns nothing where there are more holes or sizes than a paper can guide
 */
export function drillPlan(d: PanelDesign, work: DrillWork): Plan | undefined {
  const key = (mm: number) => mm.toFixed(2);
  const sizes = [
    ...new Set([...work.holes.map((h) => key(h.diameterMm)), ...work.paths.map((p) => key(p.widthMm))]),
  ].sort((a, b) => Number(a) - Number(b));
  if (sizes.length > MOST_SIZES || work.holes.length > MOST_HOLES) return undefined;
  const letterOf = (mm: number) => LETTERS[sizes.indexOf(key(mm))]!;
  const saw = offsetRings([d.outline], SAW_MM);
  const box = boxAround(saw);
  const count = (size: string) => work.holes.filter((h) => key(h.diameterMm) === size).length;
  const paths = (size: string) => work.paths.filter((p) => key(p.widthMm) === size).length;
  return {
    title: `${d.name}: template for drilling and cutting`,
    subtitle: `seen from the top; ${counted(work.holes.length, "hole")} of ${counted(sizes.length, "size")}; the outer line is sawn, the inner one is filed to`,
    box: [box[0] - 4, box[1] - 4, box[2] + 4, box[3] + 4],
    areas: [
      { rings: saw, tone: "none" },
      { rings: [d.outline, ...d.cutouts], tone: "none" },
    ],
    lines: [
      ...work.holes.flatMap(({ x, y }) => [
        { x1: x - CROSS_MM, y1: y, x2: x + CROSS_MM, y2: y, kind: "edge" as const },
        { x1: x, y1: y - CROSS_MM, x2: x, y2: y + CROSS_MM, kind: "edge" as const },
      ]),
      ...work.paths.flatMap(({ points }) =>
        points.slice(1).map(([x2, y2], i) => {
          const [x1, y1] = points[i]!;
          return { x1, y1, x2, y2, kind: "guide" as const };
        }),
      ),
    ],
    circles: work.holes.map(({ x, y, diameterMm }) => ({ x, y, d: diameterMm })),
    texts: [
      ...work.holes.map(({ x, y, diameterMm }) => ({
        x: x + Math.max(CROSS_MM, diameterMm / 2) + 0.25,
        y: y + 0.25,
        mm: 1.1,
        text: letterOf(diameterMm),
      })),
      ...work.paths.map((p) => ({
        x: p.points[0]![0] + p.widthMm / 2 + 0.25,
        y: p.points[0]![1] + 0.25,
        mm: 1.1,
        text: letterOf(p.widthMm),
      })),
    ],
    barMm: Math.min(BAR_MM, Math.max(10, Math.floor((d.box[2] - d.box[0]) / 10) * 10)),
    notes: [
      ...sizes.map((s, i) =>
        [
          `${LETTERS[i]}: ${Number(s)} mm`,
          count(s) > 0 ? `${count(s)} x` : "",
          paths(s) > 0 ? `${paths(s)} x along a broken line` : "",
        ]
          .filter(Boolean)
          .join(", "),
      ),
      "Sizes are of the finished hole: one that is to be plated or riveted is drilled larger, as its rivets ask.",
      "Measure the bar before gluing. Prick every cross, drill the small ones first, holes before the edge is cut.",
      "Glass dust harms the lungs and small drills burst: drill and saw wet or under extraction, with glasses on, gloves off at the spindle. Local rules go first.",
    ],
  };
}
