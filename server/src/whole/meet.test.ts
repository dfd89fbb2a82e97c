import { afterAll, beforeAll, expect, test } from "@jest/globals";
import type { HistoryAnswer, RunAnswer } from "@kobbin/contract";
import { startServer, strangerFiles, type TestServer, Visitor } from "../../test/kit.ts";

let server: TestServer;
beforeAll(async () => {
  server = await startServer();
});
afterAll(() => server.close());

test("a connector and what is put onto it is kept for the product, changed, removed, brought back, and offered again", async () => {
  const v = new Visitor(server);
  await v.startShop("Meets");
  const { productId, revisionId } = (await v.drop(strangerFiles())).body as Record<string, string>;
  const { id } = (await v.post("/api/runs", { revisionId, name: "one", goodBoards: 5 })).body as {
    id: string;
  };
  const rows = async () => ((await v.get(`/api/runs/${id}`)).body as RunAnswer).document.meetings;
  const path = `/api/products/${productId}/meetings`;
  const spec = {
    ours: [{ pin: "1" }, { pin: "2", kind: "ground" }],
    theirs: [
      { pin: "1", kind: "supply", volts: 5 },
      { pin: "2", kind: "ground" },
    ],
    meant: [["1", "1"]],
    stopped: ["turned"],
    stopBy: "a key",
  };
  const made = await v.post(path, { ref: "J1", other: "Display", spec });
  expect(made.status).toBe(201);
  const { id: row } = made.body as { id: string };
  expect(await rows()).toEqual([{ id: row, ref: "J1", other: "Display", ...spec }]);
  const wide = { ref: "J1", board: "Main", other: "Display two", spec: { ...spec, stopped: [] } };
  expect((await v.call("PUT", `/api/meetings/${row}`, wide)).status).toBe(204);
  expect(await rows()).toEqual([{ id: row, ref: "J1", board: "Main", other: "Display two", ...wide.spec }]);
  // what was described is offered again: what is alike once, what differs each, with its product
  await v.post(path, { ref: "J2", other: "Plug", spec });
  await v.post(path, { ref: "J3", other: "Plug", spec: { ...spec, stopBy: "a shroud" } });
  const { meant: _, ...loose } = spec;
  await v.post(path, {
    ref: "J3",
    other: "Plug",
    spec: { ...loose, theirs: [{ pin: "1", kind: "ground" }] },
  });
  const others = (await v.get("/api/others")).body as {
    other: string;
    product: string;
    spec: { theirs: object[] };
  }[];
  const product = others[0]!.product;
  expect(product).not.toBe("");
  expect(others.map((o) => [o.other, o.product, o.spec.theirs.length]).sort()).toEqual([
    ["Display two", product, 2],
    ["Plug", product, 1],
    ["Plug", product, 2],
  ]);
  const gone = await v.call("DELETE", `/api/meetings/${row}`);
  expect((await rows())!.map((r) => r.ref)).toEqual(["J2", "J3", "J3"]);
  expect((await v.post(`/api/changes/${gone.headers.get("X-Change")}/undo`)).status).toBe(200);
  expect((await rows())!.map((r) => r.ref)).toEqual(["J1", "J2", "J3", "J3"]);
  const said = ((await v.get("/api/history")).body as HistoryAnswer).changes.map((c) => c.sentence);
  expect(said).toContain("no longer held against each other: J1 with Display two");

  for (const [bad, says] of [
    [{ ...spec, ours: [{ pin: "1" }, { pin: "1" }] }, "ours has pin 1 twice"],
    [{ ...spec, meant: [["1", "9"]] }, "meant names pin 9, which theirs has not"],
    [{ ...spec, rows: 2 }, "zigzag or ring"],
    [{ ...spec, theirs: [{ pin: "1", takesV: [5, 0] }] }, "which is nothing"],
    [{ ...spec, stopped: ["meant"] }, "stopped[0]"],
  ] as const) {
    const r = await v.post(path, { ref: "J1", other: "Bad", spec: bad });
    expect([r.status, JSON.stringify(r.body)]).toEqual([422, expect.stringContaining(says)]);
  }
  // and what is another shop's is not there
  const stranger = new Visitor(server);
  await stranger.startShop("Meets of others");
  expect((await stranger.post(path, wide)).status).toBe(404);
  expect((await stranger.call("PUT", `/api/meetings/${row}`, wide)).status).toBe(404);
  expect((await stranger.call("DELETE", `/api/meetings/${row}`)).status).toBe(404);
  expect((await stranger.get("/api/others")).body).toEqual([]);
});

test("a link that is to be set is kept for the product, changed, removed and brought back", async () => {
  const v = new Visitor(server);
  await v.startShop("Links");
  const { productId, revisionId } = (await v.drop(strangerFiles())).body as Record<string, string>;
  const { id } = (await v.post("/api/runs", { revisionId, name: "one", goodBoards: 5 })).body as {
    id: string;
  };
  const rows = async () => ((await v.get(`/api/runs/${id}`)).body as RunAnswer).document.links;
  const path = `/api/products/${productId}/links`;
  const spec = {
    positions: [
      { name: "1–2", joins: ["1", "2"], does: "on" },
      { name: "open", does: "" },
    ],
    set: "",
    variants: {},
    isCap: true,
  };
  const { id: row } = (await v.post(path, { ref: "JP1", spec })).body as { id: string };
  expect(await rows()).toEqual([{ id: row, ref: "JP1", ...spec }]);
  const set = { ref: "JP1", spec: { ...spec, set: "open" } };
  expect((await v.call("PUT", `/api/links/${row}`, set)).status).toBe(204);
  expect(await rows()).toEqual([{ id: row, ref: "JP1", ...set.spec }]);
  const gone = await v.call("DELETE", `/api/links/${row}`);
  expect(await rows()).toBeUndefined();
  expect((await v.post(`/api/changes/${gone.headers.get("X-Change")}/undo`)).status).toBe(200);
  expect(await rows()).toHaveLength(1);
  const said = ((await v.get("/api/history")).body as HistoryAnswer).changes.map((c) => c.sentence);
  expect(said).toEqual(
    expect.arrayContaining([expect.stringContaining("JP1 is to be set"), "JP1 is set to open"]),
  );
  for (const [bad, says] of [
    [{ ...spec, set: "3–4" }, "positions has none called 3–4"],
    [{ ...spec, variants: { a: "3–4" } }, "positions has none called 3–4"],
    [{ ...spec, positions: [spec.positions[1], spec.positions[1]] }, "positions has one twice"],
    [{ ...spec, positions: [] }, "fewer than 1"],
  ] as const) {
    const r = await v.post(path, { ref: "JP1", spec: bad });
    expect([r.status, JSON.stringify(r.body)]).toEqual([422, expect.stringContaining(says)]);
  }
  const stranger = new Visitor(server);
  await stranger.startShop("Links of others");
  expect((await stranger.post(path, set)).status).toBe(404);
  expect((await stranger.call("PUT", `/api/links/${row}`, set)).status).toBe(404);
});
