import type { ByKind } from "../../assembly/fault-kinds.ts";
import type { DefectClass } from "../../shape/defects.ts";
import { type Suspect, suspectsOf } from "../../testing/suspects.ts";
import { classOf } from "../../yield/defects.ts";
import type { RunDocument } from "../document/document.ts";
import type { LinePart } from "../document/parts.ts";
import type { RunRecord } from "../document/record.ts";
import { reachOf, wiredOf } from "../document/wired.ts";
import { jointWeights } from "../stage/joint-weights.ts";
import { lookedAt } from "./factors.ts";
import { standsOfUnit } from "./tries.ts";

/**
 * The faults of a product by class, as far as its closed runs and this one know them: a prior of what ails the next board.
 *
 * @param unit whose own faults are not counted
 */
export function faultsByClass(
  doc: Pick<RunDocument, "past">,
  record: Pick<RunRecord, "defects">,
  unit: number,
): Partial<Record<DefectClass, number>> {
  const out: Partial<Record<DefectClass, number>> = {};
  const add = (of: DefectClass, n: number) => {
    if (n > 0) out[of] = (out[of] ?? 0) + n;
  };
  for (const { faults } of doc.past ?? [])
    for (const [kind, k] of Object.entries(faults?.kinds ?? {}))
      add(kind === "placing" ? "placement" : "joint", k.seen);
  for (const d of record.defects ?? []) if (d.unit !== unit) add(classOf(d.code), 1);
  return out;
}

/**
 * What may be why a board fails its tests: the joints on what fails, by how often such joints go wrong, less those that
 * other items saw working, more those somebody was in doubt about at the bench (needs N131). Faults of the bare board and
 * of the program are none of it. Empty where nothing fails, or no file tells pins and nets. A part at which n faults were
 * found on other boards of the run weighs (1 + n) ÷ (1 + as many as the model had there) times as much: Gamma and Poisson,
 * the model counting as one fault.
 *
 * @param parts as they are soldered: {@link LinePart}
 * @param factors what the shop's own faults made of the model's rates
 */
export function suspectsOfUnit(
  doc: RunDocument,
  parts: readonly LinePart[],
  record: Pick<RunRecord, "tries" | "sittings" | "defects">,
  unit: number,
  factors: ByKind<number> = {},
): Suspect[] {
  const stands = standsOfUnit(doc.assembly.tests ?? [], record.tries ?? [], unit);
  if (!stands.some((s) => s.stand === "fail")) return [];
  const weights = jointWeights(doc, parts, factors);
  const before = foundBefore(record, unit);
  const boards = lookedAt(record).size - 1;
  const doubts = new Set(
    (record.sittings ?? [])
      .filter((s) => s.unit === unit)
      .flatMap((s) => Object.entries(s.marks).flatMap(([name, mark]) => (mark === "doubt" ? [name] : []))),
  );
  return suspectsOf(
    wiredOf(doc).parts,
    stands.map(({ item, stand }) => ({ ...item, verdict: stand })),
    {
      weightOf: (ref) => {
        const w = weights.get(ref) ?? 0;
        const n = before.get(ref) ?? 0;
        return n === 0 ? w : w * ((1 + n) / (1 + w * boards));
      },
      reachOf,
      doubts,
    },
  );
}

/** How often joints and placing were found wrong at each part on other boards of the run, by its name at the bench. */
function foundBefore(record: Pick<RunRecord, "defects">, unit: number): ReadonlyMap<string, number> {
  const out = new Map<string, number>();
  for (const d of record.defects ?? []) {
    const what = classOf(d.code);
    if (d.unit === unit || (what !== "joint" && what !== "placement")) continue;
    const [, pin, board] = /^(.*?)( of .*)?$/s.exec(d.at)!;
    const ref = `${pin!.split(/[. ]/)[0]!}${board ?? ""}`;
    out.set(ref, (out.get(ref) ?? 0) + 1);
  }
  return out;
}
