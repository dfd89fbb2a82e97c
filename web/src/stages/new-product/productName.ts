/**
 * A name for the product from the names of what was dropped: an archive's own name, or what loose files begin with in
 * common, cut at a whole word.
 */
export function productName(files: readonly string[]): string {
  const words = (name: string) =>
    name
      .replace(/\.[^.]+$/, "")
      .split(/[\s_-]+/)
      .filter((w) => w !== "");
  const lists = files.map(words);
  const first = lists[0] ?? [];
  let n = 0;
  while (n < first.length && lists.every((l) => l[n]?.toLowerCase() === first[n]!.toLowerCase())) n++;
  // files that share nothing: most of them decide
  if (n === 0 && lists.length > 1) {
    const counts = new Map<string, number>();
    for (const l of lists) if (l[0]) counts.set(l[0], (counts.get(l[0]) ?? 0) + 1);
    const best = [...counts].sort((a, b) => b[1] - a[1])[0];
    if (best && best[1] > 1) return best[0];
  }
  return first.slice(0, Math.max(1, n)).join(" ") || "new product";
}
