// Starts programs of ours and ends them again, in order; one that falls over is started again.
import { spawn } from "node:child_process";
import { ROOT } from "./setup.mjs";

/** So often within a minute a program is started again before it is given up. */
const MOST_STARTS = 5;

/** A set of children that end together. @param onLost called when one ends by itself and is not started again */
export function createLauncher(onLost) {
  const children = new Set();
  let isEnding = false;
  return {
    /**
     * Starts a program and waits for the line that tells its port.
     * @param portName the variable its port is given by: then it is watched, and started again at the same port
     */
    launch(name, file, args, env, pattern, portName) {
      return new Promise((done, fail) => {
        const starts = [];
        const start = (more) => {
          starts.push(Date.now());
          // a group of its own, so that Ctrl-C in the terminal reaches only the supervisor, which ends the rest in order
          const child = spawn(file, args, {
            cwd: ROOT,
            env: { ...process.env, ...env, ...more },
            stdio: ["ignore", "pipe", "inherit"],
            detached: true,
          });
          children.add(child);
          let text = "";
          let port;
          child.stdout.on("data", (chunk) => {
            if (port) return;
            text += chunk;
            const m = pattern.exec(text);
            if (!m) return;
            port = Number(m[1]);
            done(port);
          });
          child.on("exit", (code, signal) => {
            children.delete(child);
            fail(new Error(`${name} ended with ${code ?? signal}`));
            if (isEnding) return;
            const recent = starts.filter((t) => Date.now() - t < 60_000).length;
            const at = port ?? Number(more[portName]);
            if (portName && at && recent < MOST_STARTS) {
              console.error(`${name} ended with ${code ?? signal}; it is started again.`);
              setTimeout(() => !isEnding && start({ [portName]: String(at) }), 300 * recent);
            } else onLost(name, code ?? signal);
          });
        };
        start({});
      });
    },
    async end() {
      isEnding = true;
      await Promise.all(
        [...children].map(
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
