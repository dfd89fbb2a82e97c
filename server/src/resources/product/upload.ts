import { createHash } from "node:crypto";
import { createWriteStream, mkdirSync, mkdtempSync, readdirSync, rmSync } from "node:fs";
import { mkdtemp, readFile, rm } from "node:fs/promises";
import type { IncomingMessage } from "node:http";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { pipeline } from "node:stream/promises";
import { Busboy, type BusboyInstance } from "@fastify/busboy";
import { AppError } from "@kobbin/core";
import { cleanPath } from "@kobbin/formats";
import type { Context } from "koa";
import { workInTurn } from "../../middleware/heavy.ts";
import { signed } from "../../middleware/session.ts";

/** Bounds of one upload. */
export interface UploadLimits {
  readonly maxBytes: number;
  readonly maxFiles: number;
  /** From the first byte to the last. */
  readonly wholeMs: number;
  /** Without a byte. */
  readonly idleMs: number;
}

const LIMITS: UploadLimits = { maxBytes: 60 * 1024 * 1024, maxFiles: 200, wholeMs: 100_000, idleMs: 15_000 };
/** Uploads of one person, and of all, that may be under way at a time. */
const PER_PERSON = 3;
const IN_ALL = 24;

/** A file that came, as it lies on the disk until the request has ended. */
export interface SpooledFile {
  /** Its name, cleaned. */
  readonly path: string;
  readonly file: string;
  readonly size: number;
  readonly sha256: string;
}

/** An upload that is here whole. */
export interface Upload {
  readonly files: readonly SpooledFile[];
  readonly fields: ReadonlyMap<string, string>;
}

/** A file of a drop with its bytes. */
export interface ReceivedFile {
  readonly path: string;
  readonly bytes: Uint8Array;
  readonly sha256: string;
}

const underWay = new Map<string, number>();
let inAll = 0;
let folder: string | undefined;
/** A folder of this process for what lies on the disk for a while. */
export const spoolFolder = (): string => {
  if (!folder) dropDead();
  folder ??= mkdtempSync(join(tmpdir(), `kobbin-spool-${process.pid}-`));
  mkdirSync(folder, { recursive: true, mode: 0o700 });
  return folder;
};

/** Takes away what processes that were killed left lying. */
function dropDead(): void {
  for (const name of readdirSync(tmpdir())) {
    const pid = /^kobbin-spool-(\d+)-/.exec(name)?.[1];
    if (!pid) continue;
    try {
      process.kill(Number(pid), 0);
    } catch (error) {
      if ((error as NodeJS.ErrnoException).code === "ESRCH")
        rmSync(join(tmpdir(), name), { recursive: true, force: true });
    }
  }
}

/**
 * Takes a multipart form in, onto the disk while it comes, and does the work with it once it is whole. What a slow or
 * broken sender left is gone when the request ends, however it ends.
 *
 * @throws AppError ARCHIVE_TOO_LARGE, DOCUMENT_INVALID; TOO_MANY_TRIES where a person has as many under way as one may
 */
export async function withUpload<T>(
  ctx: Context,
  work: (upload: Upload) => Promise<T>,
  over: Partial<UploadLimits> = {},
): Promise<T> {
  const limits = { ...LIMITS, ...over };
  const { accountId, workshopId } = signed(ctx);
  const mine = underWay.get(accountId) ?? 0;
  if (mine >= PER_PERSON || inAll >= IN_ALL) {
    letGo(ctx);
    throw new AppError(
      "TOO_MANY_TRIES",
      mine >= PER_PERSON
        ? `${PER_PERSON} uploads of yours are under way already.`
        : "Too many uploads are under way at the moment.",
      "Wait until one is through and send it again.",
    );
  }
  underWay.set(accountId, mine + 1);
  inAll++;
  let own: string | undefined;
  try {
    own = await mkdtemp(join(spoolFolder(), "u-"));
    const upload = await receive(ctx.req, own, limits);
    return await workInTurn(workshopId, () => work(upload));
  } finally {
    inAll--;
    const left = underWay.get(accountId)! - 1;
    if (left > 0) underWay.set(accountId, left);
    else underWay.delete(accountId);
    if (!ctx.req.complete) letGo(ctx);
    if (own) await rm(own, { recursive: true, force: true }).catch(() => undefined);
  }
}

/** The bytes of what came. */
export const bytesOf = (upload: Upload): Promise<ReceivedFile[]> =>
  Promise.all(
    upload.files.map(async ({ path, file, sha256 }) => ({
      path,
      sha256,
      bytes: new Uint8Array(await readFile(file)),
    })),
  );

/** Hears a sender out for a moment, so that it can read the answer, then hangs up. */
function letGo(ctx: Context): void {
  ctx.set("Connection", "close");
  ctx.req.on("error", () => undefined);
  ctx.req.resume();
  const timer = setTimeout(() => ctx.req.destroy(), 3000);
  timer.unref();
  ctx.req.once("close", () => clearTimeout(timer));
}

const broken = () =>
  new AppError("DOCUMENT_INVALID", "The upload broke off; nothing was kept.", "Drop the files again.");

// biome-ignore lint/complexity/noExcessiveLinesPerFunction: the life of one upload: all its ends share its state
function receive(req: IncomingMessage, own: string, limits: UploadLimits): Promise<Upload> {
  const { maxBytes, maxFiles, wholeMs, idleMs } = limits;
  const tooLarge = () =>
    new AppError(
      "ARCHIVE_TOO_LARGE",
      `The upload is larger than ${Math.round(maxBytes / 1048576)} MB or holds more than ${maxFiles} files.`,
      "Drop only the board's own files.",
    );
  const type = req.headers["content-type"] ?? "";
  // a form may be a little larger than its files
  if (Number(req.headers["content-length"] ?? 0) > maxBytes + 1_000_000) return Promise.reject(tooLarge());
  // biome-ignore lint/complexity/noExcessiveLinesPerFunction: the life of one upload: all its ends share its state
  return new Promise((resolve, reject) => {
    const form = parserOf(type, limits);
    if (!form)
      return reject(
        new AppError("DOCUMENT_INVALID", "The upload is no form with files.", "Drop the files on the page."),
      );
    const files: SpooledFile[] = [];
    const fields = new Map<string, string>();
    const writing: Promise<void>[] = [];
    const open: { destroy(): unknown }[] = [];
    let total = 0;
    const late = (what: string) =>
      new AppError(
        "ARCHIVE_TOO_LARGE",
        `The upload ${what}; nothing was kept.`,
        "Try again over a faster connection.",
      );
    const whole = setTimeout(() => fail(late(`took longer than ${wholeMs / 1000} seconds`)), wholeMs);
    let idle = setTimeout(stalled, idleMs);
    function stalled() {
      fail(late(`stood still for ${idleMs / 1000} seconds`));
    }
    const heard = (chunk: Buffer) => {
      clearTimeout(idle);
      idle = setTimeout(stalled, idleMs);
      total += chunk.length;
      if (total > maxBytes + 1_000_000) fail(tooLarge());
    };
    // may come twice: what is ended is ended, and the first answer counts
    const end = () => {
      clearTimeout(whole);
      clearTimeout(idle);
      req.off("data", heard);
      req.off("aborted", aborted);
      req.off("close", aborted);
    };
    function fail(error: unknown): void {
      end();
      req.unpipe(form);
      form?.destroy();
      for (const stream of open) stream.destroy();
      reject(error);
    }
    const aborted = () => {
      if (!req.complete) fail(broken());
    };
    form.on("error", () => fail(broken()));
    form.on("filesLimit", () => fail(tooLarge()));
    form.on("partsLimit", () => fail(tooLarge()));
    form.on("fieldsLimit", () => fail(tooLarge()));
    form.on("field", (key, value, _k, isCut) => {
      if (isCut) fail(tooLarge());
      else fields.set(String(key), String(value));
    });
    form.on("file", (_field, stream, name) => {
      const n = writing.length;
      open.push(stream);
      const hash = createHash("sha256");
      let size = 0;
      const file = join(own, String(n));
      stream.on("error", () => fail(broken()));
      stream.on("limit", () => fail(tooLarge()));
      stream.on("data", (chunk: Buffer) => {
        size += chunk.length;
        hash.update(chunk);
      });
      writing.push(
        pipeline(stream, createWriteStream(file, { mode: 0o600 })).then(
          () => {
            files[n] = { path: cleanPath(name || "unnamed"), file, size, sha256: hash.digest("hex") };
          },
          (error: NodeJS.ErrnoException) => fail(error.code === "ENOSPC" ? full() : broken()),
        ),
      );
    });
    form.on("finish", () => {
      void Promise.all(writing).then(() => {
        end();
        resolve({ files, fields });
      });
    });
    req.on("data", heard);
    req.on("aborted", aborted);
    req.on("close", aborted);
    req.on("error", () => fail(broken()));
    req.pipe(form);
  });
}

const full = () =>
  new AppError(
    "STORAGE_FULL",
    "The server's disk is full; nothing was kept.",
    "Whoever runs Kobbin can make room; then drop the files again.",
  );

/** The parser of a form, made before anything waits for it; undefined where the type names no form. */
function parserOf(type: string, limits: UploadLimits): BusboyInstance | undefined {
  // a boundary is one to seventy characters (RFC 2046); without one the parser would wait for nothing
  if (!/^multipart\/form-data\s*;(.*;)?\s*boundary=("[^"]{1,70}"|[^\s";]{1,70})\s*(;|$)/i.test(type))
    return undefined;
  try {
    return new Busboy({
      headers: { "content-type": type },
      limits: {
        fileSize: limits.maxBytes,
        files: limits.maxFiles,
        fields: 20,
        parts: limits.maxFiles + 20,
        fieldSize: 200_000,
        fieldNameSize: 200,
        headerPairs: 40,
      },
      preservePath: true,
    });
  } catch {
    return undefined;
  }
}
