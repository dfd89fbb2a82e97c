import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { main } from "../src/main.ts";

/** How a command ended, and all it printed. */
export interface Ran {
  readonly status: number;
  readonly out: string;
  readonly err: string;
}

/**
 * Commands in a folder of their own, run by the program's main function in this process, one after another; what they
 * print is kept, not shown. The executable around it has tests of its own.
 */
export function commandsIn(name: string) {
  const folder = mkdtempSync(join(tmpdir(), `kobbin-${name}-`));
  const run = async (...args: string[]): Promise<Ran> => {
    const [stdout, stderr, here] = [process.stdout.write, process.stderr.write, process.cwd()];
    const said = { out: "", err: "" };
    process.stdout.write = (text) => {
      said.out += String(text);
      return true;
    };
    process.stderr.write = (text) => {
      said.err += String(text);
      return true;
    };
    process.chdir(folder);
    try {
      return { status: await main(args), ...said };
    } finally {
      process.chdir(here);
      process.stdout.write = stdout;
      process.stderr.write = stderr;
    }
  };
  return {
    folder,
    run,
    json: async <T>(...args: string[]): Promise<T> => JSON.parse((await run(...args, "--json")).out) as T,
    end: () => rmSync(folder, { recursive: true, force: true }),
  };
}
