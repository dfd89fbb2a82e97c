import { type Suspect, suspectsOf } from "../../testing/suspects.ts";
import type { RunDocument } from "../document/document.ts";
import type { LinePart } from "../document/parts.ts";
import type { RunRecord } from "../document/record.ts";
import { reachOf, wiredOf } from "../document/wired.ts";
import { jointWeights } from "../stage/joint-weights.ts";
import { standsOfUnit } from "./tries.ts";

/**
 * What may be why a board fails its tests: the joints on what fails, by how often such joints go wrong, less those that
 * other items saw working, more those somebody was in doubt about at the bench (needs N131). Faults of the bare board and
 * of the program are none of it. Empty where nothing fails, or no file tells pins and nets.
 *
 * @param parts as they are soldered: {@link LinePart}
 */
export function suspectsOfUnit(
  doc: RunDocument,
  parts: readonly LinePart[],
  record: Pick<RunRecord, "tries" | "sittings">,
  unit: number,
): Suspect[] {
  const stands = standsOfUnit(doc.assembly.tests ?? [], record.tries ?? [], unit);
  if (!stands.some((s) => s.stand === "fail")) return [];
  const weights = jointWeights(doc, parts);
  const doubts = new Set(
    (record.sittings ?? [])
      .filter((s) => s.unit === unit)
      .flatMap((s) => Object.entries(s.marks).flatMap(([name, mark]) => (mark === "doubt" ? [name] : []))),
  );
  return suspectsOf(
    wiredOf(doc).parts,
    stands.map(({ item, stand }) => ({ ...item, verdict: stand })),
    { weightOf: (ref) => weights.get(ref) ?? 0, reachOf, doubts },
  );
}
