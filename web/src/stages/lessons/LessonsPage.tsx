import type { LearnedAnswer } from "@kobbin/contract";
import { useMemo, useState } from "react";
import { useSearchParams } from "react-router";
import { useLearned } from "../../resources/learned.ts";
import { useRole } from "../../resources/session.ts";
import { Button } from "../../ui/Button.tsx";
import { Field } from "../../ui/Field.tsx";
import { Empty, Failed, Skeleton } from "../../ui/States.tsx";
import { count } from "../../ui/text/format.ts";
import { ErratumRow } from "./ErratumRow.tsx";
import { InCommon } from "./InCommon.tsx";
import { LessonRow } from "./LessonRow.tsx";
import { fitsSearch, outWith, saysAll } from "./lessonWords.ts";
import { Mistakes } from "./Mistakes.tsx";
import { NewLesson } from "./NewLesson.tsx";
import { NextRevisions } from "./NextRevisions.tsx";
import { Reports } from "./Reports.tsx";

/** What the shop has learned: what every board is held against, and what is known to be wrong with those it has. */
export function LessonsPage() {
  const { data, error, mutate } = useLearned(true);
  return (
    <main id="main" className="mx-auto w-full max-w-[1080px] px-6 py-6 max-sm:px-3">
      {error && !data ? (
        <Failed error={error} again={() => mutate()} />
      ) : !data ? (
        <Skeleton rows={6} />
      ) : (
        <Learned data={data} />
      )}
    </main>
  );
}

function Learned({ data }: { data: LearnedAnswer }) {
  const isOwner = useRole() === "owner";
  const [params, setParams] = useSearchParams();
  const text = params.get("find") ?? "";
  const setText = (find: string) => setParams(find === "" ? {} : { find }, { replace: true });
  const [isWriting, setIsWriting] = useState(false);
  const lessons = useMemo(() => data.lessons.filter((l) => fitsSearch(l, text)), [data, text]);
  const errata = useMemo(() => data.errata.filter((e) => fitsSearch(e, text)), [data, text]);
  const reports = useMemo(() => data.reports.filter((r) => fitsSearch(r, text)), [data, text]);
  const counting = lessons.filter((l) => l.clearedOn === undefined);
  const cleared = lessons.filter((l) => l.clearedOn !== undefined);
  return (
    <>
      <div className="mb-1 flex flex-wrap items-end gap-x-5 gap-y-2">
        <h1 className="mr-auto">Lessons</h1>
        <Field
          label="Did we ever have …"
          isLabelHidden
          placeholder="did we ever have …"
          value={text}
          onChange={(e) => setText(e.target.value)}
        />
        <Button onClick={() => setIsWriting(true)}>Write one down</Button>
      </div>
      <p className="mb-4 text-ink-2">{saysAll(data)}</p>
      {isWriting && <NewLesson products={data.products} onClose={() => setIsWriting(false)} />}
      <section aria-labelledby="held">
        <h2 id="held" className="mb-1 text-[16px]">
          Held against every board
        </h2>
        {counting.length === 0 ? (
          <Empty>
            {text
              ? "Nothing of what counts is like that."
              : "A fault at the bench, a claim or a note in the margin becomes a check in two presses: “so that it costs once”."}
          </Empty>
        ) : (
          <ul>
            {counting.map((l) => (
              <LessonRow
                key={l.id}
                lesson={l}
                all={data.lessons}
                products={data.products}
                isAllKnown={data.uncounted === 0}
                isOwner={isOwner}
              />
            ))}
          </ul>
        )}
      </section>
      <section aria-labelledby="wrong" className="mt-7">
        <h2 id="wrong" className="mb-1 text-[16px]">
          Known to be wrong
        </h2>
        {errata.length === 0 ? (
          <Empty>
            {text
              ? "No fault is like that."
              : "Faults of a revision stand here, until the next has decided on each."}
          </Empty>
        ) : (
          <ul>
            {errata.map((e) => (
              <ErratumRow
                key={e.id}
                erratum={e}
                told={data.reports.filter((r) => r.erratumId === e.id)}
                out={outWith(data.products, e)}
                revisions={data.products.find((p) => p.id === e.productId)?.revisions ?? []}
                isOwner={isOwner}
              />
            ))}
          </ul>
        )}
      </section>
      <Reports data={data} reports={reports} isOwner={isOwner} isSearched={text !== ""} />
      {text === "" && <NextRevisions data={data} isOwner={isOwner} />}
      {text === "" && <Mistakes mistakes={data.mistakes} />}
      {text === "" && <InCommon mistakes={data.mistakes} />}
      {cleared.length > 0 && (
        <details className="mt-7">
          <summary className="cursor-pointer text-[15px] text-ink-2">
            {count(cleared.length, "doubt")} cleared
          </summary>
          <ul>
            {cleared.map((l) => (
              <LessonRow
                key={l.id}
                lesson={l}
                all={data.lessons}
                products={data.products}
                isAllKnown={data.uncounted === 0}
                isOwner={isOwner}
              />
            ))}
          </ul>
        </details>
      )}
    </>
  );
}
