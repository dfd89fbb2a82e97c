import { AppError } from "../errors.ts";

/** Symbols of serial numbers: no I, L, O, U, which are read as others (domain.md 9.5). */
export const SERIAL_SYMBOLS = "0123456789ABCDEFGHJKMNPQRSTVWXYZ";
const BASE = SERIAL_SYMBOLS.length;

/** How a shop numbers what it builds, where it says nothing else. */
export const USUAL_RULE = "{product}{y}{batch}{n}";
/** Symbols of a batch, and digits of what runs in it. */
const BATCH_WIDTH = 3;
const RUN_WIDTH = 4;
export const MOST_BATCH = BASE ** BATCH_WIDTH - 1;

/**
 * The last symbol of a serial number: Luhn's sum over 32 symbols. From the right every second symbol counts twice; a sum
 * of two digits counts its digits (domain.md 9.5, EX 9.3: `KB2C070013` → `8`). It tells every single wrong symbol and
 * every two neighbours that were swapped, but the first and the last of the symbols.
 *
 * @param payload of {@link SERIAL_SYMBOLS} only
 */
export function checkSymbol(payload: string): string {
  let sum = 0;
  let factor = 2;
  for (const symbol of [...payload].reverse()) {
    const addend = factor * SERIAL_SYMBOLS.indexOf(symbol);
    sum += Math.floor(addend / BASE) + (addend % BASE);
    factor = 3 - factor;
  }
  return SERIAL_SYMBOLS[(BASE - (sum % BASE)) % BASE]!;
}

/** What stands in a serial number. */
export interface SerialOf {
  readonly product: string;
  /** Of the release. */
  readonly year: number;
  /** Which of the shop's releases it is, from 1. */
  readonly batch: number;
  /** Which of the boards that are started, from 1. */
  readonly n: number;
}

const TOKEN = /\{(product|y|yy|batch|n)\}/g;

/** Why a rule makes no serial numbers; undefined where it does. */
export function ruleWrong(rule: string): string | undefined {
  const tokens = [...rule.matchAll(TOKEN)].map(([, t]) => t);
  const rest = rule.replace(TOKEN, "").toUpperCase().replaceAll("-", "");
  const odd = [...rest].find((c) => !SERIAL_SYMBOLS.includes(c));
  if (odd !== undefined)
    return /[ILOU]/.test(odd)
      ? `${odd} is read as another: it stands in no serial number`
      : `“${odd}” stands in no serial number`;
  if (!tokens.includes("batch") || !tokens.includes("n"))
    return "without {batch} and {n} two boards would have one number";
  if (new Set(tokens).size < tokens.length) return "a piece of it stands twice";
  return rule.length > 60 ? "it is longer than 60 characters" : undefined;
}

/** The capitals of a product's name that may stand in a serial number: KW of Kiln Watch. */
export const initialsOf = (product: string): string => {
  const letters = product
    .toUpperCase()
    .split(/[^A-Z0-9]+/)
    .map((w) => [...w].find((c) => SERIAL_SYMBOLS.includes(c)) ?? "");
  return letters.join("").slice(0, 4) || "X";
};

const inBase = (n: number, width: number): string => {
  let [rest, out] = [n, ""];
  for (let i = 0; i < width; i++) {
    out = SERIAL_SYMBOLS[rest % BASE]! + out;
    rest = Math.floor(rest / BASE);
  }
  return out;
};

/**
 * The serial number of a board by a shop's rule, with its check symbol.
 *
 * @throws AppError OUT_OF_RANGE for a rule that makes none, or more than its digits hold
 */
export function serialOf(rule: string, { product, year, batch, n }: SerialOf): string {
  const wrong = ruleWrong(rule);
  if (wrong)
    throw new AppError(
      "OUT_OF_RANGE",
      `The rule of serial numbers makes none: ${wrong}.`,
      "Correct it in the settings.",
    );
  if (batch < 1 || batch > MOST_BATCH || n < 1 || n >= 10 ** RUN_WIDTH)
    throw new AppError(
      "OUT_OF_RANGE",
      `Board ${n} of batch ${batch} has no serial number: a rule counts ${10 ** RUN_WIDTH - 1} boards and ${MOST_BATCH} batches.`,
      "Build it in another run.",
    );
  const pieces: Readonly<Record<string, string>> = {
    product: initialsOf(product),
    y: String(year % 10),
    yy: String(year % 100).padStart(2, "0"),
    batch: inBase(batch, BATCH_WIDTH),
    n: String(n).padStart(RUN_WIDTH, "0"),
  };
  const payload = rule.replace(TOKEN, (_, t: string) => pieces[t]!).toUpperCase();
  return payload + checkSymbol(payload.replaceAll("-", ""));
}

/**
 * Which board a serial number is of, where it is one of this batch.
 *
 * @param serial as {@link readSerial} gives it
 * @throws AppError as {@link serialOf}
 */
export function boardOfSerial(rule: string, of: Omit<SerialOf, "n">, serial: string): number | undefined {
  // what stands before and after the digits that run is the same for all boards of a batch, but the check symbol
  const one = serialOf(rule, { ...of, n: 1 }).replaceAll("-", "");
  if (serial.length !== one.length) return undefined;
  const at = [...one].findIndex((_, i) => {
    const n = serial.slice(i, i + RUN_WIDTH);
    return (
      /^\d{4}$/.test(n) &&
      Number(n) > 0 &&
      serialOf(rule, { ...of, n: Number(n) }).replaceAll("-", "") === serial
    );
  });
  return at < 0 ? undefined : Number(serial.slice(at, at + RUN_WIDTH));
}

/** A serial number as it was typed or scanned, or what is wrong with it. */
export type ReadSerial = { readonly serial: string } | { readonly wrong: string };

/** Symbols that are none, and what they are mostly meant for. */
const MEANT: Readonly<Record<string, string>> = { I: "1", L: "1", O: "0" };

/**
 * A serial number as people type it: in any case, with blanks and hyphens, with I, L and O for what they look like. One
 * whose check symbol does not agree is refused, with the one that would.
 */
export function readSerial(text: string): ReadSerial {
  const plain = [...text.toUpperCase().replace(/[\s-]+/g, "")].map((c) => MEANT[c] ?? c).join("");
  if (plain.length < 4) return { wrong: "A serial number is longer." };
  const odd = [...plain].find((c) => !SERIAL_SYMBOLS.includes(c));
  if (odd !== undefined) return { wrong: `“${odd}” stands in no serial number.` };
  const [payload, check] = [plain.slice(0, -1), plain.slice(-1)];
  const right = checkSymbol(payload);
  return check === right
    ? { serial: plain }
    : { wrong: `${plain} was mistyped: its last symbol would be ${right}. Read it once more.` };
}
