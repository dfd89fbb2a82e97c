import { randomUUID } from "node:crypto";
import { afterAll, beforeAll, expect, test } from "@jest/globals";
import type { LiveMessage } from "@kobbin/contract";
import { invite } from "../../../test/fixture.ts";
import { startServer, type TestServer, Visitor } from "../../../test/kit.ts";
import { shopWithRun } from "../../../test/people.ts";

let server: TestServer;
beforeAll(async () => {
  server = await startServer({}, { beatMs: 50 });
});
afterAll(() => server.close());

test("two people: different fields join, also inside the choices; the same field shows both", async () => {
  const { v, id, line, read } = await shopWithRun(server, "Together");
  const other = await invite(server, v, "together second", "owner");
  const supplierId = (await read()).document.suppliers[0]!.id;
  expect(
    (await v.patch(`/api/runs/${id}`, { version: 1, goodBoards: 12, options: { finish: "gold" } })).status,
  ).toBe(200);
  expect(
    (await other.patch(`/api/runs/${id}`, { version: 1, confidence: 0.8, options: { thickness: "1.0" } }))
      .status,
  ).toBe(200);
  expect(
    (
      await other.patch(`/api/runs/${id}`, {
        version: 1,
        pins: { [line.id]: supplierId },
        accepted: { a: "x" },
      })
    ).status,
  ).toBe(200);
  expect((await v.patch(`/api/runs/${id}`, { version: 1, accepted: { b: "y" } })).status).toBe(200);
  expect((await read()).document).toMatchObject({
    goodBoards: 12,
    confidence: 0.8,
    options: { finish: "gold", thickness: "1.0" },
    choices: { pins: { [line.id]: supplierId }, accepted: { a: "x", b: "y" } },
  });
  const late = await other.patch(`/api/runs/${id}`, { version: 1, goodBoards: 99, confidence: 0.7 });
  expect(late).toMatchObject({
    status: 409,
    body: {
      details: {
        clashes: [
          { field: "good boards", mine: 99, theirs: 12, person: "together" },
          { field: "certainty", mine: 0.7, theirs: 0.8 },
        ],
      },
    },
  });
  expect((await read()).document).toMatchObject({ goodBoards: 12, confidence: 0.8 });
  // the same on both sides is no quarrel, and a request that is sent twice changes nothing the second time
  expect(
    (await v.patch(`/api/runs/${id}`, { version: 1, goodBoards: 12 })).headers.get("X-Change"),
  ).toBeNull();
  const { versions } = await read();
  expect((await v.patch(`/api/lines/${line.id}`, { version: versions[line.id], mpn: "AA-1" })).status).toBe(
    204,
  );
  expect(
    (await other.patch(`/api/lines/${line.id}`, { version: versions[line.id], maker: "Bo" })).status,
  ).toBe(204);
  expect(
    await other.patch(`/api/lines/${line.id}`, { version: versions[line.id], mpn: "BB-2" }),
  ).toMatchObject({ status: 409 });
  expect((await read()).document.lines[0]).toMatchObject({ mpn: "AA-1", maker: "Bo" });
  const house = (await read()).document.house!;
  await v.patch(`/api/houses/${house.id}`, {
    ...house,
    version: 1,
    limits: { ...house.limits, minTrackMm: 0.2 },
  });
  await other.patch(`/api/houses/${house.id}`, {
    ...house,
    version: 1,
    limits: { ...house.limits, minHoleMm: 0.4 },
  });
  expect((await read()).document.house!.limits).toMatchObject({ minTrackMm: 0.2, minHoleMm: 0.4 });
});

test("a page that goes on from its own change is not set against itself", async () => {
  const { v, id, read, line } = await shopWithRun(server, "Own page");
  const page = { "X-Page": randomUUID() };
  const drag = (body: object) => v.call("PATCH", `/api/runs/${id}`, { version: 1, ...body }, page);
  expect((await drag({ goodBoards: 11, options: { finish: "gold" } })).status).toBe(200);
  expect((await drag({ goodBoards: 12, options: { finish: "tin" } })).status).toBe(200);
  expect((await read()).document).toMatchObject({ goodBoards: 12, options: { finish: "tin" } });
  await v.call("PATCH", `/api/lines/${line.id}`, { version: 1, maker: "A" }, page);
  expect((await v.call("PATCH", `/api/lines/${line.id}`, { version: 1, maker: "B" }, page)).status).toBe(204);
  // somebody else in between is set against it
  await v.patch(`/api/runs/${id}`, { version: 3, goodBoards: 40 });
  expect((await drag({ goodBoards: 13 })).status).toBe(409);
});

test("what a page sets back to what it had fetched is set back, though its own change came in between", async () => {
  const { v, id, read } = await shopWithRun(server, "There and back");
  const { goodBoards, options } = (await read()).document;
  const page = { "X-Page": randomUUID() };
  const set = (body: object) => v.call("PATCH", `/api/runs/${id}`, { version: 1, ...body }, page);
  await set({ options: { finish: "tin" } });
  expect((await set({ goodBoards: goodBoards + 1, options: { mask: "red" } })).status).toBe(200);
  // somebody else's change of another field stays as it is
  await v.patch(`/api/runs/${id}`, { version: 3, confidence: 0.95 });
  expect((await set({ goodBoards, options: { finish: options.finish ?? "gold" } })).status).toBe(200);
  expect((await read()).document).toMatchObject({
    goodBoards,
    confidence: 0.95,
    options: { mask: "red", finish: options.finish ?? "gold" },
  });
  // and where it was somebody else who changed it, going back to what was fetched is no wish of this page's
  await v.patch(`/api/runs/${id}`, { version: 5, goodBoards: 77 });
  expect((await set({ confidence: 0.9, goodBoards: goodBoards + 1 })).status).toBe(409);
  expect((await read()).document.goodBoards).toBe(77);
});

/** Listens like an open page, until it has heard what it waits for. */
async function listen(v: Visitor, page: string) {
  const heard: LiveMessage[] = [];
  const response = await v.stream(`/api/live?page=${page}`);
  const reader = response.body!.getReader();
  const text = new TextDecoder();
  let rest = "";
  const pump = (async () => {
    for (;;) {
      const { value, done } = await reader.read().catch(() => ({ value: undefined, done: true }));
      if (done) return;
      rest += text.decode(value, { stream: true });
      const parts = rest.split("\n\n");
      rest = parts.pop()!;
      for (const p of parts) if (p.startsWith("data: ")) heard.push(JSON.parse(p.slice(6)) as LiveMessage);
    }
  })();
  const until = async (fits: (m: LiveMessage) => boolean) => {
    for (let i = 0; i < 2400; i++) {
      const found = heard.find(fits);
      if (found) return found;
      await new Promise((done) => setTimeout(done, 50));
    }
    throw new Error(`not heard; heard: ${JSON.stringify(heard)}`);
  };
  return { heard, until, close: () => reader.cancel().then(() => pump) };
}

test("an open page hears what others change, who is where, and new figures; nothing of other shops", async () => {
  const { v, id } = await shopWithRun(server, "Live");
  const other = await invite(server, v, "live second", "bench");
  const stranger = new Visitor(server);
  await stranger.startShop("Live stranger");
  const [pageA, pageB] = [randomUUID(), randomUUID()];
  const a = await listen(v, pageA);
  const s = await listen(stranger, randomUUID());
  const b = await listen(other, pageB);
  // it is there as soon as it hears, wherever it is
  await a.until(
    (m) => m.kind === "presence" && m.here.some((h) => h.person === "live second" && h.place === ""),
  );
  await other.call("PUT", "/api/presence", { page: pageB, place: `runs/${id}/parts` });
  await a.until(
    (m) =>
      m.kind === "presence" && m.here.some((h) => h.person === "live second" && h.place.endsWith("parts")),
  );
  await v.call("PATCH", `/api/runs/${id}`, { version: 1, goodBoards: 15 }, { "X-Page": pageA });
  expect(await b.until((m) => m.kind === "change")).toMatchObject({
    person: "live",
    page: pageA,
    runId: id,
    says: "good boards 10 → 15",
  });
  await b.until((m) => m.kind === "figures" && m.runId === id);
  await b.close();
  await a.until((m) => m.kind === "presence" && m.here.length === 0);
  expect(s.heard.filter((m) => m.kind !== "presence")).toEqual([]);
  await Promise.all([a.close(), s.close()]);
});

test("so many pages of one person hear at once; those that are closed make room for as many", async () => {
  // with beats as far apart as usual: forty pages that beat all the time are a load of their own
  const calm = await startServer();
  const v = new Visitor(calm);
  await v.startShop("Many pages");
  const open = () => v.stream(`/api/live?page=${randomUUID()}`);
  const several = async (n: number) => {
    const list = [];
    for (let i = 0; i < n; i++) list.push(await open());
    return list;
  };
  const hears = async () =>
    Number(/^kobbin_live_pages (\d+)/m.exec(await (await v.stream("/metrics")).text())?.[1]);
  const pages = await several(41);
  expect(pages.map((p) => p.status)).toEqual([...Array.from({ length: 40 }, () => 200), 429]);
  expect(await pages.pop()!.json()).toMatchObject({ code: "TOO_MANY_TRIES" });
  await Promise.all(pages.splice(1).map((p) => p.body!.cancel()));
  // the server hears of it a moment later
  while ((await hears()) !== 1) await new Promise((done) => setTimeout(done, 20));
  const more = await several(40);
  expect(more.map((p) => p.status)).toEqual([...Array.from({ length: 39 }, () => 200), 429]);
  await Promise.all([...pages, ...more].map((p) => p.body!.cancel()));
  await calm.close();
});

test("an open page whose session ended elsewhere is let go at the next beat; the others hear on", async () => {
  const v = new Visitor(server);
  await v.startShop("Beats");
  const other = await invite(server, v, "beats second", "bench");
  const [stays, goes] = [await v.stream("/api/live"), await other.stream("/api/live")];
  const read = async (r: Response, until: (text: string) => boolean) => {
    const reader = r.body!.getReader();
    const decoder = new TextDecoder();
    let text = "";
    for (;;) {
      const { done, value } = await reader.read();
      if (done) return "the end";
      text += decoder.decode(value, { stream: true });
      if (until(text)) return reader.cancel().then(() => "goes on");
    }
  };
  await server.owner.query(
    `update session set expires_at = now() - interval '1 second'
     where account_id = (select id from account where email = 'beats second')`,
  );
  expect(await read(goes, () => false)).toBe("the end");
  expect(await read(stays, (text) => text.split(": here").length > 4)).toBe("goes on");
});

test("while the database lets nobody on, an open page's beat waits for the one before it", async () => {
  const v = new Visitor(server);
  await v.startShop("Beats that wait");
  const page = await v.stream("/api/live");
  const lock = await server.owner.connect();
  await lock.query("begin; lock table session in access exclusive mode");
  /** Statements that wait for the lock. */
  const waiting = async () =>
    (
      await lock.query(
        "select 1 from pg_stat_activity where datname = current_database() and wait_event_type = 'Lock'",
      )
    ).rowCount;
  while ((await waiting()) === 0) await new Promise((done) => setTimeout(done, 10));
  // time for ten beats more
  await new Promise((done) => setTimeout(done, 500));
  const most = await waiting();
  await lock.query("rollback");
  lock.release();
  await page.body!.cancel();
  expect(most).toBe(1);
});
