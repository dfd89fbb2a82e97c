import { type Bom, readBom } from "../../src/bom/bom.ts";
import { UNDECIDED, type WrittenList } from "./lists.ts";

/**
 * Read as meant; asked where nobody could tell what is meant; not as meant, but said where; read as something else without a
 * word; or not read at all.
 */
export type Verdict = "right" | "asked" | "said" | "silent" | "refused";

/**
 * What became of a written list.
 * @returns the verdict, and the first line that is not as meant
 */
export function judgeList(written: WrittenList): { verdict: Verdict; why: string; bom: Bom } {
  const bom = readBom(written.cells, "list.csv");
  if (bom.lines.length === 0)
    return {
      verdict: bom.findings.some((f) => f.level === "error") ? "refused" : "silent",
      why: "nothing was read",
      bom,
    };
  const byRef = new Map(bom.lines.flatMap((l) => l.refs.map((r) => [r, l] as const)));
  // that one column was not read says nothing of another
  const loud = bom.findings.filter((f) => f.level !== "remark" && f.tag !== "bom-column-unknown");
  const isSaid = (refs: readonly string[]) =>
    loud.some((f) => f.about === undefined || f.about.some((a) => refs.includes(a)));
  const wrong: { why: string; isSaid: boolean }[] = [];
  const miss = (why: string, refs: readonly string[]) => wrong.push({ why, isSaid: isSaid(refs) });
  for (const t of written.lines) {
    const l = byRef.get(t.refs[0]!);
    const name = t.refs.join(" ");
    if (!l) miss(`${name} is missing`, t.refs);
    else {
      if (l.refs.join() !== t.refs.join()) miss(`${name} became ${l.refs.join(" ")}`, [...t.refs, ...l.refs]);
      if (l.qty !== t.refs.length) miss(`${name}: ${l.qty} pieces`, t.refs);
      const si = l.value?.si;
      if (t.si !== undefined && (si === undefined || Math.abs(si - t.si) > 1e-6 * t.si))
        miss(`${name}: ${t.si} became ${si} (“${l.valueText}”)`, t.refs);
      if (l.mpn !== t.mpn) miss(`${name}: number “${t.mpn}” became “${l.mpn}”`, t.refs);
      if (t.mpn !== "" && l.maker !== t.maker)
        miss(`${name}: maker “${t.maker}” became “${l.maker}”`, t.refs);
      if (l.package !== t.package) miss(`${name}: package “${t.package}” became “${l.package}”`, t.refs);
      const fitted = l.fitted === "doubtful" ? "doubtful" : !l.dnp;
      if (t.fitted === "open" ? fitted !== "doubtful" && !isSaid(t.refs) : fitted !== t.fitted)
        wrong.push({
          why: `${name}: meant ${t.fitted === true ? "fitted" : t.fitted === false ? "left off" : "open"}, is ${fitted}`,
          isSaid: fitted === "doubtful" || isSaid(t.refs),
        });
    }
  }
  const known = new Set(written.lines.flatMap((l) => l.refs));
  for (const l of bom.lines)
    if (!l.refs.some((r) => known.has(r)))
      miss(`row ${l.row} was read as a part: ${l.refs.join(" ")} ${l.valueText}`, l.refs);
  const bad = wrong.find((w) => !w.isSaid) ?? wrong[0];
  const said = Object.hasOwn(UNDECIDED, written.kind) ? "asked" : "said";
  return { verdict: !bad ? "right" : bad.isSaid ? said : "silent", why: bad?.why ?? "", bom };
}
