import { type BenchTool, TOOLS, type ToolAtHand } from "@kobbin/core";
import { useMemo } from "react";
import { type KeyBinding, useKeys } from "../../../../ui/keys.ts";
import type { Used } from "../sittingModel.ts";

/** At the iron there are two: each has a key of its own. */
const KEYS: Readonly<Record<BenchTool, string>> = { heater: "w", paste: "w", iron: "i", wire: "w" };
const WHY: Readonly<Record<ToolAtHand["why"], string>> = {
  said: "",
  "as before": "as before",
  "the only one": "the only one",
  open: "which one?",
};

/** With what the step is done: what is taken while nobody says otherwise, and another by a key or a press. */
export function WithWhat({ hand, onUse }: { hand: readonly ToolAtHand[]; onUse: (used: Used) => void }) {
  const bindings = useMemo<KeyBinding[]>(
    () =>
      hand
        .filter((t) => t.all.length > 1)
        .map((t) => ({
          keys: KEYS[t.tool],
          does: `another ${TOOLS[t.tool].label}`,
          run: () => onUse({ [t.tool]: t.all[(t.all.indexOf(t.name ?? "") + 1) % t.all.length]! }),
        })),
    [hand, onUse],
  );
  useKeys(bindings, true);
  if (hand.length === 0) return null;
  return (
    <ul aria-label="With what" className="mb-3 flex flex-wrap gap-x-8 gap-y-2 text-[17px] max-sm:text-[15px]">
      {hand.map((t) => (
        <li key={t.tool} className="flex flex-wrap items-center gap-2">
          <span className="text-ink-2">{TOOLS[t.tool].label}</span>
          {t.all.length > 1 || t.why === "open" ? (
            <select
              value={t.name ?? ""}
              aria-label={TOOLS[t.tool].label}
              className="min-h-9 font-semibold"
              onChange={(e) => e.target.value !== "" && onUse({ [t.tool]: e.target.value })}
            >
              {t.name === undefined && <option value="">not said</option>}
              {[...new Set([...(t.name ? [t.name] : []), ...t.all])].map((name) => (
                <option key={name} value={name}>
                  {name}
                </option>
              ))}
            </select>
          ) : (
            <b>{t.name}</b>
          )}
          {WHY[t.why] && <span className={t.why === "open" ? "text-look" : "text-ink-2"}>{WHY[t.why]}</span>}
          {t.all.length > 1 && (
            <span className="text-[14px] text-ink-2 max-sm:hidden">
              another <kbd>{KEYS[t.tool].toUpperCase()}</kbd>
            </span>
          )}
        </li>
      ))}
    </ul>
  );
}
