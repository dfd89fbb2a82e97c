import { afterAll, beforeAll, expect, test } from "@jest/globals";
import { startServer, type TestServer, Visitor } from "../../test/kit.ts";
import { readWorkshop, withTransaction, withWorkshop } from "./tx.ts";

let server: TestServer;
let shop = "";
beforeAll(async () => {
  server = await startServer();
  const v = new Visitor(server);
  await v.startShop("Statements");
  shop = ((await v.get("/api/session")).body as { shop: { id: string } }).shop.id;
});
afterAll(() => server.close());

const names = (tx: { query: (text: string) => Promise<{ rows: { name: string }[] }> }) =>
  tx.query("select name from workshop").then((r) => r.rows.map((x) => x.name));

test("statements sent together see one shop, each gets its own answer, and none sees another shop", async () => {
  const [a, b, none] = await Promise.all([
    readWorkshop(server.deps.pool, shop, (tx) => Promise.all([names(tx as never), names(tx as never)])),
    withWorkshop(server.deps.pool, shop, (tx) => names(tx as never)),
    withTransaction(server.deps.pool, (tx) => names(tx as never)),
  ]);
  expect([a, b, none]).toEqual([[["Statements"], ["Statements"]], ["Statements"], []]);
});

test("a read writes nothing, what fails in the middle leaves nothing, and the connection goes on working", async () => {
  const { pool } = server.deps;
  const rename = "update workshop set name = 'Renamed'";
  await expect(readWorkshop(pool, shop, (tx) => tx.query(rename))).rejects.toThrow("read-only");
  await expect(
    withWorkshop(pool, shop, async (tx) => {
      await tx.query("select set_config('app.change', 'off', true)");
      await tx.query(rename);
      throw new Error("in the middle");
    }),
  ).rejects.toThrow("in the middle");
  // what went wrong first is told, not what came of it
  await expect(
    withWorkshop(pool, shop, (tx) => Promise.all([tx.query("selec 1"), names(tx as never)])),
  ).rejects.toThrow("syntax error");
  await expect(
    withWorkshop(pool, "no shop at all", (tx) => tx.query("select name from workshop")),
  ).rejects.toThrow(/uuid/);
  for (let i = 0; i < 30; i++) {
    const seen = await readWorkshop(pool, shop, (tx) => names(tx as never));
    expect(seen).toEqual(["Statements"]);
  }
  // the setting ended with each transaction
  expect(await withTransaction(pool, (tx) => names(tx as never))).toEqual([]);
});

test("fifty reads and writes at once over twelve connections: all answered, each with its own", async () => {
  const { pool } = server.deps;
  const got = await Promise.all(
    Array.from({ length: 50 }, (_, i) =>
      (i % 2 === 0 ? readWorkshop : withWorkshop)(pool, shop, async (tx) => {
        const [{ rows: a }, { rows: b }] = await Promise.all([
          tx.query<{ n: number }>("select $1::int as n", [i]),
          tx.query<{ n: number }>("select $1::int + 1000 as n", [i]),
        ]);
        return [a[0]!.n, b[0]!.n];
      }),
    ),
  );
  expect(got).toEqual(Array.from({ length: 50 }, (_, i) => [i, i + 1000]));
});
