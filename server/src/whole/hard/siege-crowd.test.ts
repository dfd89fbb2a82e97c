import { randomUUID } from "node:crypto";
import { expect, test } from "@jest/globals";
import type { RunAnswer } from "@kobbin/contract";
import { invite } from "../../../test/fixture.ts";
import { shopWithRun, strangerFiles, Visitor } from "../../../test/kit.ts";
import { besieged, codeOf } from "../../../test/siege.ts";

const siege = besieged();

test("a release packs what is: a bill, a file's reading, a house changed while it is packed is told and not released", async () => {
  const v = new Visitor(siege.server);
  await v.startShop("Packing");
  const { revisionId, boardId } = (await v.drop(strangerFiles())).body as {
    revisionId: string;
    boardId: string;
  };
  const { id } = (await v.post("/api/runs", { revisionId, name: "one", goodBoards: 5 })).body as {
    id: string;
  };
  const { document } = (await v.get(`/api/runs/${id}`)).body as RunAnswer;
  const line = document.lines[0]!.id;
  const offer = {
    supplierId: document.suppliers[0]!.id,
    stock: 500,
    currency: "EUR",
    breaks: [{ qty: 1, price: "0.05" }],
  };
  await v.post(`/api/lines/${line}/offers`, offer);
  const { compute } = siege.server.deps;
  const run = compute.run;
  const changes: Record<string, () => Promise<unknown>> = {
    "a line": () => v.patch(`/api/lines/${line}`, { description: "changed while packed" }),
    "an offer": () => v.post(`/api/lines/${line}/offers`, { ...offer, stock: 7 }),
    "a house": () => v.post("/api/houses", { copyOf: document.house!.id, name: "copied while packed" }),
    "the shop's rate": () => v.patch("/api/shop", { hourlyRate: "31.00" }),
    "how a file is read": () =>
      v.post(`/api/boards/${boardId}/corrections`, { roles: { "mine-pos.csv": { role: "unknown" } } }),
  };
  for (const [what, change] of Object.entries(changes)) {
    Object.assign(compute, {
      run: async (task: { kind: string }, shop: string) => {
        const packed = await run(task as never, shop);
        if (task.kind === "package") {
          Object.assign(compute, { run });
          await change();
        }
        return packed;
      },
    });
    const r = await v.post(`/api/runs/${id}/release`);
    Object.assign(compute, { run });
    expect([what, r.status, codeOf(r)]).toEqual([what, 409, "STALE_VERSION"]);
    expect(((await v.get(`/api/runs/${id}`)).body as RunAnswer).state).toBe("open");
  }
  // two at once: one releases it
  const both = await Promise.all([v.post(`/api/runs/${id}/release`), v.post(`/api/runs/${id}/release`)]);
  expect(both.map((r) => r.status).sort()).toEqual([201, 403]);
});

test("who is taken out of a shop hears no more of it, at once; so does who leaves for another shop", async () => {
  const owner = new Visitor(siege.server);
  await owner.startShop("Live");
  const guest = await invite(siege.server, owner, "live guest", "bench");
  const stream = await guest.stream(`/api/live?page=${randomUUID()}`);
  const reader = stream.body!.getReader();
  await reader.read();
  const people = (await owner.get("/api/people")).body as { members: { id: string; isMe: boolean }[] };
  expect((await owner.call("DELETE", `/api/people/${people.members.find((m) => !m.isMe)!.id}`)).status).toBe(
    204,
  );
  let text = "";
  for (;;) {
    const { value, done } = await reader.read();
    if (done) break;
    text += new TextDecoder().decode(value);
  }
  await owner.patch("/api/shop", { name: "Secret now" });
  expect(text).not.toContain("Secret");
  expect((await guest.get("/api/bench")).status).toBe(401);
  const { rows } = await siege.server.owner.query(
    "select 1 from session as s join account as a on a.id = s.account_id where a.email = 'live guest'",
  );
  expect(rows).toEqual([]);
});

test("two who change the same lines in opposite orders, twenty times at once: all are done or told, none is a defect", async () => {
  const { v, revisionId, read } = await shopWithRun(siege.server, "Crossing", "kiln-watch-a");
  const lines = (await read()).document.lines.map((l) => l.id).slice(0, 12);
  const change = (order: readonly string[], n: number) =>
    v.patch(`/api/revisions/${revisionId}/lines`, {
      lines: order.map((id) => ({ id, description: `by ${n}` })),
    });
  const answers = await Promise.all(
    Array.from({ length: 20 }, (_, n) => change(n % 2 === 0 ? lines : [...lines].reverse(), n)),
  );
  const bad = answers.filter((r) => r.status >= 500 && codeOf(r) !== "BUSY");
  expect(bad.map((r) => r.body)).toEqual([]);
  expect(answers.some((r) => r.status === 204)).toBe(true);
  const after = (await read()).document.lines.filter((l) => lines.includes(l.id)).map((l) => l.description);
  expect(new Set(after).size).toBe(1);
});

test("a request's key belongs to what was asked with it", async () => {
  const { v, revisionId } = await shopWithRun(siege.server, "Keys");
  const key = { "X-Request-Key": randomUUID() };
  const path = `/api/revisions/${revisionId}/lines`;
  const first = await v.call("POST", path, { valueText: "a" }, key);
  const again = await v.call("POST", path, { valueText: "a" }, key);
  expect([first.status, again.status, (again.body as { id: string }).id]).toEqual([
    201,
    200,
    (first.body as { id: string }).id,
  ]);
  for (const r of [
    await v.call("POST", path, { valueText: "b" }, key),
    await v.call(
      "POST",
      "/api/suppliers",
      { name: "S", currency: "EUR", shipping: "1", daysMin: 1, daysMax: 2 },
      key,
    ),
  ])
    expect([r.status, codeOf(r)]).toEqual([409, "KEY_REUSED"]);
});

test("guesses are counted together however many come at once: per name, per network; common passwords are refused", async () => {
  await new Visitor(siege.server).startShop("Guessed");
  await siege.server.owner.query("delete from tries");
  const v = new Visitor(siege.server);
  const burst = await Promise.all(
    Array.from({ length: 30 }, (_, i) =>
      v.post("/api/session", { email: "guessed", password: `wrong word ${i}` }),
    ),
  );
  expect(burst.filter((r) => r.status === 401)).toHaveLength(10);
  expect(burst.filter((r) => r.status === 429)).toHaveLength(20);
  // over many names from one network
  await siege.server.owner.query("delete from tries");
  const many = await Promise.all(
    Array.from({ length: 60 }, (_, i) =>
      v.post("/api/session", { email: `nobody ${i}`, password: "wrong word" }),
    ),
  );
  expect(many.filter((r) => r.status === 401)).toHaveLength(40);
  await siege.server.owner.query("delete from tries");
  for (const password of ["password123", "QWERTY12345", "aaaaaaaaaaaa", "common shop1"]) {
    const r = await new Visitor(siege.server).post("/api/shops", {
      name: "Common shop",
      currency: "EUR",
      hourlyRate: "1",
      email: "common",
      password,
    });
    expect([password, r.status, codeOf(r)]).toEqual([password, 422, "OUT_OF_RANGE"]);
  }
});
