import { numberKey, type RunNeed } from "@kobbin/core";
import { reserve, useLots } from "../../resources/library.ts";
import { useRun } from "../../run/runState.ts";
import { day } from "../../ui/text/format.ts";
import { useSayError } from "../../ui/toast/Toast.tsx";

/** What the shelf holds of a line's number, what the run takes of it, and who reserved the rest. */
export function OnShelf({ need }: { need: RunNeed }) {
  const { id, doc, change, did, isLocked } = useRun();
  const { data } = useLots();
  const sayError = useSayError();
  const line = doc.lines.find((l) => l.id === need.id);
  const taken = new Set(need.shelf.map((t) => t.lot.id));
  const isOwn = (mpn: string) =>
    line !== undefined && line.mpn !== "" && numberKey(mpn) === numberKey(line.mpn);
  const lots = (data ?? []).filter((l) => isOwn(l.mpn) || taken.has(l.id));
  if (lots.length === 0) return null;
  const set = (lotId: string, qty: number, words: string) => {
    const done = reserve(id, { lotId, qty });
    done.then(() => did(words, done), sayError);
  };
  return (
    <ul className="mb-1 pl-5 text-[14px]">
      {lots.map((l) => {
        const take = need.shelf.find((t) => t.lot.id === l.id)?.qty ?? 0;
        const own = l.reserved.find((x) => x.runId === id)?.qty ?? 0;
        const others = l.reserved.filter((x) => x.runId !== id);
        return (
          <li key={l.id} className="flex flex-wrap items-baseline gap-x-4 py-1">
            <span className="min-w-40 font-semibold">own shelf{l.place && `, ${l.place}`}</span>
            {!isOwn(l.mpn) && <span className="num text-metal">{l.mpn}</span>}
            <span>
              <span className="num">{l.qty}</span> since {day(l.receivedOn)},{" "}
              {l.condition === "quarantine" ? "set apart" : l.condition}
            </span>
            <span>
              the run takes <span className="num">{take}</span>
            </span>
            {others.length > 0 && (
              <span className="text-ink-2">
                {others.map((x) => `${x.qty} reserved for ${x.run}`).join(", ")}
              </span>
            )}
            {own > 0 && <span className="text-fine">{own} reserved for this run</span>}
            {!isLocked && own !== take && take > 0 && (
              <button
                type="button"
                className="quiet-link"
                onClick={() => set(l.id, take, `${take} reserved for this run`)}
              >
                reserve {take}
              </button>
            )}
            {!isLocked && own > 0 && (
              <button type="button" className="quiet-link" onClick={() => set(l.id, 0, "Given free again")}>
                give free
              </button>
            )}
          </li>
        );
      })}
      {!isLocked && (
        <li className="py-1">
          <button
            type="button"
            className="quiet-link"
            onClick={() =>
              change(
                { ownShelf: doc.choices.ownShelf === "leave" ? "first" : "leave" },
                doc.choices.ownShelf === "leave"
                  ? "The own shelf is used first"
                  : "The shelf is left as it is; everything is bought",
              )
            }
          >
            {doc.choices.ownShelf === "leave" ? "use the own shelf first" : "leave the shelf, buy everything"}
          </button>
        </li>
      )}
    </ul>
  );
}
