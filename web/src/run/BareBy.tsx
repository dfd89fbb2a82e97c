import { boardKey, SURPLUS, type SurplusPurpose } from "@kobbin/core";
import { useLotsBefore } from "../resources/record.ts";
import { day } from "../ui/text/format.ts";
import { useRun } from "./runState.ts";

/**
 * Bare boards that were put by for what is to be done now: how many and where they lie, of this run's or of lots before. Nothing
 * where none are.
 */
export function BareBy({ purpose, className }: { purpose: SurplusPurpose; className?: string }) {
  const { id, doc, record } = useRun();
  const { data: before } = useLotsBefore(id);
  const own = doc.boards.flatMap((b, i) =>
    (record.kept ?? [])
      .filter((k) => k.item === boardKey(doc, i))
      .map((k) => ({ ...k, board: b.name, revision: doc.revision, of: "this run" })),
  );
  const older = (before ?? [])
    .filter((l) => l.isSame)
    .flatMap((l) =>
      l.kept.map((k) => ({
        ...k,
        board: l.board,
        revision: l.revision,
        of: `${l.runName}, rev ${l.revision}, ${day(l.on)}`,
      })),
    );
  // a spare one is built: of this revision alone, and of those that may be used
  const list = [...own, ...older].filter(
    (k) => k.purpose === purpose && (purpose !== "spare" || (k.revision === doc.revision && !k.isApart)),
  );
  if (list.length === 0) return null;
  return (
    <p className={className}>
      Put by, {SURPLUS[purpose]}:{" "}
      {list
        .map(
          (k) =>
            `${k.pieces}${doc.boards.length > 1 ? ` ${k.board}` : ""} of ${k.of}${k.place ? `, in ${k.place}` : ""}`,
        )
        .join("; ")}
      .
    </p>
  );
}
