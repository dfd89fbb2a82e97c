import { besidesWords, comesOf, limitsOff, limitText, shapes, type TestItem } from "@kobbin/core";
import { ArrowDown, ArrowUp } from "lucide-react";
import { memo } from "react";
import { useRun } from "../../../run/runState.ts";
import { Pick } from "../../../ui/Field.tsx";
import { Kept } from "../../../ui/Kept.tsx";
import { said, typedNumber, written } from "../../../ui/text/format.ts";
import { useSay } from "../../../ui/toast/Toast.tsx";
import { MoreFields } from "./MoreFields.tsx";
import { changed, moved, replaced, STATES, typedPins, withLimit, without, withUnit } from "./testModel.ts";

type Keep = (tests: readonly TestItem[], words: string) => void;
/** An item that is open, its place among all. */
interface Opened {
  readonly item: TestItem;
  readonly n: number;
  readonly of: number;
  readonly plan: readonly TestItem[];
  readonly onKeep: Keep;
}

/** One item of the plan as a line; opened, each of its fields is kept as it is left. Drawn anew only where it is another. */
export const Item = memo(function Item({
  item: t,
  n,
  of,
  idle,
  plan,
  onOpen,
  onPoint,
  onKeep,
}: {
  item: TestItem;
  n: number;
  of: number;
  idle: string | undefined;
  /** All items, of the one that is open. */
  plan: readonly TestItem[] | undefined;
  onOpen: (id: string, isOpen: boolean) => void;
  onPoint: (id: string | undefined) => void;
  onKeep: Keep;
}) {
  const isOpen = plan !== undefined;
  const deaf = limitsOff(t);
  const places = [...t.drives, ...t.reads, ...t.through];
  return (
    <li
      className="border-b border-rule py-1.5"
      onMouseEnter={() => onPoint(t.id)}
      onMouseLeave={() => onPoint(undefined)}
      onFocus={() => onPoint(t.id)}
    >
      <button
        type="button"
        aria-expanded={isOpen}
        className="grid w-full grid-cols-[2em_minmax(0,1.1fr)_minmax(0,1.5fr)_minmax(0,1fr)_7.5em_4.5em] items-baseline gap-x-3 text-left text-[14.5px] hover:bg-metal-soft max-lg:grid-cols-[2em_minmax(0,1fr)_minmax(0,1fr)]"
        onClick={() => onOpen(t.id, !isOpen)}
      >
        <span className="num text-ink-2">{n}</span>
        <b className="min-w-0 truncate">{t.name}</b>
        <span className="num min-w-0 truncate" title={comesOf(t)}>
          {said(limitText(t) || comesOf(t))}
        </span>
        <span className="num min-w-0 truncate text-[13.5px] text-ink-2 max-lg:hidden">
          {[...new Set(places)].join(" ")}
        </span>
        <span className="text-[13.5px] text-ink-2 max-lg:hidden">
          {t.besides ? besidesWords(t.besides) : STATES.find(([s]) => s === t.state)?.[1]}
        </span>
        <span className="num text-right text-[13.5px] text-ink-2 max-lg:hidden">
          {written(String(t.minutes))} min
        </span>
      </button>
      {idle && <p className="pl-[2.6em] text-[14px] text-look">It exercises nothing: {idle}.</p>}
      {deaf && <p className="pl-[2.6em] text-[14px] text-look">It cannot judge a reading: {deaf}.</p>}
      {plan && <Form item={t} n={n} of={of} plan={plan} onKeep={onKeep} />}
    </li>
  );
});

/** Fields of an item. */
function Form({ item: t, n, of, plan, onKeep }: Opened) {
  const { doc, isLocked } = useRun();
  const say = useSay();
  const set = (more: Partial<TestItem>, what: string) =>
    onKeep(changed(plan, t.id, more), `${t.name}: ${what}`);
  const boards = doc.boards.length > 1 ? doc.boards.map((b) => b.name) : [];
  const names = (key: "drives" | "reads" | "through" | "absent", label: string, placeholder: string) => (
    <Kept
      label={label}
      placeholder={placeholder}
      disabled={isLocked}
      isMono
      maxLength={400}
      value={(t[key] ?? []).join(" ")}
      onSave={(v) => set({ [key]: typedPins(v, boards) }, label.toLowerCase())}
    />
  );
  const refuse = (text: string) => say(text, { isProblem: true, hint: "It stays as it was." });
  const limit = (key: "min" | "max" | "guard", label: string) => (
    <Kept
      label={label}
      disabled={isLocked || t.unit === undefined}
      isMono
      maxLength={24}
      value={written(t[key] ?? "")}
      onSave={(v) => {
        const next = withLimit(t, key, v);
        if (!next) return refuse(`${t.name}: “${v}” is no number.`);
        onKeep(replaced(plan, next), `${t.name}: ${label.toLowerCase()} ${v || "nothing"}`);
      }}
    />
  );
  return (
    <fieldset className="my-2 ml-[2.6em] border-l-2 border-rule pl-3">
      <legend className="sr-only">
        {n}. {t.name}
      </legend>
      <div className="grid grid-cols-4 items-end gap-x-3 gap-y-2 max-lg:grid-cols-2">
        <Kept
          label="What is tried"
          disabled={isLocked}
          maxLength={120}
          value={t.name}
          onSave={(v) => v !== "" && set({ name: v }, `called ${v}`)}
        />
        {names("drives", "Driven at", "U1.4")}
        {names("reads", "Read at", "TP3")}
        {names("through", "Through", "R4 D2")}
        <Pick
          label="Answered by"
          value={t.unit ?? ""}
          disabled={isLocked}
          options={[
            ["", "yes or no"],
            ...shapes.TEST_UNITS.map((u) => [u, u === "pieces" ? "a count" : `a reading, ${u}`] as const),
          ]}
          onChange={(v) =>
            onKeep(replaced(plan, withUnit(t, v)), `${t.name}: ${v === "" ? "yes or no" : `in ${v}`}`)
          }
        />
        {limit("min", "At least")}
        {limit("max", "At most")}
        {limit("guard", "Meter’s error, ±")}
        <Kept
          label={t.unit === undefined ? "What should come" : "What to mind"}
          placeholder={t.unit === undefined ? "it lights" : ""}
          disabled={isLocked}
          maxLength={200}
          value={t.expect}
          onSave={(v) => set({ expect: v }, "what should come")}
        />
        {names("absent", "Must not be on", "J2 U5")}
        <Pick
          label="Board is"
          value={t.state}
          disabled={isLocked}
          options={STATES}
          onChange={(v) => set({ state: v as TestItem["state"] }, STATES.find(([s]) => s === v)![1])}
        />
        <Kept
          label="min"
          isMono
          disabled={isLocked}
          value={written(String(t.minutes))}
          onSave={(v) => {
            const minutes = Number(typedNumber(v));
            if (!(minutes >= 0 && minutes <= 600))
              return refuse(`${t.name}: “${v}” is no number of minutes.`);
            set({ minutes }, "minutes");
          }}
        />
      </div>
      <MoreFields item={t} plan={plan} isLocked={isLocked} onKeep={onKeep} refuse={refuse} />
      {t.because && <p className="mt-1 text-[13.5px] text-ink-2">Limits: {t.because}.</p>}
      {!isLocked && <Moves item={t} n={n} of={of} plan={plan} onKeep={onKeep} />}
    </fieldset>
  );
}

/** An item earlier, later, or gone. */
function Moves({ item: t, n, of, plan, onKeep }: Opened) {
  return (
    <span className="mt-1 flex items-center whitespace-nowrap">
      <button
        type="button"
        className="p-1 text-ink-2 disabled:opacity-25"
        aria-label={`${t.name} earlier`}
        disabled={n === 1}
        onClick={() => onKeep(moved(plan, t.id, -1), `${t.name} earlier`)}
      >
        <ArrowUp className="size-4" />
      </button>
      <button
        type="button"
        className="p-1 text-ink-2 disabled:opacity-25"
        aria-label={`${t.name} later`}
        disabled={n === of}
        onClick={() => onKeep(moved(plan, t.id, 1), `${t.name} later`)}
      >
        <ArrowDown className="size-4" />
      </button>
      <button
        type="button"
        className="quiet-link ml-1"
        aria-label={`Remove ${t.name}`}
        onClick={() => onKeep(without(plan, t.id), `${t.name} removed`)}
      >
        remove
      </button>
    </span>
  );
}
