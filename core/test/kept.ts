import { createHash } from "node:crypto";
import { readFileSync, writeFileSync } from "node:fs";
import { expect } from "@jest/globals";

/**
 * Holds lines against the file kept for them, at whose head stands what a reviewer looks at: whatever of them changes
 * shows, line by line. That they are right is for
 * worked numbers, laws and second computations; this is for what those do not ask. `npm run golden` keeps them anew, to be
 * looked at again and committed with what changed them.
 */
export function expectKept(file: URL, look: string, lines: readonly string[]): void {
  // more is not looked at
  expect(lines.length).toBeLessThan(400);
  const text = `look at: ${look}\n\n${lines.join("\n")}\n`;
  if (process.env.KOBBIN_GOLDEN === "write") writeFileSync(file, text);
  expect(text.split("\n")).toEqual(readFileSync(file, "utf8").split("\n"));
}

/** Of a longer list the first are written out, of the rest their number and a digest. */
const MOST = 6;
const FIRST = 3;

/** Of a longer text the beginning is written out, of the rest its length and a digest. */
const LONGEST = 200;
const digest = (text: string) => createHash("sha256").update(text).digest("hex").slice(0, 12);
const words = (t: string) =>
  t.length > LONGEST ? `${t.slice(0, LONGEST / 2)}… ${t.length} letters, ${digest(t)}` : t;

const figure = (v: number) => (Number.isInteger(v) ? String(v) : String(Number(v.toPrecision(9)) + 0));
const leaf = (v: unknown) =>
  typeof v === "number" ? figure(v) : typeof v === "string" ? words(v) : JSON.stringify(v);
const isLeaf = (v: unknown): boolean =>
  v === null ||
  typeof v !== "object" ||
  (Array.isArray(v) && v.length <= MOST && v.every((w) => typeof w !== "object"));
const short = (v: unknown): string => (Array.isArray(v) ? v.map(leaf).join(" ") : String(leaf(v)));

/** So many letters of plain values stand in one line. */
const LINE = 160;
/** Plain values under their names, several in a line. */
function plain(entries: readonly (readonly [string, unknown])[], under: string): string[] {
  const lines: string[] = [];
  for (const [key, v] of entries) {
    const cell = `${key} ${short(v)}`;
    const last = lines.at(-1);
    if (last !== undefined && under.length + last.length + cell.length < LINE)
      lines[lines.length - 1] = `${last} · ${cell}`;
    else lines.push(cell);
  }
  return lines.map((l) => `${under}${l}`);
}

/**
 * Everything in a document as lines under its names: what an object holds plainly in one, what is below it after.
 * @param leave names of what is left out wherever it stands
 */
export function outline(value: unknown, leave: readonly string[] = [], under = ""): string[] {
  if (value === undefined || typeof value === "function") return [];
  if (isLeaf(value)) return [`${under}${short(value)}`];
  if (value instanceof Map) return outline(Object.fromEntries(value), leave, under);
  if (value instanceof Set) return outline([...value], leave, under);
  if (ArrayBuffer.isView(value)) return outline([...(value as unknown as Iterable<number>)], leave, under);
  if (Array.isArray(value)) {
    const shown = value.length > MOST ? value.slice(0, FIRST) : value;
    const lines = shown.flatMap((v, i) => outline(v, leave, `${under}${i} `));
    if (shown.length === value.length) return lines;
    const rest = value.slice(FIRST).flatMap((v) => outline(v, leave));
    return [...lines, `${under}and ${value.length - FIRST} more, ${digest(rest.join("\n"))}`];
  }
  const entries = Object.entries(value as Record<string, unknown>).filter(
    ([key, v]) => !leave.includes(key) && v !== undefined && typeof v !== "function",
  );
  return [
    ...plain(
      entries.filter(([, v]) => isLeaf(v)),
      under,
    ),
    ...entries.filter(([, v]) => !isLeaf(v)).flatMap(([key, v]) => outline(v, leave, `${under}${key} `)),
  ];
}
