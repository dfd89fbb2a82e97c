import { type AgainJudged, judgeAgain } from "@kobbin/core";
import { useMemo, useState } from "react";
import { useRun } from "../../run/runState.ts";
import { Button } from "../../ui/Button.tsx";
import { Fold } from "../../ui/Fold.tsx";
import { Mark } from "../../ui/Mark.tsx";
import { day, said } from "../../ui/text/format.ts";
import { AgainFrame, NOTHING_TYPED } from "./AgainFrame.tsx";

/** How it stands in a few words. */
function verdictOf(list: readonly AgainJudged[], on: string | undefined): string {
  if (on === undefined) return "not done yet";
  const typed = list.filter((a) => a.stand !== "not typed");
  const off = typed.filter((a) => a.stand === "differs").length;
  return `${off === 0 ? `all ${typed.length} agree` : `${off} of ${typed.length} differ`}; typed on ${day(on)}`;
}

/** A second look for whoever works alone: what can be known without the files is typed unseen and held against them. */
export function Again() {
  const { doc, result, isLocked } = useRun();
  const [isTyping, setTyping] = useState(false);
  const [draft, setDraft] = useState(NOTHING_TYPED);
  const on = doc.choices.again?.on;
  const list = useMemo(() => judgeAgain({ ...result, doc, options: result.options }), [doc, result]);
  const typed = list.filter((a) => a.stand !== "not typed");
  return (
    <Fold id="again" title="Typed again, unseen" verdict={verdictOf(list, on)}>
      <p className="max-w-[62ch] text-[14.5px] text-ink-2">
        Another archive, another revision, a side measured wrongly: each looks right on the screen it was
        chosen on. With drawing, sample or data sheet at hand, best the next morning or by somebody else,{" "}
        {list.length} things are typed without seeing what the run goes by. It takes three minutes.
      </p>
      {!isLocked && (
        <Button className="mt-2" onClick={() => setTyping(true)}>
          {draft.at > 0 ? "Go on typing" : on === undefined ? "Type them" : "Type them once more"}
        </Button>
      )}
      {typed.length > 0 && (
        <table className="rows mt-3 text-[14.5px]" aria-label="Typed unseen, beside what the run goes by">
          <thead>
            <tr>
              <th />
              <th className="text-left">asked</th>
              <th className="text-right">typed</th>
              <th className="text-right">the run goes by</th>
            </tr>
          </thead>
          <tbody>
            {/* what differs first */}
            {[...typed]
              .sort((a, b) => Number(a.stand === "agrees") - Number(b.stand === "agrees"))
              .map((a) => (
                <tr key={a.asked.key}>
                  <td>
                    <Mark kind={a.stand === "agrees" ? "ready" : "look"} />
                  </td>
                  <td>{a.asked.ask}</td>
                  <td className="num text-right">{a.typed}</td>
                  <td className="num text-right">
                    {a.stand === "agrees" ? (
                      <span className="text-ink-2">{said(a.is)}</span>
                    ) : (
                      <b>{said(a.is)}</b>
                    )}
                  </td>
                </tr>
              ))}
          </tbody>
        </table>
      )}
      {isTyping && <AgainFrame draft={draft} onDraft={setDraft} onLeave={() => setTyping(false)} />}
    </Fold>
  );
}
