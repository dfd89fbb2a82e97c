/** What a finish is, told by its value and its name alike: a house may call it as it likes. */
export interface FinishKind {
  readonly isGold: boolean;
  /** Hard gold, which lasts under a socket; thin gold wears through. */
  readonly isHard: boolean;
  /** Solder, levelled: uneven, so no contact and hard for fine pitch. */
  readonly isLevelled: boolean;
  readonly isLeaded: boolean;
  /** Flat without being gold: silver, tin, organic. */
  readonly isFlat: boolean;
}

/** Tells what a finish is. @param o an option, or just the word somebody wished */
export function finishKind(o: { readonly value: string; readonly label?: string }): FinishKind {
  const text = `${o.value} ${o.label ?? ""}`.toLowerCase();
  const isGold = /gold|\benig\b|\benepig\b/.test(text);
  return {
    isGold,
    isHard: isGold && /hard/.test(text),
    isLevelled: /levell?ed|\bhasl\b/.test(text),
    isLeaded: /(?<!non-)\bleaded\b/.test(text),
    isFlat: !isGold && /immersion|organic|preserv|\bosp\b/.test(text),
  };
}
