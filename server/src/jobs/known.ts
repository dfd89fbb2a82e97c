import { createHash } from "node:crypto";
import { LRUCache } from "lru-cache";
import type { Measured, Task } from "./messages.ts";

type Measure = Extract<Task, { kind: "measure" }>;

/** What is kept of all shops, as characters and bytes: some hundred boards of small shops. */
const MOST_BYTES = 64 * 1024 * 1024;
const BYTES_OF_ROW = 300;

/**
 * What files came to when they were measured, by their content: files dropped again, with the same corrections and the
 * same memory, are not measured again. Whoever asks has brought the very bytes, so an answer tells nothing about another
 * shop. It lives as long as the process, which measures with one program.
 */
export function createKnown(mostBytes = MOST_BYTES) {
  const kept = new LRUCache<string, Measured>({
    maxSize: mostBytes,
    sizeCalculation: (m) => m.measure.length + (m.lines.length + m.placements.length + 1) * BYTES_OF_ROW,
  });
  return {
    get: (key: string): Measured | undefined => kept.get(key),
    keep: (key: string, answer: Measured): void => void kept.set(key, answer),
  };
}

/** All that the answer hangs on; files in another order may be taken differently. */
export function keyOfMeasure({ files, corrections, memory }: Measure): string {
  const key = createHash("sha256");
  for (const f of files)
    key
      .update(JSON.stringify([f.path, f.bytes.length]))
      .update(createHash("sha256").update(f.bytes).digest());
  return key.update(JSON.stringify([corrections, memory])).digest("hex");
}
