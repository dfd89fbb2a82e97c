import { CHOICE_FIELDS, type ChoiceField } from "@kobbin/core";

/** Plain data as it stands in a row: what JSON can hold. */
export type Json = null | boolean | number | string | readonly Json[] | { readonly [key: string]: Json };

/** One value that two people set differently from the same start. */
export interface Clash {
  readonly path: readonly string[];
  readonly mine: Json | undefined;
  readonly theirs: Json | undefined;
}

const isObject = (v: Json | undefined): v is { readonly [key: string]: Json } =>
  typeof v === "object" && v !== null && !Array.isArray(v);

/** Decisions that are objects and yet one: half of one sheet and half of another is none. */
export const WHOLE: ReadonlySet<string> = new Set(
  Object.values(CHOICE_FIELDS).flatMap((part) =>
    Object.entries(part as Readonly<Record<string, ChoiceField>>).flatMap(([key, f]) =>
      f.isWhole ? [key] : [],
    ),
  ),
);

/** Equal as data; the order of an object's keys says nothing. */
export function isSame(a: Json | undefined, b: Json | undefined): boolean {
  if (a === b) return true;
  if (Array.isArray(a) && Array.isArray(b))
    return a.length === b.length && a.every((v, i) => isSame(v, b[i]));
  if (!isObject(a) || !isObject(b)) return false;
  const keys = Object.keys(a);
  return keys.length === Object.keys(b).length && keys.every((k) => k in b && isSame(a[k], b[k]));
}

/**
 * Joins two changes of one value: what only one side changed is taken from that side; objects are joined key by key,
 * lists and plain values whole.
 *
 * @param base what both started from; undefined where it was absent
 * @returns the joined value (undefined: absent) with theirs where they clash, and every clash with its path
 */
export function mergeThree(
  base: Json | undefined,
  mine: Json | undefined,
  theirs: Json | undefined,
  path: readonly string[] = [],
  isWhole = false,
): { readonly value: Json | undefined; readonly clashes: readonly Clash[] } {
  if (isSame(mine, theirs) || isSame(base, mine)) return { value: theirs, clashes: [] };
  if (isSame(base, theirs)) return { value: mine, clashes: [] };
  if (
    !isWhole &&
    isObject(mine) &&
    isObject(theirs) &&
    (isObject(base) || base === undefined || base === null)
  ) {
    const value: Record<string, Json> = {};
    const clashes: Clash[] = [];
    for (const key of new Set([...Object.keys(theirs), ...Object.keys(mine)])) {
      const old = isObject(base) && Object.hasOwn(base, key) ? base[key] : undefined;
      const has = (o: { readonly [key: string]: Json }) => (Object.hasOwn(o, key) ? o[key] : undefined);
      const one = mergeThree(old, has(mine), has(theirs), [...path, key], WHOLE.has(key));
      if (one.value !== undefined)
        Object.defineProperty(value, key, {
          value: one.value,
          enumerable: true,
          writable: true,
          configurable: true,
        });
      clashes.push(...one.clashes);
    }
    return { value, clashes };
  }
  return { value: theirs, clashes: [{ path, mine, theirs }] };
}
