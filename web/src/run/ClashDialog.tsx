import { Button } from "../ui/Button.tsx";
import { Dialog } from "../ui/Dialog.tsx";
import { clock, day } from "../ui/text/format.ts";
import { useRun } from "./runState.ts";

/** Two people set the same field: both values side by side, and the person chooses. */
export function ClashDialog() {
  const { clash, settleClash, doc } = useRun();
  if (!clash) return null;
  const names = new Map<string, string>([
    ...(doc.houses ?? []).map((h) => [h.id, h.name] as const),
    ...doc.suppliers.map((s) => [s.id, s.name] as const),
  ]);
  const shown = (v: unknown): string =>
    v === null || v === undefined || v === ""
      ? "nothing"
      : Array.isArray(v)
        ? v.map(shown).join(" ")
        : typeof v === "object"
          ? JSON.stringify(v)
          : (names.get(String(v)) ?? String(v));
  const isUndo = clash.kind === "undo";
  const who = [...new Set(clash.clashes.map((c) => c.person ?? "somebody"))].join(" and ");
  return (
    <Dialog
      open
      onClose={settleClash}
      title={isUndo ? `${who} went on from there` : `${who} changed the same`}
      about={
        isUndo
          ? "Taking it back would undo what was set since. Nothing was changed yet."
          : "Your change was not saved over it. Both values are here; which is to stand?"
      }
    >
      <table className="rows w-full">
        <thead>
          <tr>
            <th>Field</th>
            <th>{isUndo ? "Before, as it would be again" : "Yours"}</th>
            <th>Now</th>
          </tr>
        </thead>
        <tbody>
          {clash.clashes.map((c) => (
            <tr key={c.field}>
              <td>{c.field}</td>
              <td className="font-semibold">{shown(c.mine)}</td>
              <td>
                {shown(c.theirs)}
                <span className="block text-[12.5px] text-ink-2">
                  {c.person ?? "somebody"}
                  {c.at && `, ${day(c.at)} ${clock(new Date(c.at))}`}
                </span>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <div className="mt-4 flex gap-3">
        <Button look="main" onClick={settleClash}>
          {isUndo ? "Leave it" : "Keep theirs"}
        </Button>
        <Button
          onClick={() => {
            settleClash();
            void clash.insist();
          }}
        >
          {isUndo ? "Take it back all the same" : "Put mine"}
        </Button>
      </div>
    </Dialog>
  );
}
