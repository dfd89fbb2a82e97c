/** When a lot was made, as its date code says: a week, a month or a day of a year. */
export interface MadeIn {
  readonly year: number;
  readonly week?: number;
  readonly month?: number;
  readonly day?: number;
  /** How else it could be read, in words: it is then to be looked at. */
  readonly or?: string;
}

/** Older parts are not met, and nothing was made after today. */
const EARLIEST = 1970;
const MONTHS = ["jan", "feb", "mar", "apr", "may", "jun", "jul", "aug", "sep", "oct", "nov", "dec"] as const;

const weekOf = (year: number, week: number): MadeIn | undefined =>
  week >= 1 && week <= 53 ? { year, week } : undefined;
const monthOf = (year: number, month: number): MadeIn | undefined =>
  month >= 1 && month <= 12 ? { year, month } : undefined;
/** Two digits of a year are of this century up to today's year, of the one before from 70 on. */
const yearOf = (two: number): number => (two >= EARLIEST % 100 ? 1900 : 2000) + two;

/** First ISO day of what a date code says: of a week its Monday (ISO 8601). */
export function beginOf({ year, week, month, day }: MadeIn): string {
  if (week === undefined) return `${year}-${two(month ?? 1)}-${two(day ?? 1)}`;
  // 4 January is always in week 1
  const fourth = new Date(Date.UTC(year, 0, 4));
  const monday = 4 - ((fourth.getUTCDay() + 6) % 7);
  return new Date(Date.UTC(year, 0, monday + 7 * (week - 1))).toISOString().slice(0, 10);
}
/** Last ISO day of what a date code says: of a week its Sunday. */
export function endOf(made: MadeIn): string {
  const { year, month, day, week } = made;
  if (day !== undefined) return beginOf(made);
  const end =
    week !== undefined
      ? Date.parse(beginOf(made)) + 6 * 86_400_000
      : // the day before the first of the next month
        Date.UTC(year, month!, 0);
  return new Date(end).toISOString().slice(0, 10);
}
const two = (n: number) => String(n).padStart(2, "0");

/**
 * A date code as it stands on bags and parts: "2639", "26W39", "202639", "wk 39/26", "09/2026", "2026-09-23", "Sep 2026".
 *
 * Four digits are year and week (YYWW, as usual); where that would be in the future or no week they are week and year. Where both
 * could be, the usual one is taken and the other is told.
 *
 * @param today ISO day: nothing was made after it
 * @returns undefined where it cannot be read; the code itself is kept all the same
 */
export function readDateCode(text: string, today: string): MadeIn | undefined {
  const [first, other] = readingsOf(text, today);
  if (!first) return undefined;
  return other && beginOf(other) !== beginOf(first) ? { ...first, or: madeWords(other) } : first;
}

/** Every way a code can be read up to today, the usual one first; none where it cannot. */
export function readingsOf(text: string, today: string): readonly MadeIn[] {
  const t = text
    .trim()
    .toLowerCase()
    .replace(/^(d\/?c|date ?code|lot date|made)\s*[:.]?\s*/, "");
  return ways(t).filter((m) => m.year >= EARLIEST && beginOf(m) <= today);
}

/** Every way a code can be read, the usual one first. */
function ways(t: string): MadeIn[] {
  const n = (s: string | undefined) => Number(s);
  const some = (...list: (MadeIn | undefined)[]) => list.flatMap((m) => m ?? []);
  let m = /^(\d{4})[-./](\d{1,2})[-./](\d{1,2})$/.exec(t);
  if (m) return some(dayOf(n(m[1]), n(m[2]), n(m[3])));
  m = /^(\d{1,2})\.(\d{1,2})\.(\d{4})$/.exec(t);
  if (m) return some(dayOf(n(m[3]), n(m[2]), n(m[1])));
  m = /^(\d{4}|\d{2})[-\s/]?(?:w|wk|kw|cw|week)\s*(\d{1,2})$/.exec(t);
  if (m) return some(weekOf(m[1]!.length === 4 ? n(m[1]) : yearOf(n(m[1])), n(m[2])));
  m = /^(?:w|wk|kw|cw|week)\s*(\d{1,2})[-\s/.]*(\d{4}|\d{2})$/.exec(t);
  if (m) return some(weekOf(m[2]!.length === 4 ? n(m[2]) : yearOf(n(m[2])), n(m[1])));
  m = /^([a-z]{3})[a-z]*\.?[-\s/]*(\d{4}|\d{2})$/.exec(t);
  if (m)
    return some(
      monthOf(
        m[2]!.length === 4 ? n(m[2]) : yearOf(n(m[2])),
        MONTHS.indexOf(m[1] as (typeof MONTHS)[number]) + 1,
      ),
    );
  m = /^(\d{1,2})[-./](\d{4})$/.exec(t);
  if (m) return some(monthOf(n(m[2]), n(m[1])), weekOf(n(m[2]), n(m[1])));
  m = /^(\d{4})[-./](\d{1,2})$/.exec(t);
  if (m) return some(monthOf(n(m[1]), n(m[2])), weekOf(n(m[1]), n(m[2])));
  m = /^(\d{2})[-./](\d{2})$/.exec(t);
  if (m)
    return some(
      weekOf(yearOf(n(m[1])), n(m[2])),
      weekOf(yearOf(n(m[2])), n(m[1])),
      monthOf(yearOf(n(m[2])), n(m[1])),
    );
  m = /^(\d{2})(\d{2})$/.exec(t);
  if (m) return some(weekOf(yearOf(n(m[1])), n(m[2])), weekOf(yearOf(n(m[2])), n(m[1])));
  m = /^(\d{4})(\d{2})$/.exec(t);
  if (m) return some(weekOf(n(m[1]), n(m[2])), monthOf(n(m[1]), n(m[2])));
  return [];
}

function dayOf(year: number, month: number, day: number): MadeIn | undefined {
  const at = new Date(Date.UTC(year, month - 1, day));
  return at.getUTCMonth() === month - 1 && at.getUTCDate() === day && day > 0
    ? { year, month, day }
    : undefined;
}

/** "week 39 of 2026", "September 2026", "23 September 2026". */
export function madeWords({ year, week, month, day }: MadeIn): string {
  if (week !== undefined) return `week ${week} of ${year}`;
  const name = month === undefined ? "" : NAMES[month - 1]!;
  return [day, name, year].filter((x) => x !== undefined && x !== "").join(" ");
}
const NAMES = [
  "January",
  "February",
  "March",
  "April",
  "May",
  "June",
  "July",
  "August",
  "September",
  "October",
  "November",
  "December",
] as const;

/** Pins take solder less well after so many years on the shelf (rule of thumb, recalled; the maker's sheet goes before it). */
export const OLD_YEARS = 2;

/** Whole months since a lot was made. @param today ISO day */
export function monthsOld(made: MadeIn, today: string): number {
  const [y, m, d] = beginOf(made).split("-").map(Number) as [number, number, number];
  const [ty, tm, td] = today.split("-").map(Number) as [number, number, number];
  return Math.max(0, 12 * (ty - y) + tm - m - (td < d ? 1 : 0));
}
