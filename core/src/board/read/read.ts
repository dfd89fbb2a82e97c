import type { Finding } from "../../findings.ts";
import type { LayerLimits } from "../../gerber/read.ts";
import { latin } from "../../gerber/scan.ts";
import { base, checkJob, type Job, readJob } from "../../job/read.ts";
import type { Placements } from "../../placement/placement.ts";
import { settlePlacements } from "../../placement/settle.ts";
import { roleFromFunction } from "../../role/role.ts";
import { NUMBERED, wordsOf } from "../../role/role-name.ts";
import type { BoardFile, BoardSet, Corrections, Entry } from "../board-file.ts";
import { cutoutRings, edgeRings } from "../copper/copper.ts";
import { withoutFrames } from "../outline/frame.ts";
import { chainOutline } from "../outline/outline.ts";
import { saySets } from "../panels/sets.ts";
import { heldAgainstContent } from "./content.ts";
import { kindOf } from "./kind.ts";
import { sayGaps, sayLosses } from "./losses.ts";
import { askNegatives, positiveOf, sayPositiveMasks } from "./negative.ts";
import { sayOrigins } from "./origins.ts";
import { FileReader } from "./read-file.ts";
import { sayScales } from "./scale.ts";
import { settleLayers } from "./settle.ts";
import { settleDrills } from "./settle-drills.ts";
import { settleToolUnits } from "./tool-units.ts";

/**
 * Reads every file of a drop and gives each a role: attribute, else job file, else name and content together; what a
 * person corrected wins (cascade of domain.md 2.1). Never throws; what is not understood becomes a finding.
 *
 * @param progress called with a file's path before it is read, and the share done
 * @param limits bounds of each layer; a layer beyond them is read up to there and says so
 */
export function readBoard(
  entries: readonly Entry[],
  corrections: Corrections = {},
  progress?: (path: string, share: number) => void,
  limits?: LayerLimits,
): BoardSet {
  const findings: Finding[] = [];
  const kinds = entries.map((e) => kindOf(e.bytes));
  const jobs = entries.filter((_, i) => kinds[i] === "job");
  const job = jobs[0]
    ? readJob(latin(jobs[0].bytes, 0, jobs[0].bytes.length), jobs[0].path, findings)
    : undefined;
  const shared = sharedWords(entries.filter((_, i) => kinds[i] === "layer").map((e) => e.path));
  const reader = new FileReader(corrections, job?.functions, shared, limits, findings);
  entries.forEach((e, i) => {
    progress?.(e.path, i / entries.length);
    reader.read(e, kinds[i]!);
  });
  reader.takeDrawn();
  const layers = heldAgainstContent(settleLayers(reader.files, findings, job?.layers), findings);
  const drilled = settleToolUnits(
    settleDrills(withoutNegatives(layers, job?.polarities, findings), findings),
    findings,
  );
  sayPositiveMasks(drilled, findings);
  const settled = withoutFrames(drilled, findings);
  sayScales(settled, outlineBox(settled), findings);
  const { bom, list, netlist } = reader;
  saySets(settled, findings);
  sayLosses(settled, findings);
  sayGaps(settled, netlist?.points ?? [], job?.layers, findings);
  sayOrigins(settled, findings);
  if (job) checkJob(job, entries, jobs[0]!.path, findings, standInOf(settled, job));
  const box = reader.placed.length > 0 ? extentOf(settled) : undefined;
  const placements = together(
    reader.placed.map(({ path, read }) => settlePlacements(read, box, path, findings)),
  );
  return {
    files: settled,
    ...(bom ? { bom } : {}),
    ...(list ? { list } : {}),
    ...(placements ? { placements } : {}),
    ...(netlist ? { netlist } : {}),
    ...(job ? { job } : {}),
    findings,
  };
}

/** Among files that a job does not list, the one that is what a function of it says: the only one of its role, side and number. */
function standInOf(files: readonly BoardFile[], job: Job) {
  const free = files.filter((f) => (f.layer || f.drill) && !job.functions.has(base(f.path)));
  return (fields: readonly string[]): string | undefined => {
    const told = roleFromFunction(fields, "job");
    if (!told || told.role === "unknown") return undefined;
    const are = free.filter(
      (f) =>
        f.role === told.role &&
        f.side === told.side &&
        (told.index === undefined || f.index === told.index) &&
        (told.plated === undefined || f.plated === told.plated),
    );
    return are.length === 1 ? are[0]!.path : undefined;
  };
}

/** Places of several files, each settled by itself, as one. */
function together(files: readonly Placements[]): Placements | undefined {
  const [first] = files;
  return first && { ...first, parts: files.flatMap((f) => f.parts) };
}

type Box = readonly [number, number, number, number];

function outlineBox(files: readonly BoardFile[]): Box | undefined {
  const profile = files.find((f) => f.role === "profile" && f.layer);
  const outline = profile?.layer ? chainOutline(profile.layer, profile.path) : undefined;
  return outline?.isClosed ? outline.box : undefined;
}

/** Box of the closed outline, else of the flashes of the copper. */
function extentOf(files: readonly BoardFile[]): Box | undefined {
  const own = outlineBox(files);
  if (own) return own;
  let box: [number, number, number, number] | undefined;
  for (const f of files)
    if (f.role === "copper" && f.layer)
      for (let i = 0; i < f.layer.n; i++) {
        if (f.layer.kind[i] !== 4) continue;
        const [x, y] = [f.layer.geo[i * 6]!, f.layer.geo[i * 6 + 1]!];
        box = box
          ? [Math.min(box[0], x), Math.min(box[1], y), Math.max(box[2], x), Math.max(box[3], y)]
          : [x, y, x, y];
      }
  return box;
}

/** Words that the names of all layers share, where there are enough of them to tell: the board's own name. */
function sharedWords(paths: readonly string[]): ReadonlySet<string> {
  if (paths.length < 3) return new Set();
  const [first, ...rest] = paths.map((p) => new Set(wordsOf(p)));
  // a word that layers are numbered by is no name
  return new Set([...first!].filter((w) => !NUMBERED.has(w) && rest.every((r) => r.has(w))));
}

/**
 * Layers stated as their own negative become the image they mean, within the board's outline where it is closed. The
 * attribute, an attribute in a comment, the job file and the old command all mean the same, and two of them not twice.
 * A mask is read as openings whatever it declares.
 */
function withoutNegatives(
  files: readonly BoardFile[],
  polarities: ReadonlyMap<string, string> | undefined,
  findings: Finding[],
): BoardFile[] {
  const isNegative = (f: BoardFile) =>
    f.layer !== undefined &&
    ["copper", "paste", "legend"].includes(f.role) &&
    (f.layer.isNegative === true ||
      /^neg/i.test(f.layer.fileAttributes.FilePolarity?.[0] ?? "") ||
      /^neg/i.test(polarities?.get(base(f.path)) ?? ""));
  const negative = new Set(files.filter(isNegative));
  const profile = files.find((f) => f.role === "profile" && f.layer);
  const outline = profile?.layer ? chainOutline(profile.layer, profile.path) : undefined;
  const rings = outline?.isClosed ? [...edgeRings(outline), ...cutoutRings(outline)] : [];
  askNegatives(files, negative, findings);
  return files.map((f) => (negative.has(f) ? { ...f, layer: positiveOf(f.layer!, rings) } : f));
}
