import { compareRefs, partOfLine, type RunLine, ruleWords } from "@kobbin/core";
import { X } from "lucide-react";
import { useEffect, useRef } from "react";
import { useRun } from "../../run/runState.ts";
import { Alternates } from "./Alternates.tsx";
import { Belongs } from "./Belongs.tsx";
import { OwnPart } from "./OwnPart.tsx";
import { Sums } from "./Sums.tsx";

/** The sheet of one line: what its part is, what may stand in for it and what that would change. */
export function LineSheet({ line, onClose }: { line: RunLine; onClose: () => void }) {
  const { doc } = useRun();
  const box = useRef<HTMLElement>(null);
  // opened from the grid above: what the person asked for comes into view, and the keyboard with it
  useEffect(() => {
    box.current?.scrollIntoView({ block: "nearest" });
    box.current?.focus({ preventScroll: true });
  }, []);
  const refs = [...line.refs].sort(compareRefs);
  const title =
    refs.length > 0 ? `${refs.slice(0, 6).join(" ")}${refs.length > 6 ? " …" : ""}` : "loose part";
  const own = partOfLine(line, doc.library ?? []);
  return (
    <section
      ref={box}
      tabIndex={-1}
      aria-label={`Sheet of ${refs[0] ?? (line.valueText || line.mpn)}`}
      className="mt-4 border-t-2 border-metal pt-3 outline-none"
      onKeyDown={(e) => {
        if (e.key === "Escape") onClose();
      }}
    >
      <div className="mb-2 flex items-start justify-between gap-4">
        <h2>
          <span className="num">{title}</span>{" "}
          <span className="font-normal text-ink-2">
            {line.mpn === "" ? ruleWords(line) : `${line.valueText} ${line.package}`}
          </span>
        </h2>
        <button
          type="button"
          aria-label="Close the sheet"
          className="rounded p-1 text-ink-2"
          onClick={onClose}
        >
          <X className="size-5" />
        </button>
      </div>
      <OwnPart line={line} part={own} />
      <Belongs line={line} />
      <Sums line={line} />
      <Alternates line={line} />
    </section>
  );
}
