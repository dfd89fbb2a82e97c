import { type RunLine, timesInProduct } from "@kobbin/core";
import { useRun } from "../../run/runState.ts";
import { Pick } from "../../ui/Field.tsx";
import { Kept } from "../../ui/Kept.tsx";
import { count, typedNumber } from "../../ui/text/format.ts";
import { nameOf } from "./lineEdits.ts";

/** Where a line stands in the product: what it is part of, and what making one costs where it is made here. */
export function Belongs({ line }: { line: RunLine }) {
  const { doc, changeLine, isLocked } = useRun();
  const items = doc.lines.filter((l) => (l.origin === "made" || l.origin === "printed") && l.id !== line.id);
  const isMade = line.origin === "made" || line.origin === "printed";
  const inside = doc.lines.filter((l) => l.parent === line.id);
  const times = timesInProduct(doc.lines, doc.boards).get(line.id) ?? 0;
  if (items.length === 0 && !isMade) return null;
  return (
    <div className="mb-3 flex flex-wrap items-end gap-4 text-[14px]">
      {items.length > 0 && (
        <Pick
          label="Part of"
          disabled={isLocked}
          value={line.parent ?? ""}
          options={[
            ["", "the product itself"],
            ...items.map((l) => [l.id, l.valueText || nameOf(l)] as [string, string]),
          ]}
          onChange={(v) =>
            !isLocked &&
            changeLine(
              line.id,
              { parent: v || null },
              v
                ? `${nameOf(line)} is part of ${nameOf(items.find((l) => l.id === v)!)}`
                : `${nameOf(line)} stands by itself`,
            )
          }
        />
      )}
      {isMade && (
        <Kept
          label={`Making one costs, ${doc.workshop.currency}`}
          className="w-44"
          isMono
          inputMode="decimal"
          disabled={isLocked}
          value={String(line.madeCost ?? "0.00")}
          onSave={(typed) => {
            const madeCost = typedNumber(typed);
            if (/^\d+(\.\d{1,6})?$/.test(madeCost))
              changeLine(line.id, { madeCost }, `${nameOf(line)}: making one costs ${madeCost}`);
          }}
        />
      )}
      <p className="pb-1 text-ink-2">
        {isMade &&
          (inside.length === 0
            ? "Nothing is part of it yet: choose it under “Part of” in other lines. "
            : `Made of ${count(inside.length, "line")}. `)}
        {times !== line.qty && `${times} in a product.`}
      </p>
    </div>
  );
}
