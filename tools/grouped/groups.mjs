// Test files of one part that are loaded one after another into one module registry: to begin each of four hundred
// files with modules of its own takes as long as what they try. Each file stays a block of its own, with its own hooks,
// named by its path, so that what fails is found and what takes long is told by file.
import { existsSync, mkdirSync, readdirSync, rmSync, writeFileSync } from "node:fs";
import { join, relative, sep } from "node:path";
import { REASONS } from "../times.mjs";

/** Parts that have tests, in the order in which their tests are begun. */
export const PARTS = ["core", "formats", "solver", "packing", "bin", "demo", "standins", "server", "web"];
/** So many files share a registry; more would leave the lanes waiting for the last of them. */
const MOST = { core: 16, web: 11, server: 7 };
/** What takes long is begun first, and by itself. */
const isAlone = (file) => file in REASONS || file.includes("/hard/");

function testsOf(root, part) {
  if (!existsSync(join(root, part, "src"))) return [];
  return readdirSync(join(root, part, "src"), { recursive: true })
    .map((f) => `${part}/src/${f.split(sep).join("/")}`)
    .filter((f) => f.endsWith(".test.ts"))
    .sort();
}

/**
 * Writes the groups of all parts.
 * @returns for each part, where its tests are now: groups, and files that stay by themselves
 */
export function writeGroups(root, folder) {
  rmSync(folder, { recursive: true, force: true });
  mkdirSync(folder, { recursive: true });
  return Object.fromEntries(
    PARTS.map((part) => {
      const tests = testsOf(root, part);
      const most = MOST[part] ?? 4;
      const shared = tests.filter((f) => !isAlone(f));
      const groups = [];
      const count = Math.ceil(shared.length / most);
      for (let i = 0; i < count; i++) {
        // neighbours share what they import
        const files = shared.slice(
          Math.floor((i * shared.length) / count),
          Math.floor(((i + 1) * shared.length) / count),
        );
        const path = join(folder, `${part}-${i}.test.mjs`);
        const loads = files.map((f) => `  ["${f}", () => import("${relative(folder, join(root, f))}")],`);
        writeFileSync(
          path,
          `import { loadEach } from "${relative(folder, join(root, "tools/grouped/load.mjs"))}";\nawait loadEach([\n${loads.join("\n")}\n]);\n`,
        );
        groups.push(path);
      }
      return [part, [...tests.filter(isAlone).map((f) => join(root, f)), ...groups]];
    }),
  );
}
