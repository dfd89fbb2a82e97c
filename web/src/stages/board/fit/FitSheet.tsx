import { type FitStanding, INTENDED, judgeFits } from "@kobbin/core";
import { useMemo } from "react";
import { removeFit } from "../../../resources/run.ts";
import { useRun } from "../../../run/runState.ts";
import { Button } from "../../../ui/Button.tsx";
import { Empty } from "../../../ui/States.tsx";
import { count, said } from "../../../ui/text/format.ts";
import { useSayError } from "../../../ui/toast/Toast.tsx";
import { useOneOpen } from "../../../ui/useOneOpen.ts";
import type { BoardConnection } from "../../../workers/board.ts";
import type { BoardView } from "../useBoardView.ts";
import { FitForm } from "./FitForm.tsx";
import { type FIT_WORDS, verdictWords } from "./fitWords.ts";
import { PlaceLayers } from "./PlaceLayers.tsx";
import { Room, Slip } from "./Room.tsx";

/** What the product's boards must go into, onto or beside: a row each, judged as it would be made in this run. */
export function FitSheet({ view: v, board }: { view: BoardView; board: BoardConnection | undefined }) {
  const { doc, isLocked } = useRun();
  const rows = useMemo(() => judgeFits(doc), [doc]);
  const { open: edited, setOpen: setEdited, close } = useOneOpen();
  const isNew = edited === "new";
  const widest = Math.max(0.1, ...rows.flatMap((r) => (r.result ? r.result.worstMm.map(Math.abs) : [])));
  const bad = rows.filter((r) => r.verdict !== "fits").length;
  return (
    <section aria-label="Fit sheet">
      <div className="mb-2 flex flex-wrap items-baseline gap-x-5 text-[14.5px]">
        <p className="mr-auto max-w-[70ch] text-ink-2">
          {rows.length === 0
            ? "What the board must go into, before any money moves."
            : `${count(rows.length, "row")}, ${bad === 0 ? "all fit" : `${bad} ${bad === 1 ? "does" : "do"} not hold`}; ${says(rows[0], doc.house?.name)}`}
        </p>
        {!isLocked && !isNew && (
          <Button onClick={() => setEdited("new")} look={rows.length === 0 ? "main" : "plain"}>
            Add what it must fit
          </Button>
        )}
      </div>
      {isNew && <FitForm view={v} board={board} row={undefined} onClose={() => close("new")} />}
      {rows.length === 0 && !isNew && (
        <Empty>
          Posts of a case, a socket, a groove, a tab, a gap: each is a row here, and is judged anew when the
          thickness, the house or the revision changes.
        </Empty>
      )}
      <ul>
        {rows.map((r) =>
          edited === r.row.id ? (
            <li key={r.row.id}>
              <FitForm view={v} board={board} row={r.row} onClose={() => close(r.row.id)} />
            </li>
          ) : (
            <Row
              key={r.row.id}
              row={r}
              board={board}
              widest={widest}
              isLocked={isLocked}
              onEdit={() => setEdited(r.row.id)}
            />
          ),
        )}
      </ul>
    </section>
  );
}

const says = (first: FitStanding | undefined, house: string | undefined): string =>
  house === undefined
    ? "no house is chosen, its tolerances are taken as usual"
    : first?.isStated
      ? `with the tolerances of ${house}`
      : `${house} states not all its tolerances, usual ones stand in`;

const COLOUR = {
  fits: "text-fine",
  "may-not-fit": "text-look",
  "does-not-fit": "text-stop",
  loose: "text-look",
  unknown: "text-look",
} as const satisfies Record<keyof typeof FIT_WORDS, string>;

/** What is asked of every layer at a place, and what the files have there. */
function Conditions({ conditions }: { conditions: NonNullable<FitStanding["conditions"]> }) {
  return (
    <ul className="mt-1 text-[14px] text-ink-2">
      {conditions.map((c) => (
        <li key={c.asks} className={c.holds ? "" : "font-bold text-stop"}>
          {c.holds ? "✓" : "✗"} {c.asks}: {c.found}
        </li>
      ))}
    </ul>
  );
}

function Row({
  row: f,
  board,
  widest,
  isLocked,
  onEdit,
}: {
  row: FitStanding;
  board: BoardConnection | undefined;
  widest: number;
  isLocked: boolean;
  onEdit: () => void;
}) {
  const { id, did } = useRun();
  const sayError = useSayError();
  const r = f.result;
  return (
    <li className="grid grid-cols-[minmax(0,1fr)_300px] items-center gap-x-6 border-t border-rule py-3 max-md:grid-cols-1">
      <div>
        <p>
          <b className="text-[16px]">{f.row.label}</b>{" "}
          <b className={`ml-2 ${COLOUR[f.verdict]}`}>{verdictWords(f)}</b>
        </p>
        <p className="text-[14.5px] text-ink-2">
          {f.row.board ? `${f.row.board}: ` : ""}
          {said(against(f))}
        </p>
        {f.because && !f.conditions && <p className="text-[14.5px]">{f.because}</p>}
        {f.conditions && <Conditions conditions={f.conditions} />}
        {(f.mend || f.heldBy.length > 0) && (
          <p className="text-[14.5px]">
            {[
              f.mend && `${f.mend} always fits`,
              f.heldBy.length > 0 &&
                `${f.heldBy.join(" and ")} ${f.heldBy.length === 1 ? "holds" : "hold"} it as it is`,
            ]
              .filter(Boolean)
              .map((t) => said(String(t)))
              .join("; ")}
            .
          </p>
        )}
        {r?.doubt && <p className="text-[14.5px] text-look">The readings lie between two thicknesses.</p>}
        {!isLocked && (
          <p className="flex gap-4 text-[14px]">
            <button
              type="button"
              className="quiet-link"
              onClick={onEdit}
              aria-label={`Change ${f.row.label}`}
            >
              change
            </button>
            <button
              type="button"
              className="quiet-link"
              aria-label={`Remove ${f.row.label}`}
              onClick={() => {
                const gone = removeFit(id, f.row.id);
                gone.catch(sayError);
                did(`${f.row.label} is judged no more`, gone);
              }}
            >
              remove
            </button>
          </p>
        )}
      </div>
      {f.row.spec.kind === "intended" && <PlaceLayers fit={f} board={board} />}
      {r && (
        <div>
          <Room result={r} widest={widest} playMm={f.row.playMm} />
          {f.slip && <Slip slip={f.slip} />}
        </div>
      )}
    </li>
  );
}

/** Both sides of a row in one line. */
function against({ board, row: { spec: s } }: FitStanding): string {
  switch (s.kind) {
    case "slot":
      return `${board}, for a tab of ${s.tabReadingsMm ? s.tabReadingsMm.join(", ") : s.tabMm} mm ± ${s.tabTolMm}${s.tabWidthMm === undefined ? "" : `, ${s.tabWidthMm} mm wide`}`;
    case "pin":
      return `${board}: ${s.shape} pins of ${s.pinMm} mm ± ${s.pinTolMm}`;
    case "edge":
      return `${board}, in what takes ${s.allowsMm[0]} to ${s.allowsMm[1]} mm`;
    case "contacts":
      return `${board}; in a socket ${s.openingMm} mm ± ${s.openingTolMm} wide with contacts of ${s.contactMm} mm`;
    case "outline":
      return `${board}, in an opening of ${s.openingMm} mm ± ${s.openingTolMm}`;
    case "pattern":
      return `${board}, on posts of ${[...new Set(s.posts.map((p) => p.diameterMm))].join(" and ")} mm, their places ± ${s.postTolMm}`;
    case "intended":
      return `${board} on the ${s.side}: ${INTENDED[s.what]}`;
    case "lid":
      return `${board}, in a room of ${s.roomMm} mm ± ${s.roomTolMm} over ${s.area ? `a field of the ${s.side}` : `the ${s.side}`}`;
    case "facing":
      return `${board}, in a gap of ${s.gapMm} mm ± ${s.gapTolMm} to ${s.other}`;
    case "stack":
      return `${s.boards > 1 ? `${s.boards} of ` : ""}${board}${s.spacers.map((x) => `, ${x.mm} mm ± ${x.tolMm}`).join("")}, in a gap of ${s.gapMm} mm ± ${s.gapTolMm}`;
  }
}
