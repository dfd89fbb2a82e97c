import { type Bom, type BomColumn, looksLikeBom, readBom } from "../bom/bom.ts";
import { type DrillData, READINGS, readDrill } from "../drill/read.ts";
import type { LayerImage } from "../gerber/image.ts";
import { readLayer } from "../gerber/read.ts";
import { latin } from "../gerber/scan.ts";
import { base, checkJob, type JobFunctions, readJob } from "../job/read.ts";
import {
  looksLikePlacement,
  type PlacementColumn,
  type Placements,
  readPlacement,
} from "../placement/placement.ts";
import type { Cells } from "../table/columns.ts";
import type { Finding } from "./findings.ts";
import { kindOf } from "./kind.ts";
import {
  factsOf,
  type LayerFacts,
  type Role,
  type RoleGuess,
  roleFromContent,
  roleFromFunction,
  roleFromName,
  type Side,
} from "./role.ts";

/** A file of a drop, unzipped; cells when it is a table somebody already split. */
export interface Entry {
  readonly path: string;
  readonly bytes: Uint8Array;
  readonly cells?: Cells;
}

/** What a person corrected: by path, the role or the columns. */
export interface Corrections {
  readonly roles?: Readonly<
    Record<
      string,
      { readonly role: Role; readonly side?: Side; readonly index?: number; readonly plated?: boolean }
    >
  >;
  readonly columns?: Readonly<Record<string, Readonly<Record<string, string>>>>;
}

/** One file with the role it was given. */
export interface BoardFile extends RoleGuess {
  readonly path: string;
  readonly bytes: number;
  readonly layer?: LayerImage;
  readonly drill?: DrillData;
  readonly headers?: readonly string[];
}

/** Everything read out of a drop. */
export interface BoardSet {
  readonly files: readonly BoardFile[];
  readonly bom?: Bom;
  readonly placements?: Placements;
  readonly job?: {
    readonly thicknessMm?: number;
    readonly widthMm?: number;
    readonly heightMm?: number;
    readonly layers?: number;
    readonly name?: string;
    readonly revision?: string;
  };
  readonly findings: readonly Finding[];
}

/**
 * Reads every file of a drop and gives each a role: attribute, else job file, else name and content together; what a
 * person corrected wins (cascade of domain.md 2.1). Never throws; what is not understood becomes a finding.
 *
 * @param progress called with a file's path before it is read, and the share done
 */
export function readBoard(
  entries: readonly Entry[],
  corrections: Corrections = {},
  progress?: (path: string, share: number) => void,
): BoardSet {
  const findings: Finding[] = [];
  const kinds = entries.map((e) => kindOf(e.bytes));
  const jobs = entries.filter((_, i) => kinds[i] === "job");
  const job = jobs[0]
    ? readJob(latin(jobs[0].bytes, 0, jobs[0].bytes.length), jobs[0].path, findings)
    : undefined;
  const files: BoardFile[] = [];
  let bom: Bom | undefined;
  let placements: Placements | undefined;
  entries.forEach((e, i) => {
    progress?.(e.path, i / entries.length);
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
    if (kind === "layer") {
      const layer = readLayer(e.bytes, e.path);
      findings.push(...layer.findings);
      give(guessLayer(layer, e.path, job?.functions, findings), { layer });
    } else if (kind === "drill") {
      const drill = readDrill(latin(e.bytes, 0, e.bytes.length), e.path);
      give(guessDrill(drill, e.path, job?.functions), { drill });
    } else if (kind === "job")
      give({ role: "job", because: "content", reason: "it lists the files of a job" });
    else if (kind === "netlist")
      give({ role: "netlist", because: "content", reason: "it holds test points" });
    else if (kind === "table" && e.cells) {
      const isPlaces = corrected ? corrected.role === "placement" : looksLikePlacement(e.cells);
      const isBom = corrected
        ? corrected.role === "bom"
        : !isPlaces && (looksLikeBom(e.cells) || Object.keys(columns).length > 0);
      const headers = headersOf(e.cells);
      if (isPlaces) {
        const read = readPlacement(e.cells, e.path, columns as Partial<Record<PlacementColumn, string>>);
        findings.push(...read.findings);
        placements = placements ? { ...placements, parts: [...placements.parts, ...read.parts] } : read;
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
      const named = roleFromName(e.path) !== undefined && kind !== "empty";
      findings.push({
        tag: kind === "empty" ? "empty-file" : "not-a-layer-file",
        level: kind === "empty" || (named && kind === "picture") ? "warning" : "remark",
        file: e.path,
        text: `${what}; kept, not used.`,
        ...(kind === "empty"
          ? { do: "Export it again if it should hold something." }
          : named
            ? { do: "Its name promises a layer; export that layer again." }
            : {}),
      });
      give({ role: "unknown", because: "content", reason: what.toLowerCase() });
    }
  });
  const settled = settleDrills(settleLayers(files, findings), findings);
  if (job) checkJob(job, entries, jobs[0]!.path, findings);
  return {
    files: settled,
    ...(bom ? { bom } : {}),
    ...(placements ? { placements } : {}),
    ...(job ? { job } : {}),
    findings,
  };
}

const headersOf = (cells: Cells) => [
  ...(cells.find((r) => r.filter((t) => t.trim() !== "").length > 1) ?? []),
];

function guessLayer(
  layer: LayerImage,
  path: string,
  functions: JobFunctions | undefined,
  findings: Finding[],
): RoleGuess {
  const own = layer.fileAttributes.FileFunction;
  const byName = roleFromName(path);
  const byAttribute = own ? roleFromFunction(own, "attribute") : undefined;
  if (byAttribute) {
    if (
      byName &&
      byAttribute.role !== "unknown" &&
      (byName.role !== byAttribute.role ||
        (byName.side && byAttribute.side && byName.side !== byAttribute.side))
    )
      findings.push({
        tag: "role-contradiction",
        level: "warning",
        file: path,
        text: `The name reads as ${words(byName)}, the file's own attribute says ${words(byAttribute)}; the attribute counts.`,
        do: "Correct the role if the attribute is wrong.",
      });
    return byAttribute;
  }
  const byJob = functions?.get(base(path));
  const told = byJob ? roleFromFunction(byJob, "job") : undefined;
  if (told) return told;
  const facts: LayerFacts = factsOf(layer);
  const byContent = roleFromContent(facts);
  if (byName) {
    if (byName.role === "profile" && byContent?.role === "copper")
      findings.push({
        tag: "role-contradiction",
        level: "warning",
        file: path,
        text: "Named like an outline, but it holds pads and tracks.",
        do: "Check its role.",
      });
    return byName;
  }
  if (byContent) return byContent;
  findings.push({
    tag: "unknown-layer",
    level: "warning",
    file: path,
    text: "A layer whose use neither its content nor its name tells.",
    do: "Give it a role.",
  });
  return { role: "unknown", because: "content", reason: "nothing tells its use" };
}

const words = (r: RoleGuess) => `${r.role}${r.side ? ` ${r.side}` : ""}`;

function guessDrill(drill: DrillData, path: string, functions: JobFunctions | undefined): RoleGuess {
  const own = drill.fileAttributes.FileFunction;
  const told =
    (own ? roleFromFunction(own, "attribute") : undefined) ??
    (functions?.get(base(path)) ? roleFromFunction(functions.get(base(path))!, "job") : undefined);
  if (told?.role === "drill") return told;
  const name = base(path);
  const byName = /npth|non[-_ ]?plated|unplated/.test(name)
    ? false
    : /pth|plated/.test(name)
      ? true
      : undefined;
  const plated = drill.plated ?? byName;
  return {
    role: "drill",
    ...(plated === undefined ? {} : { plated }),
    because: drill.plated === undefined && byName !== undefined ? "name" : "content",
    reason: `it drills ${drill.hits.length} holes${byName === undefined ? "" : `; its name says ${byName ? "plated" : "not plated"}`}`,
  };
}

/** Two layers of one role and side: the later ones are kept but said; a lone copper of unknown side is the top. */
function settleLayers(files: readonly BoardFile[], findings: Finding[]): BoardFile[] {
  const seen = new Map<string, string>();
  let out = files.map((f) => ({ ...f }));
  const sideless = out.filter((f) => f.role === "copper" && !f.side);
  const freeSides = (["top", "bottom"] as const).filter(
    (s) => !out.some((f) => f.role === "copper" && f.side === s),
  );
  if (sideless.length > 0)
    out = out.map((f) => {
      const k = sideless.findIndex((s) => s.path === f.path);
      return k >= 0 && freeSides[k]
        ? { ...f, side: freeSides[k]!, reason: `${f.reason}; taken as ${freeSides[k]}` }
        : f;
    });
  for (const f of out) {
    if (!["copper", "mask", "legend", "paste", "profile"].includes(f.role)) continue;
    const key = `${f.role} ${f.side ?? ""} ${f.index ?? ""}`;
    const first = seen.get(key);
    if (first !== undefined)
      findings.push({
        tag: "duplicate-layer",
        level: "warning",
        file: f.path,
        text: `A second layer for ${words(f)}; ${first} came first and is used.`,
        do: "Set the role of the one that does not count to unknown.",
      });
    else seen.set(key, f.path);
  }
  return out;
}

/** Drill files that leave unit or zeros open are read the way that fits the copper best. */
function settleDrills(files: readonly BoardFile[], findings: Finding[]): BoardFile[] {
  const pads: { x: number; y: number }[] = [];
  for (const f of files)
    if (f.role === "copper" && f.layer)
      for (let i = 0; i < f.layer.n; i++)
        if (f.layer.kind[i] === 4) pads.push({ x: f.layer.geo[i * 6]!, y: f.layer.geo[i * 6 + 1]! });
  const cells = new Set(
    pads.flatMap((p) =>
      [0, 1].flatMap((a) => [0, 1].map((b) => `${Math.floor(p.x * 10) + a} ${Math.floor(p.y * 10) + b}`)),
    ),
  );
  const score = (d: DrillData) =>
    d.hits.length === 0
      ? 0
      : d.hits.filter((h) => cells.has(`${Math.floor(h.x * 10)} ${Math.floor(h.y * 10)}`)).length /
        d.hits.length;
  return files.map((f) => {
    if (!f.drill) return f;
    let drill = f.drill;
    if (!drill.isCertain && pads.length > 0 && drill.text !== undefined) {
      const tried = READINGS.map((r) => readDrill(f.drill!.text!, f.path, r)).sort(
        (a, b) => score(b) - score(a),
      );
      if (tried[0] && score(tried[0]) > score(drill) + 0.2) {
        findings.push({
          tag: "drill-unit-unknown",
          level: score(tried[0]) >= 0.95 ? "remark" : "warning",
          file: f.path,
          text: `The drill file leaves its unit or zeros open; the reading that puts ${Math.round(score(tried[0]) * 100)} % of its holes on pads was taken.`,
          do: "Look at the holes on the picture.",
        });
        drill = tried[0];
      }
    }
    findings.push(...drill.findings);
    return { ...f, drill };
  });
}
