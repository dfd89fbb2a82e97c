import { AsyncLocalStorage } from "node:async_hooks";
import type { ServerResponse } from "node:http";
import type { Middleware } from "koa";

/** The request that is being worked on, wherever its work has got to. */
const current = new AsyncLocalStorage<{ readonly res: ServerResponse; readonly id: string }>();

/** Lets whatever a request starts know its request. */
export const known: Middleware = (ctx, next) =>
  current.run({ res: ctx.res, id: String(ctx.state.requestId) }, next);

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
    const request = current.getStore();
    log({
      level: "error",
      message: `uncaught: ${error instanceof Error ? error.message : String(error)}`,
      stack: error instanceof Error ? error.stack : undefined,
      ...(request ? { request: request.id } : {}),
    });
    if (request && !request.res.writableEnded) {
      if (request.res.headersSent) request.res.destroy();
      else {
        request.res.writeHead(500, {
          "Content-Type": "application/json; charset=utf-8",
          Connection: "close",
        });
        request.res.end(
          JSON.stringify({
            kind: "error",
            code: "DEFECT",
            message: "Kobbin has a defect here; nothing was changed.",
            hint: `Try once more; if it stays, report it with the number ${request.id}.`,
          }),
        );
      }
    }
    stop("an uncaught error");
  };
}
