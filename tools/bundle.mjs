// The command line as two files: what is read and linked once starts three times as fast as five hundred modules, and the
// thread that only watches reads a few lines.
import { join } from "node:path";
import { rolldown } from "rolldown";

/** Packages that few commands need: loaded from where they are installed, by the command that needs them. */
const APART = ["exceljs", "highs", "@cantoo/pdf-lib"];

/** Makes `bin/dist/bundle/` of what the compiler wrote, in the clone at `root`. */
export async function bundleCommand(root) {
  for (const name of ["entry", "command.worker"]) {
    const bundle = await rolldown({
      input: join(root, `bin/dist/${name}.js`),
      platform: "node",
      external: APART,
      logLevel: "warn",
    });
    await bundle.write({
      file: join(root, `bin/dist/bundle/${name}.js`),
      format: "esm",
      codeSplitting: false,
      // each module is evaluated when a command needs it, not when the file is read
      strictExecutionOrder: true,
      minify: { mangle: false, compress: false, codegen: true },
    });
    await bundle.close();
  }
}
