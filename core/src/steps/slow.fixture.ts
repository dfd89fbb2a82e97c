import type { Step, Work, WorkPart } from "./step.ts";

/** What a list of steps breaks, read off the list alone: the rule and the references it is about. */
export interface Broken {
  readonly rule: string;
  readonly refs: readonly string[];
}

/** Every rule of `assemble/1`, held against the finished list. */
export function brokenRules(work: Work, steps: readonly Step[]): Broken[] {
  const out: Broken[] = [];
  const bad = (rule: string, ...refs: string[]) => out.push({ rule, refs });
  const fits = (s: Step) => s.kind === "place" || s.kind === "iron" || s.kind === "mechanical";
  const at = new Map<string, number>();
  for (const s of steps) {
    if (!fits(s)) continue;
    for (const ref of s.refs) {
      if (at.has(ref)) bad("once", ref);
      at.set(ref, s.n);
    }
  }
  for (const p of work.parts) if (!at.has(p.name)) bad("once", p.name);
  const kinds = (kind: Step["kind"]) => steps.filter((s) => s.kind === kind);
  const lastHeat = Math.max(0, ...kinds("heat").map((s) => s.n));
  const test = kinds("test")[0]?.n;
  const clean = kinds("clean")[0]?.n;
  const lastGate = Math.max(0, ...[...kinds("program"), ...kinds("test")].map((s) => s.n));
  for (const p of work.parts) {
    const n = at.get(p.name) ?? 0;
    const kind = steps[n - 1]?.kind;
    if (kind !== (p.how === "paste" ? "place" : p.how)) bad("how", p.name);
    if (p.how === "iron" && n < lastHeat) bad("iron-last", p.name);
    if (p.fitAfter === "wash" && !(clean !== undefined && n > clean)) bad("after-wash", p.name);
    if (p.fitAfter === "test" && test !== undefined && n < test) bad("after-test", p.name);
    if (p.opensOnce && n < lastGate) bad("opens-once", p.name);
    if (p.how === "paste") sideRules(steps, p, n, bad);
  }
  twoSides(work, steps, bad);
  const covered = new Map<string, WorkPart>();
  for (const s of steps) {
    for (const ref of s.refs) {
      const by = covered.get(ref);
      if (by && (fits(s) || s.kind === "program" || s.kind === "test")) bad("reach", ref, by.name);
    }
    if (fits(s))
      for (const p of work.parts) if (s.refs.includes(p.name)) for (const c of p.covers) covered.set(c, p);
  }
  for (const s of steps) if (s.after.some((a) => a >= s.n)) bad("after", ...s.refs);
  return out;
}

function sideRules(
  steps: readonly Step[],
  p: WorkPart,
  n: number,
  bad: (rule: string, ...refs: string[]) => void,
): void {
  const of = (kind: Step["kind"]) =>
    steps.filter((s) => s.kind === kind && s.side === p.side && s.board === p.board);
  const [print, heat] = [of("print")[0]?.n, of("heat")[0]?.n];
  if (print === undefined || heat === undefined || print > n || heat < n) bad("print-place-heat", p.name);
  if (p.isMoist && of("place").at(-1)?.n !== n) bad("moist-last", p.name);
}

function twoSides(work: Work, steps: readonly Step[], bad: (rule: string, ...refs: string[]) => void): void {
  work.boards.forEach((_, board) => {
    const heats = steps.filter((s) => s.kind === "heat" && s.board === board);
    if (heats.length < 2) return;
    const load = (p: WorkPart) =>
      p.massMg === undefined || p.wettedMm2 === undefined ? undefined : p.massMg / 1000 / p.wettedMm2;
    const of = (side: unknown) =>
      work.parts.filter(
        (p) => p.board === board && p.how === "paste" && p.side === side && load(p) !== undefined,
      );
    const [first, second] = [of(heats[0]!.side), of(heats[1]!.side)];
    for (const p of first) if (load(p)! > 0.0465) bad("falls", p.name);
    if (first.length > 0 && second.length > 0) {
      const [a, b] = [first, second].map((list) => Math.max(...list.map((p) => load(p)!)));
      if (a! > b!) bad("lighter-first", ...first.map((p) => p.name));
    }
  });
}

/**
 * Whether any order at all keeps every rule, by trying: parts, heats and gates are taken one after the other, in every way,
 * with the sides in the order given.
 */
export function canBeDone(work: Work, first: "top" | "bottom"): boolean {
  const sides = ([first, first === "top" ? "bottom" : "top"] as const).filter((side) =>
    work.parts.some((p) => p.how === "paste" && p.side === side),
  );
  const hasClean = work.minutes.clean !== undefined;
  const hasTest = work.minutes.test !== undefined;
  const hasProgram = work.programAt.length > 0;
  const events: (WorkPart | string)[] = [
    ...work.parts,
    ...sides.map((s) => `heat ${s}`),
    ...(hasClean ? ["clean"] : []),
    ...(hasProgram ? ["program"] : []),
    ...(hasTest ? ["test"] : []),
  ];
  const heated = (done: ReadonlySet<unknown>) => sides.every((s) => done.has(`heat ${s}`));
  const may = (e: WorkPart | string, done: ReadonlySet<unknown>): boolean => {
    const isOn = (ref: string) => work.parts.every((p) => p.ref !== ref || done.has(p));
    if (typeof e === "string") {
      if (e.startsWith("heat")) {
        const side = e.slice(5);
        return (
          work.parts.every((p) => p.how !== "paste" || p.side !== side || done.has(p)) &&
          (side === sides[0] || done.has(`heat ${sides[0]}`))
        );
      }
      const places = e === "program" ? work.programAt : e === "test" ? work.testAt : [];
      return heated(done) && places.every(isOn);
    }
    const waits: boolean[] = [
      e.how === "paste"
        ? !done.has(`heat ${e.side}`) && (e.side === sides[0] || done.has(`heat ${sides[0]}`))
        : heated(done),
      e.covers.every((c) => c === e.ref || isOn(c)),
      !hasProgram || !e.covers.some((c) => work.programAt.includes(c)) || done.has("program"),
      !hasTest || !e.covers.some((c) => work.testAt.includes(c)) || done.has("test"),
      e.fitAfter !== "wash" || done.has("clean"),
      e.fitAfter !== "test" || !hasTest || done.has("test"),
      !e.opensOnce || ((!hasProgram || done.has("program")) && (!hasTest || done.has("test"))),
    ];
    return waits.every((w) => w);
  };
  const tried = new Set<string>();
  const from = (done: ReadonlySet<WorkPart | string>): boolean => {
    if (done.size === events.length) return true;
    const key = events.map((e) => (done.has(e) ? "1" : "0")).join("");
    if (tried.has(key)) return false;
    tried.add(key);
    return events.some((e) => !done.has(e) && may(e, done) && from(new Set([...done, e])));
  };
  return from(new Set());
}
