// Starts programs of ours and ends them again, in order.
import { spawn } from "node:child_process";
import { ROOT } from "./setup.mjs";

/** A set of children that end together. @param onLost called when one ends by itself */
export function createLauncher(onLost) {
  const children = [];
  let isEnding = false;
  return {
    /** Starts a program and waits for the line that tells its port. */
    launch(name, file, args, env, pattern) {
      return new Promise((done, fail) => {
        // a group of its own, so that Ctrl-C in the terminal reaches only the supervisor, which ends the rest in order
        const child = spawn(file, args, {
          cwd: ROOT,
          env: { ...process.env, ...env },
          stdio: ["ignore", "pipe", "inherit"],
          detached: true,
        });
        children.push(child);
        let text = "";
        child.stdout.on("data", (chunk) => {
          text += chunk;
          const m = pattern.exec(text);
          if (m) done(Number(m[1]));
        });
        child.on("exit", (code) => {
          fail(new Error(`${name} ended with ${code}`));
          if (!isEnding) onLost(name, code);
        });
      });
    },
    async end() {
      isEnding = true;
      await Promise.all(
        children.map(
          (c) =>
            new Promise((done) => {
              if (c.exitCode !== null || c.signalCode !== null) return done();
              c.once("exit", done);
              c.kill("SIGTERM");
              // the server gives requests in flight ten seconds
              setTimeout(() => c.kill("SIGKILL"), 11_000).unref();
            }),
        ),
      );
    },
  };
}
