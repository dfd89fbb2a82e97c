import type { Atom, Web } from "./atoms.ts";
import { conflictsOf } from "./conflicts.ts";
import { gatesOf } from "./gates.ts";
import { edgesFrom } from "./graph.ts";
import { sayStep } from "./say.ts";
import { rankParts } from "./school.ts";
import { type SideFirst, sideOf, sidesOf } from "./sides.ts";
import type { Step, Work, WorkOrder } from "./step.ts";

/**
 * The order of work: every rule kept, or the rules that cannot all hold named with a smallest set of parts.
 *
 * Rules are of the kind "this before that", so that they can all hold exactly when they have no ring; a ring of the
 * fewest parts is a smallest set that conflicts. Within what is allowed the school decides, a line at a time. Two sides: the one whose
 * greatest mass over wetted area is the lesser is soldered first (domain.md 7.6); where that is not known of both, the one
 * that leaves fewer conflicts, then the one with fewer parts.
 *
 * O((a + e) log a) for a parts and e rules without conflicts; a search for rings, O(a · e), for each conflict.
 */
export function workOrder(work: Work): WorkOrder {
  const sides = sidesOf(work);
  const first = sideOf(sides.first);
  const steps = gatesOf(work, stepsOf(work, sides.web, sides.first));
  return { steps, conflicts: conflictsOf(work, sides.web, first), first };
}

/** Only the conflicts, for who does not need the steps. */
export function conflictsIn(work: Work): WorkOrder["conflicts"] {
  const { first, web } = sidesOf(work);
  return conflictsOf(work, web, sideOf(first));
}

/** What belongs into one step. */
const keyOf = (a: Atom): string => `${a.phase} ${a.kind} ${a.board ?? ""} ${a.side ?? ""} ${a.odd ?? ""}`;

/**
 * Pieces of work in a row, joined into steps: a step goes on as long as something of it can be done, then the least phase
 * follows.
 */
function stepsOf(work: Work, { atoms, edges }: Web, first: ReadonlyMap<number, SideFirst>): Step[] {
  const rank = rankParts(work);
  const out = edgesFrom(atoms.length, edges);
  const waits = atoms.map(() => 0);
  for (const e of edges) waits[e.to]!++;
  const open = new Map<string, number[]>();
  const free = (i: number) => {
    const key = keyOf(atoms[i]!);
    const list = open.get(key);
    if (list) list.push(i);
    else open.set(key, [i]);
  };
  waits.forEach((w, i) => {
    if (w === 0) free(i);
  });
  const rankOf = (i: number) => {
    const { part } = atoms[i]!;
    return part ? rank.get(part)! : 0;
  };
  const groups: number[][] = [];
  while (open.size > 0) {
    const key = [...open.keys()].reduce((best, k) =>
      atoms[open.get(k)![0]!]!.phase < atoms[open.get(best)![0]!]!.phase ? k : best,
    );
    const group: number[] = [];
    for (let list = open.get(key)!; list.length > 0; ) {
      const i = list.reduce((best, j) => (rankOf(j) < rankOf(best) ? j : best));
      list.splice(list.indexOf(i), 1);
      group.push(i);
      for (const e of out[i]!) if (--waits[e.to]! === 0) free(e.to);
      list = open.get(key)!;
    }
    open.delete(key);
    groups.push(group);
  }
  return toSteps(work, { atoms, edges, broken: [] }, withTrim(atoms, groups), first);
}

/** Groups with a place for cutting leads after the first solder by iron of each board that has any. */
function withTrim(
  atoms: readonly Atom[],
  groups: readonly (readonly number[])[],
): { readonly atoms: readonly number[]; readonly isTrim?: true }[] {
  const done = new Set<number>();
  return groups.flatMap((g) => {
    const a = atoms[g[0]!]!;
    const trims = a.kind === "iron" && !done.has(a.board!) && g.some((i) => atoms[i]!.part!.trimMinutes > 0);
    if (!trims) return [{ atoms: g }];
    done.add(a.board!);
    return [{ atoms: g }, { atoms: g, isTrim: true as const }];
  });
}

function toSteps(
  work: Work,
  web: Web,
  groups: readonly { readonly atoms: readonly number[]; readonly isTrim?: true }[],
  first: ReadonlyMap<number, SideFirst>,
): Step[] {
  const stepAt = new Map<number, number>();
  groups.forEach((g, n) => {
    if (!g.isTrim) for (const i of g.atoms) stepAt.set(i, n + 1);
  });
  const before = groups.map(() => new Set<number>());
  for (const e of web.edges) {
    const [from, to] = [stepAt.get(e.from)!, stepAt.get(e.to)!];
    if (from !== to) before[to - 1]!.add(from);
  }
  groups.forEach((g, n) => {
    if (g.isTrim) {
      before[n]!.add(n);
      for (let k = n + 1; k < groups.length; k++) if (before[k]!.has(n)) before[k]!.add(n + 1);
    }
  });
  const ironed = new Set<number>();
  const printed = new Set<number>();
  return directlyBefore(before).map((after, n) => {
    const g = groups[n]!;
    const a = web.atoms[g.atoms[0]!]!;
    const parts = g.isTrim ? [] : g.atoms.flatMap((i) => web.atoms[i]!.part ?? []);
    const kind = g.isTrim ? "trim" : a.kind;
    const trimmed = groups[n + 1]?.isTrim === true;
    const isFirstIron = kind === "iron" && !ironed.has(a.board!);
    if (isFirstIron) ironed.add(a.board!);
    const isFirstPrint = kind === "print" && !printed.has(a.board!);
    if (isFirstPrint) printed.add(a.board!);
    const lines = [...new Set(parts.map((p) => p.line))].map((line) => ({
      line,
      refs: parts.filter((p) => p.line === line).map((p) => p.name),
    }));
    const step: Step = {
      n: n + 1,
      kind,
      ...(a.board === undefined ? {} : { board: a.board }),
      ...(a.side === undefined ? {} : { side: a.side }),
      ...(a.odd && !g.isTrim ? { odd: a.odd } : {}),
      refs:
        kind === "program"
          ? work.programAt
          : kind === "test"
            ? work.testAt
            : kind === "program-before"
              ? work.programLoose
              : parts.map((p) => p.name),
      lines: kind === "seal" ? work.loose.map((line) => ({ line, refs: [] })) : lines,
      minutes: minutesOf(work, kind, a, g.isTrim ? g.atoms.map((i) => web.atoms[i]!.part!) : parts, {
        trimmed,
        isFirstIron,
      }),
      after,
      covers: [...new Set(parts.flatMap((p) => p.covers.map((ref) => named(work, p.board, ref))))],
      because: [],
    };
    return {
      ...step,
      because: sayStep(work, step, parts, isFirstPrint ? (first.get(a.board!)?.because ?? []) : []),
    };
  });
}

/** What a hidden place is called: as the part on it, where one is there. */
const named = (work: Work, board: number, ref: string): string =>
  work.parts.find((p) => p.board === board && p.ref === ref)?.name ??
  work.given.find((p) => p.board === board && p.ref === ref)?.name ??
  (work.boards.length > 1 ? `${ref} of ${work.boards[board]!.name}` : ref);

function minutesOf(
  work: Work,
  kind: Step["kind"],
  a: Atom,
  parts: readonly { readonly minutes: number; readonly trimMinutes: number }[],
  { trimmed, isFirstIron }: { readonly trimmed: boolean; readonly isFirstIron: boolean },
): number {
  const board = a.board === undefined ? undefined : work.boards[a.board];
  const all = parts.reduce((n, p) => n + p.minutes, 0);
  const cut = parts.reduce((n, p) => n + p.trimMinutes, 0);
  switch (kind) {
    case "print":
      return board!.printMinutes;
    case "heat":
      return board!.heatMinutes;
    case "trim":
      return cut;
    case "iron":
      return all - (trimmed ? cut : 0) + (isFirstIron ? board!.ironMinutes : 0);
    case "place":
    case "mechanical":
      return all;
    case "kit":
    case "clean":
    case "depanel":
    case "inspect":
    case "test":
    case "seal":
      return work.minutes[kind] ?? 0;
    case "program-before":
    case "turn":
    case "program":
      return 0;
  }
}

/** Of the steps before each, those that no other of them comes after. */
function directlyBefore(before: readonly ReadonlySet<number>[]): number[][] {
  const ancestors: Set<number>[] = [];
  return before.map((list, n) => {
    const all = new Set<number>();
    for (const b of list) {
      all.add(b);
      for (const x of ancestors[b - 1]!) all.add(x);
    }
    ancestors[n] = all;
    return [...list].filter((b) => ![...list].some((c) => ancestors[c - 1]!.has(b))).sort((x, y) => x - y);
  });
}
