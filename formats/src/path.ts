/**
 * A file's name as it may be kept, packed and unpacked anywhere: forward slashes, no drive, no way out of its folder,
 * no control characters, no empty part, at most so long. Case, blanks and letters of any script stay.
 *
 * @example cleanPath("..\\..\\etc/passwd") // "etc/passwd"
 */
export function cleanPath(name: string): string {
  const parts = name
    .replace(HALF, "")
    .replace(CONTROL, "")
    .replaceAll("\\", "/")
    .replace(/^([a-z]:)+/i, "")
    .split("/")
    // a dot or a blank at the end is dropped by some file systems, which would make two names one
    .map((p) => p.trim().replace(/[. ]+$/, ""))
    .filter((p) => p !== "" && !/^\.+$/.test(p))
    .map((p) => (p.length > 120 ? `${p.slice(0, 100)}${p.slice(-20)}` : p));
  const path = parts.slice(-8).join("/");
  return path === "" ? "unnamed" : path;
}

// control characters, and the marks that turn the direction of a text
// biome-ignore lint/suspicious/noControlCharactersInRegex: they are what is taken out
const CONTROL = /[\u0000-\u001f\u007f-\u009f\u200e\u200f\u202a-\u202e\u2066-\u2069]/g;
/** Half of a character that takes two. */
const HALF = /[\uD800-\uDBFF](?![\uDC00-\uDFFF])|(?<![\uD800-\uDBFF])[\uDC00-\uDFFF]/g;
