import { numberKey } from "../../bom/number.ts";
import type { Level } from "../../findings.ts";
import { candidatesFor, partOfLine } from "../../library/candidates.ts";
import type { Basket } from "../../sourcing/need.ts";
import type { Mount, RunDocument, RunLine } from "../document/document.ts";
import type { Add } from "../document/note.ts";
import type { RunNeed } from "../document/run-need.ts";

const MOUNT_WORDS: Readonly<Record<Mount, string>> = {
  machine: "put on by machine",
  hand: "put on by hand",
  none: "not soldered",
};

const nameOf = (refs: readonly string[], words: string) =>
  refs.length === 0 ? words : `${refs.slice(0, 4).join(", ")}${refs.length > 4 ? " …" : ""}`;

type Suspected = (id: string, lines: readonly string[], names: string) => void;

/** What the library knows of the parts of a run: suspicions carried forward, makers' plans, parts bought instead. */
export function libraryNotes(doc: RunDocument, needs: readonly RunNeed[], basket: Basket, add: Add): void {
  const library = doc.library ?? [];
  const told = new Set<string>();
  const suspected: Suspected = (id, lines, names) => {
    const part = library.find((p) => p.id === id);
    const key = `part-suspect ${numberKey(part?.mpn ?? "")}`;
    if (!part?.suspect || told.has(key)) return;
    told.add(key);
    add(
      "parts",
      key,
      "error",
      `${names}: ${part.mpn} is suspected since ${part.suspect.since} (${part.suspect.by}): ${part.suspect.because}`,
      {
        do: "Take another part, clear it in the library once it is explained, or accept it here with a reason.",
        lines,
      },
    );
  };
  for (const l of doc.lines) if (!l.dnp) sayOfLine(doc, l, told, suspected, add);
  for (const need of needs) sayInstead(doc, need, basket, suspected, add);
}

/** What its maker plans for a part: how bad it is, in words, and what to do. */
const PLANS: Readonly<Record<string, readonly [Level, string, string]>> = {
  ended: [
    "error",
    "its maker ended it",
    "Look for another part; from a reseller's stock, check each delivery before it is used.",
  ],
  "last call": ["warning", "its maker takes the last orders", "Decide how many the coming runs need."],
  preview: ["warning", "its maker only announced it", "Have a part that can be bought as its alternate."],
};
const NOT_FOR_NEW: readonly [Level, string, string] = [
  "remark",
  "its maker asks not to design it in any more",
  "Plan another part for the next revision.",
];

/** A line's own part: suspicion, how it is mounted, its maker's plans; each part is told once. */
function sayOfLine(doc: RunDocument, l: RunLine, told: Set<string>, suspected: Suspected, add: Add): void {
  const part = partOfLine(l, doc.library ?? []);
  if (!part) return;
  const same = doc.lines.filter((m) => !m.dnp && numberKey(m.mpn) === numberKey(l.mpn));
  const named = (lines: readonly RunLine[]) =>
    nameOf(
      lines.flatMap((m) => m.refs),
      l.valueText || l.mpn,
    );
  const ids = same.map((m) => m.id);
  suspected(part.id, ids, named(same));
  const other = same.filter((m) => part.mount !== undefined && m.mount !== part.mount);
  if (other.length > 0 && !told.has(`mount ${part.id}`)) {
    told.add(`mount ${part.id}`);
    add(
      "parts",
      `mount-differs ${numberKey(part.mpn)}`,
      "warning",
      `${named(other)}: the library says ${part.mpn} is ${MOUNT_WORDS[part.mount!]}; the bill has it ${MOUNT_WORDS[other[0]!.mount]}.`,
      {
        do: "Take the library's word on the line's sheet, or accept it with a reason if it is meant so here.",
        lines: other.map((m) => m.id),
      },
    );
  }
  const key = `part-state ${numberKey(part.mpn)}`;
  if (told.has(key) || part.state === "active" || part.state === "unknown") return;
  told.add(key);
  const [level, text, todo] = PLANS[part.state] ?? NOT_FOR_NEW;
  add("parts", key, level, `${named(same)}: ${part.mpn}, ${text}.`, { do: todo, lines: ids });
}

/** What stands in for a line's part: bought as another, or taken from the shelf as one. */
function sayInstead(doc: RunDocument, need: RunNeed, basket: Basket, suspected: Suspected, add: Add): void {
  const library = doc.library ?? [];
  const line = doc.lines.find((l) => l.id === need.id);
  if (!line) return;
  // pieces by part
  const instead = new Map<string, number>();
  const count = (part: string | undefined, qty: number) =>
    part === undefined ? undefined : instead.set(part, (instead.get(part) ?? 0) + qty);
  for (const b of basket.lines.find((l) => l.line === need.id)?.buys ?? [])
    count(doc.offers.find((o) => o.id === b.offer)?.part, b.qty);
  for (const t of need.shelf)
    if (numberKey(t.lot.mpn) !== numberKey(line.mpn))
      count(library.find((p) => numberKey(p.mpn) === numberKey(t.lot.mpn))?.id, t.qty);
  if (instead.size === 0) return;
  const candidates = candidatesFor(line, library, doc.alternates ?? [], { rules: doc.workshop.rules });
  for (const [id, qty] of instead) {
    const c = candidates.find((x) => x.part.id === id);
    if (!c) continue;
    suspected(id, need.lines, nameOf(line.refs, line.valueText));
    // a line without a number asks for any such part: nothing stands in for anything
    if (line.mpn === "") continue;
    const changes = c.comparison.rows.flatMap((r) => (r.consequence ? [r.consequence] : []));
    const { by = "nobody", at = "no date", because = "" } = c.decided ?? {};
    add(
      "source",
      `bought-instead ${numberKey(line.mpn)} ${numberKey(c.part.mpn)}`,
      changes.length > 0 ? "warning" : "remark",
      `${nameOf(line.refs, line.valueText)}: ${qty} of ${c.part.mpn} stand in for ${line.mpn}; approved by ${by} on ${at}${because ? `: ${because}` : ""}.`,
      { ...(changes.length > 0 ? { do: changes.join(" ") } : {}), lines: need.lines },
    );
  }
}
