import { useState } from "react";
import { addSupplier } from "../../resources/run.ts";
import { useRun } from "../../run/runState.ts";
import { Field, Pick } from "../../ui/Field.tsx";
import { typedNumber } from "../../ui/text/format.ts";

const NEW = "new";

/** Who offers: a supplier of the shop, or a new one written down beside. */
export interface SupplierChoice {
  readonly supplier: string;
  readonly currency: string;
  readonly isNew: boolean;
  readonly pick: (supplier: string) => void;
  readonly setCurrency: (currency: string) => void;
  /** The supplier's id, made first where it is new, from the fields of {@link WhichSupplier}. */
  readonly idOf: (form: FormData) => Promise<string>;
}

/** What is chosen of {@link WhichSupplier}; the first supplier of the shop at first. */
export function useSupplierChoice(): SupplierChoice {
  const { id, doc } = useRun();
  const [supplier, setSupplier] = useState(doc.suppliers[0]?.id ?? NEW);
  const [currency, setCurrency] = useState(doc.suppliers[0]?.currency ?? doc.workshop.currency);
  return {
    supplier,
    currency,
    isNew: supplier === NEW,
    setCurrency,
    pick: (s) => {
      setSupplier(s);
      const known = doc.suppliers.find((x) => x.id === s);
      if (known) setCurrency(known.currency);
    },
    idOf: async (form) => {
      if (supplier !== NEW) return supplier;
      const value = (key: string) => String(form.get(key) ?? "").trim();
      const made = await addSupplier(id, {
        name: value("supplierName"),
        currency,
        shipping: typedNumber(value("shipping")) || "0",
        ...(value("freeFrom") ? { freeFrom: typedNumber(value("freeFrom")) } : {}),
        daysMin: Number(value("days")),
        daysMax: Number(value("days")),
      });
      return made.id;
    },
  };
}

/** Supplier and currency of what is typed; of a new supplier what its parcels cost and take. */
export function WhichSupplier({ choice: c }: { choice: SupplierChoice }) {
  const { doc } = useRun();
  const currencies = [...new Set([doc.workshop.currency, ...Object.keys(doc.workshop.rates)])];
  return (
    <>
      <div className="grid grid-cols-2 gap-3">
        <Pick
          label="Supplier"
          value={c.supplier}
          options={[...doc.suppliers.map((s) => [s.id, s.name] as const), [NEW, "another supplier …"]]}
          onChange={c.pick}
        />
        <Pick
          label="Currency"
          value={c.currency}
          options={currencies.map((k) => [k, k] as const)}
          onChange={c.setCurrency}
        />
      </div>
      {c.isNew && (
        <div className="grid grid-cols-4 gap-3 border-l-2 border-rule pl-3 max-sm:grid-cols-2">
          <Field label="Its name" name="supplierName" required maxLength={120} />
          <Field
            label="Days until here"
            name="days"
            type="number"
            min={0}
            max={365}
            required
            defaultValue={5}
          />
          <Field label="Shipping" name="shipping" inputMode="decimal" required defaultValue="0.00" />
          <Field label="Free from (if ever)" name="freeFrom" inputMode="decimal" />
        </div>
      )}
    </>
  );
}
