import { expect, test } from "@jest/globals";
import type PgBoss from "pg-boss";
import { createBeside } from "./beside.ts";
import { type DueJob, type DurableQueue, runQueue } from "./queue.ts";

type Job = { readonly n: number };

/** What the queue asks of its carrier, written down; a batch is handed out by the test. */
function carrier() {
  const said: unknown[][] = [];
  let handler: (jobs: { data: Job }[]) => Promise<void> = () => Promise.resolve();
  let options: unknown;
  const boss = {
    work: async (_name: string, given: unknown, work: typeof handler) => {
      [options, handler] = [given, work];
      return "worker 1";
    },
    send: async (...args: unknown[]) => void said.push(["send", ...args]),
    notifyWorker: (id: string) => said.push(["look", id]),
  };
  const hand = (...ns: number[]) => handler(ns.map((n) => ({ data: { n } })));
  return { boss: boss as unknown as PgBoss, said, hand, given: () => options };
}
const queueOf = (more: Partial<DurableQueue<Job>>): DurableQueue<Job> => ({
  name: "things",
  batchSize: 3,
  due: async () => [],
  work: async () => true,
  ...more,
});

test("what is due is sent, each once under its key, and the worker is told; where nothing is, nothing", async () => {
  const { boss, said, given } = carrier();
  let due: DueJob<Job>[] = [];
  const queue = await runQueue(boss, queueOf({ due: async () => due }), () => undefined);
  expect(given()).toEqual({ pollingIntervalSeconds: 2, batchSize: 3 });
  await queue.sweep();
  expect(said).toEqual([]);
  due = [
    { key: "a", data: { n: 1 } },
    { key: "b", data: { n: 2 } },
  ];
  await queue.sweep();
  const how = { retryLimit: 6, retryDelay: 1, retryBackoff: true, expireInSeconds: 60 };
  expect(said).toEqual([
    ["send", "things", { n: 1 }, { singletonKey: "a", ...how }],
    ["send", "things", { n: 2 }, { singletonKey: "b", ...how }],
    ["look", "worker 1"],
  ]);
});

test("a sweep asked for while one goes is done after it, once; a list that fails is said and looked at again", async () => {
  const { boss } = carrier();
  const problems: string[] = [];
  let looked = 0;
  let open = (): void => undefined;
  const due = async () => {
    looked++;
    if (looked === 1)
      await new Promise<void>((done) => {
        open = done;
      });
    if (looked === 3) throw new Error("away");
    return [];
  };
  const queue = await runQueue(boss, queueOf({ due }), (e) => problems.push(e.message));
  const first = queue.sweep();
  await Promise.all([queue.sweep(), queue.sweep()]);
  expect(looked).toBe(1);
  open();
  await first;
  expect(looked).toBe(2);
  await queue.sweep();
  expect([looked, problems]).toEqual([3, ["away"]]);
  await queue.sweep();
  expect(looked).toBe(4);
  queue.stop();
  await queue.sweep();
  expect(looked).toBe(4);
});

test("of a batch one that fails lets the rest be done, then the batch is tried again", async () => {
  const { boss, said, hand } = carrier();
  const [order, problems]: [string[], string[]] = [[], []];
  const work = async ({ n }: Job) => {
    order.push(`${n} begins`);
    await Promise.resolve();
    order.push(`${n} ends`);
    if (n === 2) throw new Error("no");
    return true;
  };
  await runQueue(boss, queueOf({ work }), (e) => problems.push(e.message));
  await expect(hand(1, 2, 3)).rejects.toThrow("no");
  expect(problems).toEqual(["no"]);
  expect(order.slice(0, 3)).toEqual(["1 begins", "1 ends", "2 begins"]);
  expect(order).toHaveLength(6);
  expect(said).toEqual([]);
  await hand(1, 3);
  // there may be more
  expect(said).toEqual([["look", "worker 1"]]);
});

test("what waits for others is off the queue at once, and the list is looked through again only where something was done", async () => {
  const { boss, said, hand } = carrier();
  const problems: string[] = [];
  let looked = 0;
  const ends = new Map<number, (done: boolean | Error) => void>();
  const work = ({ n }: Job) =>
    new Promise<boolean>((done, fail) => {
      ends.set(n, (how) => (how instanceof Error ? fail(how) : done(how)));
    });
  const beside = {
    room: createBeside({ inAll: 3, perShop: 3 }),
    of: ({ n }: Job) => ({ key: String(n), shop: "s" }),
  };
  const due = async () => {
    looked++;
    return [];
  };
  const queue = await runQueue(boss, queueOf({ work, beside, due }), (e) => problems.push(e.message));
  // none of them is done, and the batch is
  await hand(1, 2, 3);
  expect([ends.size, said]).toEqual([3, [["look", "worker 1"]]]);
  const settle = () => new Promise((done) => setImmediate(done));
  ends.get(2)!(new Error("no"));
  await settle();
  expect([looked, problems]).toEqual([0, ["no"]]);
  // another worker had it
  ends.get(1)!(false);
  await settle();
  expect(looked).toBe(0);
  queue.stop();
  const idle = queue.idle();
  ends.get(3)!(true);
  await idle;
  expect(problems).toEqual(["no"]);
});

test("work in hand is waited for at the end, and what is handed out after it goes back", async () => {
  const { boss, hand } = carrier();
  let isDone = false;
  let open = (): void => undefined;
  const work = async () => {
    await new Promise<void>((done) => {
      open = done;
    });
    isDone = true;
    return true;
  };
  const queue = await runQueue(boss, queueOf({ work }), () => undefined);
  const job = hand(1);
  queue.stop();
  await expect(hand(2)).rejects.toThrow("the worker stops");
  const idle = queue.idle();
  open();
  await idle;
  expect(isDone).toBe(true);
  await job;
});
