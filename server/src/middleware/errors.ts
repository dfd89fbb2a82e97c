import { AppError, type ErrorCode, toWire } from "@kobbin/core";
import type { Middleware } from "koa";
import * as yup from "yup";
import { isAway } from "../db/away.ts";
import { tableFact } from "../schema/table-facts.ts";
import { isTable } from "../schema/tables.ts";

/** From code to HTTP status, in one place. */
export const STATUS: Readonly<Record<ErrorCode, number>> = {
  ARCHIVE_INVALID: 422,
  ARCHIVE_TOO_LARGE: 413,
  BLOCKED: 409,
  DOCUMENT_INVALID: 422,
  NO_BOARD_FILE: 422,
  NOT_A_NUMBER: 422,
  NOT_ALLOWED: 403,
  NOT_FOUND: 404,
  NOT_SIGNED_IN: 401,
  OUT_OF_RANGE: 422,
  STALE_VERSION: 409,
  SUPPLIER_UNREACHABLE: 502,
  TABLE_UNREADABLE: 422,
  TOO_MANY_TRIES: 429,
  DATABASE_AWAY: 503,
  BUSY: 503,
  STORAGE_FULL: 507,
  SHOP_FULL: 413,
  TOO_MUCH_WORK: 422,
  KEY_REUSED: 409,
  WRONG_HOST: 421,
  WRONG_ORIGIN: 403,
  WRONG_PASSWORD: 401,
};

/** Constraints of the database a person can break, with what to say. */
const CONSTRAINTS: Readonly<Record<string, [ErrorCode, string, string]>> = {
  product_name_key: [
    "OUT_OF_RANGE",
    "There is a product of that name already.",
    "Choose another name, or add a revision to that product.",
  ],
  revision_label_key: [
    "OUT_OF_RANGE",
    "The product has a revision of that name already.",
    "Choose another revision name.",
  ],
  account_email_key: ["OUT_OF_RANGE", "That sign-in name is taken.", "Sign in with it, or choose another."],
  supplier_name_key: ["OUT_OF_RANGE", "There is a supplier of that name already.", "Choose another name."],
  supplier_small_order_check: [
    "OUT_OF_RANGE",
    "A small-order fee needs both: the fee, and the sum below which it is charged.",
    "Fill in the other one, or leave both empty.",
  ],
  variant_name_key: ["OUT_OF_RANGE", "The bill has a variant of that name already.", "Choose another name."],
  part_number_key: [
    "OUT_OF_RANGE",
    "The library has a part of that number already.",
    "Open that one and add what you know to it.",
  ],
  change_request_key: [
    "STALE_VERSION",
    "The same request is being saved at this moment.",
    "Wait a second; the page shows what came of it.",
  ],
  supplier_days_check: [
    "OUT_OF_RANGE",
    "The least days are more than the most days.",
    "Swap the two numbers.",
  ],
};

let storageFailedAt = Number.NEGATIVE_INFINITY;
const noteStorage = (now: number) => {
  storageFailedAt = now;
};
/** Whether a write found no room in the last seconds. */
export const wasFull = (now: number): boolean => now - storageFailedAt < 15_000;

/** Turns every error into a problem document; a defect of ours is logged and says so without its inside. */
export const errors =
  (log: (entry: Record<string, unknown>) => void): Middleware =>
  async (ctx, next) => {
    try {
      await next();
      if (ctx.status === 404 && ctx.body === undefined && ctx.path.startsWith("/api/"))
        throw new AppError("NOT_FOUND", `There is nothing at ${ctx.path}.`, "Go back to the bench.");
    } catch (error) {
      const known = translate(error);
      const wire = toWire(known);
      if (wire) {
        ctx.status = STATUS[wire.code];
        if (wire.code === "TOO_MANY_TRIES") ctx.set("Retry-After", "60");
        if (wire.code === "BUSY") ctx.set("Retry-After", "2");
        if (wire.code === "STORAGE_FULL") noteStorage(Date.now());
        ctx.body = wire;
        return;
      }
      log({
        level: "error",
        request: ctx.state.requestId,
        message: error instanceof Error ? error.message : String(error),
        stack: error instanceof Error ? error.stack : undefined,
      });
      ctx.status = 500;
      ctx.body = {
        kind: "error",
        code: "DEFECT",
        message: "Kobbin has a defect here; nothing was changed.",
        hint: `Try once more; if it stays, report it with the number ${ctx.state.requestId}.`,
      };
    }
  };

function translate(error: unknown): unknown {
  if (error instanceof AppError) return error;
  if (error instanceof yup.ValidationError)
    return new AppError(
      "OUT_OF_RANGE",
      error.errors[0] ?? "A value is not valid.",
      "Correct it and save again; nothing was changed.",
      {
        details: Object.fromEntries(
          (error.inner.length > 0 ? error.inner : [error]).map((e) => [e.path ?? "", e.message]),
        ),
      },
    );
  if (error instanceof URIError)
    return new AppError(
      "DOCUMENT_INVALID",
      "The address is not written as addresses are.",
      "Go back to the bench.",
    );
  return ofDatabase(error) ?? ofRequest(error) ?? error;
}

/** What the database says, in words; undefined where it is no word of the database, or one that only a defect brings. */
export function ofDatabase(error: unknown): AppError | undefined {
  if (isAway(error))
    return new AppError(
      "DATABASE_AWAY",
      "The database does not answer at the moment; nothing was changed.",
      "What you typed is still on the page; it is saved again by itself.",
      { cause: error },
    );
  const e = error as { code?: string; constraint?: string; table?: string; column?: string };
  const code = typeof e.code === "string" ? e.code : "";
  if (["53100", "53200", "58030", "25006"].includes(code))
    return new AppError(
      "STORAGE_FULL",
      code === "53100"
        ? "The disk of the database is full; nothing was changed."
        : "The database takes nothing new at the moment; nothing was changed.",
      "What you typed is still on the page, and saved by itself when there is room. Whoever runs Kobbin can make some.",
      { cause: error },
    );
  if (["57014", "55P03", "40P01", "40001", "53300", "25P03"].includes(code))
    return new AppError(
      "BUSY",
      code === "57014"
        ? "The database worked on this for too long and was stopped; nothing was changed."
        : "Somebody else is changing the same; this waited too long, and nothing was changed.",
      "It is tried again by itself; or try again in a moment.",
      { cause: error },
    );
  const known =
    e.constraint && Object.hasOwn(CONSTRAINTS, e.constraint) ? CONSTRAINTS[e.constraint] : undefined;
  if (known) return new AppError(...known);
  if (code === "22P02" || code === "23503")
    return new AppError(
      "NOT_FOUND",
      "There is no such thing here.",
      "Go back to the bench and open it from there.",
    );
  // what the schemas let through and the database refuses: a value too large, a text it cannot keep
  if (/^(22|23|54)/.test(code))
    return new AppError(
      "OUT_OF_RANGE",
      `A value cannot be kept${refusedOf(e)}; nothing was changed.`,
      "Correct it and save again.",
      { cause: error },
    );
  return undefined;
}

/** Whose value the database refused, as far as it says: " (days min of the supplier)"; else its own name for the rule. */
function refusedOf(e: { constraint?: string; table?: string; column?: string }): string {
  const noun = isTable(e.table) ? tableFact(e.table).noun?.[0] : undefined;
  const field = e.column ?? e.constraint?.replace(`${e.table}_`, "").replace(/_check\d*$/, "");
  if (noun && field) return ` (${field.replaceAll("_", " ")} of the ${noun})`;
  return e.constraint ? ` (${e.constraint})` : "";
}

function ofRequest(error: unknown): AppError | undefined {
  const e = error as { status?: number; type?: string; code?: string };
  if (e.code === "ERR_STREAM_PREMATURE_CLOSE" || e.code === "ECONNABORTED")
    return new AppError("DOCUMENT_INVALID", "The request broke off; nothing was kept.", "Send it again.");
  if (e.status === 413 || e.type === "entity.too.large")
    return new AppError("ARCHIVE_TOO_LARGE", "The request is too large.", "Send less at once.");
  if (e.status === 404)
    return new AppError("NOT_FOUND", "There is nothing at this address.", "Go back to the bench.");
  if (typeof e.status === "number" && e.status >= 400 && e.status < 500)
    return new AppError("DOCUMENT_INVALID", "The request is not valid JSON.", "Send it again.");
  return undefined;
}
