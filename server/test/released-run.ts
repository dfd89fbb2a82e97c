import { expect } from "@jest/globals";
import type { HistoryAnswer, LotRow, RunAnswer } from "@kobbin/contract";
import { strangerFiles, type TestServer, Visitor } from "./kit.ts";

/** A released run of five good boards: one line, one supplier, boards at a house. */
export async function releasedRun(
  server: TestServer,
  name: string,
  before?: (v: Visitor, run: RunAnswer) => Promise<unknown>,
) {
  const v = new Visitor(server);
  await v.startShop(name);
  const { revisionId } = (await v.drop(strangerFiles())).body as { revisionId: string };
  const { id } = (await v.post("/api/runs", { revisionId, name: "one", goodBoards: 5 })).body as {
    id: string;
  };
  const { document: d } = (await v.get(`/api/runs/${id}`)).body as RunAnswer;
  const offer = (
    await v.post(`/api/lines/${d.lines[0]!.id}/offers`, {
      supplierId: d.suppliers[0]!.id,
      stock: 500,
      currency: "EUR",
      breaks: [{ qty: 1, price: "0.05" }],
    })
  ).body as { id: string };
  const read = async () => (await v.get(`/api/runs/${id}`)).body as RunAnswer;
  await before?.(v, await read());
  expect((await v.post(`/api/runs/${id}/release`)).status).toBe(201);
  const { document } = await read();
  // of one day in the order of their pieces
  const lots = async () => ((await v.get("/api/lots")).body as LotRow[]).sort((a, b) => b.qty - a.qty);
  const undo = (h: Headers, by = v) => by.post(`/api/changes/${h.get("X-Change")}/undo`);
  const parts = `parts ${d.suppliers[0]!.id}`;
  const boards = `boards ${document.house!.id}`;
  const arrives = ({ order = boards, arrivedOn = "2026-12-01", ...item }: Record<string, unknown>, by = v) =>
    by.post(`/api/runs/${id}/receipts`, {
      order,
      arrivedOn,
      items: [{ item: document.boards[0]!.id, ...item }],
    });
  const works = (more: object, by = v) => by.post(`/api/runs/${id}/work`, { on: "2026-12-02", ...more });
  return { v, id, revisionId, offer: offer.id, read, document, lots, undo, parts, boards, arrives, works };
}

/** Sentences of what was written down of a run, the newest first, up to its release. */
export async function says(r: { v: Visitor; id: string }): Promise<string[]> {
  const { changes } = (await r.v.get(`/api/history?run=${r.id}`)).body as HistoryAnswer;
  const list = changes.map((c) => c.sentence);
  return list.slice(0, list.indexOf("released and packed"));
}
