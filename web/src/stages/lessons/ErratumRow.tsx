import type { LearnedAnswer, ReworkOfRun, ShopErratum, ShopReport } from "@kobbin/contract";
import { shapes } from "@kobbin/core";
import { useEffect, useState } from "react";
import { useDone } from "../../history/useDone.ts";
import {
  decideErratum,
  putRework,
  removeErratum,
  removeRework,
  saveErratum,
} from "../../resources/learned.ts";
import { HARM_WORDS } from "../../run/learn/ErratumForm.tsx";
import { toldOf } from "../../run/owners/told.ts";
import { Kept } from "../../ui/Kept.tsx";
import { Mark } from "../../ui/Mark.tsx";
import { todayIso } from "../../ui/text/dates.ts";
import { count, day, written } from "../../ui/text/format.ts";
import { undecided } from "./lessonWords.ts";

type Revisions = LearnedAnswer["products"][number]["revisions"];
const DECIDED = { fixed: "mended", stays: "stays", gone: "has it not" } as const;
const HARM = { stops: "blocked", worse: "look", looks: "remark" } as const;

/** A fault of a revision: what it does, how it is worked around, what the others decided, and how far the boards are. */
export function ErratumRow({
  erratum: e,
  told,
  out,
  revisions,
  isOwner,
}: {
  erratum: ShopErratum;
  /** What owners said that is this. */
  told: readonly ShopReport[];
  /** Boards that have it and went out. */
  out: number;
  revisions: Revisions;
  isOwner: boolean;
}) {
  const [isOpen, setIsOpen] = useState(false);
  const open = undecided(e, revisions).length;
  return (
    <li className="border-t border-rule py-2">
      <div className="flex flex-wrap items-baseline gap-x-4">
        <Mark kind={HARM[e.harm]} />
        <p className="min-w-0 flex-1">
          <b>{e.title}</b>{" "}
          <span className="text-[14px] text-ink-2">
            {e.product} {e.revision}
            {e.spot.ref
              ? `, ${e.spot.ref}`
              : e.spot.at
                ? `, at ${e.spot.at.map((v) => written(String(v))).join(" / ")} mm`
                : ""}
            ; {HARM_WORDS[e.harm]}; found on {day(e.foundOn)}
          </span>
        </p>
        {open > 0 && <span className="text-stop">{count(open, "revision")} not decided</span>}
        {isOwner && (
          <button
            type="button"
            className="quiet-link min-h-6 text-[14px]"
            aria-expanded={isOpen}
            aria-label={`${isOpen ? "Less" : "More"} of ${e.title}`}
            onClick={() => setIsOpen(!isOpen)}
          >
            {isOpen ? "less" : "change it"}
          </button>
        )}
      </div>
      {e.effect && <p className="pl-7 text-[14.5px]">{e.effect}</p>}
      <p className="pl-7 text-[14.5px]">
        {e.workaround ? (
          `On each board: ${e.workaround}`
        ) : (
          <span className="text-look">No workaround is known.</span>
        )}
        {e.minutes === undefined ? "" : `, ${written(String(e.minutes))} min`}
        {e.workaround && !e.workaround.endsWith(".") ? "." : ""}
        {e.planned ? <span className="text-ink-2"> To be mended in {e.planned}.</span> : ""}
      </p>
      {told.length > 0 && <p className="pl-7 text-[14.5px]">Owners told of it: {toldOf(told, out)}.</p>}
      {e.evidence && (
        <p className="whitespace-pre-line pl-7 text-[13.5px] text-ink-2 [overflow-wrap:anywhere]">
          {e.evidence}
        </p>
      )}
      <Decisions erratum={e} revisions={revisions} isOwner={isOwner} />
      {e.reworks.map((r) => (
        <Units key={r.runId} erratum={e} run={r} />
      ))}
      {isOpen && <More erratum={e} />}
    </li>
  );
}

/** What was decided of it for each of the other revisions. */
function Decisions({
  erratum: e,
  revisions,
  isOwner,
}: {
  erratum: ShopErratum;
  revisions: Revisions;
  isOwner: boolean;
}) {
  const done = useDone();
  const others = revisions.filter((r) => r.id !== e.revisionId);
  // what was pressed stands there at once; what the server says takes its place
  const [pressed, setPressed] = useState<Readonly<Record<string, keyof typeof DECIDED>>>({});
  useEffect(() => {
    void e.decisions;
    setPressed({});
  }, [e.decisions]);
  const decide = (revision: Revisions[number], is: keyof typeof DECIDED | null, because = "") => {
    const body = { revisionId: revision.id, is, because, on: todayIso() };
    const sent = decideErratum(e.id, body);
    sent.catch(() => setPressed({}));
    done(sent, `${e.title}: ${is === null ? "not decided any more" : DECIDED[is]} in ${revision.label}`);
  };
  return (
    <>
      {others.map((r) => (
        <fieldset key={r.id} className="flex flex-wrap items-center gap-x-4 pl-7 text-[14.5px]">
          <legend className="sr-only">
            {e.title} in {r.label}
          </legend>
          <span className="min-w-[9ch] text-ink-2">in {r.label}</span>
          {(Object.keys(DECIDED) as (keyof typeof DECIDED)[]).map((is) => (
            <label key={is} className="flex min-h-7 items-center gap-[6px]">
              <input
                type="radio"
                name={`${e.id} ${r.id}`}
                disabled={!isOwner}
                checked={(pressed[r.id] ?? e.decisions[r.id]?.is) === is}
                onChange={() => {
                  setPressed({ ...pressed, [r.id]: is });
                  decide(r, is);
                }}
              />
              {DECIDED[is]}
            </label>
          ))}
          {e.decisions[r.id] === undefined ? (
            <span className="text-stop">not decided: its release stops</span>
          ) : (
            isOwner && (
              <>
                <Kept
                  label={`Why it is so in ${r.label}`}
                  isLabelHidden
                  className="min-w-[22ch] flex-1"
                  placeholder="because …"
                  maxLength={500}
                  value={e.decisions[r.id]!.because}
                  onSave={(because) => decide(r, e.decisions[r.id]!.is, because)}
                />
                <button type="button" className="quiet-link" onClick={() => decide(r, null)}>
                  open again
                </button>
              </>
            )
          )}
        </fieldset>
      ))}
    </>
  );
}

/** So many boards are drawn to be pressed; more are counted. */
const MOST_DRAWN = 200;

/** The boards of a run as squares: pressed once it is worked around, once more it was given up, once more neither. */
function Units({ erratum: e, run: r }: { erratum: ShopErratum; run: ReworkOfRun }) {
  const done = useDone();
  const most = Math.min(MOST_DRAWN, Math.max(r.good, ...r.units.map((u) => u.unit)));
  const mended = r.units.filter((u) => !u.isScrapped).length;
  const scrapped = r.units.length - mended;
  const press = (unit: number) => {
    const was = r.units.find((u) => u.unit === unit);
    const name = `${r.run}, board ${unit}`;
    if (was?.isScrapped) return done(removeRework(was.id), `${name}: neither worked around nor given up`);
    const body = { runId: r.runId, unit, on: todayIso(), isScrapped: was !== undefined, note: "" };
    done(putRework(e.id, body), `${name}: ${was ? "given up" : "worked around"}`);
  };
  return (
    <div className="mt-1 pl-7 text-[14.5px]">
      <p>
        <b>{r.run}</b>, {r.revision}: <b className="num">{mended}</b> of{" "}
        <span className="num">{Math.max(r.good, r.units.length)}</span> worked around
        {scrapped > 0 ? `, ${scrapped} given up` : ""}
        {r.good === 0 && r.units.length === 0 ? "; no good board is counted there yet" : ""}
      </p>
      <fieldset className="flex flex-wrap gap-[3px]">
        <legend className="sr-only">Boards of {r.run}</legend>
        {Array.from({ length: most }, (_, i) => i + 1).map((unit) => {
          const was = r.units.find((u) => u.unit === unit);
          return (
            <button
              key={unit}
              type="button"
              aria-label={`Board ${unit}: ${was ? (was.isScrapped ? "given up" : "worked around") : "not yet"}`}
              className={`num h-7 min-w-7 border text-[12.5px] ${was ? (was.isScrapped ? "border-stop bg-stop-soft line-through" : "border-metal-line bg-metal-soft font-bold") : "border-rule text-ink-2"}`}
              onClick={() => press(unit)}
            >
              {unit}
            </button>
          );
        })}
      </fieldset>
    </div>
  );
}

function More({ erratum: e }: { erratum: ShopErratum }) {
  const done = useDone();
  const save = (body: Parameters<typeof saveErratum>[1], words: string) =>
    done(saveErratum(e.id, body), words);
  return (
    <div className="mt-2 ml-7 grid grid-cols-2 gap-x-5 gap-y-2 border-l-2 border-metal-line pl-3 max-sm:grid-cols-1">
      <Kept
        label="What is wrong"
        maxLength={200}
        value={e.title}
        onSave={(title) => title !== "" && save({ title }, "The fault is said anew")}
      />
      <Kept
        label="What it does"
        maxLength={1000}
        value={e.effect}
        onSave={(effect) => save({ effect }, "What it does is kept")}
      />
      <Kept
        label="On each board"
        maxLength={1000}
        value={e.workaround}
        onSave={(workaround) => save({ workaround }, "The workaround is kept")}
      />
      <Kept
        label="To be mended in"
        maxLength={120}
        value={e.planned}
        onSave={(planned) => save({ planned }, "When it is to be mended is kept")}
      />
      <Kept
        label="What was seen"
        maxLength={shapes.LONGEST_EVIDENCE}
        value={e.evidence}
        onSave={(evidence) => save({ evidence }, "What was seen is kept")}
      />
      <button
        type="button"
        className="quiet-link min-h-6 text-left"
        onClick={() => done(removeErratum(e.id), `${e.title}: nothing wrong after all`)}
      >
        nothing wrong after all
      </button>
    </div>
  );
}
