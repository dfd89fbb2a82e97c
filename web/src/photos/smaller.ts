import { PHOTO_BYTES } from "@kobbin/formats";

/** The longest side of a photo that is kept, pixels: a bad joint and the print on a part can be read, and it takes a few hundred kB. */
const LONGEST = 1600;

/** How large a picture is drawn so that no side is longer than it may be; never larger than it is. */
export function fitted(width: number, height: number, longest = LONGEST): { width: number; height: number } {
  const by = Math.min(1, longest / Math.max(width, height));
  return { width: Math.max(1, Math.round(width * by)), height: Math.max(1, Math.round(height * by)) };
}

/**
 * A photo as it may be kept: turned upright, made smaller, drawn anew, so that nothing of what the camera wrote beside the
 * picture is left. As base 64.
 *
 * @throws Error in words where it is no picture the browser can read
 */
export async function smaller(photo: Blob): Promise<string> {
  let picture: ImageBitmap;
  try {
    picture = await createImageBitmap(photo, { imageOrientation: "from-image" });
  } catch {
    throw new Error("That is no picture this browser can read.");
  }
  try {
    // a noisy picture takes more: it is made smaller until it may be kept
    for (let longest = LONGEST; longest > 200; longest = Math.round(longest * 0.8)) {
      const blob = await drawn(picture, longest);
      if (blob.size <= PHOTO_BYTES) return await base64Of(blob);
    }
    throw new Error("The photo is too large to be kept.");
  } finally {
    picture.close();
  }
}

function drawn(picture: ImageBitmap, longest: number): Promise<Blob> {
  const { width, height } = fitted(picture.width, picture.height, longest);
  const canvas = document.createElement("canvas");
  Object.assign(canvas, { width, height });
  const to = canvas.getContext("2d")!;
  // what is clear in a picture with alpha is paper, not black
  to.fillStyle = "#fff";
  to.fillRect(0, 0, width, height);
  to.imageSmoothingQuality = "high";
  to.drawImage(picture, 0, 0, width, height);
  return new Promise((done, fail) =>
    canvas.toBlob(
      (b) => (b ? done(b) : fail(new Error("The photo could not be drawn."))),
      "image/jpeg",
      0.82,
    ),
  );
}

function base64Of(blob: Blob): Promise<string> {
  return new Promise((done, fail) => {
    const reader = new FileReader();
    reader.onload = () => done(String(reader.result).replace(/^[^,]*,/, ""));
    reader.onerror = () => fail(new Error("The photo could not be read."));
    reader.readAsDataURL(blob);
  });
}
