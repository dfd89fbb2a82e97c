import { judgeLessons, type LessonStanding, lessonWords } from "@kobbin/core";
import { useMemo, useState } from "react";
import { Link } from "react-router";
import { CheckDrawing } from "../../run/learn/CheckDrawing.tsx";
import { WriteDown } from "../../run/learn/WriteDown.tsx";
import { useRun } from "../../run/runState.ts";
import { Fold } from "../../ui/Fold.tsx";
import { Mark } from "../../ui/Mark.tsx";
import { count, said } from "../../ui/text/format.ts";

const VERDICTS = {
  broken: ["look", "does not hold"],
  ask: ["look", "to be looked at"],
  "not-there": ["remark", "not there"],
  unknown: ["remark", "cannot be told"],
  holds: ["ready", "holds"],
} as const;

/** What the shop has learned, held against this run: also what holds, since somebody paid for knowing it. */
export function Learned({ board }: { board: number }) {
  const { doc, result } = useRun();
  const [isWriting, setIsWriting] = useState(false);
  const list = useMemo(() => judgeLessons({ ...result, doc }), [doc, result]);
  const errata = doc.errata ?? [];
  return (
    <Fold id="learned" title="What was learned" verdict={verdict(list, errata.length)}>
      {list.length > 0 && (
        <ul className="mb-2">
          {list.map((s) => (
            <Held key={`${s.lesson.id} ${s.board?.id ?? ""}`} standing={s} />
          ))}
        </ul>
      )}
      <p className="flex flex-wrap items-baseline gap-x-5 text-[14.5px]">
        <button type="button" className="quiet-link" onClick={() => setIsWriting(true)}>
          something is wrong with {doc.product} {doc.revision}
        </button>
        <Link to="/lessons" className="quiet-link">
          all lessons
        </Link>
      </p>
      {isWriting && (
        <WriteDown
          of={{ place: "", words: "", came: `${doc.product} ${doc.revision}`, board }}
          begin="erratum"
          onClose={() => setIsWriting(false)}
        />
      )}
    </Fold>
  );
}

function verdict(list: readonly LessonStanding[], errata: number): string {
  const n = (v: LessonStanding["verdict"]) => list.filter((s) => s.verdict === v).length;
  const parts = [
    list.length === 0
      ? "nothing is held against it yet"
      : `${n("holds")} of ${count(list.length, "check")} hold`,
    n("broken") > 0 && `${n("broken")} ${n("broken") === 1 ? "does" : "do"} not`,
    n("ask") > 0 && `${n("ask")} to be looked at`,
    n("unknown") > 0 && `${n("unknown")} cannot be told`,
    n("not-there") > 0 && `${n("not-there")} about what it has not`,
    errata > 0 && `${count(errata, "fault")} known of the product`,
  ];
  return parts.filter(Boolean).join(", ");
}

function Held({ standing: s }: { standing: LessonStanding }) {
  const { doc } = useRun();
  const [mark, words] = VERDICTS[s.verdict];
  return (
    <li className="flex flex-wrap items-center gap-x-4 border-t border-rule py-1 text-[14.5px]">
      <CheckDrawing check={s.lesson.check} />
      <span className="min-w-0 flex-1">
        <b>{s.lesson.title}</b>
        {s.board && doc.boards.length > 1 ? ` on ${s.board.name}` : ""}
        <span className="block text-[13.5px] text-ink-2">
          {said(`${lessonWords(s.lesson.check).replace(/^./, (c) => c.toUpperCase())}. ${s.found}`)}
          {s.lesson.relaxedBecause ? ` Let off: ${s.lesson.relaxedBecause}` : ""}
        </span>
      </span>
      <span className={s.verdict === "broken" ? "text-stop" : "text-ink-2"}>
        <Mark kind={s.verdict === "broken" && s.lesson.level === "error" ? "blocked" : mark} /> {words}
      </span>
    </li>
  );
}
