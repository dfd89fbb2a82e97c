import { isAmbiguousSize, padSpans, sizeMisfit, sizeSystem } from "../../bom/chip-size.ts";
import { isOutOfSeries } from "../../bom/series.ts";
import { isUnnamed, ruleLines } from "../document/bill/rule-lines.ts";
import { boardMark, boardOf, ofBoard, Places } from "../document/boards.ts";
import type { RunDocument, RunLine } from "../document/document.ts";
import type { Add } from "../document/note.ts";

/** What is to be said of the bill: places, values, sizes, numbers. */
export function partNotes(doc: RunDocument, add: Add): void {
  if (doc.lines.length === 0) {
    add("parts", "bom-missing", "error", "The run has no parts list.", {
      do: "Drop a parts list beside the layers, or add lines here.",
    });
    return;
  }
  sayPlaces(doc, add);
  sayValues(doc, add);
  saySizes(doc, add);
  sayNumbers(doc, add);
}

/** Who has no place to be put at. */
function sayPlaces(doc: RunDocument, add: Add): void {
  if (doc.placements.length === 0 && doc.lines.some((l) => l.mount === "machine"))
    add(
      "parts",
      "placement-missing",
      "warning",
      "No placement file came with the board; who is placed by machine is taken from the package names.",
      { do: "Drop the placement file if a house shall place the parts." },
    );
  const places = new Places(doc);
  // a board that came without a placement file has no place for anything, and that is said once
  const withPlaces = new Set(doc.placements.map((p) => p.board));
  const isFiled = (l: RunLine) => withPlaces.has(undefined) || withPlaces.has(boardOf(doc, l)?.id);
  const lost = doc.lines
    .filter((l) => !l.dnp && l.mount === "machine" && isFiled(l))
    .flatMap((l) =>
      l.refs.filter((r) => !places.has(l, r)).map((r) => [`${r}${ofBoard(doc, l)}`, l.id, r] as const),
    );
  if (doc.placements.length > 0)
    for (const b of doc.boards)
      if (
        !isFiled({ board: b.id } as RunLine) &&
        doc.lines.some((l) => l.mount === "machine" && l.board === b.id)
      )
        add(
          "parts",
          `placement-missing ${b.id}`,
          "warning",
          `No placement file came with ${b.name}; who is placed by machine is taken from the package names.`,
          { do: "Drop the placement file if a house shall place the parts." },
        );
  if (lost.length > 0)
    add(
      "parts",
      `part-unplaced ${lost.map(([r]) => r).join(",")}`,
      "error",
      `${lost.map(([r]) => r).join(", ")}: in the parts list and to be placed by machine, but the placement file has no place for ${lost.length === 1 ? "it" : "them"}.`,
      {
        do: "Were the pads forgotten? Correct the board, set the line to “by hand”, or mark it do-not-place.",
        about: lost.map(([, , r]) => r),
        lines: [...new Set(lost.map(([, id]) => id))],
      },
    );
}

/** Values no series has. */
function sayValues(doc: RunDocument, add: Add): void {
  const odd = doc.lines.filter((l) => !l.dnp && isOutOfSeries(l.valueText, l.refs[0]));
  if (odd.length > 0)
    add(
      "parts",
      `value-odd ${odd.map((l) => l.refs[0]).join(",")}`,
      "remark",
      `${odd.map((l) => `${l.refs[0]} ${l.valueText}`).join(", ")}: no series of preferred numbers has ${odd.length === 1 ? "this value" : "these values"}.`,
      {
        do: "Check for a typing error; parts of such a value are hard to find.",
        about: odd.flatMap((l) => l.refs),
        lines: odd.map((l) => l.id),
      },
    );
}

/** Sizes that the pads contradict, and those that are a size in two systems. */
function saySizes(doc: RunDocument, add: Add): void {
  const spansOf = new Map(doc.boards.map((b) => [b, padSpans(b.measure)]));
  const spanOf = (l: RunLine, ref: string): number | undefined => {
    const board = boardOf(doc, l);
    return board ? spansOf.get(board)!.get(ref) : undefined;
  };
  for (const l of doc.lines) {
    const spanMm = l.dnp ? undefined : l.refs.map((r) => spanOf(l, r)).find((v) => v !== undefined);
    const misfit = spanMm === undefined ? undefined : sizeMisfit(l.package, spanMm);
    if (misfit)
      add(
        "parts",
        `size-odd ${l.refs[0]}${boardMark(doc, l.board)}`,
        "warning",
        `${l.refs.slice(0, 4).join(", ")}${l.refs.length > 4 ? " …" : ""}${ofBoard(doc, l)}: listed as ${misfit.listed}, but the pads stand ${Number(misfit.spanMm.toFixed(2))} mm apart${misfit.fits.length > 0 ? `, which fits ${misfit.fits.join(" or ")}` : ""}.`,
        {
          do: "The same digits mean another size in the other system: write the package that fits the pads.",
          about: [...l.refs],
          lines: [l.id],
          ...(doc.boards.length > 1 && l.board !== undefined ? { board: l.board } : {}),
        },
      );
  }
  const unclear = doc.lines.filter(
    (l) => !l.dnp && isAmbiguousSize(l.package) && !l.refs.some((r) => spanOf(l, r) !== undefined),
  );
  const system = sizeSystem(doc.lines.map((l) => l.package));
  if (unclear.length > 0 && system !== "imperial") {
    const codes = [...new Set(unclear.map((l) => l.package))].join(", ");
    add(
      "parts",
      `size-system ${codes}`,
      "warning",
      system === "metric"
        ? `${codes}: read as imperial, but other sizes of the bill are metric, and no pads could be measured.`
        : `${codes}: the same digits are a size in either system; read as imperial, no pads could be measured.`,
      {
        do: "Accept it with a reason if they are imperial; else write the metric ones with “metric” behind.",
        lines: unclear.map((l) => l.id),
      },
    );
  }
}

/** Lines without a part number, and what is asked in its place. */
function sayNumbers(doc: RunDocument, add: Add): void {
  const unnamed = doc.lines.filter(isUnnamed);
  const { classes, tooLittle } = ruleLines(doc);
  const asked = classes.reduce((n, c) => n + c.lines.length, 0);
  if (unnamed.length > 0)
    add(
      "parts",
      "mpn-missing",
      "remark",
      `${unnamed.length} ${unnamed.length === 1 ? "line has" : "lines have"} no part number; ${asked === 0 ? "suppliers are asked by part number" : `suppliers are asked for any part that does what ${asked === unnamed.length ? (asked === 1 ? "it asks" : "they ask") : `${asked} of them ask`}`}.`,
      {
        do: "Type or paste the numbers, or take any part that is known to do in Source.",
        lines: unnamed.map((l) => l.id),
      },
    );
  if (tooLittle.length > 0)
    add(
      "parts",
      "rule-too-little",
      "warning",
      `${tooLittle.length === 1 ? "A line without a number says" : `${tooLittle.length} lines without a number say`} too little to be asked for: ${tooLittle
        .slice(0, 4)
        .map((t) => `${t.line.refs[0] ?? t.line.valueText} (${t.why})`)
        .join(", ")}${tooLittle.length > 4 ? " and more" : ""}.`,
      { do: "Say it in the line, or give it a number or an offer.", lines: tooLittle.map((t) => t.line.id) },
    );
}
