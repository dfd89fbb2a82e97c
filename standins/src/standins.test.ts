import type { Server } from "node:http";
import { afterAll, beforeAll, expect, test } from "@jest/globals";
import { createStandIns } from "./app.ts";
import { offerFor, offersFor } from "./catalogue.ts";

let server: Server;
let url: string;
beforeAll(
  () =>
    new Promise<void>((done) => {
      server = createStandIns({ seed: "s", latencyMs: 0, failing: new Set(["corner"]) }).listen(
        0,
        "127.0.0.1",
        () => {
          url = `http://127.0.0.1:${(server.address() as { port: number }).port}`;
          done();
        },
      );
    }),
);
afterAll(() => {
  server.closeAllConnections();
  server.close();
});

test("the same seed gives the same offer, another seed another", () => {
  const [a, b, c] = [
    offerFor("fennimore", "TB-M4864-Q48", "x"),
    offerFor("fennimore", "TB-M4864-Q48", "x"),
    offerFor("fennimore", "TB-M4864-Q48", "y"),
  ];
  expect(a).toEqual(b);
  expect(c).not.toEqual(a);
});

test("offers are sound: steps rise, prices fall, the first step is reachable", () => {
  for (const key of ["fennimore", "brindle", "longreach", "corner"])
    for (const mpn of ["OX-R0603-10k", "PW-C0603-100n", "TB-LV33-223", "HB-T508-4", "TB-TK31-SO8"]) {
      const o = offerFor(key, mpn, "z");
      if (!o) continue;
      expect(o.breaks[0]!.qty).toBeLessThanOrEqual(Math.max(1, o.moq));
      for (let i = 1; i < o.breaks.length; i++) {
        expect(o.breaks[i]!.qty).toBeGreaterThan(o.breaks[i - 1]!.qty);
        expect(Number(o.breaks[i]!.price)).toBeLessThan(Number(o.breaks[i - 1]!.price));
      }
    }
});

test("small parts come as cut and, for a charge, wound on a reel of the same pieces", () => {
  const both = ["OX-R0603-10k", "PW-C0603-100n", "PW-C0603-1u"].map((mpn) =>
    offersFor("fennimore", mpn, "z"),
  );
  const wound = both.filter((list) => list.length === 2);
  expect(wound.length).toBeGreaterThan(0);
  for (const [cut, reel] of wound) expect(reel).toEqual({ ...cut, packaging: "reel, wound", fee: "6.00" });
  expect(offersFor("brindle", "PW-C0603-100n", "z").every((o) => o.fee === undefined)).toBe(true);
});

test("over HTTP: known parts are offered, strangers' are not listed, a feed may be down", async () => {
  const answer = (await (
    await fetch(`${url}/suppliers/fennimore/offers?mpn=PW-C0603-100n&mpn=ZZ-1`)
  ).json()) as { offers: unknown[]; notListed: string[] };
  expect(answer.notListed).toContain("ZZ-1");
  expect((await (await fetch(`${url}/suppliers`)).json()) as unknown[]).toHaveLength(4);
  expect((await (await fetch(`${url}/houses`)).json()) as unknown[]).toHaveLength(3);
  expect((await fetch(`${url}/suppliers/corner/offers?mpn=PW-C0603-100n`)).status).toBe(503);
});
