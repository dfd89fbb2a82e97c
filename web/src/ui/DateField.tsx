import { useState } from "react";
import { Field } from "./Field.tsx";
import { dateExample, shownDate, typedDate } from "./text/dates.ts";

/** A date as the shop writes it; kept when it is left or on Enter, "today" and "+7" are understood, empty forgets it. */
export function DateField({
  label,
  value,
  onSave,
  className = "w-36",
  disabled = false,
  empty = "not yet",
}: {
  label: string;
  /** ISO date, or empty. */
  value: string;
  onSave: (iso: string) => void;
  className?: string;
  disabled?: boolean;
  /** What stands there while there is none. */
  empty?: string;
}) {
  const [draft, setDraft] = useState<string>();
  const meant = draft === undefined || draft.trim() === "" ? "" : typedDate(draft);
  const keep = () => {
    if (draft === undefined || meant === undefined) return;
    if (meant !== value) onSave(meant);
    setDraft(undefined);
  };
  return (
    <Field
      label={label}
      className={className}
      disabled={disabled}
      placeholder={empty}
      value={draft ?? (value === "" ? "" : shownDate(value))}
      error={draft !== undefined && meant === undefined ? `a date like ${dateExample()}` : undefined}
      onChange={(e) => {
        const { value: text } = e.target;
        setDraft(text);
        // a form is not sent with a date nobody can read
        e.target.setCustomValidity(
          text.trim() === "" || typedDate(text) !== undefined ? "" : `Write a date like ${dateExample()}.`,
        );
      }}
      onBlur={keep}
      onKeyDown={(e) => {
        if (e.key === "Enter") keep();
        if (e.key === "Escape") setDraft(undefined);
      }}
    />
  );
}

/** A date in a form: what was meant goes with the form as an ISO date. */
export function DateInput({ label, name, empty }: { label: string; name: string; empty?: string }) {
  const [iso, setIso] = useState("");
  return (
    <>
      <DateField label={label} value={iso} onSave={setIso} className="" {...(empty ? { empty } : {})} />
      <input type="hidden" name={name} value={iso} />
    </>
  );
}
