// What took longest, told at the end of a run and kept beside the packages: `near` plans by it.
import { existsSync, mkdirSync, readFileSync, writeFileSync } from "node:fs";
import { dirname, join } from "node:path";
import { ROOT } from "./setup.mjs";

const KEPT = join(ROOT, "node_modules/.cache/kobbin/times.json");

/** Seconds of each test file and journey in the last run that reached it. */
export const readTimes = () => (existsSync(KEPT) ? JSON.parse(readFileSync(KEPT, "utf8")) : {});

/** @param seconds by file, relative to the clone */
export function keepTimes(seconds) {
  mkdirSync(dirname(KEPT), { recursive: true });
  writeFileSync(KEPT, JSON.stringify({ ...readTimes(), ...seconds }, null, 1));
}

/** Why a file or journey may take longer than others of its kind; whatever else does, is told without a reason. */
export const REASONS = {};

/**
 * Prints the slowest of a kind, with the reason of what is beyond the limit.
 * @param seconds by name
 */
export function tellSlowest(what, seconds, limit, most = 8) {
  const sorted = Object.entries(seconds).sort((a, b) => b[1] - a[1]);
  const beyond = sorted.filter(([, s]) => s > limit).length;
  console.log(`  slowest ${what} (${limit} s without a reason):`);
  for (const [name, s] of sorted.slice(0, Math.max(most, beyond))) {
    const why = s > limit ? `  ${REASONS[name] ?? "beyond the limit, and nobody says why"}` : "";
    console.log(`  ${s.toFixed(1).padStart(6)} s  ${name}${why}`);
  }
}
