import type { MarkReading } from "@kobbin/core";
import { type FormEvent, useMemo, useState } from "react";
import { addQuotation } from "../../resources/run.ts";
import { useRun } from "../../run/runState.ts";
import { Button } from "../../ui/Button.tsx";
import { DateInput } from "../../ui/DateField.tsx";
import { Dialog } from "../../ui/Dialog.tsx";
import type { GridColumn } from "../../ui/grid/column.ts";
import { Grid } from "../../ui/grid/Grid.tsx";
import { count } from "../../ui/text/format.ts";
import { useSayError } from "../../ui/toast/Toast.tsx";
import { PriceDoubt } from "./PriceDoubt.tsx";
import { type PriceCells, type PriceRow, priceRows, typedPrices } from "./priceRows.ts";
import { useSupplierChoice, WhichSupplier } from "./WhichSupplier.tsx";

const STOCK = 1000;

const shown = (key: "part" | "number" | "need", label: string, width: number): GridColumn<PriceRow> => ({
  key,
  label,
  width,
  kind: "text",
  ...(key === "need" ? { align: "right" as const } : {}),
  isMono: key !== "part",
  text: (r) => String(r[key]),
  name: (r) => `${label} of ${r.part}`,
  canEdit: () => false,
});
const typed = (key: keyof PriceCells, label: string, width: number): GridColumn<PriceRow> => ({
  key,
  label,
  width,
  kind: "text",
  align: "right",
  isMono: true,
  text: (r) => r[key],
  name: (r) => `${label} of ${r.part}`,
  canEdit: () => true,
});
const COLUMNS: readonly GridColumn<PriceRow>[] = [
  shown("part", "Part", 238),
  shown("number", "Number", 150),
  shown("need", "Needed", 76),
  typed("each", "Price each", 196),
  typed("from", "From", 70),
  typed("stock", "Stock", 86),
];

/** Prices of one supplier for many lines at once: a grid that is typed into, or pasted into from a sheet. */
export function PriceGrid({ onClose }: { onClose: () => void }) {
  const { id, doc, result: r, did } = useRun();
  const sayError = useSayError();
  const choice = useSupplierChoice();
  const [cells, setCells] = useState<ReadonlyMap<string, PriceCells>>(new Map());
  const [reading, setReading] = useState<MarkReading>();
  const rows = useMemo(() => priceRows(doc, r.needs, cells), [doc, r.needs, cells]);
  const read = useMemo(
    () => typedPrices(rows, choice.currency, STOCK, reading),
    [rows, choice.currency, reading],
  );
  // the question stays where it is once answered, so that the answer can be changed
  const doubt = useMemo(() => typedPrices(rows, choice.currency, STOCK).doubt, [rows, choice.currency]);
  const edit = (
    edits: readonly { readonly row: PriceRow; readonly column: string; readonly text: string }[],
  ) => {
    const next = new Map(cells);
    for (const e of edits) {
      const { each, from, stock } = { ...e.row, ...next.get(e.row.id) };
      next.set(e.row.id, { each, from, stock, [e.column]: e.text.trim() });
    }
    setCells(next);
  };
  const keep = async (e: FormEvent<HTMLFormElement>) => {
    e.preventDefault();
    const form = new FormData(e.currentTarget);
    try {
      const supplierId = await choice.idOf(form);
      const done = addQuotation(id, {
        supplierId,
        currency: choice.currency,
        validUntil: String(form.get("validUntil") ?? "") || undefined,
        offers: read.offers.flatMap((o) =>
          o.lineIds.map((lineId) => ({
            lineId,
            stock: o.stock,
            moq: o.moq,
            multiple: 1,
            breaks: o.breaks.map((b) => ({ ...b })),
          })),
        ),
      });
      await done;
      did(`${count(read.offers.length, "price")} kept`, done);
      onClose();
    } catch (error) {
      sayError(error);
    }
  };
  return (
    <Dialog
      open
      onClose={onClose}
      wide
      title="Type prices"
      about="Of one supplier, for as many lines as it sells: what nobody offers stands first. Paste a column of prices where it begins; several steps go into one cell, 10: 0.12; 100: 0.055."
    >
      <form onSubmit={keep} className="flex flex-col gap-3">
        <WhichSupplier choice={choice} />
        <Grid
          label="Prices"
          rows={rows}
          columns={COLUMNS}
          idOf={(x) => x.id}
          onEdit={edit}
          pinned={1}
          isShort
        />
        {doubt && <PriceDoubt doubt={doubt} unit={choice.currency} reading={reading} onRead={setReading} />}
        {read.problems.length > 0 && (
          <ul role="alert" className="text-[13.5px] text-look">
            {read.problems.slice(0, 6).map((p) => (
              <li key={p}>{p}</li>
            ))}
            {read.problems.length > 6 && (
              <li>{count(read.problems.length - 6, "further row")} like these.</li>
            )}
          </ul>
        )}
        <div className="flex flex-wrap items-end gap-3">
          <DateInput label="Valid until" name="validUntil" empty="not said" />
          <Button
            type="submit"
            look="main"
            disabled={read.offers.length === 0 || (read.doubt !== undefined && reading === undefined)}
          >
            Keep {count(read.offers.length, "price")}
          </Button>
          <span className="pb-1 text-[13px] text-ink-2">
            Without a word of its own a line is taken from one piece on, {STOCK} in stock.
          </span>
        </div>
      </form>
    </Dialog>
  );
}
