const formats = new Map<string, Intl.NumberFormat>();

function formatOf(currency: string, places: number | undefined): Intl.NumberFormat {
  const key = `${currency} ${places}`;
  let f = formats.get(key);
  if (!f) {
    f = new Intl.NumberFormat("en-GB", {
      style: "currency",
      currency,
      currencyDisplay: "code",
      ...(places === undefined ? {} : { minimumFractionDigits: places, maximumFractionDigits: places }),
    });
    formats.set(key, f);
  }
  return f;
}

/** "19.30" in the currency's places. */
export function amount(value: number, currency: string, places?: number): string {
  return formatOf(currency, places)
    .formatToParts(value)
    .filter((p) => !["currency", "literal"].includes(p.type))
    .map((p) => (p.type === "minusSign" ? "−" : p.value))
    .join("");
}

/** "19.30 EUR". */
export const money = (value: number, currency: string, places?: number): string =>
  `${amount(value, currency, places)} ${currency}`;

/** Micros to a plain number, for showing only. */
export const fromMicros = (micros: number): number => Math.round(micros) / 1e6;

/** "+0.41" or "−0.24"; "0" where nothing moves at this many places. */
export function signed(value: number, places = 2): string {
  const rounded = Math.round(Math.abs(value) * 10 ** places) / 10 ** places;
  if (rounded === 0) return "0";
  return `${value > 0 ? "+" : "−"}${rounded.toFixed(places)}`;
}

/** At most three decimals, no zeros that say nothing: 0.152, 1.6, 78. */
export const mm = (v: number | undefined): string =>
  v === undefined ? "–" : String(Math.round(v * 1000) / 1000);

/** "12 Jan" from an ISO date, with the year when it is another than now. */
export function day(iso: string): string {
  const d = new Date(`${iso.slice(0, 10)}T00:00:00Z`);
  const other = d.getUTCFullYear() !== new Date().getUTCFullYear();
  return new Intl.DateTimeFormat("en-GB", {
    day: "numeric",
    month: "short",
    timeZone: "UTC",
    ...(other ? { year: "numeric" } : {}),
  }).format(d);
}

/** "12–19 Jan". */
export function dayRange(from: string, to: string): string {
  if (from === to) return day(from);
  if (from.slice(0, 7) === to.slice(0, 7)) return `${Number(from.slice(8, 10))}–${day(to)}`;
  return `${day(from)} – ${day(to)}`;
}

/** "1 line", "3 lines". */
export const count = (n: number, one: string, many = `${one}s`): string => `${n} ${n === 1 ? one : many}`;

/** "14:02" of a moment. */
export const clock = (at: Date): string =>
  at.toLocaleTimeString("en-GB", { hour: "2-digit", minute: "2-digit" });

/** A unit price with no more digits than a person compares: four decimals below ten, two above. */
export function unitPrice(micros: number): string {
  const value = fromMicros(micros);
  if (value >= 10) return value.toFixed(2);
  return value.toFixed(4).replace(/0{1,2}$/, "");
}

/** Loads the browser's tables of numbers and dates while nothing else is done; the first use of each takes some 30 ms. */
export function warmFormats(): void {
  requestIdleCallback(() => {
    amount(0, "EUR");
    requestIdleCallback(() => day("2000-01-01"));
  });
}
