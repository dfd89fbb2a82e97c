import {
  lostOf,
  type Piece,
  type PlanOfRun,
  type StepsDocument,
  spareByHand,
  unitOf,
  unitOfStep,
} from "@kobbin/core";
import { type ReactNode, useMemo } from "react";
import { boardOfStep } from "../../../proof/drawnParts.ts";
import { RunBags } from "../../../run/RunBags.tsx";
import { useRun } from "../../../run/runState.ts";
import { PiecePicture } from "./PiecePicture.tsx";
import type { Sitting } from "./useSitting.ts";

type Row = StepsDocument["steps"][number];
type Line = Row["lines"][number];

/** A piece to be put on: where it goes, what it is, what was lost of its kind. */
export function PieceCard({
  plan,
  row,
  unit,
  piece,
  line,
  sitting,
}: {
  plan: PlanOfRun;
  row: Row;
  unit: number;
  piece: Piece;
  line: Line;
  sitting: Sitting;
}) {
  const { doc, record, result } = useRun();
  const step = plan.order.steps[row.n - 1]!;
  const directed = useMemo(
    () => new Set(plan.work.parts.flatMap((p) => (p.isPolarised ? [p.name] : []))),
    [plan],
  );
  return (
    <div className="grid grid-cols-[auto_minmax(260px,1fr)] gap-6 max-lg:grid-cols-1 max-lg:gap-3">
      <PiecePicture step={step} piece={piece} marks={sitting.sat.marks} directed={directed} />
      <About
        piece={piece}
        line={line}
        isAgain={sitting.sat.marks[piece.name] === "skipped"}
        perUnit={boardOfStep(doc, step)?.perProduct ?? 1}
        lost={
          <Lost
            here={sitting.sat.lost[line.line] ?? 0}
            elsewhere={lostOf(
              (record.sittings ?? []).filter(
                (s) => s.unit !== unitOfStep(row.kind, unit) || s.step !== row.n,
              ),
              line.line,
            )}
            spare={spareByHand(result.needs.find((n) => n.lines.includes(line.line)))}
            onBack={() => sitting.lose(line.line, -1)}
          />
        }
      />
    </div>
  );
}

/** What the piece is, readable at arm's length. */
function About({
  piece,
  line,
  isAgain,
  perUnit,
  lost,
}: {
  piece: Piece;
  line: Line;
  isAgain: boolean;
  /** Boards of this design in a unit: what is said holds for each of them. */
  perUnit: number;
  lost: ReactNode;
}) {
  const { doc } = useRun();
  return (
    <div aria-live="polite">
      <p className="num text-[64px] leading-none font-bold max-sm:text-[40px]">{piece.name}</p>
      <p className="mt-2 text-[34px] leading-tight font-semibold max-sm:text-[24px]">
        {line.value || line.mpn}
      </p>
      <p className="num text-[22px] text-ink-2 max-sm:text-[17px]">{line.package}</p>
      <p className="mt-3 text-[22px] max-sm:text-[17px]">
        {piece.nth} of {piece.of}
        {line.lies ? `, from ${line.lies.join(", ")}` : ""}
      </p>
      {perUnit > 1 && (
        <p className="mt-3 text-[20px] font-semibold text-look max-sm:text-[16px]">
          On each of the {perUnit} boards of this kind in the {unitOf(doc)}.
        </p>
      )}
      {line.mark !== undefined && (
        <p className="mt-3 border-l-4 border-metal bg-metal-soft px-3 py-2 text-[20px] max-sm:text-[16px]">
          <b>One way round only:</b> {line.mark || "how it is marked is not written down: look it up"}
        </p>
      )}
      <RunBags
        line={line.line}
        isBig
        isBad
        className="mt-3 border-l-4 border-stop px-3 text-[18px] max-sm:text-[16px]"
      />
      {isAgain && <p className="mt-3 text-[18px] text-look">It was left for later.</p>}
      {lost}
    </div>
  );
}

/** Pieces lost of a line, here and elsewhere, against those there are to lose; a press too many is taken back. */
function Lost({
  here,
  elsewhere,
  spare,
  onBack,
}: {
  here: number;
  elsewhere: number;
  spare: number | undefined;
  onBack: () => void;
}) {
  const all = here + elsewhere;
  if (all === 0) return null;
  return (
    <p className={`mt-3 text-[18px] ${spare !== undefined && all > spare ? "text-stop" : "text-ink-2"}`}>
      {here > 0 ? `${here} lost here` : "none lost here"}
      {elsewhere > 0 ? `, ${all} in the whole run` : ""}
      {spare === undefined ? "" : `; ${spare} to spare for all boards`}
      {here > 0 && (
        <button type="button" className="quiet-link ml-3" onClick={onBack}>
          one is found again
        </button>
      )}
    </p>
  );
}
