import { createServer } from "node:net";
import { expect, test } from "@jest/globals";
import { patientDb } from "./patient-db.ts";

/** An address where nobody listens. */
async function nowhere(): Promise<string> {
  const server = createServer().listen(0, "127.0.0.1");
  await new Promise((done) => server.once("listening", done));
  const { port } = server.address() as { port: number };
  await new Promise((done) => server.close(done));
  return `postgres://nobody@127.0.0.1:${port}/none`;
}

test("while the database is away a statement is tried again, ever later up to two seconds; closed, it is taken for nothing done", async () => {
  const waits: number[] = [];
  const seen: string[] = [];
  const db = patientDb(
    await nowhere(),
    (error) => seen.push((error as { code?: string }).code ?? ""),
    async (ms) => {
      waits.push(ms);
      if (waits.length === 7) await db.close();
    },
  );
  expect(await db.executeSql("select COUNT (*) from job", [])).toEqual({ rows: [{ count: "0" }] });
  expect(waits).toEqual([200, 400, 800, 1600, 2000, 2000, 2000]);
  expect(seen).toEqual(waits.map(() => "ECONNREFUSED"));
  expect(await db.executeSql("update job set done = true", [])).toEqual({ rows: [] });
  // its last word is not sent any more, nor waited for
  expect(waits).toHaveLength(7);
});

test("what the database refuses is said at once", async () => {
  const waits: number[] = [];
  const db = patientDb(
    process.env.TEST_DATABASE_URL!,
    () => undefined,
    async (ms) => waits.push(ms),
  );
  await expect(db.executeSql("select nothing from nowhere", [])).rejects.toMatchObject({ code: "42P01" });
  expect((await db.executeSql("select $1::int as n", [7])).rows).toEqual([{ n: 7 }]);
  expect(waits).toEqual([]);
  await db.close();
});
