import { useEffect, useRef, useState } from "react";

type Then = "down" | "right" | "left" | "stay";

/** The field over a cell: Enter and Tab keep what is typed and go on, Esc leaves the cell as it was. */
export function CellEditor({
  label,
  text,
  options,
  isMono,
  onEnd,
}: {
  label: string;
  text: string;
  options: readonly (readonly [string, string])[] | undefined;
  isMono: boolean;
  onEnd: (text: string | undefined, then: Then) => void;
}) {
  const [draft, setDraft] = useState(text);
  const ended = useRef(false);
  const field = useRef<HTMLInputElement & HTMLSelectElement>(null);
  // the field stands where the cell stood: the focus goes into it, at the end of its text
  useEffect(() => {
    field.current?.focus({ preventScroll: true });
    if (field.current instanceof HTMLInputElement)
      field.current.setSelectionRange(field.current.value.length, field.current.value.length);
  }, []);
  const end = (value: string | undefined, then: Then) => {
    if (ended.current) return;
    ended.current = true;
    onEnd(value, then);
  };
  const onKeyDown = (e: React.KeyboardEvent) => {
    e.stopPropagation();
    const then = e.key === "Enter" ? "down" : e.key === "Tab" ? (e.shiftKey ? "left" : "right") : undefined;
    if (then) {
      e.preventDefault();
      end(draft.trim(), then);
    } else if (e.key === "Escape") {
      e.preventDefault();
      end(undefined, "stay");
    }
  };
  const common = {
    ref: field,
    "aria-label": label,
    value: draft,
    onKeyDown,
    onBlur: () => end(draft.trim(), "stay"),
    onClick: (e: React.MouseEvent) => e.stopPropagation(),
    onDoubleClick: (e: React.MouseEvent) => e.stopPropagation(),
  };
  return options ? (
    <select
      {...common}
      className="-mx-[5px] min-h-0! w-[calc(100%+10px)] border-0! px-0! py-0!"
      onChange={(e) => {
        setDraft(e.target.value);
        end(e.target.value, "stay");
      }}
    >
      {options.map(([v, t]) => (
        <option key={v} value={v}>
          {t}
        </option>
      ))}
    </select>
  ) : (
    <input
      {...common}
      className={`-mx-[5px] min-h-0! w-[calc(100%+10px)] border-0! bg-sheet px-[5px]! py-[2px]! ${isMono ? "num" : ""}`}
      onChange={(e) => setDraft(e.target.value)}
    />
  );
}
