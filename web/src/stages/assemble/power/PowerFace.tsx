import {
  type FirstPowerCard,
  firstPowerItems,
  firstPowerOf,
  limitWords,
  type PowerHazard,
} from "@kobbin/core";
import { useMemo, useState } from "react";
import { Missing } from "../../../run/power/Missing.tsx";
import { useRun } from "../../../run/runState.ts";
import { Button } from "../../../ui/Button.tsx";
import { Kept } from "../../../ui/Kept.tsx";
import { useParam } from "../../../ui/params.ts";
import { Empty } from "../../../ui/States.tsx";
import { Tab } from "../../../ui/Tab.tsx";
import { count, said } from "../../../ui/text/format.ts";
import { isSamePlan, withProposed } from "../tests/testModel.ts";
import { PowerPicture } from "./PowerPicture.tsx";
import { RailTable } from "./RailTable.tsx";
import { Stages } from "./Stages.tsx";

const NO_PLAN = [] as const;

/** What is unplugged, measured, set and read when a board is first powered, with where to stop. */
export function PowerFace() {
  const { doc } = useRun();
  const [at, setAt] = useState(0);
  const card = useMemo(() => firstPowerOf(doc, at), [doc, at]);
  return (
    <section aria-label="First power">
      {doc.boards.length > 1 && (
        <div className="mb-2 flex gap-4 text-[14px]">
          {doc.boards.map((b, i) => (
            <Tab key={b.name} isOn={at === i} onClick={() => setAt(i)}>
              {b.name}
            </Tab>
          ))}
        </div>
      )}
      {!card ? (
        <Empty>
          No file of this board tells pins and nets that carry supply, so nothing can be worked out of its
          first power-up. Bring its netlist or placement under Board; what meets what says what feeds it.
        </Empty>
      ) : (
        <>
          {card.hazards.map((h) => (
            <Hazard key={h.kind} hazard={h} />
          ))}
          {card.hazards.some((h) => h.kind !== "cell") && <Competent isHeld={card.isHeld} />}
          {!card.isHeld && <Card card={card} />}
        </>
      )}
    </section>
  );
}

const HAZARDS = {
  mains: "Mains",
  motion: "Motion",
  heat: "Heat",
  isolation: "Switched loads",
  cell: "A cell",
} as const;

function Hazard({ hazard: h }: { hazard: PowerHazard }) {
  return (
    <p className="mb-2 max-w-[86ch] border-l-[3px] border-look bg-look-soft px-3 py-1.5 text-[14.5px]">
      <b>{HAZARDS[h.kind]}</b> ({h.because}). {h.do}
    </p>
  );
}

/** Who stands beside it: nothing is worked out before somebody is named. */
function Competent({ isHeld }: { isHeld: boolean }) {
  const { doc, change, isLocked } = useRun();
  return (
    <div className="mb-4 max-w-[420px]">
      <Kept
        label="Who stands beside it: somebody competent, licensed where the law asks for it"
        value={doc.assembly.competent ?? ""}
        disabled={isLocked}
        maxLength={120}
        hint={isHeld ? "What to measure and set is shown once somebody is named." : undefined}
        onSave={(v) =>
          change(
            { assembly: { competent: v } } as never,
            v ? `${v} stands beside the first power-up` : "Nobody named",
          )
        }
      />
    </div>
  );
}

/** How each link has to stand; what nobody said, and what hurts, is told. */
function Links({ links }: { links: FirstPowerCard["links"] }) {
  return (
    <ul aria-label="Links to set">
      {links.map((l) => (
        <li key={l.ref} className={l.hurts ? "text-stop" : l.position === undefined ? "text-look" : ""}>
          <b className="num">{l.ref}</b>{" "}
          {l.position === undefined
            ? `is not said how to set${l.does ? `: ${l.does}` : ""}; say it under Board, what meets what`
            : `${l.position}${l.does ? `: ${l.does}` : ""}${l.hurts ? `. It must not stand so: ${l.hurts}` : ""}`}
        </li>
      ))}
    </ul>
  );
}

function Card({ card }: { card: FirstPowerCard }) {
  const { doc, change, isLocked } = useRun();
  const [, setParam] = useParam();
  const plan = doc.assembly.tests ?? NO_PLAN;
  const items = useMemo(() => firstPowerItems(card), [card]);
  const next = withProposed(plan, items);
  const isThere = isSamePlan(next, plan);
  return (
    <div className="@container">
      <div className="grid grid-cols-[auto_minmax(0,1fr)] items-start gap-x-7 gap-y-4 max-lg:grid-cols-1">
        <PowerPicture card={card} />
        <div>
          <ol className="space-y-3 text-[14.5px]">
            <li>
              <h2 className="text-[15px]">
                1 {card.links.length > 0 ? "Links are set, and nothing" : "Nothing"} is plugged in but what
                feeds it
              </h2>
              {card.links.length > 0 && <Links links={card.links} />}
              {card.unplug.length === 0 ? (
                <p className="text-ink-2">There is no other connector.</p>
              ) : (
                <ul className="flex flex-wrap gap-x-4">
                  {card.unplug.map((u) => (
                    <li key={u.ref}>
                      <b className="num">{u.ref}</b> {u.what}
                    </li>
                  ))}
                </ul>
              )}
            </li>
            {card.inputs.map(({ rail, stages }) => {
              const r = card.rails[rail]!;
              return (
                <li key={r.name}>
                  <h2 className="text-[15px]">
                    2 {r.name}
                    {card.reads[rail] ? ` at ${card.reads[rail]}` : ""}: the supply limited to{" "}
                    <span className="num">{r.limitMa} mA</span>
                  </h2>
                  <p className={r.unknown.length > 0 ? "text-look" : "text-ink-2"}>
                    {said(limitWords(r))}.
                    {r.unknown.length > 0 && " Go up by hand and write down what it draws."}
                  </p>
                  {!r.isFed && (
                    <p className="text-look">
                      Nobody says that this is where it is fed: say under Board, what meets what.
                    </p>
                  )}
                  {stages.length > 0 && (
                    <div className="hidden @min-[860px]:block">
                      <Stages stages={stages} />
                    </div>
                  )}
                  {stages.length === 0 && (
                    <p className="text-look">Its volts are not known, so it has no stages.</p>
                  )}
                </li>
              );
            })}
          </ol>
        </div>
        <div className="col-span-full">
          <div className="@min-[860px]:hidden">
            {card.inputs.map(({ rail, stages }) =>
              stages.length > 0 ? <Stages key={rail} stages={stages} /> : null,
            )}
          </div>
          <h2 className="mt-4 text-[15px]">
            3 Before power with a meter, then with power: each rail against ground
          </h2>
          <RailTable card={card} />
          <Missing board={doc.boards[card.board]} refs={card.rails.flatMap((r) => r.own.unknown)} />
          {card.assumed.length > 0 && (
            <p className="mt-2 text-[13.5px] text-ink-2">
              Taken for granted: {said(card.assumed.join("; "))}; rails within 5 % where nobody says more; at
              rest nothing is programmed and no lamp is lit.
            </p>
          )}
          {!isLocked && items.length > 0 && (
            <p className="mt-3 flex items-baseline gap-4">
              <Button
                look={isThere ? "plain" : "main"}
                disabled={isThere}
                onClick={() =>
                  change(
                    { assembly: { tests: next } } as never,
                    `First power: ${count(items.length, "item")} of the test plan`,
                  )
                }
              >
                {isThere
                  ? "They are in the test plan"
                  : `Put ${count(items.length, "item")} into the test plan`}
              </Button>
              <button type="button" className="quiet-link" onClick={() => setParam("of", "tests", true)}>
                to the test plan
              </button>
            </p>
          )}
          <p className="mt-3 text-[13.5px] text-ink-2">
            Worked out from the files; it allows nothing. Data sheets, local law and, where required, a
            licensed person come first.
          </p>
        </div>
      </div>
    </div>
  );
}
