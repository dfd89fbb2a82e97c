import { createServer } from "node:http";
import { expect, test } from "@jest/globals";
import { boundTimes } from "../app.ts";

test("a connection has fifteen seconds for its head, two minutes for a request, ten idle; four thousand are served at once", () => {
  const { headersTimeout, requestTimeout, keepAliveTimeout, maxConnections } = boundTimes(createServer());
  expect([headersTimeout, requestTimeout, keepAliveTimeout, maxConnections]).toEqual([
    15_000, 120_000, 10_000, 4000,
  ]);
});
