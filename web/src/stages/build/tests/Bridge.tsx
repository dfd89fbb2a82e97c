import {
  BRIDGE_LADDER,
  type BridgePair,
  bridgeCame,
  bridgeCheck,
  type Defect,
  MOST_HEATS,
  type TestItem,
} from "@kobbin/core";
import { useMemo, useState } from "react";
import { saveDefect } from "../../../resources/record.ts";
import { useRun } from "../../../run/runState.ts";
import { Button } from "../../../ui/Button.tsx";
import { Field } from "../../../ui/Field.tsx";
import { count } from "../../../ui/text/format.ts";
import { useSayError } from "../../../ui/toast/Toast.tsx";
import { PinPicture } from "../hands/PinPicture.tsx";

const PLACE: TestItem = {
  id: "",
  name: "",
  state: "bare",
  drives: [],
  reads: [],
  through: [],
  expect: "",
  minutes: 0,
};
type Answers = Readonly<Record<string, "silent" | "beeps">>;
const NO_PAIRS: readonly BridgePair[] = [];

/** A bridge is gone when its neighbours were measured, not when it looks gone: how it is taken off, then what must be silent. */
export function Bridge({ defect: d, onDone }: { defect: Defect; onDone: () => void }) {
  const { id, doc } = useRun();
  const sayError = useSayError();
  const [at, setAt] = useState(d.at);
  const [answers, setAnswers] = useState<Answers>({});
  const [heats, setHeats] = useState(0);
  const check = useMemo(() => bridgeCheck(doc, at), [doc, at]);
  const pairs = check && "pairs" in check ? check.pairs : NO_PAIRS;
  const came = bridgeCame(pairs, answers);
  const pins = useMemo(() => [...new Set(pairs.flatMap((p) => [p.a, p.b]))], [pairs]);
  const item = useMemo(() => ({ ...PLACE, drives: pins }), [pins]);
  const names = useMemo(() => new Map(pins.map((p) => [p, p.slice(p.indexOf(".") + 1)])), [pins]);
  const keep = (isMended: boolean, words: string) => {
    saveDefect(id, d.id, { isMended, note: [d.note, words].filter(Boolean).join("; ").slice(0, 500) }).then(
      onDone,
      sayError,
    );
  };
  return (
    <section
      aria-label={`The bridge at ${d.at || "the board"}`}
      className="my-2 grid grid-cols-[auto_minmax(280px,1fr)] gap-6 border-l-[3px] border-metal bg-metal-soft p-3 max-lg:grid-cols-1"
    >
      {pins.length > 0 && <PinPicture item={item} names={names} />}
      <div>
        <ol className="list-decimal pl-5 text-[14.5px]">
          {BRIDGE_LADDER.map((l) => (
            <li key={l.way}>{l.words}</li>
          ))}
        </ol>
        <p className="mt-1 flex flex-wrap items-baseline gap-4 text-[14.5px]">
          <button type="button" className="quiet-link" onClick={() => setHeats(heats + 1)}>
            heated once more
          </button>
          {heats > 0 && (
            <span className={heats >= MOST_HEATS ? "text-stop" : "text-ink-2"}>
              {count(heats, "heat")}
              {heats >= MOST_HEATS &&
                ": let it cool, and look whether the pad still lies flat before another"}
            </span>
          )}
        </p>
        <p className="mt-3 text-[14.5px] font-semibold">
          Then measure, without power and with what stores charge discharged:
        </p>
        {check === undefined ? (
          <NotKnown onSilent={() => keep(true, "measured silent to what lies beside it")} />
        ) : "tooMany" in check ? (
          <Field
            label={`It has ${check.tooMany} neighbours: at which pin is it?`}
            className="w-56"
            placeholder={`${d.at}.4`}
            onKeyDown={(e) => e.key === "Enter" && setAt(e.currentTarget.value)}
            onBlur={(e) => e.target.value.trim() !== "" && setAt(e.target.value)}
          />
        ) : pairs.length === 0 ? (
          <NotKnown
            onSilent={() => keep(true, "measured silent to what lies beside it")}
            why="Nothing of another net lies beside it."
          />
        ) : (
          <Pairs pairs={pairs} answers={answers} onAnswer={setAnswers} />
        )}
        {check && "joined" in check && check.joined.length > 0 && (
          <p className="mt-1 text-[13.5px] text-ink-2">
            To {check.joined.join(", ")} it always beeps: the same net.
          </p>
        )}
        <p className="mt-3 flex flex-wrap items-center gap-3">
          {came && (
            <Button look="main" className="min-h-11" onClick={() => keep(came.isGone, came.words)}>
              {came.isGone ? "It is gone: keep it" : "Still there: keep what was found"}
            </Button>
          )}
          <Button className="min-h-11" onClick={onDone}>
            Not now
          </Button>
        </p>
      </div>
    </section>
  );
}

/** Each pair with what the meter said. */
function Pairs({
  pairs,
  answers,
  onAnswer,
}: {
  pairs: readonly BridgePair[];
  answers: Answers;
  onAnswer: (a: Answers) => void;
}) {
  return (
    <ul aria-label="Between which it must be silent">
      {pairs.map((p) => {
        const key = `${p.a} ${p.b}`;
        return (
          <li key={key} className="flex flex-wrap items-center gap-3 py-[3px] text-[14.5px]">
            <span className="min-w-[190px]">
              <b className="num">
                {p.a} – {p.b}
              </b>
              <span className="ml-2 text-[13.5px] text-ink-2">
                {p.nets[0]} to {p.nets[1]}
              </span>
            </span>
            {(["silent", "beeps"] as const).map((is) => (
              <button
                key={is}
                type="button"
                aria-pressed={answers[key] === is}
                aria-label={`${p.a} to ${p.b}: ${is}`}
                onClick={() => onAnswer({ ...answers, [key]: is })}
                className={`min-h-9 rounded-[4px] border px-3 ${answers[key] === is ? (is === "silent" ? "border-fine bg-fine-soft font-semibold" : "border-stop bg-sheet font-semibold text-stop") : "border-rule-2 bg-paper"}`}
              >
                {is}
              </button>
            ))}
          </li>
        );
      })}
    </ul>
  );
}

/** Where no file tells what lies beside it, it is measured all the same. */
function NotKnown({
  onSilent,
  why = "No file tells which pins lie beside it.",
}: {
  onSilent: () => void;
  why?: string;
}) {
  return (
    <p className="text-[14.5px]">
      {why} Measure to each that you see beside it.
      <Button className="ml-3 min-h-11" onClick={onSilent}>
        measured: all silent
      </Button>
    </p>
  );
}
