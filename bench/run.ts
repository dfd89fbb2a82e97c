import { execFileSync } from "node:child_process";
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
import { benchAgainst } from "./against.ts";
import { standing } from "./aims.ts";
import { benchBaskets } from "./basket.ts";
import { benchCompare } from "./compare.ts";
import { benchGrid } from "./grid.ts";
import { benchLearned } from "./learned.ts";
import { benchFlow, benchMeet } from "./meet.ts";
import { benchPanel } from "./panel.ts";
import { benchParts } from "./parts.ts";
import { benchPicture } from "./picture.ts";
import { benchRecall } from "./recall.ts";
import { benchServed } from "./served.ts";
import { benchShelf } from "./shelf.ts";
import { benchSteps } from "./steps.ts";
import { benchTests } from "./tests.ts";

// npm run bench -- --against REV: that commit and this tree in one run
const rev = process.argv[process.argv.indexOf("--against") + 1];
if (process.argv.includes("--against") && rev) process.exit(benchAgainst(rev) > 0 ? 1 : 0);

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

// a generated board of four layers at three sizes, each in a process of its own so that its memory peak is its own
interface Grown {
  readonly objects: number;
  readonly holes: number;
  readonly nets: number;
  readonly pairs: number;
  readonly firstNets: number;
  readonly netsMs: number;
  readonly sort: number;
  readonly all: number;
  readonly peakMb: number;
}
const grown: Grown[] = [10_000, 70_000, 300_000].map((n) => {
  const out = execFileSync(
    process.execPath,
    ["--conditions=source", "--import", "tsx", "bench/growth.ts", String(n), String(Math.round(n / 14)), "5"],
    { encoding: "utf8", stdio: ["ignore", "pipe", "inherit"] },
  );
  return JSON.parse(out) as Grown;
});
for (const g of grown)
  add(
    `nets and all pairs below 0.15 mm, ${Math.round(g.objects / 1000)},000 objects, ${g.holes} holes`,
    "sorting as many doubles",
    g.netsMs,
    g.sort,
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
const base = rollUp(doc, { cache });
await time(3, () => whatIf(doc, base, cache));
add(
  "effects of every single option at every house, baskets known",
  "one roll-up from nothing",
  await time(9, () => whatIf(doc, base, cache)),
  roll,
);
// as many houses as ship: those of the example, some of them twice
const six = Array.from({ length: 6 }, (_, i) => {
  const h = (doc.houses ?? [])[i % (doc.houses?.length ?? 1)]!;
  return { ...h, id: i < (doc.houses?.length ?? 0) ? h.id : `${h.id} ${i}` };
});
const wide: RunDocument = { ...doc, houses: six };
const wideBase = rollUp(wide, { cache });
await time(5, () => whatIf(wide, wideBase, cache));
add(
  "the same at six houses",
  "one roll-up from nothing",
  await time(15, () => whatIf(wide, wideBase, cache)),
  roll,
);
add(
  "the curve of 40 quantities, baskets anew",
  "one roll-up from nothing",
  await time(5, () => curveQuantities(doc.goodBoards).map((q) => curvePoint(doc, q))),
  roll,
);

await benchBaskets(add);
await benchCompare(time, add);
await benchMeet(time, add);
const measuring = () => measureBoard(readBoard(entries));
const measuringMs = await time(7, measuring);
await benchLearned(time, add, measuring, measuringMs);
await benchFlow(time, add, readBoard(entries), measuringMs);
await benchTests(time, add);
await benchSteps(time, add);
await benchPanel(time, add, { path: "kiln-watch-b.zip", bytes: archive });

const { DATABASE_URL, ADMIN_URL } = process.env;
if (DATABASE_URL && ADMIN_URL) {
  await benchServed(DATABASE_URL, ADMIN_URL, add);
  await benchParts(DATABASE_URL, ADMIN_URL, add);
  await benchRecall(DATABASE_URL, ADMIN_URL, add);
  await benchShelf(DATABASE_URL, ADMIN_URL, add);
} else console.error("DATABASE_URL and ADMIN_URL are not set: what needs the database was not measured");
if (process.env.BASE_URL) {
  await benchPicture(process.env.BASE_URL, add);
  await benchGrid(process.env.BASE_URL, add);
} else console.error("BASE_URL is not set: what needs a served Kobbin was not measured");

const told = rows.map((r) => ({ ...r, ...standing(r) }));
for (const r of told)
  console.log(
    `${r.isBroken ? "!" : " "} ${r.work.padEnd(66)} ${r.ms.toFixed(2).padStart(9)} ms  ${r.ratio.toFixed(1).padStart(6)} ×  ${r.held.padEnd(18)} ${r.floor}`,
  );
const broken = told.filter((r) => r.isBroken);
console.log(
  `${broken.length} of ${told.length} beyond what they are held to${broken.length > 0 ? " (!)" : ""}`,
);
for (const r of told.filter((t) => !t.hasFloor))
  console.log(`no floor: “${r.floor}” takes longer than ${r.work}`);
for (const g of grown)
  console.log(
    `${String(g.objects).padStart(7)} objects: every figure in ${(g.all / 1000).toFixed(1)} s, ${g.nets} nets, ${g.pairs} pairs, memory peak ${g.peakMb.toFixed(0)} MB`,
  );
writeFileSync(
  "bench/last.json",
  `${JSON.stringify({ node: process.version, rows: told, grown }, null, 1)}\n`,
);
