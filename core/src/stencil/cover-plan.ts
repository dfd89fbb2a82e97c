import { refOf } from "../board/pins.ts";
import type { Plan } from "../geometry/plan.ts";
import type { FoilPlace } from "./foil.ts";

const BAR_MM = 50;
const WALL_MM = 6;

/**
 * Where a foil that was cut as drawn is taped over, one to one: what is printed is empty, what gets no paste is filled, with
 * the part's name. Seen as the squeegee sees it: the bottom from below.
 *
 * @param outline rings of the board, the outer one first
 * @param without parts that get no paste in this build, and why
 * @returns nothing where every opening is printed
 */
export function coverPlan(
  name: string,
  side: "top" | "bottom",
  openings: readonly Pick<FoilPlace, "drawn" | "pin" | "x" | "y">[],
  without: readonly { readonly ref: string; readonly because: string }[],
  outline: readonly (readonly number[])[],
  box: Plan["box"],
): Plan | undefined {
  const off = new Map(without.map((w) => [w.ref, w.because]));
  const isOff = (o: (typeof openings)[number]) => off.has(refOf(o.pin) ?? "");
  const covered = openings.filter(isOff);
  if (covered.length === 0) return undefined;
  const [x0, y0, x1, y1] = box;
  const fx = (x: number) => (side === "bottom" ? x0 + x1 - x : x);
  const flip = (r: readonly number[]) => r.map((v, i) => (i % 2 === 0 ? fx(v) : v));
  const rings = (list: typeof openings) => list.flatMap((o) => o.drawn.map(flip));
  const refs = [...new Set(covered.map((o) => refOf(o.pin)!))];
  const middle = (ref: string) => {
    const own = covered.filter((o) => refOf(o.pin) === ref);
    const mean = (f: (o: (typeof own)[number]) => number) => own.reduce((n, o) => n + f(o), 0) / own.length;
    return { x: fx(mean((o) => o.x)), y: Math.max(...own.map((o) => o.y)) };
  };
  const unknown = openings.filter((o) => o.pin === undefined).length;
  return {
    title: `${name}: openings to cover, ${side}`,
    subtitle: `${covered.length} of ${openings.length} openings, of ${refs.join(", ")}`,
    box: [x0 - WALL_MM, y0 - WALL_MM, x1 + WALL_MM, y1 + WALL_MM],
    areas: [
      { rings: outline.map(flip), tone: "none" },
      { rings: rings(openings.filter((o) => !isOff(o))), tone: "none" },
      { rings: rings(covered), tone: "frame" },
    ],
    lines: [],
    circles: [],
    texts: refs.map((ref) => {
      const { x, y } = middle(ref);
      return { x, y: y + 1.2, mm: 1.6, text: ref, isMiddle: true };
    }),
    barMm: BAR_MM,
    notes: [
      ...[...new Set(refs.map((r) => off.get(r)!))].map(
        (because) =>
          `${because.replace(/^is (.)/, (_, c: string) => c.toUpperCase())}: ${refs.filter((r) => off.get(r) === because).join(", ")}.`,
      ),
      ...(unknown > 0
        ? [`Openings whose part the files do not tell: ${unknown}. They stay open; look at them.`]
        : []),
      "Lay the foil on this page and tape over the filled openings from the side of the squeegee; look at the first print.",
    ],
  };
}
