import { expect, test } from "@jest/globals";
import { AppError, type ErrorCode } from "@kobbin/core";
import type { Context } from "koa";
import * as yup from "yup";
import { errors, STATUS, wasFull } from "./errors.ts";

/** What a request is answered when something is thrown in it, and what is written down. */
async function answered(error: unknown, path = "/api/x") {
  const logged: Record<string, unknown>[] = [];
  const heads: Record<string, string> = {};
  const set = (name: string, value: string) => {
    heads[name] = value;
  };
  const ctx = { status: 404, body: undefined as unknown, path, state: { requestId: "r-7" }, set };
  await errors((entry) => logged.push(entry))(ctx as unknown as Context, async () => {
    if (error !== undefined) throw error;
  });
  const body = ctx.body as { code: string; message: string; hint: string; details?: unknown } | undefined;
  return { status: ctx.status, body, heads, logged };
}

test("each code of an error has its status", () => {
  const by: Readonly<Record<number, readonly ErrorCode[]>> = {
    401: ["NOT_SIGNED_IN", "WRONG_PASSWORD"],
    403: ["NOT_ALLOWED", "WRONG_ORIGIN"],
    404: ["NOT_FOUND"],
    409: ["BLOCKED", "STALE_VERSION", "KEY_REUSED"],
    413: ["ARCHIVE_TOO_LARGE", "SHOP_FULL"],
    421: ["WRONG_HOST"],
    422: [
      "ARCHIVE_INVALID",
      "DOCUMENT_INVALID",
      "NO_BOARD_FILE",
      "NOT_A_NUMBER",
      "OUT_OF_RANGE",
      "TABLE_UNREADABLE",
      "TOO_MUCH_WORK",
    ],
    429: ["TOO_MANY_TRIES"],
    502: ["SUPPLIER_UNREACHABLE"],
    503: ["DATABASE_AWAY", "BUSY"],
    507: ["STORAGE_FULL"],
  };
  const flat = Object.entries(by).flatMap(([status, codes]) =>
    codes.map((c) => [c, Number(status)] as const),
  );
  expect(STATUS).toEqual(Object.fromEntries(flat));
});

const of = (code: string, constraint?: string) => ({ code, ...(constraint ? { constraint } : {}) });
test.each<[string, unknown, number, ErrorCode, RegExp]>([
  ["an error of ours", new AppError("BLOCKED", "No.", "Do."), 409, "BLOCKED", /^No\.$/],
  ["an address that is none", new URIError("x"), 422, "DOCUMENT_INVALID", /address/],
  ["a full disk", of("53100"), 507, "STORAGE_FULL", /disk of the database is full/],
  ["a database out of memory", of("53200"), 507, "STORAGE_FULL", /takes nothing new/],
  ["a disk that fails", of("58030"), 507, "STORAGE_FULL", /takes nothing new/],
  ["a database that only reads", of("25006"), 507, "STORAGE_FULL", /takes nothing new/],
  ["a statement that was stopped", of("57014"), 503, "BUSY", /worked on this for too long/],
  ["a lock not had", of("55P03"), 503, "BUSY", /Somebody else is changing/],
  ["a deadlock", of("40P01"), 503, "BUSY", /Somebody else/],
  ["a quarrel of two", of("40001"), 503, "BUSY", /Somebody else/],
  ["too many connections", of("53300"), 503, "BUSY", /Somebody else/],
  ["a transaction that slept", of("25P03"), 503, "BUSY", /Somebody else/],
  ["a name taken", of("23505", "product_name_key"), 422, "OUT_OF_RANGE", /product of that name/],
  ["a request saved now", of("23505", "change_request_key"), 409, "STALE_VERSION", /same request/],
  ["a constraint nobody named", of("23514", "toString"), 422, "OUT_OF_RANGE", /cannot be kept \(toString\)/],
  [
    "a check of a column",
    { ...of("23514", "supplier_days_max_check"), table: "supplier" },
    422,
    "OUT_OF_RANGE",
    /cannot be kept \(days max of the supplier\);/,
  ],
  [
    "a column left empty",
    { ...of("23502"), table: "lot", column: "part_id" },
    422,
    "OUT_OF_RANGE",
    /cannot be kept \(part id of the lot\);/,
  ],
  [
    "a check of what has no word of its own",
    { ...of("23514", "offer_break_qty_check"), table: "offer_break" },
    422,
    "OUT_OF_RANGE",
    /cannot be kept \(offer_break_qty_check\);/,
  ],
  ["an id that is none", of("22P02"), 404, "NOT_FOUND", /no such thing/],
  ["a row that is gone", of("23503"), 404, "NOT_FOUND", /no such thing/],
  ["a number too large", of("22003"), 422, "OUT_OF_RANGE", /A value cannot be kept;/],
  ["a row too large", of("54000"), 422, "OUT_OF_RANGE", /A value cannot be kept;/],
  ["a connection that is gone", of("ECONNRESET"), 503, "DATABASE_AWAY", /does not answer/],
  ["one that ended early", of("ERR_STREAM_PREMATURE_CLOSE"), 422, "DOCUMENT_INVALID", /broke off/],
  ["one that was ended", of("ECONNABORTED"), 422, "DOCUMENT_INVALID", /broke off/],
  ["a request too large", { status: 413 }, 413, "ARCHIVE_TOO_LARGE", /too large/],
  ["one said to be", { type: "entity.too.large" }, 413, "ARCHIVE_TOO_LARGE", /too large/],
  ["no file of that name", { status: 404 }, 404, "NOT_FOUND", /nothing at this address/],
  ["what is no JSON", { status: 400 }, 422, "DOCUMENT_INVALID", /not valid JSON/],
  ["the last of its kind", { status: 499 }, 422, "DOCUMENT_INVALID", /not valid JSON/],
])("%s is answered in words", async (_, error, status, code, words) => {
  const { body, logged, ...rest } = await answered(error);
  expect([rest.status, body!.code]).toEqual([status, code]);
  expect(body!.message).toMatch(words);
  expect(body!.hint.length).toBeGreaterThan(2);
  expect(logged).toEqual([]);
});

test("who is to come again is told when", async () => {
  const again = async (code: ErrorCode) =>
    (await answered(new AppError(code, "x", "y"))).heads["Retry-After"];
  expect([await again("TOO_MANY_TRIES"), await again("BUSY"), await again("BLOCKED")]).toEqual([
    "60",
    "2",
    undefined,
  ]);
});

test("a body that is wrong is told with each of its fields, or with the one there is", async () => {
  const shape = yup.object({ a: yup.number().required("a is missing"), b: yup.string().max(1, "b is long") });
  const wrong = (abortEarly: boolean) => {
    try {
      return shape.validateSync({ b: "xx" }, { abortEarly });
    } catch (error) {
      return error;
    }
  };
  expect((await answered(wrong(false))).body).toMatchObject({
    code: "OUT_OF_RANGE",
    details: { a: "a is missing", b: "b is long" },
  });
  expect(Object.keys((await answered(wrong(true))).body!.details as object)).toHaveLength(1);
});

test("a defect is written down whole and told without its inside; nothing under /api is nothing", async () => {
  const defect = new Error("x is undefined");
  const told = { kind: "error", code: "DEFECT", hint: expect.stringContaining("r-7") };
  for (const [error, message, stack] of [
    [defect, "x is undefined", defect.stack],
    ["a word", "a word", undefined],
    [of("42P01"), "[object Object]", undefined],
    [{ status: 500 }, "[object Object]", undefined],
  ] as const) {
    const { status, body, logged } = await answered(error);
    expect([status, body, logged]).toEqual([
      500,
      expect.objectContaining(told),
      [{ level: "error", request: "r-7", message, stack }],
    ]);
    expect(JSON.stringify(body)).not.toContain("undefined");
  }
  expect(await answered(undefined)).toMatchObject({ status: 404, body: { code: "NOT_FOUND" } });
  expect((await answered(undefined, "/elsewhere")).body).toBe(undefined);
});

test("a write that found no room is remembered for a quarter of a minute", async () => {
  await answered(of("53100"));
  const now = Date.now();
  expect([wasFull(now), wasFull(now + 14_000), wasFull(now + 15_000)]).toEqual([true, true, false]);
});
