/** A photo as it may be kept: its bytes without anything that tells of place, time, maker or owner, and how large it is. */
export interface PlainPhoto {
  readonly bytes: Uint8Array;
  readonly widthPx: number;
  readonly heightPx: number;
}

/** Why a photo is not kept, in words, and what to do. */
export interface NoPhoto {
  readonly wrong: string;
  readonly hint: string;
}

/** The longest side of a photo that is kept, pixels: a page makes it smaller before it sends it. */
export const PHOTO_PX = 2000;
/** The most bytes of one. */
export const PHOTO_BYTES = 1_500_000;

const SOI = 0xd8;
const EOI = 0xd9;
const SOS = 0xda;
const no = (wrong: string, hint = "Take it again, or save it as a JPEG first."): NoPhoto => ({ wrong, hint });

/** Tables and frames a decoder needs; what else stands in a file is for other readers, and is left out. */
const isNeeded = (marker: number): boolean =>
  marker === 0xdb || marker === 0xc4 || marker === 0xdd || marker === SOS || isFrame(marker);
/** Start of a frame that browsers show: baseline, extended, progressive. */
const isFrame = (marker: number): boolean => marker >= 0xc0 && marker <= 0xc2;
/** Markers without a length: restarts within the picture, and the filler. */
const isBare = (marker: number): boolean => (marker >= 0xd0 && marker <= 0xd7) || marker === 0x01;

/**
 * Takes out of a JPEG all that is not the picture: what a camera writes of place, time and itself, small pictures beside it,
 * comments, whatever lies behind its end (ITU-T T.81 B.1.1: segments of a marker and a length of two bytes). The picture's own
 * bytes stay as they are. A picture that says it is to be turned is refused: without those words it would lie on its side.
 *
 * @param bytes of the file, of anybody
 */
export function plainJpeg(bytes: Uint8Array): PlainPhoto | NoPhoto {
  if (bytes.length > PHOTO_BYTES)
    return no(
      `The photo takes ${(bytes.length / 1e6).toFixed(1)} MB.`,
      "Make it smaller: 1.5 MB is the most.",
    );
  if (bytes[0] !== 0xff || bytes[1] !== SOI) return no("This is no JPEG photo.");
  const kept: Uint8Array[] = [bytes.subarray(0, 2)];
  let size: { widthPx: number; heightPx: number } | undefined;
  let hasScan = false;
  let at = 2;
  while (at < bytes.length) {
    if (bytes[at] !== 0xff) return no("The photo is damaged.");
    // a marker may be filled up before
    while (bytes[at + 1] === 0xff) at++;
    const marker = bytes[at + 1];
    if (marker === undefined) break;
    if (marker === EOI) {
      if (!size || !hasScan) return no("The photo holds no picture.");
      return { bytes: joined([...kept, bytes.subarray(at, at + 2)]), ...size };
    }
    if (isBare(marker)) {
      at += 2;
      continue;
    }
    const length = (bytes[at + 2]! << 8) | bytes[at + 3]!;
    let end = at + 2 + length;
    if (!(length >= 2) || end > bytes.length) break;
    const body = bytes.subarray(at + 4, end);
    if (isTurned(marker, body))
      return no(
        "The photo lies on its side and only says how it is to be turned.",
        "Turn it upright and save it.",
      );
    if (isFrame(marker)) {
      if (size) return no("The photo holds more than one picture.");
      if (body.length < 6) return no("The photo is damaged.");
      size = { heightPx: (body[1]! << 8) | body[2]!, widthPx: (body[3]! << 8) | body[4]! };
      const most = Math.max(size.widthPx, size.heightPx);
      if (!(Math.min(size.widthPx, size.heightPx) > 0)) return no("The photo has no size.");
      if (most > PHOTO_PX)
        return no(`The photo is ${most} pixels long.`, `Make it smaller: ${PHOTO_PX} is the most.`);
    } else if (marker > 0xc2 && marker < 0xd0 && marker !== 0xc4) {
      return no("The photo is of a kind that browsers do not show.");
    }
    if (marker === SOS) {
      if (!size) return no("The photo is damaged.");
      hasScan = true;
      end = endOfScan(bytes, end);
    }
    if (isNeeded(marker) || isColour(marker, body)) kept.push(bytes.subarray(at, end));
    at = end;
  }
  return no("The photo breaks off.");
}

/** Where the coded picture ends: at the next marker that is no restart and no coded 0xFF. */
function endOfScan(bytes: Uint8Array, from: number): number {
  let at = from;
  while (at < bytes.length) {
    if (bytes[at] === 0xff) {
      const next = bytes[at + 1]!;
      if (next !== 0 && next !== 0xff && !isBare(next)) return at;
    }
    at++;
  }
  return bytes.length;
}

/** What says how its colours are coded: twelve bytes after "Adobe". Without it a picture may come out green. */
const isColour = (marker: number, body: Uint8Array): boolean =>
  marker === 0xee && body.length === 12 && latin(body.subarray(0, 5)) === "Adobe";

/** Whether a camera's segment says that the picture is not upright (tag 0x0112 of its first directory, other than 1). */
function isTurned(marker: number, body: Uint8Array): boolean {
  if (marker !== 0xe1 || body.length < 20 || latin(body.subarray(0, 4)) !== "Exif") return false;
  const tiff = new DataView(body.buffer, body.byteOffset + 6, body.length - 6);
  const little = tiff.getUint16(0) === 0x4949;
  const first = tiff.getUint32(4, little);
  if (first + 2 > tiff.byteLength) return false;
  const many = tiff.getUint16(first, little);
  for (let n = 0; n < many; n++) {
    const entry = first + 2 + 12 * n;
    if (entry + 12 > tiff.byteLength) return false;
    if (tiff.getUint16(entry, little) === 0x0112) return tiff.getUint16(entry + 8, little) > 1;
  }
  return false;
}

const latin = (bytes: Uint8Array): string => String.fromCharCode(...bytes);

function joined(parts: readonly Uint8Array[]): Uint8Array {
  const whole = new Uint8Array(parts.reduce((n, p) => n + p.length, 0));
  let at = 0;
  for (const p of parts) {
    whole.set(p, at);
    at += p.length;
  }
  return whole;
}
