import { Busboy } from "@fastify/busboy";
import { AppError } from "@kobbin/core";
import type { Context } from "koa";
import type { DroppedFile } from "../../jobs/messages.ts";

/** Bounds of one upload. */
const MAX_BYTES = 60 * 1024 * 1024;
const MAX_FILES = 200;
const MAX_MS = 100_000;

/** A multipart form read whole: its files and its fields. @throws AppError ARCHIVE_TOO_LARGE, DOCUMENT_INVALID */
export function readUpload(
  ctx: Context,
  maxBytes = MAX_BYTES,
): Promise<{ files: DroppedFile[]; fields: Record<string, string> }> {
  const type = ctx.get("content-type");
  if (!type.startsWith("multipart/form-data"))
    throw new AppError(
      "DOCUMENT_INVALID",
      "The upload is no form with files.",
      "Drop the files on the page.",
    );
  return new Promise((resolve, reject) => {
    // a form that trickles is cut; what arrived of it was never kept
    const late = setTimeout(() => {
      reject(
        new AppError(
          "ARCHIVE_TOO_LARGE",
          "The upload took longer than 100 seconds; nothing was kept.",
          "Try again over a faster connection.",
        ),
      );
      ctx.req.unpipe(form);
      ctx.req.resume();
    }, MAX_MS);
    ctx.req.once("close", () => clearTimeout(late));
    const form = new Busboy({
      headers: { "content-type": type },
      limits: { fileSize: maxBytes, files: MAX_FILES, fields: 20, fieldSize: 200_000 },
      preservePath: true,
    });
    const files: DroppedFile[] = [];
    const fields: Record<string, string> = {};
    let total = 0;
    const tooLarge = () =>
      reject(
        new AppError(
          "ARCHIVE_TOO_LARGE",
          `The upload is larger than ${maxBytes / 1048576} MB or holds more than ${MAX_FILES} files.`,
          "Drop only the board's own files.",
        ),
      );
    form.on("file", (_field, stream, name) => {
      const parts: Buffer[] = [];
      stream.on("data", (chunk: Buffer) => {
        total += chunk.length;
        if (total > maxBytes) {
          tooLarge();
          ctx.req.unpipe(form);
          ctx.req.resume();
          return;
        }
        parts.push(chunk);
      });
      stream.on("limit", tooLarge);
      stream.on("end", () =>
        files.push({ path: name || "unnamed", bytes: new Uint8Array(Buffer.concat(parts)) }),
      );
    });
    form.on("filesLimit", tooLarge);
    form.on("field", (key, value) => {
      fields[key] = value;
    });
    form.on("finish", () => {
      clearTimeout(late);
      resolve({ files, fields });
    });
    form.on("error", () =>
      reject(
        new AppError("DOCUMENT_INVALID", "The upload broke off; nothing was kept.", "Drop the files again."),
      ),
    );
    ctx.req.on("aborted", () =>
      reject(
        new AppError("DOCUMENT_INVALID", "The upload broke off; nothing was kept.", "Drop the files again."),
      ),
    );
    ctx.req.pipe(form);
  });
}
