import { type Coverage, coverageOf, proposedTests, type TestItem, unitOf } from "@kobbin/core";
import { ArrowDown, ArrowUp } from "lucide-react";
import { useMemo, useState } from "react";
import { useRun } from "../../../run/runState.ts";
import { Button } from "../../../ui/Button.tsx";
import { Pick } from "../../../ui/Field.tsx";
import { Kept } from "../../../ui/Kept.tsx";
import { Empty } from "../../../ui/States.tsx";
import { useSay } from "../../../ui/Toast.tsx";
import { count, fixed, typedNumber, written } from "../../../ui/text/format.ts";
import { CoveragePicture } from "./CoveragePicture.tsx";
import { added, changed, moved, typedPins, without } from "./testModel.ts";

const NO_PLAN: readonly TestItem[] = [];
const NO_PINS: ReadonlySet<string> = new Set();

/** What is tried on every one, what that says of each joint, painted on the board, and which further item would say most. */
export function TestsFace() {
  const { doc, change, isLocked } = useRun();
  const plan = doc.assembly.tests ?? NO_PLAN;
  const coverage = useMemo(() => coverageOf(doc), [doc]);
  const [pointed, setPointed] = useState<string>();
  const keep = (tests: readonly TestItem[], words: string) => change({ assembly: { tests } } as never, words);
  const item = plan.find((t) => t.id === pointed);
  const lit = useMemo(() => (item && coverage ? litBy(item, coverage) : NO_PINS), [item, coverage]);
  return (
    <section aria-label="The test plan">
      {coverage ? (
        <div className="mb-4 grid grid-cols-[auto_minmax(0,1fr)] items-start gap-6 max-lg:grid-cols-1">
          <CoveragePicture coverage={coverage} lit={lit} />
          <Says coverage={coverage} plan={plan} onKeep={keep} />
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
            idle={coverage?.idle.find((x) => x.id === t.id)?.because}
            onPoint={setPointed}
            onKeep={keep}
          />
        ))}
      </ol>
      {!isLocked && (
        <Button className="mt-3" onClick={() => keep(added(plan, {}), "An item of the test plan added")}>
          Add an item
        </Button>
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

/** How much is tested, what a pass says nothing of, and the items that would say most. */
function Says({
  coverage: c,
  plan,
  onKeep,
}: {
  coverage: Coverage;
  plan: readonly TestItem[];
  onKeep: (tests: readonly TestItem[], words: string) => void;
}) {
  const { doc, change, isLocked } = useRun();
  const { tested, implied, never } = c.cover.pins;
  const all = tested + implied + never;
  const list = useMemo(() => proposedTests(doc, c), [doc, c]);
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
      {list.length > 0 && !isLocked && (
        <>
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
        </>
      )}
    </div>
  );
}

/** One item of the plan, each field kept as it is left. */
function Item({
  item: t,
  n,
  of,
  idle,
  onPoint,
  onKeep,
}: {
  item: TestItem;
  n: number;
  of: number;
  idle: string | undefined;
  onPoint: (id: string | undefined) => void;
  onKeep: (tests: readonly TestItem[], words: string) => void;
}) {
  const { doc, isLocked } = useRun();
  const say = useSay();
  const plan = doc.assembly.tests ?? NO_PLAN;
  const set = (more: Partial<TestItem>, what: string) =>
    onKeep(changed(plan, t.id, more), `${t.name}: ${what}`);
  const pins = (key: "drives" | "reads" | "through", label: string) => (
    <Kept
      label={label}
      placeholder={key === "through" ? "R4 D2" : "U1.4 TP3"}
      disabled={isLocked}
      isMono
      maxLength={400}
      value={t[key].join(" ")}
      onSave={(v) =>
        set(
          { [key]: typedPins(v, doc.boards.length > 1 ? doc.boards.map((b) => b.name) : []) },
          label.toLowerCase(),
        )
      }
    />
  );
  return (
    <li
      className="border-b border-rule py-2"
      onMouseEnter={() => onPoint(t.id)}
      onMouseLeave={() => onPoint(undefined)}
      onFocus={() => onPoint(t.id)}
    >
      <fieldset>
        <legend className="sr-only">
          {n}. {t.name}
        </legend>
        <div className="grid grid-cols-[minmax(0,1.6fr)_repeat(3,minmax(0,1fr))] items-end gap-x-3 gap-y-1 max-lg:grid-cols-2">
          <Kept
            label={`${n}. What is tried`}
            disabled={isLocked}
            maxLength={120}
            value={t.name}
            onSave={(v) => v !== "" && set({ name: v }, `called ${v}`)}
          />
          {pins("drives", "Driven at")}
          {pins("reads", "Read at")}
          {pins("through", "Through")}
          <Kept
            label="What should come"
            placeholder="3.2 to 3.4 V"
            disabled={isLocked}
            maxLength={200}
            value={t.expect}
            onSave={(v) => set({ expect: v }, "what should come")}
          />
          <Kept
            label="min"
            isMono
            disabled={isLocked}
            value={written(String(t.minutes))}
            onSave={(v) => {
              const minutes = Number(typedNumber(v));
              if (!(minutes >= 0 && minutes <= 600))
                return say(`${t.name}: “${v}” is no number of minutes.`, {
                  isProblem: true,
                  hint: "It stays as it was.",
                });
              set({ minutes }, "minutes");
            }}
          />
          <Pick
            label="Board is"
            value={t.state}
            disabled={isLocked}
            options={[
              ["powered", "powered"],
              ["bare", "without power"],
            ]}
            onChange={(v) =>
              set({ state: v as TestItem["state"] }, v === "bare" ? "without power" : "powered")
            }
          />
          {!isLocked && <Moves item={t} n={n} of={of} onKeep={onKeep} />}
        </div>
        {idle && <p className="text-[14px] text-look">It exercises nothing: {idle}.</p>}
      </fieldset>
    </li>
  );
}

/** An item earlier, later, or gone. */
function Moves({
  item: t,
  n,
  of,
  onKeep,
}: {
  item: TestItem;
  n: number;
  of: number;
  onKeep: (tests: readonly TestItem[], words: string) => void;
}) {
  const { doc } = useRun();
  const plan = doc.assembly.tests ?? NO_PLAN;
  return (
    <span className="flex items-center whitespace-nowrap">
      <button
        type="button"
        className="p-1 text-ink-2 disabled:opacity-25"
        aria-label={`${t.name} earlier`}
        disabled={n === 1}
        onClick={() => onKeep(moved(plan, t.id, -1), `${t.name} earlier`)}
      >
        <ArrowUp className="size-4" />
      </button>
      <button
        type="button"
        className="p-1 text-ink-2 disabled:opacity-25"
        aria-label={`${t.name} later`}
        disabled={n === of}
        onClick={() => onKeep(moved(plan, t.id, 1), `${t.name} later`)}
      >
        <ArrowDown className="size-4" />
      </button>
      <button
        type="button"
        className="quiet-link ml-1"
        aria-label={`Remove ${t.name}`}
        onClick={() => onKeep(without(plan, t.id), `${t.name} removed`)}
      >
        remove
      </button>
    </span>
  );
}
