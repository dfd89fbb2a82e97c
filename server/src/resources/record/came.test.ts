import { afterAll, beforeAll, expect, test } from "@jest/globals";
import type { HistoryAnswer, LotRow, RunAnswer } from "@kobbin/contract";
import { judgeLot, rollUp } from "@kobbin/core";
import { startServer, type TestServer } from "../../../test/kit.ts";
import { releasedRun } from "../../../test/released-run.ts";

let server: TestServer;
beforeAll(async () => {
  server = await startServer();
});
afterAll(() => server.close());

test("boards that came are measured and judged, a delivery is set apart and used after all, a claim goes its way", async () => {
  const { v, id, read, document, offer, lots, boards, parts } = await releasedRun(server, "Came");
  const item = document.boards[0]!.id!;
  const record = async () => (await read()).record!;
  await v.post(`/api/runs/${id}/receipts`, {
    order: boards,
    arrivedOn: "2026-12-01",
    items: [{ item, qty: 12 }],
  });
  const wrong = { item, label: "1", on: "2026-12-01", readings: { width: [1] }, looks: { mask: false } };
  const made = await v.post(`/api/runs/${id}/measured`, wrong);
  expect(made.status).toBe(201);
  const now = await read();
  expect(now.record!.measured).toEqual([
    { ...wrong, id: expect.any(String), person: expect.any(String), note: "" },
  ]);
  const judged = judgeLot(now.document, rollUp(now.document), now.record!, 0);
  expect([judged.verdict, judged.lot, judged.notAsOrdered.length]).toEqual(["fails", 12, 2]);
  for (const [bad, status] of [
    [{ ...wrong, readings: {}, looks: {} }, 422],
    [{ ...wrong, readings: { width: [0] } }, 422],
    [{ ...wrong, readings: { width: ["1"] } }, 422],
    [{ ...wrong, item: "nobody" }, 404],
    [{ ...wrong, receipt: id }, 404],
    [{ ...wrong, label: "" }, 422],
  ] as const)
    expect([(await v.post(`/api/runs/${id}/measured`, bad)).status, bad]).toEqual([status, bad]);

  // parts that were counted in turn out to be wrong: the lot is locked, and free again
  await v.post(`/api/runs/${id}/receipts`, {
    order: parts,
    arrivedOn: "2026-12-01",
    items: [{ item: offer, qty: 5, unitCost: "0.1" }],
  });
  const receipt = (await record()).receipts.find((r) => r.item === offer)!;
  const lot = async () => (await lots()).find((l) => l.id === receipt.lot)!;
  expect((await lot()).condition).toBe("new");
  const held = (l: LotRow) => l.reserved.reduce((n, r) => n + r.qty, 0);
  expect(held(await lot())).toBe(5);
  const apart = { isApart: true, because: "other part" };
  expect((await v.patch(`/api/receipts/${receipt.id}`, apart)).status).toBe(204);
  expect((await record()).receipts.find((r) => r.id === receipt.id)).toMatchObject(apart);
  expect([(await lot()).condition, held(await lot())]).toEqual(["quarantine", 0]);
  await v.patch(`/api/receipts/${receipt.id}`, { isApart: false });
  expect([(await lot()).condition, held(await lot())]).toEqual(["new", 5]);
  // said once more, it changes nothing; some of it used up and opened meanwhile, no more comes back than is left
  await v.put(`/api/runs/${id}/reservations`, { lotId: receipt.lot, qty: 2 });
  await v.patch(`/api/receipts/${receipt.id}`, { isApart: false, because: "looked at" });
  expect(held(await lot())).toBe(2);
  await v.patch(`/api/receipts/${receipt.id}`, apart);
  const change = { qty: 3, condition: "opened", version: (await lot()).version };
  expect((await v.patch(`/api/lots/${receipt.lot}`, change)).status).toBeLessThan(300);
  await v.patch(`/api/receipts/${receipt.id}`, { isApart: false });
  expect([(await lot()).condition, held(await lot())]).toEqual(["opened", 3]);

  const claim = {
    order: boards,
    item,
    pieces: 12,
    because: "too narrow",
    letter: "Dear house",
    on: "2026-12-02",
  };
  const { id: about } = (await v.post(`/api/runs/${id}/claims`, claim)).body as { id: string };
  const { on: openedOn, ...rest } = claim;
  const whole = { ...rest, id: about, openedOn, state: "open", answer: "", person: expect.any(String) };
  expect((await record()).claims).toEqual([whole]);
  expect((await v.patch(`/api/claims/${about}`, { state: "sent" })).status).toBe(204);
  expect(
    (await v.patch(`/api/claims/${about}`, { state: "settled", answer: "half", credit: "12.50" })).status,
  ).toBe(204);
  expect((await record()).claims).toEqual([{ ...whole, state: "settled", answer: "half", credit: "12.50" }]);
  expect((await v.patch(`/api/claims/${about}`, { state: "lost" })).status).toBe(422);
  expect((await v.post(`/api/runs/${id}/claims`, { ...claim, order: "boards nobody" })).status).toBe(404);
  const { changes } = (await v.get("/api/history")).body as HistoryAnswer;
  expect(changes[0]!.sentence).toMatch(/^the claim at .* is settled/);
  expect((await v.post(`/api/changes/${changes[0]!.id}/undo`, {})).status).toBeLessThan(300);
  expect((await record()).claims).toEqual([{ ...whole, state: "sent" }]);
  // a release of which something was claimed stays
  expect((await v.call("DELETE", `/api/runs/${id}/release`)).status).toBe(403);
  expect((await v.call("DELETE", `/api/claims/${about}`)).status).toBe(204);
  const measured = (await record()).measured![0]!.id;
  expect((await v.call("DELETE", `/api/measured/${measured}`)).status).toBe(204);
  const after: RunAnswer = await read();
  expect([after.record!.measured, after.record!.claims]).toEqual([undefined, undefined]);
});

test("what says another number than was ordered lies on the shelf as what it says", async () => {
  const { v, id, document, offer, lots, parts } = await releasedRun(server, "Instead");
  const ordered = document.lines.find((l) => l.id === document.offers.find((o) => o.id === offer)!.line)!;
  const number = ordered.mpn || ordered.valueText;
  const came = (more: object) =>
    v.post(`/api/runs/${id}/receipts`, {
      order: parts,
      arrivedOn: "2026-12-01",
      items: [{ item: offer, unitCost: "0.1", ...more }],
    });
  expect((await came({ qty: 3, cameAs: " ZZ-99 ", isApart: true, because: "it says ZZ-99" })).status).toBe(
    201,
  );
  expect((await came({ qty: 2, cameAs: number })).status).toBe(201);
  const byPieces = await lots();
  expect(byPieces.map((l) => [l.qty, l.mpn, l.condition, l.note.includes(`came for ${number}`)])).toEqual([
    [3, "ZZ-99", "quarantine", true],
    [2, number, "new", false],
  ]);
  const { changes } = (await v.get(`/api/history?run=${id}`)).body as HistoryAnswer;
  expect(changes[1]!.sentence).toContain("3 × ZZ-99 for ");
  expect(changes[0]!.sentence).not.toContain(" for ");
});
