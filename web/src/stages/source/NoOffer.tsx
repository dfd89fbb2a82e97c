import type { RunNeed } from "@kobbin/core";
import { useRun } from "../../run/runState.ts";
import { count } from "../../ui/text/format.ts";

/** Why a line stands in no basket: who does not list it, and what they have that may stand in. */
export function NoOffer({ need, unlisted }: { need: RunNeed; unlisted: readonly string[] }) {
  const { doc } = useRun();
  if (need.listed.length > 0) return "not in this basket";
  const others = new Set(
    doc.offers.flatMap((o) => (o.part !== undefined && need.lines.includes(o.line) ? [o.part] : [])),
  );
  return (
    <span title={unlisted.length > 0 ? `not listed by ${unlisted.join(", ")}` : undefined}>
      {unlisted.length === 0
        ? "no offer"
        : unlisted.length === 1
          ? `not listed by ${unlisted[0]}`
          : `not listed by ${unlisted.length}`}
      {others.size > 0 && (
        <span className="block text-look">
          {count(others.size, "part")} that may stand in {others.size === 1 ? "is" : "are"} offered
        </span>
      )}
    </span>
  );
}
