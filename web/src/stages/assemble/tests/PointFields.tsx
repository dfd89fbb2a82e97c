import { linesOf, lineWrong, readInUnit, readPoints, type TestItem } from "@kobbin/core";
import { Pick } from "../../../ui/Field.tsx";
import { Kept } from "../../../ui/Kept.tsx";
import { said, written } from "../../../ui/text/format.ts";
import { type LineChange, withLine, withPoints } from "./testModel.ts";

/** What is applied while it is read, where constants of each board come of it; several points are typed at once. */
export function PointFields({
  item: t,
  plan,
  isLocked,
  onSet,
  refuse,
}: {
  item: TestItem;
  plan: readonly TestItem[];
  isLocked: boolean;
  onSet: (tests: readonly TestItem[], what: string) => void;
  refuse: (text: string) => void;
}) {
  const { point } = t;
  const off = isLocked || point === undefined;
  const set = (more: LineChange, what: string) => onSet(withLine(plan, t, more), what);
  const inUnit = (key: "worst" | "most", label: string, placeholder: string) => (
    <Kept
      label={label}
      placeholder={placeholder}
      disabled={off}
      isMono
      maxLength={40}
      value={point?.[key] === undefined ? "" : `${written(point[key])} ${point.unit}`}
      onSave={(v) => {
        if (v === "") return set({ [key]: undefined }, `${label.toLowerCase()} nothing`);
        const read = readInUnit(v, point!.unit, key === "worst");
        if (read.kind === "wrong") return refuse(`${t.name}: ${read.because}`);
        set({ [key]: read.value }, `${label.toLowerCase()} ${v}`);
      }}
    />
  );
  const line = point && linesOf(plan).find((l) => l.of === point.of)!;
  const isPieces = line?.form === "pieces";
  const wrong = line && lineWrong(line);
  return (
    <>
      <div className="grid grid-cols-4 items-end gap-x-3 gap-y-2 max-lg:grid-cols-2">
        <Kept
          label="Applied"
          placeholder="0.5 V; 1 V; 2.5 V"
          disabled={isLocked || t.unit === undefined}
          isMono
          maxLength={200}
          value={point ? `${written(point.applied)} ${point.unit}` : ""}
          onSave={(v) => {
            if (v === "") return onSet(withPoints(plan, t, undefined), "nothing applied");
            const read = readPoints(v);
            if (read.kind === "wrong") return refuse(`${t.name}: ${read.because}`);
            onSet(withPoints(plan, t, read.value), `${v} applied`);
          }}
        />
        <Kept
          label="Constants are of"
          placeholder="light input"
          disabled={off}
          maxLength={60}
          value={point?.of ?? ""}
          onSave={(v) => v !== "" && set({ of: v }, `constants of ${v}`)}
        />
        {point && (
          <Pick
            label="Between the points"
            value={isPieces ? "pieces" : "straight"}
            disabled={isLocked}
            options={[
              ["straight", "one straight line"],
              ["pieces", "point to point"],
            ]}
            onChange={(v) =>
              set(
                { form: v === "pieces" ? "pieces" : undefined },
                v === "pieces" ? "straight from point to point" : "one straight line",
              )
            }
          />
        )}
        {!isPieces && inUnit("worst", "Off the line at most", "0.01 V")}
        {inUnit("most", "Never apply more than", "3.3 V")}
        {point && (
          <Kept
            label="True for, days"
            placeholder="no end"
            disabled={isLocked}
            isMono
            maxLength={4}
            value={point.days === undefined ? "" : String(point.days)}
            onSave={(v) => {
              const days = v === "" ? undefined : /^\d{1,4}$/.test(v) ? Number(v) : 0;
              if (days !== undefined && !(days >= 1 && days <= 3650))
                return refuse(`${t.name}: “${v}” is no number of days.`);
              set({ days }, days === undefined ? "true without end" : `true for ${days} days`);
            }}
          />
        )}
      </div>
      {line && !wrong?.isNone && (
        <p className="mt-1 text-[14px] text-ink-2">
          Into a board it goes as{" "}
          {isPieces ? `“${line.of} points”` : `“${line.of} gain” and “${line.of} offset”`}, where an image
          asks for a value of that name.
        </p>
      )}
      {wrong && (
        <p className="mt-1 text-[14px] text-look">
          {wrong.isNone ? `No constants come of it: ${wrong.because}.` : `${said(wrong.because)}.`}
        </p>
      )}
    </>
  );
}
