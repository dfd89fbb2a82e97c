import type { LearnedAnswer, ShopLesson } from "@kobbin/contract";
import { lessonWords, SUSPECT_KINDS, shapes } from "@kobbin/core";
import { useState } from "react";
import { Link } from "react-router";
import { useDone } from "../../history/useDone.ts";
import { removeLesson, saveLesson } from "../../resources/learned.ts";
import { CheckDrawing } from "../../run/learn/CheckDrawing.tsx";
import { LEVEL_WORDS, SURE_WORDS } from "../../run/learn/LessonForm.tsx";
import { Field, Pick } from "../../ui/Field.tsx";
import { Kept } from "../../ui/Kept.tsx";
import { Mark } from "../../ui/Mark.tsx";
import { todayIso } from "../../ui/text/dates.ts";
import { count, day, said } from "../../ui/text/format.ts";
import { contradicting, isOutside, saysBuilt, saysRun, standOf } from "./lessonWords.ts";

/** A lesson: what it looks at, drawn and said, where it came from, what it caught, where it does not hold now. */
export function LessonRow({
  lesson: l,
  all,
  products,
  isAllKnown,
  isOwner,
}: {
  lesson: ShopLesson;
  /** Every lesson of the shop. */
  all: readonly ShopLesson[];
  products: LearnedAnswer["products"];
  /** Every open run is counted. */
  isAllKnown: boolean;
  isOwner: boolean;
}) {
  const [isOpen, setIsOpen] = useState(false);
  const statement = lessonWords(l.check);
  return (
    <li className="grid grid-cols-[auto_1fr_auto] items-start gap-x-4 border-t border-rule py-2 max-sm:grid-cols-[auto_1fr]">
      <CheckDrawing check={l.check} />
      <div className="min-w-0">
        <p className="font-semibold">{l.title}</p>
        {plain(statement) !== plain(l.title) && l.check.kind !== "asked" && (
          <p className="text-[14px]">{said(statement).replace(/^./, (c) => c.toUpperCase())}.</p>
        )}
        <p className="text-[13.5px] text-ink-2">
          {l.came === "" ? "" : `${l.came.replace(/^./, (c) => c.toUpperCase())}, `}
          {day(l.since)}; {SURE_WORDS[l.sure]}; {LEVEL_WORDS[l.level]}
          {l.product ? `; of ${l.product} alone` : ""}
          {l.check.kind === "machine" && l.check.person ? `; in the hands of ${l.check.person}` : ""}
          {l.clearedOn ? `. Cleared on ${day(l.clearedOn)}${l.clearedBy ? `: ${l.clearedBy}` : ""}` : ""}
        </p>
        {contradicting(l, all).map((o) => (
          <p key={o.id} className="text-[14px] text-look">
            <Mark kind="look" /> No board holds this and “{o.title}”: {o.why}. Clear one of them, or let a
            product off.
          </p>
        ))}
        {l.caught.map((c) => (
          <p key={`${c.product} ${c.revision}`} className="text-[13.5px]">
            <b>
              Caught {c.product} {c.revision}
            </b>
            , {day(c.on)}: {said(c.found)}
          </p>
        ))}
        {l.built.length > 0 && (
          <p className="text-[14px]">
            Built with it:{" "}
            {l.built.map((b, i) => (
              <span key={b.runId}>
                {i > 0 ? "; " : ""}
                <Link className="quiet-link" to={`/runs/${b.runId}/build?view=tests`}>
                  {b.product} {b.revision}, {b.run}
                </Link>{" "}
                {saysBuilt(b)}
              </span>
            ))}
            .{" "}
            <b>
              {count(
                l.built.reduce((n, b) => n + (isOutside(b) ? 0 : (b.units ?? b.begun)), 0),
                "board",
              )}{" "}
              in all{l.built.some(isOutside) ? " that may have it" : ""}.
            </b>
          </p>
        )}
        {l.bags && l.bags.length > 0 && <OnShelf bags={l.bags} />}
        {isOpen && <More lesson={l} products={products} />}
      </div>
      <div className="text-right text-[14px] max-sm:col-start-2 max-sm:text-left">
        {l.clearedOn === undefined && <Stands lesson={l} isAllKnown={isAllKnown} />}
        {isOwner && (
          <button
            type="button"
            className="quiet-link min-h-6"
            aria-expanded={isOpen}
            aria-label={`${isOpen ? "Less" : "More"} of ${l.title}`}
            onClick={() => setIsOpen(!isOpen)}
          >
            {isOpen ? "less" : "change it"}
          </button>
        )}
      </div>
    </li>
  );
}

/** The same sentence with or without an article and a stop is no second one. */
const plain = (text: string) => text.toLowerCase().replace(/^the /, "").replace(/\.$/, "");

/** How it stands in the open runs, and in which. */
function Stands({ lesson: l, isAllKnown }: { lesson: ShopLesson; isAllKnown: boolean }) {
  const stand = standOf(l);
  const isStop = stand === "broken" && l.level === "error";
  return (
    <>
      {stand === "broken" || stand === "look" ? (
        <p className={isStop ? "text-stop" : "text-look"}>
          <Mark kind={isStop ? "blocked" : "look"} />{" "}
          {stand === "broken" ? "does not hold" : "to be looked at"}
        </p>
      ) : !isAllKnown ? (
        <p className="text-ink-2">nothing open as far as is known</p>
      ) : (
        <p className="text-ink-2">
          <Mark kind="ready" /> {stand === "accepted" ? "accepted" : "nothing open"}
        </p>
      )}
      {l.runs.map((r) => (
        <p key={r.id}>
          <Link className="quiet-link inline-block min-h-6" to={`/runs/${r.id}/release`}>
            {r.product} {r.revision}, {r.name}
          </Link>
          {(r.is !== "broken" || r.because !== undefined) && (
            <span className="block text-[13.5px] text-ink-2">{saysRun(r)}</span>
          )}
        </p>
      ))}
    </>
  );
}

/** How it counts, for whom it does not, and what cleared it. */
function More({ lesson: l, products }: { lesson: ShopLesson; products: LearnedAnswer["products"] }) {
  const done = useDone();
  const [by, setBy] = useState("");
  const [off, setOff] = useState("");
  const [because, setBecause] = useState("");
  const save = (body: Parameters<typeof saveLesson>[1], words: string) => done(saveLesson(l.id, body), words);
  const isDoubt = SUSPECT_KINDS.has(l.check.kind);
  return (
    <div className="mt-2 grid grid-cols-2 gap-x-5 gap-y-2 border-l-2 border-metal-line pl-3 max-sm:grid-cols-1">
      <Kept
        label="In a sentence"
        className="col-span-2 max-sm:col-span-1"
        maxLength={shapes.LONGEST_TITLE}
        value={l.title}
        onSave={(title) => title !== "" && save({ title }, "The lesson is said anew")}
      />
      <Kept
        label="What was seen"
        className="col-span-2 max-sm:col-span-1"
        maxLength={shapes.LONGEST_EVIDENCE}
        value={l.evidence}
        onSave={(evidence) => save({ evidence }, "What was seen is kept")}
      />
      <Pick
        label="Where it does not hold"
        value={l.level}
        options={Object.entries(LEVEL_WORDS)}
        onChange={(v) => save({ level: v as "error" }, `${l.title}: ${LEVEL_WORDS[v as "error"]}`)}
      />
      <Pick
        label="That this was the cause is"
        value={l.sure}
        options={Object.entries(SURE_WORDS)}
        onChange={(v) => save({ sure: v as "certain" }, `${l.title}: ${SURE_WORDS[v as "certain"]}`)}
      />
      {l.clearedOn === undefined ? (
        <form
          className="flex items-end gap-3"
          onSubmit={(e) => {
            e.preventDefault();
            save({ clearedOn: todayIso(), clearedBy: by.trim() }, `${l.title}: cleared`);
          }}
        >
          <Field
            label={isDoubt ? "Found to be innocent, by which test" : "Counts no more, because"}
            className="flex-1"
            maxLength={500}
            value={by}
            onChange={(e) => setBy(e.target.value)}
          />
          <button type="submit" className="quiet-link min-h-8" disabled={by.trim() === ""}>
            clear it
          </button>
        </form>
      ) : (
        <button
          type="button"
          className="quiet-link min-h-8 text-left"
          onClick={() => save({ clearedOn: null }, `${l.title}: counts again`)}
        >
          it counts again
        </button>
      )}
      <form
        className="flex items-end gap-3"
        onSubmit={(e) => {
          e.preventDefault();
          save(
            {
              relaxed: [
                ...l.relaxed.filter((r) => r.product !== off),
                { product: off, because: because.trim() },
              ],
            },
            `${l.title}: ${products.find((p) => p.id === off)?.name} is let off`,
          );
          setBecause("");
        }}
      >
        <Pick
          label="Let off"
          value={off}
          options={[["", "a product"], ...products.map((p) => [p.id, p.name] as const)]}
          onChange={setOff}
        />
        <Field
          label="because"
          className="flex-1"
          maxLength={500}
          value={because}
          onChange={(e) => setBecause(e.target.value)}
        />
        <button type="submit" className="quiet-link min-h-8" disabled={off === "" || because.trim() === ""}>
          let it off
        </button>
      </form>
      {l.relaxed.map((r) => (
        <p key={r.product} className="col-span-2 text-[14px] max-sm:col-span-1">
          {products.find((p) => p.id === r.product)?.name ?? "A product that is gone"} is let off: {r.because}{" "}
          <button
            type="button"
            className="quiet-link"
            onClick={() =>
              save({ relaxed: l.relaxed.filter((x) => x !== r) }, `${l.title}: it counts there again`)
            }
          >
            count there again
          </button>
        </p>
      ))}
      <button
        type="button"
        className="quiet-link min-h-6 text-left"
        onClick={() => done(removeLesson(l.id), `${l.title}: no lesson any more`)}
      >
        remove it
      </button>
    </div>
  );
}

const WAS_WORDS = {
  within: "of those days",
  "not known": "its date code does not tell",
  outside: "of other days",
} as const;

/** Bags of a part of which some days are doubted, as they lie on the shelf. */
function OnShelf({ bags }: { bags: NonNullable<ShopLesson["bags"]> }) {
  return (
    <p className="text-[14px]">
      On the shelf:{" "}
      {bags.map((b, i) => (
        <span key={b.lotId}>
          {i > 0 ? "; " : ""}
          <Link className="quiet-link" to={`/shelf?lot=${b.lotId}`}>
            {count(b.qty, "piece")}
            {b.place && ` in ${b.place}`}
          </Link>{" "}
          <span
            className={b.was === "outside" ? "text-ink-2" : b.was === "within" ? "text-stop" : "text-look"}
          >
            {b.code && `${b.code}, `}
            {WAS_WORDS[b.was]}
            {b.isApart && ", set apart"}
          </span>
        </span>
      ))}
      .
    </p>
  );
}
