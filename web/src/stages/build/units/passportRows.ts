import type { ShopErratum, ShopReport, UnitOut } from "@kobbin/contract";
import {
  type BenchTool,
  type ByEye,
  bagCode,
  heatsOf,
  linesOfUnit,
  lineWords,
  minutesOf,
  type PlanOfRun,
  type RunDocument,
  type RunRecord,
  standsOfUnit,
  TOOLS,
  unitOfStep,
} from "@kobbin/core";
import { mustBe } from "../lines/lineModel.ts";

/** What came for a run, or lay there for it: what, from whom, when, and the bag it lies in. */
export interface CameFor {
  readonly key: string;
  readonly what: string;
  readonly from: string;
  /** Pieces; not said where it lay on the shelf. */
  readonly qty?: number;
  /** ISO date. */
  readonly on: string;
  /** Its number on the label. */
  readonly bag?: number;
  /** Its date code, as it stands on it. */
  readonly made?: string;
}

/** The bag something lies in, in words; nothing of boards. @example "B0012-K, date code 2541" */
export const bagWords = ({ bag, made }: Pick<CameFor, "bag" | "made">): string =>
  [bag === undefined ? "" : bagCode(bag), made === undefined ? "" : `date code ${made}`]
    .filter(Boolean)
    .join(", ");

/** What a passport is written down from. */
export interface PassportOf {
  readonly doc: RunDocument;
  readonly record: RunRecord;
  readonly plan: PlanOfRun;
  readonly run: string;
  readonly unit: number;
  readonly serial: string;
  /** With what was done to it: "B + 1 rework". */
  readonly revision: string;
  readonly errata: readonly ShopErratum[];
  /** What the eye says, and of which parts it doubts; nothing where nobody looks. */
  readonly eye: { readonly stand: ByEye["stand"]; readonly refs: string } | undefined;
  readonly out: UnitOut | undefined;
  readonly reports: readonly ShopReport[];
  /** Deliveries of its run that may be used, and bags of the shelf it takes from. */
  readonly came: readonly CameFor[];
}

/** First line of the file. */
const HEAD = ["section", "what", "value", "must be", "came to", "on", "by"] as const;
type Row = readonly [
  section: string,
  what: string,
  value: string,
  must: string,
  is: string,
  on: string,
  by: string,
];

/**
 * All that is known of one board as rows of a table, to be kept or given away: values as they were read, days as ISO dates.
 * Who has it, and what stays with the shop (addresses, keys), is not in it.
 */
export function passportRows(p: PassportOf): string[][] {
  const { doc, record, unit } = p;
  const rows: Row[] = [
    ["board", "number", p.serial, "", "", "", ""],
    ["board", "product", `${doc.product} ${p.revision}`, "", "", "", ""],
    ["board", "run", `${doc.name}, ${unit}`, "", "", "", ""],
  ];
  for (const { item, tries } of standsOfUnit(doc.assembly.tests ?? [], record.tries ?? [], unit))
    for (const t of tries)
      rows.push([
        "read",
        item.name,
        t.value === undefined ? "" : `${t.bound ?? ""}${t.value} ${t.limits.unit ?? ""}`.trim(),
        mustBe(item),
        t.verdict,
        t.on,
        t.person,
      ]);
  for (const l of linesOfUnit(doc.assembly.tests ?? [], record.tries ?? [], unit))
    if (l.fit)
      rows.push([
        "constants",
        l.line.of,
        lineWords(l.fit, l.line.unit, l.line.read),
        l.line.worst === undefined ? "" : `at most ${l.line.worst} ${l.line.unit} off`,
        l.stand,
        l.on ?? "",
        "",
      ]);
  if (p.eye)
    rows.push(["seen", "joints", p.eye.refs, "", p.eye.stand === "doubt" ? "in doubt" : p.eye.stand, "", ""]);
  rows.push(...loadedRows(p));
  for (const e of p.errata) {
    const done = e.reworks.find((r) => r.runId === p.run)?.units.find((u) => u.unit === unit);
    rows.push([
      "known wrong",
      e.title,
      e.workaround,
      "",
      done ? (done.isScrapped ? "given up" : "worked around") : "as it is",
      "",
      "",
    ]);
  }
  for (const d of (record.defects ?? []).filter((x) => x.unit === unit))
    rows.push(["found wrong", d.at, d.code, "", d.isMended ? "mended" : "open", d.on, d.person]);
  const heats = heatsOf(p.plan.sheet.steps, record.sittings ?? [], unit);
  for (const h of heats) rows.push(["heated", h.words, h.heater ?? "", "", "", "", ""]);
  rows.push(...stepRows(p));
  for (const c of p.came)
    rows.push(["may have", c.what, c.qty === undefined ? "" : String(c.qty), "", bagWords(c), c.on, c.from]);
  if (p.out) rows.push(["went", p.out.towards, "", "", "", p.out.on, ""]);
  for (const r of p.reports) rows.push(["owner says", r.says, r.conditions, "", r.answer, r.on, ""]);
  return [[...HEAD], ...rows.map((r) => [...r])];
}

/** What is in it, and what it was given that may leave the shop. */
function loadedRows({ doc, record, unit }: PassportOf): Row[] {
  const rows: Row[] = [];
  const wiped = (l: NonNullable<RunRecord["loads"]>[number]) =>
    (doc.assembly.images ?? []).find((i) => i.id === l.image)?.values.filter((v) => v.isWiped) ?? [];
  for (const l of (record.loads ?? []).filter((x) => x.unit === unit)) {
    rows.push([
      "loaded",
      `${l.name} at ${l.at}`,
      l.version,
      "",
      l.isRight ? "right" : "wrong",
      l.on,
      l.person,
    ]);
    const hidden = new Set(wiped(l).map((v) => v.name));
    for (const [name, value] of Object.entries(l.given))
      if (!hidden.has(name)) rows.push(["given", name, value, "", "", l.on, l.person]);
  }
  return rows;
}

/** Each step of it as far as it came. */
function stepRows({ record, plan, unit }: PassportOf): Row[] {
  const rows: Row[] = [];
  for (const s of plan.sheet.steps) {
    const sat = (record.sittings ?? []).find((x) => x.step === s.n && x.unit === unitOfStep(s.kind, unit));
    if (sat)
      rows.push([
        "step",
        `${s.n} ${s.words}${s.side ? `, ${s.side}` : ""}`,
        sat.unit === 0 ? "for all" : `${minutesOf([sat]).toFixed(1)} min`,
        "",
        sat.isDone ? "done" : "begun",
        "",
        sat.person,
      ]);
    for (const [tool, name] of Object.entries(sat?.used ?? {}))
      rows.push(["with", `${s.n} ${TOOLS[tool as BenchTool].label}`, name, "", "", "", sat!.person]);
  }
  return rows;
}
