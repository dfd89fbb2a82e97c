/** A revision with what was done to a board of it: "B + 2 reworks". */
export const reworkedRevision = (revision: string, reworks: number): string =>
  reworks === 0 ? revision : `${revision} + ${reworks === 1 ? "1 rework" : `${reworks} reworks`}`;
