import { adviceOn, type Effect, OPTION_WORDS, type OptionKey, type Reason } from "@kobbin/core";
import type { ReactNode } from "react";
import { useEffects, useRun } from "../../run/runState.ts";
import { ChoiceRow } from "../../ui/ChoiceRow.tsx";
import { said } from "../../ui/text/format.ts";

/** Where the cheaper alternative gives up something that was asked for, it is not offered as a saving. */
const NO_SAVING: ReadonlySet<OptionKey> = new Set([
  "bevel",
  "contacts",
  "castellation",
  "test",
  "edgePlating",
]);

/** One decision of the order sheet: each value with its effect, what speaks for it, what it needs beside it, or why it cannot be. */
export function OptionRow({
  option,
  pictureOf,
}: {
  option: OptionKey;
  /** The board as it would look with a value. */
  pictureOf?: (value: string) => ReactNode;
}) {
  const { doc, result, change, isLocked } = useRun();
  const effects = useEffects("fab");
  const { label, why } = OPTION_WORDS[option];
  const list = effects!.options[option];
  const advice = adviceOn(doc, result, option);
  return (
    <ChoiceRow
      decision={label}
      why={why}
      alternatives={list.map((e) => ({
        ...e,
        cannot: refusal(e),
        why: told(e, advice?.by[e.value] ?? []),
        picture: pictureOf?.(e.value),
      }))}
      about={
        (advice?.facts || advice?.schools) && (
          <>
            {advice.facts && <span className="block">Measured: {said(advice.facts)}.</span>}
            {advice.schools && <span className="block">{advice.schools}</span>}
          </>
        )
      }
      disabled={isLocked}
      showsSaving={!NO_SAVING.has(option)}
      onChoose={(v) => {
        const e = list.find((x) => x.value === v)!;
        const also = (e.with ?? []).map((c) => `${OPTION_WORDS[c.key].word} ${c.to}`);
        change(
          { options: { ...valuesWith(e), [option]: typed(option, v) } } as never,
          `${label}: ${e.label}${also.length > 0 ? `, with ${also.join(", ")}` : ""}`,
        );
      }}
    />
  );
}

const typed = (option: OptionKey, value: string): string | number =>
  option === "leadDays" ? Number(value) : value;

/** The values that change with it, as a request has them. */
export const valuesWith = (e: Pick<Effect, "with">) =>
  Object.fromEntries((e.with ?? []).map((c) => [c.key, typed(c.key, c.value)]));

/** Why it cannot be, and where it could. */
const refusal = (e: Effect) =>
  e.cannot === undefined ? undefined : `${e.cannot}${e.elsewhere ? `; ${e.elsewhere} can` : ""}`;

/** What has to change with it and why, and what speaks for it and against. */
function told(e: Effect, reasons: readonly Reason[]) {
  if (!e.with?.length && reasons.length === 0) return undefined;
  return (
    <span className="block">
      {e.with?.map((c) => (
        <span key={c.key} className="block text-look">
          {said(`with ${OPTION_WORDS[c.key].word} ${c.to}: ${c.because}`)}
        </span>
      ))}
      {reasons.map((r) => (
        <span key={r.text} className="grid grid-cols-[14px_1fr]">
          <span className={r.speaks === "for" ? "text-fine" : "text-look"}>
            <span aria-hidden>{r.speaks === "for" ? "+" : "−"}</span>
            <span className="sr-only">{r.speaks}: </span>
          </span>
          <span>{said(r.text)}</span>
        </span>
      ))}
    </span>
  );
}
