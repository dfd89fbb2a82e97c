import {
  createPool,
  insertLots,
  manyFreeLots,
  manyLotChanges,
  readWorkshop,
  recordChange,
} from "@kobbin/server";
import pg from "pg";
import { dropShop, fillShop, inTurns, times } from "./filled.ts";
import { random } from "./random.ts";
import type { Add } from "./served.ts";

/** A shelf, two lots a number and fifteen movements a lot, as a shop has it after years; and one a hundredth of it. */
const LARGE = { id: "00000000-0000-4000-8000-00000000be9e", lots: 20_000 };
const SMALL = { id: "00000000-0000-4000-8000-00000000be9f", lots: 200 };
const MOVES = 15;

/** Takes such a shelf away, its many rows first and unasked. */
async function drop(owner: pg.Pool, id: string): Promise<void> {
  await owner.query(
    `begin; set local session_replication_role = replica;
     delete from change_row where workshop_id = '${id}'; delete from change where workshop_id = '${id}';
     delete from lot where workshop_id = '${id}'; commit`,
  );
  await dropShop(owner, id);
}

const fill = (owner: pg.Pool, { id, lots }: typeof LARGE) =>
  fillShop(
    owner,
    { id, name: `bench of ${lots} lots`, tables: ["lot", "change", "change_row"] },
    async (ask) => {
      await ask(
        "insert into lot (workshop_id, mpn, qty, currency) select $1, 'OX-' || i / 2, 100, 'EUR' from generate_series(1, $2::int) as i",
        [lots],
      );
      await ask(
        "insert into change (workshop_id, person, sentence) select $1, 'x', 'counted ' || i from generate_series(1, $2::int) as i",
        [lots],
      );
      // what is filled in here refers to what is there: asking that of every row takes a minute
      await ask("select set_config('session_replication_role', 'replica', true), $1::text");
      // a change a lot: they were written in one go, so their numbers follow each other
      await ask(
        `insert into change_row (change_id, workshop_id, tbl, key, op, version, was, became)
         select f.id + l.n, $1, 'lot', jsonb_build_object('id', l.id::text), 'update', i, '{"qty": 3}', '{"qty": 2}'
         from (select id, row_number() over (order by number) - 1 as n from lot where workshop_id = $1) as l
         cross join (select min(id) as id from change where workshop_id = $1) as f
         cross join generate_series(1, $2::int) as i`,
        [MOVES],
      );
    },
  );

/** What one asks of a shelf at the bench, after years and at the beginning: it costs the same. */
export async function benchShelf(databaseUrl: string, adminUrl: string, add: Add): Promise<void> {
  const owner = new pg.Pool({ connectionString: adminUrl, max: 2 });
  const pool = createPool(databaseUrl);
  const next = random(7);
  const shelf = async (of: typeof LARGE) => {
    await drop(owner, of.id);
    await fill(owner, of);
    const { rows } = await owner.query<{ id: string }>("select id from lot where workshop_id = $1", [of.id]);
    const any = () => rows[Math.floor(next() * rows.length)]!.id;
    const kit = () => Array.from({ length: 40 }, (_, i) => `OX-${1 + ((i * 7) % (of.lots / 2 - 1))}`);
    const parcel = Array.from({ length: 10 }, (_, i) => ({
      mpn: `OX-${i + 1}`,
      qty: 100,
      place: "",
      receivedOn: "2026-12-01",
      unitCost: "0.1",
      currency: "EUR",
      condition: "new" as const,
      donor: "",
      note: "",
    }));
    const by = { workshopId: of.id, accountId: null, person: "bench" };
    return {
      scan: () => readWorkshop(pool, of.id, (tx) => manyLotChanges(tx, any())),
      kit: () => readWorkshop(pool, of.id, (tx) => manyFreeLots(tx, kit(), of.id)),
      parcel: () => recordChange(pool, by, (tx) => insertLots(tx, parcel)),
    };
  };
  const [large, small] = [await shelf(LARGE), await shelf(SMALL)];
  const found = await large.scan();
  if (found.length !== MOVES) throw new Error(`a lot has ${found.length} movements`);
  for (const s of [large, small]) {
    const free = (await s.kit()).length;
    if (free < 40) throw new Error(`of 40 numbers ${free} lots are free`);
  }
  const WORDS = {
    scan: "where a lot came from and went",
    kit: "what is free of 40 numbers, for a kit",
    parcel: "a parcel of ten lines put on the shelf",
  } as const;
  for (const what of ["scan", "kit", "parcel"] as const) {
    await times(12, large[what]);
    const { ms, floorMs } = await inTurns(what === "parcel" ? 100 : 300, small[what], large[what]);
    add(
      `${WORDS[what]}: 20,000 lots and 300,000 movements, p95`,
      "the same of 200 lots and 3,000 movements, in turns with it, p95",
      ms,
      floorMs,
    );
  }
  for (const { id } of [LARGE, SMALL]) await drop(owner, id);
  await pool.end();
  await owner.end();
}
