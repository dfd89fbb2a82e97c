import { compareRefs } from "../../bom/refs.ts";
import { readAmount } from "../../library/compare.ts";
import { factsOfLine, valueWords } from "../../library/facts.ts";
import { standingSum, type Toleranced } from "../../sums/evaluate.ts";
import type { RunDocument, RunLine } from "../document/document.ts";
import type { Add } from "../document/note.ts";

const UNITS: Readonly<Record<string, "ohm" | "farad" | "volt" | "hertz">> = {
  Ω: "ohm",
  F: "farad",
  V: "volt",
  Hz: "hertz",
};

/** A figure of a sum in words, with the prefix that suits it. */
export function figureWords(value: number, unit: string): string {
  const si = UNITS[unit];
  if (si) return valueWords(Number(value.toPrecision(3)), si);
  if (unit === "%" && value !== 0 && Math.abs(value) < 0.01) return "less than 0.01 %";
  if (unit === "%") return `${Number(value.toPrecision(3))} %`;
  if (unit === "") return String(Number(value.toPrecision(4)));
  return valueWords(Number(value.toPrecision(3)), "volt").replace(/V$/, unit);
}

/** Value and tolerance of a line, from its words and the library. */
export function tolerancedOf(doc: RunDocument, line: RunLine): Toleranced | undefined {
  const f = factsOfLine(line, doc.library ?? []);
  const nominal = f.params.value ? readAmount(f.params.value) : undefined;
  if (nominal === undefined) return undefined;
  return { nominal, tolerance: (readAmount(f.params.tolerance ?? "0 %") ?? 0) / 100 };
}

/** Sums attached to lines, worked out again with the values the bill has now. */
export function sumNotes(doc: RunDocument, add: Add): void {
  const lines = new Map(doc.lines.map((l) => [l.id, l]));
  for (const s of doc.sums ?? []) {
    const now = standingSum(s, (id) => {
      const l = lines.get(id);
      return l && !l.dnp ? tolerancedOf(doc, l) : undefined;
    });
    if (!now) continue;
    const of = Object.values(s.lines).flatMap((id) => lines.get(id) ?? []);
    const refs = of.flatMap((l) => l.refs).sort(compareRefs);
    const name = `${refs.slice(0, 4).join(", ")}${s.name ? ` (${s.name})` : ""}`;
    const more = { about: refs, lines: of.map((l) => l.id) };
    if (!now.result) {
      const names = now.missing.map((k) => now.kind.inputs.find((i) => i.key === k)!.label.toLowerCase());
      add(
        "parts",
        `sum-open ${s.id}`,
        "remark",
        `${name}: the ${now.kind.figure} cannot be worked out, there is no ${names.join(", no ")}.`,
        more,
      );
      continue;
    }
    const words = (v: number) => figureWords(v, now.kind.unit);
    if (now.isOff)
      add(
        "parts",
        `sum-off ${s.id} ${now.result.value.toPrecision(4)}`,
        "warning",
        `${name}: the ${now.kind.figure} is ${words(now.result.value)}; wanted is ${s.wanted} within ${s.withinPct} %.`,
        { ...more, do: "Change the value, or what is wanted in the line's sheet." },
      );
    else if (now.band && (now.result.worst[0] < now.band[0] || now.result.worst[1] > now.band[1]))
      add(
        "parts",
        `sum-spread ${s.id}`,
        "remark",
        `${name}: by its tolerances the ${now.kind.figure} goes from ${words(now.result.worst[0])} to ${words(now.result.worst[1])}; ${figureWords(100 * (now.result.outside ?? 0), "%")} of the units fall outside ${s.withinPct} % of ${s.wanted}.`,
        more,
      );
    const load = now.result.beside.find((b) => b.label === "of its rating");
    if (load && load.value > 50)
      add(
        "parts",
        `sum-hot ${s.id} ${load.value.toPrecision(3)}`,
        "warning",
        `${name}: the resistor is loaded with ${figureWords(load.value, "%")} of its rating; half of it is a usual limit.`,
        { ...more, do: "Take a larger one, or less current." },
      );
  }
}
