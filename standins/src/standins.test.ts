import type { Server } from "node:http";
import { afterAll, beforeAll, expect, test } from "@jest/globals";
import type { FeedFound } from "@kobbin/contract";
import { profileCells, profileEntry, profileLists } from "@kobbin/core";
import { createStandIns } from "./app.ts";
import { offerFor, offersFor } from "./catalogue.ts";
import { HOUSES } from "./houses/index.ts";

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
  const houses = (await (await fetch(`${url}/houses`)).json()) as { feedKey?: string }[];
  // a house of foils and the own bench are not asked
  expect(houses.map((h) => h.feedKey)).toEqual([
    "ninefold",
    "plover",
    "gannet",
    "tern",
    undefined,
    undefined,
  ]);
  expect((await fetch(`${url}/suppliers/corner/offers?mpn=PW-C0603-100n`)).status).toBe(503);
});

test("a supplier names parts for a rule: better, worse, half said; none for what it does not know", async () => {
  const ask = async (key: string, rules: unknown) => {
    const r = await fetch(`${url}/suppliers/${key}/search`, {
      method: "POST",
      body: JSON.stringify({ rules }),
    });
    return { status: r.status, body: (await r.json()) as FeedFound };
  };
  const rule = { id: "r", kind: "resistor", package: "0603", params: { value: "10 kΩ", tolerance: "1 %" } };
  const { status, body } = await ask("fennimore", [rule, { ...rule, id: "u", kind: "chip" }]);
  expect([status, body.found.map((f) => f.id)]).toEqual([200, ["r", "u"]]);
  const [resistors, chips] = body.found;
  expect(chips!.parts).toEqual([]);
  expect(resistors!.parts.length).toBeGreaterThan(1);
  for (const { part, offers } of resistors!.parts) {
    expect([part.kind, part.package, part.params.value]).toEqual(["resistor", "0603", "10 kΩ"]);
    expect(offers.every((o) => o.mpn === part.mpn && o.breaks.length > 0)).toBe(true);
  }
  // among four suppliers something is worse than asked, and something does not say
  const all = (await Promise.all(["fennimore", "brindle", "longreach"].map((k) => ask(k, [rule])))).flatMap(
    (a) => a.body.found[0]!.parts.map((p) => p.part.params.tolerance),
  );
  expect(all).toEqual(expect.arrayContaining(["1 %", "5 %"]));
  expect((await ask("corner", [rule])).status).toBe(503);
});

test("every list of every house can be typed as it stands: nothing of a profile is lost by opening and saving it", () => {
  let seen = 0;
  for (const h of HOUSES) {
    for (const [list, entries] of profileLists(h))
      for (const e of entries) {
        expect(profileEntry(list, profileCells(list, e, h), e, h)).toEqual({ entry: e });
        seen++;
      }
  }
  expect(seen).toBeGreaterThan(100);
});

test("a meter shows something near what its probes touch, in the unit it is asked in; unplugged it says so", async () => {
  const read = async (query: string) => {
    const r = await fetch(`${url}/meters/hand/reading?${query}`);
    return { status: r.status, ...((await r.json()) as { shows?: string; unit?: string; message?: string }) };
  };
  const near = await Promise.all(Array.from({ length: 20 }, () => read("unit=V&near=3.3")));
  for (const r of near) {
    expect(r.unit).toBe("V");
    expect(Math.abs(Number(r.shows) - 3.3)).toBeLessThanOrEqual(0.0331);
  }
  expect(new Set(near.map((r) => r.shows)).size).toBeGreaterThan(5);
  const control = (query: string) => fetch(`${url}/control?${query}`, { method: "POST" });
  await control("overflowing=hand");
  expect(await read("unit=V&near=3.3")).toMatchObject({ status: 200, shows: "OL" });
  await control("overflowing=&unplugged=hand");
  expect(await read("unit=V")).toMatchObject({ status: 503, message: "The meter is not plugged in." });
  await control("unplugged=");
});

test("a bad day of one bill is a bad day for nobody else who asks at the same time", async () => {
  const control = (query: string) => fetch(`${url}/control?${query}`, { method: "POST" });
  const offers = async (...mpns: string[]) => {
    const r = await fetch(`${url}/suppliers/fennimore/offers?${mpns.map((m) => `mpn=${m}`).join("&")}`);
    return r.status === 200 ? ((await r.json()) as { offers: unknown[] }).offers : r.status;
  };
  const today = await offers("OX-R0603-10k");
  await control("of=ZZ-OURS&failing=fennimore");
  expect(await offers("OX-R0603-10k", "ZZ-OURS")).toBe(503);
  expect(await offers("OX-R0603-10k")).toEqual(today);
  await control("of=ZZ-OURS&failing=&day=2027-02-01");
  const later = await offers("OX-R0603-10k", "ZZ-OURS");
  expect(later).not.toEqual(today);
  expect(later).not.toBe(503);
  expect(await offers("OX-R0603-10k")).toEqual(today);
  await control("of=ZZ-OURS");
  expect(await offers("OX-R0603-10k", "ZZ-OURS")).toEqual(today);
  // said of nobody, it is for all again
  await control("failing=fennimore");
  expect(await offers("OX-R0603-10k")).toBe(503);
  await control("failing=");
});
