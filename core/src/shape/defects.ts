/** Where a defect lies, and what it is there (domain.md 9.7). */
export const DEFECT_CODES = {
  joint: [
    "bridge",
    "too little",
    "too much",
    "open",
    "cold",
    "stood up",
    "void",
    "not wetted",
    "ball",
    "lifted lead",
  ],
  placement: ["missing", "wrong part", "wrong way round", "shifted", "flipped", "one too many"],
  part: ["damaged", "dead", "out of tolerance"],
  board: ["board short", "board open", "lifted pad", "mask", "drill", "warped", "dirty"],
  process: ["programming", "handling", "looks"],
  design: ["footprint", "wrong net", "too close"],
} as const;
export type DefectClass = keyof typeof DEFECT_CODES;
export type DefectCode = (typeof DEFECT_CODES)[DefectClass][number];
/** Every code, class by class. */
export const ALL_DEFECTS = Object.values(DEFECT_CODES).flat() as readonly DefectCode[];
