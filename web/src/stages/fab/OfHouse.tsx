import { removeQuote } from "../../resources/run.ts";
import { useRun } from "../../run/runState.ts";
import { amount, fromMicros, money } from "../../ui/text/format.ts";
import { useSayError } from "../../ui/toast/Toast.tsx";
import { ProfileOut } from "./ProfileFile.tsx";

/** What opens over the page. */
export interface FabDialog {
  readonly kind: "quote" | "edit" | "copy" | "new";
  readonly house: string;
}

/** What one does with the chosen house: type its quotation, edit its profile, take the quotation away. */
export function OfHouse({ onDialog: setDialog }: { onDialog: (d: FabDialog) => void }) {
  const { id, result: r, did, isLocked, doc } = useRun();
  const { currency } = doc.workshop;
  const sayError = useSayError();
  const order = r.orders[0];
  if (!r.house) return null;
  return (
    <p className="mt-2 flex flex-wrap gap-x-5 gap-y-2 text-[14px]">
      <span className="text-ink-2">{r.house.name}:</span>
      {!isLocked && (
        <>
          <button
            type="button"
            className="quiet-link"
            onClick={() => setDialog({ kind: "quote", house: r.house!.id })}
          >
            type its quotation
          </button>
          <button
            type="button"
            className="quiet-link"
            onClick={() => setDialog({ kind: "copy", house: r.house!.id })}
          >
            copy it and edit the copy
          </button>
          <button
            type="button"
            className="quiet-link"
            onClick={() => setDialog({ kind: "edit", house: r.house!.id })}
          >
            edit its profile
          </button>
        </>
      )}
      <ProfileOut house={r.house} />
      {order && (order.quoted ?? order.unfit) && (
        <span className="text-ink-2">
          {order.quoted
            ? `quotation ${money(Number(order.quoted.total), order.quoted.currency)} overrides the estimate of ${amount(fromMicros(order.quote.total), currency)} `
            : `quotation ${money(Number(order.unfit!.quote.total), order.unfit!.quote.currency)} was for ${order.unfit!.misfits.join("; for ")}: the estimate counts `}
          {!isLocked && (
            <button
              type="button"
              className="quiet-link"
              onClick={() => {
                const done = removeQuote(id, r.house!.id, "fab");
                done.then(() => did("The quotation is removed, the estimate counts", done), sayError);
              }}
            >
              remove it
            </button>
          )}
        </span>
      )}
    </p>
  );
}
