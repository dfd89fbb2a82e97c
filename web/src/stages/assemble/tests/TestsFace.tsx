import { type Coverage, coverageOf, proposedTests, type TestItem, unitOf } from "@kobbin/core";
import { useCallback, useDeferredValue, useMemo, useRef, useState } from "react";
import { useRun } from "../../../run/runState.ts";
import { Button } from "../../../ui/Button.tsx";
import { Empty } from "../../../ui/States.tsx";
import { count, fixed, written } from "../../../ui/text/format.ts";
import { useOneOpen } from "../../../ui/useOneOpen.ts";
import { CoveragePicture } from "./CoveragePicture.tsx";
import { Item } from "./ItemRow.tsx";
import { Sooner } from "./Sooner.tsx";
import { Suggested } from "./Suggested.tsx";
import { added } from "./testModel.ts";

const NO_PLAN: readonly TestItem[] = [];
const NO_PINS: ReadonlySet<string> = new Set();

/**
 * The plan of a run, and how to keep another: what is pressed is painted at once, and the rest of the page, whose every figure
 * follows, hears of it in the frame after.
 */
function usePlan() {
  const { doc, change } = useRun();
  const [ahead, setAhead] = useState<readonly TestItem[]>();
  const now = useMemo(
    () => (ahead === undefined ? doc : { ...doc, assembly: { ...doc.assembly, tests: ahead } }),
    [doc, ahead],
  );
  const latest = useRef(change);
  latest.current = change;
  const keep = useCallback((tests: readonly TestItem[], words: string) => {
    setAhead(tests);
    afterPaint(() => {
      latest.current({ assembly: { tests } } as never, words);
      // pressed again meanwhile: that stays in front
      setAhead((of) => (of === tests ? undefined : of));
    });
  }, []);
  return { doc: now, plan: now.assembly.tests ?? NO_PLAN, keep };
}

/** Something done once the page has painted what it shows; a page that is not seen paints nothing, and does not wait for it. */
function afterPaint(work: () => void): void {
  let isDone = false;
  const once = () => {
    if (!isDone) work();
    isDone = true;
  };
  requestAnimationFrame(() => setTimeout(once));
  setTimeout(once, 100);
}

/** What is tried on every one, what that says of each joint, painted on the board, and which further item would say most. */
export function TestsFace() {
  const { isLocked } = useRun();
  const { doc, plan, keep } = usePlan();
  const coverage = useMemo(() => coverageOf(doc), [doc]);
  const [pointed, setPointed] = useState<string>();
  const { open, setOpen, close } = useOneOpen();
  const openOne = useCallback((id: string, is: boolean) => (is ? setOpen(id) : close(id)), [setOpen, close]);
  const add = () => {
    const next = added(plan, {});
    keep(next, "An item of the test plan added");
    setOpen(next.at(-1)!.id);
  };
  const item = plan.find((t) => t.id === pointed);
  const lit = useMemo(() => (item && coverage ? litBy(item, coverage) : NO_PINS), [item, coverage]);
  const idle = useMemo(() => new Map(coverage?.idle.map((x) => [x.id, x.because])), [coverage]);
  return (
    <section aria-label="The test plan">
      {coverage ? (
        <div className="mb-4 grid grid-cols-[auto_minmax(0,1fr)] items-start gap-6 max-lg:grid-cols-1">
          <CoveragePicture coverage={coverage} lit={lit} />
          <Says coverage={coverage} plan={plan} />
          {!isLocked && (
            <div className="col-span-full grid grid-cols-2 gap-x-8 max-lg:grid-cols-1">
              <Most coverage={coverage} plan={plan} onKeep={keep} />
              <Suggested plan={plan} onKeep={keep} />
            </div>
          )}
        </div>
      ) : (
        <Empty>
          No file of these boards tells pins and nets, so nothing can be said of what a plan covers. The plan
          itself is kept and printed all the same.
        </Empty>
      )}
      <ol aria-label="Items of the test plan" className="border-t border-rule">
        {plan.map((t, i) => (
          <Item
            key={t.id}
            item={t}
            n={i + 1}
            of={plan.length}
            idle={idle.get(t.id)}
            plan={open === t.id ? plan : undefined}
            onOpen={openOne}
            onPoint={setPointed}
            onKeep={keep}
          />
        ))}
      </ol>
      {!isLocked && (
        <p className="mt-3 flex flex-wrap items-baseline gap-x-5 gap-y-2">
          <Button onClick={add}>Add an item</Button>
          <Sooner plan={plan} onKeep={keep} />
        </p>
      )}
    </section>
  );
}

/** Pins an item drives, reads or goes through. */
function litBy(item: TestItem, { pins }: Coverage): ReadonlySet<string> {
  const named = new Set([...item.drives, ...item.reads, ...item.through]);
  return new Set(
    pins.flatMap((p) =>
      named.has(p.name) || named.has(p.name.slice(0, p.name.lastIndexOf("."))) ? [p.name] : [],
    ),
  );
}

/** How much is tested, and what a pass says nothing of. */
function Says({ coverage: c, plan }: { coverage: Coverage; plan: readonly TestItem[] }) {
  const { doc, change, isLocked } = useRun();
  const { tested, implied, never } = c.cover.pins;
  const all = tested + implied + never;
  const share = (n: number) => (all === 0 ? "0" : fixed((100 * n) / all, n > 0 && 100 * n < all ? 1 : 0));
  return (
    <div>
      <p className="text-[19px]">
        <b className="num">{tested}</b> of {all} pins tested
        <span className="block text-[14.5px] text-ink-2">
          {share(tested)} %; {implied} implied, {never} never; {count(plan.length, "item")},{" "}
          {written(String(Number(c.minutes.toFixed(2))))} min a {unitOf(doc)}
        </span>
      </p>
      {Math.abs(c.minutes - doc.assembly.testMinutes) > 0.05 && plan.length > 0 && !isLocked && (
        <p className="mt-1 text-[14.5px] text-look">
          The cost counts {written(String(doc.assembly.testMinutes))} min.{" "}
          <button
            type="button"
            className="quiet-link"
            onClick={() =>
              change(
                { assembly: { testMinutes: Math.round(c.minutes * 100) / 100 } } as never,
                "The test takes as long as its plan",
              )
            }
          >
            count the plan’s minutes
          </button>
        </p>
      )}
      {c.cover.never.length > 0 && (
        <p className="mt-2 text-[14.5px] text-ink-2">
          A pass says nothing about <span className="num">{c.cover.never.slice(0, 6).join(", ")}</span>
          {c.cover.never.length > 6 ? ` and ${c.cover.never.length - 6} more` : ""}.
        </p>
      )}
    </div>
  );
}

/** Nets that nobody tests, the ones that say most first. */
function Most({
  coverage: c,
  plan,
  onKeep,
}: {
  coverage: Coverage;
  plan: readonly TestItem[];
  onKeep: (tests: readonly TestItem[], words: string) => void;
}) {
  const { doc } = useRun();
  const later = useDeferredValue(useMemo(() => ({ doc, c }), [doc, c]));
  const list = useMemo(() => proposedTests(later.doc, later.c), [later]);
  if (list.length === 0) return null;
  return (
    <div>
      <h2 className="mt-3 text-[15px]">Tests that would cover most</h2>
      <ul aria-label="Tests that would cover most">
        {list.map((p) => (
          <li key={p.net} className="flex items-baseline gap-3 border-b border-rule py-1 text-[14.5px]">
            <span className="min-w-0 flex-1">
              <b>{p.net}</b> read at <span className="num">{p.read}</span>
              <span className="block text-[13px] text-ink-2">
                covers {count(p.gains, "pin")} that no test covers
              </span>
            </span>
            <button
              type="button"
              className="quiet-link"
              aria-label={`Add a test of ${p.net} at ${p.read}`}
              onClick={() =>
                onKeep(added(plan, { name: p.net, reads: [p.read] }), `A test of ${p.net} added`)
              }
            >
              add
            </button>
          </li>
        ))}
      </ul>
    </div>
  );
}
