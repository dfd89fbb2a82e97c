import { shapes } from "@kobbin/core";

type Code = shapes.DefectCode;
type Class = shapes.DefectClass;

/** The key of each code that is found often; the others are pressed. */
export const FAULT_KEYS: Readonly<Partial<Record<Code, string>>> = {
  bridge: "b",
  "too little": "l",
  "too much": "e",
  open: "o",
  cold: "c",
  "stood up": "u",
  void: "v",
  "not wetted": "n",
  ball: "a",
  "lifted lead": "i",
  missing: "m",
  "wrong part": "w",
  "wrong way round": "r",
  shifted: "s",
  flipped: "f",
  "one too many": "t",
  damaged: "d",
  dead: "k",
  "out of tolerance": "g",
};

const WORDS: Readonly<Record<Class, string>> = {
  joint: "The joint",
  placement: "Where it sits",
  part: "The part",
  board: "The board",
  process: "How it was handled",
  design: "How it was drawn",
};
/** Codes class by class, as they stand on the pad. */
export const FAULTS: readonly { readonly name: string; readonly codes: readonly Code[] }[] = (
  Object.keys(shapes.DEFECT_CODES) as Class[]
).map((c) => ({ name: WORDS[c], codes: shapes.DEFECT_CODES[c] }));
