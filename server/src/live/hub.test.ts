import { expect, test } from "@jest/globals";
import pg from "pg";
import { createHub, type LiveEvent } from "./hub.ts";

/** Waits until something holds, however loaded the machine is. */
async function until(holds: () => boolean) {
  while (!holds()) await new Promise((done) => setTimeout(done, 10));
}

/** Waiting that the test ends itself; what was taken back is not in it. */
function waits() {
  const waiting: { ms: number; act: () => void }[] = [];
  return {
    waiting,
    wait: (ms: number, act: () => void) => {
      const one = { ms, act };
      waiting.push(one);
      return () => void waiting.splice(waiting.indexOf(one), 1);
    },
  };
}

test("where nobody answers it is tried again, each time after twice the wait, five seconds at most; closed, no more", async () => {
  const said: string[] = [];
  const { waiting, wait } = waits();
  const hub = createHub("postgres://nobody@127.0.0.1:1/none", (e) => said.push(String(e.message)), wait);
  const waited: number[] = [];
  for (let i = 0; i < 7; i++) {
    await until(() => waiting.length === 1);
    const { ms, act } = waiting.pop()!;
    waited.push(ms);
    act();
  }
  expect(waited).toEqual([200, 400, 800, 1600, 3200, 5000, 5000]);
  await until(() => waiting.length === 1);
  expect(said).toHaveLength(8);
  expect(said[0]).toMatch(/^live connection failed: /);
  await hub.close();
  expect(waiting).toEqual([]);
});

test("a connection that is lost is made anew: everybody is told to look, and hears again", async () => {
  const url = process.env.TEST_DATABASE_URL!;
  const said: string[] = [];
  const heard: LiveEvent[] = [];
  const { waiting, wait } = waits();
  const admin = new pg.Client({ connectionString: url });
  await admin.connect();
  const hub = createHub(url, (e) => said.push(String(e.message)), wait);
  try {
    const leave = hub.subscribe((e) => heard.push(e));
    await until(() => heard.length === 1);
    const tell = (payload: string) => admin.query("select pg_notify('kobbin', $1)", [payload]);
    await tell('{"kind":"left","shop":"a"}');
    await until(() => heard.length === 2);
    await tell("no word of ours");
    await until(() => said.length === 1);
    expect(said).toEqual(["a notification was no JSON"]);
    await admin.query(
      "select pg_terminate_backend(pid) from pg_stat_activity where application_name = 'kobbin live' and datname = current_database()",
    );
    await until(() => waiting.length === 1);
    expect(said[1]).toMatch(/^live connection lost: /);
    // what was connected before begins with the shortest wait
    expect(waiting[0]!.ms).toBe(200);
    waiting.pop()!.act();
    await until(() => heard.length === 3);
    await tell('{"kind":"left","shop":"b"}');
    await until(() => heard.length === 4);
    expect(heard).toEqual([
      { kind: "resync" },
      { kind: "left", shop: "a" },
      { kind: "resync" },
      { kind: "left", shop: "b" },
    ]);
    leave();
    await tell('{"kind":"left","shop":"c"}');
    await tell("no word either");
    await until(() => said.length === 3);
    expect(heard).toHaveLength(4);
  } finally {
    await hub.close();
    await admin.end();
  }
  expect(waiting).toEqual([]);
});
