import type { PlanOfRun, StepsDocument } from "@kobbin/core";
import { useRun } from "../../../run/runState.ts";
import { usePrinted } from "../../../ui/printed.ts";

/** A field of the tray: what lies in it, in the order in which it is taken. */
export interface TrayField {
  readonly n: number;
  readonly step: number;
  readonly line: StepsDocument["steps"][number]["lines"][number];
}

/** Fields in the order of placing: one a line, those of a step beside each other. */
export function trayOf(sheet: StepsDocument): TrayField[] {
  let n = 0;
  return sheet.steps
    .filter((s) => s.kind === "place" || s.kind === "iron" || s.kind === "mechanical")
    .flatMap((s) => s.lines.map((line) => ({ n: ++n, step: s.n, line })));
}

/** Fields of 30 × 24 mm, six beside each other: printed one to one on A4 and Letter. */
const [FIELD_MM, HIGH_MM] = [30, 24];

/** The tray on paper, one to one: a field for each line, filled for a load; it prints itself and goes. */
export function TrayMap({ plan: { sheet }, onDone }: { plan: PlanOfRun; onDone: () => void }) {
  const { doc, result } = useRun();
  const paper = usePrinted(onDone);
  const load = Math.min(sheet.start, result.goes.has("stencil") ? doc.assembly.perLoad : 1);
  return (
    <section
      ref={paper}
      aria-label="Tray map"
      className="hidden text-[9px] leading-tight text-black print:block"
    >
      <h1 className="text-[15px]">
        Tray: {sheet.product} {sheet.revision}, {sheet.run}
      </h1>
      <p className="mb-1">
        Filled for {load} at a time of {sheet.start}. Printed at 100 %: this line is 100 mm long.
      </p>
      <div className="mb-2 border-b-2 border-black" style={{ width: "100mm" }} />
      <div className="flex flex-wrap" style={{ width: `${6 * FIELD_MM}mm` }}>
        {trayOf(sheet).map(({ n, step, line: l }) => (
          <div
            key={`${step} ${l.line}`}
            className="flex break-inside-avoid flex-col border border-black p-[1mm]"
            style={{ width: `${FIELD_MM}mm`, height: `${HIGH_MM}mm` }}
          >
            <p className="flex justify-between">
              <b className="text-[13px]">{n}</b>
              <span>step {step}</span>
            </p>
            <p className="overflow-hidden">
              <b>{l.value || l.mpn}</b> {l.package}
            </p>
            <p className="num flex-1 overflow-hidden text-[8px]">{l.refs.join(" ")}</p>
            <p className="flex justify-between">
              <b>
                {l.pieces * load} of {l.pieces * sheet.start}
              </b>
              <span>{l.mark === undefined ? "" : l.mark === "" ? "direction?" : "direction"}</span>
            </p>
          </div>
        ))}
      </div>
    </section>
  );
}
