import { ASSEMBLY_FIELDS, type House } from "@kobbin/core";
import { type FormEvent, type ReactNode, useState } from "react";
import { copyHouse, saveHouse } from "../../../resources/run.ts";
import { useRun } from "../../../run/runState.ts";
import { Button } from "../../../ui/Button.tsx";
import { Dialog } from "../../../ui/Dialog.tsx";
import { Field, Pick } from "../../../ui/Field.tsx";
import { Tab } from "../../../ui/Tab.tsx";
import { useSayError } from "../../../ui/toast/Toast.tsx";
import { type Group, groupsOf, LIMIT_ROWS, PROFILE_PARTS, type ProfilePart, read, write } from "./fields.ts";
import { useHouseLists } from "./HouseLists.tsx";
import { Ladder } from "./Ladder.tsx";
import { LimitsDrawn } from "./LimitsDrawn.tsx";
import { useProfileLists } from "./useProfileLists.tsx";

const TAKES = [
  ["strips", "strips as cut"],
  ["reels", "reels and trays only"],
] as const;

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
  const [part, setPart] = useState<ProfilePart>("makes");
  const groups = groupsOf(house);
  const lists = useHouseLists(house);
  const tables = useProfileLists(house, doc.houses!);
  const [takes, setTakes] = useState<string>(house.assembly?.takes ?? "strips");
  const rows = groups.flatMap((g) => g.rows);
  const [typed, setTyped] = useState<Readonly<Record<string, string>>>({});
  const [focused, setFocused] = useState<string>();
  const shown = (path: string) => typed[path] ?? String(read(house, path) ?? "");
  const whole = (at: (path: string) => string) => tables.into(lists.into(write(house, rows, at)));
  // as it would be saved, for the drawing of its prices
  const edited: House = { ...whole(shown), id: house.id };
  const submit = async (e: FormEvent<HTMLFormElement>) => {
    e.preventDefault();
    const f = new FormData(e.currentTarget);
    const name = String(f.get("name")).trim();
    setBusy(true);
    try {
      const target = isCopy ? (await copyHouse(id, houseId, name)).id : houseId;
      const profile = whole((path) => String(f.get(path)));
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
  // a house that only cuts foils has no boards to choose for
  const isThere = (p: ProfilePart) =>
    groups.some((g) => g.part === p) || (house.layers.length > 0 && (p === "choices" || p === "form"));
  const more: Readonly<Partial<Record<ProfilePart, ReactNode>>> = {
    makes: (
      <Titled title="Layer stacks with limits of their own">{tables.table("stacks", "Layer stacks")}</Titled>
    ),
    choices: tables.choices,
    charges: (
      <>
        <Titled title="Made at an extra price, below a measure">
          {tables.table("bands", "Steps of extra price")}
        </Titled>
        <Titled title="Promotions, shown and never counted">
          {tables.table("promotions", "Promotions")}
        </Titled>
      </>
    ),
    way: <Titled title="Other ways to send the parcel">{tables.table("services", "Ways here")}</Titled>,
    form: tables.form,
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
        // what cannot be sent as it stands is shown, whichever part it is in
        onInvalidCapture={(e) => {
          const at = (e.target as HTMLElement).closest("[data-part]")?.getAttribute("data-part");
          if (at) setPart(at as ProfilePart);
        }}
        onInput={(e) => {
          const { name, value } = e.target as HTMLInputElement;
          if (name) setTyped((t) => ({ ...t, [name]: value }));
        }}
      >
        <Field
          label="Name of the house"
          name="name"
          required
          maxLength={120}
          defaultValue={isCopy ? `${house.name}, own figures` : house.name}
        />
        <nav
          aria-label="Parts of the profile"
          className="flex flex-wrap gap-x-5 gap-y-1 border-b border-rule"
        >
          {PROFILE_PARTS.filter(([p]) => isThere(p)).map(([p, label]) => (
            <Tab key={p} isOn={part === p} onClick={() => setPart(p)}>
              {label}
            </Tab>
          ))}
        </nav>
        {PROFILE_PARTS.filter(([p]) => isThere(p)).map(([p]) => (
          <div key={p} data-part={p} hidden={p !== part} className={p === part ? "flex flex-col gap-4" : ""}>
            {groups
              .filter((g) => g.part === p)
              .map((g) => (
                <Fields
                  key={g.title}
                  group={g}
                  house={house}
                  drawn={
                    g === LIMIT_ROWS ? (
                      <LimitsDrawn shown={(key) => shown(`limits.${key}`)} focused={focused} />
                    ) : (
                      p === "charges" && <Ladder house={edited} />
                    )
                  }
                >
                  {p === "charges" && lists.price}
                  {p === "assembly" && (
                    <Pick
                      label={ASSEMBLY_FIELDS.takes.label}
                      value={takes}
                      options={TAKES}
                      onChange={setTakes}
                    />
                  )}
                  {p === "assembly" && lists.assembly}
                </Fields>
              ))}
            {more[p]}
          </div>
        ))}
        <div>
          <Button type="submit" look="main" disabled={isBusy || lists.isWrong || tables.isWrong}>
            {isCopy ? "Keep the copy and choose it" : "Save"}
          </Button>
        </div>
      </form>
    </Dialog>
  );
}

function Titled({ title, children }: { title: string; children: ReactNode }) {
  return (
    <fieldset>
      <legend className="mb-1 font-semibold">{title}</legend>
      {children}
    </fieldset>
  );
}

/** Fields that are one number each, under what draws them. */
function Fields({
  group: g,
  house,
  drawn,
  children,
}: {
  group: Group;
  house: House;
  drawn: ReactNode;
  children: ReactNode;
}) {
  return (
    <fieldset>
      <legend className="mb-1 font-semibold">{g.title}</legend>
      {drawn}
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
        {children}
      </div>
    </fieldset>
  );
}
