import { microsToNumber, type SameParts, sameParts, savedTogether } from "@kobbin/core";
import { useMemo } from "react";
import { mergeLines } from "../../resources/run.ts";
import { useRun } from "../../run/runState.ts";
import { amount, count } from "../../ui/text/format.ts";
import { useSayError } from "../../ui/toast/Toast.tsx";

/** Lines that seem to be one part in different spelling, with what one line instead of several saves. */
export function Same() {
  const { id, answer, doc, result: r, did, isLocked } = useRun();
  const sayError = useSayError();
  const found = useMemo(() => sameParts(doc.lines), [doc.lines]);
  if (found.length === 0 || isLocked) return null;
  const lineOf = (lineId: string) => doc.lines.find((l) => l.id === lineId);
  const say = (lineId: string) => {
    const l = lineOf(lineId);
    return l
      ? `${l.refs.slice(0, 3).join(" ")}${l.refs.length > 3 ? " …" : ""} ${l.valueText} ${l.package}`.trim()
      : "";
  };
  const needOf = (lineId: string) => r.needs.find((n) => n.id === lineId)?.need ?? 0;
  const saves = (s: SameParts) => {
    const ids = [s.keep, ...s.others];
    const offers =
      ids.map((i) => r.needs.find((n) => n.id === i)?.listed ?? []).find((o) => o.length > 0) ?? [];
    return microsToNumber(savedTogether(offers, ids.map(needOf)));
  };
  const merge = (s: SameParts) => {
    const done = mergeLines(id, s.keep, answer.versions[s.keep], s.others);
    done.then(() => did(`${count(s.others.length + 1, "line")} became one`, done), sayError);
  };
  return (
    <section aria-labelledby="same" className="mb-4 border-l-[3px] border-metal bg-sheet px-4 py-2">
      <h2 id="same" className="text-[15px] font-semibold">
        The same part in different spelling?
      </h2>
      <ul>
        {found.map((s) => {
          const money = saves(s);
          return (
            <li
              key={s.keep}
              className="grid grid-cols-[1fr_auto] items-baseline gap-x-4 py-1 text-[14px] max-sm:grid-cols-1"
            >
              <span>
                <span className="num">{[s.keep, ...s.others].map(say).join("  ·  ")}</span>
                <span className="block text-ink-2">
                  One line saves{" "}
                  {r.goes.has("house") && lineOf(s.keep)?.mount === "machine"
                    ? count(s.others.length, "feeder")
                    : count(s.others.length, "part to lay out", "parts to lay out")}
                  {money >= 0.005 &&
                    ` and ${amount(money, doc.workshop.currency)} ${doc.workshop.currency} of parts, bought together`}
                  {s.doubt ? `; look: ${s.doubt}.` : "."}
                </span>
              </span>
              <button
                type="button"
                className="quiet-link"
                aria-label={`Make one line of ${[s.keep, ...s.others].map(say).join(" and ")}`}
                onClick={() => merge(s)}
              >
                make one line
              </button>
            </li>
          );
        })}
      </ul>
    </section>
  );
}
