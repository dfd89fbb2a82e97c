import { EventEmitter } from "node:events";
import { expect, test } from "@jest/globals";
import type { Context } from "koa";
import { sendInTurn, workInTurn } from "./heavy.ts";

const settle = () => new Promise((done) => setImmediate(done));

/** A request of a shop, as far as a large answer needs it. */
function request(shop: string) {
  const socket = Object.assign(new EventEmitter(), {
    timeoutMs: -1,
    isDestroyed: false,
    setTimeout(ms: number, stalled?: () => void) {
      socket.timeoutMs = ms;
      if (stalled) socket.on("timeout", stalled);
    },
    destroy() {
      socket.isDestroyed = true;
    },
  });
  const res = new EventEmitter();
  const ctx = { req: { socket }, res, state: { signed: { workshopId: shop } } } as unknown as Context;
  return { ctx, socket, res };
}

test("of uploads of one shop two are worked on at a time; one that fails gives its turn back", async () => {
  const going: string[] = [];
  const ends = new Map<string, (error?: Error) => void>();
  const work = (name: string) =>
    workInTurn("shop", () => {
      going.push(name);
      return new Promise<string>((resolve, reject) => ends.set(name, (e) => (e ? reject(e) : resolve(name))));
    });
  const [a, b, c] = [work("a"), work("b"), work("c")];
  await settle();
  expect(going).toEqual(["a", "b"]);
  ends.get("a")!(new Error("odd"));
  await expect(a).rejects.toThrow("odd");
  await settle();
  expect(going).toEqual(["a", "b", "c"]);
  ends.get("b")!();
  ends.get("c")!();
  expect(await Promise.all([b, c])).toEqual(["b", "c"]);
});

test("a large answer keeps its turn until it is out; a reader who stands still is let go", async () => {
  const four = Array.from({ length: 4 }, () => request("large"));
  for (const { ctx } of four) await sendInTurn(ctx);
  const fifth = request("large");
  let went = false;
  const waits = sendInTurn(fifth.ctx).then(() => {
    went = true;
  });
  await settle();
  expect(went).toBe(false);
  // nothing is taken for half a minute: the connection is ended, which closes the answer
  expect(four[0]!.socket.timeoutMs).toBe(30_000);
  four[0]!.socket.emit("timeout");
  expect(four[0]!.socket.isDestroyed).toBe(true);
  four[0]!.res.emit("close");
  await waits;
  expect(went).toBe(true);
  // the connection serves other requests afterwards: what was set for this one is gone
  expect(four[0]!.socket.timeoutMs).toBe(0);
  four[0]!.socket.isDestroyed = false;
  four[0]!.socket.emit("timeout");
  expect(four[0]!.socket.isDestroyed).toBe(false);
  for (const { res } of [...four.slice(1), fifth]) res.emit("close");
});
