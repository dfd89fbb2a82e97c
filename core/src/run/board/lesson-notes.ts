import type { LessonVerdict } from "../../learn/judge-board.ts";
import type { LessonKind } from "../../learn/lesson.ts";
import { lessonWords } from "../../learn/lesson.ts";
import { capital, sentence } from "../../words.ts";
import { aboutBoard, boardMark } from "../document/boards.ts";
import type { RunDocument } from "../document/document.ts";
import type { Add, Note, StageKey } from "../document/note.ts";
import { judgeLessons, type LearnFrom, type LessonStanding } from "../stage/lessons.ts";

/** The stage at which something can be done about it. */
const STAGE_OF: Readonly<Record<LessonKind, StageKey>> = {
  measure: "board",
  slot: "board",
  place: "board",
  marked: "board",
  pattern: "board",
  contacts: "board",
  asked: "board",
  part: "parts",
  lot: "source",
  house: "fab",
  machine: "assemble",
  program: "assemble",
};

const SURE = { certain: "", likely: "Likely, not certain. ", suspected: "Suspected. " } as const;

/** What was learned and where from, before what is found now. */
function learned({ lesson: l }: LessonStanding): string {
  return `Learned${l.came === "" ? "" : ` from ${l.came}`} (${l.since}): ${capital(sentence(l.title))} ${SURE[l.sure]}`;
}

/** Whether something is left to do: a rule for every design says nothing of a board that has none of what it is about. */
const isOpen = ({ lesson: l, verdict }: LessonStanding): boolean =>
  verdict !== "holds" &&
  l.relaxedBecause === undefined &&
  (verdict !== "not-there" || l.check.kind === "slot" || l.check.kind === "place");

const keyOf = (doc: RunDocument, { lesson, board, verdict }: LessonStanding): string =>
  `learned ${lesson.id}${boardMark(doc, board?.id)} ${verdict}`;

/** A lesson that is open in a run. */
export interface OpenLesson {
  readonly is: Exclude<LessonVerdict, "holds">;
  readonly found: string;
  /** Why somebody accepted it. */
  readonly because?: string;
}

/** Lessons that are open in a run, by their ids: each as it stands worst, what nobody has accepted first. */
export function openLessons(
  doc: RunDocument,
  standings: readonly LessonStanding[],
  notes: readonly Pick<Note, "key" | "acceptedBecause">[],
): Record<string, OpenLesson> {
  const reasons = new Map(notes.map((n) => [n.key, n.acceptedBecause]));
  const out: Record<string, OpenLesson> = {};
  for (const s of standings) {
    const because = reasons.get(keyOf(doc, s));
    const was = out[s.lesson.id];
    if (s.verdict === "holds" || !isOpen(s) || (was && (was.because === undefined || because !== undefined)))
      continue;
    out[s.lesson.id] = { is: s.verdict, found: s.found, ...(because === undefined ? {} : { because }) };
  }
  return out;
}

/**
 * What of the shop's lessons does not hold, cannot be told or has to be answered: never silent, and nothing that could not
 * be measured is taken for a pass (idea X28). A part or a lot that is found missing raises nothing: there it is as wanted.
 */
export function lessonNotes(from: LearnFrom, add: Add): void {
  const { doc } = from;
  for (const s of judgeLessons(from)) {
    const { lesson: l, verdict, board } = s;
    if (!isOpen(s)) continue;
    const more = {
      ...(s.at ? { at: s.at } : {}),
      ...(s.about ? { about: s.about } : {}),
      ...(s.lines ? { lines: s.lines } : {}),
      ...aboutBoard(doc, board?.id),
    };
    const key = keyOf(doc, s);
    const stage = STAGE_OF[l.check.kind];
    if (verdict === "broken")
      add(stage, key, l.level, `${learned(s)}Here it is not so: ${s.found}`, {
        ...more,
        do: "Mend it, or accept it with the reason why it may be so here.",
      });
    else if (verdict === "ask")
      add(stage, key, l.level, learned(s).trim(), {
        ...more,
        do: "Look, and accept it with what you found.",
      });
    else if (verdict === "not-there")
      add(stage, key, "warning", `${learned(s)}What it is about is not there: ${s.found}`, {
        ...more,
        do: "See where it went; accept it where it is not needed here.",
      });
    else
      add(stage, key, "warning", `${learned(s)}Whether ${lessonWords(l.check)} cannot be told: ${s.found}`, {
        ...more,
        do: "Look at it by hand, and accept it with what you found.",
      });
  }
}
