import {
  ALL_TURNS,
  AppError,
  DEFAULT_SPEC,
  type PanelSpec,
  type SheetSide,
  SIDES,
  WASTE,
  type WriteMode,
} from "@kobbin/core";

/** A spec as it was written, with what of it was not read. */
export interface ReadSpec {
  readonly archives: readonly string[];
  readonly spec: Omit<PanelSpec, "thicknessMm">;
  readonly thicknessMm: number | undefined;
  readonly write: WriteMode;
  /** Keys that are no part of a spec. */
  readonly unknown: readonly string[];
}

type Json = Record<string, unknown>;
const isRecord = (v: unknown): v is Json => typeof v === "object" && v !== null && !Array.isArray(v);
const KEYS: Readonly<Record<string, readonly string[]>> = {
  spec: [
    "boards",
    "sheet",
    "separation",
    "gapMm",
    "rails",
    "fiducials",
    "toolingHoles",
    "badMarks",
    "waste",
    "thicknessMm",
    "write",
    "tabMm",
    "copperBalance",
    "scored",
  ],
  board: ["archive", "count", "turns", "free"],
  sheet: ["maxWidthMm", "maxHeightMm", "minWidthMm", "minHeightMm"],
  rails: ["sides", "widthMm"],
};

/**
 * A sheet's spec as the command line takes it.
 * @throws AppError DOCUMENT_INVALID naming the key and what may stand there
 */
export function readSpec(value: unknown): ReadSpec {
  const r = new SpecReader();
  const spec = r.object(value, "document", "spec", "");
  const boards = readBoards(spec.boards, r);
  const sheet = r.object(spec.sheet ?? {}, "sheet", "sheet", "sheet.");
  const rails = r.object(spec.rails ?? {}, "rails", "rails", "rails.");
  const waste = spec.waste ?? [];
  if (!Array.isArray(waste) || waste.some((w) => !(WASTE as readonly unknown[]).includes(w)))
    r.bad("waste", `may list ${WASTE.join(", ")}`);
  const maxWidthMm = r.length(sheet, "maxWidthMm", DEFAULT_SPEC.maxWidthMm, 1, 1000, "sheet.");
  const maxHeightMm = r.length(sheet, "maxHeightMm", DEFAULT_SPEC.maxHeightMm, 1, 1000, "sheet.");
  const thicknessMm = r.length(spec, "thicknessMm", 0, 0, 10);
  return {
    archives: boards.map((b) => b.archive),
    spec: {
      ...DEFAULT_SPEC,
      counts: boards.map((b) => b.count),
      turns: boards.map((b) => b.turns),
      maxWidthMm,
      maxHeightMm,
      minWidthMm: r.length(sheet, "minWidthMm", 0, 0, maxWidthMm, "sheet."),
      minHeightMm: r.length(sheet, "minHeightMm", 0, 0, maxHeightMm, "sheet."),
      separation: r.one(spec, "separation", "auto", ["auto", "score", "tabs", "mixed"]),
      gapMm: r.length(spec, "gapMm", DEFAULT_SPEC.gapMm, 0.5, 20),
      rails: sidesOf(rails.sides, r),
      railMm: r.length(rails, "widthMm", DEFAULT_SPEC.railMm, 1, 60, "rails."),
      tabMm: r.length(spec, "tabMm", DEFAULT_SPEC.tabMm, 1, 20),
      fiducials: r.flag(spec, "fiducials", true),
      toolingHoles: r.flag(spec, "toolingHoles", true),
      badMarks: r.flag(spec, "badMarks", true),
      copperBalance: r.flag(spec, "copperBalance", false),
      waste: waste as PanelSpec["waste"],
      ...(boards.some((b) => b.free.length > 0) ? { free: boards.map((b) => b.free) } : {}),
      ...(spec.scored === undefined ? {} : { scored: r.one(spec, "scored", "rows", ["columns", "rows"]) }),
    },
    thicknessMm: thicknessMm === 0 ? undefined : thicknessMm,
    write: r.one(spec, "write", "copies", ["copies", "step-repeat"]),
    unknown: r.unknown,
  };
}

/** Reads keys one by one, and says which could not be. */
class SpecReader {
  readonly unknown: string[] = [];

  bad(key: string, what: string): never {
    throw new AppError("DOCUMENT_INVALID", `The spec's ${key} ${what}.`, "See docs/cli.md for its form.");
  }

  object(value: unknown, key: string, kind: string, at: string): Json {
    if (!isRecord(value)) return this.bad(key, "is no object");
    for (const k of Object.keys(value)) if (!KEYS[kind]!.includes(k)) this.unknown.push(at + k);
    return value;
  }

  length(of: Json, key: string, usual: number, least: number, most: number, at = ""): number {
    const v = of[key];
    if (v === undefined) return usual;
    if (typeof v !== "number" || !Number.isFinite(v) || v < least || v > most)
      return this.bad(at + key, `is ${JSON.stringify(v)}; a number from ${least} to ${most} may stand there`);
    return v;
  }

  one<T extends string>(of: Json, key: string, usual: T, may: readonly T[]): T {
    const v = of[key] ?? usual;
    return may.includes(v as T)
      ? (v as T)
      : this.bad(key, `is ${JSON.stringify(v)}; ${may.join(", ")} may stand there`);
  }

  flag(of: Json, key: string, usual: boolean): boolean {
    const v = of[key] ?? usual;
    return typeof v === "boolean" ? v : this.bad(key, "is neither true nor false");
  }
}

interface BoardSpec {
  readonly archive: string;
  readonly count: number | "fill";
  readonly turns: readonly number[];
  /** Its sides that get no tab. */
  readonly free: readonly SheetSide[];
}

function readBoards(boards: unknown, r: SpecReader): BoardSpec[] {
  if (!Array.isArray(boards) || boards.length === 0 || boards.length > 20)
    return r.bad("boards", "is no list of 1 to 20 boards");
  const list = boards.map((value, i): BoardSpec => {
    const at = `boards[${i}].`;
    const b = r.object(value, `boards[${i}]`, "board", at);
    if (typeof b.archive !== "string" || b.archive === "") return r.bad(`${at}archive`, "names no file");
    const count = b.count ?? "fill";
    if (
      count !== "fill" &&
      !(Number.isSafeInteger(count) && (count as number) >= 1 && (count as number) <= 400)
    )
      return r.bad(`${at}count`, `is ${JSON.stringify(count)}; 1 to 400, or "fill"`);
    const turns = b.turns ?? [...ALL_TURNS];
    const isList = Array.isArray(turns) && turns.length > 0 && turns.length <= 24;
    if (!isList || turns.some((t) => typeof t !== "number" || !Number.isFinite(t)))
      return r.bad(`${at}turns`, "is no list of degrees");
    const free = b.free ?? [];
    if (!Array.isArray(free) || free.some((f) => !(SIDES as readonly unknown[]).includes(f)))
      return r.bad(`${at}free`, `may list ${SIDES.join(", ")}`);
    return {
      archive: b.archive,
      free: [...new Set(free as SheetSide[])],
      count: count as number | "fill",
      turns: [...new Set((turns as number[]).map((t) => ((t % 360) + 360) % 360))],
    };
  });
  if (list.filter((b) => b.count === "fill").length > 1)
    return r.bad("boards", 'fill the sheet with more than one of them; "fill" may stand once');
  return list;
}

function sidesOf(sides: unknown, r: SpecReader): PanelSpec["rails"] {
  if (sides === undefined || sides === "auto") return "auto";
  if (sides === "none") return [];
  if (sides === "all") return [...SIDES];
  if (Array.isArray(sides) && sides.every((s) => (SIDES as readonly unknown[]).includes(s)))
    return [...new Set(sides as SheetSide[])];
  return r.bad(
    "rails.sides",
    `is ${JSON.stringify(sides)}; auto, none, all or a list of ${SIDES.join(", ")} may stand there`,
  );
}
