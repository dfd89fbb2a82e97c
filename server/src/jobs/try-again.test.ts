import { expect, test } from "@jest/globals";
import type { talk } from "../db/talk.ts";
import type { WorkerDeps } from "./deps.ts";
import { tryAgain } from "./try-again.ts";

/** A database that takes every statement, and what was asked of a list of questions in it. */
async function tried(tries: number, againMs?: number) {
  const done: unknown[] = [];
  const tx = { query: async () => ({ rows: [] }), on() {}, off() {}, release() {} };
  const pool = { connect: async () => tx };
  const of = {
    end: async (_: unknown, ...how: unknown[]) => done.push(["end", ...how]),
    putOff: async (_: unknown, ...how: unknown[]) => done.push(["put off", ...how]),
  };
  await tryAgain(
    { pool, config: { feedRetryMs: 20 } } as unknown as Pick<WorkerDeps, "pool" | "config">,
    "shop",
    of as unknown as ReturnType<typeof talk>,
    { id: "ask", runId: "run", tries },
    "away",
    (inMs) => done.push(["later", inMs]),
    againMs,
  );
  return done;
}

test.each([
  [
    1,
    [
      ["put off", "ask", "away", 20],
      ["later", 20],
    ],
  ],
  [
    2,
    [
      ["put off", "ask", "away", 40],
      ["later", 40],
    ],
  ],
  [
    3,
    [
      ["put off", "ask", "away", 80],
      ["later", 80],
    ],
  ],
  [4, [["end", "ask", "failed", "away", undefined]]],
  [5, [["end", "ask", "failed", "away", undefined]]],
])("after try %d: put off for twice as long each time, given up after four", async (tries, done) => {
  expect(await tried(tries)).toEqual(done);
});

test("what is not given up for good is due again after its time", async () => {
  expect(await tried(4, 3600)).toEqual([["end", "ask", "failed", "away", 3600]]);
});
