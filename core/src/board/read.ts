import { type Bom, readBom } from "../bom/bom.ts";
import { looksLikeBom } from "../bom/layout.ts";
import type { BomColumn } from "../bom/words.ts";
import { drillOfImage } from "../drill/from-image.ts";
import { readDrill } from "../drill/read.ts";
import type { Finding } from "../findings.ts";
import { type LayerLimits, readLayer } from "../gerber/read.ts";
import { latin } from "../gerber/scan.ts";
import { base, checkJob, type JobFunctions, readJob } from "../job/read.ts";
import { readNetlist } from "../netlist/read.ts";
import { type LayerParts, partsOfImage } from "../placement/from-image.ts";
import {
  looksLikePlacement,
  type PlacementColumn,
  type Placements,
  readPlacement,
} from "../placement/placement.ts";
import { settlePlacements } from "../placement/settle.ts";
import { type Role, type RoleGuess, roleFromFunction } from "../role/role.ts";
import { NUMBERED, roleFromName, wordsOf } from "../role/role-name.ts";
import type { Cells } from "../table/columns.ts";
import { chooseSheet, type NamedSheet } from "../table/sheets.ts";
import type { BoardFile, BoardSet, Corrections, Entry } from "./board-file.ts";
import { heldAgainstContent } from "./content.ts";
import { cutoutRings, edgeRings } from "./copper.ts";
import { guessDrill, guessLayer, words } from "./guess.ts";
import { kindOf } from "./kind.ts";
import { sayGaps, sayLosses } from "./losses.ts";
import { moveDrill, moveLayer, movePlacements, movePoints } from "./move.ts";
import { askNegatives, positiveOf } from "./negative.ts";
import { sayOrigins } from "./origins.ts";
import { chainOutline } from "./outline.ts";
import { saySets } from "./sets.ts";
import { settleDrills, settleLayers } from "./settle.ts";

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
  const files: BoardFile[] = [];
  const shared = sharedWords(entries.filter((_, i) => kinds[i] === "layer").map((e) => e.path));
  let bom: Bom | undefined;
  let placements: Placements | undefined;
  let netlist: BoardSet["netlist"];
  const drawn: (LayerParts & { readonly path: string })[] = [];
  entries.forEach((given, i) => {
    progress?.(given.path, i / entries.length);
    const e = given.sheets ? { ...given, cells: listOf(given, given.sheets, findings) } : given;
    const corrected = corrections.roles?.[e.path];
    const columns = corrections.columns?.[e.path] ?? {};
    const base = { path: e.path, bytes: e.bytes.length };
    const give = (guess: RoleGuess, more: Partial<BoardFile> = {}) => {
      const because = corrected
        ? {
            role: corrected.role,
            ...(corrected.side ? { side: corrected.side } : {}),
            ...(corrected.index ? { index: corrected.index } : {}),
            ...(corrected.plated === undefined ? {} : { plated: corrected.plated }),
            because: "corrected" as const,
            reason: "you said so",
          }
        : guess;
      files.push({ ...base, ...more, ...because });
    };
    const kind = kinds[i]!;
    const move = corrections.moves?.[e.path];
    if (kind === "layer") {
      const layer = moveLayer(readLayer(e.bytes, e.path, limits), move);
      findings.push(...layer.findings);
      const guess = guessLayer(layer, e.path, job?.functions, findings, shared);
      const role = corrected?.role ?? guess.role;
      const side = corrected?.side ?? guess.side;
      if (role === "placement" && (side === "top" || side === "bottom"))
        drawn.push({ path: e.path, ...partsOfImage(layer, side, 1 + drawn.flatMap((d) => d.lines).length) });
      give(guess, {
        layer,
        ...(role === "drill" ? { drill: drillOfImage(layer, e.path) } : {}),
        ...spanOf(layer.fileAttributes),
      });
    } else if (kind === "drill") {
      const drill = moveDrill(readDrill(latin(e.bytes, 0, e.bytes.length), e.path), move);
      give(guessDrill(drill, e.path, job?.functions), { drill, ...spanOf(drill.fileAttributes) });
    } else if (kind === "job")
      give({ role: "job", because: "content", reason: "it lists the files of a job" });
    else if (kind === "netlist") {
      const read = readNetlist(latin(e.bytes, 0, e.bytes.length), e.path);
      findings.push(...read.findings);
      give({ role: "netlist", because: "content", reason: `it lists ${read.points.length} test points` });
      if (!netlist && (corrected?.role ?? "netlist") === "netlist" && read.points.length > 0)
        netlist = { file: e.path, points: movePoints(read.points, move) };
    } else if (kind === "table" && e.cells) {
      const isPlaces = corrected ? corrected.role === "placement" : looksLikePlacement(e.cells);
      const isBom = corrected
        ? corrected.role === "bom"
        : !isPlaces && (looksLikeBom(e.cells) || Object.keys(columns).length > 0);
      const headers = headersOf(e.cells);
      if (isPlaces) {
        const read = readPlacement(e.cells, e.path, columns as Partial<Record<PlacementColumn, string>>);
        findings.push(...read.findings);
        const moved = movePlacements(read, move);
        placements = placements
          ? {
              ...placements,
              ...(moved.isUnitAssumed ? { isUnitAssumed: true } : {}),
              parts: [...placements.parts, ...moved.parts],
            }
          : moved;
        give(
          { role: "placement", because: "content", reason: `it lists ${read.parts.length} places` },
          { headers },
        );
      } else if (isBom) {
        const read = readBom(e.cells, e.path, columns as Partial<Record<BomColumn, string>>);
        findings.push(...read.findings);
        if (bom && bom.lines.length > 0)
          findings.push({
            tag: "duplicate-layer",
            level: "warning",
            file: e.path,
            text: "A second parts list; the first one is used.",
            do: "Say which one counts.",
          });
        else bom = read;
        give(
          { role: "bom", because: "content", reason: `it lists ${read.lines.length} lines of parts` },
          { headers },
        );
      } else {
        findings.push({
          tag: "unknown-layer",
          level: "remark",
          file: e.path,
          text: "A table whose columns say nothing of parts or places; kept, not used.",
          do: "If it is a parts list, set its role and columns.",
        });
        give({ role: "unknown", because: "content", reason: "a table of other things" }, { headers });
      }
    } else {
      const what = {
        empty: "It holds nothing",
        picture: "It is a picture",
        archive: "It is an archive inside the archive and was not opened",
        table: "It is a table that could not be split into cells",
        other: "It is none of the kinds read here",
      }[kind as "empty" | "picture" | "archive" | "table" | "other"];
      const promise = corrected ? undefined : promised(e.path, job?.functions, shared);
      findings.push({
        tag: kind === "empty" ? "empty-file" : "not-a-layer-file",
        level: promise ? "error" : kind === "empty" ? "warning" : "remark",
        file: e.path,
        text: promise ? `${what}, but ${promise}; it is missing.` : `${what}; kept, not used.`,
        ...(promise
          ? { do: "Export that layer again." }
          : kind === "empty"
            ? { do: "Export it again if it should hold something." }
            : {}),
      });
      give({ role: "unknown", because: "content", reason: what.toLowerCase() });
    }
  });
  const parts = drawn.flatMap((d) => d.parts);
  const lines = drawn.flatMap((d) => d.lines);
  if (parts.length > 0 && placements)
    findings.push({
      tag: "duplicate-layer",
      level: "remark",
      file: drawn[0]!.path,
      text: "A placement file and component layers both say where parts stand; the file is used.",
    });
  else if (parts.length > 0) placements = { unit: "mm", parts, findings: [] };
  if (!bom && lines.some((l) => l.valueText !== "" || l.mpn !== "")) {
    bom = { columns: {}, headers: [], lines, findings: [] };
    findings.push({
      tag: "bom-from-layers",
      level: "remark",
      file: drawn[0]!.path,
      text: `No parts list: the ${lines.length} lines are what the component layers say of their parts.`,
      do: "Drop the parts list too if it says more, such as what is not fitted.",
    });
  }
  const settled = settleDrills(
    withoutNegatives(
      heldAgainstContent(settleLayers(files, findings, job?.layers), findings),
      job?.polarities,
      findings,
    ),
    findings,
  );
  saySets(settled, findings);
  sayLosses(settled, findings);
  sayGaps(settled, netlist?.points ?? [], job?.layers, findings);
  sayOrigins(settled, findings);
  if (job) checkJob(job, entries, jobs[0]!.path, findings);
  const placesFile = settled.find((f) => f.role === "placement")?.path;
  if (placements && placesFile)
    placements = settlePlacements(placements, extentOf(settled), placesFile, findings);
  return {
    files: settled,
    ...(bom ? { bom } : {}),
    ...(placements ? { placements } : {}),
    ...(netlist ? { netlist } : {}),
    ...(job ? { job } : {}),
    findings,
  };
}

/** The sheet of a workbook that is read: a parts list before places. */
function listOf(e: Entry, sheets: readonly NamedSheet[], findings: Finding[]): Cells {
  const isPlaces = !sheets.some((s) => looksLikeBom(s.cells) && !looksLikePlacement(s.cells));
  const taken = isPlaces
    ? chooseSheet(sheets, looksLikePlacement, "a list of places", e.path, findings)
    : chooseSheet(sheets, (c) => looksLikeBom(c) && !looksLikePlacement(c), "a parts list", e.path, findings);
  return taken?.cells ?? e.cells ?? [];
}

/** Box of the closed outline, else of the flashes of the copper. */
function extentOf(files: readonly BoardFile[]): readonly [number, number, number, number] | undefined {
  const profile = files.find((f) => f.role === "profile" && f.layer);
  const outline = profile?.layer ? chainOutline(profile.layer, profile.path) : undefined;
  if (outline?.isClosed && outline.box) return outline.box;
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

/** What promises that a file is copper, mask, profile or drill: the job file, or its name; undefined where nothing does. */
function promised(
  path: string,
  functions: JobFunctions | undefined,
  shared: ReadonlySet<string>,
): string | undefined {
  const told = functions?.get(base(path));
  const byJob = told ? roleFromFunction(told, "job") : undefined;
  const isPart = (r: Role | undefined) =>
    r !== undefined && ["copper", "mask", "profile", "drill"].includes(r);
  if (isPart(byJob?.role)) return `the job file promises ${words(byJob!)}`;
  const byName = roleFromName(path, shared);
  if (byName && isPart(byName.role) && byName.doubt === undefined)
    return `its name promises ${words(byName)}`;
  if (/\.(drl|xln|exc|drd|nc|tap)$/i.test(path) || /(^|[^a-z])drills?([^a-z]|$)/i.test(base(path)))
    return "its name promises drill";
  return undefined;
}

const headersOf = (cells: Cells) => [
  ...(cells.find((r) => r.filter((t) => t.trim() !== "").length > 1) ?? []),
];

/** Layers joined, from a file function such as ["Plated", "1", "2", "Blind"]. */
function spanOf(attributes: Readonly<Record<string, readonly string[]>>): {
  span?: readonly [number, number];
} {
  const [key = "", from, to] = attributes.FileFunction ?? [];
  if (!/plat/i.test(key) || !/^\d+$/.test(from ?? "") || !/^\d+$/.test(to ?? "")) return {};
  return { span: [Number(from), Number(to)] };
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
