import {
  compareRefs,
  isNoPiece,
  isWalked,
  type PlanOfRun,
  piecesOf,
  type StepsDocument,
  spareByHand,
  stepStand,
} from "@kobbin/core";
import { BareBy } from "../../../run/BareBy.tsx";
import { useRun } from "../../../run/runState.ts";
import { count } from "../../../ui/text/format.ts";
import { HeatTimer } from "./tools/HeatTimer.tsx";

type Row = StepsDocument["steps"][number];
const BARE = "mt-3 border-l-4 border-rule-2 px-3 text-[18px] max-sm:text-[15px]";

/** What a step without pieces works on: all parts of the run where they are laid out, what is in doubt where one looks. */
export function Beside({ plan, row, unit }: { plan: PlanOfRun; row: Row; unit: number }) {
  if (row.kind === "kit")
    return (
      <>
        <BareBy purpose="tray" className={BARE} />
        <LaidOut plan={plan} />
      </>
    );
  if (row.kind === "print") return <BareBy purpose="nest" className={BARE} />;
  if (row.kind === "heat")
    return (
      <>
        <HeatTimer alloy={plan.sheet.alloy} />
        {unit <= 1 && <BareBy purpose="practice" className={BARE} />}
      </>
    );
  if (row.kind === "inspect" || row.kind === "test")
    return <InDoubt plan={plan} unit={unit} before={row.n} />;
  return null;
}

/** Every line in the order in which it is put on, with pieces for all boards and where they lie. */
function LaidOut({ plan }: { plan: PlanOfRun }) {
  const { doc, result: r } = useRun();
  const lines = plan.sheet.steps.flatMap((s) => s.lines);
  if (lines.length === 0) return null;
  return (
    <table className="rows mt-3 w-full text-[18px] max-sm:text-[15px]" aria-label="To lay out">
      <thead>
        <tr>
          <th className="text-right">Pieces</th>
          <th>Part</th>
          <th>Package</th>
          <th>Goes to</th>
        </tr>
      </thead>
      <tbody>
        {lines.map((l) => {
          const spare = spareByHand(r.needs.find((n) => n.lines.includes(l.line)));
          // what is not soldered goes on good boards alone
          const isLoose = r.parts.some((p) => p.line.id === l.line && p.kind === "loose");
          return (
            <tr key={`${l.line} ${l.refs.join(" ")}`}>
              <td className="num text-right">{Math.ceil(l.pieces * (isLoose ? doc.goodBoards : r.start))}</td>
              <td>
                <b>{l.value || l.mpn}</b>
                {l.lies && <span className="block text-[15px] text-ink-2">from {l.lies.join(", ")}</span>}
                {spare !== undefined && spare > 0 && (
                  <span className="block text-[15px] text-ink-2">and {spare} spare</span>
                )}
              </td>
              <td className="num">{l.package}</td>
              <td className="num">
                {[...l.refs].sort(compareRefs).slice(0, 6).join(" ")}
                {l.refs.length > 6 ? " …" : ""}
              </td>
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}

/** Pieces of this board that somebody wanted to look at again, those left for later, and those nobody said anything of. */
function InDoubt({ plan, unit, before }: { plan: PlanOfRun; unit: number; before: number }) {
  const { record } = useRun();
  const own = (record.sittings ?? []).filter((s) => s.unit === unit);
  // kinds that were laid out and things that were tried are no pieces of the board
  const marks = own.flatMap((s) => Object.entries(s.marks)).filter(([name]) => !isNoPiece(name));
  const of = (mark: string) => marks.flatMap(([name, m]) => (m === mark ? [name] : [])).sort(compareRefs);
  const [doubts, later] = [of("doubt"), of("skipped")];
  const unsaid = plan.sheet.steps
    .filter((s) => isWalked(s.kind) && s.n < before)
    .reduce((n, s) => n + stepStand(piecesOf(s), own.find((x) => x.step === s.n)?.marks ?? {}).left, 0);
  if (doubts.length + later.length + unsaid === 0)
    return <p className="mt-3">Nothing was put on in doubt on this one, and nothing was left.</p>;
  return (
    <>
      {doubts.length > 0 && (
        <p className="mt-3 text-look">
          Look at these again: <b className="num">{doubts.join(" ")}</b>
        </p>
      )}
      {later.length > 0 && (
        <p className="mt-2 text-stop">
          Left for later and not on: <b className="num">{later.join(" ")}</b>
        </p>
      )}
      {unsaid > 0 && (
        <p className="mt-2 text-look">
          Of {count(unsaid, "piece")} nobody said here whether {unsaid === 1 ? "it is" : "they are"} on.
        </p>
      )}
    </>
  );
}
