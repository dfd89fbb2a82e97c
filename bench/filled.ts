import { performance } from "node:perf_hooks";
import type pg from "pg";

/** The value nineteen of twenty are at or under. */
export const p95 = (list: readonly number[]): number =>
  [...list].sort((a, b) => a - b)[Math.floor(list.length * 0.95)]!;

/** Milliseconds of each of so many goes. */
export async function times(n: number, work: (i: number) => Promise<unknown>): Promise<number[]> {
  const out: number[] = [];
  for (let i = 0; i < n; i++) {
    const t = performance.now();
    await work(i);
    out.push(performance.now() - t);
  }
  return out;
}

/** Milliseconds nineteen of twenty `select 1` take at most over a pool: what any question to it costs at least. */
export async function selectOne(pool: pg.Pool): Promise<number> {
  const client = await pool.connect();
  await times(200, () => client.query("select 1"));
  const floor = p95(await times(500, () => client.query("select 1")));
  client.release();
  return floor;
}

/**
 * A question and its floor in turns: what the machine does meanwhile falls on both. Milliseconds nineteen of twenty take at
 * most, of each.
 */
export async function inTurns(
  n: number,
  floor: () => Promise<unknown>,
  ask: () => Promise<unknown>,
): Promise<{ readonly ms: number; readonly floorMs: number }> {
  const [asked, least]: [number[], number[]] = [[], []];
  for (let i = 0; i < n; i++) {
    least.push(...(await times(1, floor)));
    asked.push(...(await times(1, ask)));
  }
  return { ms: p95(asked), floorMs: p95(least) };
}

/** Takes a shop of the bench away, if it is there. */
export const dropShop = (owner: pg.Pool, shop: string) =>
  owner.query(
    `begin; select set_config('app.change', 'off', true), set_config('app.workshop', '${shop}', true);
     delete from workshop where id = '${shop}'; commit`,
  );

/**
 * A shop of its own, filled at once past the record, and its tables as the database's own housekeeping leaves them.
 * @param fill statements whose first value is the shop's id
 */
export async function fillShop(
  owner: pg.Pool,
  shop: { readonly id: string; readonly name: string; readonly tables: readonly string[] },
  fill: (ask: (sql: string, more?: readonly unknown[]) => Promise<unknown>) => Promise<void>,
): Promise<void> {
  await dropShop(owner, shop.id);
  const client = await owner.connect();
  const ask = (sql: string, more: readonly unknown[] = []) => client.query(sql, [shop.id, ...more]);
  try {
    await client.query("begin");
    await ask("select set_config('app.change', 'off', true), set_config('app.workshop', $1, true)");
    await ask("insert into workshop (id, name, currency, hourly_rate) values ($1, $2, 'EUR', 1)", [
      shop.name,
    ]);
    await ask(
      `with p as (insert into product (workshop_id, name) values ($1, 'bench') returning id)
       insert into revision (workshop_id, product_id, label) select $1, id, 'A' from p`,
    );
    await fill(ask);
    await client.query("commit");
  } catch (error) {
    await client.query("rollback");
    throw error;
  } finally {
    client.release();
  }
  for (const table of shop.tables) await owner.query(`vacuum analyze ${table}`);
}
