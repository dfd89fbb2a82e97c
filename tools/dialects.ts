// Lists in the ways people write them, whose meaning is known because they were made: how many are read right, how many
// not and said, how many as something else without a word:  npm run dialects -- [--seed 1] [--count 2000] [--show 5]
import { judgeList, type Verdict } from "../core/test/dialects/judge-list.ts";
import { writtenList } from "../core/test/dialects/lists.ts";

const numberOption = (name: string, other: number) => {
  const i = process.argv.indexOf(name);
  return i < 0 ? other : Number(process.argv[i + 1]);
};
const seed = numberOption("--seed", 1);
const count = numberOption("--count", 2000);
const show = numberOption("--show", 0);

const VERDICTS: readonly Verdict[] = ["right", "said", "silent", "refused"];
const table = new Map<string, Record<Verdict, number>>();
let shown = 0;
const began = performance.now();
for (let n = 0; n < count; n++) {
  const written = writtenList(seed, n);
  const { verdict, why, bom } = judgeList(written);
  const row = table.get(written.kind) ?? { right: 0, said: 0, silent: 0, refused: 0 };
  row[verdict]++;
  table.set(written.kind, row);
  if ((verdict === "silent" || verdict === "refused") && shown++ < show) {
    console.log(`\n— list ${n} of seed ${seed}, ${written.kind}: ${why}`);
    for (const r of written.cells.slice(0, 14))
      console.log(`  ${r.map((t) => t.replaceAll("\n", "⏎")).join(" | ")}`);
    for (const f of bom.findings) console.log(`  ${f.level} ${f.tag}: ${f.text}`);
  }
}
const tell = (what: string, row: Record<Verdict, number>) =>
  console.log(`${what.padEnd(44)} ${VERDICTS.map((v) => `${v} ${String(row[v]).padStart(5)}`).join("   ")}`);
const sum: Record<Verdict, number> = { right: 0, said: 0, silent: 0, refused: 0 };
for (const [kind, row] of table) {
  tell(kind, row);
  for (const v of VERDICTS) sum[v] += row[v];
}
tell(`all of ${count}, seed ${seed}`, sum);
console.log(`${((performance.now() - began) / count).toFixed(2)} ms a list`);
process.exitCode = sum.silent + sum.refused > 0 ? 1 : 0;
