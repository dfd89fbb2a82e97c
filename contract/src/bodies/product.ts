import * as yup from "yup";
import { name, version } from "./fields.ts";

/** What of a board may be changed beside its files. */
export const boardBody = yup.object({
  version,
  name,
  perProduct: yup.number().integer().min(1, "A board is in the product once at least.").max(1000),
});
export type BoardBody = yup.InferType<typeof boardBody>;

const roles = [
  "copper",
  "mask",
  "legend",
  "paste",
  "profile",
  "drill",
  "job",
  "netlist",
  "bom",
  "placement",
  "score",
  "drawing",
  "unknown",
] as const;
export const correctionsBody = yup.object({
  roles: yup
    .mixed<
      Record<
        string,
        { role: (typeof roles)[number]; side?: "top" | "bottom" | "inner"; index?: number; plated?: boolean }
      >
    >()
    .test(
      "roles",
      "A role is not known.",
      (v) => v === undefined || Object.values(v).every((r) => roles.includes(r.role)),
    ),
  columns: yup.mixed<Record<string, Record<string, string>>>(),
  moves: yup
    .mixed<Record<string, { dxMm: number; dyMm: number; isMirrored?: boolean }>>()
    .test(
      "moves",
      "A move is no shift in millimetres.",
      (v) =>
        v === undefined ||
        Object.values(v).every(
          (m) =>
            Math.abs(Number(m?.dxMm)) < 5000 &&
            Math.abs(Number(m?.dyMm)) < 5000 &&
            Object.keys(m).length <= 3,
        ),
    ),
});
export type CorrectionsBody = yup.InferType<typeof correctionsBody>;
