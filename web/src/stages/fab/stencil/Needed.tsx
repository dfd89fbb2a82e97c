import { stencilNeed } from "@kobbin/core";
import { useRun } from "../../../run/runState.ts";
import { Sum } from "../../../ui/Sum.tsx";
import { amount, count, fixed, said } from "../../../ui/text/format.ts";

/** Whether a foil is worth it for this run: foil, syringe and iron side by side, and from how many boards on. */
export function Needed() {
  const { doc, result: r } = useRun();
  const need = stencilNeed(doc, r);
  const { currency } = doc.workshop;
  const best = [...need.ways].filter((w) => !w.cannot).sort((a, b) => a.cost - b.cost)[0];
  return (
    <section aria-labelledby="needed" className="mt-6">
      <h2 id="needed" className="mb-1">
        {best
          ? best.key === "foil"
            ? "A foil pays in this run"
            : `${said(best.label)} costs less in this run`
          : "No way to solder is known"}
      </h2>
      <p className="mb-2 text-[14px] text-ink-2">
        {need.breakEven === undefined
          ? "A foil does not pay at any number of boards, or nothing else can be done."
          : need.breakEven <= 1
            ? "It pays from the first board on."
            : `It pays from ${count(need.breakEven, "board")} on; ${r.start} are started.`}
      </p>
      <table className="rows w-full">
        <thead>
          <tr>
            <th>Way</th>
            <th className="text-right">Set-up, min</th>
            <th className="text-right">A board, min</th>
            <th className="text-right">Run, h</th>
            <th className="text-right">Costs, {currency}</th>
            <th>What goes wrong</th>
          </tr>
        </thead>
        <tbody>
          {need.ways.map((w) => (
            <tr key={w.key} className={w === best ? "bg-metal-soft" : ""}>
              <td className="pl-2!">{w.label}</td>
              <td className="num text-right">{fixed(w.setupMin, 0)}</td>
              <td className="num text-right">{fixed(w.perBoardMin, 1)}</td>
              <td className="num text-right">{fixed(w.minutes / 60, 1)}</td>
              <td className="num text-right">
                <Sum
                  title={`${w.label}, ${r.start} boards`}
                  formula="(set-up + boards × minutes a board) × hourly rate + foil"
                  terms={[
                    {
                      label: "own minutes",
                      value: fixed(w.minutes, 0),
                      from: "time model; a dot by hand counts 4 s, a placeholder",
                    },
                    { label: "hourly rate", value: String(doc.workshop.hourlyRate) },
                    ...(w.key === "foil" ? [{ label: "foil", value: amount(need.foilCost, currency) }] : []),
                  ]}
                  result={amount(w.cost, currency)}
                >
                  {amount(w.cost, currency)}
                </Sum>
              </td>
              <td className="text-[13.5px] text-ink-2">
                {w.cannot ? <span className="text-stop">cannot: {w.cannot}</span> : said(w.risks.join("; "))}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}
