import type { ReactNode } from "react";

/** The shape of what is coming. */
export function Skeleton({ rows = 5, label = "Loading" }: { rows?: number; label?: string }) {
  return (
    <div role="status" aria-label={label} className="flex flex-col gap-3 py-2">
      {Array.from({ length: rows }, (_, i) => (
        <div key={String(i)} className="skeleton h-5" style={{ width: `${92 - ((i * 17) % 40)}%` }} />
      ))}
      <p aria-hidden className="words-late text-[13.5px] text-ink-2">
        {label} …
      </p>
    </div>
  );
}

/** Something could not be had: what, and what to do. */
export function Failed({ error, again }: { error: unknown; again?: (() => void) | undefined }) {
  const e = error as { message?: string; hint?: string };
  return (
    <div role="alert" className="my-4 border-l-[3px] border-stop bg-stop-soft px-4 py-3">
      <p className="font-semibold">{e.message ?? "It could not be loaded."}</p>
      <p className="text-ink-2">{e.hint ?? "Try again."}</p>
      {again && (
        <button type="button" className="quiet-link mt-1" onClick={again}>
          try again
        </button>
      )}
    </div>
  );
}

/** Nothing here yet: one sentence, one action. */
export function Empty({ children, action }: { children: ReactNode; action?: ReactNode }) {
  return (
    <div className="my-3 border border-dashed border-rule px-5 py-6 text-ink-2">
      <p className="mb-3 max-w-[56ch]">{children}</p>
      {action}
    </div>
  );
}
