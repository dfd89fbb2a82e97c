import type { PartBody } from "@kobbin/contract";
import { attributesOf, PART_KINDS, PART_STATES, type PartKind, type PartState } from "@kobbin/core";
import { X } from "lucide-react";
import { useState } from "react";
import { Link } from "react-router";
import { savePart, usePart } from "../../resources/library.ts";
import { useRole } from "../../resources/session.ts";
import { Button } from "../../ui/Button.tsx";
import { DateField } from "../../ui/DateField.tsx";
import { Field, Pick } from "../../ui/Field.tsx";
import { Kept } from "../../ui/Kept.tsx";
import { Mark } from "../../ui/Mark.tsx";
import { Failed, Skeleton } from "../../ui/States.tsx";
import { count, day, typedNumber } from "../../ui/text/format.ts";
import { useSay, useSayError } from "../../ui/toast/Toast.tsx";
import { WhenFitted } from "./WhenFitted.tsx";

/** One part: its attributes by class, what was tried and measured, where it is used, a suspicion. */
export function PartSheet({ id, onClose }: { id: string; onClose: () => void }) {
  const { data, error, mutate } = usePart(id);
  const isOwner = useRole() === "owner";
  const say = useSay();
  const sayError = useSayError();
  if (error && !data) return <Failed error={error} again={() => mutate()} />;
  if (!data) return <Skeleton rows={6} />;
  const { part, uses } = data;
  const save = (change: PartBody, words: string) =>
    savePart(id, { version: part.version, ...change }).then(() => say(words), sayError);
  const number = (typed: string, what: string, keep: (n: number | null) => void) => {
    const n = typed === "" ? null : Number(typedNumber(typed));
    if (n !== null && !(n >= 0))
      say(`${what}: “${typed}” is no number.`, { isProblem: true, hint: "It stays as it was." });
    else keep(n);
  };
  const text = (
    key: "maker" | "description" | "package" | "direction" | "tried" | "sheet" | "measured",
    label: string,
    hint?: string,
  ) => (
    <Kept
      label={label}
      value={part[key]}
      disabled={!isOwner}
      hint={hint}
      onSave={(v) => save({ [key]: v }, `${part.mpn}: ${label.toLowerCase()} kept`)}
    />
  );
  return (
    <section
      aria-label={`Part ${part.mpn}`}
      className="sticky top-4 max-h-[calc(100vh-90px)] self-start overflow-y-auto border-t-2 border-metal pt-3 pr-2 max-lg:static max-lg:order-first max-lg:max-h-none"
    >
      <div className="flex items-start justify-between gap-3">
        <h2>
          <span className="num">{part.mpn}</span> <span className="font-normal text-ink-2">{part.maker}</span>
        </h2>
        <button
          type="button"
          aria-label="Close the part"
          className="rounded p-1 text-ink-2"
          onClick={onClose}
        >
          <X className="size-5" />
        </button>
      </div>
      <Suspicion
        part={part}
        isOwner={isOwner}
        onSave={(because) =>
          save(
            { suspectBecause: because },
            because ? `${part.mpn} is suspected now, in every product` : `${part.mpn} is cleared`,
          )
        }
      />
      <div className="mt-3 grid grid-cols-3 gap-x-4 gap-y-2 max-sm:grid-cols-2">
        <Pick
          disabled={!isOwner}
          label="Class"
          value={part.kind}
          options={PART_KINDS.map((k) => [k, k])}
          onChange={(v) => save({ kind: v as PartKind }, `${part.mpn}: class ${v}`)}
        />
        {text("package", "Package")}
        {text("maker", "Maker")}
        {attributesOf(part.kind)
          .filter((a) => a.key !== "height")
          .map((a) => (
            <Kept
              key={a.key}
              label={a.label[0]!.toUpperCase() + a.label.slice(1)}
              value={part.params[a.key] ?? ""}
              disabled={!isOwner}
              isMono
              hint={a.isVital && !part.params[a.key] ? "needed for a comparison" : undefined}
              onSave={(v) => {
                const { [a.key]: _, ...rest } = part.params;
                save({ params: v === "" ? rest : { ...rest, [a.key]: v } }, `${part.mpn}: ${a.label} kept`);
              }}
            />
          ))}
        <Sizes
          part={part}
          disabled={!isOwner}
          onSave={(key, label, v) =>
            number(v, label, (n) => save({ [key]: n }, `${part.mpn}: ${label.toLowerCase()} kept`))
          }
        />
        <WhenFitted part={part} disabled={!isOwner} onSave={save} onNumber={number} />
        <Pick
          disabled={!isOwner}
          label="In its maker’s plans"
          value={part.state}
          options={PART_STATES.map((k) => [k, k])}
          onChange={(v) => save({ state: v as PartState }, `${part.mpn}: ${v}`)}
        />
        <Pick
          disabled={!isOwner}
          label="Mounted"
          value={part.mount ?? ""}
          options={[
            ["", "as the bill says"],
            ["machine", "by machine"],
            ["hand", "by hand"],
            ["none", "not by us"],
          ]}
          onChange={(v) =>
            save({ mount: (v || null) as "machine" | "hand" | "none" | null }, `${part.mpn}: mounting kept`)
          }
        />
        {text("direction", "Mark of its direction", part.direction ? undefined : "empty: it has none")}
      </div>
      <div className="mt-2 grid gap-y-2">
        {text("description", "Description")}
        <div className="grid grid-cols-[150px_1fr] gap-4">
          <DateField
            label="Tried on"
            className=""
            value={part.triedOn ?? ""}
            disabled={!isOwner}
            onSave={(v) =>
              save({ triedOn: v === "" ? null : v }, `${part.mpn}: tried ${v === "" ? "not yet" : day(v)}`)
            }
          />
          {text("tried", "How it went on the bench")}
        </div>
        {text("sheet", "From its data sheet, easily missed")}
        {text("measured", "Measured here")}
      </div>
      <h3 className="mt-4 mb-1 text-[15px] font-semibold">Where it is used</h3>
      {uses.length === 0 ? (
        <p className="text-[14px] text-ink-2">No bill names it.</p>
      ) : (
        <ul className="text-[14px]">
          {uses.map((u) => (
            <li key={`${u.revisionId} ${u.refs.join()}`} className="border-t border-rule py-1">
              {u.product} {u.revision}:{" "}
              <span className="num">{u.refs.slice(0, 6).join(" ") || u.valueText}</span>
              {u.refs.length > 6 && " …"}
              {u.dnp && " (not placed)"}
              {u.runs.map((r) => (
                <Link
                  key={r.id}
                  className="quiet-link ml-3"
                  to={`/runs/${r.id}/parts?find=${encodeURIComponent(part.mpn)}`}
                >
                  {r.name}
                  {r.state === "released" ? ", ordered" : ""}
                </Link>
              ))}
            </li>
          ))}
        </ul>
      )}
      <p className="mt-1 text-[13px] text-ink-2">
        {usedBy(new Set(uses.flatMap((u) => u.runs.map((r) => r.id))).size)}
      </p>
    </section>
  );
}

const usedBy = (runs: number) => `${count(runs, "run")} ${runs === 1 ? "uses" : "use"} it.`;

const SIZES = [
  ["heightMm", "Height", "mm"],
  ["bodyLengthMm", "Body length", "mm"],
  ["bodyWidthMm", "Body width", "mm"],
  ["massMg", "Mass", "mg"],
  ["restMa", "Draws at rest", "mA"],
  ["mostMa", "Draws at the most", "mA"],
  ["carriesMa", "Carries at the most", "mA"],
  ["keepLeast", "Never fewer on the shelf", "pieces"],
] as const;

/** What a part measures, weighs and draws: how it stands on a board, what a parcel of it weighs, what to expect at first power. */
function Sizes({
  part,
  disabled,
  onSave,
}: {
  part: { readonly [K in (typeof SIZES)[number][0]]?: number };
  disabled: boolean;
  onSave: (key: (typeof SIZES)[number][0], label: string, text: string) => void;
}) {
  return SIZES.map(([key, label, unit]) => (
    <Kept
      key={key}
      label={`${label}, ${unit}`}
      value={part[key] === undefined ? "" : String(part[key])}
      disabled={disabled}
      isMono
      onSave={(v) => onSave(key, label, v)}
    />
  ));
}

function Suspicion({
  part,
  isOwner,
  onSave,
}: {
  part: { mpn: string; suspect?: { since: string; because: string; by: string } };
  isOwner: boolean;
  onSave: (because: string) => void;
}) {
  const [why, setWhy] = useState<string>();
  if (part.suspect)
    return (
      <p className="mt-1 flex flex-wrap items-center gap-3 border-l-[3px] border-stop bg-stop-soft px-3 py-1 text-[14px]">
        <Mark kind="blocked" /> Suspected since {day(part.suspect.since)} by {part.suspect.by}:{" "}
        {part.suspect.because}. It blocks every run that has it.
        {isOwner && (
          <button type="button" className="quiet-link" onClick={() => onSave("")}>
            clear it
          </button>
        )}
      </p>
    );
  if (!isOwner) return null;
  if (why === undefined)
    return (
      <button type="button" className="quiet-link" onClick={() => setWhy("")}>
        found bad
      </button>
    );
  return (
    <form
      className="mt-1 flex flex-wrap items-end gap-2"
      onSubmit={(e) => {
        e.preventDefault();
        if (why.trim()) onSave(why.trim());
        setWhy(undefined);
      }}
    >
      <Field
        label="What was found, where"
        className="min-w-72 flex-1"
        value={why}
        onChange={(e) => setWhy(e.target.value)}
        autoFocus
      />
      <Button type="submit" look="stop" disabled={why.trim() === ""}>
        Suspect it in every product
      </Button>
      <Button look="bare" onClick={() => setWhy(undefined)}>
        leave it
      </Button>
    </form>
  );
}
