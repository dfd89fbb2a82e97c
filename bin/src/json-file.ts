import { readFileSync, statSync } from "node:fs";
import { basename } from "node:path";
import { AppError, shapes } from "@kobbin/core";
import { decodeText } from "@kobbin/formats";
import { UsageError } from "./print.ts";

/** Bytes of a document; one of a run with all its boards has a few of them. */
const MOST_BYTES = 100 * 1024 * 1024;
const plain = shapes.anything(40, 5_000_000);

/** The bytes of a file named on the command line. @throws UsageError where there is none */
export function readBytes(path: string): Uint8Array {
  const stat = statSync(path, { throwIfNoEntry: false });
  if (!stat) throw new UsageError(`there is no file ${path}`);
  if (!stat.isFile()) throw new UsageError(`${path} is no file`);
  try {
    return readFileSync(path);
  } catch (error) {
    throw new UsageError(`${path} cannot be read: ${(error as NodeJS.ErrnoException).code ?? "unknown"}`);
  }
}

/**
 * A JSON document, in any encoding a text editor writes, with a mark of its byte order or without.
 * @throws AppError DOCUMENT_INVALID where it is none
 */
export function readJson(path: string, hint: string): unknown {
  const bytes = readBytes(path);
  const bad = (what: string, cause?: unknown) =>
    new AppError("DOCUMENT_INVALID", `${basename(path)} ${what}.`, hint, { cause });
  if (bytes.length > MOST_BYTES) throw bad(`is larger than ${MOST_BYTES / 1048576} MB`);
  let value: unknown;
  try {
    value = JSON.parse(decodeText(bytes).replace(/^\uFEFF/, ""));
  } catch (cause) {
    throw bad("is not JSON", cause);
  }
  const wrong = plain(value, "the document");
  if (wrong) throw bad(`cannot be used: ${wrong}`);
  return value;
}
