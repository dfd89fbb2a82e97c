import type { FitJudged } from "@kobbin/core";

/** What a verdict of the fit sheet is called. */
export const FIT_WORDS = {
  fits: "fits",
  "may-not-fit": "does not always fit",
  "does-not-fit": "does not fit",
  loose: "fits loosely",
  unknown: "cannot be judged",
} as const satisfies Record<FitJudged["verdict"], string>;

/** A row's verdict: a place is what it is meant to be, everything else fits. */
export const verdictWords = ({ row, verdict }: FitJudged): string =>
  row.spec.kind === "intended" && verdict !== "unknown"
    ? verdict === "fits"
      ? "is as meant"
      : "is not as meant"
    : FIT_WORDS[verdict];
