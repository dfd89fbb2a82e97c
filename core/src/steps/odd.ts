import type { ODD_NAMES } from "../shape/choice-fields.ts";

/** Ways to solder that are unlike the others: a part that has one is a step of its own. */
export const ODD_WAYS = {
  flipped: {
    label: "on its back",
    words: "lies on its back",
    how: "Turned about its length its ends stay where they are; turned about its width they change places, and so does its mark. One is soldered and lit before the rest.",
  },
  lid: {
    label: "metal to the board, much heat",
    words: "metal to the board",
    how: "Both sides tinned, one corner tacked, then along the edges with flux and the widest tip. The board is held by a frame, not by hand: it stays hot for minutes.",
  },
  far: {
    label: "soldered from the far side",
    words: "soldered from the far side",
    how: "Held flat from its own side while the board is turned; one joint, a look from above, then the rest. Pin 1 is mirrored as seen from where the solder goes.",
  },
  gentle: {
    label: "little heat",
    words: "little heat",
    how: "The lower end of the tip's range, 2 s a joint, the next joint on another part while this one cools.",
  },
} as const satisfies Record<(typeof ODD_NAMES)[number], unknown>;
export type OddWay = keyof typeof ODD_WAYS;
