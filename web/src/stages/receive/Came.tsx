import {
  countByLength,
  countByWeight,
  type DaysDoubted,
  isDoubtful,
  moistureLevel,
  type PlannedItem,
  type RunLine,
  wasMade,
} from "@kobbin/core";
import { useState } from "react";
import { MadeWords } from "../../shelf/Made.tsx";
import { Button } from "../../ui/Button.tsx";
import { Field } from "../../ui/Field.tsx";
import { todayIso } from "../../ui/text/dates.ts";
import { said, typedNumber } from "../../ui/text/format.ts";
import type { Counted } from "./counted.ts";
import { Instead, useInstead } from "./Instead.tsx";
import { LevelField } from "./Level.tsx";

/** Days of it that are doubted today, and why its date code is asked for, where it is; nothing of boards. */
type AsksMade = { readonly doubts: readonly DaysDoubted[]; readonly because: string | undefined } | undefined;

/** What came of one line: how many, where they go, or why they are set apart. */
export function Came({
  item,
  line,
  left,
  isStored,
  made: asked,
  asksLevel,
  isSent,
  onCame,
}: {
  item: PlannedItem;
  /** What a part was ordered for; nothing for boards. */
  line: RunLine | undefined;
  left: number;
  /** Parts get a place on the shelf; boards do not. */
  isStored: boolean;
  made: AsksMade;
  /** It goes through heat here, and nobody knows how long it may lie in the air. */
  asksLevel: boolean;
  /** On its way: kept out of sight until it is known to be written down. */
  isSent: boolean;
  /** @param level its moisture level, where it was asked for and said */
  onCame: (c: Omit<Counted, "item">, level: string) => void;
}) {
  const [qty, setQty] = useState(String(left || ""));
  const [place, setPlace] = useState("");
  const [because, setBecause] = useState("");
  const [says, setSays] = useState("");
  const [made, setMade] = useState("");
  const [level, setLevel] = useState("");
  const found = useInstead(item, line, says);
  // what may not simply be used is set apart, until somebody says otherwise
  const [wasSaid, setApart] = useState<boolean>();
  const doubted = asked?.doubts.find((d) => wasMade(made, d.made, todayIso()) === "within");
  const isApart = wasSaid ?? (isDoubtful(found) || doubted !== undefined);
  const isOther = says.trim() !== "" && found?.is !== "ordered";
  /** The count that was said to be right although it is more than is to come. */
  const [meant, setMeant] = useState<string>();
  const n = Number(qty);
  const isCount = /^\d{1,7}$/.test(qty) && n > 0;
  const more = isCount ? n - left : 0;
  // a number that is still looked up is not taken as if nothing were the matter with it
  const isKnown = line === undefined || says.trim() === "" || found !== undefined;
  const isReady = isCount && isKnown && (more <= 0 || meant === qty) && moistureLevel(level) !== undefined;
  return (
    <form
      className={`my-2 flex-wrap items-end gap-3 border-l-[3px] border-metal bg-metal-soft px-3 py-2 ${isSent ? "hidden" : "flex"}`}
      onSubmit={(e) => {
        e.preventDefault();
        if (isReady)
          onCame(
            {
              qty: n,
              isApart,
              because: because.trim() || (isApart ? whyApart(isOther ? says.trim() : "", doubted) : ""),
              ...(isOther ? { cameAs: says.trim() } : {}),
              place: place.trim(),
              ...(made.trim() ? { made: made.trim() } : {}),
              ...(more > 0 ? { isMeant: true } : {}),
            },
            // of what says another number it is another part's
            isOther ? "" : (moistureLevel(level) ?? ""),
          );
      }}
    >
      <Field
        label="Counted"
        className="w-24 [&_input]:min-h-11 [&_input]:text-[19px]"
        isNumber
        inputMode="numeric"
        autoFocus
        value={qty}
        onFocus={(e) => e.target.select()}
        onChange={(e) => setQty(e.target.value.trim())}
      />
      {isStored && !isApart && (
        <Field
          label="Place on the shelf"
          className="w-44"
          value={place}
          onChange={(e) => setPlace(e.target.value)}
        />
      )}
      <label className="flex min-h-11 items-center gap-2">
        <input
          type="checkbox"
          className="size-5 shrink-0"
          checked={isApart}
          onChange={(e) => setApart(e.target.checked)}
        />
        set apart
      </label>
      {isApart && (
        <Field
          label="Because"
          className="w-56"
          placeholder="bent, wrong part, scratched"
          value={because}
          onChange={(e) => setBecause(e.target.value)}
        />
      )}
      {more > 0 && (
        <Meant
          n={n}
          left={left}
          isMeant={meant === qty}
          onMeant={(isMeant) => setMeant(isMeant ? qty : undefined)}
        />
      )}
      <MadeField asked={asked} made={made} onMade={setMade} />
      {asksLevel && !isOther && <LevelField text={level} onText={setLevel} />}
      {line && <Instead ordered={item.mpn} says={says} found={found} onSays={setSays} />}
      {isStored && <ByWeight onTake={(pieces) => setQty(String(pieces))} />}
      {isStored && <ByLength onTake={(pieces) => setQty(String(pieces))} />}
      <Button type="submit" look="main" className="min-h-11" disabled={!isReady}>
        {isApart ? "Set apart" : "It came"}
      </Button>
    </form>
  );
}

/** More than is to come: whether that is right. */
function Meant({
  n,
  left,
  isMeant,
  onMeant,
}: {
  n: number;
  left: number;
  isMeant: boolean;
  onMeant: (isMeant: boolean) => void;
}) {
  return (
    <label className="flex min-h-11 items-center gap-2">
      <input
        type="checkbox"
        className="size-5 shrink-0"
        checked={isMeant}
        onChange={(e) => onMeant(e.target.checked)}
      />
      <span className="text-look">
        {n} is right:{" "}
        {left === 0
          ? "more than was ordered"
          : `${n - left} more than ${left === 1 ? "the one" : `the ${left}`} to come`}
      </span>
    </label>
  );
}

/** Why something is set apart where nobody says it in other words. */
const whyApart = (says: string, doubted: DaysDoubted | undefined): string =>
  [says && `it says ${says}`, doubted && `made in days that are doubted: ${doubted.title}`]
    .filter(Boolean)
    .join("; ")
    .slice(0, MOST_BECAUSE);

/** The date code on a bag, with what it says while it is typed. */
function MadeField({
  asked,
  made,
  onMade,
}: {
  asked: AsksMade;
  made: string;
  onMade: (code: string) => void;
}) {
  if (asked?.because === undefined) return null;
  return (
    <div className="w-full max-w-[420px]">
      <Field
        label={`Date code, since ${asked.because}`}
        className="[&_input]:max-w-[180px]"
        placeholder="2639, 26W39, 09/2026"
        maxLength={20}
        value={made}
        onChange={(e) => onMade(e.target.value)}
      />
      {made.trim() !== "" && (
        <p className="text-[14px]">
          <MadeWords code={made} />
        </p>
      )}
      {made.trim() !== "" && asked.doubts.map((d) => <Doubted key={d.title} code={made} doubt={d} />)}
    </div>
  );
}

/** What a date code says of days that are doubted. */
function Doubted({ code, doubt: { title, made } }: { code: string; doubt: DaysDoubted }) {
  const was = wasMade(code, made, todayIso());
  if (was === "outside")
    return <p className="text-[14px] text-ink-2">Not of the days doubted: {said(title)}.</p>;
  return was === "within" ? (
    <p role="alert" className="text-[14px] font-semibold text-stop">
      Made in days that are doubted: {said(title)}. Set it apart.
    </p>
  ) : (
    <p role="status" className="text-[14px] text-look">
      It may be of the days doubted, the code does not tell: {said(title)}.
    </p>
  );
}

/** As much as a reason may say. */
const MOST_BECAUSE = 300;

const WEIGHED = [
  ["all", "All of it, g", ""],
  ["empty", "Empty bag, g", "0"],
  ["k", "Pieces weighed together", "20"],
  ["some", "They weigh, g", ""],
  ["step", "Step of the scale, g", "0.01"],
] as const;

/** Small ones by the hundred are weighed: how many that is, and what the scale leaves open. */
function ByWeight({ onTake }: { onTake: (pieces: number) => void }) {
  const [typed, setTyped] = useState<Readonly<Record<string, string>>>({});
  const of = (key: string) =>
    Number(typedNumber(typed[key] ?? WEIGHED.find(([k]) => k === key)![2]) || Number.NaN);
  const isAsked = (typed.all ?? "") !== "" && (typed.some ?? "") !== "";
  const w = isAsked ? countByWeight(of("all"), of("empty"), of("some"), of("k"), of("step")) : undefined;
  return (
    <details className="w-full">
      <summary className="quiet-link cursor-pointer">by weight</summary>
      <div className="mt-2 flex flex-wrap items-end gap-3">
        {WEIGHED.map(([key, label, usual]) => (
          <Field
            key={key}
            label={label}
            className="w-[130px]"
            isNumber
            inputMode="decimal"
            value={typed[key] ?? usual}
            onChange={(e) => setTyped({ ...typed, [key]: e.target.value })}
          />
        ))}
        {w && "wrong" in w && <p className="w-full text-[14px] text-look">{w.wrong}</p>}
        {w && "pieces" in w && (
          <p className="flex items-center gap-3">
            <b className="num text-[19px]">
              {w.pieces} ± {w.openTo}
            </b>
            <Button className="min-h-11" onClick={() => onTake(w.pieces)}>
              take {w.pieces}
            </Button>
          </p>
        )}
      </div>
    </details>
  );
}

/** Cut tape is measured: how many pockets that is, and what the ruler leaves open. */
function ByLength({ onTake }: { onTake: (pieces: number) => void }) {
  const [strips, setStrips] = useState("");
  const [apart, setApart] = useState("4");
  const [empty, setEmpty] = useState("0");
  const is =
    strips.trim() === ""
      ? undefined
      : countByLength(strips, Number(typedNumber(apart) || Number.NaN), Number(empty || Number.NaN));
  const field = { isNumber: true, className: "w-[130px]" } as const;
  return (
    <details className="w-full">
      <summary className="quiet-link cursor-pointer">by the length of its strips</summary>
      <div className="mt-2 flex flex-wrap items-end gap-3">
        <Field
          label="Strips, mm"
          className="w-[200px]"
          placeholder="402 + 118"
          value={strips}
          onChange={(e) => setStrips(e.target.value)}
        />
        <Field
          {...field}
          label="Spacing, mm"
          inputMode="decimal"
          value={apart}
          onChange={(e) => setApart(e.target.value)}
        />
        <Field
          {...field}
          label="Empty pockets"
          inputMode="numeric"
          value={empty}
          onChange={(e) => setEmpty(e.target.value)}
        />
        {is && "wrong" in is && <p className="w-full text-[14px] text-look">{is.wrong}</p>}
        {is && "pieces" in is && (
          <p className="flex flex-wrap items-center gap-3">
            <b className="num text-[19px]">
              {is.pieces} ± {is.openTo}
            </b>
            <Button className="min-h-11" onClick={() => onTake(is.pieces)}>
              take {is.pieces}
            </Button>
            {is.doubt && <span className="text-[14px] text-look">{is.doubt}</span>}
          </p>
        )}
      </div>
    </details>
  );
}
