import {
  besidesWords,
  firstPowerOf,
  limitText,
  loadOf,
  loadWords,
  type Piece,
  type TestItem,
  type TestTry,
  type TryVerdict,
} from "@kobbin/core";
import { useMemo } from "react";
import { useRun } from "../../../run/runState.ts";
import { said, written } from "../../../ui/text/format.ts";
import { ApplyNow, LineSoFar } from "../lines/LineSoFar.tsx";
import { PinPicture } from "./PinPicture.tsx";
import { ReadingField } from "./ReadingField.tsx";
import { Suspects } from "./Suspects.tsx";
import type { Presses } from "./useBenchKeys.ts";
import { useTries } from "./useTries.ts";

/** What an item of the test plan is marked by at the bench: no piece is called so. */
export const testName = (t: Pick<TestItem, "id">): string => `test ${t.id}`;
/** Items of a plan as they are walked: one press each. */
export const testPieces = (tests: readonly TestItem[]): Piece[] =>
  tests.map((t, i) => ({ name: testName(t), line: "", nth: i + 1, of: tests.length }));

const STATE = {
  bare: "without power",
  powered: "powered, current limit set",
  programmed: "programmed",
  housed: "in its housing",
} as const;

/** One thing to try: where the needles go, what should come, what came. */
export function TestCard({
  item: t,
  unit,
  on,
  onPass,
  onLeave,
}: {
  item: TestItem;
  unit: number;
  on: Presses;
  onPass: () => void;
  onLeave: () => void;
}) {
  const { tries, answer, takeBack } = useTries(unit, t);
  const limits = limitText(t);
  return (
    <div className="grid grid-cols-[auto_minmax(300px,1fr)] gap-7 max-lg:grid-cols-1 max-lg:gap-3">
      <PinPicture item={t} />
      <div className="max-w-[62ch]">
        <div aria-live="polite">
          <p className="text-[22px] text-ink-2 max-sm:text-[17px]">
            {STATE[t.state]}
            {t.besides ? `, ${besidesWords(t.besides)}` : ""}
          </p>
          <p className="text-[40px] leading-tight font-bold max-sm:text-[27px]">{t.name}</p>
          <ApplyNow item={t} unit={unit} />
          <p className="num mt-2 text-[32px] leading-tight max-sm:text-[22px]">
            {limits
              ? said(limits)
              : t.unit === undefined
                ? t.expect || "what should come is not said"
                : t.point
                  ? `a point of ${t.point.of}`
                  : "no limit is set: whatever is read passes"}
          </p>
          {(limits || t.unit !== undefined) && t.expect && (
            <p className="text-[20px] text-ink-2 max-sm:text-[16px]">{said(t.expect)}</p>
          )}
          {t.load && <p className="text-[20px] text-look max-sm:text-[16px]">{said(loadWords(t.load))}</p>}
          <Places item={t} />
        </div>
        {t.unit !== undefined && (
          <ReadingField
            key={t.id}
            item={t}
            unit={t.unit}
            on={on}
            onAnswer={answer}
            onPass={onPass}
            onLeave={onLeave}
          />
        )}
        <Tried tries={tries} onTakeBack={takeBack} />
        <LineSoFar item={t} unit={unit} />
        {tries.at(-1)?.verdict === "fail" && <Suspects unit={unit} />}
        <Care item={t} />
      </div>
    </div>
  );
}

function Places({ item: t }: { item: TestItem }) {
  const rows = [
    ["not on", t.absent ?? []],
    ["drive", t.drives.filter((d) => !t.reads.includes(d))],
    ["read", t.reads],
    ["through", t.through],
  ] as const;
  return (
    <ul className="mt-2 text-[20px] max-sm:text-[16px]">
      {rows
        .filter(([, list]) => list.length > 0)
        .map(([what, list]) => (
          <li key={what} className={what === "not on" ? "text-look" : ""}>
            {what} <span className="num font-semibold">{list.join(" ")}</span>
          </li>
        ))}
    </ul>
  );
}

const CAME_TO: Readonly<Record<TryVerdict, readonly [string, string]>> = {
  pass: ["passes", "text-fine"],
  fail: ["fails", "text-stop"],
  error: ["nothing could be read", "text-look"],
};

/** Every try of it on this board, the newest first. */
function Tried({ tries, onTakeBack }: { tries: readonly TestTry[]; onTakeBack: () => void }) {
  if (tries.length === 0) return null;
  return (
    <ol aria-label="Tried so far" className="mt-3 text-[18px] max-sm:text-[15px]">
      {tries
        .slice(-4)
        .reverse()
        .map((t, i) => {
          const [words, look] = CAME_TO[t.verdict];
          return (
            <li key={t.id} className={look}>
              <b className="num">
                {t.value === undefined ? "" : `${t.bound ?? ""}${written(t.value)} ${t.limits.unit ?? ""} `}
              </b>
              {words}
              <span className="text-ink-2"> · {t.person}</span>
              {i === 0 && (
                <button type="button" className="quiet-link ml-3 text-[15px]" onClick={onTakeBack}>
                  a slip: take it back
                </button>
              )}
            </li>
          );
        })}
    </ol>
  );
}

/** What can hurt on this board while it is under power, and who is beside it. */
function Care({ item: t }: { item: TestItem }) {
  const { doc } = useRun();
  const hazards = useMemo(
    () => (t.state === "bare" ? [] : doc.boards.flatMap((_, i) => firstPowerOf(doc, i)?.hazards ?? [])),
    [doc, t.state],
  );
  const isLive = t.load !== undefined && loadOf(t.load).isDangerous;
  const isHeld = (isLive || hazards.some((h) => h.kind !== "cell")) && !doc.assembly.competent;
  return (
    <div
      className={`mt-4 border-l-4 px-3 text-[17px] max-sm:text-[14.5px] ${isHeld ? "border-stop text-stop" : "border-rule-2 text-ink-2"}`}
    >
      {isHeld && (
        <p className="font-semibold">
          Nobody competent is named for it: not before somebody stands beside it.
        </p>
      )}
      {isLive && (
        <p>
          At these volts it can injure or kill: covered, with a switch that does not hang on the board, one
          hand away from it, dead before anything is touched.
        </p>
      )}
      {hazards.map((h) => (
        <p key={h.kind}>{h.do}</p>
      ))}
      {hazards.length === 0 && !isLive && (
        <p>Mains, motion and heat only disconnected or with somebody competent beside it.</p>
      )}
      {doc.assembly.competent && (isLive || hazards.length > 0) && (
        <p>Beside it: {doc.assembly.competent}.</p>
      )}
    </div>
  );
}
