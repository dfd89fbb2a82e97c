import { counted } from "../counted.ts";
import { type FindingList, few } from "../findings.ts";
import type { PlacementHead } from "./head.ts";
import type { Side } from "./side.ts";

/** What the rows of a placement file came to, as far as it is said of several at once. */
export interface RowsRead {
  readonly file: string;
  readonly head: PlacementHead;
  readonly parts: readonly unknown[];
  /** Side that the file's name says, and those that titles above its tables say. */
  readonly named: Side | undefined;
  readonly byTitle: ReadonlySet<Side>;
  readonly withoutSide: readonly string[];
  readonly withoutTurn: readonly string[];
  readonly leftOff: readonly string[];
  readonly twice: readonly string[];
  /** Rows that hold more than the headings name. */
  readonly ragged: readonly { readonly ref: string; readonly row: number }[];
}

/** Says once what several rows lack. */
export function sayOfRows(r: RowsRead, found: FindingList): void {
  saySides(r, found);
  sayRows(r, found);
}

function saySides(r: RowsRead, found: FindingList): void {
  const { withoutSide, named, file, byTitle } = r;
  const { side, mirror } = r.head.at;
  const hasColumn = side !== undefined || mirror !== undefined;
  if (withoutSide.length > 0)
    found.add({
      tag: "placement-side-unknown",
      level: "error",
      file,
      about: withoutSide.map((s) => s.split(" ")[0]!),
      text: `The side of ${few(withoutSide)} is not known; the top was taken.`,
      do: "Write top or bottom there.",
    });
  else if (!hasColumn && r.parts.length > 0) {
    const by = byTitle.size > 0 ? "by the title above" : named ? "by the file's name" : undefined;
    found.add({
      tag: "placement-side-unknown",
      level: by ? "remark" : "warning",
      file,
      text:
        byTitle.size > 1
          ? "No column says the side; each part was taken as on the side that the title above its rows says."
          : `No column says the side; all parts were taken as on the ${[...byTitle][0] ?? named ?? "top"}${by ? `, ${by}` : ""}.`,
      do: "Check it, or add a column of sides.",
    });
  }
}

function sayRows(r: RowsRead, found: FindingList): void {
  const { withoutTurn, leftOff, twice, ragged, parts, file, head } = r;
  if (ragged.length > 0)
    found.add({
      tag: "placement-bad-row",
      level: "error",
      file,
      row: ragged[0]!.row,
      about: ragged.map((g) => g.ref),
      text: `${counted(ragged.length, "row holds", "rows hold")} more cells than the headings name (row ${ragged[0]!.row}), so nothing says which number is which; ${parts.length === 0 ? "no place was read" : `${few(ragged.map((g) => g.ref))} ${ragged.length === 1 ? "was" : "were"} left out`}.`,
      do: "Where decimals have commas, part the columns by semicolons or tabs, and drop the file again.",
    });
  if (withoutTurn.length > 0 && parts.length > 0)
    found.add({
      tag: "placement-turn-unknown",
      level: "warning",
      file,
      about: withoutTurn,
      text: `The rotation of ${withoutTurn.length === parts.length ? "every part" : few(withoutTurn)} is not stated; 0° was taken.`,
      do: "Add it where it matters.",
    });
  if (leftOff.length > 0)
    found.add({
      tag: "placement-not-fitted",
      level: "warning",
      file,
      about: leftOff,
      text: `${few(leftOff)} ${leftOff.length === 1 ? "is" : "are"} marked as not fitted here; the parts list decides that, and the ${leftOff.length === 1 ? "place is" : "places are"} kept.`,
      do: "See that the parts list leaves the same parts off.",
    });
  if (twice.length > 0)
    found.add({
      tag: "placement-duplicate-ref",
      level: "error",
      file,
      about: twice.map((t) => t.split(" ")[0]!),
      text: `${few(twice)} ${twice.length === 1 ? "stands" : "stand"} there twice; which place counts is not known.`,
      do: "Keep one row of each part, of one board.",
    });
  if (head.row < 0 && parts.length > 0)
    found.add({
      tag: "placement-columns-guessed",
      level: "warning",
      file,
      text: `No row names the columns; by what they hold column ${head.at.ref! + 1} was read as reference, ${head.at.x! + 1} and ${head.at.y! + 1} as X and Y${head.at.rotation === undefined ? "" : `, ${head.at.rotation + 1} as rotation`}${head.at.side === undefined ? "" : `, ${head.at.side + 1} as side`}.`,
      do: "Look at the places on the picture, or write a heading above them.",
    });
}

/** Columns that may decide a side or a rotation, and nothing tells. */
export function sayColumns(
  r: RowsRead,
  asked: readonly { readonly heading: string; readonly marks?: readonly string[] }[],
  found: FindingList,
): void {
  if (asked.length === 0 || r.parts.length === 0) return;
  found.add({
    tag: "placement-column-unknown",
    level: "warning",
    file: r.file,
    text: `${counted(asked.length, "column")} could say a side or a rotation, and nothing tells: ${asked.map((c) => `“${c.heading}” (${(c.marks ?? []).slice(0, 3).join(", ")})`).join("; ")}.`,
    do: "Say what it is, or write top and bottom there.",
  });
}
