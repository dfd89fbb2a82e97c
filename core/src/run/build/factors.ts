import { binomialAtLeast, defectsOf } from "../../assembly/yield.ts";
import { addTo } from "../../grouped.ts";
import { classOf } from "../../yield/defects.ts";
import { ofBoard, Places } from "../document/boards.ts";
import type { RunDocument } from "../document/document.ts";
import type { LinePart } from "../document/parts.ts";
import { type Defect, type RunRecord, tallyOf } from "../document/record.ts";
import { BENCH_TOOLS, type BenchTool, type PieceMark } from "../document/sitting.ts";

/** What faults are sorted by to find what they have in common. */
export const FACTORS = ["part", "package", "side", "person", ...BENCH_TOOLS, "house", "lot"] as const;
export type FactorKind = (typeof FACTORS)[number];

/** One value of a factor with its faults, and how much of it there was: what share of the faults it would have by that. */
export interface FactorRow {
  readonly kind: FactorKind;
  readonly name: string;
  /** Held against its like alone: a lot against other lots of the same part. */
  readonly among?: string;
  readonly seen: number;
  readonly weight: number;
}

/** One value of a factor with its faults, against the share of all faults it would have if nothing were the matter with it. */
export interface Factor {
  readonly kind: FactorKind;
  readonly name: string;
  readonly among?: string;
  /** Faults with it, of all that were sorted. */
  readonly seen: number;
  readonly of: number;
  /** Its share of what may go wrong: by the plan's own rates of joints and parts, by pieces or by boards. */
  readonly share: number;
  /** How often so many or more would fall on it by chance. */
  readonly chance: number;
  /** Rarer than one in twenty, although so many values were looked at (Bonferroni). */
  readonly standsOut: boolean;
}

export type Happened = Pick<RunRecord, "sittings" | "tries" | "defects">;

/** Boards of which something is known from the bench or the tests. */
export const lookedAt = ({ sittings, tries, defects }: Happened): ReadonlySet<number> =>
  new Set([
    ...(sittings ?? []).flatMap((s) => (s.unit > 0 ? [s.unit] : [])),
    ...(tries ?? []).map((t) => t.unit),
    ...(defects ?? []).map((d) => d.unit),
  ]);

/**
 * Boards whose faults would be known: those of which something is written down, and where any fault is, every board that was
 * finished. Nothing written down is not the same as no fault.
 */
export function boardsLooked(record: Happened & Pick<RunRecord, "work">): number {
  const { good, scrapped } = tallyOf(record.work);
  const isWritten = (record.defects ?? []).length > 0;
  return Math.max(lookedAt(record).size, isWritten ? good + scrapped : 0);
}

/** A part that is soldered here, as it is called at the bench: R1, or R1 of Main where there are several boards. */
export interface Ours {
  readonly part: LinePart;
  readonly ref: string;
}

/** Every part that is soldered here, by its name at the bench. */
export const oursOf = (doc: RunDocument, parts: readonly LinePart[]): ReadonlyMap<string, Ours> =>
  new Map(
    parts
      .filter((p) => p.method !== "house")
      .flatMap((part) =>
        part.line.refs.map((ref) => [`${ref}${ofBoard(doc, part.line)}`, { part, ref }] as const),
      ),
  );

/**
 * The part a fault is on, by its name at the bench: of "U1.4 of Main" U1 of Main. Where no board is said it is the only
 * part of that reference; nothing where there are several, or none that is soldered here.
 */
export function partOf(d: Defect, ours: ReadonlyMap<string, Ours>): string | undefined {
  const [, pin, board] = /^(.*?)( of .*)?$/s.exec(d.at)!;
  const ref = pin!.split(/[. ]/)[0]!;
  const name = `${ref}${board ?? ""}`;
  if (ours.has(name)) return name;
  const so = [...ours].filter(([, o]) => o.ref === ref);
  return board === undefined && so.length === 1 ? so[0]![0] : undefined;
}

/**
 * What faults have in common (needs N136): the faults on parts soldered here, by part, package, side, by who put them on and
 * by what they were soldered with, each against its share of what may go wrong, with the chance that so many would fall on
 * it by themselves. Which faults fall on whom is counted given how many there are, so that a bad batch as such makes nothing
 * stand out.
 *
 * @returns the least likely first; nothing where fewer than two faults can be sorted
 */
export const factorsOf = (doc: RunDocument, parts: readonly LinePart[], record: Happened): Factor[] =>
  weighed(factorRows(doc, parts, record, lookedAt(record).size));

/** The faults of a run by what they have in common, not held against chance yet: rows of several runs may be laid together. */
function factorRows(
  doc: RunDocument,
  parts: readonly LinePart[],
  record: Happened,
  boards: number,
): FactorRow[] {
  const ours = oursOf(doc, parts);
  const faults = (record.defects ?? []).flatMap((d): OnPart[] => {
    const name = partOf(d, ours);
    return name === undefined ? [] : [{ unit: d.unit, name }];
  });
  const places = new Places(doc);
  const nameOf: Readonly<Record<"part" | "package" | "side", (o: Ours) => string>> = {
    part: ({ part: { line }, ref }) => line.valueText || line.mpn || ref,
    package: ({ part: { line } }) => line.package,
    side: ({ part: { line }, ref }) => places.of(line, ref)?.side ?? "",
  };
  return [
    ...(["part", "package", "side"] as const).flatMap((kind) => [
      ...[...ours.values()].map((o) => ({
        kind,
        name: nameOf[kind](o),
        seen: 0,
        weight: boards * mayGoWrong(o),
      })),
      ...faults.map((f) => ({ kind, name: nameOf[kind](ours.get(f.name)!), seen: 1, weight: 0 })),
    ]),
    ...byPerson(faults, ours, record),
    ...BENCH_TOOLS.flatMap((tool) => byTool(tool, faults, ours, record)),
  ];
}

/** Faults to be expected of one part on one board, by the model's rates of joints and of placing. */
function mayGoWrong({ part }: Ours): number {
  const { joints, placing } = defectsOf(part);
  return (joints + placing) / part.line.refs.length;
}

/** A fault of a board, on a part by its name at the bench. */
interface OnPart {
  readonly unit: number;
  readonly name: string;
}

/** By who put the part on; how many pieces each put on are their share. What was laid out or tried is no piece. */
function byPerson(
  faults: readonly OnPart[],
  ours: ReadonlyMap<string, Ours>,
  { sittings }: Happened,
): FactorRow[] {
  const isOn = (mark: PieceMark | undefined) => mark === "done" || mark === "doubt";
  return [
    ...(sittings ?? []).map((s) => ({
      kind: "person" as const,
      name: s.person,
      seen: 0,
      weight: Object.entries(s.marks).filter(([name, m]) => isOn(m) && ours.has(name)).length,
    })),
    ...faults.flatMap(({ unit, name }): FactorRow[] => {
      const put = new Set(
        (sittings ?? []).filter((s) => s.unit === unit && isOn(s.marks[name])).map((s) => s.person),
      );
      // a part that several put on, or nobody wrote down, is nobody's
      return put.size === 1 ? [{ kind: "person", name: [...put][0]!, seen: 1, weight: 0 }] : [];
    }),
  ];
}

/** What is soldered by which tool. */
const SOLDERS: Readonly<Record<BenchTool, LinePart["method"]>> = {
  heater: "stencil",
  paste: "stencil",
  iron: "iron",
  wire: "iron",
};

/**
 * By what boards were soldered with: the faults on parts soldered that way, against the boards that went through it. A board
 * of which two were used, or nobody wrote down which, is of none.
 */
function byTool(
  tool: BenchTool,
  faults: readonly OnPart[],
  ours: ReadonlyMap<string, Ours>,
  { sittings }: Happened,
): FactorRow[] {
  const used = new Map<number, Set<string>>();
  for (const s of sittings ?? []) {
    const name = s.used?.[tool];
    if (s.unit > 0 && name) used.set(s.unit, (used.get(s.unit) ?? new Set()).add(name));
  }
  const each = [...ours.values()]
    .filter((o) => o.part.method === SOLDERS[tool])
    .reduce((n, o) => n + mayGoWrong(o), 0);
  return [...used].flatMap(([unit, names]): FactorRow[] => {
    const [name] = names;
    if (name === undefined || names.size > 1) return [];
    const seen = faults.filter(
      (f) => f.unit === unit && ours.get(f.name)!.part.method === SOLDERS[tool],
    ).length;
    return [{ kind: tool, name, seen, weight: each }];
  });
}

/**
 * What a closed run adds to what faults of many runs have in common: its rows, who made its bare boards, and of each part
 * that came from one lot alone that lot. Of a part that two lots fed nobody knows which board has which: it says nothing.
 *
 * @param lots of each purchase, as far as the run counted on them or was sent them
 */
export function factorsAtClosing(
  doc: RunDocument,
  parts: readonly LinePart[],
  record: Happened & Pick<RunRecord, "work">,
  lots: readonly { readonly lines: readonly string[]; readonly lots: readonly string[] }[],
): FactorRow[] {
  const boards = boardsLooked(record);
  if (boards === 0) return [];
  const bad = (record.defects ?? []).filter((d) => classOf(d.code) === "board").length;
  const ours = oursOf(doc, parts);
  const faultyLines = (record.defects ?? []).flatMap((d) => {
    const name = partOf(d, ours);
    return name === undefined ? [] : [ours.get(name)!.part.line.id];
  });
  const numberOf = (lines: readonly string[]) => {
    const line = doc.lines.find((l) => lines.includes(l.id));
    return line?.mpn || line?.valueText || "";
  };
  const piecesOf = (lines: readonly string[]) =>
    [...ours.values()].filter((o) => lines.includes(o.part.line.id)).length;
  return [
    ...together(factorRows(doc, parts, record, boards)),
    ...(doc.house ? [{ kind: "house" as const, name: doc.house.name, seen: bad, weight: boards }] : []),
    ...lots.flatMap(({ lines, lots: of }): FactorRow[] => {
      const [only, ...others] = new Set(of);
      const pieces = boards * piecesOf(lines);
      return only === undefined || others.length > 0 || pieces === 0
        ? []
        : [
            {
              kind: "lot",
              name: only,
              among: numberOf(lines),
              seen: faultyLines.filter((l) => lines.includes(l)).length,
              weight: pieces,
            },
          ];
    }),
  ];
}

const keyOf = (r: Pick<FactorRow, "kind" | "among" | "name">) => `${r.kind}\n${r.among ?? ""}\n${r.name}`;

/** Rows of the same value laid together; what has no name, or was nowhere, is left out. */
function together(rows: readonly FactorRow[]): FactorRow[] {
  const of = new Map<string, FactorRow>();
  for (const r of rows) {
    const was = of.get(keyOf(r));
    of.set(keyOf(r), { ...r, seen: r.seen + (was?.seen ?? 0), weight: r.weight + (was?.weight ?? 0) });
  }
  return [...of.values()].filter((r) => r.name !== "" && r.weight > 0);
}

/**
 * Rows of one run or of many, each held against its like: the chance that so many of all faults fall on a value whose share is
 * its weight, by the exact binomial tail.
 *
 * @returns values with faults, the least likely first; nothing of a kind with one value or fewer than two faults: there is
 * nothing to compare then
 */
export function weighed(rows: readonly FactorRow[]): Factor[] {
  const groups = new Map<string, FactorRow[]>();
  for (const r of together(rows)) addTo(groups, `${r.kind}\n${r.among ?? ""}`, r);
  return [...groups.values()]
    .flatMap((like): Factor[] => {
      const weight = like.reduce((n, r) => n + r.weight, 0);
      const total = like.reduce((n, r) => n + r.seen, 0);
      if (like.length < 2 || total < 2) return [];
      return like
        .filter((r) => r.seen > 0)
        .map(({ kind, name, among, seen, weight: own }) => {
          const share = own / weight;
          const chance = binomialAtLeast(total, seen, share);
          return {
            kind,
            name,
            ...(among === undefined ? {} : { among }),
            seen,
            of: total,
            share,
            chance,
            standsOut: seen > 1 && chance * like.length < 0.05,
          };
        });
    })
    .sort((a, b) => a.chance - b.chance);
}
