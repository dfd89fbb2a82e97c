import { expect, test } from "@jest/globals";
import { deflateSync, strToU8, zipSync } from "fflate";
import { openDrop, unpackZip } from "./archive.ts";
import { BudgetError, DROP_LIMITS, DropBudget, type DropLimits } from "./budget.ts";
import { crc32, readDirectory, unpackEntry } from "./directory.ts";
import { sha256Hex } from "./hash.ts";

/** Little-endian numbers: [how many bytes, value]. */
const bytes = (...fields: readonly (readonly [2 | 4 | 8, number] | string)[]): Uint8Array => {
  const out: number[] = [];
  for (const f of fields)
    if (typeof f === "string") out.push(...strToU8(f));
    else for (let i = 0, v = BigInt(f[1]); i < f[0]; i++, v >>= 8n) out.push(Number(v & 255n));
  return Uint8Array.from(out);
};
const joined = (...parts: readonly Uint8Array[]) => new Uint8Array(Buffer.concat(parts));

interface Long {
  /** Which of an entry's numbers stand in the long field, in its order. */
  readonly size?: number;
  readonly packed?: number;
  readonly at?: number;
  /** Put before the long field. */
  readonly other?: Uint8Array;
  /** Bytes the field says it has; else as many as it has. */
  readonly length?: number;
  readonly count?: number;
  readonly end?: number;
}
/** An archive of one entry "a" of five stored bytes, its numbers and those of its directory in the long form. */
function long(l: Long = {}): Uint8Array {
  const data = strToU8("hello");
  const [size, packed, at] = [l.size ?? 5, l.packed ?? 5, l.at ?? 0];
  const head = bytes([4, 0x04034b50], [2, 45], [2, 0], [2, 0], [4, 0], [4, crc32(data)], [4, 5], [4, 5], [2, 1], [2, 0], "a"); // biome-ignore format: as the fields lie
  const field = bytes([2, 1], [2, l.length ?? 24], [8, size], [8, packed], [8, at]);
  const extra = joined(l.other ?? new Uint8Array(), field);
  const entry = bytes([4, 0x02014b50], [2, 45], [2, 45], [2, 0], [2, 0], [4, 0], [4, crc32(data)], [4, 0xffffffff], [4, 0xffffffff], [2, 1], [2, extra.length], [2, 0], [2, 0], [2, 0], [4, 0], [4, 0xffffffff], "a"); // biome-ignore format: as the fields lie
  const from = head.length + data.length;
  const listed = entry.length + extra.length;
  const end64 = bytes([4, 0x06064b50], [8, 44], [2, 45], [2, 45], [4, 0], [4, 0], [8, l.count ?? 1], [8, l.count ?? 1], [8, listed], [8, from]); // biome-ignore format: as the fields lie
  const locator = bytes([4, 0x07064b50], [4, 0], [8, l.end ?? from + listed], [4, 1]);
  const end = bytes([4, 0x06054b50], [2, 0], [2, 0], [2, 0xffff], [2, 0xffff], [4, 0xffffffff], [4, 0xffffffff], [2, 0]); // biome-ignore format: as the fields lie
  return joined(head, data, entry, extra, end64, locator, end);
}

test("an archive in the long form is read by its long numbers", () => {
  expect(readDirectory(long(), 9)).toEqual([
    expect.objectContaining({ name: "a", size: 5, packedSize: 5, method: 0, from: 31 }),
  ]);
  expect(unpackZip(long())).toEqual([{ path: "a", bytes: strToU8("hello") }]);
  // another field before it: [number, length, bytes]
  expect(unpackZip(long({ other: bytes([2, 7], [2, 3], "xyz") }))).toHaveLength(1);
  // more than four bytes hold: two milliards and two
  expect(readDirectory(long({ size: 2 ** 33 + 2 }), 9)).toEqual([
    expect.objectContaining({ size: 2 ** 33 + 2, packedSize: 5 }),
  ]);
});

test.each<[string, Long]>([
  ["a place that is not there", { at: 2 ** 32 }],
  ["more packed bytes than there are", { packed: 1000 }],
  ["a field too short for what it should hold", { length: 16 }],
  ["more entries than are listed", { count: 2 }],
  ["a directory's end that is not there", { end: 1 }],
  ["a directory's end behind the archive's", { end: 2 ** 32 }],
])("the long form with %s is no sound directory", (_, l) => {
  expect(readDirectory(long(l), 9)).toBeUndefined();
});

/** Bytes that cannot be packed: hashes of hashes. */
const noise = (length: number) => {
  let hash = "noise";
  const parts: Buffer[] = [];
  for (let n = 0; n < length; n += 32) {
    hash = sha256Hex(strToU8(hash));
    parts.push(Buffer.from(hash, "hex"));
  }
  return new Uint8Array(Buffer.concat(parts)).slice(0, length);
};

test("a large entry is unpacked in pieces, and never to more or less than its directory says", () => {
  const data = noise(600_000);
  const packed = deflateSync(data);
  expect(packed.length).toBeGreaterThan(500_000);
  const entry = { name: "a", size: data.length, packedSize: packed.length, isEncrypted: false, method: 8, crc: crc32(data), from: 0 }; // biome-ignore format: short
  expect(Buffer.from(unpackEntry(packed, entry)!).equals(Buffer.from(data))).toBe(true);
  // as much as fits is not what was packed
  expect(
    unpackEntry(packed, { ...entry, size: 599_999, crc: crc32(data.subarray(0, 599_999)) }),
  ).toBeUndefined();
  expect(unpackEntry(packed, { ...entry, size: 600_001 })).toBeUndefined();
  expect(unpackEntry(packed, { ...entry, crc: entry.crc ^ 1 })).toBeUndefined();
});

test("of more entries than are read one more is listed, that it is seen", () => {
  const zip = zipSync({ a: strToU8("1"), b: strToU8("2"), c: strToU8("3"), d: strToU8("4") });
  expect([1, 2, 3, 4].map((most) => readDirectory(zip, most)?.length)).toEqual([2, 3, 4, 4]);
});

const FILES = {
  "__MACOSX/x": strToU8("x"),
  "folder/": new Uint8Array(),
  "../out.gtl": strToU8("x"),
  "top.gtl": strToU8("top"),
  "bottom.gbl": strToU8("bottom ".repeat(3)),
};
/** An archive whose directory is gone, as one that was cut off in copying. */
const cut = (files: Record<string, Uint8Array>) => {
  const b = zipSync(files);
  return b.slice(0, Buffer.from(b).indexOf(bytes([4, 0x02014b50])));
};
const open = (b: Uint8Array, limits: Partial<DropLimits> = {}) =>
  openDrop([{ path: "x.zip", bytes: b }], new DropBudget({ ...DROP_LIMITS, ...limits }));

test("without its directory an archive is read entry by entry, by the same rules", () => {
  const o = open(cut(FILES));
  expect(o.files.map((f) => f.path)).toEqual(["top.gtl", "bottom.gbl"]);
  expect(o.files.map((f) => new TextDecoder().decode(f.bytes))).toEqual(["top", "bottom bottom bottom "]);
  expect(o.notes.map((n) => `${n.level} ${n.tag} ${n.file}`)).toEqual([
    "warning unsafe-path ../out.gtl",
    "error archive-invalid x.zip",
  ]);
  expect(o.notes[1]!.text).toBe("The archive is cut off. What could be unpacked may not be all of it.");
  expect(o).not.toHaveProperty("rejected");
  // an entry longer than a step of reading is whole
  const data = noise(40_000);
  expect(Buffer.from(open(cut({ a: data })).files[0]!.bytes).equals(Buffer.from(data))).toBe(true);
  expect(open(cut({ "folder/": new Uint8Array() }))).toMatchObject({
    files: [],
    rejected: "The archive is cut off. What could be unpacked may not be all of it.",
  });
});

test("without its directory an archive is bounded as well: entries, bytes, and how much is made of little", () => {
  const said = (b: Uint8Array, limits: Partial<DropLimits>) => {
    const o = open(b, limits);
    return o.rejected ?? o.files.map((f) => f.path).join(" ");
  };
  expect(said(cut(FILES), { entries: 2 })).toBe("top.gtl bottom.gbl");
  expect(said(cut(FILES), { entries: 1 })).toContain("more than 1 files");
  expect(said(cut(FILES), { bytes: 24 })).toBe("top.gtl bottom.gbl");
  expect(said(cut(FILES), { bytes: 23 })).toContain("larger than 0 MB");
  // a megabyte of nothing packs to a thousandth; up to that nothing is asked
  expect(said(cut({ a: new Uint8Array(1_000_000) }), {})).toBe("a");
  expect(said(cut({ a: new Uint8Array(1_000_001) }), {})).toContain("more than 200 times its size");
  // a hundred times is drawn by nobody, but it is meant
  expect(said(cut({ a: joined(noise(20_000), new Uint8Array(1_900_000)) }), {})).toBe("a");
});

test("nothing dropped, and a workbook's defect, are said as what they are", () => {
  expect(openDrop([])).toEqual({ files: [], notes: [], rejected: "The drop holds no files." });
  expect(open(zipSync({ "folder/": new Uint8Array() })).rejected).toBe("The drop holds no files.");
  expect(() => new DropBudget({ ...DROP_LIMITS, entries: 1 }).spend("entries", 2, "too many")).toThrow(
    BudgetError,
  );
  const b = zipSync({ a: strToU8("hello") });
  b[b.findIndex((_, p) => p > 30)]! ^= 255;
  expect(() => unpackZip(b)).toThrow("a is damaged");
});
