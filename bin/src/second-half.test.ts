import { writeFileSync } from "node:fs";
import { join } from "node:path";
import { fileURLToPath } from "node:url";
import { afterAll, expect, test } from "@jest/globals";
import { type AssembleDocument, type CostDocument, toRunDocument } from "@kobbin/core";
import { readJson } from "../src/json-file.ts";
import { commandsIn } from "../test/command.ts";

const { folder, run, json, end } = commandsIn("second-half");
afterAll(end);
const put = (name: string, value: unknown): string => {
  writeFileSync(join(folder, name), typeof value === "string" ? value : JSON.stringify(value));
  return name;
};
const example = fileURLToPath(new URL("../../docs/examples/probe-tail.run.json", import.meta.url));

test("assemble says of the example run what cost says of it, and every part fitted here stands in one step", async () => {
  const a = await json<AssembleDocument>("assemble", example);
  const c = await json<CostDocument>("cost", example);
  const own = a.routes.find((r) => r.own)!;
  expect(own.key).toBe("stencil-plate");
  expect([a.start, own.perGood, own.cash]).toEqual([
    c.start,
    c.perGoodBoard.toFixed(2),
    String(Number(c.cashNeeded.toFixed(2))),
  ]);
  const fitted = a.steps.flatMap((s) => (["place", "iron", "mechanical"].includes(s.kind) ? s.refs : []));
  const { lines } = toRunDocument(readJson(example, ""));
  expect([...fitted].sort()).toEqual(
    lines
      .filter((l) => !l.dnp)
      .flatMap((l) => l.refs)
      .sort(),
  );
  expect(a.conflicts).toEqual([]);
  expect((await run("assemble", example)).out).toContain("lay out the parts");
  expect((await run("assemble")).status).toBe(2);
  const none = await run("assemble", put("none.json", {}), "--json");
  expect([none.status, JSON.parse(none.out).outcome]).toEqual([1, "reject"]);
});

test("assemble: facts of parts decide the steps, and a conflict is named with what frees it", async () => {
  const doc = toRunDocument(readJson(example, ""));
  const line = doc.lines.find((l) => l.mount === "machine" && l.mpn !== "" && l.refs.length > 0)!;
  const part = {
    id: "x",
    mpn: line.mpn,
    maker: "",
    description: "",
    kind: "other",
    package: line.package,
    params: {},
    direction: "",
    moisture: "",
    state: "active",
    sheet: "",
    measured: "",
    tried: "",
  };
  const made = (facts: object, more: object = {}) =>
    put("facts.json", {
      ...doc,
      library: [{ ...part, ...facts }],
      assembly: { ...doc.assembly, ...more },
    });
  const covering = await json<AssembleDocument>(
    "assemble",
    made({ covers: ["TP1"] }, { programAt: ["TP1"] }),
  );
  expect(covering.conflicts).toMatchObject([
    { refs: [...line.refs, "TP1"], do: expect.stringContaining("by hand, after the heat") },
  ]);
  const later = await json<AssembleDocument>("assemble", made({ fitAfter: "test" }, { testMinutes: 1 }));
  const n = (is: (s: AssembleDocument["steps"][number]) => boolean) => later.steps.findIndex(is);
  expect(n((s) => s.refs.includes(line.refs[0]!))).toBeGreaterThan(n((s) => s.kind === "test"));
});

test("cover counts what a plan exercises and refuses what it does not know", async () => {
  const parts = [
    {
      ref: "U1",
      pins: [
        { pin: "1", net: "A" },
        { pin: "2", net: "B" },
      ],
    },
    { ref: "TP1", pins: [{ pin: "1", net: "A" }] },
  ];
  const plan = put("plan.json", { parts, items: [{ id: "a", minutes: 1, reads: ["TP1"], state: "bare" }] });
  expect(await json("cover", plan)).toEqual({
    kobbin: "cover/1",
    pins: { tested: 1, implied: 1, never: 1 },
    nets: { tested: 1, never: 1 },
    never: ["U1.2"],
    implied: ["U1.1"],
    next: [{ net: "B", gains: 1 }],
  });
  expect((await run("cover", plan)).out).toContain("a pass says nothing of U1.2");
  const bad = await run("cover", put("bad.json", { parts, items: [{ id: "a", reads: ["U1"] }] }), "--json");
  expect([bad.status, JSON.parse(bad.out)]).toEqual([
    1,
    { kobbin: "cover/1", outcome: "reject", reason: expect.stringContaining("U1 in a without a pin") },
  ]);
});

test("price of EX 8.3, and a grid that is none", async () => {
  const pricing = {
    unitCost: "13.116",
    packing: "0.80",
    warranty: "0",
    shipping: "0",
    taxRate: 0.2,
    grid: ["0.90", "0.50"],
    channels: [
      {
        name: "own",
        feeShare: 0.049,
        feeFixed: "0.30",
        feeOn: "gross",
        discount: 0,
        taxIncluded: true,
        margin: 0.4,
      },
    ],
  };
  const p = await json<{ channels: object[] }>("price", put("price.json", pricing));
  expect(p.channels).toMatchObject([{ net: "26.2676", gross: "31.5211", pricePoint: "31.90" }]);
  expect((await run("price", "price.json")).out).toContain("40.6 %");
  const bad = await run("price", put("bad.json", { ...pricing, grid: ["1.90"] }));
  expect([bad.status, bad.err]).toEqual([1, expect.stringContaining("grid[0] should be an ending below 1")]);
});
