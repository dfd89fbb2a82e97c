import {
  ASSEMBLY_FIELDS,
  BENCH_FIELDS,
  FOIL_FIELDS,
  type House,
  type HouseField,
  type HouseLimits,
  LIMITS,
  PRICE_FIELDS,
  TOLERANCES,
} from "@kobbin/core";
import { type FormEvent, useState } from "react";
import { copyHouse, saveHouse } from "../../../resources/run.ts";
import { useRun } from "../../../run/runState.ts";
import { Button } from "../../../ui/Button.tsx";
import { Dialog } from "../../../ui/Dialog.tsx";
import { Field, Pick } from "../../../ui/Field.tsx";
import { typedNumber } from "../../../ui/format.ts";
import { useSayError } from "../../../ui/Toast.tsx";
import { useHouseLists } from "./HouseLists.tsx";
import { Ladder } from "./Ladder.tsx";
import { LETTERS, LimitsDrawn } from "./LimitsDrawn.tsx";

/** A field of the form: where it stands in the profile, what it is called, whether it may be empty, and what it holds. */
interface Row {
  readonly path: string;
  readonly label: string;
  readonly isOptional: boolean;
  readonly isAmount: boolean;
}
interface Group {
  readonly title: string;
  readonly rows: readonly Row[];
}

/** A limit's name behind the letter it has in the drawing. */
const lettered = (key: keyof HouseLimits, label: string) =>
  LETTERS[key] ? `${LETTERS[key]}  ${label}` : label;

const LIMIT_ROWS: Group = {
  title: "Limits, mm; the thickness to a hole is a ratio. What the house does not state stays empty",
  // the sides of a board are two numbers each
  rows: Object.entries(LIMITS).flatMap(([key, l]) => {
    const row = { isOptional: true, isAmount: false };
    return l.kind === "sides"
      ? [
          { ...row, path: `limits.${key}.0`, label: `${l.label}, one side` },
          { ...row, path: `limits.${key}.1`, label: `${l.label}, other side` },
        ]
      : [{ ...row, path: `limits.${key}`, label: lettered(key as keyof HouseLimits, l.label) }];
  }),
};
const TOLERANCE_ROWS: Group = {
  title: "Tolerances, ± mm; of the thickness a share of it, 0.1 for 10 %. What stays empty is taken as usual",
  rows: Object.entries(TOLERANCES).map(([key, label]) => ({
    path: `tolerances.${key}`,
    label,
    isOptional: true,
    isAmount: false,
  })),
};
const LAYERS: Readonly<Record<string, string>> = {
  1: "one layer",
  2: "two layers",
  4: "four layers",
  6: "six layers",
};

const TABLES = {
  price: PRICE_FIELDS,
  assembly: ASSEMBLY_FIELDS,
  bench: BENCH_FIELDS,
  foils: FOIL_FIELDS,
} as const;

/** The fields of one part of a profile that are one number; lists are typed in fields of their own, ways stay as they are. */
function rowsOf(part: keyof typeof TABLES, house: House, keys?: readonly string[]): Row[] {
  const table: Readonly<Record<string, HouseField>> = TABLES[part];
  return (keys ?? Object.keys(table)).flatMap((key): Row[] => {
    const { label, kind, isOptional = false } = table[key]!;
    const row = { isOptional, isAmount: kind === "amount" || kind === "by layers" };
    if (kind === "by layers")
      return Object.keys(house.price[key as "setup" | "perDm2"]).map((n) => ({
        ...row,
        path: `price.${key}.${n}`,
        label: `${label}, ${LAYERS[n] ?? `${n} layers`}`,
      }));
    return kind === "tiers" || kind === "lead" || kind === "takes" || kind === "services" || kind === "turns"
      ? []
      : [{ ...row, path: `${part}.${key}`, label }];
  });
}

const WAY = ["freightBase", "freightPerHalfKg", "transitDays", "delaySigmaDays", "step", "minPieces"];
/** All fields of a profile that the form shows. */
function groupsOf(house: House): Group[] {
  const rest = Object.keys(PRICE_FIELDS).filter((k) => !WAY.includes(k));
  return [
    LIMIT_ROWS,
    TOLERANCE_ROWS,
    { title: "Price", rows: rowsOf("price", house, rest) },
    { title: "Way and steps", rows: rowsOf("price", house, WAY) },
    ...(house.assembly ? [{ title: "Assembly", rows: rowsOf("assembly", house) }] : []),
    ...(house.bench ? [{ title: "Own work", rows: rowsOf("bench", house) }] : []),
    ...(house.foils ? [{ title: "Foils", rows: rowsOf("foils", house) }] : []),
  ];
}
const TAKES = [
  ["strips", "strips as cut"],
  ["reels", "reels and trays only"],
] as const;

const read = (house: House, path: string): string | number | undefined =>
  path.split(".").reduce<unknown>((o, k) => (o as Record<string, unknown> | undefined)?.[k], house) as
    | string
    | number
    | undefined;

type Data = Record<string, unknown>;
/** The profile with what was typed; a field left empty is one the house does not state. */
function write(house: House, rows: readonly Row[], typed: (path: string) => string): Omit<House, "id"> {
  const { id: _, ...copy } = structuredClone(house) as House & Data;
  for (const { path, isAmount } of rows) {
    const keys = path.split(".");
    const last = keys.pop()!;
    const clean = typedNumber(typed(path).trim());
    const value = isAmount ? clean : Number(clean);
    const at = keys.reduce<Data>((o, k) => {
      // what was not stated so far: the sides of a board, the tolerances
      o[k] ??= k === "tolerances" ? {} : [];
      return o[k] as Data;
    }, copy);
    if (clean !== "") at[last] = value;
    else if (Array.isArray(at)) at.length = 0;
    else delete at[last];
  }
  const limits = copy.limits as Data;
  for (const [key, l] of Object.entries(LIMITS))
    if (l.kind === "sides" && (limits[key] as unknown[] | undefined)?.length !== 2) delete limits[key];
  return copy;
}

/** Copies a house, or edits one: its limits, prices and days as the shop knows them. */
export function HouseDialog({
  houseId,
  isCopy,
  onClose,
}: {
  houseId: string;
  isCopy: boolean;
  onClose: () => void;
}) {
  const { id, answer, doc, change, did } = useRun();
  // what the person sees is what they change, also when somebody saves meanwhile
  const [seen] = useState(answer.versions[houseId]);
  const house = doc.houses!.find((h) => h.id === houseId)!;
  const sayError = useSayError();
  const [isBusy, setBusy] = useState(false);
  const groups = groupsOf(house);
  const lists = useHouseLists(house);
  const [takes, setTakes] = useState<string>(house.assembly?.takes ?? "strips");
  const rows = groups.flatMap((g) => g.rows);
  const [typed, setTyped] = useState<Readonly<Record<string, string>>>({});
  const [focused, setFocused] = useState<string>();
  const shown = (path: string) => typed[path] ?? String(read(house, path) ?? "");
  // as it would be saved, for the drawing of its prices
  const edited: House = { ...lists.into(write(house, rows, shown)), id: house.id };
  const submit = async (e: FormEvent<HTMLFormElement>) => {
    e.preventDefault();
    const f = new FormData(e.currentTarget);
    const name = String(f.get("name")).trim();
    setBusy(true);
    try {
      const target = isCopy ? (await copyHouse(id, houseId, name)).id : houseId;
      const profile = lists.into(write(house, rows, (path) => String(f.get(path))));
      const done = saveHouse(id, target, isCopy ? undefined : seen, {
        ...profile,
        ...(profile.assembly ? { assembly: { ...profile.assembly, takes } } : {}),
        name,
        about: isCopy ? `copied from ${house.name}` : house.about,
      });
      await done;
      if (isCopy) change({ houseId: target }, `Boards by ${name}`);
      else did(`${name} was saved`, done);
      onClose();
    } catch (error) {
      sayError(error);
      setBusy(false);
    }
  };
  return (
    <Dialog
      open
      onClose={onClose}
      wide
      title={isCopy ? `A copy of ${house.name}` : house.name}
      about={`Amounts in ${house.currency}. Last checked ${house.checkedOn}; saving dates it today.`}
    >
      <form
        onSubmit={submit}
        className="flex flex-col gap-4"
        onFocus={(e) => setFocused(e.target.getAttribute("name") ?? undefined)}
        onInput={(e) => {
          const { name, value } = e.target as HTMLInputElement;
          setTyped((t) => ({ ...t, [name]: value }));
        }}
      >
        <Field
          label="Name of the house"
          name="name"
          required
          maxLength={120}
          defaultValue={isCopy ? `${house.name}, own figures` : house.name}
        />
        {groups.map((g) => (
          <fieldset key={g.title}>
            <legend className="mb-1 font-semibold">{g.title}</legend>
            {g === LIMIT_ROWS && <LimitsDrawn shown={(key) => shown(`limits.${key}`)} focused={focused} />}
            {g.title === "Price" && <Ladder house={edited} />}
            <div className="grid grid-cols-4 gap-3 max-md:grid-cols-2">
              {g.rows.map(({ path, label, isOptional }) => (
                <Field
                  key={path}
                  label={label}
                  name={path}
                  required={!isOptional}
                  inputMode="decimal"
                  pattern="\d+([.,]\d+)?"
                  defaultValue={String(read(house, path) ?? "")}
                  isNumber
                />
              ))}
              {g.title === "Price" && lists.price}
              {g.title === "Assembly" && (
                <Pick label={ASSEMBLY_FIELDS.takes.label} value={takes} options={TAKES} onChange={setTakes} />
              )}
              {g.title === "Assembly" && lists.assembly}
            </div>
          </fieldset>
        ))}
        <div>
          <Button type="submit" look="main" disabled={isBusy || lists.isWrong}>
            {isCopy ? "Keep the copy and choose it" : "Save"}
          </Button>
        </div>
      </form>
    </Dialog>
  );
}
