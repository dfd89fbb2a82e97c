import {
  type House,
  type KnownValue,
  meaningWords,
  OPTION_WORDS,
  type OptionKey,
  ORDER_OPTIONS,
  ORDINARY_WAY,
  ownValue,
  PLAIN,
  type ProfileList,
  valueMeant,
} from "@kobbin/core";
import { type ReactNode, useState } from "react";
import { Field, Pick } from "../../../ui/Field.tsx";
import { typedNumber } from "../../../ui/text/format.ts";
import { RowsEdit, readEntries, type TypedEntry, typedEntries } from "./RowsEdit.tsx";

type Lists = Readonly<Record<string, readonly object[]>>;
type Typed = Readonly<Record<string, readonly TypedEntry[]>>;

/** Decisions that are a list of values; lead times and ways are typed elsewhere. */
const DECISIONS = ORDER_OPTIONS.filter((k) => k !== "leadDays" && k !== "freight");
type Decision = (typeof DECISIONS)[number];
const listOf = (house: House, key: Decision): readonly object[] => (house.options as Lists)[key] ?? [];

/** Every value of a decision that some house has. */
const knownOf = (houses: readonly House[], key: Decision): readonly KnownValue[] =>
  houses.flatMap((h) => [...listOf(h, key)] as KnownValue[]);

/** What the rows of a decision count as, one by one; what cannot be, with its row. */
function meantOf(houses: readonly House[], key: Decision, rows: readonly TypedEntry[]) {
  const known = knownOf(houses, key);
  const values: string[] = [];
  for (const [row, r] of rows.entries()) {
    const label = (r.cells[0] ?? "").trim();
    const before = r.before as Partial<KnownValue> | undefined;
    // a label that was not touched counts as it did
    const meant =
      before?.value !== undefined && before.label === label
        ? { value: before.value }
        : valueMeant(key, label, known, before?.value);
    if ("wrong" in meant) return { values, wrong: { row, column: 0, text: meant.wrong } };
    if (values.includes(meant.value))
      return { values, wrong: { row, column: 0, text: `“${label}” is the same as a row above it.` } };
    values.push(meant.value);
  }
  const others = known.filter((k) => !rows.some((r) => r.before === k));
  const words = rows.flatMap((r, i) =>
    r.before && (r.before as KnownValue).label === r.cells[0]
      ? []
      : (meaningWords(r.cells[0] ?? "", values[i]!, others) ?? []),
  );
  return { values, words };
}

/** What ways here are told apart by; two of one name, or one called like the ordinary way, are said with their row. */
function waysOf(rows: readonly TypedEntry[]) {
  const values = rows.map(
    (r) => (r.before as Partial<KnownValue> | undefined)?.value ?? ownValue(r.cells[0] ?? ""),
  );
  const row = values.findIndex((v, i) => v === ORDINARY_WAY || values.indexOf(v) < i);
  const wrong = { row, column: 0, text: `“${rows[row]?.cells[0] ?? ""}” is the name of another way.` };
  return { values, ...(row >= 0 ? { wrong } : {}) };
}

/** The lists of a profile that are tables: values of its decisions, ways here, steps of extra price, stacks, promotions. */
export function useProfileLists(house: House, houses: readonly House[]) {
  const [values, setValues] = useState<Typed>(() =>
    Object.fromEntries(DECISIONS.map((k) => [k, typedEntries("values", listOf(house, k), house)])),
  );
  const [lists, setLists] = useState<Typed>(() => ({
    services: typedEntries("services", house.price.services ?? [], house),
    bands: typedEntries("bands", house.bands ?? [], house),
    stacks: typedEntries("stacks", house.stacks ?? [], house),
    promotions: typedEntries("promotions", house.promotions ?? [], house),
  }));
  const [words, setWords] = useState<Readonly<Record<string, string>>>({ ...house.sheet });
  const [remarks, setRemarks] = useState({
    label: house.remarks?.label ?? "",
    most: String(house.remarks?.most ?? ""),
  });
  const [overs, setOvers] = useState(
    house.usualOvers === undefined ? "" : String(Number((house.usualOvers * 100).toPrecision(12))),
  );
  const meant = Object.fromEntries(DECISIONS.map((k) => [k, meantOf(houses, k, values[k]!)]));
  // conditions are read against the values as they stand now
  const options = Object.fromEntries(
    DECISIONS.flatMap((k) => {
      const rows = values[k]!;
      if (rows.length === 0) return [];
      return [
        [k, rows.map((r, i) => ({ value: meant[k]!.values[i] ?? "", label: (r.cells[0] ?? "").trim() }))],
      ];
    }),
  ) as unknown as House["options"];
  const against: House = { ...house, options };
  const readValues = Object.fromEntries(
    DECISIONS.map((k) => [k, readEntries("values", values[k]!, against)]),
  );
  const read = Object.fromEntries(
    Object.entries(lists).map(([l, rows]) => [l, readEntries(l as ProfileList, rows, against)]),
  );
  const ways = waysOf(lists.services!);
  const most = typedNumber(remarks.most.trim());
  const oversShare = Number(typedNumber(overs.trim())) / 100;
  const wrongRemarks =
    remarks.label.trim() !== "" && !/^[1-9]\d{0,5}$/.test(most) ? "say how many letters it holds" : undefined;
  const wrongOvers =
    overs.trim() !== "" && !(oversShare >= 0 && oversShare <= 1) ? "a share from 0 to 100 %" : undefined;
  /** A profile with everything that was typed, as far as it can be read. */
  const into = <T extends Omit<House, "id">>(profile: T): T => {
    const withValue = (k: Decision) =>
      readValues[k]!.entries.map((e, i) => ({ ...e, value: meant[k]!.values[i] ?? "" }));
    const sheet = Object.fromEntries(Object.entries(words).filter(([, v]) => v.trim() !== ""));
    const filled = (l: string) => (read[l]!.entries.length > 0 ? read[l]!.entries : undefined);
    const services = read.services!.entries.map((e, i) => ({ ...e, value: ways.values[i]! }));
    const out = {
      ...profile,
      options: Object.fromEntries(
        DECISIONS.flatMap((k) => (values[k]!.length > 0 ? [[k, withValue(k)]] : [])),
      ),
      bands: filled("bands"),
      stacks: filled("stacks"),
      promotions: filled("promotions"),
      sheet: Object.keys(sheet).length > 0 ? sheet : undefined,
      remarks: remarks.label.trim() === "" ? undefined : { label: remarks.label.trim(), most: Number(most) },
      usualOvers: overs.trim() === "" ? undefined : oversShare,
      price: { ...profile.price, services: services.length > 0 ? services : undefined },
    };
    return out as unknown as T;
  };
  const table = (l: Exclude<ProfileList, "values">, name: string): ReactNode => (
    <RowsEdit
      list={l}
      name={name}
      rows={lists[l]!}
      wrong={read[l]!.wrong ?? (l === "services" ? ways.wrong : undefined)}
      onChange={(rows) => setLists((old) => ({ ...old, [l]: rows }))}
    />
  );
  return {
    isWrong:
      [...Object.values(readValues), ...Object.values(read), ...Object.values(meant), ways].some(
        (r) => r.wrong,
      ) ||
      wrongRemarks !== undefined ||
      wrongOvers !== undefined,
    into,
    table,
    choices: (
      <Choices
        values={values}
        wrong={(k) => readValues[k]!.wrong ?? meant[k]!.wrong}
        meaning={(k) => meant[k]!.words ?? []}
        words={words}
        onWord={(k, word) => setWords((w) => ({ ...w, [k]: word }))}
        onChange={(k, rows) => setValues((old) => ({ ...old, [k]: rows }))}
      />
    ),
    form: (
      <div className="grid grid-cols-3 gap-3 max-md:grid-cols-1">
        {(["leadDays", "freight"] as const).map((k) => (
          <Field
            key={k}
            label={`what it calls the ${OPTION_WORDS[k].word}`}
            value={words[k] ?? ""}
            maxLength={200}
            placeholder={OPTION_WORDS[k].label}
            onChange={(e) => setWords((w) => ({ ...w, [k]: e.target.value }))}
          />
        ))}
        <Field
          label="its field for remarks is called"
          value={remarks.label}
          maxLength={200}
          onChange={(e) => setRemarks({ ...remarks, label: e.target.value })}
        />
        <Field
          label="letters it holds"
          isNumber
          inputMode="numeric"
          value={remarks.most}
          error={wrongRemarks}
          onChange={(e) => setRemarks({ ...remarks, most: e.target.value })}
        />
        <Field
          label="boards it usually sends beyond the order, %"
          isNumber
          inputMode="decimal"
          value={overs}
          error={wrongOvers}
          onChange={(e) => setOvers(e.target.value)}
        />
      </div>
    ),
  };
}

/** The decisions of the order sheet, each folded behind what it offers. */
function Choices({
  values,
  wrong,
  meaning,
  words,
  onWord,
  onChange,
}: {
  values: Typed;
  wrong: (key: Decision) => ReturnType<typeof readEntries>["wrong"];
  /** What labels count as that do not speak for themselves. */
  meaning: (key: Decision) => readonly string[];
  words: Readonly<Record<string, string>>;
  onWord: (key: OptionKey, word: string) => void;
  onChange: (key: Decision, rows: readonly TypedEntry[]) => void;
}) {
  const [open, setOpen] = useState<string>();
  const has = DECISIONS.filter((k) => values[k]!.length > 0);
  const lacks = DECISIONS.filter((k) => values[k]!.length === 0);
  return (
    <div className="flex flex-col">
      {has.map((k) => {
        const label = OPTION_WORDS[k].label;
        const isOpen = open === k || wrong(k) !== undefined;
        return (
          <section key={k} aria-label={label} className="border-t border-rule">
            <button
              type="button"
              aria-expanded={isOpen}
              className="flex min-h-8 w-full flex-wrap items-baseline gap-x-3 text-left hover:bg-paper"
              onClick={() => setOpen(open === k ? undefined : k)}
            >
              <span className="w-32 font-semibold">{label}</span>
              <span className="flex-1 text-[13.5px] text-ink-2">
                {values[k]!.map((r) => r.cells[0]).join(", ")}
              </span>
            </button>
            {isOpen && (
              <div className="pb-2">
                <RowsEdit
                  list="values"
                  name={label}
                  rows={values[k]!}
                  wrong={wrong(k)}
                  onChange={(rows) => onChange(k, rows)}
                />
                {meaning(k).map((text) => (
                  <p key={text} className="text-[13px] text-ink-2">
                    {text}
                  </p>
                ))}
                <Field
                  className="mt-1 max-w-80"
                  label={`what its order form calls ${OPTION_WORDS[k].word}`}
                  value={words[k] ?? ""}
                  maxLength={200}
                  onChange={(e) => onWord(k, e.target.value)}
                />
              </div>
            )}
          </section>
        );
      })}
      {lacks.length > 0 && (
        <Pick
          className="mt-2 max-w-80"
          label="offers a choice of"
          value=""
          options={[["", "…"], ...lacks.map((k) => [k, OPTION_WORDS[k].word] as const)]}
          onChange={(k) => {
            const key = k as Decision;
            const plain = (PLAIN as Readonly<Record<string, string>>)[key];
            // a list begins with what is done where nobody chooses
            const first = plain ? [{ value: plain, label: plain }] : [];
            onChange(key, typedEntries("values", first, {} as House));
            setOpen(key);
          }}
        />
      )}
    </div>
  );
}
