import { panelOf, placedWords, sheetWords } from "@kobbin/core";
import { type FormEvent, useState } from "react";
import { saveQuote } from "../resources/run.ts";
import { Button } from "../ui/Button.tsx";
import { DateInput } from "../ui/DateField.tsx";
import { Dialog } from "../ui/Dialog.tsx";
import { Field, Pick } from "../ui/Field.tsx";
import { useOnce } from "../ui/once.ts";
import { typedNumber } from "../ui/text/format.ts";
import { useSayError } from "../ui/toast/Toast.tsx";
import { useRun } from "./runState.ts";

/** A quotation that came by mail: it overrides the estimate for this run. */
export function QuoteDialog({
  houseId,
  kind,
  onClose,
}: {
  houseId: string;
  kind: "fab" | "assembly";
  onClose: () => void;
}) {
  const { id, doc, result, did } = useRun();
  const house = doc.houses?.find((h) => h.id === houseId);
  const sayError = useSayError();
  const once = useOnce();
  const [currency, setCurrency] = useState(house?.currency ?? doc.workshop.currency);
  const currencies = [
    ...new Set([
      doc.workshop.currency,
      house?.currency ?? doc.workshop.currency,
      ...Object.keys(doc.workshop.rates),
    ]),
  ];
  const hand = doc.assembly.handParts ?? "here";
  const placed = placedWords(doc, result.parts);
  const sheet = panelOf(doc);
  const basis =
    kind === "assembly"
      ? {
          boards: result.start,
          options: {},
          revision: doc.revision,
          handParts: hand,
          ...(placed === undefined ? {} : { placed }),
        }
      : result.house?.id === houseId && result.options && result.orders.length > 0
        ? {
            boards: result.orders.reduce((n, o) => n + o.quote.pieces, 0),
            options: result.options,
            revision: doc.revision,
            ...(sheet ? { sheet: sheetWords(sheet) } : {}),
          }
        : undefined;
  const submit = (e: FormEvent<HTMLFormElement>) => {
    e.preventDefault();
    const f = new FormData(e.currentTarget);
    const validUntil = String(f.get("validUntil") ?? "");
    once(() => {
      const done = saveQuote(id, {
        houseId,
        kind,
        total: typedNumber(String(f.get("total"))),
        currency,
        days: Number(f.get("days")),
        validUntil: validUntil || undefined,
        // what it was asked for: it holds for that alone
        ...(basis ? { basis } : {}),
      });
      return done.then(() => {
        did(`The quotation of ${house?.name} counts now`, done);
        onClose();
      }, sayError);
    });
  };
  return (
    <Dialog
      open
      onClose={onClose}
      title={`Quotation of ${house?.name ?? "the house"}`}
      about={
        kind === "assembly"
          ? `For placing ${result.start} as chosen, ${hand === "house" ? "hand parts soldered there too" : "hand parts soldered here"}. The parcels there and back are counted beside it.`
          : `For ${result.orders.map((o) => `${o.quote.pieces} ${result.orders.length > 1 ? `of ${o.name}` : "boards"}`).join(" and ") || `${result.start} boards`}${sheet ? `, on ${sheetWords(sheet)}` : ""} as chosen, all in: freight and handling included.`
      }
    >
      <form onSubmit={submit} className="flex flex-col gap-3">
        <div className="grid grid-cols-2 gap-3">
          <Field label="Sum quoted" name="total" required inputMode="decimal" pattern="\d+([.,]\d{1,6})?" />
          <Pick
            label="Currency"
            value={currency}
            options={currencies.map((c) => [c, c] as const)}
            onChange={setCurrency}
          />
          <Field
            label={kind === "assembly" ? "Days at the house" : "Days until at your door"}
            name="days"
            type="number"
            min={0}
            max={365}
            required
            defaultValue={
              kind === "assembly"
                ? (result.assembly?.days ?? 10)
                : Math.max(0, ...result.orders.map((o) => o.days)) || 10
            }
          />
          <DateInput label="Valid until" name="validUntil" empty="not said" />
        </div>
        <div>
          <Button type="submit" look="main">
            Use it for this run
          </Button>
        </div>
      </form>
    </Dialog>
  );
}
