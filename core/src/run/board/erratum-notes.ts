import { cornerOf } from "../../fit/features.ts";
import { padsByPart, padsByPin } from "../../learn/board-pins.ts";
import { type PlaceChange, placeChange, type RunErratum } from "../../learn/erratum.ts";
import { MOST_LESSON_PINS } from "../../shape/lesson.ts";
import { capital, sentence } from "../../words.ts";
import { aboutBoard, boardFor } from "../document/boards.ts";
import type { RunDocument } from "../document/document.ts";
import type { Add, Note } from "../document/note.ts";

/** What was changed at its place between the revision it was found in and this one. */
export function changeSince(doc: RunDocument, e: RunErratum): PlaceChange {
  const board = boardFor(doc, e.spot);
  if (!board) return { is: "unknown", because: `The product has no board called ${e.spot.board}.` };
  if (e.spot.at === undefined && e.spot.ref === undefined)
    return { is: "unknown", because: "It has no place that could be compared." };
  const pads = e.spot.ref === undefined ? undefined : padsByPart(board.measure).get(e.spot.ref);
  if (pads && pads.length > MOST_LESSON_PINS)
    return { is: "unknown", because: `${e.spot.ref} has more pads than are compared.` };
  return placeChange(e.before, e.corner, board.learned?.[e.id], cornerOf(board.measure));
}

/** Where an erratum is on the run's own board, as in its files. */
export function placeOfErratum(doc: RunDocument, e: RunErratum): Note["at"] | undefined {
  const board = boardFor(doc, e.spot);
  if (!board) return undefined;
  const { at, ref, side } = e.spot;
  if (at && board.measure.outline?.widthMm !== undefined) {
    const [x, y] = cornerOf(board.measure);
    return { layer: side, x: x + at[0], y: y + at[1] };
  }
  if (ref === undefined) return undefined;
  const pad = padsByPin(board.measure).get(ref)?.[0] ?? padsByPart(board.measure).get(ref)?.[0];
  if (pad) return { layer: pad.layer, x: pad.x, y: pad.y };
  const placed = doc.placements.find((p) => p.ref === ref && (p.board ?? board.id) === board.id);
  return placed && { layer: placed.side, x: placed.xMm, y: placed.yMm };
}

const HARM = { stops: "error", worse: "warning", looks: "remark" } as const;

/** What is known to be wrong with the run's revision, and what of an earlier one nobody has decided on for it. */
export function erratumNotes(doc: RunDocument, add: Add): void {
  for (const e of doc.errata ?? []) {
    const board = boardFor(doc, e.spot);
    const at = placeOfErratum(doc, e);
    const more = {
      ...(at ? { at } : {}),
      ...(e.spot.ref ? { about: [e.spot.ref] } : {}),
      ...aboutBoard(doc, board?.id),
    };
    const what = `${sentence(e.title)}${e.effect ? ` ${capital(sentence(e.effect))}` : ""}`;
    const round = e.workaround ? `On each board: ${sentence(e.workaround)}` : "";
    if (e.isHere || e.decision?.is === "stays") {
      const why = e.isHere
        ? `Known of this revision since ${e.foundOn}`
        : `Known since ${e.foundIn} and left as it is (${sentence(e.decision!.because || "no reason given").replace(/\.$/, "")})`;
      // what stops a board is a blocker until somebody says how it is worked around
      const level = e.harm === "stops" && e.workaround !== "" ? "warning" : HARM[e.harm];
      add("board", `erratum ${e.id} known`, level, `${why}: ${what}`, {
        ...more,
        do: round || "Say how it is worked around, or accept it with the reason why it may stay.",
      });
      continue;
    }
    if (!e.decision) {
      const change = changeSince(doc, e);
      add(
        "board",
        `erratum ${e.id} undecided`,
        "error",
        `Found in ${e.foundIn}, and nobody has decided on it for ${doc.revision}: ${what} ${CHANGE[change.is](change)}`,
        { ...more, do: "Say whether it is mended here, stays, or is nothing this revision has." },
      );
    } else if (e.decision.is === "fixed") {
      const change = changeSince(doc, e);
      if (change.is === "same")
        add(
          "board",
          `erratum ${e.id} unchanged`,
          "error",
          `It is said to be mended in ${doc.revision}, but nothing is changed at its place since ${e.foundIn}: ${what}`,
          {
            ...more,
            do: "Look whether the right files were dropped; accept it where it was mended elsewhere.",
          },
        );
    }
  }
}

const CHANGE: Readonly<Record<PlaceChange["is"], (c: PlaceChange) => string>> = {
  same: () => "Nothing is changed at its place.",
  changed: (c) => `Changed at its place: ${c.is === "changed" ? c.words : ""}`,
  unknown: (c) => `Whether its place was changed is not known: ${c.is === "unknown" ? c.because : ""}`,
};
