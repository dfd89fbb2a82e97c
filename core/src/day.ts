/** So many days after a day. @param day ISO, as what is returned */
export const later = (day: string, days: number): string =>
  new Date(Date.parse(day) + days * 86_400_000).toISOString().slice(0, 10);

/** Whether a text is a day that the calendar has. */
export function isDay(v: string): boolean {
  const m = /^(\d{4})-(\d{2})-(\d{2})$/.exec(v);
  if (!m) return false;
  const [year, month, date] = [Number(m[1]), Number(m[2]), Number(m[3])];
  if (year < 1900 || year > 2200 || month < 1 || month > 12 || date < 1) return false;
  const isLeap = (year % 4 === 0 && year % 100 !== 0) || year % 400 === 0;
  return date <= (month === 2 ? (isLeap ? 29 : 28) : [4, 6, 9, 11].includes(month) ? 30 : 31);
}
