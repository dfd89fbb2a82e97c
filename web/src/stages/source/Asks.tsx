import type { AskRow } from "@kobbin/contract";
import { Check, CircleDashed, LoaderCircle } from "lucide-react";
import { Mark } from "../../ui/Mark.tsx";
import { count } from "../../ui/text/format.ts";

const words = (a: AskRow): string => {
  if (a.state === "answered") return count(a.offers, "offer");
  if (a.state === "failed")
    return `nothing usable after ${count(a.tries, "try", "tries")}; its older offers were kept`;
  if (a.state === "asking") return a.tries > 1 ? `asked again, try ${a.tries}` : "asked";
  return a.tries > 0 ? "asked again in a moment; its older offers stay meanwhile" : "waits";
};

/** How the questions to the suppliers stand, one by one: what one answered is kept whatever the others do. */
export function Asks({ asks }: { asks: readonly AskRow[] }) {
  const isOpen = asks.some((a) => a.state !== "answered");
  if (!isOpen) return null;
  return (
    <ul
      aria-label="Suppliers asked"
      aria-live="polite"
      className="mb-4 border-l-[3px] border-rule pl-3 text-[14px]"
    >
      {asks.map((a) => (
        <li key={a.supplierId} className="flex flex-wrap items-center gap-x-2 py-[2px]">
          {a.state === "answered" ? (
            <Check className="size-4 text-fine" aria-hidden />
          ) : a.state === "failed" ? (
            <Mark kind="look" />
          ) : a.state === "asking" ? (
            <LoaderCircle className="size-4 animate-spin text-metal motion-reduce:animate-none" aria-hidden />
          ) : (
            <CircleDashed className="size-4 text-ink-3" aria-hidden />
          )}
          <span className="font-semibold">{a.supplier}</span>
          <span className="text-ink-2">{words(a)}</span>
          {a.reason && <span className="text-ink-2">({a.reason})</span>}
        </li>
      ))}
    </ul>
  );
}
