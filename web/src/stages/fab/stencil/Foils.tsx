import { changeWords, type Foil, openingsToKeep, standingOf } from "@kobbin/core";
import { type FormEvent, useState } from "react";
import { addFoil, removeFoil, saveFoil } from "../../../resources/run.ts";
import { useEffects, useRun } from "../../../run/runState.ts";
import { Button } from "../../../ui/Button.tsx";
import { ChoiceRow } from "../../../ui/ChoiceRow.tsx";
import { Field, Pick } from "../../../ui/Field.tsx";
import { Kept } from "../../../ui/Kept.tsx";
import { useOnce } from "../../../ui/once.ts";
import { count, day, money, said, typedNumber, written } from "../../../ui/text/format.ts";
import { useSay, useSayError } from "../../../ui/toast/Toast.tsx";

const STATES = [
  ["ready", "ready"],
  ["worn", "worn"],
  ["gone", "thrown away"],
] as const;

/** Which foil this run is printed with: a new one, or one the shop has; and what is known of each. */
export function Foils({
  boardIndex,
  foilMm,
  without,
}: {
  boardIndex: number;
  foilMm: number;
  without: readonly string[];
}) {
  const { doc, change, isLocked } = useRun();
  const effects = useEffects("assemble");
  const foils = doc.foils ?? [];
  return (
    <section aria-labelledby="foils" className="mt-6">
      <h2 id="foils" className="mb-1">
        Which foil
      </h2>
      {effects && (
        <ChoiceRow
          decision="Foil"
          why="one whose openings agree with the paste layer costs nothing more"
          alternatives={effects.foils}
          disabled={isLocked}
          onChoose={(v) =>
            change(
              { assembly: { foil: v } } as never,
              v === "" ? "A new foil" : `Foil: ${effects.foils.find((f) => f.value === v)?.label}`,
            )
          }
        />
      )}
      {effects && effects.foilsAt.length > 1 && (
        <ChoiceRow
          decision="Bought"
          why="loose for a hand and tape, in a frame for a press; both sides on one foil where they fit"
          alternatives={effects.foilsAt}
          disabled={isLocked}
          showsSaving={false}
          onChoose={(v) => {
            const [foilHouse = "", foilForm = "loose"] = v.split(":");
            change(
              { assembly: { foilHouse, foilForm } } as never,
              `Foil bought: ${effects.foilsAt.find((f) => f.value === v)?.label}`,
            );
          }}
        />
      )}
      <Press />
      {foils.map((f) => (
        <FoilRow key={f.id} foil={f} />
      ))}
      {!isLocked && <Keep boardIndex={boardIndex} foilMm={foilMm} without={without} />}
    </section>
  );
}

/** What the shop's own press holds: two sides, typed once. */
function Press() {
  const { doc, change, isLocked } = useRun();
  const say = useSay();
  const [a, b] = doc.assembly.pressMm ?? [];
  const save = (text: string) => {
    const sides = text.split(/\s*[x×]\s*/i).map((s) => Number(typedNumber(s.replace(/mm$/i, "").trim())));
    if (text === "") change({ assembly: { pressMm: null } } as never, "What the press holds is not said");
    else if (sides.length === 2 && sides.every((v) => v >= 20 && v <= 2000))
      change({ assembly: { pressMm: sides } } as never, `The press holds foils of ${sides.join(" × ")} mm`);
    else
      say(`“${text}” is no size of a foil`, {
        hint: "Write two sides from 20 to 2000 mm, like 280 × 380.",
        isProblem: true,
      });
  };
  return (
    <Kept
      label="Your press or table holds foils up to, mm"
      className="my-2 w-72"
      placeholder="not said, such as 280 × 380"
      disabled={isLocked}
      value={a === undefined ? "" : `${written(String(a))} × ${written(String(b))}`}
      onSave={save}
    />
  );
}

/** One foil of the shop: what it is, whether it serves, and what was done with it. */
function FoilRow({ foil: f }: { foil: Foil }) {
  const { id, doc, result: r, did, isLocked } = useRun();
  const sayError = useSayError();
  const s = standingOf(doc, f);
  const write = (body: Parameters<typeof saveFoil>[2], words: string) => {
    const done = saveFoil(id, f.id, body);
    done.then(() => did(words, done), sayError);
  };
  const openings = Object.values(f.openings).reduce((n, o) => n + o.length / 4, 0);
  return (
    <div className="flex flex-col gap-1 border-t border-rule px-2 py-2 text-[14px]">
      <div>
        <b>{f.name}</b>{" "}
        <span className="text-ink-2">
          {said(
            `${f.board}, ${Object.keys(f.openings).join(" and ")}, ${f.foilMm} mm, ${f.form}, ${count(openings, "opening")}`,
          )}
          ; {day(f.madeOn)}, {money(Number(f.price), f.currency)}
          {f.place && `; lies in ${f.place}`}
        </span>
        <span className={`block ${s.cannot ? "text-stop" : "text-ink-2"}`}>
          {s.cannot
            ? `cannot be used: ${said(s.cannot)}`
            : s.sides.map(({ side, verdict }) => `${side}: ${changeWords(verdict!)}`).join("; ")}
        </span>
        <span className="block text-ink-2">
          {f.prints === 0 ? "not printed with yet" : `${count(f.prints, "board")} printed`}
          {f.prints + r.start > 0 &&
            `, ${money(Number(f.price) / (f.prints + r.start), f.currency)} each with this run`}
          {f.cleanedOn ? `; cleaned ${day(f.cleanedOn)}` : "; not cleaned"}
        </span>
      </div>
      {!isLocked && (
        <div className="flex flex-wrap items-center gap-x-4 gap-y-1">
          <button
            type="button"
            className="quiet-link"
            onClick={() => write({ prints: f.prints + r.start }, `${f.name}: ${r.start} more boards printed`)}
          >
            {r.start} more printed
          </button>
          <button
            type="button"
            className="quiet-link"
            onClick={() => write({ cleanedOn: doc.today }, `${f.name} was cleaned`)}
          >
            cleaned today
          </button>
          <Pick
            label={`State of ${f.name}`}
            hideLabel
            value={f.state}
            options={STATES}
            onChange={(state) => write({ state: state as Foil["state"] }, `${f.name} is ${state}`)}
          />
          <button
            type="button"
            className="quiet-link"
            aria-label={`Take ${f.name} off the list`}
            onClick={() => {
              const done = removeFoil(id, f.id);
              done.then(() => did(`${f.name} is off the list`, done), sayError);
            }}
          >
            take off
          </button>
        </div>
      )}
    </div>
  );
}

/** Keeps the foil of this board as one the shop has. */
function Keep({
  boardIndex,
  foilMm,
  without,
}: {
  boardIndex: number;
  foilMm: number;
  without: readonly string[];
}) {
  const { id, answer, doc, did } = useRun();
  const sayError = useSayError();
  const once = useOnce();
  const [isOpen, setOpen] = useState(false);
  const [form, setForm] = useState<Foil["form"]>("loose");
  const board = doc.boards[boardIndex];
  if (!board) return null;
  const openings = Object.fromEntries(
    (["top", "bottom"] as const).flatMap((side) => {
      const list = openingsToKeep(board.measure, side);
      return list && list.length > 0 ? [[side, list]] : [];
    }),
  );
  if (Object.keys(openings).length === 0)
    return (
      <p className="mt-2 text-[14px] text-look">
        The openings of this board are not listed one by one, so no foil can be held against them later.
      </p>
    );
  const submit = (e: FormEvent<HTMLFormElement>) => {
    e.preventDefault();
    const f = new FormData(e.currentTarget);
    const text = (key: string) => String(f.get(key) ?? "").trim();
    once(() => {
      const done = addFoil(id, answer.productId, {
        name: text("name"),
        board: board.name,
        foilMm,
        form,
        openings,
        without: [...without],
        price: typedNumber(text("price")),
        currency: doc.workshop.currency,
        madeOn: doc.today,
        place: text("place"),
        note: "",
      });
      return done.then(() => {
        did(`${text("name")} is kept`, done);
        setOpen(false);
      }, sayError);
    });
  };
  if (!isOpen)
    return (
      <p className="mt-2">
        <button type="button" className="quiet-link" onClick={() => setOpen(true)}>
          keep this foil as one the shop has
        </button>
      </p>
    );
  return (
    <form onSubmit={submit} className="mt-3 flex flex-wrap items-end gap-3">
      <Field
        label="Name on it"
        name="name"
        required
        maxLength={120}
        defaultValue={`${board.name}, ${foilMm} mm`}
        className="w-64"
      />
      <Field
        label={`Paid, ${doc.workshop.currency}`}
        name="price"
        isNumber
        required
        inputMode="decimal"
        pattern="\d+([.,]\d+)?"
        defaultValue={String(doc.assembly.stencilPrice)}
        className="w-28"
      />
      <Pick
        label="Form"
        value={form}
        options={[
          ["loose", "loose foil"],
          ["framed", "in a frame"],
        ]}
        onChange={(v) => setForm(v as Foil["form"])}
      />
      <Field label="Lies in" name="place" maxLength={120} className="w-40" />
      <Button type="submit" look="main">
        Keep it
      </Button>
      <Button onClick={() => setOpen(false)}>Leave it</Button>
    </form>
  );
}
