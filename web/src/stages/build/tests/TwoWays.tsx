import { boardsNamed, compareSettings, type TestItem, type TestTry, unitOf } from "@kobbin/core";
import { useMemo } from "react";
import { useRun } from "../../../run/runState.ts";
import { Pick } from "../../../ui/Field.tsx";
import { Fold } from "../../../ui/Fold.tsx";
import { Kept } from "../../../ui/Kept.tsx";
import { useParam } from "../../../ui/params.ts";
import { count, fixed } from "../../../ui/text/format.ts";

const NO_TRIES: readonly TestTry[] = [];

/** Two ways of building compared on a few boards: what the difference may claim, and how many boards would show it. */
export function TwoWays({ tests }: { tests: readonly TestItem[] }) {
  const { doc, record, result } = useRun();
  const [params, set] = useParam();
  const [a, b, item] = [params.get("a") ?? "", params.get("b") ?? "", params.get("item") ?? ""];
  const tries = record.tries ?? NO_TRIES;
  const of = useMemo(() => {
    const named = [a, b].map((text) => boardsNamed(text, result.start));
    return named.map((list) => list && tallyOf(list, tries, item));
  }, [a, b, item, tries, result.start]);
  const unit = unitOf(doc);
  const [one, two] = of;
  const isBoth = one !== undefined && two !== undefined && one.of > 0 && two.of > 0;
  const shared = (boardsNamed(a, result.start) ?? []).filter((u) =>
    boardsNamed(b, result.start)?.includes(u),
  );
  const field = (key: "a" | "b", label: string, value: string, tally: (typeof of)[number]) => (
    <Kept
      label={label}
      value={value}
      isMono
      placeholder={key === "a" ? "1-5" : "6-10"}
      maxLength={120}
      error={tally === undefined ? `That names no ${unit}s of 1 to ${result.start}.` : undefined}
      hint={tally && value !== "" ? `${tally.bad} of ${tally.of} tried failed at the first try` : undefined}
      onSave={(v) => set(key, v, true)}
    />
  );
  return (
    <Fold
      id="two-ways"
      title="Two ways compared"
      verdict="is it the paste, the heat, the lot, or chance?"
      isOpen={a !== "" || b !== ""}
    >
      <p className="mb-2 max-w-[76ch] text-[14.5px] text-ink-2">
        Change one thing alone, for some {unit}s and not for the others, taking turns, not first all of one
        way; then say which were which.
      </p>
      <div className="grid grid-cols-3 items-start gap-4 max-md:grid-cols-1">
        {field("a", `${unit}s of the one way`, a, one)}
        {field("b", `${unit}s of the other`, b, two)}
        <Pick
          label="Judged by"
          value={item}
          options={[["", "the whole plan"], ...tests.map((t) => [t.id, t.name] as const)]}
          onChange={(v) => set("item", v, true)}
        />
      </div>
      {shared.length > 0 && (
        <p className="mt-2 text-[14.5px] text-look">
          {unit} {shared.join(", ")} stands on both sides: it was built one way.
        </p>
      )}
      {isBoth && shared.length === 0 && <Says one={one} two={two} />}
    </Fold>
  );
}

interface Tally {
  readonly bad: number;
  readonly of: number;
}

/** First judged tries of some boards: of one item, or of all of them, where one that fails fails the board. */
function tallyOf(units: readonly number[], tries: readonly TestTry[], item: string): Tally {
  const first = new Map<string, TestTry>();
  for (const t of tries)
    if (t.verdict !== "error" && (item === "" || t.item === item) && !first.has(`${t.unit} ${t.item}`))
      first.set(`${t.unit} ${t.item}`, t);
  const judged = units
    .map((u) => [...first.values()].filter((t) => t.unit === u))
    .filter((l) => l.length > 0);
  return { bad: judged.filter((l) => l.some((t) => t.verdict === "fail")).length, of: judged.length };
}

/** What came out, drawn, and what it may claim. */
function Says({ one, two }: { one: Tally; two: Tally }) {
  const { doc } = useRun();
  const unit = unitOf(doc);
  const { chance, isSeen, needs } = useMemo(() => compareSettings(one, two), [one, two]);
  return (
    <div className="mt-3">
      {[one, two].map((t, i) => (
        <p key={i === 0 ? "one" : "two"} className="flex items-center gap-2 text-[14.5px]">
          <span className="w-[5.5em] text-ink-2">{i === 0 ? "the one" : "the other"}</span>
          <span className="flex flex-wrap gap-[3px]" aria-hidden>
            {Array.from({ length: t.of }, (_, k) => (
              <span
                key={String(k)}
                className={`inline-block h-[14px] w-[14px] border-[1.5px] ${k < t.bad ? "border-stop bg-stop" : "border-fine"}`}
              />
            ))}
          </span>
          <span className="num">
            {t.bad} of {t.of} failed
          </span>
        </p>
      ))}
      <p className="mt-2 text-[17px]" role="status">
        {isSeen ? (
          <b className="text-fine">They differ.</b>
        ) : (
          <b className="text-look">This may be chance.</b>
        )}{" "}
        If it made no difference, so much would come of chance alone in{" "}
        <span className="num">{fixed(100 * chance, chance < 0.1 ? 1 : 0)} %</span> of such tries.
      </p>
      <p className="max-w-[76ch] text-[14.5px] text-ink-2">
        {isSeen
          ? "It says that the two groups differ, not why: whatever else differed between them may be it."
          : needs !== undefined
            ? `A difference as large as this one would show with ${count(needs, unit)} of each in eight of ten tries.`
            : one.bad * two.of === two.bad * one.of
              ? "They came out alike: nothing speaks for either."
              : `Not even 200 ${unit}s of each would show so small a difference: no further lot answers this question.`}
      </p>
    </div>
  );
}
