import { randomBytes } from "node:crypto";
import { expect, test } from "@jest/globals";
import pg from "pg";
import { makeDatabase } from "../../../test/database.ts";
import { shopWithRun, Visitor } from "../../../test/kit.ts";
import { endAll, startProcess } from "../../../test/processes.ts";
import { besieged, codeOf, ownProcess, until } from "../../../test/siege.ts";

const siege = besieged();

test("of ten first owners at one moment one wins", async () => {
  const p = await ownProcess({ SIGN_UP: "first" });
  try {
    const ten = await Promise.all(
      Array.from({ length: 10 }, (_, i) =>
        p.visitor().post("/api/shops", {
          name: `Shop ${i}`,
          currency: "EUR",
          hourlyRate: "1",
          email: `first ${i}`,
          password: "four words of ours",
        }),
      ),
    );
    expect(ten.map((r) => r.status).sort()).toEqual([201, ...Array(9).fill(403)]);
  } finally {
    await p.drop();
  }
});

test("a database that takes no writes, or holds a lock, is said in a sentence; nothing is lost, and all goes on after", async () => {
  const { v, id, read } = await shopWithRun(siege.server, "Frozen");
  const name = new URL(siege.server.deps.config.databaseUrl).pathname.slice(1);
  const drain = () =>
    siege.server.owner.query(
      "select pg_terminate_backend(pid) from pg_stat_activity where datname = $1 and application_name = 'kobbin'",
      [name],
    );
  await siege.server.owner.query(`alter database ${name} set default_transaction_read_only = on`);
  try {
    await drain();
    await until(async () => (await v.get(`/api/runs/${id}`)).status === 200, "reads go on");
    const r = await v.patch(`/api/runs/${id}`, { version: 1, goodBoards: 11 });
    expect([r.status, codeOf(r)]).toEqual([507, "STORAGE_FULL"]);
    const ready = await fetch(`${siege.server.url}/ready`);
    expect([ready.status, ((await ready.json()) as { status: string }).status]).toEqual([
      503,
      expect.stringMatching(/no room|nothing new/),
    ]);
  } finally {
    await siege.server.owner.query(`alter database ${name} reset default_transaction_read_only`);
    await drain();
  }
  await until(
    async () => (await v.patch(`/api/runs/${id}`, { version: 1, goodBoards: 12 })).status === 200,
    "writes again",
  );
  expect((await read()).document.goodBoards).toBe(12);
  // a lock that does not go
  const holder = await siege.server.owner.connect();
  try {
    await holder.query("begin");
    await holder.query("select 1 from fork where run_id = $1 for update", [id]);
    const waited = await v.patch(`/api/runs/${id}`, { version: 2, goodBoards: 13 });
    expect([waited.status, codeOf(waited)]).toEqual([503, "BUSY"]);
  } finally {
    await holder.query("rollback");
    holder.release();
  }
});

test("a run whose figures cannot be computed is set aside with its reason, and comes up again with its next change", async () => {
  const { v, id, revisionId } = await shopWithRun(siege.server, "Parked");
  await siege.server.figures();
  await siege.server.owner.query("select set_config('app.change', 'off', false)");
  await siege.server.owner.query(
    "begin; set local app.change = 'off'; update board set measure = '{\"kobbin\":\"measure/1\"}' where revision_id = '".concat(
      revisionId,
      "'; commit",
    ),
  );
  await v.post(`/api/revisions/${revisionId}/lines`, { valueText: "x" });
  const row = async () =>
    (
      await siege.server.owner.query<{ tries: number; parked: string | null }>(
        "select tries, parked from figures_due where run_id = $1",
        [id],
      )
    ).rows[0];
  await until(async () => (await row())?.parked != null, "set aside");
  expect(await row()).toMatchObject({ tries: 4, parked: expect.stringMatching(/\w/) });
  await v.post(`/api/revisions/${revisionId}/lines`, { valueText: "y" });
  await until(async () => ((await row())?.tries ?? 9) < 4 || (await row())?.parked == null, "tried again");
  siege.defects.length = 0;
});

test("servers that start at once on an empty database make one demo shop; one cut off in the middle leaves none behind", async () => {
  const admin = new pg.Client({ connectionString: process.env.TEST_DATABASE_URL! });
  await admin.connect();
  const name = `demo_${randomBytes(5).toString("hex")}`;
  const { databaseUrl, adminUrl } = await makeDatabase(admin, name);
  const owner = new pg.Pool({ connectionString: adminUrl, max: 2 });
  owner.on("error", () => undefined);
  const shops = async () => {
    const { rows } = await owner.query<{ name: string; members: number }>(
      "select name, (select count(*)::int from member as m where m.workshop_id = w.id) as members from workshop as w",
    );
    return rows;
  };
  const env = {
    DATABASE_URL: databaseUrl,
    DEMO: "first",
    STANDINS_URL: siege.server.deps.config.standInsUrl,
  };
  try {
    // cut off as soon as the shop is there and nobody belongs to it
    const first = startProcess(env).catch(() => undefined);
    await until(async () => (await shops()).length === 1, "the shop begins");
    endAll();
    await first;
    expect(await shops()).toEqual([{ name: "Ashglaze Works", members: 0 }]);
    const three = await Promise.all([1, 2, 3].map(() => startProcess(env)));
    expect(await shops()).toEqual([{ name: "Ashglaze Works", members: 1 }]);
    const v = new Visitor({ url: three[0]!.url } as never);
    expect((await v.post("/api/session/demo")).status).toBe(204);
    expect((await v.get("/api/bench")).status).toBe(200);
  } finally {
    endAll();
    await owner.end();
    await admin.query(`drop database ${name} with (force)`);
    await admin.end();
  }
});
