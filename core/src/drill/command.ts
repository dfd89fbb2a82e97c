/** A letter and its number as it is written. */
export type Word = readonly [letter: string, number: string];

/** What a line of the body is: a command, text that drills nothing, or one that says what to drill and cannot be read. */
export type Command =
  | { readonly kind: "words"; readonly words: readonly Word[] }
  | { readonly kind: "text"; readonly isNamed: boolean }
  | { readonly kind: "damaged"; readonly why: string };

/** Words that say what is drilled where, each once and with a number. */
const ONCE = new Set("XYRAIJT");
/** Words of how the machine works that may stand beside them: line number, feed, speed, depths. */
const HARMLESS = new Set("NFSZHBQ");

/** A letter and its number. */
const WORD = /([A-Z])([-+]?\d*\.?\d*)/g;

/** A line without its comments, behind `;` or in brackets, and what they say. */
export function withoutComments(line: string): readonly [bare: string, comment: string] {
  const comments = line.match(/;.*$|\([^)]*\)/g) ?? [];
  return [line.replace(/;.*$|\([^)]*\)/g, "").trim(), comments.join(" ")];
}

/**
 * Reads a line of a drill file's body as words, in the order they stand.
 *
 * A line that says a place or a tool and is no row of letters with a number each, has a letter nobody knows, one without
 * its number or one twice is damaged: what it drills is not guessed. O(length).
 *
 * @param line one line in capitals, without comments
 * @returns its words, or why it has none
 * @example commandOf("X1.0Y") // { kind: "damaged", why: "Y has no number" }
 */
export function commandOf(line: string): Command {
  // named statements, and a wait, whose number is a time
  if (/^(FMAT|VER|DETECT|ATC|ICI|OSTOP|R,|VI|M47|M45)|^G0?4(?!\d)/.test(line))
    return { kind: "text", isNamed: true };
  const bare = line.replace(/\s/g, "");
  const words = [...bare.matchAll(WORD)].map((m): Word => [m[1]!, m[2]!]);
  const [stray] = bare.replace(WORD, " ").trim().split(" ");
  const unknown = words.find(([l]) => !"GM".includes(l) && !ONCE.has(l) && !HARMLESS.has(l));
  const why = stray
    ? `“${stray}” belongs to no letter`
    : unknown
      ? `what ${unknown[0]} says there is not known`
      : faultOf(words);
  if (why === undefined) return { kind: "words", words };
  // a place, a tool, or nothing but letters of places and tools
  const isCommand = /[XY][-+]?[.\d]|^T\d|^[-+.\dXYAIJRTGM]*$/.test(bare);
  return isCommand ? { kind: "damaged", why } : { kind: "text", isNamed: false };
}

/** What keeps a row of known letters from being a command. */
function faultOf(words: readonly Word[]): string | undefined {
  // a slot has two places with G85 between them
  const middle = words.findIndex(([l, n]) => l === "G" && Number(n) === 85);
  const halves = middle < 0 ? [words] : [words.slice(0, middle), words.slice(middle)];
  for (const half of halves) {
    const letters = half.map(([l]) => l);
    const twice = letters.find((l, i) => ONCE.has(l) && letters.indexOf(l) < i);
    if (twice) return `${twice} stands twice`;
  }
  const bare = words.find(([l, n]) => !HARMLESS.has(l) && !/\d/.test(n));
  if (bare) return `${bare[0]} has no number`;
  if (middle >= 0 && !halves[1]!.some(([l]) => l === "X" || l === "Y")) return "the slot has no end";
  return undefined;
}
