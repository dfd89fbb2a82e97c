import { CHOICE_FIELDS, LINE_FIELDS, PART_FIELDS, SHOP_FIELDS } from "@kobbin/core";
import { TOLD_FIRST, tableFact } from "../schema/table-facts.ts";
import type { Table } from "../schema/tables.ts";
import { isSame, type Json, WHOLE } from "./merge.ts";
import type { Row } from "./rows.ts";

/** A recorded row of a change. */
export interface ChangedRow {
  readonly table: Table;
  readonly key: Row;
  readonly op: "insert" | "update" | "delete";
  readonly name: string | null;
  readonly was: Row | null;
  readonly became: Row | null;
}

/** What columns and keys are called on screen. */
const WORDS: Readonly<Record<string, string>> = {
  ...Object.fromEntries(Object.values(PART_FIELDS).map((f) => [f.column, f.words])),
  ...Object.fromEntries(Object.values(SHOP_FIELDS).map((f) => [f.column, f.words])),
  ...Object.fromEntries(Object.values(LINE_FIELDS).map((f) => [f.column, f.words])),
  ...Object.fromEntries(
    Object.values(CHOICE_FIELDS).flatMap((part) => Object.entries(part).map(([key, f]) => [key, f.words])),
  ),
  good_boards: "good boards",
  confidence: "certainty",
  house_id: "house",
  free_from: "free shipping from",
  days_min: "least days",
  days_max: "most days",
  unit_cost: "cost a piece",
  within_pct: "within per cent",
  per_product: "in each product",
  sample: "sample",
  candidate: "part named by the supplier",
  ordered_on: "ordered on",
  promised_on: "promised for",
  paid: "paid for",
  freight: "freight",
  on_day: "on",
  is_apart: "set apart",
  arrived_on: "arrived on",
};
const MOUNT: Readonly<Record<string, string>> = {
  machine: "mounted by machine",
  hand: "mounted by hand",
  none: "not soldered",
};
/** Columns that hold objects of choices: their keys are told, not they. */
const TRANSPARENT = new Set(["options", "assembly", "choices", "profile"]);
const word = (key: string) =>
  WORDS[key] ??
  key
    .replace(/([a-z])([A-Z])/g, "$1 $2")
    .replaceAll("_", " ")
    .toLowerCase();

/** What a field of one row became, in words. */
export interface Told {
  readonly path: readonly string[];
  readonly label: string;
  readonly from: Json | undefined;
  readonly to: Json | undefined;
}

/** The single fields an update changed, objects opened. */
export function fieldsOf(was: Row, became: Row, names: ReadonlyMap<string, string> = new Map()): Told[] {
  const out: Told[] = [];
  const walk = (a: Json | undefined, b: Json | undefined, path: readonly string[]) => {
    if (isSame(a, b)) return;
    const isOpen = (v: Json | undefined): v is Row =>
      typeof v === "object" && v !== null && !Array.isArray(v);
    const isWhole = WHOLE.has(path.at(-1) ?? "");
    if (
      !isWhole &&
      (isOpen(a) || a == null) &&
      (isOpen(b) || b == null) &&
      (isOpen(a) || isOpen(b)) &&
      path.length < 4
    ) {
      const [x, y] = [isOpen(a) ? a : {}, isOpen(b) ? b : {}];
      for (const key of new Set([...Object.keys(x), ...Object.keys(y)])) walk(x[key], y[key], [...path, key]);
      return;
    }
    const shown = path.filter((p) => !TRANSPARENT.has(p)).map((p) => names.get(p) ?? word(p));
    out.push({ path, label: shown.join(" "), from: a, to: b });
  };
  for (const column of Object.keys(became)) {
    if (column === "measure" || column === "placements") continue;
    walk(was[column], became[column], [column]);
  }
  return out;
}

/** An object that is one decision, in short: a sheet by its boards and its size, boards of another product by their number. */
function objectText(value: Row, names: ReadonlyMap<string, string>): string {
  const { places, widthMm, heightMm, board, boards } = value;
  if (typeof board === "string") return `${boards} of ${names.get(board) ?? "a board that is gone"}`;
  return Array.isArray(places) ? `of ${places.length}, ${widthMm} × ${heightMm} mm` : "…";
}

/** A value as a person reads it. */
export function valueText(value: Json | undefined, names: ReadonlyMap<string, string> = new Map()): string {
  if (value === undefined || value === null || value === "") return "nothing";
  if (typeof value === "boolean") return value ? "yes" : "no";
  if (Array.isArray(value))
    return value.length === 0
      ? "nothing"
      : value.map((v) => valueText(v, names)).join(typeof value[0] === "object" ? ", " : " ");
  if (typeof value === "object") return objectText(value as Row, names);
  const text = names.get(String(value)) ?? String(value);
  return text.length > 60 ? `${text.slice(0, 57)}…` : text;
}

function updated(row: ChangedRow, names: ReadonlyMap<string, string>): string {
  const told = fieldsOf(row.was ?? {}, row.became ?? {}, names).map((f) => {
    const last = f.path.at(-1)!;
    if (row.table === "bom_line" && last === "dnp") return f.to === true ? "do not place" : "placed";
    if (row.table === "bom_line" && last === "mount") return MOUNT[String(f.to)] ?? String(f.to);
    if (f.path.includes("accepted"))
      return f.to === undefined ? "acceptance taken back" : `accepted: ${valueText(f.to)}`;
    if (row.table === "run" && last === "state") return "released";
    if (row.table === "run" && last === "asked_at") return "suppliers asked";
    if (row.table === "board" && !["name", "per_product"].includes(f.path[0]!))
      return "corrected how its files are read";
    if (f.path[1] === "pins")
      return `${names.get(last) ?? "a line"} bought ${f.to === undefined ? "where it is cheapest" : `from ${valueText(f.to, names)}`}`;
    if (f.path[0] === "options") {
      const said = (v: Json | undefined) => valueText(v).replaceAll("-", " ");
      return f.from === undefined ? `${f.label} ${said(f.to)}` : `${f.label} ${said(f.from)} → ${said(f.to)}`;
    }
    return f.from === undefined
      ? `${f.label} ${valueText(f.to, names)}`
      : `${f.label} ${valueText(f.from, names)} → ${valueText(f.to, names)}`;
  });
  const unique = [...new Set(told)];
  const text =
    unique.length > 3 ? `${unique.slice(0, 3).join(", ")} and ${unique.length - 3} more` : unique.join(", ");
  const prefix = row.table === "fork" || row.table === "workshop" || !row.name ? "" : `${row.name}: `;
  return text === "" ? "" : `${prefix}${text}`;
}

/** One sentence for a change, from the rows it touched: "R7: quantity 2 → 3". */
export function sentenceOf(
  rows: readonly ChangedRow[],
  names: ReadonlyMap<string, string> = new Map(),
): string {
  const main = TOLD_FIRST.find((t) => tableFact(t).noun && rows.some((r) => r.table === t));
  if (!main) return rows.length === 0 ? "" : "changed how files are remembered";
  if (main === "release")
    return rows.some((r) => r.table === "release" && r.op === "insert")
      ? "released and packed"
      : "release removed";
  const of = rows.filter((r) => r.table === main);
  const [added, removed] = [of.filter((r) => r.op === "insert"), of.filter((r) => r.op === "delete")];
  const noun = tableFact(main).noun!;
  const counted = (list: readonly ChangedRow[]) =>
    list.length === 1 ? `${noun[0]}${list[0]!.name ? ` ${list[0]!.name}` : ""}` : `${list.length} ${noun[1]}`;
  if (added.length > 0 && removed.length > 0) return `${counted(added)} in place of ${removed.length}`;
  if (added.length > 0) {
    const lines =
      main === "bom_line" ? 0 : rows.filter((r) => r.table === "bom_line" && r.op === "insert").length;
    return `${counted(added)} added${lines > 0 ? ` with ${lines} ${lines === 1 ? "line" : "lines"} of parts` : ""}`;
  }
  if (removed.length > 0) return `${counted(removed)} removed`;
  const texts = [...new Set(of.map((r) => updated(r, names)).filter((t) => t !== ""))];
  return texts.length > 2 ? `${texts[0]} and ${texts.length - 1} more` : texts.join("; ");
}
