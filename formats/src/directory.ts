import { Inflate, inflateSync, strFromU8 } from "fflate";

/** An entry of an archive as its directory tells it; nothing is unpacked yet. */
export interface ZipEntry {
  readonly name: string;
  readonly size: number;
  readonly packedSize: number;
  readonly isEncrypted: boolean;
  readonly method: number;
  readonly crc: number;
  /** Where its packed bytes lie. */
  readonly from: number;
}

const u16 = (b: Uint8Array, p: number) => b[p]! | (b[p + 1]! << 8);
const u32 = (b: Uint8Array, p: number) => (u16(b, p) | (u16(b, p + 2) << 16)) >>> 0;
const u64 = (b: Uint8Array, p: number) => u32(b, p) + u32(b, p + 4) * 2 ** 32;

/** Where the directory's own end stands; undefined where the archive does not end with one. */
export function endOf(b: Uint8Array): number | undefined {
  for (let p = b.length - 22; p >= Math.max(0, b.length - 65557); p--) if (u32(b, p) === 0x06054b50) return p;
  return undefined;
}

/**
 * The entries of an archive by the directory at its end, which alone says where each lies and how long it is: an
 * archive inside holds marks that would be taken for the outer one's otherwise.
 *
 * @param most entries that are read; more make the list one longer than that
 * @returns undefined where there is no directory, or it names places that are not there or lie over each other
 */
export function readDirectory(b: Uint8Array, most: number): ZipEntry[] | undefined {
  const end = endOf(b);
  if (end === undefined) return undefined;
  let [count, size, offset] = [u16(b, end + 10), u32(b, end + 12), u32(b, end + 16)];
  // the long form stands before the short one
  const locator = end - 20;
  if (locator >= 0 && u32(b, locator) === 0x07064b50) {
    const long = u64(b, locator + 8);
    if (long + 56 <= b.length && u32(b, long) === 0x06064b50)
      [count, size, offset] = [u64(b, long + 32), u64(b, long + 40), u64(b, long + 48)];
  } else if (offset + size > end) return undefined;
  // something may stand before the archive: every place is shifted by it then
  const shift = locator >= 0 && u32(b, locator) === 0x07064b50 ? 0 : end - (offset + size);
  const entries: ZipEntry[] = [];
  const spans: [number, number][] = [];
  let p = offset + shift;
  for (let n = 0; n < count; n++) {
    if (p + 46 > b.length || u32(b, p) !== 0x02014b50) return undefined;
    const [flags, method] = [u16(b, p + 8), u16(b, p + 10)];
    let [packedSize, full, local] = [u32(b, p + 20), u32(b, p + 24), u32(b, p + 42)];
    const [nameLength, extraLength, noteLength] = [u16(b, p + 28), u16(b, p + 30), u16(b, p + 32)];
    if (p + 46 + nameLength + extraLength > b.length) return undefined;
    for (let x = p + 46 + nameLength; x + 4 <= p + 46 + nameLength + extraLength; ) {
      const [id, length] = [u16(b, x), u16(b, x + 2)];
      if (id === 1) {
        let at = x + 4;
        const long = () => {
          at += 8;
          return at <= x + 4 + length ? u64(b, at - 8) : Number.NaN;
        };
        if (full === 0xffffffff) full = long();
        if (packedSize === 0xffffffff) packedSize = long();
        if (local === 0xffffffff) local = long();
      }
      x += 4 + length;
    }
    const head = local + shift;
    if (!(head >= 0 && head + 30 <= b.length) || u32(b, head) !== 0x04034b50) return undefined;
    const from = head + 30 + u16(b, head + 26) + u16(b, head + 28);
    if (!(from + packedSize <= b.length)) return undefined;
    spans.push([head, from + packedSize]);
    entries.push({
      name: strFromU8(b.subarray(p + 46, p + 46 + nameLength), (flags & 0x800) === 0),
      size: full,
      packedSize,
      isEncrypted: (flags & 1) !== 0,
      method,
      crc: u32(b, p + 16),
      from,
    });
    if (entries.length > most) return entries;
    p += 46 + nameLength + extraLength + noteLength;
  }
  spans.sort((x, y) => x[0] - y[0]);
  for (let i = 1; i < spans.length; i++) if (spans[i]![0] < spans[i - 1]![1]) return undefined;
  return entries;
}

/** Packed bytes up to which the quick way is taken: were its size a lie, it would be noticed within a second. */
const QUICK = 500_000;

/** An entry's bytes; never more than its directory says. @returns undefined where it is damaged */
export function unpackEntry(b: Uint8Array, e: ZipEntry): Uint8Array | undefined {
  const packed = b.subarray(e.from, e.from + e.packedSize);
  try {
    const bytes =
      e.method === 0
        ? packed.slice()
        : e.method !== 8
          ? undefined
          : e.packedSize <= QUICK
            ? inflateSync(packed, { out: new Uint8Array(e.size) })
            : inflateBounded(packed, e.size);
    return bytes && bytes.length === e.size && crc32(bytes) === e.crc ? bytes : undefined;
  } catch {
    return undefined;
  }
}

function inflateBounded(packed: Uint8Array, size: number): Uint8Array {
  const out = new Uint8Array(size);
  let at = 0;
  const inflate = new Inflate((chunk) => {
    if (at + chunk.length > size) throw new Error("longer than announced");
    out.set(chunk, at);
    at += chunk.length;
  });
  for (let p = 0; p < packed.length; p += 65536)
    inflate.push(packed.subarray(p, p + 65536), p + 65536 >= packed.length);
  return out.subarray(0, at);
}

const TABLE = Int32Array.from({ length: 256 }, (_, n) => {
  let c = n;
  for (let k = 0; k < 8; k++) c = c & 1 ? (c >>> 1) ^ 0xedb88320 : c >>> 1;
  return c;
});

/** The check sum of an archive's entries (CRC-32, reversed 0xEDB88320). @example crc32 of "123456789" is 0xcbf43926 */
export function crc32(bytes: Uint8Array): number {
  let c = -1;
  for (let i = 0; i < bytes.length; i++) c = TABLE[(c ^ bytes[i]!) & 255]! ^ (c >>> 8);
  return ~c >>> 0;
}
