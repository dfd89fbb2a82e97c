import { type ChildProcess, spawn } from "node:child_process";
import { existsSync } from "node:fs";
import { createServer, request, type Server } from "node:http";
import { fileURLToPath } from "node:url";

const MAIN = fileURLToPath(new URL("../dist/main.js", import.meta.url));

/** One process of Kobbin, as it is run in earnest. */
export interface Running {
  readonly url: string;
  readonly child: ChildProcess;
  readonly ended: Promise<number | null>;
}

const started = new Set<ChildProcess>();
/** Ends whatever was started, also when a start beside it failed: nothing of a test lives on. */
export function endAll(): void {
  for (const child of started) child.kill("SIGKILL");
  started.clear();
}

/** A port nobody listens on at this moment. */
export const freePort = (): Promise<number> =>
  new Promise((done, fail) => {
    const probe = createServer();
    probe.on("error", fail);
    probe.listen(0, "127.0.0.1", () => {
      const { port } = probe.address() as { port: number };
      probe.close(() => done(port));
    });
  });

/** Starts a built server or worker and waits until it listens. */
export function startProcess(env: Readonly<Record<string, string>>): Promise<Running> {
  if (!existsSync(MAIN)) throw new Error("server/dist/main.js is not built: run npm run build:lib");
  const child = spawn(process.execPath, [MAIN], {
    env: { ...process.env, PORT: "0", LOG: "quiet", SIGN_UP: "open", STANDINS_URL: "", DEMO: "no", ...env },
    stdio: ["ignore", "pipe", "pipe"],
  });
  started.add(child);
  const ended = new Promise<number | null>((done) => child.once("exit", done));
  return new Promise((done, fail) => {
    let text = "";
    let errors = "";
    child.stderr!.on("data", (chunk) => {
      errors += chunk;
    });
    child.stdout!.on("data", (chunk) => {
      text += chunk;
      const port = /listening on (\d+)/.exec(text)?.[1];
      if (port) done({ url: `http://127.0.0.1:${port}`, child, ended });
    });
    void ended.then((code) => fail(new Error(`ended with ${code}: ${errors.slice(-2000)}`)));
  });
}

/**
 * A small balancer: requests in turn; a target that takes no connection is passed over, and left out for a second.
 * What breaks in the middle breaks for the caller, who may send it again.
 */
export async function startBalancer(
  targets: readonly string[],
  port = 0,
): Promise<{
  readonly url: string;
  readonly hits: ReadonlyMap<string, number>;
  close(): Promise<void>;
}> {
  const hits = new Map<string, number>(targets.map((t) => [t, 0]));
  const out = new Map<string, number>();
  let turn = 0;
  const server: Server = createServer(async (req, res) => {
    // held whole, so that it can be given to a second target
    const body: Buffer[] = [];
    for await (const chunk of req) body.push(chunk as Buffer);
    const attempt = (left: number): void => {
      const open = targets.filter((t) => (out.get(t) ?? 0) < Date.now());
      const target = (open.length > 0 ? open : targets)[turn++ % Math.max(1, open.length || targets.length)]!;
      const { hostname, port } = new URL(target);
      const up = request(
        { hostname, port, path: req.url, method: req.method, headers: req.headers },
        (answer) => {
          hits.set(target, hits.get(target)! + 1);
          res.writeHead(answer.statusCode!, answer.headers);
          answer.pipe(res);
          answer.on("error", () => res.destroy());
          res.on("close", () => answer.destroy());
        },
      );
      up.on("error", (error: NodeJS.ErrnoException) => {
        if (error.code === "ECONNREFUSED") {
          out.set(target, Date.now() + 1000);
          // nothing of it was sent on yet
          if (left > 0) return attempt(left - 1);
        }
        res.destroy();
      });
      up.end(Buffer.concat(body));
    };
    attempt(targets.length);
  });
  await new Promise<void>((done) => server.listen(port, "127.0.0.1", done));
  return {
    url: `http://127.0.0.1:${(server.address() as { port: number }).port}`,
    hits,
    close: () =>
      new Promise((done) => {
        server.closeAllConnections();
        server.close(() => done());
      }),
  };
}
