/** Something that is said in passing. */
export interface Message {
  readonly id: number;
  readonly text: string;
  readonly hint?: string | undefined;
  readonly isProblem: boolean;
  readonly undo?: (() => void) | undefined;
}

/** So many are shown at once. */
const SHOWN = 3;

/** With a new one; what failed, then what can be taken back, is not pushed away by what only goes by. */
export function withMessage(all: readonly Message[], next: Message): Message[] {
  const rank = (m: Message) => (m.isProblem ? 2 : m.undo ? 1 : 0);
  const kept = [...all].sort((a, b) => rank(b) - rank(a) || b.id - a.id).slice(0, SHOWN - 1);
  return [...all.filter((m) => kept.includes(m)), next];
}
