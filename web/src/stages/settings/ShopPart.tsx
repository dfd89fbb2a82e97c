import { ruleWrong, serialOf, USUAL_RULE } from "@kobbin/core";
import { type FormEvent, useEffect, useState } from "react";
import { undoChange } from "../../resources/history.ts";
import { saveShop, useShop } from "../../resources/session.ts";
import { Button } from "../../ui/Button.tsx";
import { Field, Pick } from "../../ui/Field.tsx";
import { typedNumber, written } from "../../ui/text/format.ts";
import { useSay, useSayError } from "../../ui/toast/Toast.tsx";

const MARKS = [
  [".", "1,234.50"],
  [",", "1 234,50"],
] as const;
const DATES = [
  ["dmy", "25 Nov"],
  ["mdy", "Nov 25"],
  ["ymd", "2026-11-25"],
] as const;

/** The shop: its name, the worth of an hour, tax on purchases, exchange rates, how numbers and dates are written. */
export function ShopPart() {
  const { version } = useShop();
  const [isDirty, setDirty] = useState(false);
  // what is being typed stays while somebody else saves, and is set against what they saved
  const [seen, setSeen] = useState(version);
  useEffect(() => {
    if (!isDirty) setSeen(version);
  }, [isDirty, version]);
  return <ShopForm key={seen} seen={seen} onDirty={setDirty} />;
}

function ShopForm({ seen, onDirty }: { seen: number; onDirty: (isDirty: boolean) => void }) {
  const shop = useShop();
  const say = useSay();
  const sayError = useSayError();
  const [mark, setMark] = useState<string>(shop.decimalMark);
  const [dates, setDates] = useState<string>(shop.dateOrder);
  const [mil, setMil] = useState(shop.showsMil);
  const [rates, setRates] = useState<readonly (readonly [string, string])[]>(Object.entries(shop.rates));
  const submit = (e: FormEvent<HTMLFormElement>) => {
    e.preventDefault();
    const f = new FormData(e.currentTarget);
    const number = (key: string) => typedNumber(String(f.get(key)));
    const done = saveShop({
      version: seen,
      decimalMark: mark as "." | ",",
      dateOrder: dates as "dmy" | "mdy" | "ymd",
      showsMil: mil,
      serialRule: String(f.get("serialRule")).trim(),
      address: String(f.get("address")).replaceAll("\r\n", "\n").trim(),
      name: String(f.get("name")),
      hourlyRate: number("hourlyRate"),
      taxRate: Number(number("taxRate")) / 100,
      hoursPerDay: Number(number("hoursPerDay")),
      rates: Object.fromEntries(
        rates.filter(([c]) => c.trim() !== "").map(([c, r]) => [c.trim().toUpperCase(), typedNumber(r)]),
      ),
    });
    done.then(({ changeId }) => {
      onDirty(false);
      say("The shop's settings were saved", {
        ...(changeId ? { undo: () => void undoChange(changeId).catch(sayError) } : {}),
      });
    }, sayError);
  };
  return (
    <form onSubmit={submit} onChange={() => onDirty(true)} className="flex max-w-[680px] flex-col gap-4">
      <Field label="Name of the shop" name="name" required maxLength={120} defaultValue={shop.name} />
      <div className="grid grid-cols-3 gap-3">
        <Field
          label={`An own hour, ${shop.currency}`}
          name="hourlyRate"
          required
          inputMode="decimal"
          defaultValue={written(shop.hourlyRate)}
        />
        <Field
          label="Own hours a day"
          name="hoursPerDay"
          required
          inputMode="decimal"
          defaultValue={written(String(shop.hoursPerDay))}
        />
        <Field
          label="Recoverable tax, %"
          name="taxRate"
          required
          inputMode="decimal"
          defaultValue={written(String(Math.round(shop.taxRate * 10000) / 100))}
        />
      </div>
      <fieldset className="grid grid-cols-3 items-end gap-3 max-sm:grid-cols-1">
        <legend className="mb-1 font-semibold">How numbers and dates are written</legend>
        <Pick label="Numbers" value={mark} onChange={setMark} options={MARKS} />
        <Pick label="Dates" value={dates} onChange={setDates} options={DATES} />
        <label className="flex items-center gap-2 pb-1">
          <input type="checkbox" checked={mil} onChange={(e) => setMil(e.target.checked)} />
          mil beside mm
        </label>
      </fieldset>
      <Serials kept={shop.serialRule} />
      <Address kept={shop.address} />
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
              onClick={() => {
                onDirty(true);
                setRates(rates.filter((_, k) => k !== i));
              }}
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
  );
}

/** Where parcels go, as it stands on purchase orders. */
function Address({ kept }: { kept: string }) {
  return (
    <label className="flex flex-col gap-[3px] text-[13.5px] text-ink-2">
      Where parcels go and who is asked, as it stands on purchase orders
      <textarea
        name="address"
        className="min-h-20 text-[15px] text-ink"
        maxLength={500}
        defaultValue={kept}
      />
    </label>
  );
}

/** How what is built is numbered, with the number it makes. */
function Serials({ kept }: { kept: string }) {
  const [rule, setRule] = useState(kept);
  const wrong = rule.trim() === "" ? undefined : ruleWrong(rule.trim());
  const made = wrong
    ? undefined
    : serialOf(rule.trim() || USUAL_RULE, {
        product: "Kiln Watch",
        year: new Date().getFullYear(),
        batch: 7,
        n: 13,
      });
  return (
    <Field
      label="Serial numbers of what is built"
      name="serialRule"
      isNumber
      maxLength={60}
      value={rule}
      placeholder={USUAL_RULE}
      error={wrong && `It makes no numbers: ${wrong}.`}
      hint={`Board 13 of the seventh release: ${made}. Its last symbol tells a mistyped one. {product} {y} {yy} {batch} {n}`}
      onChange={(e) => setRule(e.target.value)}
    />
  );
}
