import { afterAll, beforeAll, expect, test } from "@jest/globals";
import type { RunAnswer } from "@kobbin/contract";
import { shapes } from "@kobbin/core";
import { startServer, strangerFiles, type TestServer, Visitor } from "../../../test/kit.ts";
import { TOLD_FIRST, tableFact } from "../../schema/table-facts.ts";
import { DESCRIPTORS } from "../../schema/tables.ts";

let server: TestServer;
beforeAll(async () => {
  server = await startServer();
});
afterAll(() => server.close());

/** Rows as a shop wrote them over years, without a change for each. */
async function filled(statement: string, values: readonly unknown[]): Promise<void> {
  const tx = await server.owner.connect();
  try {
    await tx.query("begin");
    await tx.query("select set_config('app.change', 'off', true)");
    await tx.query(statement, [...values]);
    await tx.query("commit");
  } finally {
    await tx.query("rollback");
    tx.release();
  }
}

test("what a limit is counted by is a column of its table", () => {
  const bounded = TOLD_FIRST.filter((t) => tableFact(t).bound);
  expect(bounded).toHaveLength(21);
  for (const table of bounded) {
    const { of, via } = tableFact(table).bound!;
    if (of) expect(DESCRIPTORS[via?.table ?? table].columns).toHaveProperty(of);
    if (via) expect(DESCRIPTORS[table].columns).toMatchObject({ [via.by]: { to: via.table } });
  }
  // what Kobbin makes itself is of the table too
  for (const table of TOLD_FIRST)
    for (const c of tableFact(table).made ?? []) expect(DESCRIPTORS[table].columns).toHaveProperty(c);
});

test("a shop filled to the brim is released, backed up and restored; one more of anything is refused, by undo too", async () => {
  const v = new Visitor(server);
  await v.startShop("Brim full");
  const { productId, revisionId } = (await v.drop(strangerFiles())).body as Record<string, string>;
  const { id } = (await v.post("/api/runs", { revisionId, name: "one", goodBoards: 5 })).body as {
    id: string;
  };
  const spec = { kind: "edge", allowsMm: [1, 2] };
  const fits = `/api/products/${productId}/fits`;
  const first = ((await v.post(fits, { label: "Groove", spec })).body as { id: string }).id;
  await v.post(`/api/revisions/${revisionId}/variants`, { name: "first" });
  const { MOST } = shapes;
  await filled(
    `insert into fit_row (workshop_id, product_id, position, label, spec)
     select workshop_id, product_id, n, 'row ' || n, spec from fit_row, generate_series(2, $2) as n where id = $1`,
    [first, MOST.fits],
  );
  await filled(
    `insert into variant (workshop_id, revision_id, name)
     select workshop_id, revision_id, 'variant ' || n from variant, generate_series(2, $2) as n where revision_id = $1`,
    [revisionId, MOST.variants],
  );
  const over = await v.post(fits, { label: "one more", spec });
  expect([over.status, over.body]).toEqual([
    422,
    expect.objectContaining({
      code: "OUT_OF_RANGE",
      message: "There may be 200 rows of a fit sheet, and this would make 201; nothing was changed.",
    }),
  ]);
  expect((await v.post(`/api/revisions/${revisionId}/variants`, { name: "one more" })).status).toBe(422);
  // room is made, taken by another, and the one that was removed does not come back into it
  const gone = (await v.call("DELETE", `/api/fits/${first}`)).headers.get("X-Change");
  expect((await v.post(fits, { label: "in its place", spec })).status).toBe(201);
  expect((await v.post(`/api/changes/${gone}/undo`)).status).toBe(422);

  const { document } = (await v.get(`/api/runs/${id}`)).body as RunAnswer;
  expect([document.fits!.length, document.variants!.length]).toEqual([MOST.fits, MOST.variants]);
  await v.post(`/api/lines/${document.lines[0]!.id}/offers`, {
    supplierId: document.suppliers[0]!.id,
    stock: 500,
    currency: "EUR",
    breaks: [{ qty: 1, price: "0.05" }],
  });
  expect((await v.post(`/api/runs/${id}/release`)).body).not.toHaveProperty("code");
  const backup = await v.get("/api/backup");
  expect(backup.status).toBe(200);
  const form = new FormData();
  form.append("files", new Blob([backup.bytes as Uint8Array<ArrayBuffer>]), "b.zip");
  const restored = await v.post("/api/restore", form);
  expect([restored.status, restored.body]).toEqual([
    201,
    expect.objectContaining({ name: expect.stringMatching(/^Brim full/) }),
  ]);
});

test("what no released run can hold is not released, and a backup that would not be taken is not called one", async () => {
  const v = new Visitor(server);
  await v.startShop("Beyond");
  const { productId, revisionId } = (await v.drop(strangerFiles())).body as Record<string, string>;
  const { id } = (await v.post("/api/runs", { revisionId, name: "one", goodBoards: 5 })).body as {
    id: string;
  };
  const { document } = (await v.get(`/api/runs/${id}`)).body as RunAnswer;
  await v.post(`/api/lines/${document.lines[0]!.id}/offers`, {
    supplierId: document.suppliers[0]!.id,
    stock: 500,
    currency: "EUR",
    breaks: [{ qty: 1, price: "0.05" }],
  });
  const spec = { kind: "edge", allowsMm: [1, 2] };
  const { id: first } = (await v.post(`/api/products/${productId}/fits`, { label: "Groove", spec })).body as {
    id: string;
  };
  // as an older Kobbin took them
  await filled(
    `insert into fit_row (workshop_id, product_id, position, label, spec)
     select workshop_id, product_id, n, 'row ' || n, spec from fit_row, generate_series(2, 206) as n where id = $1`,
    [first],
  );
  const refused = await v.post(`/api/runs/${id}/release`);
  expect([refused.status, refused.body]).toEqual([
    expect.any(Number),
    expect.objectContaining({
      code: "DOCUMENT_INVALID",
      message: "The run holds what no released run can: fits holds more than 200 items.",
    }),
  ]);
  expect(((await v.get(`/api/runs/${id}`)).body as RunAnswer).state).toBe("open");
  await filled("update fit_row set label = repeat('x', 5000) where id = $1", [first]);
  const backup = await v.get("/api/backup");
  expect(backup.status).toBeGreaterThanOrEqual(400);
  expect((backup.body as { message: string }).message).toMatch(
    /^The backup was made, and could not be read back: .*fit_row/,
  );
});

test("what a backup could not hold is not written down, and not brought back: the field is named, nothing is changed", async () => {
  const v = new Visitor(server);
  await v.startShop("Unkept");
  const { productId, revisionId } = (await v.drop(strangerFiles())).body as Record<string, string>;
  const spec = { kind: "edge", allowsMm: [1, 2] };
  const fits = `/api/products/${productId}/fits`;
  const { id } = (await v.post(fits, { label: "Groove", spec })).body as { id: string };
  const { id: variant } = (await v.post(`/api/revisions/${revisionId}/variants`, { name: "one" })).body as {
    id: string;
  };
  // as an older Kobbin took them
  await filled("update fit_row set label = repeat('x', 5000) where id = $1", [id]);
  await filled(`update variant set overrides = '{"x": 5}' where id = $1`, [variant]);
  for (const path of [`/api/fits/${id}`, `/api/variants/${variant}`]) {
    const gone = await v.call("DELETE", path);
    expect(gone.status).toBe(204);
    const back = await v.post(`/api/changes/${gone.headers.get("X-Change")}/undo`);
    expect([back.status, (back.body as { message: string }).message]).toEqual([
      422,
      expect.stringMatching(
        /^Something here is more than is kept: (label|overrides)[^ ]* .*\. Nothing was changed\.$/,
      ),
    ]);
  }
  const { rows } = await server.owner.query(
    "select (select count(*) from fit_row where id = $1) + (select count(*) from variant where id = $2) as n",
    [id, variant],
  );
  expect(rows[0].n).toBe("0");
});
