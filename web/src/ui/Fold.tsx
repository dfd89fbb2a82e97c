import { ChevronRight } from "lucide-react";
import { type ReactNode, useEffect, useState } from "react";

/** Something long behind one line that already says what matters of it. */
export function Fold({
  id,
  title,
  verdict,
  isOpen = false,
  children,
}: {
  id: string;
  title: string;
  /** What a reader would look for in it. */
  verdict?: ReactNode;
  /** Opens it, as when something in it is shown elsewhere; the person may fold it again. */
  isOpen?: boolean;
  children: ReactNode;
}) {
  const [open, setOpen] = useState(isOpen);
  useEffect(() => {
    if (isOpen) setOpen(true);
  }, [isOpen]);
  return (
    <section aria-labelledby={id} className="border-t border-rule">
      <button
        type="button"
        aria-expanded={open}
        className="flex min-h-9 w-full flex-wrap items-baseline gap-x-3 py-[7px] text-left hover:bg-sheet"
        onClick={() => setOpen(!open)}
      >
        <ChevronRight
          aria-hidden
          className={`size-3.5 shrink-0 self-center text-ink-3 ${open ? "rotate-90" : ""}`}
        />
        <h2 id={id} className="text-[15px] font-semibold">
          {title}
        </h2>
        <span className="text-[14px] text-ink-2">{verdict}</span>
      </button>
      {open && <div className="pb-4 pl-[26px] max-md:pl-0">{children}</div>}
    </section>
  );
}
