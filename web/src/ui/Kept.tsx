import { type ChangeEvent, type ComponentProps, type KeyboardEvent, useState } from "react";
import { Field } from "./Field.tsx";

/** What an input needs that saves itself when it is left, or on Enter; Esc takes back what was typed. */
export function useKept(value: string, onSave: (text: string) => void) {
  const [draft, setDraft] = useState<string>();
  const keep = () => {
    if (draft !== undefined && draft.trim() !== value) onSave(draft.trim());
    setDraft(undefined);
  };
  return {
    value: draft ?? value,
    onChange: (e: ChangeEvent<HTMLInputElement>) => setDraft(e.target.value),
    onBlur: keep,
    onKeyDown: (e: KeyboardEvent) => {
      if (e.key === "Enter") keep();
      if (e.key === "Escape") setDraft(undefined);
    },
  };
}

/** A field that saves itself when it is left, or on Enter; Esc takes back what was typed. */
export function Kept({
  value,
  onSave,
  isMono = false,
  ...props
}: Omit<ComponentProps<typeof Field>, "value" | "onChange" | "onBlur" | "onKeyDown" | "isNumber"> & {
  value: string;
  onSave: (text: string) => void;
  isMono?: boolean;
}) {
  return <Field {...props} isNumber={isMono} {...useKept(value, onSave)} />;
}
