import { Busboy } from "@fastify/busboy";
import { AppError } from "@kobbin/core";
import type { Context } from "koa";
import type { DroppedFile } from "../../jobs/messages.ts";

/** Bounds of one upload. */
const MAX_BYTES = 60 * 1024 * 1024;
const MAX_FILES = 200;

/** A multipart form read whole: its files and its fields. @throws AppError ARCHIVE_TOO_LARGE, DOCUMENT_INVALID */
export function readUpload(ctx: Context): Promise<{ files: DroppedFile[]; fields: Record<string, string> }> {
  const type = ctx.get("content-type");
  if (!type.startsWith("multipart/form-data"))
    throw new AppError(
      "DOCUMENT_INVALID",
      "The upload is no form with files.",
      "Drop the files on the page.",
    );
  return new Promise((resolve, reject) => {
    const form = new Busboy({
      headers: { "content-type": type },
      limits: { fileSize: MAX_BYTES, files: MAX_FILES, fields: 20, fieldSize: 200_000 },
      preservePath: true,
    });
    const files: DroppedFile[] = [];
    const fields: Record<string, string> = {};
    let total = 0;
    const tooLarge = () =>
      reject(
        new AppError(
          "ARCHIVE_TOO_LARGE",
          `The upload is larger than ${MAX_BYTES / 1048576} MB or holds more than ${MAX_FILES} files.`,
          "Drop only the board's own files.",
        ),
      );
    form.on("file", (_field, stream, name) => {
      const parts: Buffer[] = [];
      stream.on("data", (chunk: Buffer) => {
        total += chunk.length;
        if (total > MAX_BYTES) {
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
    form.on("finish", () => resolve({ files, fields }));
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
