import { MEASURES, measureSpec, readBetween, shapes } from "@kobbin/core";
import { Field, Pick } from "../../ui/Field.tsx";
import { todayIso } from "../../ui/text/dates.ts";
import { said } from "../../ui/text/format.ts";
import { CONTACTS, type LessonDraft, type Named } from "./lessonDraft.ts";

/** What is looked at, by the kind that was chosen. */
export function Looked({
  draft: d,
  named,
  hasWrongSize,
  onChange,
}: {
  draft: LessonDraft;
  named: readonly Named[];
  hasWrongSize: boolean;
  onChange: (change: Partial<LessonDraft>) => void;
}) {
  const size = (label: string) => (
    <Field
      label={label}
      isNumber
      value={d.limit}
      onChange={(e) => onChange({ limit: e.target.value })}
      error={hasWrongSize ? "That is no size." : undefined}
    />
  );
  switch (d.kind) {
    case "measure": {
      const { is, unit } = measureSpec(d.key);
      return (
        <>
          <Pick
            label="Which"
            value={d.key}
            options={MEASURES.map((m) => [m.key, m.short])}
            onChange={(key) => onChange({ key })}
          />
          {size(`${is.replace(/^./, (c) => c.toUpperCase())}${unit === "mm" ? ", mm" : ""}`)}
        </>
      );
    }
    case "marked":
      return (
        <Pick
          label="Parts with the letters"
          value={d.letters}
          options={shapes.ONE_WAY_LETTERS.map((l) => [l, l])}
          onChange={(v) => onChange({ letters: v as "D" })}
        />
      );
    case "contacts":
      return (
        <>
          <Pick
            label="They have"
            value={d.contacts}
            options={Object.entries(CONTACTS)}
            onChange={(v) => onChange({ contacts: v as "mask" })}
          />
          {d.contacts === "setback" && size("By at least, mm")}
        </>
      );
    case "part":
      return (
        <>
          <Field
            label="Its number"
            maxLength={120}
            value={d.mpn}
            onChange={(e) => onChange({ mpn: e.target.value })}
          />
          <MadeFields draft={d} onChange={onChange} />
        </>
      );
    case "asked":
      return null;
    case "program":
      return (
        <>
          <Field
            label="Its name"
            maxLength={120}
            value={d.program}
            onChange={(e) => onChange({ program: e.target.value })}
          />
          <Field
            label="Its version"
            placeholder="any"
            maxLength={80}
            value={d.version}
            onChange={(e) => onChange({ version: e.target.value })}
          />
        </>
      );
    default:
      return (
        <>
          <Pick
            label="Which"
            value={d.which}
            options={[
              ["", named.length === 0 ? "there is none" : "choose one"],
              ...named.map((n) => [n.id, n.name] as const),
            ]}
            onChange={(which) => onChange({ which })}
          />
          {d.kind === "machine" && (
            <Field
              label="Only in the hands of"
              placeholder="anybody"
              maxLength={200}
              value={d.person}
              onChange={(e) => onChange({ person: e.target.value })}
            />
          )}
        </>
      );
  }
}

/** First and last date code, as a notice has them, with what is made of them. */
function MadeFields({
  draft: d,
  onChange,
}: {
  draft: LessonDraft;
  onChange: (change: Partial<LessonDraft>) => void;
}) {
  const read = readBetween(d.madeFrom, d.madeTo, todayIso());
  const field = (label: string, key: "madeFrom" | "madeTo") => (
    <Field
      label={label}
      placeholder="any"
      maxLength={20}
      value={d[key]}
      onChange={(e) => onChange({ [key]: e.target.value })}
    />
  );
  return (
    <>
      {field("From this date code", "madeFrom")}
      {field("Up to this date code", "madeTo")}
      {(read.wrong !== undefined || read.or.length > 0) && (
        <p role="status" className="col-span-2 text-[14px] text-look max-sm:col-span-1">
          {read.wrong !== undefined
            ? `Not kept like this: ${read.wrong}.`
            : `${read.or.map(said).join("; ")}.`}
        </p>
      )}
    </>
  );
}
