import {
  EQUIPMENT,
  type Equipment,
  type EquipmentFacts,
  type EquipmentKind,
  isConsumable,
  lifeOf,
} from "@kobbin/core";
import { useState } from "react";
import { useDone } from "../../history/useDone.ts";
import { addEquipment, removeEquipment, saveEquipment, useEquipment } from "../../resources/equipment.ts";
import { Button } from "../../ui/Button.tsx";
import { Field, Pick } from "../../ui/Field.tsx";
import { Kept } from "../../ui/Kept.tsx";
import { useOnce } from "../../ui/once.ts";
import { Failed, Skeleton } from "../../ui/States.tsx";
import { todayIso } from "../../ui/text/dates.ts";
import { said, typedNumber, written } from "../../ui/text/format.ts";
import { useSay } from "../../ui/toast/Toast.tsx";
import { CHOSEN_FACTS, TYPED_FACTS, withFact } from "./equipmentFacts.ts";

const KINDS = Object.entries(EQUIPMENT) as readonly [EquipmentKind, (typeof EQUIPMENT)[EquipmentKind]][];

/** Machines and tools of the shop: what each can and cannot, and its hours. The order of work says what that means for a board. */
export function EquipmentPart() {
  const { data, error, mutate } = useEquipment();
  if (error && !data) return <Failed error={error} again={() => mutate()} />;
  if (!data) return <Skeleton rows={5} />;
  const of = (kind: EquipmentKind) => data.equipment.filter((e) => e.kind === kind);
  return (
    <section aria-labelledby="equipment">
      <h2 id="equipment" className="mb-1">
        Equipment
      </h2>
      <p className="mb-3 max-w-[66ch] text-[14px] text-ink-2">
        What is listed here is held against every board in its order of work: whether a heater is hot and
        large enough, which tip and which glass its joints want. What is left empty is not known, and nothing
        is taken for it.
      </p>
      {data.equipment.length === 0 && (
        <p className="mb-3 text-ink-2">Nothing is listed yet: begin with what melts and what you see with.</p>
      )}
      {KINDS.map(([kind]) => of(kind).map((e) => <Machine key={e.id} machine={e} />))}
      <Another />
    </section>
  );
}

function Machine({ machine: e }: { machine: Equipment }) {
  const say = useSay();
  const done = useDone();
  const save = (body: Parameters<typeof saveEquipment>[1], what: string) =>
    done(saveEquipment(e.id, body), `${e.name}: ${what} kept`);
  const fact = (key: keyof EquipmentFacts, label: string, text: string) => {
    const facts = withFact(e.facts, key, text);
    if ("wrong" in facts)
      return say(`${e.name}, ${label.toLowerCase()}: ${facts.wrong}`, {
        isProblem: true,
        hint: "It stays as it was.",
      });
    save({ facts: facts.value }, label.toLowerCase());
  };
  const hours = (key: "hours" | "lastsHours", text: string, label: string) => {
    const value = text === "" ? (key === "hours" ? 0 : null) : Number(typedNumber(text));
    if (value !== null && !Number.isFinite(value))
      return say(`${e.name}: “${text}” is no number of hours.`, {
        isProblem: true,
        hint: "It stays as it was.",
      });
    save({ [key]: value }, label.toLowerCase());
  };
  return (
    <fieldset className="mb-4 border-t border-rule pt-2">
      <legend className="pr-3 font-semibold">
        {e.name} <span className="font-normal text-ink-2">{EQUIPMENT[e.kind].label}</span>
        {e.state === "broken" && (
          <span className="text-stop">{isConsumable(e.kind) ? " used up" : " out of order"}</span>
        )}
      </legend>
      <div className="grid grid-cols-4 gap-x-4 gap-y-2 max-md:grid-cols-2">
        <Kept
          label="Name"
          value={e.name}
          maxLength={120}
          onSave={(v) => v !== "" && save({ name: v }, "name")}
        />
        {EQUIPMENT[e.kind].facts.map((key) =>
          key in CHOSEN_FACTS ? (
            <Pick
              key={key}
              label={CHOSEN_FACTS[key as keyof typeof CHOSEN_FACTS].label}
              value={(e.facts[key] as string | undefined) ?? ""}
              options={CHOSEN_FACTS[key as keyof typeof CHOSEN_FACTS].options}
              onChange={(v) => fact(key, CHOSEN_FACTS[key as keyof typeof CHOSEN_FACTS].label, v)}
            />
          ) : (
            <Kept
              key={key}
              className={key === "tips" ? "col-span-2" : ""}
              label={TYPED_FACTS[key as keyof typeof TYPED_FACTS].label}
              placeholder={TYPED_FACTS[key as keyof typeof TYPED_FACTS].like}
              value={TYPED_FACTS[key as keyof typeof TYPED_FACTS].show(e.facts)}
              isMono
              onSave={(v) => fact(key, TYPED_FACTS[key as keyof typeof TYPED_FACTS].label, v)}
            />
          ),
        )}
        {isConsumable(e.kind) ? (
          <GoesOff machine={e} onOpen={() => fact("openedOn", "Opened on", todayIso())} />
        ) : (
          <Works machine={e} onSave={save} onHours={hours} />
        )}
        <div className="col-span-2 flex items-end gap-4">
          <label className="flex min-h-8 items-center gap-2">
            <input
              type="checkbox"
              checked={e.state === "broken"}
              onChange={(x) =>
                done(
                  saveEquipment(e.id, { state: x.target.checked ? "broken" : "ready" }),
                  `${e.name} is ${isConsumable(e.kind) ? (x.target.checked ? "used up" : "there again") : x.target.checked ? "out of order" : "in order again"}`,
                )
              }
            />
            {isConsumable(e.kind) ? "used up" : "out of order"}
          </label>
          <button
            type="button"
            className="quiet-link ml-auto min-h-8"
            aria-label={`Take ${e.name} off the list`}
            onClick={() => done(removeEquipment(e.id), `${e.name} is no longer listed`)}
          >
            take off the list
          </button>
        </div>
      </div>
    </fieldset>
  );
}

/** One more machine: its kind and its name, the rest in its row. */
function Another() {
  const done = useDone();
  const once = useOnce();
  const [kind, setKind] = useState<EquipmentKind>("plate");
  const [name, setName] = useState("");
  const add = () => {
    const called = name.trim() || EQUIPMENT[kind].label;
    once(() => {
      const added = addEquipment({ kind, name: called });
      done(added, `${called} is in the shop`);
      return added;
    });
    setName("");
  };
  return (
    <form
      className="flex flex-wrap items-end gap-4 border-t border-rule pt-3"
      onSubmit={(e) => {
        e.preventDefault();
        add();
      }}
    >
      <Pick
        label="Another"
        value={kind}
        options={KINDS.map(([k, { label }]) => [k, label])}
        onChange={(v) => setKind(v as EquipmentKind)}
      />
      <Field
        label="called"
        maxLength={120}
        placeholder={EQUIPMENT[kind].label}
        value={name}
        onChange={(e) => setName(e.target.value)}
      />
      <Button type="submit">Add it</Button>
    </form>
  );
}

/** What a machine can and cannot, and how long it has worked. */
function Works({
  machine: e,
  onSave: save,
  onHours: hours,
}: {
  machine: Equipment;
  onSave: (body: Parameters<typeof saveEquipment>[1], what: string) => void;
  onHours: (key: "hours" | "lastsHours", text: string, label: string) => void;
}) {
  return (
    <>
      <Kept
        className="col-span-2"
        label="Can, in your words"
        maxLength={300}
        value={e.can}
        onSave={(v) => save({ can: v }, "what it can")}
      />
      <Kept
        className="col-span-2"
        label="Cannot"
        maxLength={300}
        value={e.cannot}
        onSave={(v) => save({ cannot: v }, "what it cannot")}
      />
      <Kept
        label="Hours worked"
        isMono
        value={written(String(e.hours))}
        onSave={(v) => hours("hours", v, "Hours")}
      />
      <Kept
        label="Lasts, hours"
        isMono
        value={e.lastsHours === undefined ? "" : written(String(e.lastsHours))}
        placeholder="not known"
        onSave={(v) => hours("lastsHours", v, "How long it lasts")}
      />
    </>
  );
}

/** How it is with something that goes off. */
function GoesOff({ machine: e, onOpen }: { machine: Equipment; onOpen: () => void }) {
  const life = lifeOf(e, todayIso());
  return (
    <p className={`col-span-2 self-end text-[14.5px] ${LIFE[life.is]}`}>
      {said(life.words)}
      {e.facts.openedOn === undefined && EQUIPMENT[e.kind].facts.some((f) => f === "openedOn") && (
        <button
          type="button"
          className="quiet-link ml-4 min-h-8"
          aria-label={`${e.name} is opened today`}
          onClick={onOpen}
        >
          opened today
        </button>
      )}
    </p>
  );
}

const LIFE = { good: "text-fine", soon: "text-look", unknown: "text-ink-2", spent: "text-stop" } as const;
