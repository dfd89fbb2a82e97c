import { useState } from "react";
import { dateExample, shownDate, typedDate } from "./dates.ts";
import { Field } from "./Field.tsx";

/** A date as the shop writes it; kept when it is left or on Enter, "today" and "+7" are understood, empty forgets it. */
export function DateField({
  label,
  value,
  onSave,
  className = "w-36",
  disabled = false,
}: {
  label: string;
  /** ISO date, or empty. */
  value: string;
  onSave: (iso: string) => void;
  className?: string;
  disabled?: boolean;
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
      placeholder="not yet"
      value={draft ?? (value === "" ? "" : shownDate(value))}
      error={draft !== undefined && meant === undefined ? `a date like ${dateExample()}` : undefined}
      onChange={(e) => setDraft(e.target.value)}
      onBlur={keep}
      onKeyDown={(e) => {
        if (e.key === "Enter") keep();
        if (e.key === "Escape") setDraft(undefined);
      }}
    />
  );
}
