import { readdirSync } from "node:fs";
import { request, type Server } from "node:http";
import { type AddressInfo, connect } from "node:net";
import { afterAll, beforeAll, expect, test } from "@jest/globals";
import { AppError } from "@kobbin/core";
import Koa from "koa";
import { until } from "../../../test/siege.ts";
import { bytesOf, spoolFolder, type UploadLimits, withUpload } from "./upload.ts";

// the reader of forms alone, under bounds a test reaches at once
const LOW: UploadLimits = { maxBytes: 5000, maxFiles: 3, wholeMs: 60_000, idleMs: 60_000 };
let limits = LOW;
let server: Server;
let left = () => 0;
beforeAll(async () => {
  const app = new Koa();
  app.use(async (ctx) => {
    ctx.state.signed = { accountId: "a", workshopId: "w" };
    try {
      ctx.body = await withUpload(
        ctx,
        async (upload) => ({
          fields: Object.fromEntries(upload.fields),
          files: (await bytesOf(upload)).map((f) => [f.path, f.bytes.length, f.sha256.slice(0, 8)]),
        }),
        limits,
      );
    } catch (error) {
      ctx.status = 400;
      ctx.body =
        error instanceof AppError ? { code: error.code, says: error.message } : { code: String(error) };
    }
  });
  server = app.listen(0, "127.0.0.1");
  await new Promise((done) => server.once("listening", done));
  left = () => readdirSync(spoolFolder()).length;
});
afterAll(() => {
  server.closeAllConnections();
  server.close();
});

const send = async (form: FormData) => {
  const { port } = server.address() as AddressInfo;
  const r = await fetch(`http://127.0.0.1:${port}/`, { method: "POST", body: form });
  return (await r.json()) as {
    code?: string;
    says?: string;
    fields: object;
    files: [string, number, string][];
  };
};
const form = (files: Readonly<Record<string, number>>, fields: Readonly<Record<string, string>> = {}) => {
  const f = new FormData();
  for (const [k, v] of Object.entries(fields)) f.append(k, v);
  for (const [name, size] of Object.entries(files)) f.append("files", new Blob(["x".repeat(size)]), name);
  return f;
};
/** Writes a request by hand and tells the code and words of the answer. */
const bare = (type: string, body: string, isEnded: boolean) =>
  new Promise<string>((done) => {
    const socket = connect((server.address() as AddressInfo).port, "127.0.0.1");
    let heard = "";
    socket.on("data", (d) => {
      heard += d;
      if (/"code":/.test(heard)) socket.destroy();
    });
    socket.on("error", () => undefined);
    socket.on("close", () => done(/\{.*\}/.exec(heard)?.[0] ?? heard));
    socket.write(
      `POST / HTTP/1.1\r\nHost: x\r\nContent-Type: ${type}\r\nContent-Length: ${body.length + (isEnded ? 0 : 100)}\r\n\r\n${body}`,
    );
  });
const PART = (name: string, text: string) =>
  `--b\r\nContent-Disposition: form-data; name="files"; filename="${name}"\r\n\r\n${text}\r\n`;

test("files come with their clean names, sizes and hashes, words beside them; nothing stays on the disk", async () => {
  const got = await send(form({ "out/a.gtl": 3, "../b.txt": 0 }, { name: "Thing" }));
  // SHA-256 of "xxx" and of nothing
  expect(got).toEqual({
    fields: { name: "Thing" },
    files: [
      ["out/a.gtl", 3, "cd2eb083"],
      ["b.txt", 0, "e3b0c442"],
    ],
  });
  // what was spooled goes a moment after the answer
  await until(() => left() === 0, "nothing is left of an upload");
});

const TOO_LARGE = "The upload is larger than 0 MB or holds more than 3 files.";
test.each<[string, FormData, string | undefined]>([
  ["just so large", form({ a: 5000 }), undefined],
  ["a byte more", form({ a: 5001 }), TOO_LARGE],
  ["as many files as may be", form({ a: 1, b: 1, c: 1 }), undefined],
  ["one more", form({ a: 1, b: 1, c: 1, d: 1 }), TOO_LARGE],
  [
    "twenty fields",
    form({ a: 1 }, Object.fromEntries(Array.from({ length: 20 }, (_, i) => [`f${i}`, ""]))),
    undefined,
  ],
  [
    "one more field",
    form({ a: 1 }, Object.fromEntries(Array.from({ length: 21 }, (_, i) => [`f${i}`, ""]))),
    TOO_LARGE,
  ],
  ["a field of 200,000 letters", form({ a: 1 }, { f: "y".repeat(200_000) }), undefined],
  ["and of one more", form({ a: 1 }, { f: "y".repeat(200_001) }), TOO_LARGE],
  [
    "a form far beyond its files",
    form({ a: 1 }, Object.fromEntries(Array.from({ length: 6 }, (_, i) => [`f${i}`, "y".repeat(190_000)]))),
    TOO_LARGE,
  ],
])("bounds of an upload: %s", async (_, sent, says) => {
  const got = await send(sent);
  expect([got.code, got.says]).toEqual(says ? ["ARCHIVE_TOO_LARGE", says] : [undefined, undefined]);
  // what was spooled goes a moment after the answer
  await until(() => left() === 0, "nothing is left of an upload");
});

test("a form that does not say how large it is is ended while it comes, a megabyte beyond its files", async () => {
  const { port } = server.address() as AddressInfo;
  /** So many bytes in all, most of them before the first part, where nobody keeps them. */
  const sent = (bytes: number) =>
    new Promise<string>((done) => {
      const body = `\r\n${PART("a", "xxx")}--b--\r\n`;
      const req = request(
        {
          port,
          host: "127.0.0.1",
          method: "POST",
          headers: { "Content-Type": "multipart/form-data; boundary=b" },
        },
        (res) => {
          let heard = "";
          res.on("data", (d) => {
            heard += d;
          });
          res.on("end", () => done(heard));
        },
      );
      req.on("error", () => undefined);
      for (let left = bytes - body.length; left > 0; left -= 100_000)
        req.write("y".repeat(Math.min(left, 100_000)));
      req.end(body);
    });
  expect(await sent(LOW.maxBytes + 1_000_000)).toContain('"files":[["a",3,');
  expect(await sent(LOW.maxBytes + 1_000_001)).toContain(TOO_LARGE);
  // what was spooled goes a moment after the answer
  await until(() => left() === 0, "nothing is left of an upload");
});

test("what is no form, breaks off, stands still or takes too long is said, and nothing of it is kept", async () => {
  const type = "multipart/form-data; boundary=b";
  expect(await bare("text/plain", "abc", true)).toContain("no form with files");
  expect(await bare("multipart/form-data; boundary=", PART("a", "x"), true)).toContain("no form with files");
  expect(await bare(`multipart/form-data; boundary=${"b".repeat(71)}`, "x", true)).toContain(
    "no form with files",
  );
  expect(
    await bare(`multipart/form-data; boundary="${"b".repeat(70)}"`, `--${"b".repeat(70)}--\r\n`, true),
  ).toContain('"files":[]');
  expect(await bare(type, PART("a.gtl", "half"), true)).toContain("The upload broke off");
  limits = { ...LOW, idleMs: 50 };
  expect(await bare(type, PART("a.gtl", "half"), false)).toContain("stood still for 0.05 seconds");
  limits = { ...LOW, wholeMs: 50 };
  expect(await bare(type, PART("a.gtl", "half"), false)).toContain("took longer than 0.05 seconds");
  limits = LOW;
  for (let i = 0; i < 100 && left() > 0; i++) await new Promise((done) => setTimeout(done, 20));
  // what was spooled goes a moment after the answer
  await until(() => left() === 0, "nothing is left of an upload");
});
