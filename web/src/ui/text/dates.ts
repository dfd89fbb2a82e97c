import { format, isValid, parse } from "date-fns";
import { formats } from "./format.ts";

/** How a date is written in a field, by the shop's order; what is shown is what can be typed. */
const SHOWN = { dmy: "d MMM yyyy", mdy: "MMM d, yyyy", ymd: "yyyy-MM-dd" } as const;
/** What else is understood, the shop's order first; a year is the one at hand where none is given. */
const TYPED = {
  dmy: ["d MMM", "d.M.yyyy", "d.M.yy", "d.M.", "d.M", "d/M/yyyy", "d/M/yy", "d/M"],
  mdy: ["MMM d yyyy", "MMM d", "M/d/yyyy", "M/d/yy", "M/d"],
  ymd: ["M-d", "MM-dd"],
} as const;

/** An ISO date as the shop writes it in a field. */
export const shownDate = (iso: string): string => {
  const d = parse(iso, "yyyy-MM-dd", new Date(2000, 0, 1));
  return isValid(d) ? format(d, SHOWN[formats().dateOrder]) : iso;
};

/** Today as an ISO date, where the person is. */
export const todayIso = (now: Date = new Date()): string => format(now, "yyyy-MM-dd");

/** How a date is to be typed, as an example. */
export const dateExample = (): string => shownDate("2026-11-27");

/**
 * The ISO date a person meant: the shop's order, ISO, "today", or days from today as "+7".
 *
 * @param today from which days and missing years are counted
 * @returns nothing where it is none
 */
export function typedDate(text: string, today: Date = new Date()): string | undefined {
  const t = text.trim().toLowerCase();
  if (t === "today") return format(today, "yyyy-MM-dd");
  const days = /^([+-]\d{1,3})$/.exec(t);
  if (days) {
    const d = new Date(today.getFullYear(), today.getMonth(), today.getDate() + Number(days[1]));
    return format(d, "yyyy-MM-dd");
  }
  const order = formats().dateOrder;
  const others = (["dmy", "mdy", "ymd"] as const).filter((o) => o !== order);
  // an order with names of months is clear whoever writes it
  const clear = others.map((o) => SHOWN[o]);
  for (const pattern of [SHOWN[order], "yyyy-MM-dd", ...TYPED[order], ...clear]) {
    const d = parse(text.trim(), pattern, today);
    if (isValid(d) && d.getFullYear() > 1999 && d.getFullYear() < 2200) return format(d, "yyyy-MM-dd");
  }
  return undefined;
}
