import { isRefusal, type PanelChoice, type PanelProposal } from "@kobbin/core";
import { useRef, useState } from "react";
import { useEffects, useRun } from "../../run/runState.ts";
import { ChoiceRow } from "../../ui/ChoiceRow.tsx";
import { Skeleton } from "../../ui/States.tsx";
import { Aids } from "./Aids.tsx";
import { Guests } from "./Guests.tsx";
import { Layouts } from "./Layouts.tsx";
import { OwnWish } from "./OwnWish.tsx";
import { Proposals, worthWords } from "./Proposals.tsx";
import { Sheet } from "./Sheet.tsx";
import { SmallSheet } from "./SmallSheet.tsx";
import { ThisSheet } from "./ThisSheet.tsx";
import { useBoardPictures } from "./useBoardPictures.ts";
import { usePanel } from "./usePanel.ts";
import { WriteSheet } from "./WriteSheet.tsx";

/** Boards on sheets: whether it pays, which sheet, how it is parted, and its files with their proof. */
export function PanelPage() {
  const { doc, change, isLocked, result: r } = useRun();
  const effects = useEffects("panel");
  const { worker, keys, shown, offers, isBehind } = usePanel();
  const pictures = useBoardPictures();
  const [refused, setRefused] = useState<string>();
  const kept = doc.choices.panel ?? undefined;
  // what was moved shows at once, so that a second key goes on from the first
  const [pending, setPending] = useState<{ readonly of: PanelChoice; readonly next: PanelChoice }>();
  const choice = pending && pending.of === kept ? pending.next : kept;
  const latest = useRef(0);
  const moved = async (next: PanelChoice, words: string) => {
    if (!kept) return;
    setPending({ of: kept, next });
    latest.current++;
    const mine = latest.current;
    const made = await worker.current?.moved(doc, next);
    // a later move has this one in it
    if (!made || mine !== latest.current) return;
    if ("reason" in made && isRefusal(made)) {
      setPending(undefined);
      setRefused(`${made.reason} ${made.do ?? ""}`);
    } else {
      setRefused(undefined);
      change({ panel: (made as PanelProposal).choice } as never, words);
    }
  };
  const best = offers?.proposals[0];
  return (
    <section>
      <div className="mb-3 flex flex-wrap items-baseline gap-x-4">
        <h1>Panel</h1>
        <p className="text-ink-2">
          {offers ? worthWords(offers) : isLocked ? "" : "sheets are being worked out …"}
        </p>
      </div>
      {kept && effects && effects.overrun.length > 0 && (
        <div className="mb-4 border-b border-rule">
          <ChoiceRow
            decision="Boards beyond"
            showsSaving={false}
            why={`the sheets have more than the ${r.start} that are started`}
            alternatives={effects.overrun}
            disabled={isLocked}
            onChoose={(v) =>
              change(
                { overrun: v } as never,
                v === "start" ? "All boards of the sheets are started" : "Boards beyond stay bare",
              )
            }
          />
        </div>
      )}
      <div className="grid grid-cols-[minmax(0,3fr)_minmax(250px,2fr)] gap-5 max-lg:grid-cols-1">
        <div className="self-start lg:sticky lg:top-4">
          {choice && shown?.layout ? (
            <>
              <Sheet
                choice={choice}
                layout={shown.layout}
                designs={shown.designs}
                pictures={pictures}
                boardKeys={keys}
                isLocked={isLocked}
                onMoved={moved}
              />
              {refused && (
                <p
                  role="alert"
                  className="mt-2 border-l-[3px] border-stop bg-stop-soft px-3 py-2 text-[14px]"
                >
                  {refused}
                </p>
              )}
              <WriteSheet worker={worker} isMoving={choice !== kept} />
            </>
          ) : choice && shown?.refusal ? (
            <p role="alert" className="border-l-[3px] border-stop bg-stop-soft px-4 py-3">
              <span className="block font-semibold">{shown.refusal.reason}</span>
              {shown.refusal.do ?? "Take a sheet anew, or order singly."}
            </p>
          ) : choice ? (
            <Skeleton rows={8} label="The sheet is being worked out" />
          ) : (
            <div className="border border-dashed border-rule px-5 py-6 text-ink-2">
              <p className="mb-3 max-w-[56ch]">
                The boards are ordered one by one. A sheet holds several of them, to be printed, placed and
                heated at once; take one on the right to see it here.
              </p>
              {best && shown && (
                <SmallSheet layout={best.layout} designs={shown.designs} width={420} height={300} />
              )}
            </div>
          )}
        </div>
        <div>
          {isLocked ? null : offers && shown ? (
            <Proposals offers={offers} designs={shown.designs} isBehind={isBehind} />
          ) : (
            <Skeleton rows={6} label="Sheets are being worked out" />
          )}
          {shown && !isLocked && <OwnWish key={keys.join()} worker={worker} designs={shown.designs} />}
          <Guests />
          {offers && keys.length > 1 && !isLocked && <Layouts worker={worker} offers={offers} />}
          {shown?.layout && choice && (
            <ThisSheet
              layout={shown.layout}
              choice={choice}
              designs={shown.designs}
              boardKeys={keys}
              onMoved={moved}
            />
          )}
        </div>
      </div>
      {shown && shown.designs.length > 0 && <Aids worker={worker} />}
    </section>
  );
}
