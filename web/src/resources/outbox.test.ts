import { expect, test } from "@jest/globals";
import { RequestError } from "./http.ts";
import { createOutbox } from "./outbox.ts";

const away = () => new RequestError("OFFLINE", "The server does not answer.", "");

function bench(answers: (() => unknown)[]) {
  const sent: string[] = [];
  const kept = new Map<string, string>();
  let keys = 0;
  const parts = {
    send: async <T>(method: string, path: string, _body: unknown, key: string) => {
      sent.push(`${method} ${path} ${key}`);
      const next = answers.shift();
      return { value: (next ? next() : undefined) as T };
    },
    store: {
      getItem: (k: string) => kept.get(k) ?? null,
      setItem: (k: string, v: string) => void kept.set(k, v),
      removeItem: (k: string) => void kept.delete(k),
    },
    wait: () => Promise.resolve(),
    newKey: () => `key ${keys++}`,
  };
  return { sent, kept, parts };
}
const fails = (error: unknown) => () => {
  throw error;
};

test("changes go in order, each with the same key until it is through", async () => {
  const { sent, kept, parts } = bench([fails(away()), fails(away()), () => "one", () => "two"]);
  const box = createOutbox(parts);
  const seen: string[] = [];
  box.subscribe(() => seen.push(box.state().kind));
  const [a, b] = await Promise.all([box.write("PATCH", "/a", { x: 1 }), box.write("POST", "/b")]);
  expect([a.value, b.value]).toEqual(["one", "two"]);
  expect(sent).toEqual(["PATCH /a key 0", "PATCH /a key 0", "PATCH /a key 0", "POST /b key 1"]);
  expect(kept.size).toBe(0);
  await Promise.resolve();
  expect(seen).toContain("waiting");
  expect(seen.at(-1)).toBe("saved");
});

test("what the server refuses is told and does not hold up the rest", async () => {
  const { parts } = bench([fails(new RequestError("OUT_OF_RANGE", "no", "")), () => "ok"]);
  const box = createOutbox(parts);
  const results = await Promise.allSettled([box.write("PATCH", "/a"), box.write("PATCH", "/b")]);
  expect(results.map((r) => r.status)).toEqual(["rejected", "fulfilled"]);
});

test("what could not be sent survives the page and is sent by the next, once", async () => {
  const first = bench([fails(away())]);
  const stuck = createOutbox({ ...first.parts, wait: () => new Promise(() => undefined) });
  void stuck.write("PATCH", "/a", { x: 1 });
  await new Promise((done) => setTimeout(done, 5));
  expect(stuck.state()).toEqual({ kind: "waiting", count: 1, why: "offline" });
  const second = bench([]);
  const next = createOutbox({ ...second.parts, store: first.parts.store });
  const adopted = next.adopt(() => undefined);
  next.adopt(() => undefined);
  expect(await adopted).toBe(1);
  await new Promise((done) => setTimeout(done, 5));
  expect(second.sent).toEqual(["PATCH /a key 0"]);
  expect(first.kept.size).toBe(0);
});

test("what belongs to one shop is never sent into another, and goes on when one is back in it", async () => {
  const { sent, parts } = bench([fails(new RequestError("NOT_SIGNED_IN", "", "")), () => "b", () => "a"]);
  const box = createOutbox({ ...parts, wait: (_ms, wake) => wake });
  box.enter("shop a");
  const a = box.write("PATCH", "/a");
  await new Promise((r) => setTimeout(r, 5));
  box.enter("shop b");
  const b = box.write("PATCH", "/b");
  expect((await b).value).toBe("b");
  await new Promise((r) => setTimeout(r, 5));
  expect(sent).toEqual(["PATCH /a key 0", "PATCH /b key 1"]);
  expect(box.state()).toEqual({ kind: "waiting", count: 1, why: "signed out" });
  box.enter("shop a");
  expect((await a).value).toBe("a");
});

test("a session that ended holds the changes until somebody signs in", async () => {
  const { sent, parts } = bench([fails(new RequestError("NOT_SIGNED_IN", "", "")), () => "ok"]);
  const box = createOutbox({ ...parts, wait: (_ms, wake) => wake });
  const done = box.write("PATCH", "/a");
  await new Promise((r) => setTimeout(r, 5));
  expect(box.state()).toEqual({ kind: "waiting", count: 1, why: "signed out" });
  box.retry();
  expect((await done).value).toBe("ok");
  expect(sent).toHaveLength(2);
});

test("what must have the last change in it waits for all of them, and is refused while they cannot be sent", async () => {
  let answer: () => void = () => undefined;
  const { parts } = bench([]);
  const slow = createOutbox({
    ...parts,
    send: async <T>() => {
      await new Promise<void>((done) => {
        answer = done;
      });
      return { value: undefined as T };
    },
  });
  const order: string[] = [];
  const both = Promise.all([slow.write("PATCH", "/a"), slow.write("PATCH", "/b")]).then(() =>
    order.push("written"),
  );
  const settled = slow.settled().then(() => order.push("settled"));
  const tick = () => new Promise((done) => setTimeout(done, 5));
  await tick();
  answer();
  await tick();
  expect(order).toEqual([]);
  answer();
  await Promise.all([both, settled]);
  expect(order.toSorted()).toEqual(["settled", "written"]);
  await slow.settled();

  const stuck = createOutbox({ ...bench([fails(away())]).parts, wait: () => new Promise(() => undefined) });
  void stuck.write("PATCH", "/a");
  await tick();
  await expect(stuck.settled()).rejects.toMatchObject({ code: "OFFLINE" });
});
