import { readFileSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { afterAll, expect, test } from "@jest/globals";
import { commandsIn } from "../test/command.ts";

/** The short form takes one of so many; `npm run attack` takes all. */
const ONE_OF = Number(process.env.ATTACK_ONE_OF ?? 12);
const { folder, run: quiet, end } = commandsIn("malformed");
afterAll(end);
const put = (name: string, content: string | Uint8Array): string => {
  const path = join(folder, name);
  writeFileSync(path, content);
  return path;
};
const example = (name: string) =>
  readFileSync(new URL(`../../docs/examples/${name}`, import.meta.url), "utf8");
const RUN = JSON.parse(example("probe-tail.run.json")) as object;
const INSTANCE = JSON.parse(example("free-shipping.instance.json")) as object;

const ODD: readonly unknown[] = [
  null,
  {},
  [],
  "",
  "x",
  "__proto__",
  -1,
  0.5,
  1e300,
  true,
  [null],
  "2026-02-31",
  undefined,
];
type Path = readonly (string | number)[];
function placesOf(value: unknown, path: Path = []): Path[] {
  if (typeof value !== "object" || value === null) return path.length > 0 ? [path] : [];
  const keys = Object.keys(value);
  // of a list the first item speaks for all
  const some = Array.isArray(value) ? keys.slice(0, 1) : keys;
  return [
    ...(path.length > 0 ? [path] : []),
    ...some.flatMap((k) =>
      placesOf((value as Record<string, unknown>)[k], [...path, Array.isArray(value) ? Number(k) : k]),
    ),
  ];
}
function withOdd(doc: object, path: Path, value: unknown): object {
  const copy = structuredClone(doc) as Record<string | number, unknown>;
  let at = copy;
  for (const k of path.slice(0, -1)) at = at[k] as typeof at;
  if (value === undefined) delete at[path.at(-1)!];
  else at[path.at(-1)!] = value;
  return copy;
}

test.each<[string, string, object]>([
  ["cost", "run", RUN],
  ["source", "instance", INSTANCE],
])(
  "%s answers every document in which one value is something else, and never with a defect",
  async (command, name, doc) => {
    let n = 0;
    let refused = 0;
    for (const path of placesOf(doc))
      for (const odd of ODD) {
        if (n++ % (command === "cost" ? ONE_OF * 4 : ONE_OF) !== 0) continue;
        const file = put(`${name}.json`, JSON.stringify(withOdd(doc, path, odd)) ?? "");
        const { status, err } = await quiet(command, file, "--json", "--max-seconds", "8");
        expect([path.join("."), odd, status, status === 0 || err.length > 10]).toEqual([
          path.join("."),
          odd,
          status === 1 ? 1 : 0,
          true,
        ]);
        if (status === 1) refused++;
      }
    expect(refused).toBeGreaterThan(n / (command === "cost" ? ONE_OF * 4 : ONE_OF) / 4);
  },
  900_000,
);

test.each<[string, string | Uint8Array]>([
  ["nothing", ""],
  ["a blank", " "],
  ["no JSON", "{"],
  ["a number", "12"],
  ["nothing at all", "null"],
  ["a list", "[]"],
  ["a text", '"run/1"'],
  ["bytes", Uint8Array.from({ length: 2000 }, (_, i) => (i * 37) % 256)],
  ["five thousand deep", "[".repeat(5000) + "]".repeat(5000)],
  ["a key of the language's", '{"__proto__":{"kobbin":"run/1"}}'],
])("%s as a document or a table is refused, never a defect", async (_, content) => {
  const file = put("odd.json", content);
  for (const command of ["cost", "source", "package", "bom", "placement", "measure"]) {
    const { status } = await quiet(
      command,
      file,
      ...(command === "package" ? ["--out", join(folder, "o.zip")] : ["--json"]),
    );
    expect([command, [1, 2].includes(status)]).toEqual([command, true]);
  }
});

test("a document may begin with a mark of its byte order, in any encoding an editor writes", async () => {
  const text = example("free-shipping.instance.json");
  const utf16 = Buffer.from(`\ufeff${text}`, "utf16le");
  for (const bytes of [Buffer.from(`\ufeff${text}`), utf16, Buffer.from(utf16).swap16()])
    expect((await quiet("source", put("mark.json", bytes), "--json")).status).toBe(0);
});

test.each([
  [["cost"]],
  [["cost", "none.json"]],
  [["cost", folder]],
  [["measure"]],
  [["measure", "a.zip", "--compare"]],
  [["measure", "--max-seconds", "soon", "a.zip"]],
  [["measure", "--max-seconds", "0", "a.zip"]],
  [["measure", "--fast", "a.zip"]],
  [["package", "x.json"]],
  [["bom", "a", "b"]],
  [["nothing"]],
  [[]],
])("%j is wrong use", async (args) => {
  expect((await quiet(...args)).status).toBe(2);
});

test("an archive of a run document is named from where the document lies", async () => {
  const doc = structuredClone(RUN) as { boards: { archive: string }[] };
  doc.boards[0]!.archive = "/etc/passwd";
  const { status, err } = await quiet(
    "package",
    put("away.json", JSON.stringify(doc)),
    "--out",
    join(folder, "o.zip"),
  );
  expect([status, err]).toEqual([1, expect.stringContaining("not named from where")]);
});
