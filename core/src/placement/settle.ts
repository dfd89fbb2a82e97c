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
    const other = assumed ? unitBySize(parts) : undefined;
    if (other) {
      findings.push(
        say(
          file,
          "warning",
          `The placement file states no unit, and nothing is there to hold it against; ${other.name} were taken: ${other.because}.`,
        ),
      );
      return inUnit(placements, other.name, other.f);
    }
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
    return inUnit(placements, best.name, best.f);
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

/** No board of parts is larger, and no part takes less room than this, mm and mm². */
const LARGEST_MM = 1000;
const PART_MM2 = 0.4;

/** The unit that places are in which stand there alone, where millimetres would make a board that nobody builds; nothing where they may be. */
function unitBySize(
  parts: readonly Placement[],
): { readonly name: string; readonly f: number; readonly because: string } | undefined {
  if (parts.length < 4) return undefined;
  const span = (of: (p: Placement) => number) => Math.max(...parts.map(of)) - Math.min(...parts.map(of));
  const [w, h] = [span((p) => p.xMm), span((p) => p.yMm)];
  const longest = Math.max(w, h);
  const isRoom = (f: number) => w * h * f * f >= PART_MM2 * parts.length && longest * f <= LARGEST_MM;
  const size = `${Number(w.toPrecision(3))} × ${Number(h.toPrecision(3))}`;
  if (longest > LARGEST_MM && isRoom(0.0254))
    return { name: "mil", f: 0.0254, because: `in millimetres the parts would stand over ${size} mm` };
  if (w * h < PART_MM2 * parts.length && isRoom(25.4))
    return {
      name: "inches",
      f: 25.4,
      because: `in millimetres ${parts.length} parts would stand on ${size} mm`,
    };
  return undefined;
}

/** Places read in millimetres as of another unit. */
const inUnit = (placements: Placements, name: string, f: number): Placements => ({
  ...placements,
  unit: name === "mil" ? "mil" : name === "inches" ? "inch" : "mm",
  parts: placements.parts.map((p) => ({ ...p, xMm: round6(p.xMm * f), yMm: round6(p.yMm * f) })),
});

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
