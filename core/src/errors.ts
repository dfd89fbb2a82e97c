/** Every code an error of ours may carry, with the sentence a reader of docs/errors.md finds beside it. */
export const ERROR_CODES = {
  ARCHIVE_INVALID: "The archive cannot be opened at all.",
  ARCHIVE_TOO_LARGE: "The archive breaks a bound on size, number of entries or packing ratio.",
  NO_BOARD_FILE: "Nothing in the drop has a role on a board.",
  NOT_A_NUMBER: "A text that should be a number is not one.",
  NOT_ALLOWED: "The person may not do this.",
  NOT_FOUND: "The thing named is not there, or belongs to another workshop.",
  NOT_SIGNED_IN: "There is no valid session.",
  OUT_OF_RANGE: "A number is outside the range it may have.",
  STALE_VERSION: "Somebody changed the same thing in between.",
  TABLE_UNREADABLE: "A table (CSV, XLSX) cannot be read.",
  TOO_MANY_TRIES: "Too many requests of this kind in a short time.",
  BLOCKED: "An order cannot be released while blockers are open.",
  DOCUMENT_INVALID: "A document (run, instance) lacks something it needs.",
  SUPPLIER_UNREACHABLE: "A supplier's feed did not answer.",
  DATABASE_AWAY: "The database does not answer at the moment.",
  BUSY: "Too much is asked for at once; the turn did not come in time.",
  KEY_REUSED: "A request's key came again with something else.",
  STORAGE_FULL: "The database cannot store anything more, or is frozen.",
  SHOP_FULL: "The shop's files have the room that was set for a shop.",
  TOO_MUCH_WORK: "A file asks for more work, memory or answer than one drop may take.",
  WRONG_HOST: "The request came under a name the server does not go by.",
  WRONG_ORIGIN: "A write came from another site.",
  WRONG_PASSWORD: "Name and password do not fit together.",
} as const;

/** One of the words of {@link ERROR_CODES}; never re-used for another meaning. */
export type ErrorCode = keyof typeof ERROR_CODES;

/** What an error looks like where classes do not survive: across a thread, or over HTTP. */
export interface WireError {
  readonly kind: "error";
  readonly code: ErrorCode;
  readonly message: string;
  readonly hint: string;
  readonly details?: unknown;
}

/** The one error class: `message` says what happened with the value in it, `hint` what to do. */
export class AppError extends Error {
  readonly code: ErrorCode;
  readonly hint: string;
  readonly details: unknown;

  constructor(
    code: ErrorCode,
    message: string,
    hint: string,
    extra: { cause?: unknown; details?: unknown } = {},
  ) {
    super(message, extra.cause === undefined ? undefined : { cause: extra.cause });
    this.name = "AppError";
    this.code = code;
    this.hint = hint;
    this.details = extra.details;
  }
}

/** The wire form of an error, or undefined when it is not one of ours (a defect, to be logged). */
export function toWire(error: unknown): WireError | undefined {
  if (!(error instanceof AppError)) return undefined;
  const { code, message, hint, details } = error;
  return { kind: "error", code, message, hint, ...(details === undefined ? {} : { details }) };
}

/** Rebuilds the error on the other side of a thread or of HTTP. */
export function fromWire(wire: WireError): AppError {
  return new AppError(wire.code, wire.message, wire.hint, { details: wire.details });
}

/**
 * Stops on a broken promise of our own code.
 * @throws Error naming the promise; never an AppError, since no user can mend it
 */
export function assert(condition: unknown, promise: string): asserts condition {
  if (!condition) throw new Error(`broken promise: ${promise}`);
}
