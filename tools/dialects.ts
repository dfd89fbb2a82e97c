// Lists, places and boards in the ways people write them, whose meaning is known because they were made: how many are read right,
// how many asked about where nobody could tell, how many not as meant and said, how many as something else without a word:
//   npm run dialects -- [--of lists|places|boards] [--seed 1] [--count 2000] [--show 5]

import { writtenBoard } from "../core/test/dialects/boards.ts";
import { judgeBoard } from "../core/test/dialects/judge-board.ts";
import { judgeList, type Verdict } from "../core/test/dialects/judge-list.ts";
import { judgePlaces } from "../core/test/dialects/judge-places.ts";
import { writtenList } from "../core/test/dialects/lists.ts";
import { writtenPlaces } from "../core/test/dialects/places.ts";

const numberOption = (name: string, other: number) => {
  const i = process.argv.indexOf(name);
  return i < 0 ? other : Number(process.argv[i + 1]);
};
const seed = numberOption("--seed", 1);
const count = numberOption("--count", 2000);
const show = numberOption("--show", 0);
const only = process.argv.includes("--of") ? process.argv[process.argv.indexOf("--of") + 1] : undefined;

/** One written thing, read and judged. */
interface Judged {
  readonly kind: string;
  readonly verdict: Verdict;
  readonly why: string;
  readonly shown: readonly string[];
  readonly findings: readonly { readonly level: string; readonly tag: string; readonly text: string }[];
}
const cellsShown = (cells: readonly (readonly string[])[]) =>
  cells.slice(0, 14).map((r) => r.map((t) => t.replaceAll("\n", "⏎")).join(" | "));
const OF: Readonly<Record<string, (seed: number, n: number) => Judged>> = {
  lists: (seed, n) => {
    const written = writtenList(seed, n);
    const { bom, ...judged } = judgeList(written);
    return { kind: written.kind, ...judged, shown: cellsShown(written.cells), findings: bom.findings };
  },
  places: (seed, n) => {
    const written = writtenPlaces(seed, n);
    return { kind: written.kind, ...judgePlaces(written), shown: cellsShown(written.cells) };
  },
  boards: (seed, n) => {
    const written = writtenBoard(seed, n);
    const { measure, ...judged } = judgeBoard(written);
    return {
      kind: written.kind,
      ...judged,
      shown: [`odd: ${written.culprit ?? "nothing"}`],
      findings: measure.findings,
    };
  },
};

const VERDICTS: readonly Verdict[] = ["right", "asked", "said", "silent", "refused"];
const tell = (what: string, row: Record<Verdict, number>) =>
  console.log(`${what.padEnd(50)} ${VERDICTS.map((v) => `${v} ${String(row[v]).padStart(5)}`).join("   ")}`);

function run(of: string): number {
  const table = new Map<string, Record<Verdict, number>>();
  let shown = 0;
  const began = performance.now();
  for (let n = 0; n < count; n++) {
    const { kind, verdict, why, shown: lines, findings } = OF[of]!(seed, n);
    const row = table.get(kind) ?? { right: 0, asked: 0, said: 0, silent: 0, refused: 0 };
    row[verdict]++;
    table.set(kind, row);
    if ((verdict === "silent" || verdict === "refused") && shown++ < show) {
      console.log(`\n— ${of} ${n} of seed ${seed}, ${kind}: ${why}`);
      for (const line of lines) console.log(`  ${line}`);
      for (const f of findings) console.log(`  ${f.level} ${f.tag}: ${f.text}`);
    }
  }
  const sum: Record<Verdict, number> = { right: 0, asked: 0, said: 0, silent: 0, refused: 0 };
  console.log(`\n${of}`);
  for (const [kind, row] of table) {
    tell(kind, row);
    for (const v of VERDICTS) sum[v] += row[v];
  }
  tell(`all of ${count}, seed ${seed}`, sum);
  console.log(`${((performance.now() - began) / count).toFixed(2)} ms each`);
  return sum.silent + sum.refused;
}

if (only !== undefined && !Object.hasOwn(OF, only)) {
  console.error(`--of takes ${Object.keys(OF).join(", ")}`);
  process.exit(2);
}
const wrong = (only === undefined ? Object.keys(OF) : [only]).map(run);
process.exitCode = wrong.some((n) => n > 0) ? 1 : 0;
