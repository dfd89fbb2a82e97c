import { type FormEvent, useState } from "react";
import { saveShop, useShop } from "../../resources/session.ts";
import { Button } from "../../ui/Button.tsx";
import { Field } from "../../ui/Field.tsx";
import { useSay, useSayError } from "../../ui/Toast.tsx";

/** The shop: its name, the worth of an hour, tax on purchases, exchange rates. */
export function SettingsPage() {
  const shop = useShop();
  const say = useSay();
  const sayError = useSayError();
  const [rates, setRates] = useState<readonly (readonly [string, string])[]>(Object.entries(shop.rates));
  const submit = (e: FormEvent<HTMLFormElement>) => {
    e.preventDefault();
    const f = new FormData(e.currentTarget);
    const number = (key: string) => String(f.get(key)).trim().replace(",", ".");
    saveShop({
      name: String(f.get("name")),
      hourlyRate: number("hourlyRate"),
      taxRate: Number(number("taxRate")) / 100,
      hoursPerDay: Number(number("hoursPerDay")),
      rates: Object.fromEntries(
        rates
          .filter(([c]) => c.trim() !== "")
          .map(([c, r]) => [c.trim().toUpperCase(), r.trim().replace(",", ".")]),
      ),
    })
      .then(() => say("The shop's settings were saved"))
      .catch(sayError);
  };
  return (
    <main id="main" className="mx-auto w-full max-w-[680px] px-6 py-6">
      <h1 className="mb-3">Settings of {shop.name}</h1>
      <form onSubmit={submit} className="flex flex-col gap-4">
        <Field label="Name of the shop" name="name" required maxLength={120} defaultValue={shop.name} />
        <div className="grid grid-cols-3 gap-3">
          <Field
            label={`An own hour, ${shop.currency}`}
            name="hourlyRate"
            required
            inputMode="decimal"
            defaultValue={shop.hourlyRate}
          />
          <Field
            label="Own hours a day"
            name="hoursPerDay"
            required
            inputMode="decimal"
            defaultValue={String(shop.hoursPerDay)}
          />
          <Field
            label="Recoverable tax, %"
            name="taxRate"
            required
            inputMode="decimal"
            defaultValue={String(Math.round(shop.taxRate * 10000) / 100)}
          />
        </div>
        <fieldset>
          <legend className="mb-1 font-semibold">Exchange rates: {shop.currency} for one of the other</legend>
          {rates.map(([code, rate], i) => (
            <div key={String(i)} className="mb-2 flex items-end gap-3">
              <Field
                label="Currency"
                value={code}
                maxLength={3}
                className="w-24"
                onChange={(e) => setRates(rates.map((r, k) => (k === i ? [e.target.value, r[1]] : r)))}
              />
              <Field
                label="Rate"
                value={rate}
                inputMode="decimal"
                className="w-36"
                onChange={(e) => setRates(rates.map((r, k) => (k === i ? [r[0], e.target.value] : r)))}
              />
              <Button
                look="bare"
                onClick={() => setRates(rates.filter((_, k) => k !== i))}
                aria-label={`Remove the rate of ${code}`}
              >
                remove
              </Button>
            </div>
          ))}
          <Button look="bare" onClick={() => setRates([...rates, ["", ""]])}>
            add a rate
          </Button>
        </fieldset>
        <div>
          <Button type="submit" look="main">
            Save
          </Button>
        </div>
      </form>
    </main>
  );
}
