import { randomUUID } from "node:crypto";
import { afterAll, beforeAll, expect, test } from "@jest/globals";
import { invite } from "../../test/fixture.ts";
import { startServer, type TestServer } from "../../test/kit.ts";
import { shopWithRun } from "../../test/people.ts";

let server: TestServer;
beforeAll(async () => {
  server = await startServer();
});
afterAll(() => server.closeUnentangled());

test("every kind of change is told in a sentence, taken back whole, and brought again, also after a restart", async () => {
  const { v, id, read, history, line, revisionId, boardId } = await shopWithRun(server, "Sentences");
  const { id: supplierId, name: supplierName } = (await read()).document.suppliers[0]!;
  const [firstHouse, otherHouse] = (await v.get("/api/houses")).body as { id: string; name: string }[];
  const steps: readonly [string, string, string, unknown][] = [
    ["R1: value 4k7 → 10k", "PATCH", `/api/lines/${line.id}`, { valueText: "10k" }],
    ["R1: do not place", "PATCH", `/api/lines/${line.id}`, { dnp: true }],
    ["good boards 10 → 25", "PATCH", `/api/runs/${id}`, { version: 1, goodBoards: 25 }],
    [
      `house ${firstHouse!.name} → ${otherHouse!.name}`,
      "PATCH",
      `/api/runs/${id}`,
      { version: 2, houseId: otherHouse!.id },
    ],
    [
      "finish gold, thickness 1.0",
      "PATCH",
      `/api/runs/${id}`,
      { version: 3, options: { finish: "gold", thickness: "1.0" } },
    ],
    [
      `R1 bought from ${supplierName}`,
      "PATCH",
      `/api/runs/${id}`,
      { version: 4, pins: { [line.id]: supplierId } },
    ],
    ["accepted: seen", "PATCH", `/api/runs/${id}`, { version: 5, accepted: { "some note": "seen" } }],
    ["line screw added", "POST", `/api/revisions/${revisionId}/lines`, { valueText: "screw", qty: 4 }],
    [
      `R1: offer of ${supplierName} typed`,
      "POST",
      `/api/lines/${line.id}/offers`,
      {
        supplierId,
        stock: 5,
        currency: "EUR",
        breaks: [
          { qty: 1, price: "0.050001" },
          { qty: 10, price: "0.04" },
        ],
      },
    ],
    [
      "remark: look at the diode",
      "POST",
      `/api/runs/${id}/remarks`,
      { stage: "parts", text: "look at the diode" },
    ],
    [
      `quotation of ${firstHouse!.name}: 99.50 EUR, 9 days`,
      "PUT",
      `/api/runs/${id}/quotes`,
      { houseId: firstHouse!.id, kind: "fab", total: "99.50", currency: "EUR", days: 9 },
    ],
    [
      "corrected how its files are read",
      "POST",
      `/api/boards/${boardId}/corrections`,
      { roles: { "mine.gtp": { role: "drawing" } } },
    ],
    ["line R1 removed", "DELETE", `/api/lines/${line.id}`, undefined],
  ];
  const figure = async () => {
    const { document, remarks } = await read();
    const { today: _, ...rest } = document;
    return { rest: { ...rest, houses: [] }, remarks: remarks.map((r) => r.text) };
  };
  const done: { id: string; before: unknown; after: unknown }[] = [];
  for (const [sentence, method, path, body] of steps) {
    const before = await figure();
    const r = await v.call(method, path, body);
    expect([sentence, r.status < 300]).toEqual([sentence, true]);
    const [newest] = await history();
    expect(newest!.sentence.replace("Thing A: ", "")).toBe(sentence);
    expect(newest!.id).toBe(r.headers.get("X-Change"));
    done.push({ id: newest!.id, before, after: await figure() });
  }
  await server.restart();
  const undone: { by: string; before: unknown; after: unknown }[] = [];
  for (const d of [...done].reverse()) {
    const r = await v.post(`/api/changes/${d.id}/undo`);
    expect([d.id, r.status]).toEqual([d.id, 200]);
    expect(await figure()).toEqual(d.before);
    undone.push({ by: (r.body as { id: string }).id, ...d });
  }
  for (const u of undone.reverse()) {
    expect((await v.post(`/api/changes/${u.by}/undo`)).status).toBe(200);
    expect(await figure()).toEqual(u.after);
  }
  expect((await history()).filter((c) => c.state === "stands")).toHaveLength(steps.length + 2);
});

test("law: whatever was done, taken back step by step it is as before each; brought again, as after each", async () => {
  const { v, id, revisionId, read } = await shopWithRun(server, "Law");
  const houses = ((await v.get("/api/houses")).body as { id: string }[]).map((h) => h.id);
  let seed = 20261125;
  const below = (n: number) => {
    seed = (Math.imul(seed, 1103515245) + 12345) & 0x7fffffff;
    return (seed >> 8) % n;
  };
  const pick = <T>(list: readonly T[]): T => list[below(list.length)]!;
  const seen = async () => {
    const { document, remarks } = await read();
    const { today: _, ...rest } = document;
    return { rest, remarks: remarks.map((r) => [r.stage, r.text, r.at]) };
  };
  const step = async (i: number) => {
    const { document: d, version, remarks } = await read();
    const line = d.lines.length > 0 ? pick(d.lines).id : undefined;
    const supplierId = pick(d.suppliers).id;
    const options = [
      () =>
        v.patch(`/api/runs/${id}`, {
          version,
          goodBoards: 1 + below(500),
          confidence: 0.5 + below(40) / 100,
        }),
      () =>
        v.patch(`/api/runs/${id}`, {
          version,
          houseId: pick([...houses, null]),
          options: { finish: `f${below(4)}` },
        }),
      () =>
        v.patch(`/api/runs/${id}`, {
          version,
          accepted: below(2) ? {} : { [`n${below(3)}`]: `because ${i}` },
        }),
      () => v.patch(`/api/runs/${id}`, { version, pins: line && below(2) ? { [line]: supplierId } : {} }),
      () =>
        v.post(
          `/api/revisions/${revisionId}/lines`,
          Array.from({ length: 1 + below(3) }, (_, k) => ({ valueText: `v${i}.${k}`, qty: 1 + below(9) })),
        ),
      () =>
        v.call("PUT", `/api/runs/${id}/quotes`, {
          houseId: pick(houses),
          kind: "fab",
          total: `${below(900)}.5`,
          currency: "EUR",
          days: below(30),
        }),
      () => v.post(`/api/runs/${id}/remarks`, { stage: "fab", text: `remark ${i}` }),
      ...(remarks.length > 0 ? [() => v.call("DELETE", `/api/remarks/${pick(remarks).id}`)] : []),
      ...(d.quotes?.length
        ? [() => v.call("DELETE", `/api/runs/${id}/quotes/${pick(d.quotes!).house}/fab`)]
        : []),
      ...(d.offers.length > 0 ? [() => v.call("DELETE", `/api/offers/${pick(d.offers).id}`)] : []),
      ...(line
        ? [
            () =>
              v.patch(`/api/lines/${line}`, {
                refs: below(2) ? [] : [`R${below(99)}`],
                mpn: `P${below(5)}`,
                dnp: below(2) === 1,
              }),
            () =>
              v.post(`/api/lines/${line}/offers`, {
                supplierId,
                stock: below(999),
                currency: "EUR",
                breaks: [
                  { qty: 1, price: `0.0${below(9)}1` },
                  { qty: 10 + below(90), price: "0.01" },
                ],
              }),
            () => v.call("DELETE", `/api/lines/${line}`),
          ]
        : []),
    ];
    const r = await pick(options)();
    expect(r.status).toBeLessThan(300);
    return r.headers.get("X-Change");
  };
  const done: { change: string; before: unknown; after: unknown; back?: string }[] = [];
  let before = await seen();
  for (let i = 0; i < 50; i++) {
    const change = await step(i);
    const after = await seen();
    if (change) done.push({ change, before, after });
    before = after;
  }
  expect(done.length).toBeGreaterThan(35);
  for (const d of [...done].reverse()) {
    const r = await v.post(`/api/changes/${d.change}/undo`);
    expect([d.change, r.status]).toEqual([d.change, 200]);
    d.back = (r.body as { id: string }).id;
    expect(await seen()).toEqual(d.before);
  }
  for (const d of done) {
    expect((await v.post(`/api/changes/${d.back}/undo`)).status).toBe(200);
    expect(await seen()).toEqual(d.after);
  }
});

test("the history is of a run where one is named, of one only; what is no name of one is not asked for", async () => {
  const { v, id, revisionId } = await shopWithRun(server, "Filtered");
  const { id: other } = (await v.post("/api/runs", { revisionId, name: "two", goodBoards: 5 })).body as {
    id: string;
  };
  await v.patch(`/api/runs/${id}`, { version: 1, goodBoards: 11 });
  await v.patch(`/api/runs/${other}`, { version: 1, goodBoards: 6 });
  const says = async (query: string) =>
    ((await v.get(`/api/history${query}`)).body as { changes: { id: string; sentence: string }[] }).changes;
  const first = async (query: string) => (await says(query))[0]!.sentence;
  expect([await first(""), await first(`?run=${id}`), await first(`?run=${other}`)]).toEqual([
    "good boards 5 → 6",
    "good boards 10 → 11",
    "good boards 5 → 6",
  ]);
  expect((await says(`?run=${id}`)).some((c) => c.sentence.includes("→ 6"))).toBe(false);
  const all = await says("");
  expect((await says(`?before=${all[0]!.id}`))[0]).toEqual(all[1]);
  for (const odd of ["?run=x", `?run=${id}&run=${other}`, "?before=-1", "?before=x"])
    expect(await says(odd)).toEqual(all);
});

test("Ctrl-Z goes back through one's own changes, and forward again; what somebody else did is left", async () => {
  const { v, id, read, line } = await shopWithRun(server, "Steps");
  const other = await invite(server, v, "steps second", "owner");
  await v.patch(`/api/runs/${id}`, { version: 1, goodBoards: 11 });
  await v.patch(`/api/lines/${line.id}`, { valueText: "1k" });
  await other.patch(`/api/runs/${id}`, { version: 2, confidence: 0.8 });
  const now = async () => {
    const { document: d } = await read();
    return [d.goodBoards, d.lines[0]!.valueText, d.confidence];
  };
  expect((await v.post(`/api/runs/${id}/undo`)).body).toMatchObject({ says: "R1: value 4k7 → 1k" });
  expect(await now()).toEqual([11, "4k7", 0.8]);
  await v.post(`/api/runs/${id}/undo`);
  expect(await now()).toEqual([10, "4k7", 0.8]);
  await v.post(`/api/runs/${id}/redo`);
  await v.post(`/api/runs/${id}/redo`);
  expect(await now()).toEqual([11, "1k", 0.8]);
  expect((await v.post(`/api/runs/${id}/redo`)).body).toMatchObject({ code: "NOT_FOUND" });
});

test("taking back what somebody changed since says who and both values; forced, it is done", async () => {
  const { v, id, line, read, history } = await shopWithRun(server, "Since");
  const other = await invite(server, v, "since second", "owner");
  const first = (await v.patch(`/api/lines/${line.id}`, { valueText: "1k" })).headers.get("X-Change");
  await other.patch(`/api/lines/${line.id}`, { valueText: "2k2", maker: "Theirs" });
  const refused = await v.post(`/api/changes/${first}/undo`);
  expect(refused).toMatchObject({
    status: 409,
    body: {
      code: "STALE_VERSION",
      message: "since second changed the value of R1 in between.",
      details: { clashes: [{ field: "value", mine: "4k7", theirs: "2k2", person: "since second" }] },
    },
  });
  expect((await read()).document.lines[0]).toMatchObject({ valueText: "2k2" });
  expect((await v.post(`/api/changes/${first}/undo`, { force: true })).status).toBe(200);
  expect((await read()).document.lines[0]).toMatchObject({ valueText: "4k7", maker: "Theirs" });
  expect((await v.post(`/api/changes/${first}/undo`)).body).toMatchObject({ code: "NOT_ALLOWED" });
  expect((await history())[0]).toMatchObject({
    sentence: "taken back: R1: value 4k7 → 1k",
    state: "takes back",
  });
  // a run on which nothing else stands can go; one that something was built on cannot
  const products = await history("x=1");
  const added = products.find((c) => c.sentence.startsWith("product Thing added"))!;
  expect(added.sentence).toBe("product Thing added with 1 line of parts");
  expect((await v.post(`/api/changes/${added.id}/undo`)).body).toMatchObject({
    code: "STALE_VERSION",
    message: expect.stringContaining("“one” was built on it since"),
  });
  expect((await v.get(`/api/runs/${id}`)).status).toBe(200);
});

test("a creation that is sent again with its key is done once and answers the same", async () => {
  const { v, revisionId, read } = await shopWithRun(server, "Again");
  const key = { "X-Request-Key": randomUUID() };
  const body = { valueText: "screw", qty: 4 };
  const one = await v.call("POST", `/api/revisions/${revisionId}/lines`, body, key);
  const two = await v.call("POST", `/api/revisions/${revisionId}/lines`, body, key);
  expect([one.status, two.status]).toEqual([201, 200]);
  expect(two.headers.get("X-Change")).toBe(one.headers.get("X-Change"));
  expect((await read()).document.lines).toHaveLength(2);
  const other = { "X-Request-Key": randomUUID() };
  const both = await Promise.all(
    [1, 2, 3].map(() => v.call("POST", `/api/revisions/${revisionId}/lines`, body, other)),
  );
  expect(both.map((r) => r.status).filter((s) => s < 300).length).toBeGreaterThan(0);
  expect((await read()).document.lines).toHaveLength(3);
});

test("the database itself refuses a write that no change stands for", async () => {
  const { v, line } = await shopWithRun(server, "Unnamed");
  const { shop } = (await v.get("/api/session")).body as { shop: { id: string } };
  const app = await server.deps.pool.connect();
  try {
    await app.query("begin");
    await app.query("select set_config('app.workshop', $1, true)", [shop.id]);
    await expect(app.query("update bom_line set qty = 9 where id = $1", [line.id])).rejects.toThrow(
      /a write to bom_line outside of a named change/,
    );
  } finally {
    await app.query("rollback");
    app.release();
  }
});
