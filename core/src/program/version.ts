/** A version as numbers: 1.4.2 is [1, 4, 2]; one that comes before its release ("1.4.2-rc1") is marked. */
interface Version {
  readonly numbers: readonly number[];
  readonly isBefore: boolean;
}

/** @returns nothing where a text is no version of one to four numbers */
function read(text: string): Version | undefined {
  const m = /^v?(\d{1,6}(?:\.\d{1,6}){0,3})(-[0-9a-z.-]{1,40})?(\+[0-9a-z.-]{1,40})?$/i.exec(text.trim());
  return m ? { numbers: m[1]!.split(".").map(Number), isBefore: m[2] !== undefined } : undefined;
}

/** Whether a text is a version that ranges can be held against. */
export const isVersion = (text: string): boolean => read(text) !== undefined;

/** Below 0 where `a` comes first. What is left out counts as 0; one before its release comes before it (semantic versions). */
function compare(a: Version, b: Version): number {
  for (let i = 0; i < 4; i++) {
    const by = (a.numbers[i] ?? 0) - (b.numbers[i] ?? 0);
    if (by !== 0) return by;
  }
  return Number(b.isBefore) - Number(a.isBefore);
}

/** Whether a version is one of those a shorter one stands for: 1.4.2 of 1.4. */
const isOf = (v: Version, short: Version): boolean =>
  short.numbers.every((n, i) => (v.numbers[i] ?? 0) === n) && (!short.isBefore || compare(v, short) === 0);

/**
 * Whether a version is within a range as people write one: "1.4" and all of it, "1.0–1.3" with all of 1.3, "≥ 2.0", "<2",
 * ">=1.4 <2", several with commas between, "all".
 *
 * @returns nothing where version or range cannot be read: it is not known then
 */
export function isWithin(version: string, range: string): boolean | undefined {
  const v = read(version);
  if (!v) return undefined;
  const plain = range
    .trim()
    .replaceAll("≥", ">=")
    .replaceAll("≤", "<=")
    .replace(/([<>]=?)\s+/g, "$1");
  if (/^(all|any|every|\*)$/i.test(plain)) return true;
  let isIn = false;
  for (const part of plain.split(/[,;]|\s+or\s+/i)) {
    const is = isInPart(v, part.trim());
    if (is === undefined) return undefined;
    isIn ||= is;
  }
  return isIn;
}

function isInPart(v: Version, part: string): boolean | undefined {
  // a hyphen between two versions; one within a version is of what comes before its release
  const span = /^(v?\d+(?:\.\d+){0,3})\s*(?:–|—|\.\.|\bto\b|-)\s*(v?\d+(?:\.\d+){0,3})$/i.exec(part);
  if (span) {
    const [from, to] = [read(span[1]!)!, read(span[2]!)!];
    if (compare(from, to) > 0) return undefined;
    return compare(v, from) >= 0 && (compare(v, to) <= 0 || isOf(v, to));
  }
  const terms = part.split(/\s+/).filter((t) => t !== "");
  if (terms.length === 0) return undefined;
  let isIn = true;
  for (const term of terms) {
    const [, sign, text] = /^(>=|<=|>|<|=)?(.+)$/.exec(term)!;
    const bound = read(text!);
    if (!bound || (terms.length > 1 && !sign)) return undefined;
    const by = compare(v, bound);
    const is = {
      ">=": by >= 0,
      "<=": by <= 0 || isOf(v, bound),
      ">": by > 0 && !isOf(v, bound),
      "<": by < 0,
      "=": isOf(v, bound),
    }[sign ?? "="]!;
    isIn &&= is;
  }
  return isIn;
}
