import type { Corrections } from "@kobbin/core";
import { http } from "../../resources/http.ts";

/** A small picture as it was painted once, and the board's box in mm. */
export interface Kept {
  readonly bitmap: ImageBitmap;
  readonly box: readonly [number, number, number, number];
}

/** Told apart from pictures that an older painter made. */
const PAINTER = 1;

/**
 * The key of a picture: a hash of all it hangs on beside the board's files. Nothing where the browser makes none: over a network
 * without encryption it keeps its hashes to itself, and pictures are painted there as before.
 */
export async function keyOf(...of: readonly unknown[]): Promise<string | undefined> {
  if (!globalThis.crypto?.subtle) return undefined;
  const bytes = new TextEncoder().encode(JSON.stringify([PAINTER, ...of]));
  const hash = new Uint8Array(await crypto.subtle.digest("SHA-256", bytes));
  return [...hash].map((b) => b.toString(16).padStart(2, "0")).join("");
}

const pathOf = (boardId: string) => `/api/boards/${boardId}/picture`;

const isBox = (v: unknown): v is Kept["box"] =>
  Array.isArray(v) && v.length === 4 && v.every((x) => Number.isFinite(x));

/**
 * The picture somebody's page painted before and brought to the server; nothing where there is none, or where it is not of the
 * size that is wanted: then it is painted anew.
 */
export async function keptPicture(
  boardId: string,
  key: string,
  [widthPx, heightPx]: readonly [number, number],
): Promise<Kept | undefined> {
  const found = await http.picture(`${pathOf(boardId)}?key=${key}`, "X-Box").catch(() => undefined);
  if (!found) return undefined;
  try {
    const box: unknown = JSON.parse(found.header);
    const bitmap = await createImageBitmap(found.blob);
    return isBox(box) && bitmap.width === widthPx && bitmap.height === heightPx ? { bitmap, box } : undefined;
  } catch {
    return undefined;
  }
}

/** A larger one is not small. */
const MOST_BYTES = 350_000;

/**
 * Brings a picture that was painted to the server, for the next page; whether it gets there is nobody's concern.
 *
 * @param under the corrections the files were read under: where they are others by now, it is not kept
 */
export async function bringPicture(
  boardId: string,
  key: string,
  { bitmap, box }: Kept,
  under: Corrections,
): Promise<void> {
  const canvas = new OffscreenCanvas(bitmap.width, bitmap.height);
  canvas.getContext("2d")!.drawImage(bitmap, 0, 0);
  const blob = await canvas.convertToBlob({ type: "image/png" });
  if (blob.size > MOST_BYTES) return;
  const bytes = new Uint8Array(await blob.arrayBuffer());
  let text = "";
  for (const b of bytes) text += String.fromCharCode(b);
  await http.put(pathOf(boardId), { key, box, png: btoa(text), under });
}
