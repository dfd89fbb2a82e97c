import { randomBytes } from "node:crypto";
import { readdirSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { expect, test } from "@jest/globals";
import type { RunAnswer } from "@kobbin/contract";
import { packZip } from "@kobbin/formats";
import { often } from "../../../../core/test/long.ts";
import { bare, raw, watchHealth } from "../../../test/attack/raw.ts";
import { shopWithRun, strangerFiles, Visitor } from "../../../test/kit.ts";
import { besieged, codeOf, ownProcess, until } from "../../../test/siege.ts";

const siege = besieged({ shopQuotaBytes: 3 * 1024 * 1024 });
const spooled = () =>
  readdirSync(tmpdir())
    .filter((d) => d.startsWith(`kobbin-spool-${process.pid}-`))
    .flatMap((d) => readdirSync(join(tmpdir(), d)));

test("an upload without boundary whose body stays open ends a request, not the server; neither do half requests", async () => {
  const p = await ownProcess();
  try {
    const v = p.visitor();
    await v.startShop("Open");
    const { host } = new URL(p.url);
    const head = (type: string, more = "") =>
      `POST /api/products HTTP/1.1\r\nHost: ${host}\r\nOrigin: http://${host}\r\nCookie: ${v.cookies()}\r\nContent-Type: ${type}\r\n${more}`;
    const open = [
      head("multipart/form-data", "Content-Length: 1000000\r\n\r\nabc"),
      head("multipart/form-data; boundary=", "Transfer-Encoding: chunked\r\n\r\n3\r\nabc\r\n"),
      head(`multipart/form-data; boundary=${"b".repeat(5000)}`, "Content-Length: 9\r\n\r\nabc"),
      head("text/plain", "Content-Length: 1000000\r\n\r\nabc"),
    ].map((bytes) => bare(p, bytes));
    await until(() => open.every((o) => /^HTTP\/1\.1 4\d\d/.test(o.heard())), "an answer to each");
    // parsers that are fed nonsense, and let go in the middle
    const b = "----x";
    for (const bytes of [
      `--${b}\r\nContent-Disposition: form-data; name="files"; filename="a"\r\n\r\nabc`,
      `--${b}\r\n\r\n\r\n--${b}--\r\n`,
      `--${b}\r\nContent-Disposition: ${"x".repeat(100_000)}\r\n\r\n`,
      `--${b}--`,
      "\r\n\r\n\r\n",
      `--${b}\r\nContent-Disposition: form-data; name="__proto__"\r\n\r\nx\r\n--${b}--\r\n`,
    ]) {
      const o = bare(
        p,
        head(`multipart/form-data; boundary=${b}`, `Content-Length: ${bytes.length + 50}\r\n\r\n${bytes}`),
      );
      await new Promise((done) => setTimeout(done, 60));
      o.end();
    }
    bare(p, `GET / HTTP/1.1\r\nHost: ${host}\r\nX: `);
    bare(p, "\u0000\u0001\u0002 nonsense\r\n\r\n");
    expect((await raw(p, "GET", "/health", { Host: host })).status).toBe(200);
    expect((await v.drop(strangerFiles())).status).toBe(201);
    expect(p.child.exitCode).toBeNull();
    for (const o of open) o.end();
  } finally {
    await p.drop();
  }
});

test("an error nobody caught fails its request, lets the others be answered, and ends the process for its watcher", async () => {
  const p = await ownProcess({
    NODE_OPTIONS: `--import ${new URL("../../../test/attack/throw-later.mjs", import.meta.url).pathname}`,
  });
  try {
    const v = p.visitor();
    await v.startShop("Uncaught");
    const slow = v.drop(strangerFiles());
    const failed = await v.call("GET", "/api/bench", undefined, { "X-Throw-Later": "yes" });
    expect([failed.status, codeOf(failed)]).toEqual([500, "DEFECT"]);
    expect((await slow).status).toBe(201);
    expect(await p.ended).toBe(70);
  } finally {
    await p.drop();
  }
});

test("texts where mappings are meant are refused before anything is written, and one shop cannot keep the rest waiting", async () => {
  const greedy = await shopWithRun(siege.server, "Greedy");
  const { v: other, id } = await shopWithRun(siege.server, "Patient");
  const boards = ((await greedy.read()) as RunAnswer).boardIds;
  const before = (await siege.server.owner.query("select count(*)::int as n from correction")).rows[0].n;
  const long = "x".repeat(1_000_000);
  const spread = await Promise.all(
    Array.from({ length: 12 }, () =>
      greedy.v.post(`/api/boards/${boards[0]}/corrections`, { roles: long, columns: long, moves: long }),
    ),
  );
  expect(new Set(spread.map((r) => r.status))).toEqual(new Set([422]));
  expect((await siege.server.owner.query("select count(*)::int as n from correction")).rows[0].n).toBe(
    before,
  );
  // a heap at once of one shop: the other is answered while they wait
  const order: string[] = [];
  const many = often(60, 200);
  const heap = Array.from({ length: many }, () =>
    greedy.v
      .post(`/api/revisions/${greedy.revisionId}/lines`, { valueText: "x" })
      .then(() => order.push("greedy")),
  );
  await other.get(`/api/runs/${id}`).then((r) => order.push(`patient ${r.status}`));
  await Promise.all(heap);
  expect(order.indexOf("patient 200")).toBeLessThan(many / 2);
});

test("small files that ask for large work end in a sentence, and the server answers others all the while", async () => {
  const v = new Visitor(siege.server);
  await v.startShop("Small files");
  const archive = (files: Record<string, string>) =>
    packZip(
      Object.entries(files).map(([path, text]) => ({ path, bytes: new TextEncoder().encode(text) })),
      new Date("2026-01-01T00:00:00Z"),
    );
  const head = "%FSLAX46Y46*%\n%MOMM*%\n%ADD10C,0.1*%\nD10*\n";
  const nested = `${head}${Array.from({ length: 50 }, (_, i) => `%SRX30Y30I${i}J${i}*%`).join("\n")}\nX0Y0D03*\nM02*\n`;
  const blocks = `${head}${Array.from({ length: 12 }, (_, i) => `%ABD${11 + i}*%\n${Array.from({ length: 30 }, () => `D${10 + i}*\nX0Y0D03*`).join("\n")}\n%AB*%`).join("\n")}\nD22*\nX0Y0D03*\nM02*\n`;
  const drops: Record<string, Record<string, Uint8Array | string>> = {
    "repeats in repeats": { "top.gtl": nested },
    "blocks in blocks": { "top.gtl": blocks },
    "many archives": Object.fromEntries(
      Array.from({ length: 150 }, (_, i) => [`${i}.zip`, archive({ [`${i}.gtl`]: "0".repeat(900_000) })]),
    ),
    "a text of separators": { "top.gtl": head, "list.csv": ",".repeat(3_000_000) },
    "thousands of names": Object.fromEntries(
      Array.from({ length: 190 }, (_, i) => [
        `${i}.zip`,
        archive(Object.fromEntries(Array.from({ length: 5 }, (_, k) => [`${i}-${k}.gtl`, "x"]))),
      ]),
    ),
  };
  const watched = watchHealth(siege.server.url);
  for (const [what, files] of Object.entries(drops)) {
    const r = await v.drop(files, { name: what });
    expect([what, r.status < 500, codeOf(r) === "DEFECT"]).toEqual([what, true, false]);
  }
  const health = await watched();
  expect(health.failed).toBe(0);
  if (process.env.ATTACK_ONE_OF)
    process.stdout.write(
      `attack: ${JSON.stringify({ "slowest /health, ms": Math.round(health.slowestMs), "times asked": health.asked })}\n`,
    );
  expect(siege.defects).toEqual([]);
}, 300_000);

test("uploads of a person are bounded, what is half open is dropped, and nothing of it stays on the disk", async () => {
  const v = new Visitor(siege.server);
  await v.startShop("Half open");
  const { host } = new URL(siege.server.url);
  const half = () =>
    bare(
      siege.server,
      `POST /api/products HTTP/1.1\r\nHost: ${host}\r\nOrigin: http://${host}\r\nCookie: ${v.cookies()}\r\nContent-Type: multipart/form-data; boundary=b\r\nContent-Length: 100000\r\n\r\n--b\r\nContent-Disposition: form-data; name="files"; filename="a.gtl"\r\n\r\nabc`,
    );
  const halves = [half(), half(), half()];
  await until(() => spooled().length >= 3, "three folders");
  const fourth = await v.drop(strangerFiles());
  expect([fourth.status, codeOf(fourth)]).toEqual([429, "TOO_MANY_TRIES"]);
  for (const h of halves) h.end();
  await until(() => spooled().length === 0, "nothing spooled");
  expect((await v.drop(strangerFiles())).status).toBe(201);
  expect(spooled()).toEqual([]);
});

test("a shop's files have so much room; beyond it a drop is refused whole, in a sentence", async () => {
  const v = new Visitor(siege.server);
  await v.startShop("Full");
  const big = () => new Uint8Array(randomBytes(1_100_000));
  const names = ["first", "second", "third"];
  const answers = [];
  for (const name of names) answers.push(await v.drop({ ...strangerFiles(), "photo.png": big() }, { name }));
  expect(answers.map((r) => r.status).slice(0, 2)).toEqual([201, 201]);
  expect([answers[2]!.status, codeOf(answers[2]!)]).toEqual([413, "SHOP_FULL"]);
  const bench = (await v.get("/api/bench")).body as { products: { name: string }[] };
  expect(bench.products.map((p) => p.name)).toEqual(["first", "second"]);
});
