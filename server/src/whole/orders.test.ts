import { afterAll, beforeAll, expect, test } from "@jest/globals";
import type { AskAnswer, HistoryAnswer, HouseRecord, RunAnswer } from "@kobbin/contract";
import { orderStand, rollUp } from "@kobbin/core";
import { demoArchive, startServer, type TestServer, Visitor } from "../../test/kit.ts";
import { until } from "../../test/siege.ts";

let server: TestServer;
beforeAll(async () => {
  server = await startServer();
});
afterAll(() => server.close());

/** A released run of the demo's Rack Card at a house, and hands to go on with. */
async function ordered(shop: string, house: string, copy?: string) {
  const v = new Visitor(server);
  await v.startShop(shop);
  const { revisionId } = (await v.drop({ "rack-card.zip": demoArchive("rack-card") }, { name: "Card" }))
    .body as {
    revisionId: string;
  };
  const { id } = (await v.post("/api/runs", { revisionId, name: "one", goodBoards: 10 })).body as {
    id: string;
  };
  const read = async () => (await v.get(`/api/runs/${id}`)).body as RunAnswer;
  const { document } = await read();
  const lines = document.lines.map((l) => ({ id: l.id, dnp: true }));
  await v.call("PATCH", `/api/revisions/${revisionId}/lines`, { lines });
  let houseId = document.houses!.find((h) => h.name === house)!.id;
  if (copy !== undefined)
    houseId = ((await v.post("/api/houses", { name: copy, copyOf: houseId })).body as { id: string }).id;
  await v.patch(`/api/runs/${id}`, { version: (await read()).version, houseId });
  const accepted = Object.fromEntries(rollUp((await read()).document).blockers.map((b) => [b.key, "known"]));
  await v.patch(`/api/runs/${id}`, { version: (await read()).version, accepted });
  const order = `boards ${houseId}`;
  const release = async () => expect((await v.post(`/api/runs/${id}/release`)).status).toBe(201);
  const step = (state: string, on = "2026-11-25", words = "") =>
    v.post(`/api/runs/${id}/order-steps`, { order, state, on, words });
  const send = (of = order) => v.post(`/api/runs/${id}/send-order`, { order: of });
  const look = () => v.post(`/api/runs/${id}/look-order`, { order });
  const said = async () => {
    await server.figures();
    return (await read()).record?.steps?.map((s) => `${s.on.slice(5)} ${s.state}`) ?? [];
  };
  const talk = async () => ((await v.get(`/api/runs/${id}/asks`)).body as AskAnswer).orders;
  return { v, id, houseId, order, read, release, step, send, look, said, talk };
}

test("a house that nobody can ask over the network is sent nothing, nor is a supplier", async () => {
  const o = await ordered("Orders by post", "Plover Lane Boards", "Plover by post");
  await o.release();
  expect((await o.send()).body).toMatchObject({
    code: "NOT_ALLOWED",
    message: "Plover by post does not take orders over the network.",
  });
  expect(await o.said()).toEqual([]);
  expect(await o.talk()).toEqual([]);
});

test("an order goes to its house with its files, is asked about, answered, paid, made and sent; every word of it has its day", async () => {
  const o = await ordered("Orders sent", "Plover Lane Boards");
  expect((await o.send()).status).toBe(403);
  await o.release();
  expect((await o.send(`parts ${o.houseId}`)).body).toMatchObject({ code: "NOT_FOUND" });
  const sent = await o.send();
  expect(sent.status).toBe(202);
  // twice is once
  expect((await o.send()).body).toMatchObject({ message: "Its files were sent already." });
  const today = server.deps.today();
  const d = today.slice(5);
  expect(await o.said()).toEqual([`${d} sent`, `${d} asked`]);
  const { record } = await o.read();
  expect(record!.steps![1]).toMatchObject({
    person: "Plover Lane Boards",
    words: expect.stringMatching(/^Silkscreen letters of 0.9 mm are below the 1 mm/),
  });
  // the board house has what boards are made by: no list, no price, no basket, nothing of the run
  const desk = (await (await fetch(`${server.deps.config.standInsUrl}/control/orders`)).json()) as {
    files: string[];
  }[];
  expect(desk).toHaveLength(1);
  expect([...new Set(desk[0]!.files.map((f) => f.split("/").slice(0, 2).join("/")))]).toEqual([
    "fabrication/card-a",
    "sheets/fabrication-plover-lane-boards.pdf",
  ]);
  // what is sent is ordered that day; it is promised for nothing yet
  expect(record!.purchases).toMatchObject([{ order: o.order, orderedOn: today }]);
  expect(record!.purchases[0]).not.toHaveProperty("promisedOn");
  expect(await o.talk()).toMatchObject([{ state: "answered", number: expect.stringMatching(/^P-\d{4}$/) }]);
  // the house's own word is not taken away, one's own is
  expect((await o.v.call("DELETE", `/api/order-steps/${record!.steps![1]!.id}`)).status).toBe(404);
  // what it was told stays told: no step of it is taken away, and sending is not undone
  const told = await o.v.call("DELETE", `/api/order-steps/${record!.steps![0]!.id}`);
  expect(told.body).toMatchObject({ code: "NOT_ALLOWED", message: "Plover Lane Boards was told already." });
  expect((await o.v.post(`/api/changes/${sent.headers.get("X-Change")}/undo`)).status).toBeGreaterThanOrEqual(
    400,
  );
  // asked again it says nothing twice
  await o.look();
  expect(await o.said()).toHaveLength(2);

  const answered = await o.step("answered", today, "Print them as they are.");
  expect(answered.status).toBe(201);
  expect(await o.said()).toEqual([`${d} sent`, `${d} asked`, `${d} answered`, `${d} accepted`]);
  const { promisedOn } = (await o.read()).record!.purchases[0]!;
  expect(promisedOn! > today).toBe(true);
  await o.step("paid", today);
  expect(await o.said()).toHaveLength(5);
  await fetch(`${server.deps.config.standInsUrl}/control?day=2027-01-15`, { method: "POST" });
  await o.look();
  const all = await o.said();
  await fetch(`${server.deps.config.standInsUrl}/control?day=2026-11-24`, { method: "POST" });
  expect(all.slice(5).map((s) => s.split(" ")[1])).toEqual(["made", "shipped"]);
  const steps = (await o.read()).record!.steps!;
  expect(orderStand(steps, { today, isHere: false }).waits?.on).toBe("carrier");
  // the day it was promised for stays that of the first promise, and the question counts in the house's record
  expect((await o.read()).record!.purchases[0]!.promisedOn).toBe(promisedOn);
  const records = (await o.v.get("/api/house-records")).body as HouseRecord[];
  expect(records.find((r) => r.houseId === o.houseId)).toMatchObject({ orders: 1, questions: 1 });
});

test("a house that is down is tried again and given up with its reason; asked once more it gets the order, and one that forgot it gets it again", async () => {
  const o = await ordered("Orders that fail", "Gannet & Daughters");
  await o.release();
  server.failing.add("gannet");
  expect((await o.send()).status).toBe(202);
  await server.figures();
  expect(await o.talk()).toMatchObject([
    { state: "failed", tries: 4, reason: "The feed is down for maintenance.", number: "" },
  ]);
  server.failing.clear();
  expect((await o.look()).status).toBe(202);
  const d = server.deps.today().slice(5);
  expect(await o.said()).toEqual([`${d} sent`, `${d} accepted`]);
  const [talk] = await o.talk();
  expect(talk).toMatchObject({ state: "answered", reason: "" });
  // as if it had lost its list: the same order goes there again under the same reference, and is no second one
  await fetch(`${server.deps.config.standInsUrl}/control?forget=gannet`, { method: "POST" });
  await o.look();
  expect(await o.said()).toEqual([`${d} sent`, `${d} accepted`]);
  expect(await o.talk()).toMatchObject([{ state: "answered", number: talk!.number }]);
});

test("an order that is taken back is another one when it is sent again; by hand each step is held against those before it", async () => {
  const o = await ordered("Orders taken back", "Plover Lane Boards");
  await o.release();
  await o.send();
  expect(await o.said()).toHaveLength(2);
  const [first] = await o.talk();
  const today = server.deps.today();
  const d = today.slice(5);
  expect((await o.step("withdrawn", today, "other files")).status).toBe(201);
  await server.figures();
  expect((await o.step("paid", today)).body).toMatchObject({ message: "The order was taken back." });
  expect((await o.send()).status).toBe(202);
  // its question belongs to the new order and is asked anew
  expect(await o.said()).toEqual([`${d} sent`, `${d} asked`, `${d} withdrawn`, `${d} sent`, `${d} asked`]);
  expect((await o.talk())[0]!.number).not.toBe(first!.number);

  const bad = { order: "boards 11111111-1111-4111-8111-111111111111", state: "sent", on: "2026-11-25" };
  expect((await o.v.post(`/api/runs/${o.id}/order-steps`, bad)).status).toBe(404);
  expect((await o.step("lost")).status).toBe(422);
  const paid = await o.step("accepted", today);
  const undone = await o.v.post(`/api/changes/${paid.headers.get("X-Change")}/undo`);
  expect(undone.status).toBe(200);
  expect(await o.said()).toHaveLength(5);
});

test("what a house asked when it quoted, and was answered, it does not ask again of the order; a question of its own stands", async () => {
  const o = await ordered("Orders answered before", "Plover Lane Boards");
  await o.v.post(`/api/runs/${o.id}/ask-houses`, { start: rollUp((await o.read()).document).start });
  await server.figures();
  const quote = (await o.read()).document.quotes.find((q) => q.house === o.houseId)!;
  expect(quote.question).toMatch(/^Silkscreen letters/);
  const path = `/api/runs/${o.id}/quotes/${o.houseId}/answer`;
  expect((await o.v.call("PUT", path, { answer: "As they are." })).status).toBe(204);
  const { version } = await o.read();
  const accepted = Object.fromEntries(
    rollUp((await o.read()).document).blockers.map((b) => [b.key, "known"]),
  );
  await o.v.patch(`/api/runs/${o.id}`, { version, accepted });
  await o.release();
  await o.send();
  const d = server.deps.today().slice(5);
  expect(await o.said()).toEqual([`${d} sent`, `${d} accepted`]);
});

test("what is written down while the house is being asked reaches it all the same; a parcel that came ends the talk", async () => {
  const o = await ordered("Orders overlapping", "Gannet & Daughters");
  await o.release();
  await o.send();
  expect((await o.said()).map((s) => s.split(" ")[1])).toEqual(["sent", "accepted"]);
  const today = server.deps.today();
  const control = (query: string) =>
    fetch(`${server.deps.config.standInsUrl}/control?${query}`, { method: "POST" });
  await control("latencyMs=700&day=2027-01-15");
  const asking = async () => (await o.talk())[0]!.state === "asking";
  await o.look();
  for (let i = 0; i < 100 && !(await asking()); i++) await new Promise((done) => setTimeout(done, 20));
  expect(await asking()).toBe(true);
  expect((await o.step("paid", today)).status).toBe(201);
  const after = await o.said();
  await control("latencyMs=0&day=2026-11-24");
  expect(after.map((s) => s.split(" ")[1])).toEqual(["sent", "accepted", "paid", "made", "shipped"]);

  const due = async (run: string) =>
    (
      await server.owner.query(
        "select count(*)::int as n from order_due as d join order_ask as a on a.id = d.ask_id where a.run_id = $1",
        [run],
      )
    ).rows[0].n;
  expect(await due(o.id)).toBe(0);
  const other = await ordered("Orders that came", "Gannet & Daughters");
  await other.release();
  await other.send();
  await other.said();
  // it waits for the money, and is asked again after a while
  expect(await due(other.id)).toBe(1);
  const item = (await other.read()).document.boards[0]!.id!;
  await other.v.post(`/api/runs/${other.id}/receipts`, {
    order: other.order,
    arrivedOn: today,
    items: [{ item, qty: 10 }],
  });
  await other.look();
  await other.said();
  expect(await due(other.id)).toBe(0);
});

test("what is written down in the very moment in which an answer is kept is told to the house too", async () => {
  const o = await ordered("Orders at once", "Gannet & Daughters");
  await o.release();
  await o.send();
  await o.said();
  const control = (query: string) =>
    fetch(`${server.deps.config.standInsUrl}/control?${query}`, { method: "POST" });
  await control("latencyMs=400&day=2027-01-15");
  const holder = await server.owner.connect();
  try {
    await o.look();
    await until(async () => (await o.talk())[0]!.state === "asking", "asked");
    // as the route does it: the run is held, the step written, the order due again
    await holder.query("begin");
    await holder.query("select set_config('app.change', 'off', true)");
    await holder.query("select id from run where id = $1 for update", [o.id]);
    await holder.query(
      `insert into order_step (workshop_id, run_id, order_key, label, state, on_day, words, person)
       select workshop_id, id, $2, 'x', 'paid', '2026-11-25', '', 'me' from run where id = $1`,
      [o.id, o.order],
    );
    await holder.query(
      "update order_due set next_at = clock_timestamp() where ask_id in (select id from order_ask where run_id = $1)",
      [o.id],
    );
    await until(async () => {
      const { rows } = await server.owner.query<{ n: number }>(
        "select count(*)::int as n from pg_stat_activity where datname = current_database() and wait_event_type = 'Lock'",
      );
      return rows[0]!.n > 0;
    }, "the answer waits to be kept");
    await holder.query("commit");
  } finally {
    await holder.query("rollback");
    holder.release();
  }
  const after = await o.said();
  await control("latencyMs=0&day=2026-11-24");
  expect(after.map((s) => s.split(" ")[1])).toEqual(["sent", "accepted", "paid", "made", "shipped"]);
});

test("a step that was written down by hand is taken out, and the history says which", async () => {
  const o = await ordered("Orders by hand", "Ninefold Circuit Co-op");
  await o.release();
  expect((await o.step("sent")).status).toBe(201);
  const { id } = (await o.step("accepted")).body as { id: string };
  expect((await o.v.call("DELETE", `/api/order-steps/${id}`)).status).toBe(204);
  expect(await o.said()).toEqual(["11-25 sent"]);
  const { changes } = (await o.v.get(`/api/history?run=${o.id}`)).body as HistoryAnswer;
  expect(changes.slice(0, 3).map((c) => c.sentence)).toEqual([
    "order at Ninefold Circuit Co-op: “files accepted” is taken out",
    "order at Ninefold Circuit Co-op: files accepted",
    "order at Ninefold Circuit Co-op: files sent",
  ]);
});
