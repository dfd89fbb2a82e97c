import { shapes } from "@kobbin/core";
import * as yup from "yup";

/*
 * What bodies are made of. Nothing is turned into another type on the way: "5" is no number, 5 no text, "yes" no truth
 * value; every text has a length, every list and mapping a count, and a text that no database keeps is refused here.
 */

/** A message about the value at hand: the package puts its path in. */
const of = (what: string) => `$\{path} ${what}`;
type Bare = { transforms: unknown[] };
/** A schema without the turnings into its type that the package does by itself. */
function bare<T>(schema: T): T {
  (schema as Bare).transforms = [];
  return schema;
}

const unstorable = "There is a character in it that cannot be kept.";

/** A text of at most so many characters. */
export const text = (most: number) =>
  bare(yup.string())
    .typeError(of("should be a text."))
    .max(most, of(`is longer than ${most} characters.`))
    .test("storable", unstorable, (v) => v === undefined || v === null || shapes.isStorable(v));
/** As {@link text}, without the blanks around it. */
export const trimmed = (most: number) =>
  text(most).transform((v: unknown) => (typeof v === "string" ? v.trim() : v));
/** A number within bounds. */
export const number = (least: number, most: number) =>
  bare(yup.number())
    .typeError(of("should be a number."))
    .min(least, of(`is at least ${least}.`))
    .max(most, of(`is at most ${most}.`))
    .test("finite", of("should be a number."), (v) => v === undefined || v === null || Number.isFinite(v));
/** A whole number within bounds. */
export const whole = (least: number, most: number) =>
  number(least, most).integer(of("should be a whole number."));
export const flag = () => bare(yup.boolean()).typeError(of("should be true or false."));
/** One of some words. */
export const choice = <const T extends readonly string[]>(words: T) =>
  bare(yup.string())
    .typeError(of("should be a text."))
    .oneOf([...words] as T[number][], of(`is one of ${words.join(", ")}.`));
export const id = () => text(36).matches(shapes.UUID, of("should be an id."));
/** A list of so many items at most. */
export const list = <T>(item: yup.ISchema<T>, most: number) =>
  bare(yup.array())
    .typeError(of("should be a list."))
    .max(most, of(`holds more than ${most} items.`))
    .of(item as yup.Schema<T>);
/** Data of one shape; what is wrong is said with its path. */
export const shaped = <T extends object>(shape: shapes.Value) =>
  bare(yup.mixed<T>()).test("shape", function shapeOf(v: unknown) {
    if (v === undefined || v === null) return true;
    const wrong = shape(v, this.path);
    return wrong === undefined || this.createError({ message: `${wrong}.` });
  });
/** A mapping, checked key by key and value by value. */
export const mapOf = <T>(value: shapes.Value, most: number, key?: RegExp) =>
  shaped<Record<string, T>>(shapes.mapOf(value, most, key));

export const money = text(20).matches(
  /^\d{1,9}(\.\d{1,6})?$/,
  "Write an amount like 12.50, at most six decimals.",
);
export const currency = text(3).matches(/^[A-Z]{3}$/, "A currency is three capital letters, as EUR.");
/** What a person signs in with, chosen anew. */
export const email = text(200)
  .transform((v: unknown) => (typeof v === "string" ? v.trim().toLowerCase() : v))
  .min(3, "Type a name or address to sign in with.")
  .required("Type a name or address to sign in with.");
export const password = text(200)
  .min(10, "A password has at least 10 characters.")
  .required("Choose a password.");
export const name = trimmed(120).min(1, "Give it a name.");
export const day = text(10).test(
  "day",
  "Write the date as 2026-11-24; it has to be in the calendar.",
  (v) => v === undefined || v === null || shapes.isDay(v),
);
export const version = whole(1, 2_000_000_000);
