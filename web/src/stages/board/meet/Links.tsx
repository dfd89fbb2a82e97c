import type { BoardVolts, LinkStanding } from "@kobbin/core";
import { removeLink } from "../../../resources/run.ts";
import { useRun } from "../../../run/runState.ts";
import { useSayError } from "../../../ui/toast/Toast.tsx";
import { useOneOpen } from "../../../ui/useOneOpen.ts";
import { LinkForm } from "./LinkForm.tsx";
import { SettingCard } from "./SettingCard.tsx";

/** Links, bridges and switches that have to be set, and the card that goes with the board. */
export function Links({ volts, board }: { volts: BoardVolts; board: string | undefined }) {
  const { isLocked } = useRun();
  const { open: edited, setOpen: setEdited, close } = useOneOpen();
  const begun = volts.unset.find((p) => p.ref === edited);
  if (volts.links.length === 0 && volts.unset.length === 0) return null;
  return (
    <section aria-label="Links and settings" className="mt-6 border-t border-rule pt-4">
      <h2 className="mb-1 text-[17px]">Links and settings</h2>
      {begun && !isLocked && (
        <LinkForm
          key={begun.ref}
          part={begun}
          board={board}
          standing={undefined}
          onClose={() => close(begun.ref)}
        />
      )}
      <ul>
        {volts.links.map((l) =>
          edited === l.row.id && l.part ? (
            <li key={l.row.id}>
              <LinkForm part={l.part} board={board} standing={l} onClose={() => close(l.row.id)} />
            </li>
          ) : (
            <Link key={l.row.id} link={l} isLocked={isLocked} onEdit={() => setEdited(l.row.id)} />
          ),
        )}
      </ul>
      {volts.unset.length > 0 && (
        <p className="mt-1 flex flex-wrap items-baseline gap-x-4 text-[14.5px] text-ink-2">
          Not described:
          {volts.unset.map((p) => (
            <button
              key={p.ref}
              type="button"
              className="quiet-link"
              disabled={isLocked}
              aria-label={`Describe how ${p.ref} is set`}
              onClick={() => setEdited(p.ref)}
            >
              {p.ref} {p.pins.map((q) => q.name ?? "–").join(" / ")}
            </button>
          ))}
        </p>
      )}
      {volts.links.length > 0 && <SettingCard links={volts.links} />}
    </section>
  );
}

function Link({
  link: { row, part, position, hurts },
  isLocked,
  onEdit,
}: {
  link: LinkStanding;
  isLocked: boolean;
  onEdit: () => void;
}) {
  const { id, did } = useRun();
  const sayError = useSayError();
  return (
    <li className="flex flex-wrap items-baseline gap-x-4 border-t border-rule py-2 text-[14.5px]">
      <b className="num min-w-10">{row.ref}</b>
      <span className={position ? (hurts[position.name] ? "text-stop" : "") : "text-look"}>
        {position ? (
          <>
            <b className="num">{position.name}</b> {position.does}
            {hurts[position.name] && ` hurts: ${hurts[position.name]}`}
          </>
        ) : (
          "not set"
        )}
      </span>
      <span className="text-ink-2">
        {!part
          ? "the files name no such part"
          : row.positions
              .filter((p) => p !== position)
              .map((p) => `${p.name}: ${p.does || "–"}${hurts[p.name] ? " (hurts)" : ""}`)
              .join("; ")}
      </span>
      {!isLocked && (
        <span className="ml-auto flex gap-4 text-[14px]">
          <button
            type="button"
            className="quiet-link"
            aria-label={`Change how ${row.ref} is set`}
            onClick={onEdit}
          >
            change
          </button>
          <button
            type="button"
            className="quiet-link"
            aria-label={`Remove ${row.ref} from the links`}
            onClick={() => {
              const gone = removeLink(id, row.id);
              gone.catch(sayError);
              did(`${row.ref} is no link to be set any more`, gone);
            }}
          >
            remove
          </button>
        </span>
      )}
    </li>
  );
}
