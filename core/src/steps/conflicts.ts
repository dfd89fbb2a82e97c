import { pastedSides, type Web, webOf } from "./atoms.ts";
import { type Edge, edgesFrom, pathBetween } from "./graph.ts";
import {
  type Conflict,
  loadOf,
  MOST_BELOW,
  type Remedy,
  type Side,
  WORK_WORDS,
  type Work,
  type WorkPart,
} from "./step.ts";

/** A conflict before it is known what would free it. */
type Bare = Omit<Conflict, "remedies"> & { readonly parts: readonly WorkPart[] };

/** What cannot be, each with the changes that free it: every one of those was tried. */
export function conflictsOf(work: Work, web: Web, first: ReadonlyMap<number, Side>): Conflict[] {
  const found = bareConflicts(work, web, first);
  return found.map(({ parts, ...c }) => ({ ...c, remedies: remediesOf(work, { ...c, parts }, first) }));
}

function bareConflicts(work: Work, web: Web, first: ReadonlyMap<number, Side>): Bare[] {
  return [
    ...itself(work),
    ...falling(work, first),
    ...onPlate(work, first),
    ...tooHot(work),
    ...given(work),
    ...rings(work, web),
  ];
}

const grams = (v: number): string => String(Number(v.toPrecision(3)));

/** A part that is said to hide itself. */
const itself = (work: Work): Bare[] =>
  work.parts
    .filter((p) => p.covers.includes(p.ref))
    .map((p) => ({
      kind: "itself",
      refs: [p.name],
      text: `${p.name} is said to cover itself; that is left aside.`,
      parts: [p],
    }));

/** Parts that would hang below in the second heat and are too heavy for what holds them. */
const falling = (work: Work, first: ReadonlyMap<number, Side>): Bare[] =>
  work.parts.flatMap((p): Bare[] => {
    const load = loadOf(p);
    if (p.how !== "paste" || first.get(p.board) !== p.side || load === undefined || load <= MOST_BELOW)
      return [];
    return [
      {
        kind: "falls",
        refs: [p.name],
        text: `${p.name} hangs below while the other side melts: ${grams(load)} g on each mm² of wetted area, ${MOST_BELOW} hold by a trade rule. The other side has some as heavy or heavier.`,
        parts: [p],
      },
    ];
  });

/** A hot plate under a board that has parts below. */
const onPlate = (work: Work, first: ReadonlyMap<number, Side>): Bare[] =>
  work.heater !== "plate"
    ? []
    : [...first].map(([board, side]) => {
        const below = work.parts.filter((p) => p.board === board && p.how === "paste" && p.side === side);
        return {
          kind: "plate" as const,
          refs: below.map((p) => p.name),
          text: `A hot plate heats boards that lie flat: on the second side ${work.boards.length > 1 ? `of ${work.boards[board]!.name} ` : ""}${below.length} parts of the first are below.`,
          parts: below,
        };
      });

/** Parts that do not stand the heat and cannot be soldered otherwise. */
const tooHot = (work: Work): Bare[] =>
  work.parts.flatMap((p): Bare[] =>
    p.tooHot && p.how === "paste"
      ? [
          {
            kind: "too-hot",
            refs: [p.name],
            text: `${p.name} stands ${p.tooHot.standsC} °C, the paste's heat needs ${p.tooHot.needsC} °C, and an iron does not reach its joints.`,
            parts: [p],
          },
        ]
      : [],
  );

/** What a house puts on hides a place that is needed here. */
const given = (work: Work): Bare[] =>
  work.given.flatMap((g) => {
    const hidden = [...new Set([...work.programAt, ...work.testAt])].filter((at) => g.covers.includes(at));
    const own = work.parts.filter((p) => p.board === g.board && g.covers.includes(p.ref));
    const names = [...hidden, ...own.map((p) => p.name)];
    return names.length === 0
      ? []
      : [
          {
            kind: "given-covers" as const,
            refs: [g.name, ...names],
            text: `${g.name} comes placed by the house and covers ${names.join(", ")}, where there is still work to be done.`,
            parts: [],
          },
        ];
  });

/** Rings of rules, each with what gave way. */
function rings(work: Work, web: Web): Bare[] {
  const out: Bare[] = [];
  for (const { ring, gaveWay } of web.broken) {
    const parts = [...new Set(ring.flatMap((e) => [e.from, e.to].flatMap((i) => web.atoms[i]!.part ?? [])))];
    const words = ring.flatMap((e) => edgeWords(work, web, e));
    const places = ring.flatMap((e) => placesOf(work, web, e));
    const refs = [...new Set([...parts.map((p) => p.name), ...places])];
    // several rules between the same parts are one thing to be mended
    const same = out.findIndex((c) => [...c.refs].sort().join(" ") === [...refs].sort().join(" "));
    if (same >= 0) {
      const also = words.filter((w) => !out[same]!.text.includes(w));
      if (also.length > 0) out[same] = { ...out[same]!, text: `${out[same]!.text} Nor: ${also.join("; ")}.` };
      continue;
    }
    out.push({
      kind: gaveWay.rule,
      refs,
      text: `${words.join("; ")}. That cannot all be.`,
      parts,
    });
  }
  return out;
}

/** Places that are programmed or tested and that a rule speaks of. */
function placesOf(work: Work, web: Web, e: Edge): string[] {
  const p = web.atoms[e.to]!.part;
  const at = e.rule === "program-open" ? work.programAt : e.rule === "test-open" ? work.testAt : [];
  return p ? at.filter((a) => p.covers.includes(a)) : [];
}

/** Why one comes before the other, in words. Empty for what needs none. */
function edgeWords(work: Work, web: Web, e: Edge): string[] {
  const [from, to] = [web.atoms[e.from]!, web.atoms[e.to]!];
  const name = to.part?.name ?? "";
  switch (e.rule) {
    case "reach-first":
      return [`${name} covers ${from.part!.name}, which has to be on before it`];
    case "program-open":
      return [`${name} covers ${placesOf(work, web, e).join(", ")}, where it is programmed`];
    case "test-open":
      return [`${name} covers ${placesOf(work, web, e).join(", ")}, where it is tested`];
    case "opens-once":
      return [`${name} closes what opens only once, after ${WORK_WORDS[from.kind]}`];
    case "at-program":
      return [`it is programmed at ${from.part!.name}, which has to be on`];
    case "at-test":
      return [`it is tested at ${from.part!.name}, which has to be on`];
    case "after-test":
      return [`${name} goes on after the test`];
    case "after-wash":
      return [`${name} goes on after the board is washed`];
    case "moist-last":
      return [`${name} is opened last`];
    case "program-loose":
      return [`${name} is programmed before it goes on`];
    case "iron-last":
      return to.part ? [`${name} is fitted after the heat`] : [`${WORK_WORDS[to.kind]} comes after the heat`];
    case "process":
      return to.kind === "heat" && from.part ? [`${from.part.name} goes through the heat`] : [];
  }
}

/**
 * Why a line cannot come before another: the rules that lead from one to the other, in words.
 * @returns undefined where nothing forbids it
 */
export function whyNotBefore(
  work: Work,
  first: ReadonlyMap<number, Side>,
  line: string,
  before: string,
): string | undefined {
  const web = sidesTried(work, first);
  const out = edgesFrom(web.atoms.length, web.edges);
  const of = (wanted: string) => web.atoms.flatMap((a, i) => (a.part?.line === wanted ? [i] : []));
  for (const from of of(before))
    for (const to of of(line)) {
      const path = pathBetween(from, to, out);
      if (path && path.length > 0) {
        const words = path.flatMap((e) => edgeWords(work, web, e));
        return words.length > 0 ? `${words.join("; ")}.` : undefined;
      }
    }
  return undefined;
}

/** Changes of the work that could free a conflict, each tried: it goes away and no other comes. */
function remediesOf(work: Work, c: Bare, first: ReadonlyMap<number, Side>): Remedy[] {
  const before = keysOf(bareConflicts(work, sidesTried(work, first), first));
  const mine = keyOf(c);
  return candidates(work, c)
    .filter(({ changed }) => {
      const sides = new Map([...first].filter(([board]) => pastedSides(changed, board, "top").length > 1));
      const after = keysOf(bareConflicts(changed, sidesTried(changed, sides), sides));
      return !after.has(mine) && [...after].every((k) => before.has(k));
    })
    .map(({ remedy }) => remedy);
}

const sidesTried = (work: Work, first: ReadonlyMap<number, Side>): Web =>
  webOf(work, (board) => first.get(board) ?? "top");
const keyOf = (c: Pick<Bare, "kind" | "refs">): string => `${c.kind} ${[...c.refs].sort().join(" ")}`;
const keysOf = (list: readonly Bare[]): Set<string> => new Set(list.map(keyOf));

interface Candidate {
  readonly remedy: Remedy;
  readonly changed: Work;
}

function candidates(work: Work, c: Bare): Candidate[] {
  const out: Candidate[] = [];
  for (const p of c.parts)
    if (p.how === "paste" && p.canIron && c.kind !== "plate")
      out.push({
        remedy: {
          kind: "by-hand",
          names: [p.name],
          words: `Solder ${p.name} by hand, after the heat.`,
        },
        changed: {
          ...work,
          parts: work.parts.map((x) => (x.line === p.line ? { ...x, how: "iron" as const } : x)),
        },
      });
  if (c.kind === "plate" && c.parts.every((p) => p.canIron))
    out.push({
      remedy: {
        kind: "by-hand",
        names: c.parts.map((p) => p.name),
        words: `Solder ${c.parts.length > 6 ? `the ${c.parts.length} parts of that side` : c.parts.map((p) => p.name).join(", ")} by hand, after the heat.`,
      },
      changed: {
        ...work,
        parts: work.parts.map((x) => (c.parts.includes(x) ? { ...x, how: "iron" as const } : x)),
      },
    });
  if (c.kind === "plate")
    out.push({
      remedy: { kind: "heater", names: [], words: "Melt the second side in an oven or with hot air." },
      changed: { ...work, heater: "oven" },
    });
  const programmed = work.programAt.filter((at) => c.refs.includes(at));
  if (programmed.length > 0)
    out.push({
      remedy: {
        kind: "program-loose",
        names: programmed,
        words: `Program before it is placed, and not at ${programmed.join(", ")}.`,
      },
      changed: { ...work, programAt: work.programAt.filter((at) => !programmed.includes(at)) },
    });
  const tested = work.testAt.filter((at) => c.refs.includes(at));
  if (tested.length > 0)
    out.push({
      remedy: {
        kind: "test-elsewhere",
        names: tested,
        words: `Test at another place than ${tested.join(", ")}.`,
      },
      changed: { ...work, testAt: work.testAt.filter((at) => !tested.includes(at)) },
    });
  return out;
}
