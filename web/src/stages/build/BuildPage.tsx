import { mayChange, planOfRun, sentence, tallyOf, unitOf } from "@kobbin/core";
import { useMemo } from "react";
import { Link, useSearchParams } from "react-router";
import { BareBy } from "../../run/BareBy.tsx";
import { Ready } from "../../run/Ready.tsx";
import { useRun } from "../../run/runState.ts";
import { usePace } from "../../run/usePace.ts";
import { useParam } from "../../ui/params.ts";
import { Empty } from "../../ui/States.tsx";
import { Tab } from "../../ui/Tab.tsx";
import { day, said } from "../../ui/text/format.ts";
import { Boards } from "./Boards.tsx";
import { CountForm } from "./CountForm.tsx";
import { Entries } from "./Entries.tsx";
import { Batch } from "./hands/Batch.tsx";
import { Hands } from "./hands/Hands.tsx";
import { PlanAndActual } from "./PlanAndActual.tsx";
import { TestResults } from "./tests/TestResults.tsx";
import { Labels } from "./units/Labels.tsx";
import { Passport } from "./units/Passport.tsx";

/** Boards counted as they are built, and at the end plan against actual. */
export function BuildPage() {
  const { id, doc, record, isReleased, life, role, result: r } = useRun();
  const [params, setParam] = useParam();
  const [, setParams] = useSearchParams();
  const view = params.get("view");
  const isActual = view === "actual";
  const isTests = view === "tests";
  const isBoard = view === "board";
  const isLabels = view === "labels";
  const unit = unitOf(doc);
  const plan = useMemo(() => planOfRun(doc, r), [doc, r]);
  const pace = usePace(plan);
  if (!isReleased)
    return (
      <section>
        <h1>Build</h1>
        <Empty
          action={
            <Link to={`/runs/${id}/release`} className="quiet-link">
              to the release
            </Link>
          }
        >
          Boards are counted here once the run is released: started, good, mended, scrapped, and the minutes
          it took. At the end what was planned stands beside what came.
        </Empty>
      </section>
    );
  const tally = tallyOf(record.work);
  const asked = Math.max(1, Math.min(r.start, Math.trunc(Number(params.get("unit"))) || 1));
  if (view === "hands" && mayChange("sitting", life, role))
    return <Hands plan={plan} onLeave={() => setParams(params.has("test") ? { view: "tests" } : {})} />;
  const testStep = plan.sheet.steps.find((s) => s.kind === "test");
  return (
    <section className="max-w-[940px]">
      <div className="flex flex-wrap items-baseline gap-x-6 gap-y-1">
        <h1 className="mr-auto">Build</h1>
        <Tab isOn={!isActual && !isTests && !isBoard && !isLabels} onClick={() => setParam("view", "", true)}>
          Count
        </Tab>
        <Tab isOn={isTests} onClick={() => setParam("view", "tests", true)}>
          Tests
        </Tab>
        <Tab isOn={isLabels} onClick={() => setParam("view", "labels", true)}>
          Labels
        </Tab>
        <Tab isOn={isActual} onClick={() => setParam("view", "actual", true)}>
          Plan against actual
        </Tab>
      </div>
      {record.closedOn && (
        <p className="mt-2 mb-3 border-l-[3px] border-fine bg-fine-soft px-3 py-2 text-[14.5px]">
          Closed on {day(record.closedOn)}
          {record.lesson ? `: ${said(sentence(record.lesson))}` : "."} The next run of {doc.product} begins
          with it.
        </p>
      )}
      {isActual ? (
        <PlanAndActual />
      ) : isLabels ? (
        <Labels />
      ) : isBoard ? (
        <Passport
          plan={plan}
          mayNote={mayChange("defect", life, role)}
          unit={asked}
          onSit={
            mayChange("sitting", life, role)
              ? () => setParams({ view: "hands", unit: String(asked) })
              : undefined
          }
        />
      ) : isTests ? (
        <TestResults
          plan={plan}
          mayNote={mayChange("defect", life, role)}
          onTry={
            mayChange("test_try", life, role)
              ? (u, item) =>
                  setParams({
                    view: "hands",
                    unit: String(u),
                    ...(testStep ? { step: String(testStep.n) } : {}),
                    test: item?.id ?? "",
                  })
              : undefined
          }
        />
      ) : (
        <>
          <Ready pace={pace} />
          <Boards tally={tally} planned={r.start} wanted={doc.goodBoards} unit={unit} />
          {tally.scrapped > 0 && <BareBy purpose="spare" className="mb-3 text-[14.5px]" />}
          <Batch
            plan={plan}
            pace={pace}
            mayWrite={mayChange("sitting", life, role)}
            onSit={(u) => setParams({ view: "hands", unit: String(u) })}
          />
          {mayChange("work", life, role) && <CountForm open={tally.open} />}
          <Entries isOpen={mayChange("work", life, role)} />
        </>
      )}
    </section>
  );
}
