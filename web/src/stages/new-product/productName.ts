/**
 * A name for the product from the names of what was dropped: an archive's own name, or what most of the loose files
 * begin with in common, cut at a whole word.
 */
export function productName(files: readonly string[]): string {
  const lists = files.map((name) =>
    name
      .replace(/\.[^.]+$/, "")
      .split(/[\s_-]+/)
      .filter((w) => w !== ""),
  );
  const counts = new Map<string, number>();
  for (const l of lists) if (l[0]) counts.set(l[0].toLowerCase(), (counts.get(l[0].toLowerCase()) ?? 0) + 1);
  // a stray file among the others does not decide: the commonest first word does
  const [word] = [...counts].sort((a, b) => b[1] - a[1])[0] ?? ["new product"];
  const alike = lists.filter((l) => l[0]?.toLowerCase() === word);
  const first = alike[0] ?? [word];
  let n = 1;
  while (n < first.length && alike.every((l) => l[n]?.toLowerCase() === first[n]!.toLowerCase())) n++;
  return (alike.length > 1 || lists.length === 1 ? first.slice(0, n) : first.slice(0, 1)).join(" ");
}

/** The same, with a last word that is one letter, or "rev" and what follows it, taken as the revision. */
export function nameAndRevision(files: readonly string[]): { name: string; revision?: string } {
  const whole = productName(files);
  const [, name, revision] = /^(.+?) (?:rev(?:ision)? ?(\w{1,3})|[a-z])$/i.exec(whole) ?? [];
  if (!name) return { name: whole };
  return { name, revision: (revision ?? whole.slice(-1)).toUpperCase() };
}
