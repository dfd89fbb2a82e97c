import { createHash } from "node:crypto";
import { mkdtempSync, readdirSync, readFileSync, rmSync, statSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterAll, expect, test } from "@jest/globals";
import { strFromU8, strToU8, unzipSync, zipSync } from "fflate";
import { BACKUP_LIMITS, openBackup } from "./open.ts";

const own = mkdtempSync(join(tmpdir(), "kobbin-open-"));
afterAll(() => rmSync(own, { recursive: true }));
const whole = () =>
  unzipSync(
    new Uint8Array(readFileSync(new URL("../../test/golden/workshop-1.kobbin.zip", import.meta.url))),
  );
type Files = ReturnType<typeof whole>;
const put = (bytes: Uint8Array) => {
  const path = join(own, "shop.zip");
  writeFileSync(path, bytes);
  return path;
};
/** The manifest changed, and all else as it was. */
const manifest = (change: (m: Record<string, unknown>) => unknown) => (files: Files) => {
  files["manifest.json"] = strToU8(JSON.stringify(change(JSON.parse(strFromU8(files["manifest.json"]!)))));
};
const numbers = (table: string, n: number) =>
  manifest((m) => ({ ...m, tables: { ...(m.tables as object), [table]: n } }));
const FILE = Object.keys(whole()).find((n) => n.startsWith("files/"))!;
const SUM = FILE.slice(6);
const run = "tables/run.jsonl";
const rows = strFromU8(whole()[run]!).split("\n").length - 1;

test("a whole archive is opened: every table, every file under its hash, for nobody else to read", async () => {
  const opened = await openBackup(
    put(zipSync({ "folder/": new Uint8Array(), "notes.txt": strToU8("mine"), ...whole() })),
    own,
  );
  const names = Object.keys(whole()).filter((n) => n.startsWith("files/"));
  expect(opened.files.map((f) => `files/${f.sha256}`).sort()).toEqual(names.sort());
  expect(opened.manifest.files).toBe(names.length);
  for (const f of opened.files) {
    const bytes = readFileSync(f.file);
    expect([createHash("sha256").update(bytes).digest("hex"), bytes.length]).toEqual([f.sha256, f.size]);
    expect(statSync(f.file).mode & 0o777).toBe(0o600);
  }
  expect(opened.batches[0]!.table).toBe("workshop");
  expect(readdirSync(own)).not.toContain("notes.txt");
});

test.each<[string, (files: Files) => void]>([
  ["it has no manifest", (f) => delete f["manifest.json"]],
  ["it has no manifest", (f) => (f["manifest.json"] = strToU8("{"))],
  ["it is not the backup of a workshop", manifest(() => null)],
  ["it is not the backup of a workshop", manifest((m) => ({ ...m, kobbin: 1 }))],
  ["it is not the backup of a workshop", manifest((m) => ({ ...m, kobbin: "run/1" }))],
  [
    "it was written by a newer Kobbin (workshop/2, this one reads up to workshop/1)",
    manifest((m) => ({ ...m, kobbin: "workshop/2" })),
  ],
  ["in its manifest", manifest((m) => ({ ...m, files: -1 }))],
  [`it holds a table “${"x".repeat(60)}” that Kobbin does not have`, numbers("x".repeat(61), 0)],
  ["the table run is missing", (f) => delete f[run]],
  ["the table run is cut off", numbers("run", rows + 1)],
  ["the table run was altered", (f) => (f[run] = strToU8(strFromU8(f[run]!).replace("1", "2")))],
  ["original files are missing", manifest((m) => ({ ...m, files: (m.files as number) + 1 }))],
  ["original files are missing", (f) => delete f[FILE]],
  [`the file ${SUM.slice(0, 12)}… is damaged`, (f) => (f[FILE] = strToU8("something else"))],
])("what an archive cannot be taken for is said: %s", async (says, spoil) => {
  const files = whole();
  spoil(files);
  await expect(openBackup(put(zipSync(files)), own)).rejects.toMatchObject({
    code: "ARCHIVE_INVALID",
    message: expect.stringContaining(`This is no backup Kobbin can read: ${says}`),
  });
});

/** Where each entry of a directory begins. */
const listed = (b: Uint8Array) => [...b.keys()].filter((p) => b[p] === 0x50 && b[p + 1] === 0x4b && b[p + 2] === 1 && b[p + 3] === 2); // biome-ignore format: short
test("an archive that is none, is cut off, encrypted, or has an entry twice", async () => {
  const says = async (bytes: Uint8Array) =>
    openBackup(put(bytes), own).then(
      () => "",
      (e: Error) => e.message.split(": ")[1],
    );
  const good = zipSync(whole());
  expect(await says(good)).toBe("");
  expect(await says(strToU8("hello"))).toBe("it is no zip archive, or is cut off.");
  expect(await says(good.slice(0, good.length / 2))).toBe("it is no zip archive, or is cut off.");
  const locked = good.slice();
  locked[listed(locked)[0]! + 8]! |= 1;
  expect(await says(locked)).toBe("it is encrypted.");
  // the end says one entry more than there are
  const fewer = good.slice();
  fewer[fewer.length - 12]! += 1;
  expect(await says(fewer)).toBe("it is damaged, or cut off.");
  const twice = zipSync({ ...whole(), "manifest.jsoX": strToU8("{}") });
  for (const p of listed(twice))
    if (strFromU8(twice.subarray(p + 46, p + 59)) === "manifest.jsoX") twice[p + 58] = "n".charCodeAt(0);
  expect(await says(twice)).toBe("the entry manifest.json stands twice.");
});

test("an archive is held to its bounds before it is unpacked, and what just fits is taken", async () => {
  const files = whole();
  const entries = Object.keys(files).length;
  const bytes = (isFile: boolean) =>
    Object.entries(files).reduce(
      (n, [name, b]) => n + (name.startsWith("files/") === isFile ? b.length : 0),
      0,
    );
  const archive = put(zipSync(files));
  const usual = { ...BACKUP_LIMITS };
  const opens = async (limits: Partial<typeof BACKUP_LIMITS>) => {
    Object.assign(BACKUP_LIMITS, usual, limits);
    return openBackup(archive, own).then(
      () => "",
      (e: Error) => e.message.split(": ")[1],
    );
  };
  try {
    expect(await opens({ entries, tableBytes: bytes(false), fileBytes: bytes(true) })).toBe("");
    expect(await opens({ entries: entries - 1 })).toBe("it holds too many entries.");
    expect(await opens({ tableBytes: bytes(false) - 1 })).toBe("unpacked it is larger than a backup may be.");
    expect(await opens({ fileBytes: bytes(true) - 1 })).toBe("unpacked it is larger than a backup may be.");
  } finally {
    Object.assign(BACKUP_LIMITS, usual);
  }
});
