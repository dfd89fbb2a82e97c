import { type House, LIMITS } from "@kobbin/core";
import { type FormEvent, useState } from "react";
import { copyHouse, saveHouse } from "../../resources/run.ts";
import { useRun } from "../../run/runState.ts";
import { Button } from "../../ui/Button.tsx";
import { Dialog } from "../../ui/Dialog.tsx";
import { Field, Pick } from "../../ui/Field.tsx";
import { typedNumber } from "../../ui/format.ts";
import { useSayError } from "../../ui/Toast.tsx";

/** A number or amount of the profile a person may edit: where it stands, what it is called. */
const FIELDS: readonly { readonly group: string; readonly rows: readonly (readonly [string, string])[] }[] = [
  {
    group: "Limits, mm; the thickness to a hole is a ratio",
    // every limit of a profile: the sides of a board are two numbers each
    rows: Object.entries(LIMITS).flatMap(([key, l]) =>
      l.kind === "sides"
        ? [
            [`limits.${key}.0`, `${l.label}, one side`] as const,
            [`limits.${key}.1`, `${l.label}, other side`] as const,
          ]
        : [[`limits.${key}`, l.label] as const],
    ),
  },
  {
    group: "Price",
    rows: [
      ["price.setup.2", "set-up, two layers"],
      ["price.setup.4", "set-up, four layers"],
      ["price.perDm2.2", "a dm², two layers"],
      ["price.perDm2.4", "a dm², four layers"],
      ["price.minDm2", "least area billed, dm²"],
      ["price.testSetup", "test, set-up"],
      ["price.testPerPiece", "test, a piece"],
      ["price.importHandling", "import handling"],
    ],
  },
  {
    group: "Way and steps",
    rows: [
      ["price.freightBase", "freight, base"],
      ["price.freightPerHalfKg", "freight, half a kilogram"],
      ["price.transitDays", "days on the way"],
      ["price.delaySigmaDays", "usual delay, days"],
      ["price.step", "sold in steps of"],
      ["price.minPieces", "least pieces"],
    ],
  },
];
/** What a house that also places parts charges, and what its feeders take. */
const ASSEMBLY: (typeof FIELDS)[number] = {
  group: "Assembly",
  rows: [
    ["assembly.setupPerSide", "set-up, a side"],
    ["assembly.stencilPerSide", "stencil, a side"],
    ["assembly.perUniquePart", "a different part"],
    ["assembly.perSpecialPart", "on top in a tray, tube, loose"],
    ["assembly.perJoint", "a joint"],
    ["assembly.perHandJoint", "a joint by hand"],
    ["assembly.minCharge", "least charge"],
    ["assembly.days", "days"],
    ["assembly.leaderMm", "strip lost at a feeder, mm"],
  ],
};
/** Fields that a house may leave unstated; numbers where they are stated. */
const UNSTATED = new Set(["assembly.leaderMm", "assembly.perSpecialPart"]);
const mayBeEmpty = (path: string) => {
  const limit = /^limits\.(\w+)$/.exec(path)?.[1];
  return UNSTATED.has(path) || (limit !== undefined && LIMITS[limit as keyof typeof LIMITS].isOptional);
};
const TAKES = [
  ["strips", "strips as cut"],
  ["reels", "reels and trays only"],
] as const;

const read = (house: House, path: string): string | number | undefined =>
  path.split(".").reduce<unknown>((o, k) => (o as Record<string, unknown>)[k], house) as
    | string
    | number
    | undefined;

function write(house: House, values: ReadonlyMap<string, string>): Omit<House, "id"> {
  const copy = structuredClone(house) as House & Record<string, unknown>;
  for (const [path, text] of values) {
    const keys = path.split(".");
    const last = keys.pop()!;
    const at = keys.reduce<Record<string, unknown>>((o, k) => o[k] as Record<string, unknown>, copy);
    const clean = typedNumber(text.trim());
    // what the house does not state stays unstated while its field is empty
    if (clean === "" && mayBeEmpty(path)) delete at[last];
    else if (path === "assembly.perSpecialPart") at[last] = clean;
    else if (mayBeEmpty(path)) at[last] = Number(clean);
    else at[last] = typeof at[last] === "number" ? Number(clean) : clean;
  }
  const { id: _, ...profile } = copy;
  return profile;
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
  const groups = house.assembly ? [...FIELDS, ASSEMBLY] : FIELDS;
  const [takes, setTakes] = useState<string>(house.assembly?.takes ?? "strips");
  const submit = async (e: FormEvent<HTMLFormElement>) => {
    e.preventDefault();
    const f = new FormData(e.currentTarget);
    const name = String(f.get("name")).trim();
    const values = new Map(
      groups.flatMap((g) => g.rows.map(([path]) => [path, String(f.get(path))] as const)),
    );
    setBusy(true);
    try {
      const target = isCopy ? (await copyHouse(id, houseId, name)).id : houseId;
      const profile = write(house, values);
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
      <form onSubmit={submit} className="flex flex-col gap-4">
        <Field
          label="Name of the house"
          name="name"
          required
          maxLength={120}
          defaultValue={isCopy ? `${house.name}, own figures` : house.name}
        />
        {groups.map((g) => (
          <fieldset key={g.group}>
            <legend className="mb-1 font-semibold">{g.group}</legend>
            <div className="grid grid-cols-4 gap-3 max-md:grid-cols-2">
              {g.rows.map(([path, label]) => (
                <Field
                  key={path}
                  label={label}
                  name={path}
                  required={!mayBeEmpty(path)}
                  inputMode="decimal"
                  pattern="\d+([.,]\d+)?"
                  defaultValue={String(read(house, path) ?? "")}
                  isNumber
                />
              ))}
              {g === ASSEMBLY && (
                <Pick label="its feeders take" value={takes} options={TAKES} onChange={setTakes} />
              )}
            </div>
          </fieldset>
        ))}
        <div>
          <Button type="submit" look="main" disabled={isBusy}>
            {isCopy ? "Keep the copy and choose it" : "Save"}
          </Button>
        </div>
      </form>
    </Dialog>
  );
}
