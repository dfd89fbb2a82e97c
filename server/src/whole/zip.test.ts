import { buffer } from "node:stream/consumers";
import { expect, test } from "@jest/globals";
import { unzipSync } from "fflate";
import { zipOf, zipStream } from "../zip.ts";

const AT = new Date("2026-03-04T05:06:08Z");
const bytes = (text: string) => new TextEncoder().encode(text);
const read = (zip: Uint8Array) =>
  Object.entries(unzipSync(zip)).map(([name, b]) => [name, new TextDecoder().decode(b)]);

test("files are packed as they are; names that are one are told apart, clean and by letter case too", async () => {
  const names = ["top.gtl", "top.gtl", "TOP.gtl", "a/b", "a/b", "../up.txt", "plain", "plain"];
  const zip = await zipOf(
    names.map((path, i) => ({ path, bytes: bytes(`file ${i}`) })),
    AT,
  );
  expect(read(zip)).toEqual([
    ["top.gtl", "file 0"],
    ["top (2).gtl", "file 1"],
    ["TOP (3).gtl", "file 2"],
    ["a/b", "file 3"],
    ["a/b (2)", "file 4"],
    [expect.stringMatching(/^(?!.*\.\.).*up\.txt$/), "file 5"],
    ["plain", "file 6"],
    ["plain (2)", "file 7"],
  ]);
});

test("a part of a larger buffer is packed alone, and the same files at the same time are the same bytes", async () => {
  const files = [{ path: "a", bytes: bytes("0123456789").subarray(3, 6) }];
  const zip = await zipOf(files, AT);
  expect(read(zip)).toEqual([["a", "345"]]);
  expect((await zipOf(files, AT)).equals(zip)).toBe(true);
  expect((await zipOf(files, new Date("2027-03-04T05:06:08Z"))).equals(zip)).toBe(false);
});

test("a stream asks for the bytes of an entry when its turn has come, and fails where they do not come", async () => {
  const asked: string[] = [];
  const entry = (path: string) => ({
    path,
    bytes: async () => {
      asked.push(path);
      return bytes(`xx${path}xx`).subarray(2, 2 + path.length);
    },
  });
  const stream = zipStream([entry("first"), entry("second")], AT);
  expect(asked.length).toBeLessThan(2);
  expect(read(await buffer(stream))).toEqual([
    ["first", "first"],
    ["second", "second"],
  ]);
  expect(asked).toEqual(["first", "second"]);
  const broken = { path: "b", bytes: () => Promise.reject(new Error("not on the disk")) };
  await expect(buffer(zipStream([broken], AT))).rejects.toThrow("not on the disk");
});
