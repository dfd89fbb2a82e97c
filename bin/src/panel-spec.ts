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
  ],
  board: ["archive", "count", "turns"],
  sheet: ["maxWidthMm", "maxHeightMm", "minWidthMm", "minHeightMm"],
  rails: ["sides", "widthMm"],
};

/**
 * A sheet's spec as the command line takes it.
 * @throws AppError DOCUMENT_INVALID naming the key and what may stand there
 */
export function readSpec(value: unknown): ReadSpec {
  const bad = (key: string, what: string): never => {
    throw new AppError("DOCUMENT_INVALID", `The spec's ${key} ${what}.`, "See docs/cli.md for its form.");
  };
  if (!isRecord(value)) return bad("document", "is no object");
  const unknown: string[] = [];
  const known = (of: Json, kind: string, at: string) => {
    for (const k of Object.keys(of)) if (!KEYS[kind]!.includes(k)) unknown.push(at + k);
  };
  known(value, "spec", "");
  const length = (of: Json, key: string, usual: number, least: number, most: number, at = ""): number => {
    const v = of[key];
    if (v === undefined) return usual;
    if (typeof v !== "number" || !Number.isFinite(v) || v < least || v > most)
      return bad(at + key, `is ${JSON.stringify(v)}; a number from ${least} to ${most} may stand there`);
    return v;
  };
  const one = <T extends string>(of: Json, key: string, usual: T, may: readonly T[]): T => {
    const v = of[key] ?? usual;
    return may.includes(v as T)
      ? (v as T)
      : bad(key, `is ${JSON.stringify(v)}; ${may.join(", ")} may stand there`);
  };
  const flag = (key: string, usual: boolean): boolean => {
    const v = value[key] ?? usual;
    return typeof v === "boolean" ? v : bad(key, "is neither true nor false");
  };
  const { boards } = value;
  if (!Array.isArray(boards) || boards.length === 0 || boards.length > 20)
    return bad("boards", "is no list of 1 to 20 boards");
  const list = boards.map((b, i) => {
    const at = `boards[${i}].`;
    if (!isRecord(b)) return bad(`boards[${i}]`, "is no object");
    known(b, "board", at);
    if (typeof b.archive !== "string" || b.archive === "") return bad(`${at}archive`, "names no file");
    const count = b.count ?? "fill";
    if (
      count !== "fill" &&
      !(Number.isSafeInteger(count) && (count as number) >= 1 && (count as number) <= 400)
    )
      return bad(`${at}count`, `is ${JSON.stringify(count)}; 1 to 400, or "fill"`);
    const turns = b.turns ?? [...ALL_TURNS];
    if (
      !Array.isArray(turns) ||
      turns.length === 0 ||
      turns.length > 24 ||
      turns.some((t) => typeof t !== "number" || !Number.isFinite(t))
    )
      return bad(`${at}turns`, "is no list of degrees");
    return {
      archive: b.archive,
      count: count as number | "fill",
      turns: [...new Set(turns.map((t) => ((t % 360) + 360) % 360))],
    };
  });
  if (list.filter((b) => b.count === "fill").length > 1)
    return bad("boards", 'fill the sheet with more than one of them; "fill" may stand once');
  const sheet = value.sheet ?? {};
  if (!isRecord(sheet)) return bad("sheet", "is no object");
  known(sheet, "sheet", "sheet.");
  const rails = value.rails ?? {};
  if (!isRecord(rails)) return bad("rails", "is no object");
  known(rails, "rails", "rails.");
  const waste = value.waste ?? [];
  if (!Array.isArray(waste) || waste.some((w) => !(WASTE as readonly unknown[]).includes(w)))
    return bad("waste", `may list ${WASTE.join(", ")}`);
  const maxWidthMm = length(sheet, "maxWidthMm", DEFAULT_SPEC.maxWidthMm, 1, 1000, "sheet.");
  const maxHeightMm = length(sheet, "maxHeightMm", DEFAULT_SPEC.maxHeightMm, 1, 1000, "sheet.");
  const thicknessMm = length(value, "thicknessMm", 0, 0, 10);
  return {
    archives: list.map((b) => b.archive),
    spec: {
      ...DEFAULT_SPEC,
      counts: list.map((b) => b.count),
      turns: list.map((b) => b.turns),
      maxWidthMm,
      maxHeightMm,
      minWidthMm: length(sheet, "minWidthMm", 0, 0, maxWidthMm, "sheet."),
      minHeightMm: length(sheet, "minHeightMm", 0, 0, maxHeightMm, "sheet."),
      separation: one(value, "separation", "auto", ["auto", "score", "tabs", "mixed"]),
      gapMm: length(value, "gapMm", DEFAULT_SPEC.gapMm, 0.5, 20),
      rails: sidesOf(rails.sides, bad),
      railMm: length(rails, "widthMm", DEFAULT_SPEC.railMm, 1, 60, "rails."),
      tabMm: length(value, "tabMm", DEFAULT_SPEC.tabMm, 1, 20),
      fiducials: flag("fiducials", true),
      toolingHoles: flag("toolingHoles", true),
      badMarks: flag("badMarks", true),
      copperBalance: flag("copperBalance", false),
      waste: waste as PanelSpec["waste"],
    },
    thicknessMm: thicknessMm === 0 ? undefined : thicknessMm,
    write: one(value, "write", "copies", ["copies", "step-repeat"]),
    unknown,
  };
}

function sidesOf(sides: unknown, bad: (key: string, what: string) => never): PanelSpec["rails"] {
  if (sides === undefined || sides === "auto") return "auto";
  if (sides === "none") return [];
  if (sides === "all") return [...SIDES];
  if (Array.isArray(sides) && sides.every((s) => (SIDES as readonly unknown[]).includes(s)))
    return [...new Set(sides as SheetSide[])];
  return bad(
    "rails.sides",
    `is ${JSON.stringify(sides)}; auto, none, all or a list of ${SIDES.join(", ")} may stand there`,
  );
}
