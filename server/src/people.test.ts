import { afterAll, beforeAll, beforeEach, expect, test } from "@jest/globals";
import type { AuditRow, PeopleAnswer, RunAnswer, SessionRow } from "@kobbin/contract";
import { ACCESS, routeKeys, routers } from "@kobbin/server";
import { startServer, strangerFiles, type TestServer, Visitor } from "../test/kit.ts";

let server: TestServer;
beforeAll(async () => {
  server = await startServer();
}, 60_000);
afterAll(() => server.close(), 30_000);

const PASSWORD = "a long password";
async function invite(owner: Visitor, name: string, role: "owner" | "bench"): Promise<Visitor> {
  const { token } = (await owner.post("/api/invitations", { role })).body as { token: string };
  const v = new Visitor(server);
  expect((await v.post(`/api/invited/${token}`, { email: name, password: PASSWORD })).status).toBe(204);
  return v;
}

let shops = 0;
/** A shop with one of everything, an owner and a member of the bench. */
async function fixture() {
  const owner = new Visitor(server);
  const name = `roles ${shops++}`;
  await owner.startShop(name);
  const bench = await invite(owner, `${name} bench`, "bench");
  const kept = (await owner.drop(strangerFiles())).body as { revisionId: string; boardId: string };
  const { id: run } = (
    await owner.post("/api/runs", { revisionId: kept.revisionId, name: "one", goodBoards: 5 })
  ).body as { id: string };
  const { document } = (await owner.get(`/api/runs/${run}`)).body as RunAnswer;
  const line = document.lines[0]!.id;
  const supplier = document.suppliers[0]!.id;
  const offerBody = {
    supplierId: supplier,
    stock: 500,
    currency: "EUR",
    breaks: [{ qty: 1, price: "0.05" }],
  };
  const { id: offer } = (await owner.post(`/api/lines/${line}/offers`, offerBody)).body as { id: string };
  const { id: remark } = (await bench.post(`/api/runs/${run}/remarks`, { stage: "parts", text: "hm" }))
    .body as {
    id: string;
  };
  const change = (await owner.patch(`/api/lines/${line}`, { maker: "M" })).headers.get("X-Change")!;
  const { id: invitation, token } = (await owner.post("/api/invitations", { role: "bench" })).body as {
    id: string;
    token: string;
  };
  const people = (await owner.get("/api/people")).body as PeopleAnswer;
  const [session] = (await owner.get("/api/sessions")).body as SessionRow[];
  const shopId = ((await owner.get("/api/session")).body as { shop: { id: string } }).shop.id;
  const { ids: parts } = (await owner.post("/api/parts", { parts: [{ mpn: "LIB-1" }] })).body as {
    ids: string[];
  };
  const lotBody = { mpn: "LIB-1", qty: 20, currency: "EUR" };
  const { id: lot } = (await owner.post("/api/lots", lotBody)).body as { id: string };
  const sumBody = { kind: "lamp", given: { supply: "5 V" } };
  const { id: sum } = (await owner.post(`/api/revisions/${kept.revisionId}/sums`, sumBody)).body as {
    id: string;
  };
  const { id: variant } = (await owner.post(`/api/revisions/${kept.revisionId}/variants`, { name: "first" }))
    .body as { id: string };
  const ids: Record<string, string> = {
    runs: run,
    sums: sum,
    variants: variant,
    parts: parts[0]!,
    lots: lot,
    suppliers: supplier,
    lines: line,
    houses: document.house!.id,
    boards: kept.boardId,
    revisions: kept.revisionId,
    offers: offer,
    remarks: remark,
    changes: change,
    invitations: invitation,
    people: people.members.find((m) => !m.isMe)!.id,
    sessions: session!.id,
    invited: token,
  };
  const bodies: Record<string, unknown> = {
    "POST /api/session": { email: name, password: PASSWORD },
    "POST /api/shops": {
      name: "x",
      currency: "EUR",
      hourlyRate: "1",
      email: `${name} new`,
      password: PASSWORD,
    },
    "POST /api/invited/:token": { email: `${name} joins`, password: PASSWORD },
    "POST /api/session/password": { old: PASSWORD, fresh: "another long one" },
    "POST /api/session/shop": { shopId },
    "PUT /api/presence": { page: "11111111-1111-4111-8111-111111111111", place: "" },
    "POST /api/runs/:id/remarks": { stage: "parts", text: "x" },
    "PATCH /api/shop": { name: "renamed" },
    "PATCH /api/people/:id": { role: "bench" },
    "POST /api/invitations": { role: "bench" },
    "POST /api/boards/:id/corrections": { roles: {} },
    "POST /api/revisions/:id/boards": namedForm("second"),
    "PATCH /api/boards/:id": { perProduct: 2 },
    "POST /api/runs": { revisionId: kept.revisionId, name: "two", goodBoards: 2 },
    "PATCH /api/runs/:id": { version: 1, goodBoards: 6 },
    "PUT /api/runs/:id/quotes": {
      houseId: document.house!.id,
      kind: "fab",
      total: "1",
      currency: "EUR",
      days: 1,
    },
    "POST /api/revisions/:id/lines": { valueText: "screw" },
    "POST /api/revisions/:id/sums": sumBody,
    "PATCH /api/sums/:id": { wanted: "8 mA" },
    "POST /api/revisions/:id/variants": { name: "second" },
    "PATCH /api/variants/:id": { overrides: { [line]: { dnp: true } } },
    "PATCH /api/lines/:id": { maker: "N" },
    "PUT /api/columns": { source: "a|b", columns: { 0: "refs" } },
    "PUT /api/revisions/:id/lines": { lines: [{ valueText: "screw" }] },
    "PATCH /api/revisions/:id/lines": { lines: [{ id: line, maker: "O" }] },
    "POST /api/lines/:id/merge": { others: [document.lines[0]!.id] },
    "POST /api/suppliers": { name: "S", currency: "EUR", shipping: "1", daysMin: 1, daysMax: 2 },
    "POST /api/lines/:id/offers": offerBody,
    "POST /api/runs/:id/quotation": {
      supplierId: supplier,
      currency: "EUR",
      offers: [{ lineId: line, stock: 5, breaks: [{ qty: 1, price: "1" }] }],
    },
    "PATCH /api/suppliers/:id": { version: 1, handling: "2" },
    "POST /api/parts": { parts: [{ mpn: "LIB-2" }] },
    "PATCH /api/parts/:id": { maker: "N" },
    "PUT /api/alternates": { original: "number LIB-9", partId: parts[0], state: "proposed" },
    "POST /api/lots": lotBody,
    "PATCH /api/lots/:id": { version: 1, place: "drawer" },
    "PUT /api/runs/:id/reservations": { lotId: lot, qty: 5 },
    "POST /api/houses": { copyOf: document.house!.id, name: "mine" },
    "PATCH /api/houses/:id": document.house,
    "POST /api/changes/:id/undo": {},
  };
  return { owner, bench, ids, bodies, houseId: document.house!.id };
}

function namedForm(name: string): FormData {
  const form = new FormData();
  form.set("name", name);
  return form;
}

/** Routes that name a thing of the shop by its id: to another shop it is not there. */
const namesAThing = (path: string) => /:id|:house/.test(path) && !path.startsWith("/api/sessions");

test("the table names every route, and no route that is not there", () => {
  expect([...new Set(routeKeys(routers(server.deps)))].sort()).toEqual(Object.keys(ACCESS).sort());
});

let shared: Awaited<ReturnType<typeof fixture>> | undefined;
let stranger: Visitor;
test.each(Object.entries(ACCESS))(
  "%s is for: %s",
  async (key, who) => {
    const [method, path] = key.split(" ") as [string, string];
    const endsSomething =
      method === "DELETE" ||
      key === "PUT /api/revisions/:id/lines" ||
      /release|undo|redo|reset|restore|session|invited|people/.test(path);
    shared ??= await fixture();
    if (!stranger) {
      stranger = new Visitor(server);
      await stranger.startShop("roles stranger");
    }
    const { owner, bench, ids, bodies, houseId } = endsSomething ? await fixture() : shared;
    const [, , resource] = path.split("/");
    const at = path
      .replace(/:id|:token/, ids[resource!] ?? "x")
      .replace(":house", houseId)
      .replace(":kind", "fab");
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
    if (who === "anyone")
      expect([401, 403]).not.toContain(key === "POST /api/session/demo" ? 200 : anonymous);
    else expect(anonymous).toBe(401);
    if (who === "anyone") return;
    if (method !== "GET") {
      expect(await call(owner, { Origin: "http://elsewhere.example" })).toBe(403);
      expect(await call(owner, { Origin: "" })).toBe(403);
    }
    if (namesAThing(path)) expect(await call(stranger)).toBe(404);
    const atBench = await call(bench);
    if (who === "owner") expect(atBench).toBe(403);
    else if (key === "DELETE /api/sessions/:id" || /package|manifest/.test(path)) expect(atBench).toBe(404);
    else expect(atBench).toBeLessThan(300);
    // what the bench has just removed is gone for the owner
    if (key === "DELETE /api/remarks/:id") return;
    const atOwner = await call(owner);
    if (path === "/api/demo/reset") expect(atOwner).toBe(403);
    else if (["/api/restore", "/api/products", "/api/revisions/:id/boards"].includes(path))
      expect(atOwner).toBe(422);
    // a product's only board stays
    else if (key === "DELETE /api/boards/:id") expect(atOwner).toBe(403);
    else if (path === "/api/runs/:id/redo" || /package|manifest/.test(path)) expect(atOwner).toBe(404);
    else expect([key, atOwner < 300]).toEqual([key, true]);
  },
  60_000,
);

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

  const bench = await invite(owner, "keys bench", "bench");
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
  const { owner, ids } = await fixture();
  const who = ((await owner.get("/api/session")).body as { person: string }).person;
  await new Visitor(server).post("/api/session", { email: who, password: "a wrong guess" });
  expect((await owner.post(`/api/runs/${ids.runs}/release`)).status).toBe(201);
  const audit = ((await owner.get("/api/audit")).body as AuditRow[]).map((a) => a.what);
  expect(audit).toEqual(expect.arrayContaining(["was refused: wrong password", "released Thing one"]));
  await expect(server.deps.pool.query("delete from audit")).rejects.toThrow(/permission denied/);
  await expect(server.deps.pool.query("update audit set what = ''")).rejects.toThrow(/permission denied/);
});

test("the bench removes its own remark, not an owner's", async () => {
  const { owner, bench, ids } = await fixture();
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
}, 60_000);

test("one person who asks too fast is slowed, the others are not", async () => {
  const [fast, calm] = [new Visitor(server), new Visitor(server)];
  await fast.startShop("Fast");
  await calm.startShop("Calm");
  const answers = await Promise.all(
    Array.from({ length: 220 }, () =>
      fast.call("PUT", "/api/presence", { page: "11111111-1111-4111-8111-111111111111", place: "" }),
    ),
  );
  expect(answers.some((a) => a.status === 429)).toBe(true);
  expect(answers.find((a) => a.status === 429)!.headers.get("Retry-After")).toBe("60");
  expect((await calm.patch("/api/shop", { name: "Calm still" })).status).toBe(200);
}, 60_000);
