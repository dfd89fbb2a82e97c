import type { Context } from "koa";
import type { AnyObject, ObjectSchema } from "yup";

/** The request's JSON by its schema; unknown keys fall away. @throws ValidationError with all messages */
export function bodyOf<T extends AnyObject>(ctx: Context, schema: ObjectSchema<T>) {
  const body = (ctx.request as { body?: unknown }).body ?? {};
  return schema.validateSync(body, { abortEarly: false, stripUnknown: true });
}
