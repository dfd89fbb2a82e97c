import type { Finding } from "../findings.ts";

/** What the numbers of a column of rotations are, where nothing says so. */
export interface TurnUnit {
  /** Degrees in one. */
  readonly degrees: number;
  readonly finding?: Omit<Finding, "file">;
}

const round = (v: number) => Math.round(v * 1e6) / 1e6;

/**
 * Weighs numbers of rotations that state no unit: degrees, unless they go far beyond a whole turn and are whole ones as
 * tenths, hundredths or thousandths, or are parts of π. What is taken for anything else than degrees is said; what could
 * be either is said too.
 *
 * @param turns the numbers as written
 */
export function weighTurns(turns: readonly number[]): TurnUnit {
  const some = turns.filter((t) => t !== 0);
  const most = Math.max(0, ...some.map(Math.abs));
  const taken = (degrees: number, name: string, example: number): TurnUnit => ({
    degrees,
    finding: {
      tag: "placement-turn-unit",
      level: "warning",
      text: `Rotations such as ${round(example)} are no degrees; ${name} were taken: ${round(example * degrees)}°.`,
      do: "Look at the parts on the picture, or write the rotation in degrees.",
    },
  });
  const radians = (t: number) => Math.abs((t * 12) / Math.PI - Math.round((t * 12) / Math.PI)) < 0.01;
  if (some.length > 0 && most <= 2 * Math.PI + 0.01 && some.every((t) => !Number.isInteger(t) && radians(t)))
    return taken(180 / Math.PI, "radians", some[0]!);
  if (most <= 360) return { degrees: 1 };
  const name = { 0.1: "tenths", 0.01: "hundredths", 0.001: "thousandths" } as const;
  for (const degrees of [0.1, 0.01, 0.001] as const)
    if (most * degrees <= 360 && most > 720 && some.every((t) => Number.isInteger(round(t * degrees))))
      return taken(degrees, `${name[degrees]} of a degree`, most);
  return {
    degrees: 1,
    finding: {
      tag: "placement-turn-unit",
      level: "warning",
      text: `A rotation of ${round(most)} is more than a whole turn; it was read as degrees: ${round(((most % 360) + 360) % 360)}°.`,
      do: "Check that rotations are in degrees.",
    },
  };
}
