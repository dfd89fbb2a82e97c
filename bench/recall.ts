import { createPool, manyBoardsWith, readWorkshop } from "@kobbin/server";
import pg from "pg";
import { dropShop, fillShop, inTurns, times } from "./filled.ts";
import { random } from "./random.ts";
import type { Add } from "./served.ts";

const RUNS = 500;
const LOTS = 40;
const SHOP = "00000000-0000-4000-8000-00000000be9d";

/** A shop that built fifty thousand boards in five hundred runs, each of forty lots of its own. */
const fill = (owner: pg.Pool) =>
  fillShop(
    owner,
    {
      id: SHOP,
      name: "bench of recalls",
      tables: ["lot", "receipt", "closing", "run", "work", "lot_taken"],
    },
    async (ask) => {
      await ask(
        `insert into run (workshop_id, revision_id, name, state)
       select $1, (select id from revision where workshop_id = $1), 'run ' || i, 'released' from generate_series(1, $2::int) as i`,
        [RUNS],
      );
      await ask(
        "insert into work (workshop_id, run_id, on_day, started, good, person) select $1, id, current_date, 100, 98, 'x' from run where workshop_id = $1",
      );
      await ask(
        `insert into lot (workshop_id, mpn, qty, currency, note)
       select $1, 'OX-' || i % 400, 100, 'EUR', r.id::text from run as r, generate_series(1, $2::int) as i where r.workshop_id = $1`,
        [LOTS],
      );
      await ask(
        `insert into receipt (workshop_id, run_id, order_key, item, label, qty, arrived_on, is_apart, because, lot_id)
       select $1, note::uuid, 'parts x', 'x', 'x', 100, current_date, false, '', id from lot where workshop_id = $1`,
      );
      await ask(
        `insert into closing (workshop_id, run_id, closed_on, person, lesson, outcome, taken)
       select $1, r.id, current_date, 'x', '', '{}',
         (select jsonb_object_agg(id, '{"pieces": 90, "isCounted": false}'::jsonb) from lot where note = r.id::text)
       from run as r where r.workshop_id = $1`,
      );
    },
  );

/** Which boards have a lot that is doubted, of fifty thousand. */
export async function benchRecall(databaseUrl: string, adminUrl: string, add: Add): Promise<void> {
  const owner = new pg.Pool({ connectionString: adminUrl, max: 2 });
  const pool = createPool(databaseUrl);
  await fill(owner);
  const { rows: lots } = await owner.query<{ id: string }>("select id from lot where workshop_id = $1", [
    SHOP,
  ]);
  const next = random(7);
  const recall = () =>
    readWorkshop(pool, SHOP, (tx) => manyBoardsWith(tx, lots[Math.floor(next() * lots.length)]!.id));
  const found = await recall();
  if (found.length !== 1 || found[0]!.begun !== 100 || found[0]!.taken !== 90)
    throw new Error(`the recall finds ${JSON.stringify(found)}`);
  // every connection has asked often enough to keep its plan, as those of a server that runs
  await times(20, () => Promise.all(Array.from({ length: 12 }, recall)));
  const { ms, floorMs } = await inTurns(1000, () => pool.query("select 1"), recall);
  add(
    "recall of any lot over 50,000 boards and 20,000 lots, p95",
    "select 1 over the same pool in turns with it, p95",
    ms,
    floorMs,
  );
  await dropShop(owner, SHOP);
  await pool.end();
  await owner.end();
}
