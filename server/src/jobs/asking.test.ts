import { expect, test } from "@jest/globals";
import { AppError } from "@kobbin/core";
import type { talk } from "../db/talk.ts";
import { OutsideError } from "../outside/index.ts";
import { asking, NoLongerAsked } from "./asking.ts";
import type { WorkerDeps } from "./deps.ts";

type Ask = { readonly id: string; readonly runId: string; readonly tries: number };

/** A question taken up over a database that takes every statement; what became of it on its list. */
async function taken(tries: number, error?: Error, againMs?: number) {
  const done: unknown[] = [];
  const tx = { query: async () => ({ rows: [] }), on() {}, off() {}, release() {} };
  const of = {
    claim: async () => (tries === 0 ? undefined : { id: "ask", runId: "run", tries }),
    end: async (_: unknown, ...how: unknown[]) => done.push(["end", ...how.slice(1)]),
    putOff: async (_: unknown, ...how: unknown[]) => done.push(["put off", ...how.slice(1)]),
  };
  const was = await asking<Ask>(
    {
      pool: { connect: async () => tx },
      config: { feedRetryMs: 20 },
      log: () => undefined,
    } as unknown as WorkerDeps,
    { workshopId: "shop", askId: "ask" },
    of as unknown as ReturnType<typeof talk<Ask>>,
    async () => {
      if (error) throw error;
    },
    1000,
    () => undefined,
    againMs,
  );
  return [was, ...done];
}
const app = (code: "NOT_ALLOWED" | "BUSY") => new AppError(code, "The run is closed.", "");
const database = (code: string) => Object.assign(new Error("from the database"), { code });

test.each<[string, Parameters<typeof taken>, unknown[]]>([
  ["there is none to take up", [0], [false]],
  ["it goes well", [1], [true]],
  [
    "the other end fails",
    [2, new OutsideError("Closed on Sundays.")],
    [true, ["put off", "Closed on Sundays.", 40]],
  ],
  ["it fails for the fourth time", [4, new OutsideError("No.")], [true, ["end", "failed", "No.", undefined]]],
  [
    "it is an order, which is looked after again",
    [4, new OutsideError("No."), 3600],
    [true, ["end", "failed", "No.", 3600]],
  ],
  [
    "the shop refuses it, an order too",
    [1, app("NOT_ALLOWED"), 3600],
    [true, ["end", "failed", "The run is closed."]],
  ],
  ["nobody can be asked any more", [1, new NoLongerAsked("Gone."), 3600], [true, ["end", "failed", "Gone."]]],
  [
    "the database is busy, which is not counted",
    [4, app("BUSY")],
    [true, ["put off", "The run is closed.", 80, false]],
  ],
  [
    "an answer cannot be kept",
    [1, database("22003")],
    [true, ["put off", "What it answered cannot be kept.", 20]],
  ],
  [
    "the fault is ours",
    [1, new TypeError("Cannot read properties of null")],
    [true, ["put off", "A fault on our side: it was not asked, or its answer was not kept.", 20]],
  ],
  [
    "it was begun again and again and lost each time",
    [5],
    [true, ["end", "failed", "It was begun several times and never finished.", undefined]],
  ],
  ["an order was", [9, undefined, 3600], [true]],
])("of a question: %s", async (_, given, want) => {
  expect(await taken(...given)).toEqual(want);
});
