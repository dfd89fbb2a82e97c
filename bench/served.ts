import { randomUUID } from "node:crypto";
import { performance } from "node:perf_hooks";
import {
  createApp,
  createCompute,
  createHub,
  createPool,
  type Deps,
  readConfig,
  recordChange,
  withWorkshop,
} from "@kobbin/server";
import pg from "pg";
import { times } from "./filled.ts";

/** A piece of work and its floor, each in milliseconds, or a rate against a rate. */
export type Add = (work: string, floor: string, ms: number, floorMs: number) => void;

const at = (list: readonly number[], share: number) =>
  [...list].sort((a, b) => a - b)[Math.min(list.length - 1, Math.floor(list.length * share))]!;

/** Milliseconds a request takes of the server when 32 ask at once for a second and a half. */
async function perRequest(url: string, headers: Record<string, string>): Promise<number> {
  const until = performance.now() + 1500;
  let n = 0;
  const started = performance.now();
  await Promise.all(
    Array.from({ length: 32 }, async () => {
      while (performance.now() < until) {
        await (await fetch(url, { headers })).arrayBuffer();
        n++;
      }
    }),
  );
  return (performance.now() - started) / n;
}

/** The lines of the table that need a database with the demo shop. */
export async function benchServed(databaseUrl: string, adminUrl: string, add: Add): Promise<void> {
  const config = readConfig({ DATABASE_URL: databaseUrl, SIGN_UP: "open", DEMO: "yes" });
  const pool = createPool(databaseUrl);
  const owner = new pg.Pool({ connectionString: adminUrl, max: 2 });
  const { rows } = await owner.query<{ shop: string; line: string; person: string }>(
    `select w.id as shop, (select id from bom_line where workshop_id = w.id order by position limit 1) as line, 'demo@ashglaze' as person
     from workshop as w where w.is_demo limit 1`,
  );
  const demo = rows[0];
  if (!demo) throw new Error("the database holds no demo shop: start Kobbin on it once");

  const sql = "select id, refs, value_text from bom_line order by position";
  const bare = at(await times(300, () => owner.query(sql)), 0.5);
  const bound = at(await times(300, () => withWorkshop(pool, demo.shop, (tx) => tx.query(sql))), 0.5);
  add(
    "a select under row-level security, its transaction and setting",
    "the same select as the owner",
    bound,
    bare,
  );

  await owner.query(
    "begin; set local app.change = 'off'; update bom_line set maker = maker where false; commit",
  );
  const edit = "update bom_line set description = $2 where id = $1";
  const plain = at(
    await times(200, (i) =>
      withWorkshop(pool, demo.shop, async (tx) => {
        await tx.query("select set_config('app.change', 'off', true)");
        await tx.query(edit, [demo.line, `bench ${i}`]);
      }),
    ),
    0.5,
  );
  const by = { workshopId: demo.shop, accountId: null, person: "bench" };
  const recorded = at(
    await times(200, (i) =>
      recordChange(pool, by, (tx) => tx.query(edit, [demo.line, `bench recorded ${i}`]).then(() => null)),
    ),
    0.5,
  );
  add(
    "an edit with its record, sentence, list of runs due and word to all pages",
    "the same edit, unrecorded",
    recorded,
    plain,
  );
  // what the bench wrote is taken out of the shop's history again
  await owner.query("delete from change where person = 'bench'");
  await owner.query(
    "begin; set local app.change = 'off'; update bom_line set description = '' where id = '" +
      demo.line +
      "'; commit",
  );

  const compute = createCompute(() => undefined);
  const hub = createHub(databaseUrl, () => undefined);
  const deps: Deps = {
    pool,
    compute,
    config,
    hub,
    log: () => undefined,
    today: () => "2026-11-24",
    live: new Set(),
  };
  const server = createApp(deps).listen(0, "127.0.0.1");
  await new Promise((done) => server.once("listening", done));
  const { port } = server.address() as { port: number };
  const url = `http://127.0.0.1:${port}`;
  const entered = await fetch(`${url}/api/session/demo`, { method: "POST", headers: { Origin: url } });
  const Cookie = entered.headers.getSetCookie()[0]!.split(";")[0]!;
  await perRequest(`${url}/health`, {});
  const constant = await perRequest(`${url}/health`, {});
  const one = await perRequest(`${url}/api/corrections`, { Cookie, "X-Page": randomUUID() });
  add(
    "a route of one select, per request at 32 at once",
    "the same server answering a constant",
    one,
    constant,
  );

  const client = await pool.connect();
  const nothing = at(await times(400, () => client.query("select 1")), 0.95);
  client.release();
  const find = at(
    await times(300, () => fetch(`${url}/api/find?q=probe`, { headers: { Cookie } }).then((r) => r.text())),
    0.95,
  );
  add("find in the shop over HTTP, p95", "select 1 over the same pool, p95", find, nothing);
  server.closeAllConnections();
  server.close();
  await hub.close();
  await compute.close();
  await pool.end();
  await owner.end();
}
