import { type FormEvent, useState } from "react";
import { addOffer } from "../../resources/run.ts";
import { useRun } from "../../run/runState.ts";
import { Button } from "../../ui/Button.tsx";
import { DateInput } from "../../ui/DateField.tsx";
import { Dialog } from "../../ui/Dialog.tsx";
import { Field } from "../../ui/Field.tsx";
import { useOnce } from "../../ui/once.ts";
import { typedNumber } from "../../ui/text/format.ts";
import { useSayError } from "../../ui/toast/Toast.tsx";
import { PriceDoubt } from "./PriceDoubt.tsx";
import { type MarkReading, type PastedBreaks, readBreaks } from "./pasted.ts";
import { useSupplierChoice, WhichSupplier } from "./WhichSupplier.tsx";

/** An offer typed or pasted for one line, from a supplier known or new. */
export function OfferDialog({ lineId, onClose }: { lineId: string; onClose: () => void }) {
  const { id, doc, did } = useRun();
  const line = doc.lines.find((l) => l.id === lineId)!;
  const choice = useSupplierChoice();
  const { currency } = choice;
  const [text, setText] = useState("");
  const [problem, setProblem] = useState<string>();
  const [doubt, setDoubt] = useState<PastedBreaks["doubt"]>();
  const [reading, setReading] = useState<MarkReading>();
  const [wasPasted, setPasted] = useState(false);
  const sayError = useSayError();
  const once = useOnce();
  const submit = (e: FormEvent<HTMLFormElement>) => {
    e.preventDefault();
    const f = new FormData(e.currentTarget);
    const value = (key: string) => String(f.get(key) ?? "").trim();
    const read = readBreaks(text, currency, reading);
    setProblem(read.problem);
    setDoubt(read.doubt);
    if (read.problem || read.doubt) return;
    once(async () => {
      try {
        const supplierId = await choice.idOf(f);
        const done = addOffer(id, lineId, {
          supplierId,
          stock: Number(value("stock")),
          moq: Number(value("moq")),
          multiple: Number(value("multiple")),
          currency,
          breaks: read.breaks.map((b) => ({ ...b })),
          source: wasPasted ? "pasted" : "typed",
          validUntil: value("validUntil") || undefined,
          packaging: value("packaging"),
          ...(typedNumber(value("fee")) ? { fee: typedNumber(value("fee")) } : {}),
        });
        await done;
        did("The offer was added", done);
        onClose();
      } catch (error) {
        sayError(error);
      }
    });
  };
  return (
    <Dialog
      open
      onClose={onClose}
      title={`An offer for ${line.refs[0] ?? line.valueText}`}
      about={[line.valueText, line.package, line.mpn].filter(Boolean).join(", ")}
    >
      <form onSubmit={submit} className="flex flex-col gap-3">
        <WhichSupplier choice={choice} />
        <label className="flex flex-col gap-[3px]">
          <span className="text-[13.5px] text-ink-2">Price steps, one a row: quantity and price each</span>
          <textarea
            className="num min-h-24"
            value={text}
            onChange={(e) => {
              setText(e.target.value);
              setDoubt(undefined);
              setReading(undefined);
            }}
            onPaste={() => setPasted(true)}
            placeholder={"1    0.12\n10   0.10\n100  0.055"}
            aria-invalid={problem ? true : undefined}
          />
          {problem && (
            <span role="alert" className="text-[13px] text-stop">
              {problem}
            </span>
          )}
        </label>
        {doubt && <PriceDoubt doubt={doubt} unit={currency} reading={reading} onRead={setReading} />}
        <div className="grid grid-cols-4 gap-3">
          <Field label="Stock" name="stock" type="number" min={0} required defaultValue={1000} />
          <Field label="Least order" name="moq" type="number" min={1} required defaultValue={1} />
          <Field label="In steps of" name="multiple" type="number" min={1} required defaultValue={1} />
          <DateInput label="Valid until" name="validUntil" empty="not said" />
        </div>
        <div className="grid grid-cols-4 gap-3">
          <Field
            label="Packaging"
            name="packaging"
            maxLength={60}
            placeholder="cut tape, reel, tray"
            className="col-span-2"
          />
          <Field
            label={`Charged once, ${currency}`}
            name="fee"
            inputMode="decimal"
            pattern="\d+([.,]\d{1,6})?"
            hint="for winding a reel and the like"
            className="col-span-2"
          />
        </div>
        <div>
          <Button type="submit" look="main">
            Add the offer
          </Button>
        </div>
      </form>
    </Dialog>
  );
}
