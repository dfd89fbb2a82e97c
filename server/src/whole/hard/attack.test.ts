import { afterAll, beforeAll, expect, test } from "@jest/globals";
import { ACCESS } from "@kobbin/server";
import { Forged, HOSTILE } from "../../../test/attack/backups.ts";
import { ODD, placesOf, WHOLE, withOdd } from "../../../test/attack/bodies.ts";
import { raw } from "../../../test/attack/raw.ts";
import { fixture } from "../../../test/fixture.ts";
import { demoArchive, startServer, strangerFiles, type TestServer, Visitor } from "../../../test/kit.ts";

/** The short form takes one of so many; `npm run attack` takes all. */
const ONE_OF = Number(process.env.ATTACK_ONE_OF ?? 30);
const tally: Record<string, number> = {};
const count = (what: string, n = 1) => {
  tally[what] = (tally[what] ?? 0) + n;
};

let server: TestServer;
let shop: Awaited<ReturnType<typeof fixture>>;
/** Anything the server called a defect, whoever asked. */
const defects: string[] = [];
const endless = { burst: 1e9, perSecond: 1e9 };
beforeAll(async () => {
  server = await startServer(
    {},
    {
      limits: { read: endless, write: endless },
      log: (entry) => {
        if (entry.level === "error") defects.push(JSON.stringify(entry).slice(0, 400));
      },
    },
  );
  shop = await fixture(server);
});
afterAll(async () => {
  if (process.env.ATTACK_ONE_OF) process.stdout.write(`attack: ${JSON.stringify(tally)}\n`);
  await server.close();
});

const routes = Object.keys(ACCESS).map((key) => {
  const [method, path] = key.split(" ") as [string, string];
  return { key, method, path };
});
/** A route's path with the shop's own ids. */
const own = (path: string, key = "") => {
  const [, , resource] = path.split("/");
  return path
    .replace(/:id|:token/, shop.releasedRuns[key] ?? shop.ids[resource!] ?? "x")
    .replace(":house", shop.houseId)
    .replace(":kind", "fab");
};

test("no route answers under a name the server does not go by, whoever asks and whatever it is", async () => {
  const { port } = new URL(server.url);
  const cookie = shop.owner.cookies();
  const foreign = [
    "evil.example",
    `evil.example:${port}`,
    `127.0.0.1:${Number(port) + 1}`,
    "127.0.0.1",
    `localhost.evil.example:${port}`,
    `127.0.0.1.evil.example:${port}`,
    `user@127.0.0.1:${port}`,
    `127.0.0.1:${port}, evil.example`,
    `127.0.0.2:${port}`,
    `0.0.0.0:${port}`,
    `evil.example#127.0.0.1:${port}`,
  ];
  for (const [i, { method, path }] of routes.entries())
    for (const host of foreign.filter((_, k) => ONE_OF === 1 || (i + k) % 6 === 0)) {
      const headers = {
        Host: host,
        Origin: `http://${host}`,
        Cookie: cookie,
        "X-Forwarded-Host": `127.0.0.1:${port}`,
      };
      const { status } = await raw(server, method, own(path), headers);
      expect([method, path, host, status]).toEqual([method, path, host, 421]);
      count("requests under another name");
    }
  for (const host of [`127.0.0.1:${port}`, `localhost:${port}`, `LOCALHOST:${port}`, `[::1]:${port}`])
    expect((await raw(server, "GET", "/api/session", { Host: host })).status).toBe(200);
  // a page behind such a name cannot open the demo's door, start a shop or read a backup
  expect((await raw(server, "GET", "/metrics", { Host: "evil.example" })).status).toBe(421);
  expect((await raw(server, "GET", "/", { Host: "evil.example" })).status).toBe(421);
  expect((await raw(server, "GET", "/health", { Host: "evil.example" })).status).toBe(200);
});

test("no write is done for a page of another origin, however it is spelled", async () => {
  const { port, host } = new URL(server.url);
  const cookie = shop.owner.cookies();
  const foreign = [
    undefined,
    "",
    "null",
    `https://${host}`,
    `ftp://${host}`,
    `http://user@${host}`,
    `http://${host}@evil.example`,
    `http://${host}/`,
    `http://${host}.evil.example`,
    `http://localhost:${port}`,
    `http://127.0.0.1`,
    "http://evil.example",
    `http://${host}, http://${host}`,
    `http://${host}\\@evil.example`,
    "file://",
  ];
  for (const [i, { method, path, key }] of routes.entries())
    if (method !== "GET")
      for (const origin of foreign.filter((_, k) => ONE_OF === 1 || (i + k) % 8 === 0)) {
        const headers = { Host: host, Cookie: cookie, ...(origin === undefined ? {} : { Origin: origin }) };
        const { status } = await raw(server, method, own(path), headers);
        expect([key, origin, status]).toEqual([key, origin, 403]);
        count("writes from another origin");
      }
});

test("behind a proxy only the trusted one's word counts, and who is not told of is not here", async () => {
  const ask = async (trustsProxy: boolean, headers: Record<string, string>) => {
    const { clientOf } = await import("../../middleware/client.ts");
    const socket = { remoteAddress: "127.0.0.1", localPort: 80 };
    return clientOf({ req: { headers: { host: "x", ...headers }, socket } } as never, trustsProxy);
  };
  // [trusted, headers, address, here]
  const cases: [boolean, Record<string, string>, string, boolean][] = [
    [false, {}, "127.0.0.1", true],
    [false, { "x-forwarded-for": "203.0.113.9" }, "127.0.0.1", false],
    [false, { forwarded: "for=127.0.0.1" }, "127.0.0.1", false],
    [false, { via: "1.1 proxy" }, "127.0.0.1", false],
    [true, {}, "unknown", false],
    [true, { "x-forwarded-for": "" }, "unknown", false],
    [true, { "x-forwarded-for": "unknown" }, "unknown", false],
    [true, { "x-forwarded-for": "127.0.0.1:80" }, "unknown", false],
    [true, { "x-forwarded-for": "127.1" }, "unknown", false],
    [true, { "x-forwarded-for": "127.0.0.1, 203.0.113.9" }, "203.0.113.9", false],
    [true, { "x-forwarded-for": "203.0.113.9, 127.0.0.1" }, "127.0.0.1", true],
    [true, { "x-forwarded-for": "127.0.0.1, nonsense" }, "unknown", false],
  ];
  for (const [trusts, headers, address, isHere] of cases)
    expect([headers, await ask(trusts, headers)]).toEqual([
      headers,
      expect.objectContaining({ address, isHere }),
    ]);
  const https = await ask(true, { "x-forwarded-proto": "https", "x-forwarded-host": "kobbin.example" });
  expect(https.origin).toBe("https://kobbin.example");
});

/** Sends a body and judges the answer: never a defect, and where the body was wrong, said where. */
async function judge(v: Visitor, method: string, path: string, body: unknown, what: string): Promise<number> {
  const r = await v.call(method, path, body);
  const answer = r.body as { code?: string; message?: string; details?: object } | undefined;
  count("hostile bodies");
  if (r.status >= 500 && !["BUSY", "DATABASE_AWAY"].includes(answer?.code ?? ""))
    throw new Error(`${method} ${path} with ${what}: ${r.status} ${answer?.message}\n${defects.at(-1)}`);
  if (r.status === 422 && answer?.code === "OUT_OF_RANGE" && Object.keys(answer.details ?? {}).length > 0)
    count("bodies refused with the field named");
  return r.status;
}

test("every body of every route in which one value is something else is answered in words", async () => {
  let n = 0;
  for (const { key, method, path } of routes) {
    const body = shop.bodies[key];
    if (body === undefined || body instanceof FormData || /session|shops|invited|people/.test(path)) continue;
    for (const place of placesOf(body)) {
      const meant = place.reduce<unknown>((v, k) => (v as Record<string, unknown>)[k as string], body);
      for (const [what, value] of ODD) {
        // a number written as text is none, and a truth value no number: always tried
        const isOtherType =
          typeof meant === "number" &&
          (what === "a number as text" || what === "true") &&
          !path.includes("houses");
        if (n++ % ONE_OF !== 0 && !isOtherType) continue;
        const at = `${what} at ${place.join(".")}`;
        const status = await judge(shop.owner, method, own(path, key), withOdd(body, place, value), at);
        if (isOtherType) expect([key, at, status]).toEqual([key, at, 422]);
      }
    }
  }
  expect(n).toBeGreaterThan(3000);
  expect(defects).toEqual([]);
}, 600_000);

/** The most of a value a refusal names, of the same kind; undefined where it names none. */
function mostOf(meant: unknown, message: string): unknown {
  const n = (pattern: RegExp) => pattern.exec(message)?.[1];
  const longest = n(/is longer than (\d+) characters/) ?? n(/should be a text of (?:1 to|at most) (\d+)/);
  if (longest && typeof meant === "string") return "x".repeat(Number(longest));
  const most = n(/is at most ([\d.e+]+)\.$/);
  return most && typeof meant === "number" ? Number(most) : undefined;
}

test("whatever is accepted can be backed up and restored: every field with the most it takes, of every route", async () => {
  let n = 0;
  for (const { key, method, path } of routes) {
    const body = shop.bodies[key];
    if (body === undefined || body instanceof FormData || method === "GET") continue;
    if (/session|shops|invit|people|restore|demo/.test(path)) continue;
    for (const place of placesOf(body)) {
      const meant = place.reduce<unknown>((v, k) => (v as Record<string, unknown>)[k as string], body);
      const beyond = typeof meant === "string" ? "x".repeat(70_000) : 1e300;
      if (!["string", "number"].includes(typeof meant) || n++ % Math.min(ONE_OF, 6) !== 0) continue;
      const r = await shop.owner.call(method, own(path, key), withOdd(body, place, beyond));
      const said = r.body as { message?: string; details?: Record<string, string> } | undefined;
      for (const words of [said?.message ?? "", ...Object.values(said?.details ?? {})]) {
        const most = mostOf(meant, String(words));
        if (most === undefined) continue;
        const took = await judge(
          shop.owner,
          method,
          own(path, key),
          withOdd(body, place, most),
          `the most at ${place.join(".")}`,
        );
        count(took < 300 ? "fields taken with the most they hold" : "fields refused with it");
        break;
      }
    }
  }
  await server.owner.query("delete from tries");
  const backup = await shop.owner.get("/api/backup");
  expect([backup.status, backup.body]).toEqual([200, backup.body]);
  const form = new FormData();
  form.append("files", new Blob([backup.bytes as Uint8Array<ArrayBuffer>]), "backup.zip");
  const restored = await shop.owner.call("POST", "/api/restore", form);
  expect([restored.status, restored.body]).toEqual([
    201,
    expect.objectContaining({ name: expect.any(String) }),
  ]);
  // the shop itself is what the other attacks are on
  expect((await shop.owner.post("/api/session/shop", shop.bodies["POST /api/session/shop"])).status).toBe(
    204,
  );
  expect(defects).toEqual([]);
}, 600_000);

test("bodies that are nothing at all, and bodies at the door, are answered in words", async () => {
  let n = 0;
  for (const { key, method, path } of routes)
    if (method !== "GET" && shop.bodies[key] !== undefined && !(shop.bodies[key] instanceof FormData))
      for (const [what, value] of WHOLE)
        if (n++ % Math.min(ONE_OF, 8) === 0) await judge(shop.owner, method, own(path, key), value, what);
  const guest = new Visitor(server);
  for (const key of ["POST /api/session", "POST /api/invited/:token", "POST /api/shops"]) {
    const [method, path] = key.split(" ") as [string, string];
    const body = shop.bodies[key]!;
    for (const place of placesOf(body))
      for (const [what, value] of ODD)
        if (n++ % ONE_OF === 0)
          await judge(guest, method, path.replace(":token", "x"), withOdd(body, place, value), what);
  }
  expect(defects).toEqual([]);
}, 600_000);

test("addresses that are none, ids that are none, words of a search that are none", async () => {
  const paths = [
    "/%",
    "/api/%",
    "/api/runs/%",
    "/%00",
    "/assets/none.js",
    "/assets/..%2f..%2fpackage.json",
    "/api/none",
    "/..%5c..%5cx",
  ];
  const ids = [
    "%00",
    "x",
    "'",
    "00000000-0000-4000-8000-000000000000",
    "1%20or%201=1",
    "__proto__",
    "%F0%9F%92%A9",
  ];
  for (const p of paths)
    expect([p, (await raw(server, "GET", p, { Host: new URL(server.url).host })).status < 500]).toEqual([
      p,
      true,
    ]);
  for (const { method, path, key } of routes)
    if (path.includes(":"))
      for (const bad of ids.filter((_, i) => ONE_OF === 1 || i % 4 === 0)) {
        const at = path.replace(/:id|:token|:house|:kind/g, bad);
        const { status } = await shop.owner.call(method, at, method === "GET" ? undefined : shop.bodies[key]);
        expect([key, bad, status < 500]).toEqual([key, bad, true]);
        count("addresses and ids");
      }
  for (const q of ["%00", "%25", "\\", "'".repeat(300), "a ".repeat(500), "%F0%9F%92%A9", "%ED%A0%80"])
    for (const path of ["find", "parts"])
      expect([q, (await shop.owner.get(`/api/${path}?q=${q}`)).status < 500]).toEqual([q, true]);
  expect(defects).toEqual([]);
});

test("an id of another shop is nothing in this one, wherever it may be named, and nothing of it changes there", async () => {
  await server.owner.query("delete from tries");
  const other = await fixture(server);
  const all = async () => {
    const rows: Record<string, string> = {};
    for (const t of [
      "remark",
      "offer",
      "bom_line",
      "fork",
      "reservation",
      "alternate",
      "quotation",
      "variant",
      "line_sum",
    ])
      rows[t] = (
        await server.owner.query<{ h: string }>(
          // figures are counted behind what people do: they may come at any moment and are nobody's change
          `select coalesce(md5(string_agg(j::text, '' order by j::text)), '') as h
           from (select to_jsonb(t) - 'summary' as j, workshop_id from ${t} as t) as t
           where workshop_id <> (select workshop_id from run where id = $1)`,
          [shop.ids.runs],
        )
      ).rows[0]!.h;
    return rows;
  };
  const before = await all();
  const foreign = new Set(Object.values(other.ids));
  for (const { key, method, path } of routes) {
    const body = shop.bodies[key];
    if (body === undefined || body instanceof FormData || /session|shops|invited/.test(path)) continue;
    // every id in the body, one at a time, is the other shop's of the same kind
    for (const place of placesOf(body)) {
      const value = place.reduce<unknown>((v, k) => (v as Record<string, unknown>)?.[k as string], body);
      const kind = Object.entries(shop.ids).find(([, id]) => id === value)?.[0];
      const theirs = kind ? other.ids[kind] : value === shop.houseId ? other.houseId : undefined;
      // a profile carries its own id, which nobody reads
      if (!theirs || key === "PATCH /api/houses/:id" || /pins|overrides/.test(place.join())) continue;
      const r = await shop.owner.call(method, own(path, key), withOdd(body, place, theirs));
      expect([key, place.join("."), r.status]).toEqual([key, place.join("."), 404]);
      count("ids of another shop");
    }
  }
  const remark = await shop.owner.post(`/api/runs/${shop.ids.runs}/remarks`, {
    stage: "parts",
    text: "x",
    lineId: other.ids.lines,
  });
  expect(remark.status).toBe(404);
  expect(foreign.size).toBeGreaterThan(10);
  expect(await all()).toEqual(before);
});

test("a backup no Kobbin wrote is refused with what is wrong, and nothing of it is kept", async () => {
  const v = new Visitor(server);
  await v.startShop("Forging");
  const { revisionId } = (await v.drop({ "probe-tail.zip": demoArchive("probe-tail") })).body as {
    revisionId: string;
  };
  const { id } = (await v.post("/api/runs", { revisionId, name: "one", goodBoards: 10 })).body as {
    id: string;
  };
  const run = (await v.get(`/api/runs/${id}`)).body as {
    document: { lines: { id: string }[]; suppliers: { id: string }[] };
  };
  await v.post(`/api/runs/${id}/remarks`, { stage: "parts", text: "x" });
  for (const l of run.document.lines.slice(0, 2))
    await v.post(`/api/lines/${l.id}/offers`, {
      supplierId: run.document.suppliers[0]!.id,
      stock: 9,
      currency: "EUR",
      breaks: [{ qty: 1, price: "1" }],
    });
  const kept = (await v.drop(strangerFiles(), { name: "Other thing" })).body as { revisionId: string };
  const packed = (await v.post("/api/runs", { ...kept, name: "packed", goodBoards: 5 })).body as {
    id: string;
  };
  const { document } = (await v.get(`/api/runs/${packed.id}`)).body as typeof run;
  await v.post(`/api/lines/${document.lines[0]!.id}/offers`, {
    supplierId: document.suppliers[0]!.id,
    stock: 500,
    currency: "EUR",
    breaks: [{ qty: 1, price: "0.05" }],
  });
  expect((await v.post(`/api/runs/${packed.id}/release`)).status).toBe(201);
  const bytes = (await v.get("/api/backup")).bytes;
  const good = () => new Forged(bytes);
  const send = (archive: Uint8Array) => {
    const form = new FormData();
    form.append("files", new Blob([archive as Uint8Array<ArrayBuffer>]), "backup.zip");
    return v.call("POST", "/api/restore", form);
  };
  const stored = async () =>
    (
      await server.owner.query<{ n: number }>(
        "select (select count(*) from workshop)::int + (select count(*) from blob)::int as n",
      )
    ).rows[0]!.n;
  // what is forged and yet right is taken: the seal itself is no reason to refuse
  expect((await send(good().seal())).status).toBe(201);
  await server.owner.query("delete from tries");
  const before = await stored();
  for (const [what, forge] of HOSTILE) {
    const r = await send(forge(good()));
    expect([what, r.status, (r.body as { code?: string }).code]).toEqual([what, 422, "ARCHIVE_INVALID"]);
    await server.owner.query("delete from tries");
    count("hostile backups");
  }
  expect(await stored()).toBe(before);
  expect(defects).toEqual([]);
}, 300_000);
