import { AsyncLocalStorage } from "node:async_hooks";
import type { ServerResponse } from "node:http";
import type Koa from "koa";

/** The answer to the request that is being worked on, wherever its work has got to. */
const current = new AsyncLocalStorage<ServerResponse>();

/** Lets whatever a request starts, to its last byte, know its request. */
export function knowRequests(app: Koa): Koa {
  const callback = app.callback.bind(app);
  app.callback = () => {
    const handle = callback();
    return (req, res) => current.run(res as ServerResponse, () => handle(req, res));
  };
  return app;
}

/**
 * An error nobody caught: it is written down, the request it came from fails, the process answers what else is in
 * flight, ends, and is started again by what watches it. What it did to the process's inside cannot be known.
 *
 * @param stop drains and ends the process
 */
export function onUncaught(
  log: (entry: Record<string, unknown>) => void,
  stop: (why: string) => void,
): (error: unknown) => void {
  return (error) => {
    const res = current.getStore();
    const id = String(res?.getHeader("X-Request-Id") ?? "none");
    log({
      level: "error",
      message: `uncaught: ${error instanceof Error ? error.message : String(error)}`,
      stack: error instanceof Error ? error.stack : undefined,
      ...(res ? { request: id } : {}),
    });
    if (res && !res.writableEnded) {
      if (res.headersSent) res.destroy();
      else {
        // what was meant for another answer
        for (const name of res.getHeaderNames()) if (name !== "x-request-id") res.removeHeader(name);
        res.writeHead(500, {
          "Content-Type": "application/json; charset=utf-8",
          Connection: "close",
        });
        res.end(
          JSON.stringify({
            kind: "error",
            code: "DEFECT",
            message: "Kobbin has a defect here; nothing was changed.",
            hint: `Try once more; if it stays, report it with the number ${id}.`,
          }),
        );
      }
    }
    stop("an uncaught error");
  };
}
