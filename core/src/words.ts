/** With a capital first; what begins with a digit or a sign stays. */
export const capital = (text: string): string => text.replace(/^./u, (c) => c.toUpperCase());

/** What people wrote, as a sentence: with a stop where it has none of its own. */
export const sentence = (text: string): string => text.trim().replace(/[.!?]?$/, (end) => end || ".");
