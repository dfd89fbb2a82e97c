import { counted } from "../counted.ts";
import { pastedSides, type Web, webOf } from "./atoms.ts";
import { type Edge, edgesFrom, pathBetween } from "./graph.ts";
import { onPaste, sideOf, sidesOf } from "./sides.ts";
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
  const keys = keysOf(found);
  return found.map(({ parts, ...c }) => ({ ...c, remedies: remediesOf(work, { ...c, parts }, keys) }));
}

function bareConflicts(work: Work, web: Web, first: ReadonlyMap<number, Side>): Bare[] {
  return [
    ...itself(work),
    ...falling(work, first),
    ...onPlate(work, first),
    ...besideGiven(work),
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
          text: `A hot plate heats boards that lie flat: on the second side ${work.boards.length > 1 ? `of ${work.boards[board]!.name} ` : ""}${counted(below.length, "part")} of the first ${below.length === 1 ? "is" : "are"} below.`,
          parts: below,
        };
      });

/**
 * Own paste on a board that comes from a house with parts on it: no foil lies on a side that carries parts, a plate does not
 * heat a board that stands on them, and what is too heavy for its pads falls in the second heat.
 */
const besideGiven = (work: Work): Bare[] =>
  work.boards.flatMap((b, board): Bare[] => {
    const there = work.given.filter((g) => g.board === board);
    const of = work.boards.length > 1 ? ` of ${b.name}` : "";
    return pastedSides(work, board, "top").flatMap((side): Bare[] => {
      const parts = onPaste(work, board, side);
      const refs = parts.map((p) => p.name);
      const same = there.filter((g) => g.side === side || g.isThrough);
      const below = there.filter((g) => g.side !== side || g.isThrough);
      return [
        ...(same.length > 0
          ? [
              {
                kind: "printed-over" as const,
                refs,
                text: `The ${side}${of} comes from the house with ${counted(same.length, "part")} standing out of it: no foil lies flat there, so paste for ${someOf(refs)} cannot be printed.`,
                parts,
              },
            ]
          : []),
        ...(below.length > 0 && work.heater === "plate"
          ? [
              {
                kind: "plate" as const,
                refs,
                text: `A hot plate heats boards that lie flat: ${counted(below.length, "part")} of the house ${below.length === 1 ? "is" : "are"} below while the ${side}${of} melts.`,
                parts,
              },
            ]
          : []),
        ...below.flatMap((g): Bare[] => {
          const load = loadOf(g);
          return g.isThrough || load === undefined || load <= MOST_BELOW
            ? []
            : [
                {
                  kind: "falls",
                  refs: [g.name],
                  text: `${g.name}, which the house puts on, hangs below while the ${side}${of} melts: ${grams(load)} g on each mm² of wetted area, ${MOST_BELOW} hold by a trade rule.`,
                  parts,
                },
              ];
        }),
      ];
    });
  });

const someOf = (names: readonly string[]): string =>
  names.length > 6 ? `${names.slice(0, 5).join(", ")} and ${names.length - 5} more` : names.join(", ");

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
  const web = webOf(work, (board) => first.get(board) ?? "top");
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

/**
 * Changes that free a conflict: each is made, and what is left is judged as it would be: the conflict is gone, and none has
 * come that was not there before.
 */
function remediesOf(work: Work, c: Bare, before: ReadonlySet<string>): Remedy[] {
  const mine = keyOf(c);
  return candidates(work, c).filter((r) => {
    const changed = remedied(work, r);
    const { first, web } = sidesOf(changed);
    const after = keysOf(bareConflicts(changed, web, sideOf(first)));
    return !after.has(mine) && [...after].every((k) => before.has(k));
  });
}

const keyOf = (c: Pick<Bare, "kind" | "refs">): string => `${c.kind} ${[...c.refs].sort().join(" ")}`;
const keysOf = (list: readonly Bare[]): Set<string> => new Set(list.map(keyOf));

/** The work as a remedy makes it. By hand goes a whole line of the bill. */
export function remedied(work: Work, { kind, names }: Pick<Remedy, "kind" | "names">): Work {
  switch (kind) {
    case "by-hand": {
      const lines = new Set(work.parts.filter((p) => names.includes(p.name)).map((p) => p.line));
      return {
        ...work,
        parts: work.parts.map((p) => (lines.has(p.line) && p.how === "paste" ? { ...p, how: "iron" } : p)),
      };
    }
    case "program-loose":
      return { ...work, programAt: work.programAt.filter((at) => !names.includes(at)) };
    case "test-elsewhere":
      return { ...work, testAt: work.testAt.filter((at) => !names.includes(at)) };
    case "heater":
      return { ...work, heater: "oven" };
  }
}

/** Lines by hand, with every part they have on paste; nothing where an iron does not reach one of them. */
function byHand(work: Work, lines: readonly string[]): Remedy[] {
  const of = work.parts.filter((p) => p.how === "paste" && lines.includes(p.line));
  if (of.length === 0 || of.some((p) => !p.canIron)) return [];
  const names = of.map((p) => p.name);
  const many = names.length > 6 ? `these ${names.length} parts` : names.join(", ");
  return [{ kind: "by-hand", names, words: `Solder ${many} by hand, after the heat.` }];
}

/** Whether a whole side is in conflict: with a plate, or with what a house puts on. */
const isOfSide = (work: Work, c: Bare): boolean =>
  c.kind === "plate" || c.kind === "printed-over" || work.given.some((g) => c.refs.includes(g.name));

function candidates(work: Work, c: Bare): Remedy[] {
  const lines = [...new Set(c.parts.map((p) => p.line))];
  const programmed = work.programAt.filter((at) => c.refs.includes(at));
  const tested = work.testAt.filter((at) => c.refs.includes(at));
  return [
    // a side is freed by all of its parts together, anything else by one line
    ...(isOfSide(work, c) ? byHand(work, lines) : lines.flatMap((l) => byHand(work, [l]))),
    ...(c.kind === "plate"
      ? [
          {
            kind: "heater" as const,
            names: [],
            words: "Melt the second side in an oven or with hot air.",
          },
        ]
      : []),
    ...(programmed.length > 0
      ? [
          {
            kind: "program-loose" as const,
            names: programmed,
            words: `Program before it is placed, and not at ${programmed.join(", ")}.`,
          },
        ]
      : []),
    ...(tested.length > 0
      ? [
          {
            kind: "test-elsewhere" as const,
            names: tested,
            words: `Test at another place than ${tested.join(", ")}.`,
          },
        ]
      : []),
  ];
}
