/** Bad ones of so many, of one of two settings. */
export interface Tally2 {
  readonly bad: number;
  readonly of: number;
}

/** What two settings compared on a few boards may claim. */
export interface Compared {
  /** How often chance alone would set them at least so far apart: Fisher's exact test, both sides. */
  readonly chance: number;
  /** Differs by more than chance at one in twenty. */
  readonly isSeen: boolean;
  /** Boards of each that would show such a difference in eight of ten tries; nothing where there is none, or more than 200 would. */
  readonly needs?: number;
}

const ALPHA = 0.05;
const POWER = 0.8;
const MOST = 200;

const LOG_FACTORIAL: number[] = [0];
const logFactorial = (n: number): number => {
  for (let i = LOG_FACTORIAL.length; i <= n; i++) LOG_FACTORIAL[i] = LOG_FACTORIAL[i - 1]! + Math.log(i);
  return LOG_FACTORIAL[n]!;
};
const logChoose = (n: number, k: number): number => logFactorial(n) - logFactorial(k) - logFactorial(n - k);

/**
 * How likely two settings that do not differ would come out at least so far apart, with as many bad ones in all: the sum of
 * all tables that are no likelier than this one (Fisher, 1935; two-sided by probability, as it is mostly done). Exact.
 *
 * @throws never; nothing tried of one of them is a chance of 1
 */
export function chanceOf(a: Tally2, b: Tally2): number {
  const [n, bad] = [a.of + b.of, a.bad + b.bad];
  const table = (k: number) => logChoose(a.of, k) + logChoose(b.of, bad - k) - logChoose(n, bad);
  const here = table(a.bad);
  let sum = 0;
  for (let k = Math.max(0, bad - b.of); k <= Math.min(bad, a.of); k++) {
    const log = table(k);
    // tables as likely as this one count, whatever the last bit says
    if (log <= here + 1e-9) sum += Math.exp(log);
  }
  return Math.min(1, sum);
}

/** How often `of` boards of each would show two shares to differ, by going through every outcome. */
export function powerOf(p: number, q: number, of: number): number {
  const binomial = (share: number) =>
    Array.from({ length: of + 1 }, (_, k) => {
      if (share <= 0) return k === 0 ? 1 : 0;
      if (share >= 1) return k === of ? 1 : 0;
      return Math.exp(logChoose(of, k) + k * Math.log(share) + (of - k) * Math.log(1 - share));
    });
  const [x, y] = [binomial(p), binomial(q)];
  let power = 0;
  for (let i = 0; i <= of; i++)
    for (let j = 0; j <= of; j++) {
      const both = x[i]! * y[j]!;
      if (both > 1e-9 && chanceOf({ bad: i, of }, { bad: j, of }) <= ALPHA + 1e-12) power += both;
    }
  return power;
}

/** Fewest boards of each setting that show two shares to differ in eight of ten tries; undefined where more than 200 would. */
export function boardsToSee(p: number, q: number): number | undefined {
  if (p === q) return undefined;
  // it hardly ever falls with more boards: quickly up to where it suffices, then back one by one
  let n = 2;
  while (n <= MOST && powerOf(p, q, n) < POWER) n = Math.max(n + 1, Math.ceil(n * 1.25));
  if (n > MOST) return powerOf(p, q, MOST) >= POWER ? MOST : undefined;
  while (n > 2 && powerOf(p, q, n - 1) >= POWER) n--;
  return n;
}

/**
 * Two settings compared on a few boards (needs N131, X14): whether the difference is more than chance would make, and how many
 * boards of each it takes to see one as large. Shares are taken as they came, a half of a board away from none and all.
 */
export function compareSettings(a: Tally2, b: Tally2): Compared {
  const chance = a.of === 0 || b.of === 0 ? 1 : chanceOf(a, b);
  const share = ({ bad, of }: Tally2) => Math.min(1 - 0.5 / (of + 1), Math.max(0.5 / (of + 1), bad / of));
  const isApart = a.of > 0 && b.of > 0 && a.bad * b.of !== b.bad * a.of;
  const needs = isApart ? boardsToSee(share(a), share(b)) : undefined;
  return { chance, isSeen: chance <= ALPHA + 1e-12, ...(needs === undefined ? {} : { needs }) };
}

/** Boards as people name them: "1-5, 8" → 1 2 3 4 5 8; undefined where it cannot be read, or names more than are started. */
export function boardsNamed(text: string, most: number): number[] | undefined {
  const out = new Set<number>();
  for (const piece of text.split(/[\s,;]+/).filter(Boolean)) {
    const m = /^(\d{1,5})(?:[-–](\d{1,5}))?$/.exec(piece);
    const [from, to] = [Number(m?.[1]), Number(m?.[2] ?? m?.[1])];
    if (!m || from < 1 || to > most || to < from) return undefined;
    for (let i = from; i <= to; i++) out.add(i);
  }
  return [...out].sort((x, y) => x - y);
}
