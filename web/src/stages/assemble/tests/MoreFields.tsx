import { besidesWords, loadText, pointWords, type TestItem } from "@kobbin/core";
import { Fold } from "../../../ui/Fold.tsx";
import { Kept } from "../../../ui/Kept.tsx";
import { said } from "../../../ui/text/format.ts";
import { LoadFields } from "./LoadFields.tsx";
import { PointFields } from "./PointFields.tsx";
import { type BesidesChange, replaced, withBesides, withLoad } from "./testModel.ts";

/** What few items say: when and where else they are tried, what they load an output with, what is applied. */
export function MoreFields({
  item: t,
  plan,
  isLocked,
  onKeep,
  refuse,
}: {
  item: TestItem;
  plan: readonly TestItem[];
  isLocked: boolean;
  onKeep: (tests: readonly TestItem[], words: string) => void;
  refuse: (text: string) => void;
}) {
  return (
    <div className="mt-3">
      <Fold
        id={`besides-${t.id}`}
        title="When and where"
        verdict={t.besides ? besidesWords(t.besides) : "with the rest, at the bench"}
      >
        <BesidesFields
          item={t}
          isLocked={isLocked}
          onSet={(besides, what) => onKeep(replaced(plan, withBesides(t, besides)), `${t.name}: ${what}`)}
          refuse={refuse}
        />
      </Fold>
      <Fold
        id={`load-${t.id}`}
        title="As an output"
        verdict={said(t.load ? loadText(t.load) : "what it drives is not said")}
      >
        <LoadFields
          item={t}
          isLocked={isLocked}
          onSet={(load, what) => onKeep(replaced(plan, withLoad(t, load)), `${t.name}: ${what}`)}
          refuse={refuse}
        />
      </Fold>
      <Fold
        id={`point-${t.id}`}
        title="As a point of a line"
        verdict={said(t.point ? `${t.point.of}: ${pointWords(t.point)}` : "nothing known is applied")}
      >
        <PointFields
          item={t}
          plan={plan}
          isLocked={isLocked}
          onSet={(tests, what) => onKeep(tests, `${t.name}: ${what}`)}
          refuse={refuse}
        />
      </Fold>
    </div>
  );
}

/** What makes it one that is not tried with the rest at the bench: days after it, circumstances, on a few boards alone. */
function BesidesFields({
  item: t,
  isLocked,
  onSet,
  refuse,
}: {
  item: TestItem;
  isLocked: boolean;
  onSet: (besides: BesidesChange, what: string) => void;
  refuse: (text: string) => void;
}) {
  const whole = (key: "days" | "boards", label: string, most: number, placeholder: string) => (
    <Kept
      label={label}
      placeholder={placeholder}
      disabled={isLocked}
      isMono
      maxLength={5}
      value={t.besides?.[key] === undefined ? "" : String(t.besides[key])}
      onSave={(v) => {
        const n = v === "" ? undefined : /^\d{1,4}$/.test(v) ? Number(v) : 0;
        if (n !== undefined && !(n >= 1 && n <= most))
          return refuse(`${t.name}: “${v}” is no number of ${key}.`);
        onSet({ [key]: n }, n === undefined ? `no ${key}` : `${n} ${key}`);
      }}
    />
  );
  return (
    <div className="grid grid-cols-4 items-end gap-x-3 gap-y-2 max-lg:grid-cols-2">
      {whole("days", "Tried so many days after the rest", 3650, "with the rest")}
      <Kept
        label="Where, or in what circumstances"
        placeholder="at the bench"
        disabled={isLocked}
        className="col-span-2"
        maxLength={120}
        value={t.besides?.where ?? ""}
        onSave={(v) => onSet({ where: v === "" ? undefined : v }, v === "" ? "at the bench" : v)}
      />
      {whole("boards", "On so many boards alone", 1000, "each")}
    </div>
  );
}
