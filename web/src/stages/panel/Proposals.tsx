import { type PanelDesign, type PanelOffers, type PanelProposal, REACHES, type Reach } from "@kobbin/core";
import { useRun } from "../../run/runState.ts";
import { DaysDelta, Delta } from "../../ui/ChoiceRow.tsx";
import { count, fixed, signed } from "../../ui/text/format.ts";
import { SmallSheet } from "./SmallSheet.tsx";

const PARTED = { score: "scored", tabs: "tabs", mixed: "scores and tabs" } as const;

/** A sheet in words: how many boards, of several designs how many of each, and how they are parted. */
export const sheetWords = (p: PanelProposal): string =>
  `${p.layout.counts.filter((n) => n > 0).join(" + ")} on a sheet, ${PARTED[p.layout.separation]}`;

/** What a sheet is to somebody who has to make it, in a line. */
function lineOf(p: PanelProposal): string {
  return [
    count(p.sheets, "sheet"),
    p.over > 0 ? `${p.over} over` : "none over",
    p.hours <= -0.05 || p.hours >= 0.05 ? `${signed(p.hours, 1)} h` : "",
  ]
    .filter(Boolean)
    .join(", ");
}

/** What speaks for it, and what it does not go into. */
function reasonsOf(p: PanelProposal): string {
  const lacks = (Object.keys(REACHES) as Reach[]).filter((k) => !p.reaches[k] && k !== "line");
  return [
    ...p.because,
    lacks.length > 0 ? `too large for ${lacks.map((k) => REACHES[k].words).join(", ")}` : "",
  ]
    .filter(Boolean)
    .join("; ");
}

/** Single boards and each sheet that was worked out, with what it would change; a press takes it. */
export function Proposals({
  offers,
  designs,
  isBehind,
}: {
  offers: PanelOffers;
  designs: readonly PanelDesign[];
  isBehind: boolean;
}) {
  const { doc, change, isLocked } = useRun();
  const take = (p: PanelProposal) => change({ panel: p.choice } as never, `Sheet: ${sheetWords(p)}`);
  return (
    <fieldset aria-busy={isBehind}>
      <legend className="mb-1 flex w-full justify-between text-[13.5px] text-ink-2">
        <span>{isBehind ? "being worked out anew …" : "ways to order the boards"}</span>
        <span>a good board</span>
      </legend>
      <Way
        isOn={offers.single.isChosen}
        title="single boards"
        line={
          offers.single.isChosen
            ? "as it is now"
            : Math.abs(offers.single.hours) >= 0.05
              ? `${signed(offers.single.hours, 1)} h`
              : ""
        }
        perGood={offers.single.perGood}
        days={offers.single.days}
        disabled={isLocked}
        onTake={() => change({ panel: null } as never, "Ordered as single boards")}
      />
      {doc.choices.panel && !offers.single.isChosen && !offers.proposals.some((p) => p.isChosen) && (
        <Way
          isOn
          title={`${doc.choices.panel.places.length} on a sheet, your own`}
          line="as it was moved or asked for"
          perGood={0}
          days={0}
          disabled
          onTake={() => undefined}
        />
      )}
      {offers.proposals.map((p) => (
        <Way
          key={p.key}
          isOn={p.isChosen}
          title={sheetWords(p)}
          line={lineOf(p)}
          reasons={reasonsOf(p)}
          perGood={p.perGood}
          days={p.days}
          disabled={isLocked}
          onTake={() => take(p)}
          picture={<SmallSheet layout={p.layout} designs={designs} width={66} height={52} />}
        />
      ))}
      {offers.refused.map((r) => (
        <p
          key={`${r.separation} ${r.refusal.reason}`}
          className="border-t border-rule py-2 text-[13.5px] text-ink-2"
        >
          <span className="font-semibold">{r.separation === "score" ? "scored" : "a sheet"}: cannot be.</span>{" "}
          {r.refusal.reason} {r.refusal.do}
        </p>
      ))}
    </fieldset>
  );
}

function Way({
  isOn,
  title,
  line,
  reasons,
  perGood,
  days,
  disabled,
  onTake,
  picture,
}: {
  isOn: boolean;
  title: string;
  line: string;
  reasons?: string;
  perGood: number;
  days: number;
  disabled: boolean;
  onTake: () => void;
  picture?: React.ReactNode;
}) {
  return (
    <button
      type="button"
      aria-pressed={isOn}
      disabled={disabled}
      onClick={onTake}
      className={`flex w-full items-center gap-3 border-t border-rule px-2 py-2 text-left ${isOn ? "bg-metal-soft shadow-[inset_3px_0_0_var(--metal)]" : "hover:bg-sheet"}`}
    >
      <span className="flex w-[66px] shrink-0 justify-center">{picture}</span>
      <span className="min-w-0 flex-1">
        <span className="block font-semibold">{title}</span>
        <span className="block text-[13px] leading-snug text-ink-2">{line}</span>
        {reasons && <span className="block text-[12.5px] leading-snug text-ink-2">{reasons}</span>}
      </span>
      <span className="text-right text-[13.5px] whitespace-nowrap">
        {isOn ? (
          <span className="text-ink-2">chosen</span>
        ) : (
          <>
            <Delta value={perGood} />
            <span className="block">
              <DaysDelta value={days} />
            </span>
          </>
        )}
      </span>
    </button>
  );
}

/** Whether sheets are worth it, in one sentence. */
export function worthWords(offers: PanelOffers): string {
  const single = offers.single;
  const best = [...offers.proposals].sort((a, b) => a.perGood - b.perGood)[0];
  if (!best) return offers.refused[0]?.refusal.reason ?? "no sheet goes with these boards";
  const d = best.perGood - single.perGood;
  const h = best.hours - single.hours;
  const what = `${fixed(Math.abs(d), 2)} a good board ${d < 0 ? "less" : "more"}, ${fixed(Math.abs(h), 1)} h ${h < 0 ? "less" : "more"} of your own time`;
  return d < -0.005
    ? `worth it: ${what}`
    : d > 0.005
      ? `not worth it: ${what}`
      : `no difference in money; ${fixed(Math.abs(h), 1)} h ${h < 0 ? "less" : "more"}`;
}
