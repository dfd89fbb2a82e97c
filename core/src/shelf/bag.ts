import { checkSymbol, readSerial } from "../serial/serial.ts";

/** Digits of a bag's number, at least. */
const WIDTH = 4;

/**
 * What stands on the label of a lot: B, its number in the shop, a check symbol as serial numbers have it (domain.md 9.5).
 *
 * @example bagCode(42) // "B0042-D"
 */
export function bagCode(number: number): string {
  const payload = `B${String(number).padStart(WIDTH, "0")}`;
  return `${payload}-${checkSymbol(payload)}`;
}

/** Which lot of the shop a label is of, typed or scanned as serial numbers are; nothing where it is no label of a lot. */
export function readBag(text: string): number | undefined {
  const read = readSerial(text);
  if (!("serial" in read)) return undefined;
  const digits = /^B(\d{4,9})[0-9A-Z]$/.exec(read.serial)?.[1];
  // more noughts than a label has: somebody else's
  return digits === undefined || (digits.length > WIDTH && digits.startsWith("0")) || Number(digits) === 0
    ? undefined
    : Number(digits);
}
