import { removeWork } from "../../resources/record.ts";
import { useRun } from "../../run/runState.ts";
import { day } from "../../ui/text/format.ts";
import { useSayError } from "../../ui/toast/Toast.tsx";
import { hours } from "./Boards.tsx";

/** What was counted so far, newest first. */
export function Entries({ isOpen }: { isOpen: boolean }) {
  const { id, record, did } = useRun();
  const sayError = useSayError();
  if (record.work.length === 0) return null;
  return (
    <div className="overflow-x-auto">
      <table className="rows tight w-full">
        <thead>
          <tr>
            <th>On</th>
            <th>By</th>
            {["Started", "Good", "Mended", "Scrapped", "Time"].map((h) => (
              <th key={h} className="text-right">
                {h}
              </th>
            ))}
            <th>Note</th>
            <th>
              <span className="sr-only">remove</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {[...record.work].reverse().map((w) => (
            <tr key={w.id}>
              <td>{day(w.on)}</td>
              <td className="text-ink-2">{w.person}</td>
              {[w.started, w.good, w.reworked, w.scrapped].map((n, i) => (
                <td key={String(i)} className="num text-right">
                  {n || ""}
                </td>
              ))}
              <td className="num text-right whitespace-nowrap">{w.minutes > 0 ? hours(w.minutes) : ""}</td>
              <td className="text-[14px] text-ink-2">{w.note}</td>
              <td className="text-right">
                {isOpen && (
                  <button
                    type="button"
                    className="quiet-link min-h-6"
                    onClick={() => {
                      const gone = removeWork(id, w.id);
                      gone.catch(sayError);
                      did("an entry of the bench removed", gone);
                    }}
                  >
                    remove
                  </button>
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
