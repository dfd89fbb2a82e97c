import { isVersion, isWithin } from "../../program/version.ts";
import type { ImageFit, ProgramImage } from "../document/document.ts";

/** Whether an image may be loaded into a board, and why. */
export interface Fits {
  readonly is: ImageFit["is"] | "unknown";
  readonly because: string;
}

const key = (text: string): string => text.trim().toLowerCase().replace(/\s+/g, " ");

/**
 * Holds an image against what was said of its versions on the revisions of the board (domain.md 9.8). The row of the board
 * as it is counts first: "A + 1 rework"; where none is said, that of its revision, and that is said. Of rows that
 * contradict each other the one that refuses counts.
 *
 * @param effective the revision of the board with what was done to it, where something was
 */
export function imageFits(
  image: Pick<ProgramImage, "name" | "version" | "fits">,
  revision: string,
  effective = revision,
): Fits {
  const { fits, version } = image;
  const what = `${image.name}${version ? ` ${version}` : ""}`;
  if (fits.length === 0) return { is: "unknown", because: `Nobody said on which revisions ${what} runs.` };
  if (!isVersion(version))
    return { is: "unknown", because: `${what} has no version that could be held against its revisions.` };
  const unread = fits.find((f) => isWithin(version, f.versions) === undefined);
  if (unread)
    return {
      is: "unknown",
      because: `“${unread.versions}” is no range of versions: write it as 1.4–1.9 or ≥ 2.0.`,
    };
  const rowsOf = (label: string) =>
    fits.filter((f) => key(f.revision) === key(label) && isWithin(version, f.versions));
  const own = rowsOf(effective);
  const rows = own.length > 0 ? own : rowsOf(revision);
  if (rows.length === 0)
    return { is: "unknown", because: `Nobody said whether ${what} runs on ${effective}.` };
  const row = rows.find((f) => f.is === "no") ?? rows.find((f) => f.is === "limits") ?? rows[0]!;
  const as = own.length > 0 ? effective : `${revision}, and nobody said it of ${effective}`;
  const why = row.why ? `: ${row.why}` : "";
  return {
    is: row.is,
    because:
      row.is === "no"
        ? `${what} is not for ${as}${why}.`
        : row.is === "limits"
          ? `${what} runs on ${as}, with limits${why}.`
          : `${what} runs on ${as}${why}.`,
  };
}

/** What a program said when it was loaded, held against what it should say: blanks and case do not count. Nothing where nothing is expected, or nothing was said. */
export function answersRight(image: Pick<ProgramImage, "expect">, said: string): boolean | undefined {
  const [want, got] = [key(image.expect), key(said)];
  return want === "" || got === "" ? undefined : got.includes(want);
}

/** Words of a text that look as if they should stay with one shop or one board: a password, a key, the name of a network. */
export function secretsIn(text: string): string[] {
  const named =
    /\b(pass(?:word|phrase|wd)?|psk|ssid|secret|token|api[_-]?key|private[_-]?key)\b\s*["']?\s*[:=]\s*["']?([^\s"']{3,})/gi;
  return [...text.matchAll(named)]
    .filter(([, , value]) => !/^(<.*>|\{.*\}|\$\w+|\$\{.*\}|%\w+%?|x{3,}|\*{3,}|…)$/i.test(value!))
    .map(([, name]) => name!.toLowerCase());
}
