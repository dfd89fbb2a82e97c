import { request } from "node:http";
import { connect } from "node:net";
import type { TestServer } from "../kit.ts";

/** What came back of a request that no browser would send. */
export interface RawAnswer {
  readonly status: number;
  readonly text: string;
}

/** A request with exactly these headers, Host among them. */
export function raw(
  server: Pick<TestServer, "url">,
  method: string,
  path: string,
  headers: Readonly<Record<string, string>>,
  body?: string,
): Promise<RawAnswer> {
  const { hostname, port } = new URL(server.url);
  return new Promise((done, fail) => {
    const req = request({ hostname, port, method, path, headers, setHost: false, agent: false }, (res) => {
      let text = "";
      res.setEncoding("utf8");
      res.on("data", (c) => {
        text += c;
      });
      res.on("end", () => done({ status: res.statusCode!, text }));
      res.on("error", fail);
    });
    req.on("error", fail);
    req.end(body);
  });
}

/** Bytes on a bare connection, which stays open; what is heard within a while, and how it ended. */
export function bare(
  server: Pick<TestServer, "url">,
  bytes: string,
): { heard(): string; isOpen(): boolean; end(): void } {
  const { hostname, port } = new URL(server.url);
  let text = "";
  let isOpen = true;
  const socket = connect(Number(port), hostname, () => socket.write(bytes));
  socket.on("data", (c) => {
    text += c.toString();
  });
  socket.on("error", () => undefined);
  socket.on("close", () => {
    isOpen = false;
  });
  return { heard: () => text, isOpen: () => isOpen, end: () => socket.destroy() };
}

/** Looks at /health all the while; how long the slowest answer took, in milliseconds. */
export function watchHealth(
  url: string,
): () => Promise<{ slowestMs: number; asked: number; failed: number }> {
  let isOn = true;
  const seen = { slowestMs: 0, asked: 0, failed: 0 };
  const going = (async () => {
    while (isOn) {
      const at = performance.now();
      const ok = await fetch(`${url}/health`).then(
        (r) => r.ok,
        () => false,
      );
      seen.asked++;
      if (!ok) seen.failed++;
      seen.slowestMs = Math.max(seen.slowestMs, performance.now() - at);
      await new Promise((done) => setTimeout(done, 20));
    }
  })();
  return async () => {
    isOn = false;
    await going;
    return seen;
  };
}
