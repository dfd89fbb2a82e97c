import type { ReactNode } from "react";

/** One of several ways to look at a thing, or a tool that is on or off. */
export function Tab({
  isOn,
  onClick,
  children,
}: {
  isOn: boolean;
  onClick: () => void;
  children: ReactNode;
}) {
  return (
    <button
      type="button"
      aria-pressed={isOn}
      onClick={onClick}
      className={`border-b-2 pb-[2px] text-left ${isOn ? "border-metal font-bold" : "border-transparent text-ink-2 hover:text-ink"}`}
    >
      {children}
    </button>
  );
}
