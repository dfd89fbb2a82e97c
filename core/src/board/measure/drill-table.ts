import type { BoardFile } from "../board-file.ts";
import type { Measure } from "../measure-document.ts";
import { MOST_PLACES, r6 } from "../worst.ts";

type Row = NonNullable<Measure["drillTable"]>[number];

/**
 * The drill table as a house reads it: one row per tool of a file, and per plating where the copper settled that, with
 * what its holes are for and their tolerance where the file says so, ordered by file and diameter.
 *
 * @param plated of each hole and each slot in file order, as settled
 */
export function drillTable(
  drills: readonly BoardFile[],
  holes: readonly { readonly plated: boolean }[],
  slots: readonly { readonly plated: boolean }[],
): Row[] {
  const rows = new Map<string, { -readonly [K in keyof Row]: Row[K] } & { at: Row["at"][number][] }>();
  let [h, s] = [0, 0];
  for (const f of drills) {
    const put = (
      tool: NonNullable<typeof f.drill>["hits"][number]["tool"],
      diameterMm: number,
      plated: boolean,
      what: "holes" | "slots",
      x: number,
      y: number,
    ) => {
      const key = `${f.path}\n${tool?.name ?? ""}\n${Math.round(diameterMm * 1e4)}\n${plated}`;
      const row = rows.get(key) ?? {
        file: f.path,
        ...(tool ? { tool: tool.name } : {}),
        diameterMm: r6(diameterMm),
        plated,
        holes: 0,
        slots: 0,
        ...(tool?.use ? { use: tool.use } : {}),
        ...(tool?.toleranceMm ? { toleranceMm: tool.toleranceMm.map(r6) as [number, number] } : {}),
        ...(f.span ? { span: f.span } : {}),
        at: [],
      };
      row[what]++;
      if (row.at.length < MOST_PLACES) row.at.push({ layer: "drill", x: r6(x), y: r6(y) });
      rows.set(key, row);
    };
    for (const hit of f.drill!.hits) put(hit.tool, hit.diameterMm, holes[h++]!.plated, "holes", hit.x, hit.y);
    for (const r of f.drill!.routs)
      put(r.tool, r.widthMm, slots[s++]!.plated, "slots", r.points[0]![0], r.points[0]![1]);
  }
  return [...rows.values()].sort(
    (a, b) =>
      a.file.localeCompare(b.file) || a.diameterMm - b.diameterMm || Number(b.plated) - Number(a.plated),
  );
}
