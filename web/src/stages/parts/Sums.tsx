import {
  type AttachedSum,
  figureWords,
  kindOfLine,
  type RunLine,
  SUM_KINDS,
  standingSum,
  tolerancedOf,
} from "@kobbin/core";
import { useState } from "react";
import { removeSum } from "../../resources/run.ts";
import { useRun } from "../../run/runState.ts";
import { Mark } from "../../ui/Mark.tsx";
import { useSayError } from "../../ui/toast/Toast.tsx";
import { SumForm } from "./SumForm.tsx";

/** Sums that stand on a line: worked out again whenever a value changes. */
export function Sums({ line }: { line: RunLine }) {
  const { id, doc, did, isLocked } = useRun();
  const sayError = useSayError();
  const [making, setMaking] = useState<string>();
  const [editing, setEditing] = useState<string>();
  const own = (doc.sums ?? []).filter((s) => Object.values(s.lines).includes(line.id));
  const kind = kindOfLine(line);
  const fitting = SUM_KINDS.filter(
    (k) => k.inputs.some((i) => i.part === kind) || (k.key === "lamp" && kind === "lamp"),
  );
  return (
    <div className="mb-3 text-[14px]">
      {own.map((s) =>
        editing === s.id ? (
          <SumForm key={s.id} line={line} sum={s} kindKey={s.kind} onClose={() => setEditing(undefined)} />
        ) : (
          <Standing
            key={s.id}
            sum={s}
            onEdit={isLocked ? undefined : () => setEditing(s.id)}
            onRemove={
              isLocked
                ? undefined
                : () => {
                    const done = removeSum(id, s.id);
                    done.then(() => did("The sum was removed", done), sayError);
                  }
            }
          />
        ),
      )}
      {making ? (
        <SumForm line={line} kindKey={making} onClose={() => setMaking(undefined)} />
      ) : (
        !isLocked &&
        fitting.length > 0 && (
          <p className="flex flex-wrap items-center gap-x-4">
            <span className="text-ink-2">Work out:</span>
            {fitting.map((k) => (
              <button key={k.key} type="button" className="quiet-link" onClick={() => setMaking(k.key)}>
                {k.label.toLowerCase()}
              </button>
            ))}
          </p>
        )
      )}
    </div>
  );
}

/** One sum as it stands with the values the bill has now. */
function Standing({
  sum,
  onEdit,
  onRemove,
}: {
  sum: AttachedSum;
  onEdit: (() => void) | undefined;
  onRemove: (() => void) | undefined;
}) {
  const { doc } = useRun();
  const now = standingSum(sum, (id) => {
    const l = doc.lines.find((x) => x.id === id);
    return l ? tolerancedOf(doc, l) : undefined;
  });
  if (!now) return null;
  const r = now.result;
  const words = (v: number) => figureWords(v, now.kind.unit);
  return (
    <p className="flex flex-wrap items-center gap-x-3 gap-y-1 border-t border-rule py-1">
      <Mark kind={!r ? "open" : now.isOff ? "look" : "ready"} />
      <span>
        {now.kind.label}
        {sum.name && ` (${sum.name})`}:{" "}
        {r ? (
          <>
            {now.kind.figure} <b className="num">{words(r.value)}</b>
            {sum.wanted && ` (wanted ${sum.wanted} within ${sum.withinPct} %)`}
            {r.sigma > 0 && (
              <span className="text-ink-2">
                ; by tolerances <span className="num">{words(r.worst[0])}</span> to{" "}
                <span className="num">{words(r.worst[1])}</span>
                {r.outside !== undefined && `, ${figureWords(100 * r.outside, "%")} of the units outside`}
              </span>
            )}
          </>
        ) : (
          `cannot be worked out: no ${now.missing
            .map((k) => now.kind.inputs.find((i) => i.key === k)!.label.toLowerCase())
            .join(", no ")}`
        )}
      </span>
      {onEdit && (
        <button type="button" className="quiet-link" onClick={onEdit}>
          change
        </button>
      )}
      {onRemove && (
        <button type="button" className="quiet-link" onClick={onRemove}>
          remove
        </button>
      )}
    </p>
  );
}
