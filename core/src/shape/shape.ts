import { isDay } from "../day.ts";

export { isDay };

/** Says what is wrong with a value, with the path to it; undefined where it has the shape. */
export type DataShape = (value: unknown, path: string) => string | undefined;

type Fields = Readonly<Record<string, DataShape>>;

const at = (path: string, key: string | number) =>
  typeof key === "number" ? `${path}[${key}]` : path === "" ? key : `${path}.${key}`;
const isRecord = (v: unknown): v is Record<string, unknown> =>
  typeof v === "object" && v !== null && !Array.isArray(v);

/** A short text; neither NUL nor half a character, which no database keeps. */
export const text =
  (most = 300, least = 0): DataShape =>
  (v, path) =>
    typeof v !== "string"
      ? `${path} should be a text`
      : v.length > most
        ? `${path} is longer than ${most} characters`
        : v.length < least
          ? `${path} is empty`
          : isStorable(v)
            ? undefined
            : `${path} holds a character that is none`;

/** Whether a text can be kept as it is: no NUL, no half of a surrogate pair. */
export const isStorable = (v: string): boolean => !v.includes("\u0000") && !HALF.test(v);
/** Half of a character that takes two. */
const HALF = /[\uD800-\uDBFF](?![\uDC00-\uDFFF])|(?<![\uD800-\uDBFF])[\uDC00-\uDFFF]/;

/** A finite number within bounds. */
export const number =
  (least = -1e12, most = 1e12): DataShape =>
  (v, path) =>
    typeof v === "number" && Number.isFinite(v) && v >= least && v <= most
      ? undefined
      : `${path} should be a number from ${least} to ${most}`;

/** A whole number within bounds. */
export const whole =
  (least = 0, most = 1e9): DataShape =>
  (v, path) =>
    typeof v === "number" && Number.isSafeInteger(v) && v >= least && v <= most
      ? undefined
      : `${path} should be a whole number from ${least} to ${most}`;

export const flag: DataShape = (v, path) =>
  typeof v === "boolean" ? undefined : `${path} should be true or false`;

/** An amount as decimal text, or as a number where documents allow one; never negative. */
export const money: DataShape = (v, path) =>
  (typeof v === "string" && /^\d{1,12}(\.\d{1,8})?$/.test(v)) ||
  (typeof v === "number" && v >= 0 && v < 1e12 && Number.isFinite(v))
    ? undefined
    : `${path} should be an amount like 12.50`;

/** A day of the calendar, as 2026-11-24. */
export const day: DataShape = (v, path) =>
  typeof v === "string" && isDay(v) ? undefined : `${path} should be a day like 2026-11-24`;

/** A moment as the database writes it. */
export const instant: DataShape = (v, path) =>
  typeof v === "string" &&
  v.length < 40 &&
  /^\d{4}-\d\d-\d\d[T ]\d\d:\d\d/.test(v) &&
  isDay(v.slice(0, 10)) &&
  !Number.isNaN(Date.parse(v.replace(" ", "T").replace(/([+-]\d\d)$/, "$1:00")))
    ? undefined
    : `${path} should be a moment like 2026-11-24T08:00:00Z`;

/** An id as the database writes it. */
export const UUID = /^[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}$/;
export const id: DataShape = (v, path) =>
  typeof v === "string" && UUID.test(v) ? undefined : `${path} should be an id`;

export const matching =
  (pattern: RegExp, what: string): DataShape =>
  (v, path) =>
    typeof v === "string" && pattern.test(v) ? undefined : `${path} should be ${what}`;

export const currency = matching(/^[A-Z]{3}$/, "a currency of three capital letters");

export const oneOf =
  (...values: readonly unknown[]): DataShape =>
  (v, path) =>
    values.includes(v) ? undefined : `${path} should be one of ${values.map(String).join(", ")}`;

/** A list whose items have one shape. */
export const list =
  (of: DataShape, most = 1000, least = 0): DataShape =>
  (v, path) => {
    if (!Array.isArray(v)) return `${path} should be a list`;
    if (v.length > most) return `${path} holds more than ${most} items`;
    if (v.length < least) return `${path} holds fewer than ${least} items`;
    for (let i = 0; i < v.length; i++) {
      const wrong = of(v[i], at(path, i));
      if (wrong) return wrong;
    }
    return undefined;
  };

/** A list of fixed length, item by item. */
export const tuple =
  (...of: readonly DataShape[]): DataShape =>
  (v, path) =>
    !Array.isArray(v) || v.length !== of.length
      ? `${path} should be ${of.length} values`
      : of.map((shape, i) => shape(v[i], at(path, i))).find((wrong) => wrong !== undefined);

/** A mapping from any key to one shape; keys that mean something to the language are refused. */
export const mapOf =
  (of: DataShape, most = 5000, key: RegExp = /^[\s\S]{1,300}$/): DataShape =>
  (v, path) => {
    if (!isRecord(v)) return `${path} should be a mapping`;
    const keys = Object.keys(v);
    if (keys.length > most) return `${path} holds more than ${most} keys`;
    for (const k of keys) {
      if (!key.test(k) || k === "__proto__" || !isStorable(k)) return `${path} holds a key it cannot have`;
      const wrong = of(v[k], at(path, k));
      if (wrong) return wrong;
    }
    return undefined;
  };

/** What may be left out. */
export const maybe =
  (shape: DataShape): DataShape =>
  (v, path) =>
    v === undefined ? undefined : shape(v, path);

/** What may be null. */
export const nullable =
  (shape: DataShape): DataShape =>
  (v, path) =>
    v === null || v === undefined ? undefined : shape(v, path);

/** An object with known keys; others are let through where they are harmless data. */
export const fields =
  (known: Fields, more: DataShape = anything(6, 20_000)): DataShape =>
  (v, path) => {
    if (!isRecord(v)) return `${path === "" ? "the document" : path} should be an object`;
    for (const [k, shape] of Object.entries(known)) {
      const wrong = shape(Object.hasOwn(v, k) ? v[k] : undefined, at(path, k));
      if (wrong) return wrong;
    }
    for (const [k, x] of Object.entries(v))
      if (!Object.hasOwn(known, k)) {
        const wrong = k === "__proto__" ? `${path} holds a key it cannot have` : more(x, at(path, k));
        if (wrong) return wrong;
      }
    return undefined;
  };

/** Any plain data, so deep and with so many values at most, that can be kept. */
export const anything =
  (depth = 12, most = 200_000): DataShape =>
  (value, path) => {
    let left = most;
    const walk = (v: unknown, where: string, deep: number): string | undefined => {
      if (--left < 0) return `${path} holds more than ${most} values`;
      if (v === null || v === undefined || typeof v === "boolean") return undefined;
      if (typeof v === "number") return Number.isFinite(v) ? undefined : `${where} is no number`;
      if (typeof v === "string") return isStorable(v) ? undefined : `${where} holds a character that is none`;
      if (deep >= depth) return `${path} is nested deeper than ${depth}`;
      for (const [k, x] of Object.entries(v as object)) {
        if (k === "__proto__" || !isStorable(k)) return `${where} holds a key it cannot have`;
        const wrong = walk(x, at(where, k), deep + 1);
        if (wrong) return wrong;
      }
      return undefined;
    };
    return walk(value, path, 0);
  };

/** All of several shapes; a later one is asked only of what has the earlier ones. */
export const both =
  (...shapes: readonly DataShape[]): DataShape =>
  (v, path) => {
    for (const shape of shapes) {
      const wrong = shape(v, path);
      if (wrong !== undefined) return wrong;
    }
    return undefined;
  };
