import { useSyncExternalStore } from "react";

/** How the shop writes numbers and dates. */
export interface Formats {
  readonly decimalMark: "." | ",";
  readonly dateOrder: "dmy" | "mdy" | "ymd";
  readonly showsMil: boolean;
}

let settings: Formats = { decimalMark: ".", dateOrder: "dmy", showsMil: false };
const hearers = new Set<() => void>();
const numbers = new Map<string, Intl.NumberFormat>();

/** Set from the shop before anything is drawn, and by the key that shows mil. */
export function setFormats(change: Partial<Formats>): void {
  const next = { ...settings, ...change };
  if (
    next.decimalMark === settings.decimalMark &&
    next.dateOrder === settings.dateOrder &&
    next.showsMil === settings.showsMil
  )
    return;
  settings = next;
  for (const h of hearers) h();
}
export const formats = (): Formats => settings;
/** Draws again when the way of writing changes. */
export const useFormats = (): Formats =>
  useSyncExternalStore((hear) => {
    hearers.add(hear);
    return () => {
      hearers.delete(hear);
    };
  }, formats);

function formatOf(currency: string, places: number | undefined): Intl.NumberFormat {
  const key = `${currency} ${places}`;
  let f = numbers.get(key);
  if (!f) {
    f = new Intl.NumberFormat("en-GB", {
      style: "currency",
      currency,
      currencyDisplay: "code",
      ...(places === undefined ? {} : { minimumFractionDigits: places, maximumFractionDigits: places }),
    });
    numbers.set(key, f);
  }
  return f;
}

/** A plain decimal as the shop writes it. */
export const written = (plain: string): string =>
  settings.decimalMark === "." ? plain : plain.replace(".", ",");

/** A computed sentence with the shop's mark in its numbers and its order in its dates. */
export const said = (text: string): string => {
  const dated = text.replace(/\b\d{4}-\d{2}-\d{2}\b/g, (d) => (Number.isNaN(Date.parse(d)) ? d : day(d)));
  return settings.decimalMark === "." ? dated : dated.replace(/(\d)\.(?=\d)/g, "$1,");
};

/** So many decimals, with the shop's mark. */
export const fixed = (value: number, places: number): string => written(value.toFixed(places));

/** "19.30" in the currency's places; thousands apart by the other mark, or by a thin space where the comma is taken. */
export function amount(value: number, currency: string, places?: number): string {
  return formatOf(currency, places)
    .formatToParts(value)
    .filter((p) => !["currency", "literal"].includes(p.type))
    .map((p) =>
      p.type === "minusSign"
        ? "−"
        : p.type === "decimal"
          ? settings.decimalMark
          : p.type === "group" && settings.decimalMark === ","
            ? "\u202f"
            : p.value,
    )
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
  return `${value > 0 ? "+" : "−"}${fixed(rounded, places)}`;
}

/** At most three decimals, no zeros that say nothing: 0.152, 1.6, 78. */
export const mm = (v: number | undefined): string =>
  v === undefined ? "–" : written(String(Math.round(v * 1000) / 1000));

/** The same length in thousandths of an inch, one decimal; empty unless it is asked for. */
export const mil = (v: number | undefined): string =>
  v === undefined || !settings.showsMil ? "" : `${fixed(v / 0.0254, 1)} mil`;

const MONTHS = ["Jan", "Feb", "Mar", "Apr", "May", "Jun", "Jul", "Aug", "Sep", "Oct", "Nov", "Dec"];
const two = (n: number) => String(n).padStart(2, "0");

/** "12 Jan", "Jan 12" or "01-12" from an ISO date, with the year when it is another than now. */
export function day(iso: string): string {
  const d = new Date(`${iso.slice(0, 10)}T00:00:00Z`);
  const [y, m, n] = [d.getUTCFullYear(), d.getUTCMonth(), d.getUTCDate()];
  const isOther = y !== new Date().getUTCFullYear();
  if (settings.dateOrder === "ymd") return `${y}-${two(m + 1)}-${two(n)}`;
  if (settings.dateOrder === "mdy") return `${MONTHS[m]} ${n}${isOther ? `, ${y}` : ""}`;
  return `${n} ${MONTHS[m]}${isOther ? ` ${y}` : ""}`;
}

/** "12–19 Jan". */
export function dayRange(from: string, to: string): string {
  if (from.slice(0, 10) === to.slice(0, 10)) return day(from);
  const isOneMonth = from.slice(0, 7) === to.slice(0, 7);
  if (settings.dateOrder === "dmy" && isOneMonth) return `${Number(from.slice(8, 10))}–${day(to)}`;
  if (settings.dateOrder === "mdy" && isOneMonth)
    return day(from).replace(/\d+/, (n) => `${n}–${Number(to.slice(8, 10))}`);
  return `${day(from)} – ${day(to)}`;
}

/** "today", "yesterday" or the day, of a moment. */
export function dayName(iso: string, now: Date = new Date()): string {
  const at = new Date(iso);
  const midnight = (d: Date) => new Date(d.getFullYear(), d.getMonth(), d.getDate()).getTime();
  const days = Math.round((midnight(now) - midnight(at)) / 86_400_000);
  if (days === 0) return "Today";
  if (days === 1) return "Yesterday";
  return day(`${at.getFullYear()}-${two(at.getMonth() + 1)}-${two(at.getDate())}`);
}

/** "1 line", "3 lines". */
export const count = (n: number, one: string, many = `${one}s`): string => `${n} ${n === 1 ? one : many}`;

/** "14:02" of a moment. */
export const clock = (at: Date): string =>
  at.toLocaleTimeString("en-GB", { hour: "2-digit", minute: "2-digit" });

/** A unit price with no more digits than a person compares: four decimals below ten, two above. */
export function unitPrice(micros: number): string {
  const value = fromMicros(micros);
  if (value >= 10) return fixed(value, 2);
  return written(value.toFixed(4).replace(/0{1,2}$/, ""));
}

/**
 * What a person typed as a plain decimal: both marks are understood, and spaces between thousands. Where a text can be
 * read two ways ("1,250"), the shop's own mark decides; "0,250" cannot mean thousands.
 *
 * @returns the text with a point, or the text as it is when it is no number
 */
export function typedNumber(text: string): string {
  const t = text.trim().replace(/[\s\u202f\u00a0]/g, "");
  const group = settings.decimalMark === "." ? "," : ".";
  const isGrouped = new RegExp(`^[1-9]\\d{0,2}(\\${group}\\d{3})+(\\${settings.decimalMark}\\d+)?$`).test(t);
  const plain = isGrouped ? t.replaceAll(group, "") : t;
  return /^-?\d*[.,]?\d*$/.test(plain) ? plain.replace(",", ".") : plain;
}

/** An amount of money as it was typed, as a plain decimal; nothing where it is none. */
export function typedAmount(text: string): string | undefined {
  const plain = typedNumber(text);
  return /^\d{1,9}(\.\d{1,6})?$/.test(plain) ? plain : undefined;
}

/** Loads the browser's tables of numbers while nothing else is done; the first use takes some 30 ms. */
export function warmFormats(): void {
  requestIdleCallback(() => amount(0, "EUR"));
}
