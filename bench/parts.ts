import { createPool, manyParts, readWorkshop } from "@kobbin/server";
import pg from "pg";
import { dropShop, fillShop, p95, selectOne, times } from "./filled.ts";
import { random } from "./random.ts";
import type { Add } from "./served.ts";

const PARTS = 20_000;
const OFFERS = 200_000;
const SHOP = "00000000-0000-4000-8000-00000000be9c";

/** A shop of its own with many parts, a line for each and ten offers a line; made once, taken away at the end. */
const fill = (owner: pg.Pool) =>
  fillShop(
    owner,
    { id: SHOP, name: "bench of parts", tables: ["part", "part_word", "bom_line", "offer"] },
    async (ask) => {
      await ask(
        `insert into supplier (workshop_id, name, currency, shipping, days_min, days_max)
       select $1, 'bench supplier ' || i, 'EUR', 5, 1, 3 from generate_series(1, 10) as i`,
      );
      await ask(
        `insert into part (workshop_id, mpn, maker, description, kind, package)
       select $1, (array['OX','PW','QL','HB','TB'])[1 + i % 5] || '-' || (array['R','C','L','D','U'])[1 + i / 5 % 5] || (array['0402','0603','0805','1206'])[1 + i % 4] || '-' || to_char(i, 'FM00000'),
         (array['Oxbow','Pellow','Quillan','Hobrook','Tarnbeck'])[1 + i % 5],
         (array['thick film resistor','ceramic capacitor','wound inductor','switching diode','temperature sensor'])[1 + i / 5 % 5] || ' lot ' || md5(i::text),
         (array['resistor','capacitor','inductor','diode','chip'])[1 + i / 5 % 5], (array['0402','0603','0805','1206'])[1 + i % 4]
       from generate_series(1, $2::int) as i`,
        [PARTS],
      );
      await ask(
        `insert into bom_line (workshop_id, revision_id, position, refs, qty, mpn, mount)
       select $1, (select id from revision where workshop_id = $1), row_number() over (order by mpn), array['X1'], 1, mpn, 'machine' from part where workshop_id = $1`,
      );
      await ask(
        `insert into offer (workshop_id, line_id, supplier_id, stock, moq, multiple, currency, source, captured_on)
       select $1, l.id, s.id, 1000, 1, 1, 'EUR', 'feed', current_date
       from bom_line as l, supplier as s where l.workshop_id = $1 and s.workshop_id = $1 limit $2`,
        [OFFERS],
      );
    },
  );

/** The search of the library's own page over 20,000 parts and 200,000 offers. */
export async function benchParts(databaseUrl: string, adminUrl: string, add: Add): Promise<void> {
  const owner = new pg.Pool({ connectionString: adminUrl, max: 2 });
  const pool = createPool(databaseUrl);
  await fill(owner);
  const next = random(7);
  const number = () => {
    const i = 1 + Math.floor(next() * PARTS);
    return String(i).padStart(5, "0");
  };
  const sensor = () => String(25 * Math.floor(next() * 800) + 20 + Math.floor(next() * 5)).padStart(5, "0");
  const search = (q: () => string) => () => readWorkshop(pool, SHOP, (tx) => manyParts(tx, q(), 60));
  const floor = await selectOne(pool);
  for (const [what, q] of [
    ["a number", () => number()],
    ["a maker, a size and a number's beginning", () => `oxbow 0603 ${number().slice(0, 3)}`],
    // a sensor's own number beside its word typed wrong; then any number, four in five of which are no sensor's
    ["one typing error in a word and its number", () => `sensr ${sensor()}`],
    ["one typing error in a word and any number", () => `sensr ${number()}`],
  ] as const) {
    await times(200, search(q));
    add(
      `search of 20,000 parts with 200,000 offers by ${what}, p95`,
      "select 1 over the same pool, p95",
      p95(await times(300, search(q))),
      floor,
    );
  }
  await dropShop(owner, SHOP);
  await pool.end();
  await owner.end();
}
