import { createServer } from "node:http";
import type { AddressInfo } from "node:net";
import { expect, test } from "@jest/globals";
import { fetchStandIns, firstRates } from "./create.ts";

// a rate is what one of the other currency is worth in the shop's own, by five digits
test.each([
  ["EUR", { USD: "0.92000", GBP: "1.1600" }],
  // 1 / 0.92; 1.16 / 0.92
  ["USD", { EUR: "1.0870", GBP: "1.2609" }],
  // 1 / 1.16; 0.92 / 1.16
  ["GBP", { EUR: "0.86207", USD: "0.79310" }],
  // 1 / 1.05; 0.92 / 1.05; 1.16 / 1.05
  ["CHF", { EUR: "0.95238", USD: "0.87619", GBP: "1.1048" }],
  ["SEK", { EUR: "11.364", USD: "10.455", GBP: "13.182" }],
  ["JPY", { EUR: "163.93", USD: "150.82", GBP: "190.16" }],
  ["AUD", { EUR: "1.6667", USD: "1.5333", GBP: "1.9333" }],
  ["CAD", { EUR: "1.4925", USD: "1.3731", GBP: "1.7313" }],
  ["ZAR", {}],
])("a new shop in %s begins with %j", (currency, rates) => {
  expect(firstRates(currency)).toEqual(rates);
});

const SUPPLIER = {
  key: "one",
  name: "One",
  currency: "EUR",
  shipping: "4.00",
  daysMin: 1,
  daysMax: 2,
};

test("the stand-ins are asked five times; without them there is no shop, without an address there are none", async () => {
  expect(await fetchStandIns("")).toEqual({ suppliers: [], houses: [] });
  let asked = 0;
  let answersFrom = 3;
  const server = createServer((req, res) => {
    if (req.url === "/suppliers") asked++;
    if (asked < answersFrom) res.destroy();
    else res.end(JSON.stringify(req.url === "/suppliers" ? [{ ...SUPPLIER, isAdmin: true }] : []));
  }).listen(0, "127.0.0.1");
  await new Promise((done) => server.once("listening", done));
  const url = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
  // what has no name here is not taken along
  expect(await fetchStandIns(url)).toEqual({ suppliers: [SUPPLIER], houses: [] });
  expect(asked).toBe(3);
  [asked, answersFrom] = [0, 6];
  await expect(fetchStandIns(url)).rejects.toMatchObject({ code: "SUPPLIER_UNREACHABLE" });
  expect(asked).toBe(5);
  server.close();
});
