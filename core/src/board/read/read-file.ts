import { type Bom, type ListHead, listHead, readBom } from "../../bom/bom.ts";
import type { ChosenColumns } from "../../bom/layout.ts";
import { looksLikeBom } from "../../bom/layout.ts";
import { counted } from "../../counted.ts";
import { drillOfImage } from "../../drill/from-image.ts";
import { readDrill } from "../../drill/read.ts";
import type { Finding } from "../../findings.ts";
import { type LayerLimits, readLayer } from "../../gerber/read.ts";
import { latin } from "../../gerber/scan.ts";
import { base, type JobFunctions } from "../../job/read.ts";
import { readNetlist } from "../../netlist/read.ts";
import { type LayerParts, partsOfImage } from "../../placement/from-image.ts";
import {
  looksLikePlacement,
  type PlacementColumn,
  type Placements,
  readPlacement,
} from "../../placement/placement.ts";
import { type Role, type RoleGuess, roleFromFunction } from "../../role/role.ts";
import { roleFromName } from "../../role/role-name.ts";
import { saysAccount } from "../../table/account.ts";
import type { Cells } from "../../table/columns.ts";
import { chooseSheet, type NamedSheet } from "../../table/sheets.ts";
import type { BoardFile, BoardSet, Corrections, Entry } from "../board-file.ts";
import { moveDrill, moveLayer, movePlacements, movePoints } from "../move.ts";
import { guessDrill, guessLayer, words } from "./guess.ts";
import type { kindOf } from "./kind.ts";

type Kind = ReturnType<typeof kindOf>;
type Correction = NonNullable<Corrections["roles"]>[string];

const UNREAD: Readonly<Record<string, string>> = {
  empty: "It holds nothing",
  picture: "It is a picture",
  archive: "It is an archive inside the archive and was not opened",
  table: "It is a table that could not be split into cells",
  other: "It is none of the kinds read here",
};

/** Reads the files of a drop one after the other; what they add up to gathers in it. */
export class FileReader {
  readonly files: BoardFile[] = [];
  bom: Bom | undefined;
  list: ListHead | undefined;
  /** Places by the file they stand in: each has a unit of its own. */
  readonly placed: { readonly path: string; readonly read: Placements }[] = [];
  netlist: BoardSet["netlist"];
  /** Parts that component layers flash. */
  private readonly drawn: (LayerParts & { readonly path: string })[] = [];
  private readonly corrections: Corrections;
  private readonly functions: JobFunctions | undefined;
  private readonly shared: ReadonlySet<string>;
  private readonly limits: LayerLimits | undefined;
  private readonly findings: Finding[];

  /**
   * @param functions what the job file says of each file
   * @param shared words all layers' names share: the board's own
   */
  constructor(
    corrections: Corrections,
    functions: JobFunctions | undefined,
    shared: ReadonlySet<string>,
    limits: LayerLimits | undefined,
    findings: Finding[],
  ) {
    this.corrections = corrections;
    this.functions = functions;
    this.shared = shared;
    this.limits = limits;
    this.findings = findings;
  }

  read(e: Entry, kind: Kind): void {
    if (kind === "layer") this.layer(e);
    else if (kind === "drill") {
      const drill = moveDrill(readDrill(textOf(e), e.path), this.corrections.moves?.[e.path]);
      this.give(e, guessDrill(drill, e.path, this.functions), { drill, ...spanOf(drill.fileAttributes) });
    } else if (kind === "job")
      this.give(e, { role: "job", because: "content", reason: "it lists the files of a job" });
    else if (kind === "netlist") this.testPoints(e);
    else {
      const cells = e.sheets ? listOf(e, e.sheets, this.findings) : e.cells;
      if (kind === "table" && cells) this.table(e, cells);
      else this.unread(e, kind);
    }
  }

  private corrected(e: Entry): Correction | undefined {
    return this.corrections.roles?.[e.path];
  }

  /** Keeps a file with its role; what a person said of it wins. */
  private give(e: Entry, guess: RoleGuess, more: Partial<BoardFile> = {}): void {
    const own = this.corrected(e);
    const because = own
      ? {
          role: own.role,
          ...(own.side ? { side: own.side } : {}),
          ...(own.index ? { index: own.index } : {}),
          ...(own.plated === undefined ? {} : { plated: own.plated }),
          because: "corrected" as const,
          reason: "you said so",
        }
      : guess;
    this.files.push({ path: e.path, bytes: e.bytes.length, ...more, ...because });
  }

  private layer(e: Entry): void {
    const layer = moveLayer(readLayer(e.bytes, e.path, this.limits), this.corrections.moves?.[e.path]);
    this.findings.push(...layer.findings);
    const guess = guessLayer(layer, e.path, this.functions, this.findings, this.shared);
    const role = this.corrected(e)?.role ?? guess.role;
    const side = this.corrected(e)?.side ?? guess.side;
    if (role === "placement" && (side === "top" || side === "bottom")) {
      const before = this.drawn.flatMap((d) => d.lines).length;
      this.drawn.push({ path: e.path, ...partsOfImage(layer, side, 1 + before) });
    }
    this.give(e, guess, {
      layer,
      ...(role === "drill" ? { drill: drillOfImage(layer, e.path) } : {}),
      ...spanOf(layer.fileAttributes),
    });
  }

  private testPoints(e: Entry): void {
    const read = readNetlist(textOf(e), e.path);
    this.findings.push(...read.findings);
    this.give(e, {
      role: "netlist",
      because: "content",
      reason: `it lists ${read.points.length} test points`,
    });
    const isNetlist = (this.corrected(e)?.role ?? "netlist") === "netlist";
    if (!isNetlist || read.points.length === 0) return;
    if (this.netlist)
      this.findings.push({
        tag: "duplicate-layer",
        level: "warning",
        file: e.path,
        text: `A second netlist; ${this.netlist.file} is used.`,
        do: "Say which one counts.",
      });
    else this.netlist = { file: e.path, points: movePoints(read.points, this.corrections.moves?.[e.path]) };
  }

  private table(e: Entry, cells: Cells): void {
    const own = this.corrected(e);
    const columns = this.corrections.columns?.[e.path] ?? {};
    const isPlaces = own ? own.role === "placement" : looksLikePlacement(cells);
    const isBom = own
      ? own.role === "bom"
      : !isPlaces && (looksLikeBom(cells) || Object.keys(columns).length > 0);
    if (isPlaces) this.places(e, cells, columns);
    else if (isBom) this.parts(e, cells, columns);
    else {
      this.findings.push({
        tag: "unknown-layer",
        level: "remark",
        file: e.path,
        text: "A table whose columns say nothing of parts or places; kept, not used.",
        do: "If it is a parts list, set its role and columns.",
      });
      const guess = { role: "unknown", because: "content", reason: "a table of other things" } as const;
      this.give(e, guess, { headers: headersOf(cells) });
    }
  }

  private places(e: Entry, cells: Cells, columns: object): void {
    const read = readPlacement(cells, e.path, columns as Partial<Record<PlacementColumn, string>>);
    this.findings.push(...read.findings);
    const moved = movePlacements(read, this.corrections.moves?.[e.path]);
    this.placed.push({ path: e.path, read: moved });
    const reason = `it lists ${counted(read.parts.length, "place")}${read.account ? `; ${saysAccount(read.account)}` : ""}`;
    this.give(e, { role: "placement", because: "content", reason }, { headers: headersOf(cells) });
  }

  private parts(e: Entry, cells: Cells, columns: object): void {
    const read = readBom(cells, e.path, columns as ChosenColumns);
    // no order goes out while nobody said which lines a column of marks leaves off
    const isOpen = read.account?.columns.some((c) => c.marks) ?? false;
    this.findings.push(
      ...read.findings.map((f) =>
        isOpen && f.tag === "bom-fitted-unknown" ? { ...f, level: "error" as const } : f,
      ),
    );
    if (this.bom && this.bom.lines.length > 0)
      this.findings.push({
        tag: "duplicate-layer",
        level: "warning",
        file: e.path,
        text: "A second parts list; the first one is used.",
        do: "Say which one counts.",
      });
    else {
      this.bom = read;
      this.list = {
        ...listHead(cells, e.path, columns as ChosenColumns),
        ...(read.account ? { account: read.account } : {}),
      };
    }
    const reason = `it lists ${counted(read.lines.length, "line")} of parts${read.account ? `; ${saysAccount(read.account)}` : ""}`;
    this.give(e, { role: "bom", because: "content", reason }, { headers: headersOf(cells) });
  }

  /** What is none of the kinds read here; where something promised a layer it is a loss. */
  private unread(e: Entry, kind: Kind): void {
    const what = UNREAD[kind]!;
    const promise = this.corrected(e) ? undefined : promised(e.path, this.functions, this.shared);
    this.findings.push({
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
    this.give(e, { role: "unknown", because: "content", reason: what.toLowerCase() });
  }

  /** What component layers say of parts and places counts where no file does. */
  takeDrawn(): void {
    const parts = this.drawn.flatMap((d) => d.parts);
    const lines = this.drawn.flatMap((d) => d.lines);
    if (parts.length > 0 && this.placed.length > 0)
      this.findings.push({
        tag: "duplicate-layer",
        level: "remark",
        file: this.drawn[0]!.path,
        text: "A placement file and component layers both say where parts stand; the file is used.",
      });
    else if (parts.length > 0)
      this.placed.push({ path: this.drawn[0]!.path, read: { unit: "mm", parts, findings: [] } });
    if (this.bom || !lines.some((l) => l.valueText !== "" || l.mpn !== "")) return;
    this.bom = { columns: {}, headers: [], lines, findings: [] };
    this.findings.push({
      tag: "bom-from-layers",
      level: "remark",
      file: this.drawn[0]!.path,
      text: `No parts list; ${counted(lines.length, "line is", "lines are")} what the component layers say of their parts.`,
      do: "Drop the parts list too if it says more, such as what is not fitted.",
    });
  }
}

const textOf = (e: Entry): string => latin(e.bytes, 0, e.bytes.length);

/** The sheet of a workbook that is read: a parts list before places. */
function listOf(e: Entry, sheets: readonly NamedSheet[], findings: Finding[]): Cells {
  const isPlaces = !sheets.some((s) => looksLikeBom(s.cells) && !looksLikePlacement(s.cells));
  const taken = isPlaces
    ? chooseSheet(sheets, looksLikePlacement, "a list of places", e.path, findings)
    : chooseSheet(sheets, (c) => looksLikeBom(c) && !looksLikePlacement(c), "a parts list", e.path, findings);
  return taken?.cells ?? e.cells ?? [];
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
