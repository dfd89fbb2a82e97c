/** A moment of a log: seconds, and whether it is of a clock that begins again each day. */
export interface Moment {
  readonly seconds: number;
  readonly isClock: boolean;
}

const NUMBER = /^[+-]?\d+(?:[.,]\d+)?(?:[eE][+-]?\d+)?$/;
const CLOCK = /(?:^|[\sT])(\d{1,3}):(\d{1,2})(?::(\d{1,2}(?:[.,]\d+)?))?\s*(am|pm)?Z?$/i;
const DAY = /(\d{4})-(\d{2})-(\d{2})/;

/** A number as loggers write it, with a decimal point or comma. */
export const numberOf = (text: string): number | undefined =>
  NUMBER.test(text) ? Number(text.replace(",", ".")) : undefined;

/**
 * A cell of the time column.
 * @param unitS seconds in one of its plain numbers
 * @param areMinutes two parts of a clock are minutes and seconds
 * @returns undefined where it is no time
 */
export function momentOf(text: string, unitS: number, areMinutes: boolean): Moment | undefined {
  const t = text.trim();
  const plain = numberOf(t);
  if (plain !== undefined) return { seconds: plain * unitS, isClock: false };
  const m = CLOCK.exec(t);
  if (!m) return undefined;
  const [a, b] = [Number(m[1]), Number(m[2])];
  const s = m[3] === undefined ? undefined : Number(m[3].replace(",", "."));
  if (b > 59 || (s ?? 0) >= 60) return undefined;
  if (s === undefined && areMinutes) return { seconds: 60 * a + b, isClock: false };
  const half = m[4]?.toLowerCase();
  const hours = half === undefined ? a : (a % 12) + (half === "pm" ? 12 : 0);
  const day = DAY.exec(t);
  const days = day ? Date.UTC(Number(day[1]), Number(day[2]) - 1, Number(day[3])) / 86_400_000 : undefined;
  const seconds = 3600 * hours + 60 * b + (s ?? 0);
  // with its day it never begins again
  return days === undefined
    ? { seconds, isClock: true }
    : { seconds: seconds + 86_400 * days, isClock: false };
}

/** A fall by more than this is the turn of the day, not a row out of its order. */
const HALF_DAY_S = 43_200;

/** Moments of one log in the order of its rows, as seconds that go on over midnight. */
export function continued(moments: readonly (Moment | undefined)[]): (number | undefined)[] {
  let days = 0;
  let last: number | undefined;
  return moments.map((m) => {
    if (!m) return undefined;
    if (!m.isClock) return m.seconds;
    if (last !== undefined && last - m.seconds > HALF_DAY_S) days++;
    last = m.seconds;
    return m.seconds + 86_400 * days;
  });
}
