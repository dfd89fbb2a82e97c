import { spawnSync } from "node:child_process";
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { fileURLToPath } from "node:url";
import { afterAll, expect, test } from "@jest/globals";

// The program as a person starts it: bundled, beside its packages. What its commands say is tested in this process's own
// files (`bin/test/command.ts`); here stands what only a process of its own can show.
const kobbin = fileURLToPath(new URL("../kobbin", import.meta.url));
const example = (name: string) => fileURLToPath(new URL(`../../docs/examples/${name}`, import.meta.url));
const folder = mkdtempSync(join(tmpdir(), "kobbin-executable-"));
afterAll(() => rmSync(folder, { recursive: true, force: true }));
const put = (name: string, content: string): string => {
  const path = join(folder, name);
  writeFileSync(path, content);
  return path;
};
const run = (...args: string[]) => {
  const { status, stdout, stderr } = spawnSync(kobbin, args, { encoding: "utf8", cwd: folder });
  return { status, out: stdout, err: stderr };
};

test("help stands on standard output, wrong use beside it with exit 2, and each command is named", () => {
  const help = run("--help");
  expect(help).toMatchObject({ status: 0, err: "" });
  for (const command of ["measure", "bom", "placement", "fit", "probe", "quote", "panel", "source", "cost"])
    expect(help.out).toMatch(new RegExp(`^  ${command} <`, "m"));
  expect(run()).toEqual({ status: 2, out: "", err: help.out });
  expect(run("measure", "--fast", "a.zip")).toMatchObject({
    status: 2,
    out: "",
    err: expect.stringContaining("--fast"),
  });
});

test("from any folder, with paths that begin there: one document on standard output, the rest beside it", () => {
  put("p.csv", "Ref;Qty;Value\nR1,R2;2;4k7\n");
  const bom = run("bom", "p.csv", "--json");
  expect([bom.status, bom.err, JSON.parse(bom.out).lines[0].refs]).toEqual([0, "", ["R1", "R2"]]);
  put("broken.zip", "this is no archive");
  const rejected = run("measure", "broken.zip", "--json");
  expect([rejected.status, JSON.parse(rejected.out).outcome]).toEqual([1, "reject"]);
});

test("the packages that stay beside the file are found: the solver, sheets and drawings", () => {
  const cost = run("cost", example("probe-tail.run.json"), "--json");
  expect([cost.status, JSON.parse(cost.out)]).toEqual([
    0,
    JSON.parse(readFileSync(example("probe-tail.cost.json"), "utf8")),
  ]);
  expect(run("package", example("probe-tail.run.json"), "--out", "out.zip")).toMatchObject({ status: 0 });
  // three lines, two thresholds that bind: the search leaves it to the solver or closes it, and says that it is proven
  const source = run("source", example("free-shipping.instance.json"), "--json");
  expect([source.status, JSON.parse(source.out).proven]).toEqual([0, true]);
});

test("whatever the file, it ends: the clock holds where the work never looks at it, for every command", () => {
  // a few lines that ask for a thousand milliards of objects, and a list of two thousand lines with forty suppliers
  const suppliers = Array.from({ length: 40 }, (_, i) => ({
    id: `s${i}`,
    name: `S${i}`,
    shipping: 1 + (i % 7),
    freeFrom: 40 + i,
  }));
  const lines = Array.from({ length: 2000 }, (_, i) => ({
    id: `${i}`,
    need: 87 + i,
    offers: suppliers.map((s, k) => ({
      id: `${i}-${k}`,
      supplier: s.id,
      stock: 1000,
      moq: 1,
      multiple: 1,
      breaks: [{ qty: 1, price: 0.2 + ((i * 7 + k * 13) % 50) / 1000 }],
    })),
  }));
  const hard = put("hard.json", JSON.stringify({ id: "x", currency: "EUR", suppliers, lines }));
  const done = run("source", hard, "--json", "--max-seconds", "1");
  expect([0, 1]).toContain(done.status);
  if (done.status === 1) expect(done.err).toContain("--max-seconds");
});

test("help of each command has its example, whichever way it is asked for, and the version is the package's", () => {
  for (const asked of [
    ["bom", "--help"],
    ["bom", "-h"],
    ["help", "bom"],
    ["-h", "bom"],
  ])
    expect(run(...asked)).toEqual({
      status: 0,
      err: "",
      out: expect.stringContaining("example: kobbin bom parts.xlsx --json"),
    });
  expect(run("help", "nothing").out).toBe(run("-h").out);
  const { version } = JSON.parse(readFileSync(new URL("../package.json", import.meta.url), "utf8"));
  expect(run("--version")).toEqual({ status: 0, err: "", out: `kobbin ${version}\n` });
  expect(run("bom", "--json", "--", "--help")).toMatchObject({ status: 2 });
});

test("with --json there is one document whatever happens: wrong use, a table that is none, a limit on time", () => {
  put("hole.csv", "");
  const many = Array.from({ length: 60_000 }, (_, i) => `R${i};1;4k7;0603`).join("\n");
  put("long.csv", `Ref;Qty;Value;Package\n${many}`);
  for (const [args, status, reason] of [
    [["bom", "--json"], 2, /usage/],
    [["bom", "hole.csv", "--json"], 1, /no table/],
    [["placement", "missing.csv", "--json"], 2, /missing\.csv/],
    [["bom", "--json", "--fast", "hole.csv"], 2, /--fast/],
    [["bom", "long.csv", "--json", "--max-seconds", "0.001"], 1, /--max-seconds/],
  ] as const) {
    const done = run(...args);
    expect([args, done.status]).toEqual([args, status]);
    expect(JSON.parse(done.out)).toEqual({
      kobbin: `${args[0]}/1`,
      outcome: "reject",
      reason: expect.stringMatching(reason),
    });
  }
});
