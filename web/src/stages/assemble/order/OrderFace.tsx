import {
  figuresOf,
  isComplete,
  isGate,
  type OrderFigures,
  type PlanOfRun,
  planOfRun,
  rackPlan,
  SCHOOL_WORDS,
  type School,
  type Step,
  unitOf,
} from "@kobbin/core";
import { useMemo, useState } from "react";
import { useRun } from "../../../run/runState.ts";
import { useKeys } from "../../../ui/keys.ts";
import { useParam } from "../../../ui/params.ts";
import { fileWord, saveFile } from "../../../ui/saveFile.ts";
import { amount, count, money } from "../../../ui/text/format.ts";
import { useSayError } from "../../../ui/toast/Toast.tsx";
import { Conflicts } from "./Conflicts.tsx";
import { Images } from "./Images.tsx";
import { MadeFrom } from "./MadeFrom.tsx";
import { minutesWords, schoolsOf } from "./orderPlan.ts";
import { savePlan } from "./PlanPicture.tsx";
import { StepCard } from "./StepCard.tsx";
import { Strip } from "./Strip.tsx";
import { Traveller } from "./Traveller.tsx";
import { TrayMap, trayOf } from "./TrayMap.tsx";

/** The order of work: solved from the routes, the board, the bill and what is known of the parts; chosen within what is allowed. */
export function OrderFace() {
  const { doc, result } = useRun();
  const plan = useMemo(() => planOfRun(doc, result), [doc, result]);
  const [params, set] = useParam();
  const { steps } = plan.order;
  const asked = Number(params.get("step") ?? 1);
  const step = steps.find((s) => s.n === asked) ?? steps[0];
  const choose = (n: number) => set("step", n === 1 ? "" : String(n));
  // biome-ignore lint/correctness/useExhaustiveDependencies: choosing only writes the address
  const bindings = useMemo(
    () => [
      { keys: "j", does: "the next step", run: () => choose(Math.min(steps.length, (step?.n ?? 0) + 1)) },
      { keys: "k", does: "the step before", run: () => choose(Math.max(1, (step?.n ?? 2) - 1)) },
    ],
    [steps.length, step?.n],
  );
  useKeys(bindings);
  if (!step) return <p className="text-ink-2">Nothing is fitted here, so there is no order of work.</p>;
  const row = plan.sheet.steps[step.n - 1]!;
  return (
    <section aria-label="The order of work">
      <Head plan={plan} />
      <Conflicts plan={plan} />
      <Strip plan={plan} chosen={step.n} onChoose={choose} />
      <div className="grid grid-cols-[minmax(230px,1fr)_minmax(0,408px)] items-start gap-5 max-lg:grid-cols-1">
        <div>
          <List plan={plan} chosen={step.n} onChoose={choose} />
          <MadeFrom />
        </div>
        <StepCard plan={plan} step={step} row={row} />
      </div>
      <Images />
    </section>
  );
}

/** How much there is, which school, and what to take along. */
function Head({ plan }: { plan: PlanOfRun }) {
  const { doc, result: r } = useRun();
  const [printed, setPrinted] = useState<"traveller" | "tray">();
  const { sheet, order } = plan;
  const gates = order.steps.filter((s) => isGate(s.kind)).length;
  return (
    <>
      <div className="mb-3 flex flex-wrap items-baseline gap-x-6 gap-y-1">
        <p className="text-ink-2">
          {count(order.steps.length, "step")}, {minutesWords(r.ownMinutes)} of own work for{" "}
          {count(r.start, unitOf(doc))}; {gates === 0 ? "no gate" : count(gates, "gate")}.
        </p>
        <span className="ml-auto flex gap-4 text-[14px]">
          <button type="button" className="quiet-link" onClick={() => setPrinted("traveller")}>
            print the traveller
          </button>
          <button type="button" className="quiet-link" onClick={() => setPrinted("tray")}>
            tray map
          </button>
          <Racks plan={plan} />
          <button
            type="button"
            className="quiet-link"
            onClick={() =>
              saveFile(
                `${JSON.stringify(sheet, null, 1)}\n`,
                `${fileWord(`${doc.product} ${doc.name}`)}-order-of-work.json`,
                "application/json",
              )
            }
          >
            as a file
          </button>
        </span>
      </div>
      <Schools plan={plan} />
      {printed === "traveller" && <Traveller plan={plan} onDone={() => setPrinted(undefined)} />}
      {printed === "tray" && <TrayMap plan={plan} onDone={() => setPrinted(undefined)} />}
    </>
  );
}

/** A spare board as a rack, a page for each side with parts: each part on its own place, by the number of its tray field. */
function Racks({ plan: { sheet } }: { plan: PlanOfRun }) {
  const { doc } = useRun();
  const sayError = useSayError();
  const save = async () => {
    const fields = new Map(trayOf(sheet).map((f) => [f.line.line, f.n]));
    const plans = doc.boards.flatMap((b) =>
      (["top", "bottom"] as const).flatMap((side) => rackPlan(doc, b, side, sheet, fields) ?? []),
    );
    for (const p of plans) await savePlan(p);
  };
  if (!doc.boards.some((b) => rackPlan(doc, b, "top", sheet, new Map()))) return null;
  return (
    <button type="button" className="quiet-link" onClick={() => void save().catch(sayError)}>
      spare board as a rack
    </button>
  );
}

/** Orders within what is allowed, each with how often another bag is opened and what money stands for defects that follow. */
function Schools({ plan: { work, order, sheet } }: { plan: PlanOfRun }) {
  const { doc, result, change, isLocked } = useRun();
  const isPriced = isComplete(result.unpriced);
  const schools = useMemo(() => schoolsOf(work), [work]);
  const { steps } = doc.choices;
  const pick = (school: School) => {
    const { own: _, ...rest } = steps ?? {};
    change({ steps: { ...rest, school } } as never, `Order of work: ${SCHOOL_WORDS[school].label}`);
  };
  const isOn = (school: School) => work.school === school && !steps?.own;
  const all = steps?.own ? [...schools, { school: "own", figures: figuresOf(work, order.steps) }] : schools;
  const rows: readonly (readonly [string, (f: OrderFigures) => string])[] = [
    ["bags opened", (f) => String(f.bags)],
    ["more minutes", (f) => f.moreMinutes.toFixed(0)],
    [`at risk, ${sheet.currency}`, (f) => amount(f.atRisk / 1e6, sheet.currency)],
  ];
  return (
    <>
      <table aria-label="In which order" className="mb-1 text-[14px] max-md:hidden">
        <thead>
          <tr>
            <td />
            {schools.map(({ school }) => (
              <th key={school} scope="col" className="pr-5 pb-1 text-left font-normal">
                <button
                  type="button"
                  aria-pressed={isOn(school)}
                  disabled={isLocked}
                  onClick={() => pick(school)}
                  className={`border-b-2 pb-[2px] whitespace-nowrap ${
                    isOn(school) ? "border-metal font-bold" : "border-transparent text-ink-2 hover:text-ink"
                  }`}
                >
                  {SCHOOL_WORDS[school].label}
                </button>
              </th>
            ))}
            {steps?.own && (
              <th scope="col" className="pb-1 text-left">
                <span className="border-b-2 border-metal pb-[2px]">your own</span>
              </th>
            )}
          </tr>
        </thead>
        <tbody className="text-[13px] text-ink-2">
          {rows.map(([label, of]) => (
            <tr key={label}>
              <th scope="row" className="pr-5 text-left font-normal">
                {label}
              </th>
              {all.map(({ school, figures }) => (
                <td key={school} className="num">
                  {of(figures)}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
      <p className="mb-4 text-[13.5px] text-ink-2 max-md:hidden">
        {SCHOOL_WORDS[work.school].label}: {SCHOOL_WORDS[work.school].why}. More minutes: a bag opened once
        more takes as long as one that is laid out. At risk: what each part costs × the chance that what is
        put on after it spoils the board
        {isPriced ? "" : ", as far as prices are known"}.
      </p>
    </>
  );
}

/** Every step in a line; the chosen one is open beside it. */
function List({
  plan: { order, sheet },
  chosen,
  onChoose,
}: {
  plan: PlanOfRun;
  chosen: number;
  onChoose: (n: number) => void;
}) {
  return (
    <ol aria-label="Steps" className="border-b border-rule">
      {sheet.steps.map((s) => {
        const step = order.steps[s.n - 1]!;
        const gate = isGate(s.kind);
        return (
          <li key={s.n} className="border-t border-rule">
            <button
              type="button"
              aria-current={s.n === chosen ? "step" : undefined}
              onClick={() => onChoose(s.n)}
              className={`grid min-h-10 w-full grid-cols-[28px_1fr_auto] items-baseline gap-x-2 px-2 py-[7px] text-left ${
                s.n === chosen ? "bg-metal-soft" : "hover:bg-sheet"
              } ${gate ? "text-fine" : ""}`}
            >
              <span className="num text-ink-2">{s.n}</span>
              <span className="min-w-0">
                <span className={s.n === chosen ? "font-bold" : ""}>
                  {s.words}
                  {s.side ? `, ${s.side}` : ""}
                  {s.board ? `, ${s.board}` : ""}
                </span>
                <span className="block truncate text-[13px] text-ink-2">
                  {toldOf(s, step.protects, sheet.currency)}
                </span>
              </span>
              <span className="num text-[13.5px] whitespace-nowrap">{minutesWords(s.minutes)}</span>
            </button>
          </li>
        );
      })}
    </ol>
  );
}

/** What is in a step, short. */
function toldOf(
  s: PlanOfRun["sheet"]["steps"][number],
  protects: Step["protects"],
  currency: string,
): string {
  if (protects !== undefined) return `keeps up to ${money(protects.all / 1e6, currency)}`;
  if (s.kind === "seal")
    return s.lines
      .map((l) => l.value)
      .slice(0, 4)
      .join(", ");
  if (s.refs.length === 0) return "";
  return s.refs.length > 12 ? `${s.refs.length} parts` : s.refs.join(" ");
}
