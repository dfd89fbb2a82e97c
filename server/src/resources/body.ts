import { AppError, shapes } from "@kobbin/core";
import type { Context } from "koa";
import { type AnyObject, type ObjectSchema, ValidationError } from "yup";

/** Any body is plain data, so deep and with so many values at most. */
const plain = shapes.anything(16, 600_000);

function given(ctx: Context): unknown {
  const body = (ctx.request as { body?: unknown }).body ?? {};
  const wrong = plain(body, "the request");
  if (wrong)
    throw new AppError("OUT_OF_RANGE", `${wrong}.`, "Correct it and save again; nothing was changed.");
  return body;
}

/**
 * The request's JSON by its schema; unknown keys fall away, nothing is turned into another type.
 * @throws ValidationError with all messages; AppError OUT_OF_RANGE where it is no plain data
 */
export function bodyOf<T extends AnyObject>(ctx: Context, schema: ObjectSchema<T>) {
  return schema.validateSync(given(ctx), { abortEarly: false, stripUnknown: true });
}

/** Items that are checked before others get their turn. */
const SLICE = 150;

/**
 * As {@link bodyOf} where one key holds a list that may be long: it is checked a piece at a time, and other requests
 * are answered in between.
 *
 * @param item the schema of the list's items
 * @throws ValidationError of the first item that is wrong, with its place
 */
export async function listBodyOf<T extends AnyObject, I extends AnyObject>(
  ctx: Context,
  schema: ObjectSchema<T>,
  key: keyof T & string,
  item: ObjectSchema<I>,
  body: unknown = given(ctx),
) {
  const items: unknown = (body as Record<string, unknown>)[key];
  const isLong = Array.isArray(items) && items.length > SLICE;
  // the frame is judged with a few of them, and with as many as there are
  const frame = isLong ? { ...(body as object), [key]: items.slice(0, SLICE) } : body;
  const checked = schema.validateSync(frame, { abortEarly: isLong, stripUnknown: true });
  if (!isLong) return checked;
  const most = (
    schema.fields[key] as { tests?: { OPTIONS?: { name?: string; params?: { max?: number } } }[] }
  ).tests?.find((t) => t.OPTIONS?.name === "max")?.OPTIONS?.params?.max;
  if (most !== undefined && items.length > most) schema.validateSyncAt(key, { [key]: Array(items.length) });
  const all: unknown[] = [];
  for (let i = 0; i < items.length; i++) {
    if (i % SLICE === SLICE - 1) await new Promise((done) => setImmediate(done));
    try {
      all.push(item.validateSync(items[i], { abortEarly: true, stripUnknown: true }));
    } catch (error) {
      if (!(error instanceof ValidationError)) throw error;
      throw new ValidationError(
        error.message,
        error.value,
        `${key}[${i}]${error.path ? `.${error.path}` : ""}`,
      );
    }
  }
  return { ...checked, [key]: all } as typeof checked;
}
