// What is started often, each as one file: read and linked once, it starts three times as fast as five hundred modules.
import { existsSync } from "node:fs";
import { join } from "node:path";
import { rolldown } from "rolldown";

/** Packages that little of the work needs: loaded from where they are installed, when they are needed. */
const APART = ["exceljs", "highs", "@cantoo/pdf-lib"];

/** What the compiler wrote, and what becomes of it. The thread that only watches a command reads a few lines. */
const BUNDLES = [
  ["bin/dist/entry.js", "bin/dist/bundle/entry.js"],
  ["bin/dist/command.worker.js", "bin/dist/bundle/command.worker.js"],
  ["server/dist/jobs/compute.worker.js", "server/dist/jobs/compute.bundle.js"],
];

/** Makes the bundles of a clone, as far as it is compiled. */
export async function bundle(root) {
  for (const [from, to] of BUNDLES.filter(([from]) => existsSync(join(root, from)))) {
    const made = await rolldown({
      input: join(root, from),
      platform: "node",
      external: APART,
      logLevel: "warn",
    });
    await made.write({
      file: join(root, to),
      format: "esm",
      codeSplitting: false,
      // each module is evaluated when it is needed, not when the file is read
      strictExecutionOrder: true,
      minify: { mangle: false, compress: false, codegen: true },
    });
    await made.close();
  }
}
