import { type Edge, edgesFrom, leastRing, reaches } from "./graph.ts";
import type { OddWay } from "./odd.ts";
import { RULES, type RuleKey, type Side, type StepKind, type Work, type WorkPart } from "./step.ts";

/** The smallest piece of work: one part to be fitted, or a step that is of a whole board or of all. */
export interface Atom {
  readonly kind: StepKind;
  readonly board?: number;
  readonly side?: Side;
  readonly part?: WorkPart;
  /** Its part is soldered unlike the others, in a step of its own. */
  readonly odd?: OddWay;
  /** Order where nothing else decides: the lesser first. */
  readonly phase: number;
}

/** Pieces of work and what comes after what. */
export interface Web {
  readonly atoms: readonly Atom[];
  readonly edges: readonly Edge[];
  /** Rings that had to be broken, each with the edge that gave way. */
  readonly broken: readonly { readonly ring: readonly Edge[]; readonly gaveWay: Edge }[];
}

const PHASE: Readonly<Record<StepKind, number>> = {
  kit: 0,
  "program-before": 1,
  print: 10,
  place: 11,
  heat: 13,
  turn: 14,
  iron: 1000,
  trim: 1001,
  clean: 1002,
  depanel: 1003,
  mechanical: 1004,
  inspect: 1005,
  program: 1006,
  test: 1007,
  seal: 1008,
};

/** Collects atoms and edges; edges that are only a habit are kept apart. */
class Builder {
  readonly atoms: Atom[] = [];
  readonly edges: Edge[] = [];
  readonly habits: Edge[] = [];
  add(atom: Omit<Atom, "phase">, beside = 0): number {
    return this.atoms.push({ ...atom, phase: PHASE[atom.kind] + beside }) - 1;
  }
  rule(rule: RuleKey, from: number | undefined, to: number | undefined): void {
    if (from !== undefined && to !== undefined && from !== to) this.edges.push({ from, to, rule });
  }
  habit(from: number | undefined, to: number | undefined): void {
    if (from !== undefined && to !== undefined) this.habits.push({ from, to, rule: "process" });
  }
}

/** Sides of a board on which paste is, the one that is soldered first in front. */
export const pastedSides = (work: Work, board: number, first: Side): Side[] => {
  const has = (side: Side) =>
    work.parts.some((p) => p.board === board && p.how === "paste" && p.side === side);
  const other: Side = first === "top" ? "bottom" : "top";
  return [first, other].filter(has);
};

/**
 * Pieces of work with the rules between them, free of rings: where rules cannot all hold the least of a least ring gives
 * way, again and again. Habits (look before power, iron before looking) are added last and only where they do no harm.
 *
 * @param first which side of a board is soldered first
 */
export function webOf(work: Work, first: (board: number) => Side): Web {
  const b = new Builder();
  const fitted = new Map<WorkPart, number>();
  const kit = b.add({ kind: "kit" });
  const before = work.programLoose.length > 0 ? b.add({ kind: "program-before" }) : undefined;
  b.rule("process", kit, before);
  const lastHeats = work.boards.flatMap((_, board) => pasted(b, work, board, first(board), kit, fitted));
  for (const p of work.parts)
    if (p.how !== "paste")
      // what is soldered unlike the others comes after them: its step is its own
      fitted.set(
        p,
        b.add(
          { kind: p.how, ...(p.how === "iron" ? { board: p.board } : {}), part: p, ...oddOf(p) },
          p.odd ? 0.5 : 0,
        ),
      );
  const { minutes } = work;
  const gate = (kind: StepKind, is: boolean) => (is ? b.add({ kind }) : undefined);
  const all = {
    clean: gate("clean", minutes.clean !== undefined),
    depanel: gate("depanel", minutes.depanel !== undefined),
    inspect: gate("inspect", minutes.inspect !== undefined),
    program: gate("program", work.programAt.length > 0),
    test: gate("test", minutes.test !== undefined),
    seal: gate("seal", minutes.seal !== undefined),
  };
  const later = [
    ...[...fitted].flatMap(([p, i]) => (p.how === "paste" ? [] : [i])),
    ...Object.values(all).flatMap((i) => i ?? []),
  ];
  for (const i of later) {
    b.rule("process", kit, i);
    for (const h of lastHeats) b.rule("iron-last", h, i);
  }
  rulesOfParts(b, work, fitted, all, before);
  habits(b, fitted, all);
  return settled(b);
}

/** Print, place and melt each side of a board, and turn it between; where it ends. */
function pasted(
  b: Builder,
  work: Work,
  board: number,
  first: Side,
  kit: number,
  fitted: Map<WorkPart, number>,
): number[] {
  let last: number | undefined;
  pastedSides(work, board, first).forEach((side, k) => {
    const beside = 10 * (2 * board + k);
    const turn = last === undefined ? undefined : b.add({ kind: "turn", board }, beside - 10);
    b.rule("process", last, turn);
    const print = b.add({ kind: "print", board, side }, beside);
    b.rule("process", turn ?? kit, print);
    const heat = b.add({ kind: "heat", board, side }, beside);
    const here = work.parts.filter((p) => p.board === board && p.how === "paste" && p.side === side);
    const dry = moistLast(here);
    for (const p of here) {
      // what is opened last is one pass, whatever is odd among it
      const isLast = dry.has(p);
      const i = b.add(
        { kind: "place", board, side, part: p, ...(isLast ? {} : oddOf(p)) },
        beside + (isLast ? 1 : p.odd ? 0.5 : 0),
      );
      fitted.set(p, i);
      b.rule("process", print, i);
      b.rule("process", i, heat);
    }
    if (dry.size > 0)
      for (const p of here)
        if (!dry.has(p)) for (const q of dry) b.rule("moist-last", fitted.get(p), fitted.get(q));
    b.rule("process", print, heat);
    last = heat;
  });
  return last === undefined ? [] : [last];
}

const oddOf = (p: WorkPart): Pick<Atom, "odd"> => (p.odd ? { odd: p.odd } : {});

/** Parts of a side that are opened last, with what covers them there: that has to come after them. */
export function moistLast(here: readonly WorkPart[]): Set<WorkPart> {
  const out = new Set(here.filter((p) => p.isMoist));
  if (out.size === 0) return out;
  for (let grew = true; grew; ) {
    grew = false;
    for (const p of here)
      if (!out.has(p) && here.some((q) => out.has(q) && q !== p && p.covers.includes(q.ref))) {
        out.add(p);
        grew = true;
      }
  }
  return out;
}

type Gates = Readonly<
  Record<"clean" | "depanel" | "inspect" | "program" | "test" | "seal", number | undefined>
>;

/** Whether a place that is named for programming or testing is on this part: by its name, or by the reference alone. */
export const isAt = (p: Pick<WorkPart, "name" | "ref">, at: string): boolean => at === p.ref || at === p.name;

function rulesOfParts(
  b: Builder,
  work: Work,
  fitted: ReadonlyMap<WorkPart, number>,
  all: Gates,
  before: number | undefined,
): void {
  const byRef = new Map([...fitted].map(([p, i]) => [`${p.board} ${p.ref}`, i]));
  const opens = [
    ["program-open", all.program, work.programAt],
    ["test-open", all.test, work.testAt],
  ] as const;
  for (const [p, i] of fitted) {
    for (const ref of p.covers) {
      b.rule("reach-first", byRef.get(`${p.board} ${ref}`), i);
      for (const [rule, gate, at] of opens) if (covers(p, ref, at)) b.rule(rule, gate, i);
    }
    if (p.fitAfter === "wash") b.rule("after-wash", all.clean, i);
    if (p.fitAfter === "test") b.rule("after-test", all.test, i);
    if (p.opensOnce) {
      b.rule("opens-once", all.program, i);
      b.rule("opens-once", all.test, i);
    }
    if (work.programAt.some((at) => isAt(p, at))) b.rule("at-program", i, all.program);
    if (work.testAt.some((at) => isAt(p, at))) b.rule("at-test", i, all.test);
    if (work.programLoose.some((at) => isAt(p, at))) b.rule("program-loose", before, i);
    b.rule("process", i, all.seal);
  }
  for (const gate of ["clean", "depanel", "inspect", "program", "test"] as const)
    b.rule("process", all[gate], all.seal);
}

/** Whether what a part covers is one of the places: by the reference alone, or with the part's board named. */
const covers = (p: WorkPart, ref: string, at: readonly string[]): boolean =>
  at.includes(ref) || at.some((a) => a.startsWith(`${ref} of `) && p.name === p.ref + a.slice(ref.length));

/** What usually comes first: iron and washing before looking, looking before power, a program before the test. */
function habits(b: Builder, fitted: ReadonlyMap<WorkPart, number>, all: Gates): void {
  b.habit(all.program, all.test);
  b.habit(all.inspect, all.program);
  b.habit(all.inspect, all.test);
  b.habit(all.clean, all.inspect);
  b.habit(all.depanel, all.inspect);
  for (const [p, i] of fitted) {
    if (p.how === "paste") continue;
    b.habit(i, all.inspect);
    if (p.how === "iron") b.habit(i, all.clean);
  }
}

function settled(b: Builder): Web {
  const n = b.atoms.length;
  let edges: readonly Edge[] = b.edges;
  const broken: { ring: Edge[]; gaveWay: Edge }[] = [];
  const counts = (v: number) => (b.atoms[v]!.part ? 1 : 0);
  for (let ring = leastRing(n, edges, counts); ring; ring = leastRing(n, edges, counts)) {
    const gaveWay = weakest(ring);
    broken.push({ ring, gaveWay });
    edges = edges.filter((e) => !(e.from === gaveWay.from && e.to === gaveWay.to && e.rule === gaveWay.rule));
  }
  const kept = [...edges];
  const out = edgesFrom(n, kept);
  for (const h of b.habits)
    if (!reaches(h.to, h.from, out)) {
      kept.push(h);
      out[h.from]!.push(h);
    }
  return { atoms: b.atoms, edges: kept, broken };
}

const rankOf = (rule: RuleKey): number => {
  const r: { readonly rank?: number } = RULES[rule];
  return r.rank ?? Number.POSITIVE_INFINITY;
};

/** The edge of a ring that gives way: the least of its rules. What the process itself asks never makes a ring alone. */
function weakest(ring: readonly Edge[]): Edge {
  return ring.reduce((best, e) => (rankOf(e.rule) < rankOf(best.rule) ? e : best));
}
