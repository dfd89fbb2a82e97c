import type { Finding } from "../findings.ts";
import type { Account } from "../table/account.ts";
import type { LengthUnit } from "./column.ts";

/** One part put at one place; the rotation as stated, counter-clockwise, bottom side not mirrored. */
export interface Placement {
  readonly ref: string;
  readonly xMm: number;
  readonly yMm: number;
  readonly rotationDeg: number;
  readonly side: "top" | "bottom";
}

/** A placement file as read. */
export interface Placements {
  readonly unit: LengthUnit;
  readonly parts: readonly Placement[];
  readonly findings: readonly Finding[];
  /** No unit is stated anywhere: millimetres were taken. */
  readonly isUnitAssumed?: boolean;
  readonly account?: Account;
}
