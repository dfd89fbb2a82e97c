import { Readable } from "node:stream";
import { buffer } from "node:stream/consumers";
import { cleanPath } from "@kobbin/formats";
import yazl from "yazl";

/** A name no other entry of the archive has. */
function unique(names: Set<string>, name: string): string {
  const clean = cleanPath(name);
  let at = clean;
  for (let n = 2; names.has(at.toLowerCase()); n++) at = clean.replace(/(\.[^./]*)?$/, ` (${n})$1`);
  names.add(at.toLowerCase());
  return at;
}

/** Packs files into a zip, off the main thread; names are cleaned, and told apart where two are one. */
export async function zipOf(
  files: readonly { readonly path: string; readonly bytes: Uint8Array }[],
  modified: Date,
): Promise<Buffer> {
  const zip = new yazl.ZipFile();
  const names = new Set<string>();
  for (const f of files)
    zip.addBuffer(
      Buffer.from(f.bytes.buffer, f.bytes.byteOffset, f.bytes.byteLength),
      unique(names, f.path),
      {
        mtime: modified,
      },
    );
  zip.end();
  return buffer(zip.outputStream);
}

/** An entry of a zip that is written while it is read: its bytes are asked for when its turn has come. */
export interface LazyEntry {
  readonly path: string;
  readonly bytes: () => Promise<Uint8Array>;
}

/** A zip as a stream that goes as fast as its reader; one entry lies in memory at a time. */
export function zipStream(entries: readonly LazyEntry[], modified: Date): Readable {
  const zip = new yazl.ZipFile();
  for (const e of entries)
    zip.addReadStreamLazy(e.path, { mtime: modified }, (give) => {
      e.bytes().then(
        (bytes) => give(null, Readable.from([Buffer.from(bytes.buffer, bytes.byteOffset, bytes.byteLength)])),
        (error) => give(error as Error, undefined as never),
      );
    });
  zip.end();
  zip.on("error", (error) => (zip.outputStream as Readable).destroy(error as Error));
  return zip.outputStream as Readable;
}
