import { expect, test } from "@jest/globals";
import { isAway } from "./away.ts";
import { trim } from "./decimal.ts";

test.each([
  [{ code: "ECONNREFUSED" }, true],
  [{ code: "ECONNRESET" }, true],
  [{ code: "EPIPE" }, true],
  [{ code: "57P01" }, true],
  [{ code: "57P02" }, true],
  [{ code: "57P03" }, true],
  [{ code: "08006" }, true],
  [{ code: "08003" }, true],
  [{ code: "08001" }, true],
  [new Error("Connection terminated unexpectedly"), true],
  [new Error("Client has encountered a connection error and is not queryable"), true],
  [new Error("timeout exceeded when trying to connect"), true],
  // the statement itself was wrong, or took too long
  [{ code: "57014", message: "canceling statement due to statement timeout" }, false],
  [{ code: "23505" }, false],
  [{ code: "40001" }, false],
  [new Error("terminated"), false],
  [undefined, false],
  [null, false],
  ["ECONNRESET", false],
])("%p: the database is away is %s", (error, is) => {
  expect(isAway(error)).toBe(is);
});

test.each([
  ["24.000000", "24.00"],
  ["0.008000", "0.008"],
  ["1.5", "1.50"],
  ["100", "100"],
  ["100.", "100.00"],
  ["-0.050000", "-0.05"],
])("%s as stored is %s", (stored, shown) => {
  expect(trim(stored)).toBe(shown);
});
