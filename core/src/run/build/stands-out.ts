import type { ByKind, FaultKind, SeenFaults } from "../../assembly/fault-kinds.ts";
import { faultsByKind, faultsOf } from "../../assembly/fault-prior.ts";
import { binomialAtLeast, defectsOf } from "../../assembly/yield.ts";
import { classOf, type Interval, wilson } from "../../yield/defects.ts";
import { ofBoard, Places } from "../document/boards.ts";
import type { RunDocument } from "../document/document.ts";
import type { LinePart } from "../document/parts.ts";
import { type Defect, type RunRecord, tallyOf } from "../document/record.ts";
import type { PieceMark } from "../document/sitting.ts";

/** What faults are sorted by to find what they have in common. */
export const FACTORS = ["part", "package", "side", "person"] as const;
export type FactorKind = (typeof FACTORS)[number];

/** One value of a factor with its faults, against the share of all faults it would have if nothing were the matter with it. */
export interface Factor {
  readonly kind: FactorKind;
  readonly name: string;
  /** Faults with it, of all that were sorted. */
  readonly seen: number;
  readonly of: number;
  /** Its share of what may go wrong: by the plan's own rates of joints and parts, or by the pieces a person put on. */
  readonly share: number;
  /** How often so many or more would fall on it by chance. */
  readonly chance: number;
  /** Rarer than one in twenty, although so many values were looked at (Bonferroni). */
  readonly standsOut: boolean;
}

type Happened = Pick<RunRecord, "sittings" | "tries" | "defects">;

/** Boards of which something is known from the bench or the tests. */
export const lookedAt = ({ sittings, tries, defects }: Happened): ReadonlySet<number> =>
  new Set([
    ...(sittings ?? []).flatMap((s) => (s.unit > 0 ? [s.unit] : [])),
    ...(tries ?? []).map((t) => t.unit),
    ...(defects ?? []).map((d) => d.unit),
  ]);

/** A part that is soldered here, as it is called at the bench: R1, or R1 of Main where there are several boards. */
interface Ours {
  readonly part: LinePart;
  readonly ref: string;
}

/** Every part that is soldered here, by its name at the bench. */
const oursOf = (doc: RunDocument, parts: readonly LinePart[]): ReadonlyMap<string, Ours> =>
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
function partOf(d: Defect, ours: ReadonlyMap<string, Ours>): string | undefined {
  const [, pin, board] = /^(.*?)( of .*)?$/s.exec(d.at)!;
  const ref = pin!.split(/[. ]/)[0]!;
  const name = `${ref}${board ?? ""}`;
  if (ours.has(name)) return name;
  const so = [...ours].filter(([, o]) => o.ref === ref);
  return board === undefined && so.length === 1 ? so[0]![0] : undefined;
}

/**
 * What faults have in common (needs N136): the faults on parts soldered here, by part, package, side and person, each
 * against its share of what may go wrong, with the chance that so many would fall on it by themselves. Which faults fall on
 * whom is counted given how many there are, so that a bad batch as such makes nothing stand out.
 *
 * @returns the least likely first; nothing where fewer than two faults can be sorted
 */
export function factorsOf(doc: RunDocument, parts: readonly LinePart[], record: Happened): Factor[] {
  const ours = oursOf(doc, parts);
  const faults = (record.defects ?? []).flatMap((d): OnPart[] => {
    const name = partOf(d, ours);
    return name === undefined ? [] : [{ unit: d.unit, name }];
  });
  if (faults.length < 2) return [];
  const places = new Places(doc);
  const nameOf: Readonly<Record<Exclude<FactorKind, "person">, (o: Ours) => string>> = {
    part: ({ part: { line }, ref }) => line.valueText || line.mpn || ref,
    package: ({ part: { line } }) => line.package,
    side: ({ part: { line }, ref }) => places.of(line, ref)?.side ?? "",
  };
  const sorted = (kind: Exclude<FactorKind, "person">) => {
    const of = new Map<string, { seen: number; weight: number }>();
    const at = (o: Ours) => {
      const name = nameOf[kind](o);
      const row = of.get(name) ?? { seen: 0, weight: 0 };
      of.set(name, row);
      return row;
    };
    for (const o of ours.values()) {
      const { joints, placing } = defectsOf(o.part);
      at(o).weight += (joints + placing) / o.part.line.refs.length;
    }
    for (const { name } of faults) at(ours.get(name)!).seen++;
    return told(kind, of);
  };
  return [...sorted("part"), ...sorted("package"), ...sorted("side"), ...byPerson(faults, ours, record)].sort(
    (a, b) => a.chance - b.chance,
  );
}

/** A fault of a board, on a part by its name at the bench. */
interface OnPart {
  readonly unit: number;
  readonly name: string;
}

/** By who put the part on; how many pieces each put on is their share. What was laid out or tried is no piece. */
function byPerson(
  faults: readonly OnPart[],
  ours: ReadonlyMap<string, Ours>,
  { sittings }: Happened,
): Factor[] {
  const isOn = (mark: PieceMark | undefined) => mark === "done" || mark === "doubt";
  const of = new Map<string, { seen: number; weight: number }>();
  for (const s of sittings ?? []) {
    const done = Object.entries(s.marks).filter(([name, m]) => isOn(m) && ours.has(name)).length;
    const row = of.get(s.person) ?? { seen: 0, weight: 0 };
    row.weight += done;
    of.set(s.person, row);
  }
  for (const { unit, name } of faults) {
    const put = (sittings ?? []).filter((s) => s.unit === unit && isOn(s.marks[name]));
    // a part that several put on, or nobody wrote down, is nobody's
    if (new Set(put.map((s) => s.person)).size === 1) of.get(put[0]!.person)!.seen++;
  }
  return told("person", of);
}

function told(
  kind: FactorKind,
  of: ReadonlyMap<string, { readonly seen: number; readonly weight: number }>,
): Factor[] {
  const rows = [...of].filter(([name, r]) => name !== "" && r.weight > 0);
  const weight = rows.reduce((n, [, r]) => n + r.weight, 0);
  const total = rows.reduce((n, [, r]) => n + r.seen, 0);
  // with one value of it there is nothing to compare, and one fault has nothing in common
  if (rows.length < 2 || total < 2) return [];
  return rows
    .filter(([, r]) => r.seen > 0)
    .map(([name, r]) => {
      const share = r.weight / weight;
      const chance = binomialAtLeast(total, r.seen, share);
      return {
        kind,
        name,
        seen: r.seen,
        of: total,
        share,
        chance,
        standsOut: r.seen > 1 && chance * rows.length < 0.05,
      };
    });
}

/**
 * What was found wrong on the boards of a run that were looked at, by kind, beside as many faults as the model alone has on so
 * many; faults of bare boards, bought parts, programs and the design are of neither joints nor placing and count in no kind.
 * Where faults were written down, every board that was finished was looked at: those without any have no row.
 *
 * @returns nothing where nobody wrote anything down of a board: no fault is then not the same as none
 */
export function seenFaults(
  doc: RunDocument,
  parts: readonly LinePart[],
  record: Happened & Pick<RunRecord, "work">,
): SeenFaults | undefined {
  const { good, scrapped } = tallyOf(record.work);
  const isWritten = (record.defects ?? []).length > 0;
  const looked = Math.max(lookedAt(record).size, isWritten ? good + scrapped : 0);
  if (looked === 0) return undefined;
  const ours = oursOf(doc, parts);
  const here = parts.filter((p) => p.method !== "house");
  const kinds: Partial<Record<FaultKind, { seen: number; expected: number }>> = {};
  for (const [kind, each] of Object.entries(faultsByKind(here)) as [FaultKind, number][])
    kinds[kind] = { seen: 0, expected: looked * each };
  let unsorted = 0;
  for (const d of record.defects ?? []) {
    const what = classOf(d.code);
    if (what !== "joint" && what !== "placement") continue;
    const name = partOf(d, ours);
    const kind = name && kinds[what === "joint" ? ours.get(name)!.part.kind : "placing"];
    if (kind) kind.seen++;
    else unsorted++;
  }
  return { looked, kinds, unsorted };
}

/** How a batch goes against its plan. */
export interface AgainstPlan {
  /** Boards that were looked at, and those of them with a fault. */
  readonly looked: number;
  readonly bad: number;
  /** Share of boards with a fault, as planned. */
  readonly planned: number;
  /** How often as many or more would be bad if it went as planned, and as few or fewer of those that were tried. */
  readonly chanceWorse: number;
  readonly chanceBetter: number;
  readonly is: "worse" | "better" | "as planned";
  /** So many bad ones of those looked at would be rarer than one in a hundred: stop and look before the next. */
  readonly stopAt: number;
}

/**
 * Whether a batch goes worse than planned, told from however few boards there are by exact binomial tails; and at how many
 * bad ones one would stop (domain.md 9.7, need N136). The plan's share of boards with a fault is 1 − e^(−faults a board) of
 * what is soldered here.
 *
 * @param factors what the shop's own faults made of the model's rates when it was planned
 */
export function againstPlan(
  doc: RunDocument,
  parts: readonly LinePart[],
  record: Happened,
  factors: ByKind<number> = {},
): AgainstPlan | undefined {
  const looked = lookedAt(record).size;
  if (looked === 0) return undefined;
  const ours = oursOf(doc, parts);
  const expected = parts.reduce((n, p) => {
    return p.method === "house" ? n : n + faultsOf(p, factors);
  }, 0);
  const planned = 1 - Math.exp(-expected);
  const faulty = new Set(
    (record.defects ?? []).filter((d) => partOf(d, ours) !== undefined).map((d) => d.unit),
  );
  const bad = faulty.size;
  const chanceWorse = binomialAtLeast(looked, bad, planned);
  // a board that is half built may still go wrong: only those that were tried speak for it
  const tried = new Set((record.tries ?? []).map((t) => t.unit));
  const badOfTried = [...tried].filter((u) => faulty.has(u)).length;
  const chanceBetter = 1 - binomialAtLeast(tried.size, badOfTried + 1, planned);
  let stopAt = 1;
  while (stopAt <= looked && binomialAtLeast(looked, stopAt, planned) >= 0.01) stopAt++;
  return {
    looked,
    bad,
    planned,
    chanceWorse,
    chanceBetter,
    is: chanceWorse < 0.05 ? "worse" : chanceBetter < 0.05 ? "better" : "as planned",
    stopAt,
  };
}

/** A step's own yield: boards that left it without a fault found there. */
export interface StepYield {
  readonly step: number;
  readonly boards: number;
  readonly clean: number;
  readonly interval: Interval;
}

/**
 * Yield of each step that boards went through one by one, and the product of them (rolled yield: 0.98 · 0.95 · 0.99 =
 * 0.9217, domain.md 9.7). A fault counts at the step it was found at; one found elsewhere counts at none.
 */
export function stepYields({ sittings, defects }: Happened): {
  readonly steps: readonly StepYield[];
  readonly rolled: number | undefined;
} {
  const through = new Map<number, Set<number>>();
  for (const s of sittings ?? [])
    if (s.unit > 0 && s.isDone) through.set(s.step, (through.get(s.step) ?? new Set()).add(s.unit));
  const steps = [...through]
    .sort(([a], [b]) => a - b)
    .map(([step, units]): StepYield => {
      const bad = new Set(
        (defects ?? []).filter((d) => d.step === step && units.has(d.unit)).map((d) => d.unit),
      );
      const clean = units.size - bad.size;
      return { step, boards: units.size, clean, interval: wilson(clean, units.size) };
    });
  return {
    steps,
    rolled: steps.length === 0 ? undefined : steps.reduce((p, s) => p * (s.clean / s.boards), 1),
  };
}
