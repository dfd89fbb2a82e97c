import { type Effect, OPTION_WORDS, type OptionKey } from "@kobbin/core";
import { useRun } from "../../run/runState.ts";
import { ChoiceRow } from "../../ui/ChoiceRow.tsx";
import { said } from "../../ui/format.ts";

/** One decision of the order sheet: each value with its effect, with what it needs beside it, or why it cannot be. */
export function OptionRow({
  option,
  label,
  why,
  showsSaving,
}: {
  option: OptionKey;
  label: string;
  why: string;
  showsSaving: boolean;
}) {
  const { effects, change, isLocked } = useRun();
  const list = effects!.options[option];
  return (
    <ChoiceRow
      decision={label}
      why={why}
      alternatives={list.map((e) => ({ ...e, cannot: refusal(e), why: needs(e) }))}
      disabled={isLocked}
      showsSaving={showsSaving}
      onChoose={(v) => {
        const e = list.find((x) => x.value === v)!;
        const also = (e.with ?? []).map((c) => `${OPTION_WORDS[c.key].word} ${c.to}`);
        change(
          { options: { ...valuesOf(e), [option]: typed(option, v) } } as never,
          `${label}: ${e.label}${also.length > 0 ? `, with ${also.join(", ")}` : ""}`,
        );
      }}
    />
  );
}

const typed = (option: OptionKey, value: string): string | number =>
  option === "leadDays" ? Number(value) : value;

/** The values that change with it, as a request has them. */
const valuesOf = (e: Effect) => Object.fromEntries((e.with ?? []).map((c) => [c.key, typed(c.key, c.value)]));

/** Why it cannot be, and where it could. */
const refusal = (e: Effect) =>
  e.cannot === undefined ? undefined : `${e.cannot}${e.elsewhere ? `; ${e.elsewhere} can` : ""}`;

/** What has to change with it, and why. */
function needs(e: Effect) {
  if (!e.with || e.with.length === 0) return undefined;
  return (
    <span className="text-look">
      {e.with.map((c) => (
        <span key={c.key} className="block">
          {said(`with ${OPTION_WORDS[c.key].word} ${c.to}: ${c.because}`)}
        </span>
      ))}
    </span>
  );
}
