import { writeFileSync } from "node:fs";
import { readLayer } from "@kobbin/core";
import { withWorkshop } from "@kobbin/server";
import pg from "pg";

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

if (process.env.DATABASE_URL) {
  const pool = new pg.Pool({
    connectionString: process.env.DATABASE_URL,
    options: "-c role=kobbin_app",
    max: 2,
  });
  const owner = new pg.Pool({ connectionString: process.env.DATABASE_URL, max: 2 });
  const { rows: shops } = await owner.query<{ id: string }>("select id from workshop limit 1");
  if (shops[0]) {
    const { id } = shops[0];
    const sql = "select id, refs, value_text from bom_line order by position";
    const bare = await time(300, () => owner.query(sql));
    const bound = await time(300, () => withWorkshop(pool, id, (tx) => tx.query(sql)));
    add(
      "a select under row-level security, its transaction and setting",
      "the same select as the owner",
      bound,
      bare,
    );
  }
  await pool.end();
  await owner.end();
} else console.error("DATABASE_URL is not set: the cost of row-level security was not measured");

for (const r of rows)
  console.log(
    `${r.work.padEnd(66)} ${r.ms.toFixed(2).padStart(9)} ms  ${r.ratio.toFixed(1).padStart(6)} ×  ${r.floor}`,
  );
writeFileSync("bench/last.json", `${JSON.stringify({ node: process.version, rows }, null, 1)}\n`);
