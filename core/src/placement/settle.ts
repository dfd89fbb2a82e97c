import type { Finding } from "../findings.ts";
import type { Placement, Placements } from "./placed.ts";

/** Room beyond the outline where a connector may still stand, mm. */
const ROOM_MM = 5;
const NAMES: readonly (readonly [string, number])[] = [
  ["millimetres", 1],
  ["mil", 0.0254],
  ["inches", 25.4],
  ["micrometres", 0.001],
];

type Box = readonly [number, number, number, number];

/**
 * Holds places against the board: how many of them lie on it as they were read, in another unit, or mirrored. A unit that
 * nobody stated is weighed and said; one that was stated and cannot be is an error.
 *
 * @param box of the outline, else of the copper
 */
// biome-ignore lint/complexity/noExcessiveLinesPerFunction: one decision, with the findings that tell it
export function settlePlacements(
  placements: Placements,
  box: Box | undefined,
  file: string,
  findings: Finding[],
): Placements {
  const { parts } = placements;
  if (parts.length === 0) return placements;
  const assumed = placements.isUnitAssumed === true;
  if (!box) {
    if (assumed)
      findings.push(
        say(
          file,
          "warning",
          "The placement file states no unit; millimetres were taken, and nothing is there to hold them against.",
        ),
      );
    return placements;
  }
  const on = (list: readonly Placement[], f: number) =>
    list.filter((p) => {
      const [x, y] = [p.xMm * f, p.yMm * f];
      return x >= box[0] - ROOM_MM && x <= box[2] + ROOM_MM && y >= box[1] - ROOM_MM && y <= box[3] + ROOM_MM;
    }).length;
  // all of it crowded into one corner is on the board, and wrong
  const spread = (f: number) => {
    const xs = parts.map((p) => p.xMm * f);
    const ys = parts.map((p) => p.yMm * f);
    return (
      Math.max(Math.max(...xs) - Math.min(...xs), Math.max(...ys) - Math.min(...ys)) /
      Math.max(box[2] - box[0], box[3] - box[1])
    );
  };
  const score = (f: number) =>
    on(parts, f) / parts.length - (parts.length >= 4 && spread(f) < 0.08 ? 0.7 : 0);
  // relative to what was read
  const read = placements.unit === "mm" ? 1 : placements.unit === "mil" ? 0.0254 : 25.4;
  const now = score(1);
  const [best] = NAMES.map(([name, unit]) => ({ name, f: unit / read, s: score(unit / read) })).sort(
    (a, b) => b.s - a.s,
  );
  const nowName = NAMES.find(([, u]) => u === read)![0];
  const counts = (f: number) => `${on(parts, f)} of ${parts.length} parts lie on the board`;
  if (best && best.s >= 0.9 && now < 0.5 && best.f !== 1) {
    if (!assumed) {
      findings.push({
        ...say(
          file,
          "error",
          `The placement file says ${nowName}, but then ${counts(1)}; read as ${best.name} ${on(parts, best.f)} would.`,
        ),
        tag: "placement-off-pads",
        do: "Export it again with the right unit.",
      });
      return placements;
    }
    findings.push(
      say(
        file,
        "warning",
        `The placement file states no unit; ${best.name} were taken: ${counts(best.f)}, as ${nowName} only ${on(parts, 1)}.`,
      ),
    );
    return {
      ...placements,
      unit: best.name === "mil" ? "mil" : best.name === "inches" ? "inch" : "mm",
      parts: parts.map((p) => ({ ...p, xMm: round6(p.xMm * best.f), yMm: round6(p.yMm * best.f) })),
    };
  }
  if (assumed)
    findings.push(
      say(
        file,
        now >= 0.9 ? "remark" : "warning",
        `The placement file states no unit; ${nowName} were taken: ${counts(1)}.`,
      ),
    );
  const bottom = parts.filter((p) => p.side === "bottom");
  const mirrored = bottom.map((p) => ({ ...p, xMm: -p.xMm }));
  if (bottom.length >= 2 && on(bottom, 1) < 0.2 * bottom.length && on(mirrored, 1) > 0.8 * bottom.length)
    findings.push({
      tag: "placement-mirrored",
      level: "error",
      file,
      about: bottom.map((p) => p.ref),
      text: `The parts of the bottom lie beside the board, and on it when X is mirrored: they are written as seen from below.`,
      do: "Export the file with both sides as seen from the top.",
    });
  return placements;
}

const say = (file: string, level: Finding["level"], text: string): Finding => ({
  tag: "unit-assumed",
  level,
  file,
  text,
  ...(level === "remark"
    ? {}
    : { do: "Look at the places on the picture, or export the file with its unit." }),
});
const round6 = (v: number) => Math.round(v * 1e6) / 1e6;
