import {
  betaInterval,
  LOST,
  ownFaultWords,
  REPAIRABLE,
  type RunDocument,
  type RunResult,
  recordWords,
  unitOf,
} from "@kobbin/core";
import { fixed } from "../../ui/text/format.ts";

/** Chance with which the yield lies between two others: it is from few boards, and known as well as that. */
const CHANCE = 0.9;

/** Between which yields it lies in nine cases of ten. */
function between(a: number, b: number): string {
  const [low, high] = betaInterval(a, b, CHANCE);
  return `in ${CHANCE * 10} cases of 10 between ${fixed(low * 100, 1)} and ${fixed(high * 100, 1)} %`;
}

/** How many are to be started, as it was computed: by the defect model alone, or with the shop's own record. */
export function startSum(doc: RunDocument, r: Pick<RunResult, "yield" | "start" | "chance">) {
  const unit = unitOf(doc);
  const { record, faults, firstPass, final } = r.yield;
  const percent = (v: number, places: number) => `${fixed(v * 100, places)} %`;
  const model = record?.model ?? final;
  return {
    title: `${unit}s to start`,
    formula: `the least number for which the chance of enough good ones reaches the confidence; ${
      record
        ? "beta-binomial, with the defect model and what this shop's closed runs came to"
        : "binomial, with the yield of the defect model"
    }${doc.choices.overrun === "start" ? "; with the rest of the boards on the sheets they need" : ""}`,
    terms: [
      { label: `good ${unit}s wanted`, value: String(doc.goodBoards) },
      {
        label: "first-pass yield",
        value: percent(firstPass, 1),
        note: "e to the minus expected defects",
        from: faults
          ? `the model’s rates with this shop’s faults: ${ownFaultWords(faults)}`
          : "placeholder defect rates",
      },
      {
        label: record ? "final yield by the model alone" : "final yield, after rework",
        value: percent(model, 2),
        note: `${fixed(REPAIRABLE * 100, 0)} % of defects mended, ${fixed(LOST * 100, 1)} % of boards lost`,
      },
      ...(record
        ? [
            {
              label: "final yield with the shop's record",
              value: percent(final, 2),
              note: `${fixed(record.a, 1)} ÷ (${fixed(record.a, 1)} + ${fixed(record.b, 1)}); ${between(record.a, record.b)}`,
              from: recordWords(record),
            },
          ]
        : []),
      {
        label: "chance of enough",
        value: percent(r.chance, 1),
        note: `asked for ${Math.round(doc.confidence * 100)} %`,
      },
    ],
    result: String(r.start),
  };
}
