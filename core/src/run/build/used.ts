import { EQUIPMENT, type Equipment, type EquipmentKind } from "../../equipment/equipment.ts";
import type { StepKind } from "../../steps/step.ts";
import { BENCH_TOOLS, type BenchTool, type RunSitting } from "../document/sitting.ts";

/** What each is called, which of the shop's machines may be it, and at which step it is asked for. */
export const TOOLS = {
  heater: { at: "heat", kinds: ["plate", "oven", "air"], label: "heater" },
  paste: { at: "print", kinds: ["paste"], label: EQUIPMENT.paste.label },
  iron: { at: "iron", kinds: ["iron"], label: EQUIPMENT.iron.label },
  wire: { at: "iron", kinds: ["wire"], label: EQUIPMENT.wire.label },
} as const satisfies Record<
  BenchTool,
  { readonly at: StepKind; readonly kinds: readonly EquipmentKind[]; readonly label: string }
>;

/** What a step is done with, as far as that is written down. */
export const toolsAt = (kind: string): BenchTool[] => BENCH_TOOLS.filter((t) => TOOLS[t].at === kind);

/** What is taken to be used at a step while nobody says otherwise, and why. */
export interface ToolAtHand {
  readonly tool: BenchTool;
  /** Names of what the shop has of it and works. */
  readonly all: readonly string[];
  readonly name?: string;
  readonly why: "said" | "as before" | "the only one" | "open";
}

/**
 * With what a step of a board is done: what was said of it, else what the board before was done with, else the only one the
 * shop has. Nothing where the shop has several and none was said: it is asked then.
 *
 * @param sitting of the step, as it stands
 * @param others of the run's other boards and steps, in any order; the nearest board before counts, then the nearest after
 */
export function toolAtHand(
  tool: BenchTool,
  list: readonly Pick<Equipment, "kind" | "name" | "state">[],
  unit: number,
  sitting: Pick<RunSitting, "used"> | undefined,
  others: readonly Pick<RunSitting, "unit" | "used">[],
): ToolAtHand {
  const kinds: readonly EquipmentKind[] = TOOLS[tool].kinds;
  const all = [
    ...new Set(list.filter((e) => kinds.includes(e.kind) && e.state === "ready").map((e) => e.name)),
  ];
  const said = sitting?.used?.[tool];
  if (said) return { tool, all, name: said, why: "said" };
  const far = (u: number) => (u <= unit ? unit - u : 100_000 + u - unit);
  const before = others
    .filter((s) => s.used?.[tool] && all.includes(s.used[tool]!))
    .sort((a, b) => far(a.unit) - far(b.unit))[0]?.used?.[tool];
  if (before) return { tool, all, name: before, why: "as before" };
  if (all.length === 1) return { tool, all, name: all[0]!, why: "the only one" };
  return { tool, all, why: "open" };
}

/** One time a board went through the heat. */
export interface Heat {
  readonly step: number;
  readonly words: string;
  readonly heater?: string;
}

/** Every time a board went through the heat whole, in the order of the steps; one begun and not done is none yet. */
export const heatsOf = (
  steps: readonly {
    readonly n: number;
    readonly kind: string;
    readonly board?: string;
    readonly side?: string;
  }[],
  sittings: readonly RunSitting[],
  unit: number,
): Heat[] =>
  steps
    .filter((s) => s.kind === "heat")
    .flatMap((s): Heat[] => {
      const sat = sittings.find((x) => x.step === s.n && x.unit === unit);
      if (!sat?.isDone) return [];
      const heater = sat.used?.heater;
      return [
        {
          step: s.n,
          words: [s.board, s.side].filter(Boolean).join(" "),
          ...(heater === undefined ? {} : { heater }),
        },
      ];
    });
