import type { PackageClass } from "@kobbin/core";

/** Shapes of joints that look alike when they are well. */
const LOOKS = ["chip", "lead", "below", "through"] as const;
export type JointLook = (typeof LOOKS)[number];

/** How the joints of a package look; nothing for what has none, or none that can be seen. */
export function lookOf(kind: PackageClass): JointLook | undefined {
  switch (kind) {
    case "chip":
    case "chip0402":
    case "chip0201":
    case "diode":
      return "chip";
    case "small":
    case "gull":
    case "gullFine":
    case "tab":
    case "connector":
      return "lead";
    case "leadless":
      return "below";
    case "through":
      return "through";
    case "ball":
    case "loose":
      return undefined;
  }
}
