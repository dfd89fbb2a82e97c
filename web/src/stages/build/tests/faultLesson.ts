import { type Defect, type RunDocument, unitOf } from "@kobbin/core";
import type { WentWrong } from "../../../run/learn/wentWrong.ts";
import { day } from "../../../ui/text/format.ts";

/** A fault as something a lesson is made of. */
export function wentWrong(doc: RunDocument, d: Defect): WentWrong {
  const ref = d.at.split(/[. ]/)[0]!;
  const line = doc.lines.find((l) => l.refs.includes(ref));
  const board = doc.boards.findIndex((b) => b.id !== undefined && b.id === line?.board);
  return {
    code: d.code,
    place: d.at.replace(/ of .*$/, ""),
    ...(line && line.mpn !== "" ? { mpn: line.mpn } : {}),
    words: `${d.at || "the board"}: ${d.code}${d.note ? `, ${d.note}` : ""}`,
    came: `${unitOf(doc)} ${d.unit} of ${doc.name}, ${day(d.on)}`,
    ...(board > 0 ? { board } : {}),
  };
}

/** Faults that came most often, each kind at its place once: what a run should leave behind. */
export function oftenest(
  defects: readonly Defect[],
  most = 5,
): { readonly n: number; readonly first: Defect }[] {
  const by = new Map<string, { n: number; first: Defect }>();
  for (const d of defects) {
    const key = `${d.at.split(/[. ]/)[0]} ${d.code}`;
    const row = by.get(key);
    if (row) row.n++;
    else by.set(key, { n: 1, first: d });
  }
  return [...by.values()].sort((a, b) => b.n - a.n).slice(0, most);
}
