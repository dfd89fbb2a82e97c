/** Letters kept of what somebody else says. */
const MOST = 200;

/**
 * Somebody else's words as they may be kept and shown: in one line, without what no database keeps or no screen shows,
 * cut where they are long.
 */
export function plainWords(said: unknown, most = MOST): string {
  if (typeof said !== "string") return "";
  const line = said
    .slice(0, most * 20)
    // what steers a screen or turns the direction of reading, and halves of characters
    .replace(/[\p{Cc}\p{Cf}\p{Cs}\p{Co}\p{Cn}]+/gu, " ")
    .replace(/\s+/g, " ")
    .trim();
  const letters = [...line];
  return letters.length > most ? `${letters.slice(0, most - 1).join("")}…` : line;
}
