import type { Finding } from "../../findings.ts";
import type { LayerSolids } from "../copper/copper.ts";
import type { Pattern } from "../copper/pattern.ts";

/**
 * Parts that the silkscreen does not name, where its objects say whose they are: with most parts of a side named so, one
 * without any ink of its own will not be found on the board by whoever fits or mends it.
 *
 * @param legends silkscreen by side
 */
export function sayMissingNames(
  patterns: readonly Pattern[],
  legends: ReadonlyMap<"top" | "bottom", LayerSolids | undefined>,
  findings: Finding[],
): void {
  for (const [side, legend] of legends) {
    if (!legend) continue;
    const { image } = legend;
    const named = new Set<string>();
    for (let i = 0; i < image.n; i++) {
      const ref = image.attributeTable[image.attributes[i]!]?.ref;
      if (ref) named.add(ref);
    }
    const own = patterns.filter((p) => p.side === side);
    const missing = own.filter((p) => !named.has(p.ref));
    if (missing.length === 0 || missing.length > own.length / 2) continue;
    const refs = missing.map((p) => p.ref).sort((a, b) => a.localeCompare(b, "en", { numeric: true }));
    const first = missing.find((p) => p.ref === refs[0])!;
    findings.push({
      tag: "reference-missing",
      level: "remark",
      at: { layer: side, x: first.x, y: first.y },
      about: refs,
      text: `The silkscreen of the ${side} has nothing of ${refs.slice(0, 12).join(", ")}${refs.length > 12 ? ` and ${refs.length - 12} more` : ""}, though it names the other parts.`,
      do: "Put their names back, or say on the assembly sheet where they are.",
    });
  }
}
