import type { ShopErratum } from "@kobbin/contract";
import { unitOf } from "@kobbin/core";
import { putRework, removeRework, useLearned } from "../../../resources/learned.ts";
import { useRun } from "../../../run/runState.ts";
import { Button } from "../../../ui/Button.tsx";
import { todayIso } from "../../../ui/text/dates.ts";
import { useSayError } from "../../../ui/toast/Toast.tsx";

const NONE: readonly ShopErratum[] = [];

/** Faults that boards of this run have: of its own revision, or left in it. */
export function useKnownWrong(): readonly ShopErratum[] {
  const { answer } = useRun();
  const { data } = useLearned();
  return (
    data?.errata.filter(
      (e) => e.revisionId === answer.revisionId || e.decisions[answer.revisionId]?.is === "stays",
    ) ?? NONE
  );
}

/** What is known to be wrong with this board's revision, and whether it is worked around on it. */
export function KnownWrong({ unit, mayWrite }: { unit: number; mayWrite: boolean }) {
  const { id, doc, did } = useRun();
  const sayError = useSayError();
  const errata = useKnownWrong();
  if (errata.length === 0) return null;
  const of = (e: ShopErratum) => e.reworks.find((r) => r.runId === id)?.units.find((u) => u.unit === unit);
  const say = (words: string, done: ReturnType<typeof removeRework | typeof putRework>) => {
    done.catch(sayError);
    did(`${unitOf(doc)} ${unit}, ${words}`, done);
  };
  const put = (e: ShopErratum, isScrapped: boolean) => {
    const body = { runId: id, unit, on: todayIso(), isScrapped, note: "" };
    say(`${isScrapped ? "given up for" : "worked around"}: ${e.title}`, putRework(e.id, body));
  };
  return (
    <section aria-label="Known to be wrong" className="mt-4">
      <h2 className="mb-1 text-[16px]">Known to be wrong with {doc.revision}</h2>
      <ul>
        {errata.map((e) => {
          const was = of(e);
          return (
            <li
              key={e.id}
              className="flex flex-wrap items-baseline gap-x-4 border-t border-rule py-1 text-[14.5px]"
            >
              <span className="min-w-0 flex-1">
                <b>{e.title}</b>
                <span className="block text-[13.5px] text-ink-2">
                  {e.workaround ? `On each board: ${e.workaround}` : "No workaround is known."}
                </span>
              </span>
              <span className={was ? (was.isScrapped ? "text-stop" : "text-fine") : "text-look"}>
                {was ? (was.isScrapped ? "given up for it" : "worked around") : "not worked around yet"}
              </span>
              {mayWrite && (
                <span className="flex gap-3 print:hidden">
                  {was ? (
                    <button
                      type="button"
                      className="quiet-link"
                      onClick={() => say(`not after all: ${e.title}`, removeRework(was.id))}
                    >
                      not after all
                    </button>
                  ) : (
                    <>
                      <Button onClick={() => put(e, false)}>worked around</Button>
                      <button type="button" className="quiet-link" onClick={() => put(e, true)}>
                        given up
                      </button>
                    </>
                  )}
                </span>
              )}
            </li>
          );
        })}
      </ul>
    </section>
  );
}
