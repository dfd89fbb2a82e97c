import { type ReactNode, useState } from "react";
import { Field } from "./Field.tsx";

/** A field that saves itself when it is left, or on Enter; Esc takes back what was typed. */
export function Kept({
  label,
  value,
  onSave,
  hint,
  disabled,
  isMono = false,
  type = "text",
}: {
  label: string;
  value: string;
  onSave: (text: string) => void;
  hint?: ReactNode;
  disabled: boolean;
  isMono?: boolean;
  type?: string;
}) {
  const [draft, setDraft] = useState<string>();
  const keep = () => {
    if (draft !== undefined && draft.trim() !== value) onSave(draft.trim());
    setDraft(undefined);
  };
  return (
    <Field
      label={label}
      type={type}
      hint={hint}
      disabled={disabled}
      isNumber={isMono}
      value={draft ?? value}
      onChange={(e) => setDraft(e.target.value)}
      onBlur={keep}
      onKeyDown={(e) => {
        if (e.key === "Enter") keep();
        if (e.key === "Escape") setDraft(undefined);
      }}
    />
  );
}
