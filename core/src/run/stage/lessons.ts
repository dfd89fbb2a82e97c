import { numberKey } from "../../bom/number.ts";
import { counted } from "../../counted.ts";
import { few } from "../../findings.ts";
import {
  type BoardLesson,
  isOnBoard,
  type Judgement,
  judgeOnBoard,
  type LearnBoard,
  type LessonVerdict,
} from "../../learn/judge-board.ts";
import type { LessonCheck, RunLesson } from "../../learn/lesson.ts";
import { type MadeBetween, type WasMade, wasMade } from "../../shelf/made-between.ts";
import { withVariant } from "../document/bill/structure.ts";
import type { RunBoard } from "../document/boards.ts";
import type { RunDocument } from "../document/document.ts";
import type { RunNeed } from "../document/run-need.ts";
import type { Worked } from "./stage.ts";

/** A lesson as it stands for a run, on one of its boards or of the run as a whole. */
export interface LessonStanding extends Judgement {
  readonly lesson: RunLesson;
  /** The board it was held against; left out where it is about what is bought or chosen. */
  readonly board?: RunBoard;
  /** Lines of the bill it is about. */
  readonly lines?: readonly string[];
}

/** What of a run is worked out beside its document. */
export interface LearnFrom extends Pick<Worked, "doc" | "goes"> {
  readonly needs: readonly Pick<RunNeed, "lines" | "shelf" | "need">[];
}

/** The worst comes first. */
export const VERDICT_ORDER: readonly LessonVerdict[] = ["broken", "ask", "not-there", "unknown", "holds"];

/** Every lesson that concerns a run, held against each of its boards, its bill and its choices; the worst first. */
export function judgeLessons(from: LearnFrom): LessonStanding[] {
  const { doc } = from;
  const lessons = doc.lessons ?? [];
  if (lessons.length === 0) return [];
  const out = lessons.flatMap((lesson): LessonStanding[] => {
    const { check } = lesson;
    if (check.kind === "asked")
      return [{ lesson, verdict: "ask", found: "It cannot be measured: somebody has to look." }];
    if (!isOnBoard(check)) return [{ lesson, ...judgeChosen(check, from) }];
    return doc.boards.map((board) => ({
      lesson,
      board,
      ...judgeOnBoard(check, {
        ...learnBoard(doc, board),
        ...(board.learned?.[lesson.id] ? { places: board.learned[lesson.id]! } : {}),
      }),
    }));
  });
  return out.sort((a, b) => VERDICT_ORDER.indexOf(a.verdict) - VERDICT_ORDER.indexOf(b.verdict));
}

/** What lessons about a board are held against: what was measured of it, how it is made, and where its own parts sit. */
export const learnBoard = (doc: RunDocument, board: RunBoard): LearnBoard => ({
  measure: board.measure,
  options: doc.options,
  sides: new Map(
    doc.placements
      .filter((p) => p.board === undefined || p.board === board.id)
      .map((p) => [p.ref, p.side] as const),
  ),
});

type Chosen = Exclude<LessonCheck, { kind: "asked" } | BoardLesson>;
/** A lot, a house or a machine by its id. */
interface Named {
  readonly id: string;
}
type Found = Judgement & { readonly lines?: readonly string[] };

function judgeChosen(c: Chosen, from: LearnFrom): Found {
  switch (c.kind) {
    case "part":
      return c.made ? judgeMade(c.mpn, c.made, from) : judgePart(c.mpn, from.doc);
    case "lot":
      return judgeLot(c, from);
    case "house":
      return judgeHouse(c, from);
    case "machine":
      return inHands(judgeMachine(c, from), c.person);
    case "program":
      return judgeProgram(c, from.doc);
  }
}

/** A part that is not to be used: by a line's own number, or as what may stand in for it. */
function judgePart(mpn: string, doc: RunDocument): Found {
  const key = numberKey(mpn);
  const lines = withVariant(doc).lines.filter((l) => !l.dnp);
  const named = lines.filter((l) => l.mpn !== "" && numberKey(l.mpn) === key);
  if (named.length > 0) {
    const refs = named.flatMap((l) => l.refs);
    return {
      verdict: "broken",
      found: `It is in the bill${refs.length > 0 ? `: ${few(refs)}` : ""}.`,
      about: refs,
      lines: named.map((l) => l.id),
    };
  }
  const ids = new Set((doc.library ?? []).filter((p) => numberKey(p.mpn) === key).map((p) => p.id));
  const instead = (doc.alternates ?? []).filter((a) => a.state === "approved" && ids.has(a.part));
  const stood = lines.filter(
    (l) => l.mpn !== "" && instead.some((a) => numberKey(a.original) === numberKey(l.mpn)),
  );
  if (stood.length > 0)
    return {
      verdict: "broken",
      found: `It may be bought in place of ${few([...new Set(stood.map((l) => l.mpn))], 5)}.`,
      lines: stood.map((l) => l.id),
    };
  const nameless = lines.filter((l) => l.mpn === "" && l.mount !== "none");
  if (nameless.length > 0)
    return {
      verdict: "unknown",
      found: `No line has its number, and ${nameless.length === 1 ? "one line has" : `${nameless.length} lines have`} none at all.`,
    };
  return { verdict: "holds", found: "No line has its number." };
}

/** A part of which only what was made in some days is doubted: by the date codes of what lies on the shelf. */
function judgeMade(mpn: string, made: MadeBetween, { doc, needs }: LearnFrom): Found {
  const used = judgePart(mpn, doc);
  if (used.verdict !== "broken") return used;
  const its = needs.filter((n) => n.lines.some((l) => used.lines?.includes(l)));
  const takes = its.flatMap((n) => n.shelf).filter((t) => numberKey(t.lot.mpn) === numberKey(mpn));
  const taken = (was: WasMade) =>
    takes.reduce((n, t) => n + (wasMade(t.lot.made, made, doc.today) === was ? t.qty : 0), 0);
  const [within, unsaid] = [taken("within"), taken("not known")];
  const bought = its.reduce((n, { need }) => n + need, 0);
  if (within > 0)
    return {
      ...used,
      found: `Of what would be taken from the shelf, ${counted(within, "piece")} ${within === 1 ? "was" : "were"} made then.`,
    };
  const open = [
    unsaid > 0 && `${counted(unsaid, "piece")} on the shelf without a date code that tells`,
    bought > 0 && `${counted(bought, "piece")} to be bought, which tell it when they come`,
  ].filter((x) => x !== false);
  if (open.length > 0)
    return { ...used, verdict: "unknown", found: `Not known of ${open.join(", and of ")}.` };
  return {
    verdict: "holds",
    found:
      takes.length > 0 ? "What is taken from the shelf was made on other days." : "Nothing of it is taken.",
  };
}

function judgeLot({ id }: Named, { doc, needs }: LearnFrom): Found {
  const takes = needs.flatMap((n) =>
    n.shelf.filter((t) => t.lot.id === id).map((t) => ({ qty: t.qty, lines: n.lines })),
  );
  const qty = takes.reduce((n, t) => n + t.qty, 0);
  if (qty > 0)
    return {
      verdict: "broken",
      found: `${qty === 1 ? "One piece" : `${qty} pieces`} of it would be taken from the shelf.`,
      lines: takes.flatMap((t) => t.lines),
    };
  const lies = doc.lots?.some((l) => l.id === id && l.qty > 0);
  return {
    verdict: "holds",
    found: lies ? "Nothing of it is taken." : "It is not among what this run finds.",
  };
}

function judgeHouse({ id }: Named, { doc, goes }: LearnFrom): Found {
  const does = [
    doc.house?.id === id && "the boards",
    goes.has("house") && doc.assembly.house === id && "the parts that are placed",
    goes.has("stencil") && doc.assembly.foilHouse === id && "the foil",
  ].filter((x) => x !== false);
  return does.length === 0
    ? { verdict: "holds", found: "Nothing is ordered there." }
    : { verdict: "broken", found: `It is chosen for ${does.join(" and ")}.` };
}

/** Who will sit at a machine is not known before it is built: somebody has to say so. */
const inHands = (j: Found, person: string | undefined): Found =>
  person === undefined || j.verdict !== "broken"
    ? j
    : { ...j, verdict: "ask", found: `${j.found} Who sits at it is not written down.` };

/** A program by its name as it is written on the cards of the run, and by its version where one is meant. */
function judgeProgram({ name, version }: Extract<Chosen, { kind: "program" }>, doc: RunDocument): Found {
  const same = (a: string, b: string) => a.trim().toLowerCase() === b.trim().toLowerCase();
  const named = (doc.assembly.images ?? []).filter((i) => same(i.name, name));
  const hit = named.filter((i) => version === "" || same(i.version, version));
  const open = named.filter((i) => i.version.trim() === "");
  if (hit.length > 0)
    return {
      verdict: "broken",
      found: `It is loaded at ${few(hit.map((i) => i.at))}.`,
      about: hit.map((i) => i.at),
    };
  if (open.length > 0)
    return { verdict: "unknown", found: `Which version of ${name} is loaded is not said.` };
  return {
    verdict: "holds",
    found:
      named.length === 0 ? "It is not loaded." : `Another is loaded: ${few(named.map((i) => i.version))}.`,
  };
}

/** A machine is used where the work asks for one of its kind and it is not out of order. */
function judgeMachine({ id }: Named, { doc, goes }: LearnFrom): Found {
  const machine = doc.equipment?.find((e) => e.id === id);
  if (!machine) return { verdict: "not-there", found: "It is no longer in the shop." };
  if (machine.state === "broken") return { verdict: "holds", found: "It is out of order." };
  const heats = machine.kind === "plate" || machine.kind === "oven" || machine.kind === "air";
  if (heats && goes.has("stencil"))
    return doc.assembly.heater === undefined
      ? { verdict: "unknown", found: "It is not said what melts the paste." }
      : doc.assembly.heater === machine.kind
        ? { verdict: "broken", found: "It melts the paste of this run." }
        : { verdict: "holds", found: "Something else melts the paste." };
  if (heats) return { verdict: "holds", found: "Nothing is pasted here." };
  if (machine.kind === "iron")
    return goes.has("iron")
      ? { verdict: "broken", found: "Parts of this run are soldered by iron." }
      : { verdict: "holds", found: "Nothing is soldered by iron." };
  return { verdict: "unknown", found: "Whether this run is made with it is not written down." };
}
