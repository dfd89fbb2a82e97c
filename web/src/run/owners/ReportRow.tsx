import type { ShopErratum, ShopReport } from "@kobbin/contract";
import type { ReactNode } from "react";
import { useDone } from "../../history/useDone.ts";
import { removeReport, saveReport } from "../../resources/owners.ts";
import { Pick } from "../../ui/Field.tsx";
import { Kept } from "../../ui/Kept.tsx";
import { Mark } from "../../ui/Mark.tsx";
import { day } from "../../ui/text/format.ts";
import { isOpen } from "./told.ts";

/** One thing an owner said: when it is so, what they were answered, which known fault it is. */
export function ReportRow({
  report: r,
  errata,
  isOwner,
  board,
  more,
}: {
  report: ShopReport;
  /** Faults of its product. */
  errata: readonly ShopErratum[];
  isOwner: boolean;
  /** The board it is about, where that is not plain. */
  board?: ReactNode;
  more?: ReactNode;
}) {
  const done = useDone();
  const fault = errata.find((e) => e.id === r.erratumId);
  return (
    <li className="border-t border-rule py-2 text-[14.5px]">
      <div className="flex flex-wrap items-baseline gap-x-3">
        <Mark kind={isOpen(r) ? "look" : "ready"} />
        <p className="min-w-0 flex-1 [overflow-wrap:anywhere]">
          “{r.says}”{r.conditions && <span className="text-ink-2"> {r.conditions}</span>}
          <span className="block text-[13.5px] text-ink-2">
            {board}
            {board ? ", " : ""}
            {day(r.on)}
            {r.workaround && `; they get by: ${r.workaround}`}
          </span>
        </p>
        {isOpen(r) && <span className="text-look">not answered</span>}
      </div>
      {isOwner ? (
        <div className="mt-1 ml-7 flex flex-wrap items-end gap-x-4 gap-y-1 print:hidden">
          <Kept
            label="Answered"
            className="min-w-[26ch] flex-1"
            placeholder="what they were told"
            maxLength={2000}
            value={r.answer}
            onSave={(answer) =>
              done(saveReport(r.id, { answer }), answer ? "The answer is kept" : "Not answered")
            }
          />
          {errata.length > 0 && (
            <Pick
              label="It is"
              className="max-w-[34ch]"
              value={r.erratumId ?? ""}
              options={[["", "no fault that is known"], ...errata.map((e) => [e.id, e.title] as const)]}
              onChange={(id) =>
                done(
                  saveReport(r.id, { erratumId: id || null }),
                  id ? "A fault that is known" : "None that is known",
                )
              }
            />
          )}
          {more}
          <button
            type="button"
            className="quiet-link min-h-6"
            onClick={() => done(removeReport(r.id), "Nobody said so after all")}
          >
            remove
          </button>
        </div>
      ) : (
        <p className="ml-7 text-[13.5px] text-ink-2">
          {r.answer && `Answered: ${r.answer}`} {fault && `It is known: ${fault.title}`}
        </p>
      )}
    </li>
  );
}
