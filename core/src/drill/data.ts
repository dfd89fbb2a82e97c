import type { Finding } from "../findings.ts";

/** A tool of a drill file, as the file states it. */
export interface DrillTool {
  /** "T1", or the stamp's code where drills are written as a layer: "D10". */
  readonly name: string;
  readonly plated: boolean | undefined;
  /** What its holes are for, as the published attribute says it: via, component, press fit and so on, in words. */
  readonly use?: string;
  /** How much larger and how much smaller the finished hole may be, mm. */
  readonly toleranceMm?: readonly [number, number];
}

/** A round hit. */
export interface Hit {
  readonly x: number;
  readonly y: number;
  readonly diameterMm: number;
  readonly tool?: DrillTool;
  /** From tool or file; undefined where nothing says it. */
  readonly plated: boolean | undefined;
}

/** A slot or routed path: the tool's centre follows the points. */
export interface Rout {
  readonly points: readonly (readonly [number, number])[];
  readonly widthMm: number;
  readonly tool?: DrillTool;
  readonly plated: boolean | undefined;
  /** Stated as a slot between two points (G85); a routed path stays a path, even a straight one. */
  readonly isSlot: boolean;
}

/** A drill file as plain data, in mm. */
export interface DrillData {
  readonly hits: readonly Hit[];
  readonly routs: readonly Rout[];
  readonly plated: boolean | "mixed" | undefined;
  readonly fileAttributes: Readonly<Record<string, readonly string[]>>;
  /** False when the file did not state its unit or where its zeros are left out: another reading may fit better. */
  readonly isCertain: boolean;
  readonly isDrillFile: boolean;
  /** Kept only where the reading is not certain, so that another one can be tried. */
  readonly text?: string;
  readonly findings: readonly Finding[];
}

/** How to read coordinates where the file does not say. */
export interface DrillReading {
  readonly unitMm: number;
  /** "keep-leading": missing digits are trailing zeros; "keep-trailing": the number is read as it stands. */
  readonly zeros: "keep-leading" | "keep-trailing";
  readonly integers: number;
  readonly decimals: number;
}

/** The readings tried in turn for a file that states neither unit nor zeros (domain.md 2.2). */
export const READINGS: readonly DrillReading[] = [
  { unitMm: 1, zeros: "keep-trailing", integers: 3, decimals: 3 },
  { unitMm: 25.4, zeros: "keep-trailing", integers: 2, decimals: 4 },
  { unitMm: 1, zeros: "keep-leading", integers: 3, decimals: 3 },
  { unitMm: 25.4, zeros: "keep-leading", integers: 2, decimals: 4 },
  // with zeros kept in front 3.2 puts a number where 3.3 does
  { unitMm: 1, zeros: "keep-trailing", integers: 3, decimals: 2 },
];
