import type { Work, WorkPart } from "./step.ts";

/** A part of made-up work: on paste, on top, with nothing known of it. */
export const madePart = (ref: string, more: Partial<WorkPart> = {}): WorkPart => ({
  name: ref,
  ref,
  board: 0,
  line: `line ${ref}`,
  side: "top",
  how: "paste",
  canIron: true,
  isThrough: false,
  isPolarised: false,
  joints: 2,
  isMoist: false,
  opensOnce: false,
  covers: [],
  micros: 100_000,
  minutes: 2,
  trimMinutes: 0,
  defects: 0.002,
  ...more,
});

/** Made-up work of one board, ten products, half a money a minute. */
export const madeWork = (parts: readonly WorkPart[], more: Partial<Work> = {}): Work => ({
  boards: [{ name: "Board", printMinutes: 10, heatMinutes: 20, ironMinutes: 0 }],
  parts,
  given: [],
  programAt: [],
  testAt: [],
  programLoose: [],
  minutes: { kit: 5, inspect: 12, test: 15, seal: 10 },
  loose: [],
  school: "low",
  start: 10,
  minuteMicros: 500_000,
  repairable: 0.92,
  bagMinutes: 0.75,
  ...more,
});
