import { readFileSync, writeFileSync } from "node:fs";
import {
  type BasketCache,
  curvePoint,
  curveQuantities,
  measureBoard,
  type RunDocument,
  readBoard,
  readLayer,
  rollUp,
  whatIf,
} from "@kobbin/core";
import { openDrop } from "@kobbin/formats";
import { benchServed } from "./served.ts";

/** One line of the table: a piece of work against its floor in the same run. */
interface Row {
  readonly work: string;
  readonly floor: string;
  readonly ms: number;
  readonly floorMs: number;
  readonly ratio: number;
}

const median = (list: readonly number[]) => [...list].sort((a, b) => a - b)[Math.floor(list.length / 2)]!;

async function time(times: number, work: () => unknown): Promise<number> {
  const out: number[] = [];
  for (let i = 0; i < times; i++) {
    const t = performance.now();
    await work();
    out.push(performance.now() - t);
  }
  return median(out);
}

/** A layer of about four megabytes: pads, tracks, and arcs in between. */
function largeLayer(objects: number): Uint8Array {
  const lines = ["%FSLAX46Y46*%", "%MOMM*%", "G75*", "%ADD10C,0.2*%", "%ADD11R,0.9X1.1*%", "D10*"];
  for (let i = 0; i < objects; i++) {
    const [x, y] = [(i % 400) * 250_000, Math.floor(i / 400) * 310_000];
    if (i % 9 === 0) lines.push("D11*", `X${x}Y${y}D03*`, "D10*");
    else lines.push(`X${x}Y${y}D02*`, `G01X${x + 180_000}Y${y + 90_000}D01*`);
  }
  return new TextEncoder().encode(`${lines.join("\n")}\nM02*\n`);
}

const rows: Row[] = [];
const add = (work: string, floor: string, ms: number, floorMs: number) =>
  rows.push({ work, floor, ms, floorMs, ratio: ms / floorMs });

const bytes = largeLayer(72_000);
const countLines = () => {
  let n = 0;
  for (let i = 0; i < bytes.length; i++) if (bytes[i] === 10) n++;
  return n;
};
const first = await time(1, () => readLayer(bytes, "large.gbr"));
await time(5, countLines);
const floor = await time(15, countLines);
add(
  `read one layer, ${(bytes.length / 1e6).toFixed(1)} MB, first call`,
  "counting its newlines",
  first,
  floor,
);
add(
  `read one layer, ${(bytes.length / 1e6).toFixed(1)} MB, warm`,
  "counting its newlines",
  await time(9, () => readLayer(bytes, "large.gbr")),
  floor,
);

const archive = new Uint8Array(readFileSync("demo/boards/kiln-watch-b.zip"));
const open = () => openDrop([{ path: "kiln-watch-b.zip", bytes: archive }]).files;
const opened = open();
const entries = opened.filter((f) => !/\.(csv|xlsx)$/i.test(f.path));
const unzip = await time(15, open);
await time(2, () => measureBoard(readBoard(entries)));
add(
  "archive → every figure of the largest demo board",
  "unpacking it",
  await time(5, () => measureBoard(readBoard(open()))),
  unzip,
);

const doc = JSON.parse(readFileSync("docs/examples/probe-tail.run.json", "utf8")) as RunDocument;
await time(5, () => rollUp(doc));
const roll = await time(15, () => rollUp(doc));
const cache: BasketCache = new Map();
const base = rollUp(doc, cache);
await time(3, () => whatIf(doc, base, cache));
add(
  "effects of every single option at every house, baskets known",
  "one roll-up from nothing",
  await time(9, () => whatIf(doc, base, cache)),
  roll,
);
add(
  "the curve of 40 quantities, baskets anew",
  "one roll-up from nothing",
  await time(5, () => curveQuantities(doc.goodBoards).map((q) => curvePoint(doc, q))),
  roll,
);

if (process.env.DATABASE_URL) await benchServed(process.env.DATABASE_URL, add);
else console.error("DATABASE_URL is not set: what needs the database was not measured");

for (const r of rows)
  console.log(
    `${r.work.padEnd(66)} ${r.ms.toFixed(2).padStart(9)} ms  ${r.ratio.toFixed(1).padStart(6)} ×  ${r.floor}`,
  );
writeFileSync("bench/last.json", `${JSON.stringify({ node: process.version, rows }, null, 1)}\n`);
