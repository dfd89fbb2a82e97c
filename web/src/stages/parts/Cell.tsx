import { useRef, useState } from "react";

/** A value that is edited in place: Enter or a click opens it, Enter saves, Esc leaves it. */
export function Cell({
  label,
  value,
  onSave,
  isMono = false,
  disabled = false,
  empty = "–",
}: {
  label: string;
  value: string;
  onSave: (text: string) => void;
  isMono?: boolean;
  disabled?: boolean;
  empty?: string;
}) {
  const [draft, setDraft] = useState<string>();
  const button = useRef<HTMLButtonElement>(null);
  const leave = () => {
    setDraft(undefined);
    requestAnimationFrame(() => button.current?.focus());
  };
  if (draft !== undefined)
    return (
      <input
        aria-label={label}
        className={`w-full min-w-24 ${isMono ? "num" : ""}`}
        value={draft}
        // biome-ignore lint/a11y/noAutofocus: the field stands where the pressed button stood
        autoFocus
        onChange={(e) => setDraft(e.target.value)}
        onBlur={() => {
          if (draft.trim() !== value) onSave(draft.trim());
          setDraft(undefined);
        }}
        onKeyDown={(e) => {
          if (e.key === "Enter") {
            if (draft.trim() !== value) onSave(draft.trim());
            leave();
          } else if (e.key === "Escape") {
            e.stopPropagation();
            leave();
          }
        }}
      />
    );
  return (
    <button
      ref={button}
      type="button"
      disabled={disabled}
      aria-label={`${label}: ${value || "empty"}`}
      onClick={() => setDraft(value)}
      className={`min-h-6 min-w-6 max-w-full text-left ${isMono ? "num" : ""} ${disabled ? "cursor-default" : "hover:bg-sheet"}`}
    >
      {value || <span className="text-ink-3">{empty}</span>}
    </button>
  );
}
