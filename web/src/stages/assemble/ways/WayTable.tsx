import type { Method } from "@kobbin/core";
import { ChevronDown, ChevronRight } from "lucide-react";
import { useEffect, useState } from "react";
import { useRun } from "../../../run/runState.ts";
import { Delta } from "../../../ui/ChoiceRow.tsx";
import { fixed, signed } from "../../../ui/text/format.ts";
import { METHODS, useWayEffects } from "./useWayEffects.ts";
import { Swatch, WAY_WORDS } from "./WayPicture.tsx";
import type { WayEffect } from "./wayEffect.ts";
import { type WayRow, wayOfRow } from "./wayRows.ts";

/** A row that is pointed at, and the way whose cell it is. */
export interface Pointed {
  readonly row: WayRow;
  readonly method?: Method;
  readonly effect?: WayEffect | undefined;
}

/** Who does what, row by row: the way that is chosen, and what each other one would change. */
export function WayTable({
  rows,
  onSet,
  onPoint,
}: {
  rows: readonly WayRow[];
  onSet: (row: WayRow, method: Method) => void;
  onPoint: (at: Pointed | undefined) => void;
}) {
  const { isLocked } = useRun();
  const [open, setOpen] = useState<ReadonlySet<string>>(new Set());
  const shown = rows.filter((r) => r.level !== "line" || (r.under !== undefined && open.has(r.under)));
  const effects = useWayEffects(shown);
  const [held, setHeld] = useHeld(effects, (key) => {
    const row = shown.find((r) => key.startsWith(`${r.key} `));
    const method = METHODS.find((m) => row && key === `${row.key} ${m}`);
    if (row && method && !isLocked && wayOfRow(row) !== method) onSet(row, method);
  });
  const toggle = (key: string) => {
    const next = new Set(open);
    if (!next.delete(key)) next.add(key);
    setOpen(next);
  };
  return (
    <table className="rows tight w-full text-[14px]" aria-label="Who puts on what">
      <thead>
        <tr>
          <th>Parts</th>
          {METHODS.map((m) => (
            <th key={m} className="w-[104px] text-center">
              <Swatch method={m} /> {WAY_WORDS[m]}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {shown.map((row) => (
          <tr
            key={row.key}
            className={row.level === "side" ? "bg-sheet font-semibold" : ""}
            onMouseLeave={() => onPoint(undefined)}
            onBlur={() => onPoint(undefined)}
          >
            <td onMouseEnter={() => onPoint({ row })} onFocus={() => onPoint({ row })}>
              <Name row={row} isOpen={open.has(row.key)} onToggle={() => toggle(row.key)} />
            </td>
            {METHODS.map((m) => {
              const effect = effects.get(`${row.key} ${m}`);
              const point = () => onPoint({ row, method: m, effect });
              return (
                <td key={m} className="p-0! text-center" onMouseEnter={point} onFocus={point}>
                  <Cell
                    row={row}
                    method={m}
                    effect={effect}
                    isLocked={isLocked}
                    isHeld={held === `${row.key} ${m}`}
                    onSet={() => onSet(row, m)}
                    onHold={() => setHeld(`${row.key} ${m}`)}
                  />
                </td>
              );
            })}
          </tr>
        ))}
      </tbody>
    </table>
  );
}

/**
 * A press on what is being worked out is not lost: it counts once it is known that it can be. One at a time, the last: whoever
 * presses another meant that.
 */
function useHeld(effects: ReadonlyMap<string, WayEffect>, go: (key: string) => void) {
  const [held, setHeld] = useState<string>();
  const effect = held === undefined ? undefined : effects.get(held);
  useEffect(() => {
    if (held === undefined || effect === undefined) return;
    setHeld(undefined);
    if (!effect.cannot) go(held);
  }, [held, effect, go]);
  return [held, setHeld] as const;
}

const INDENT = { side: "pl-0", kind: "pl-3", line: "pl-9" } as const;

function Name({ row, isOpen, onToggle }: { row: WayRow; isOpen: boolean; onToggle: () => void }) {
  const pieces = row.by.house + row.by.stencil + row.by.iron;
  const some = `${row.refs.slice(0, 3).join(" ")}${row.refs.length > 3 ? " …" : ""}`;
  const words = (
    <>
      {row.label}
      <span className="num ml-2 text-[13px] font-normal text-ink-2">
        {row.level === "line" ? some : `${fixed(pieces, 0)}`}
      </span>
    </>
  );
  return (
    <div className={INDENT[row.level]}>
      {row.level === "kind" ? (
        <button
          type="button"
          aria-expanded={isOpen}
          className="flex items-baseline gap-1 text-left"
          title={row.refs.join(" ")}
          onClick={onToggle}
        >
          {isOpen ? (
            <ChevronDown className="size-3.5 shrink-0 self-center" aria-hidden />
          ) : (
            <ChevronRight className="size-3.5 shrink-0 self-center" aria-hidden />
          )}
          <span>{words}</span>
        </button>
      ) : (
        <span title={row.refs.join(" ")}>{words}</span>
      )}
    </div>
  );
}

/** One way for one row: chosen, in part chosen, what it would change, or why it cannot be. */
function Cell({
  row,
  method,
  effect,
  isLocked,
  isHeld,
  onSet,
  onHold,
}: {
  row: WayRow;
  method: Method;
  effect: WayEffect | undefined;
  isLocked: boolean;
  /** It was pressed while it is being worked out. */
  isHeld: boolean;
  onSet: () => void;
  onHold: () => void;
}) {
  const isOwn = wayOfRow(row) === method;
  if (row.isByHand && method === "stencil") return null;
  const name = `${row.label}: ${WAY_WORDS[method]}`;
  const all = row.by.house + row.by.stencil + row.by.iron;
  const part = !isOwn && row.by[method] > 0 ? `${fixed(row.by[method], 0)} of ${fixed(all, 0)}` : "";
  const isReady = !isLocked && effect !== undefined && !effect.cannot;
  const told = isOwn
    ? "chosen"
    : !effect
      ? isHeld
        ? "chosen once it is worked out"
        : "being worked out"
      : effect.cannot
        ? `cannot be, ${effect.cannot}`
        : `${signed(effect.perGood)} per good one, ${signed(effect.minutes, 0)} minutes${effect.brings ? `, but ${effect.brings}` : ""}`;
  return (
    <button
      type="button"
      aria-pressed={isOwn}
      aria-disabled={!isReady}
      aria-label={`${name}: ${told}`}
      className={`w-full py-[5px] focus-visible:bg-metal-soft ${isOwn ? "bg-metal-soft font-semibold" : isReady ? "hover:bg-metal-soft" : "cursor-not-allowed text-[13px] text-ink-3"}`}
      onClick={() => (effect === undefined && !isLocked ? onHold() : isReady && !isOwn && onSet())}
    >
      {isOwn ? (
        <>
          <span aria-hidden>●</span> chosen
        </>
      ) : effect?.cannot ? (
        "cannot"
      ) : (
        <>
          {part && <span className="mr-1 text-[12.5px] text-ink-2">{part}</span>}
          {effect ? <Delta value={effect.perGood} /> : "…"}
          {effect?.brings && <span className="ml-1 text-stop">!</span>}
        </>
      )}
    </button>
  );
}
