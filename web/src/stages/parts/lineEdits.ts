import { expandRefs, type Mount, ORIGINS, type RunBoard, type RunLine } from "@kobbin/core";
import type { LineChange } from "../../resources/run.ts";
import { typedNumber } from "../../ui/text/format.ts";

export const MOUNTS: readonly (readonly [Mount, string])[] = [
  ["machine", "by machine"],
  ["hand", "by hand"],
  ["none", "not soldered"],
];
export const mountWords = (m: Mount): string => MOUNTS.find(([v]) => v === m)![1];

/** Where a line is that is on none of several boards. */
export const OF_PRODUCT = "the product";

/** A change of a line, or why the text makes none. */
export type LineEdit = { readonly change: LineChange } | { readonly problem: string };

const TRUE = /^(yes|y|true|1|x|ja|placed|✓)$/i;
const FALSE = /^(no|n|false|0|nein|not placed|dnp|)$/i;

/** What a text typed or pasted into a column of the bill means for a line. */
export function lineEdit(
  line: RunLine,
  column: string,
  text: string,
  boards: readonly Pick<RunBoard, "id" | "name">[] = [],
): LineEdit {
  const t = text.trim();
  switch (column) {
    case "refs": {
      const { refs, bad, beside } = expandRefs(t);
      if (bad.length > 0) return { problem: `${bad[0]!.text}: ${bad[0]!.why}` };
      if (beside.length > 0) return { problem: `“${beside[0]}” is no reference` };
      return { change: { refs: [...refs], ...(refs.length > 0 ? { qty: refs.length } : {}) } };
    }
    case "qty": {
      const n = Number(typedNumber(t));
      if (t === "" || !Number.isFinite(n)) return { problem: `“${t}” is not a number` };
      if (n < 0) return { problem: `“${t}” is negative` };
      return { change: { qty: n } };
    }
    case "mount": {
      const found = MOUNTS.find(([v, words]) => words === t.toLowerCase() || v === t.toLowerCase());
      return found
        ? { change: { mount: found[0] } }
        : { problem: `“${t}” is none of ${MOUNTS.map(([, w]) => w).join(", ")}` };
    }
    case "origin": {
      const found = ORIGINS.find((o) => o === (t.toLowerCase() || "bought"));
      return found ? { change: { origin: found } } : { problem: `“${t}” is none of ${ORIGINS.join(", ")}` };
    }
    case "board": {
      if (t === "" || t.toLowerCase() === OF_PRODUCT) return { change: { board: null } };
      const found = boards.find((b) => b.name.toLowerCase() === t.toLowerCase())?.id;
      return found
        ? { change: { board: found } }
        : { problem: `“${t}” is none of ${boards.map((b) => b.name).join(", ")}` };
    }
    case "placed":
      if (TRUE.test(t)) return { change: { dnp: false } };
      return FALSE.test(t) ? { change: { dnp: true } } : { problem: `“${t}” is neither yes nor no` };
    case "valueText":
    case "package":
    case "mpn":
    case "maker":
    case "description":
      return { change: { [column]: t } };
    default:
      return { problem: `${line.refs[0] ?? "this"} cannot be changed there` };
  }
}

/** Which lines of the bill are shown. */
export const FILTERS: readonly (readonly [string, string])[] = [
  ["", "all lines"],
  ["noted", "with a note"],
  ["unnamed", "without a number"],
  ["short", "not covered"],
  ["machine", "by machine"],
  ["hand", "by hand"],
  ["none", "not soldered"],
  ["dnp", "not placed"],
  ["own", "not bought"],
];

/** Whether a line passes the filter of the address. */
export function passes(
  line: RunLine,
  filter: string,
  find: string,
  is: { readonly noted: boolean; readonly short: boolean },
): boolean {
  const words = [line.refs.join(" "), line.valueText, line.package, line.mpn, line.maker, line.description]
    .join(" ")
    .toLowerCase();
  if (
    !find
      .toLowerCase()
      .split(/\s+/)
      .every((w) => words.includes(w))
  )
    return false;
  if (filter === "noted") return is.noted;
  if (filter === "short") return is.short;
  if (filter === "unnamed") return line.mpn === "" && !line.dnp;
  if (filter === "dnp") return line.dnp;
  if (filter === "own") return (line.origin ?? "bought") !== "bought";
  if (filter.startsWith("board:")) return (line.board ?? "") === filter.slice(6);
  return filter === "" || (line.mount === filter && !line.dnp);
}

/** What a line is called in a sentence. */
export const nameOf = (l: RunLine): string => l.refs[0] ?? (l.valueText || l.mpn || "the line");
