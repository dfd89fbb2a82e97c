// How long a function may be, counted as it stands on the page, markup and all (the linter counts statements alone).
// LONG names what is longer: what is one thing stays so with its reason; the rest may only become shorter.
import { readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";
// biome-ignore lint/correctness/useImportExtensions: the types beside it are not the file
import { parsed, walk } from "./mutate/places.mjs";

const MOST = 120;
const ROOTS = [
  "web/src",
  "server/src",
  "bin/src",
  "contract/src",
  "standins/src",
  "packing/src",
  "solver/src",
];
const ONE_LIST = "one list of routes, each told by its own lines";
const ONE_FORM = "one form, field after field";
const YET = "two stories, not told apart yet";
/** @type {Record<string, [most: number, because: string]>} */
const LONG = {
  "server/src/resources/record/routes.ts recordRoutes": [180, ONE_LIST],
  "server/src/resources/people/routes.ts peopleRoutes": [150, ONE_LIST],
  "server/src/resources/backup/routes.ts backupRoutes": [145, ONE_LIST],
  "server/src/resources/product/routes.ts productRoutes": [140, ONE_LIST],
  "server/src/resources/session/routes.ts sessionRoutes": [135, ONE_LIST],
  "server/src/resources/source/routes.ts sourceRoutes": [130, ONE_LIST],
  "server/src/resources/run/routes.ts runRoutes": [130, ONE_LIST],
  "web/src/resources/outbox.ts createOutbox": [135, "one queue with its state"],
  "web/src/stages/parts/SumForm.tsx SumForm": [145, ONE_FORM],
  "web/src/stages/fab/NewHouse.tsx NewHouse": [164, ONE_FORM],
  "web/src/stages/fab/profile/HouseDialog.tsx HouseDialog": [151, ONE_FORM],
  "web/src/stages/fab/profile/useProfileLists.tsx useProfileLists": [131, "one list of a profile's lists"],
  "web/src/ui/grid/useGrid.ts useGrid": [149, "one hand on the grid: keys, mouse, clipboard"],
  "web/src/ui/Ruler.tsx Ruler": [167, "one drawing"],
  "web/src/Shell.tsx Shell": [172, YET],
  "web/src/stages/parts/PartsPage.tsx PartsPage": [168, YET],
  "web/src/stages/panel/ThisSheet.tsx ThisSheet": [168, YET],
  "web/src/stages/library/PartSheet.tsx PartSheet": [168, YET],
  "web/src/stages/source/QuotationDialog.tsx QuotationDialog": [165, YET],
  "web/src/run/Spine.tsx Spine": [162, YET],
  "web/src/stages/parts/list/ListDialog.tsx ListDialog": [160, YET],
  "web/src/stages/cost/CostPage.tsx CostPage": [139, YET],
  "web/src/stages/board/fit/Picked.tsx Picked": [150, YET],
  "web/src/stages/source/NoNumber.tsx NoNumber": [138, YET],
  "web/src/run/RunFrame.tsx RunFrame": [137, YET],
  "web/src/stages/new-product/NewProductPage.tsx NewProductPage": [132, YET],
  "web/src/stages/source/Baskets.tsx Baskets": [131, YET],
  "web/src/proof/ListTable.tsx ListTable": [130, "one table"],
  "web/src/stages/fab/Houses.tsx Houses": [128, YET],
};

const problems = [];
const unused = new Set(Object.keys(LONG));
for (const root of ROOTS)
  for (const entry of readdirSync(root, { recursive: true })) {
    const file = join(root, String(entry)).replaceAll("\\", "/");
    if (!/\.tsx?$/.test(file) || /\.(test|fixture|d)\.tsx?$/.test(file)) continue;
    const source = readFileSync(file, "utf8");
    const { body, at } = parsed(source, file.endsWith("x"));
    const seen = new Map();
    walk(body, (n) => {
      const name = n.identifier?.value ?? (n.type === "VariableDeclarator" ? n.id.value : undefined);
      if (!name || !/^(FunctionDeclaration|VariableDeclarator)$/.test(n.type)) return;
      const { start, end } = at(n);
      seen.set(name, source.slice(start, end).split("\n").length);
    });
    for (const [name, lines] of seen) {
      const [most, because] = LONG[`${file} ${name}`] ?? [MOST];
      const isTable = /^[A-Z_]+$/.test(name);
      if (because && lines > MOST) unused.delete(`${file} ${name}`);
      if (lines > most && !isTable) problems.push(`${file} ${name} has ${lines} lines, ${most} is the most`);
    }
  }
for (const key of unused)
  problems.push(`${key} is short now: take it from the list in tools/check-lengths.mjs`);
console.log(`${Object.keys(LONG).length} functions over ${MOST} lines, each with its reason`);
for (const p of problems) console.error(p);
process.exitCode = problems.length > 0 ? 1 : 0;
