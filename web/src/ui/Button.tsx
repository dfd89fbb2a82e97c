import type { ButtonHTMLAttributes } from "react";

const LOOKS = {
  main: "bg-ink text-paper border-ink hover:opacity-90",
  plain: "bg-sheet text-ink border-rule hover:border-ink-3",
  bare: "bg-transparent text-link border-transparent hover:underline px-1",
  stop: "bg-sheet text-stop border-rule hover:border-stop",
} as const;

/** A button; `main` once a page, for what the page is for. */
export function Button({
  look = "plain",
  className = "",
  ...props
}: ButtonHTMLAttributes<HTMLButtonElement> & { look?: keyof typeof LOOKS }) {
  return (
    <button
      type="button"
      className={`inline-flex min-h-8 items-center gap-2 rounded-[3px] border px-3 py-1 text-[14.5px] font-semibold disabled:cursor-not-allowed disabled:opacity-50 ${LOOKS[look]} ${className}`}
      {...props}
    />
  );
}
