import { randomBytes } from "node:crypto";
import { afterAll, beforeAll, beforeEach, expect, test } from "@jest/globals";
import type { AuditRow, PeopleAnswer, SessionRow } from "@kobbin/contract";
import { ACCESS, routeKeys, routers, type Who } from "@kobbin/server";
import { expectKept } from "../../../../core/test/kept.ts";
import { copiedFixture, fixture, invite, PASSWORD, type Peopled } from "../../../test/fixture.ts";
import { startServer, type TestServer, Visitor } from "../../../test/kit.ts";

let server: TestServer;
/** The database that is copied. */
const COPIED = `roles_${randomBytes(6).toString("hex")}`;
beforeAll(async () => {
  server = await startServer();
});
afterAll(async () => {
  await shared?.server.close();
  await spare?.server.close();
  await server.owner.query(`drop database if exists ${COPIED} with (force)`);
  await server.close();
});

/** Routes that name a thing of the shop by its id: to another shop it is not there. */
const namesAThing = (path: string) => /:id|:house/.test(path) && !path.startsWith("/api/sessions");

test("the table names every route, and no route that is not there", () => {
  expect([...new Set(routeKeys(routers(server.deps)))].sort()).toEqual(Object.keys(ACCESS).sort());
});

/** What each route answered, to whom. */
const answered = new Map<string, Record<string, number>>();
let shared: Peopled | undefined;
/** Of which one thing after the other is removed, none that another needs. */
let spare: Peopled | undefined;
/** Routes after which the others would find a session ended, a run frozen or the board gone: each has a shop of its own. */
const LEAVES_ANOTHER_SHOP = [
  "DELETE /api/session",
  "POST /api/session/password",
  "POST /api/session/shop",
  "DELETE /api/sessions/:id",
  "PATCH /api/people/:id",
  "DELETE /api/people/:id",
  "POST /api/changes/:id/undo",
  "POST /api/runs/:id/undo",
  "POST /api/runs/:id/redo",
  "POST /api/runs/:id/release",
  "PUT /api/runs/:id/closing",
  "PUT /api/revisions/:id/lines",
  "DELETE /api/lines/:id",
  "DELETE /api/boards/:id",
  "DELETE /api/runs/:id",
  "POST /api/restore",
];
let open: (() => Promise<Peopled>) | undefined;
test.each(Object.entries(ACCESS))("%s is for: %s", async (key, who) => {
  open ??= await copiedFixture(COPIED);
  const isAlone = LEAVES_ANOTHER_SHOP.includes(key);
  shared ??= await open();
  if (key.startsWith("DELETE ")) spare ??= await open();
  const at = isAlone ? await open() : key.startsWith("DELETE ") ? spare! : shared;
  try {
    await expectFor(key, who, at);
  } finally {
    if (isAlone) await at.server.close();
  }
});

/** Everybody asks a route, and gets what they may. */
async function expectFor(
  key: string,
  who: Who,
  { server, owner, bench, stranger, ids, releasedRuns, bodies, houseId }: Peopled,
): Promise<void> {
  const [method, path] = key.split(" ") as [string, string];
  const [, , resource] = path.split("/");
  const at = path
    .replace(/:id|:token/, releasedRuns[key] ?? ids[resource!] ?? "x")
    .replace(":house", houseId)
    .replace(":kind", "fab");
  const said: Record<string, number> = {};
  answered.set(key, said);
  const call = async (v: Visitor, headers: Record<string, string> = {}) => {
    if (path === "/api/live") {
      const r = await v.stream(`${at}?page=x`);
      await r.body!.cancel();
      return r.status;
    }
    const body = path === "/api/restore" || path === "/api/products" ? new FormData() : bodies[key];
    return (await v.call(method, at, method === "GET" ? undefined : body, headers)).status;
  };
  const anonymous = await call(new Visitor(server));
  said.anonymous = anonymous;
  if (who === "anyone") expect([401, 403]).not.toContain(key === "POST /api/session/demo" ? 200 : anonymous);
  else expect(anonymous).toBe(401);
  if (who === "anyone") return;
  if (method !== "GET") {
    expect(await call(owner, { Origin: "http://elsewhere.example" })).toBe(403);
    expect(await call(owner, { Origin: "" })).toBe(403);
  }
  if (namesAThing(path)) expect(await call(stranger)).toBe(404);
  const atBench = await call(bench);
  said.bench = atBench;
  if (who === "owner") expect(atBench).toBe(403);
  else if (key === "DELETE /api/sessions/:id" || /package|manifest|redo/.test(path))
    expect(atBench).toBe(404);
  else expect(atBench).toBeLessThan(300);
  // what the bench has just removed is gone for the owner
  if (
    /^DELETE \/api\/(remarks|receipts|bare-tests|measured|kept|tries|defects|photos|loads|reworks|outs|work)|changes\/:id\/undo/.test(
      key,
    )
  )
    return;
  const atOwner = await call(owner);
  said.owner = atOwner;
  if (path === "/api/demo/reset") expect(atOwner).toBe(403);
  else if (["/api/restore", "/api/products", "/api/revisions/:id/boards"].includes(path))
    expect(atOwner).toBe(422);
  // a product’s only board stays, and what is not released is not taken back
  else if (key === "DELETE /api/boards/:id" || key === "DELETE /api/runs/:id/release")
    expect(atOwner).toBe(403);
  else if (path === "/api/runs/:id/redo" || /package|manifest|answer|forget/.test(path))
    expect(atOwner).toBe(404);
  else expect([key, atOwner < 300]).toEqual([key, true]);
}

const LOOK =
  "a code that is another than it was, for whom; a route that is new stands with all of its people";
test("every route answers with its own code", () => {
  const lines = [...answered].map(
    ([key, said]) =>
      `${key}: ${Object.entries(said)
        .map((who) => who.join(" "))
        .join(", ")}`,
  );
  expectKept(new URL("golden/answers.txt", import.meta.url), LOOK, lines);
});

beforeEach(() => server.owner.query("delete from tries"));

test("an invitation opens once, says for what, and an account that is there keeps its password", async () => {
  const owner = new Visitor(server);
  await owner.startShop("Inviting");
  const made = (await owner.post("/api/invitations", { role: "bench", note: "for Ada" })).body as {
    token: string;
  };
  const guest = new Visitor(server);
  expect((await guest.get(`/api/invited/${made.token}`)).body).toEqual({ shop: "Inviting", role: "bench" });
  expect((await guest.get("/api/invited/wrong")).status).toBe(404);
  const wrong = await guest.post(`/api/invited/${made.token}`, {
    email: "inviting",
    password: "not the password",
  });
  expect(wrong.status).toBe(401);
  expect((await guest.post(`/api/invited/${made.token}`, { email: "Ada", password: "short" })).status).toBe(
    422,
  );
  expect((await guest.post(`/api/invited/${made.token}`, { email: "Ada", password: PASSWORD })).status).toBe(
    204,
  );
  expect((await guest.get("/api/session")).body).toMatchObject({
    person: "ada",
    role: "bench",
    shop: { name: "Inviting" },
  });
  expect(
    (await new Visitor(server).post(`/api/invited/${made.token}`, { email: "Bob", password: PASSWORD }))
      .status,
  ).toBe(404);
  // the same person in a second shop, and back
  const second = new Visitor(server);
  await second.startShop("Second");
  const link = (await second.post("/api/invitations", { role: "owner" })).body as { token: string };
  const again = new Visitor(server);
  await again.post(`/api/invited/${link.token}`, { email: "ada", password: PASSWORD });
  const session = (await again.get("/api/session")).body as {
    shops: { id: string; name: string; role: string }[];
  };
  expect(session.shops.map((s) => [s.name, s.role])).toEqual([
    ["Inviting", "bench"],
    ["Second", "owner"],
  ]);
  expect((await again.post("/api/session/shop", { shopId: session.shops[0]!.id })).status).toBe(204);
  expect((await again.get("/api/session")).body).toMatchObject({ shop: { name: "Inviting" }, role: "bench" });
  const foreign = (await owner.get("/api/session")).body as { shop: { id: string } };
  expect((await second.post("/api/session/shop", { shopId: foreign.shop.id })).status).toBe(404);
});

test("a new password ends every other session; an ended session is out at once; so is who was taken out", async () => {
  const owner = new Visitor(server);
  await owner.startShop("Keys");
  const elsewhere = new Visitor(server);
  await elsewhere.post("/api/session", { email: "keys", password: PASSWORD });
  expect(
    (await owner.post("/api/session/password", { old: "wrong one", fresh: "a fresh password" })).status,
  ).toBe(401);
  expect(
    (await owner.post("/api/session/password", { old: PASSWORD, fresh: "a fresh password" })).status,
  ).toBe(204);
  expect([(await elsewhere.get("/api/bench")).status, (await owner.get("/api/bench")).status]).toEqual([
    401, 200,
  ]);
  await elsewhere.post("/api/session", { email: "keys", password: "a fresh password" });
  const sessions = (await owner.get("/api/sessions")).body as SessionRow[];
  expect(sessions.map((s) => s.isThis).sort()).toEqual([false, true]);
  await owner.call("DELETE", `/api/sessions/${sessions.find((s) => !s.isThis)!.id}`);
  expect((await elsewhere.get("/api/bench")).status).toBe(401);

  const bench = await invite(server, owner, "keys bench", "bench");
  const { members } = (await owner.get("/api/people")).body as PeopleAnswer;
  const me = members.find((m) => m.isMe)!;
  expect(await owner.call("DELETE", `/api/people/${me.id}`)).toMatchObject({
    status: 403,
    body: { message: "The shop would have no owner left." },
  });
  expect((await owner.patch(`/api/people/${me.id}`, { role: "bench" })).status).toBe(403);
  await owner.call("DELETE", `/api/people/${members.find((m) => !m.isMe)!.id}`);
  expect((await bench.get("/api/bench")).status).toBe(401);
  const audit = ((await owner.get("/api/audit")).body as AuditRow[]).map((a) => a.what);
  expect(audit).toEqual(
    expect.arrayContaining([
      "signed in",
      "changed the password",
      "joined as bench",
      "took keys bench out of the shop",
      "started the shop",
    ]),
  );
});

test("refused sign-ins and releases stand in the record, which nobody can change", async () => {
  const { owner, ids } = await fixture(server);
  const who = ((await owner.get("/api/session")).body as { person: string }).person;
  await new Visitor(server).post("/api/session", { email: who, password: "a wrong guess" });
  expect((await owner.post(`/api/runs/${ids.runs}/release`)).status).toBe(201);
  const audit = ((await owner.get("/api/audit")).body as AuditRow[]).map((a) => a.what);
  expect(audit).toEqual(expect.arrayContaining(["was refused: wrong password", "released Thing one"]));
  await expect(server.deps.pool.query("delete from audit")).rejects.toThrow(/permission denied/);
  await expect(server.deps.pool.query("update audit set what = ''")).rejects.toThrow(/permission denied/);
});

test("the bench removes its own remark, not an owner's", async () => {
  const { owner, bench, ids } = await fixture(server);
  const { id } = (await owner.post(`/api/runs/${ids.runs}/remarks`, { stage: "fab", text: "mine" })).body as {
    id: string;
  };
  expect((await bench.call("DELETE", `/api/remarks/${id}`)).status).toBe(403);
  expect((await bench.call("DELETE", `/api/remarks/${ids.remarks}`)).status).toBe(204);
  expect((await owner.call("DELETE", `/api/remarks/${id}`)).status).toBe(204);
});

test("where only the first owner may start a shop: from this machine, or with the code; then nobody", async () => {
  const strict = await startServer({ signUp: "first", setUpCode: "right-code", trustsProxy: true });
  try {
    const far = { "X-Forwarded-For": "203.0.113.9" };
    const body = { name: "First", currency: "EUR", hourlyRate: "1", email: "first", password: PASSWORD };
    const v = new Visitor(strict);
    expect((await v.call("GET", "/api/session", undefined, far)).body).toMatchObject({ mayStart: "code" });
    expect((await v.call("POST", "/api/shops", body, far)).status).toBe(403);
    expect((await v.call("POST", "/api/shops", { ...body, code: "wrong" }, far)).status).toBe(403);
    // a caller who claims to sit here is not believed: the proxy adds what it sees
    const claims = { "X-Forwarded-For": "127.0.0.1, 203.0.113.9" };
    expect((await v.call("POST", "/api/shops", body, claims)).status).toBe(403);
    expect((await v.call("POST", "/api/shops", { ...body, code: "right-code" }, far)).status).toBe(201);
    const late = new Visitor(strict);
    expect((await late.get("/api/session")).body).toMatchObject({ mayStart: "no" });
    expect((await late.post("/api/shops", { ...body, email: "late", code: "right-code" })).status).toBe(403);
  } finally {
    await strict.close();
  }
});
