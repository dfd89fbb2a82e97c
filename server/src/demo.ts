import { readFileSync } from "node:fs";
import { withTransaction, withWorkshop } from "./db/tx.ts";
import type { Deps } from "./deps.ts";
import { manyHouses } from "./resources/house/queries.ts";
import { addRevision } from "./resources/product/add.ts";
import { insertRun, manyLines, refreshRun } from "./resources/run/index.ts";
import { createShop, fetchStandIns } from "./resources/shop/create.ts";
import { askSuppliers } from "./resources/source/ask.ts";
import { insertOffer, manySuppliers } from "./resources/source/queries.ts";

const archive = (name: string) => ({
  path: `${name}.zip`,
  bytes: new Uint8Array(readFileSync(new URL(`../../demo/boards/${name}.zip`, import.meta.url))),
});

/** Fills an empty database with the demo shop, through the same functions the pages use; does nothing when it is there. */
export async function loadDemo(deps: Deps): Promise<boolean> {
  const { pool, config } = deps;
  const { rows } = await pool.query("select 1 from account where email = 'demo@ashglaze'");
  if (rows.length > 0) return false;
  const standIns = await fetchStandIns(config.standInsUrl);
  const shop = await withTransaction(pool, async (tx) => {
    const id = await createShop(
      tx,
      { name: "Ashglaze Works", currency: "EUR", hourlyRate: "24.00", isDemo: true },
      standIns,
    );
    // no password: the demo account can only be entered by the loopback door
    const { rows: account } = await tx.query<{ id: string }>(
      "insert into account (email) values ('demo@ashglaze') returning id",
    );
    await tx.query("insert into member (workshop_id, account_id) values ($1, $2)", [id, account[0]!.id]);
    return id;
  });
  const first = await addRevision(deps, shop, {
    productName: "Kiln Watch",
    label: "A",
    files: [archive("kiln-watch-a")],
    corrections: {},
  });
  const second = await addRevision(deps, shop, {
    productId: first.productId,
    label: "B",
    files: [archive("kiln-watch-b")],
    corrections: {},
  });
  const tail = await addRevision(deps, shop, {
    productName: "Probe Tail",
    label: "A",
    files: [archive("probe-tail")],
    corrections: {},
  });
  const card = await addRevision(deps, shop, {
    productName: "Rack Card",
    label: "A",
    files: [archive("rack-card")],
    corrections: {},
  });
  await addRun(
    deps,
    shop,
    { revisionId: tail.revisionId, name: "for the autumn market", goodBoards: 120 },
    "Ninefold Circuit Co-op",
    true,
  );
  await addRun(
    deps,
    shop,
    { revisionId: card.revisionId, name: "first try", goodBoards: 12 },
    "Gannet & Daughters",
    false,
  );
  await addRun(
    deps,
    shop,
    { revisionId: second.revisionId, name: "for the spring fairs", goodBoards: 40 },
    "Plover Lane Boards",
    true,
  );
  return true;
}

async function addRun(
  deps: Deps,
  shop: string,
  run: { revisionId: string; name: string; goodBoards: number },
  houseName: string,
  asks: boolean,
): Promise<void> {
  const id = await withWorkshop(deps.pool, shop, async (tx) =>
    insertRun(tx, { ...run, houseId: (await manyHouses(tx)).find((h) => h.name === houseName)?.id ?? null }),
  );
  if (asks && deps.config.standInsUrl) {
    const { suppliers, lines } = await withWorkshop(deps.pool, shop, async (tx) => ({
      suppliers: await manySuppliers(tx),
      lines: await manyLines(tx, run.revisionId),
    }));
    const asked = await askSuppliers(deps.config.standInsUrl, suppliers, lines, deps.today());
    await withWorkshop(deps.pool, shop, async (tx) => {
      for (const o of asked.offers) await insertOffer(tx, o);
      await tx.query("update run set asked_at = now() where id = $1", [id]);
    });
  }
  await refreshRun(deps, shop, id);
}
