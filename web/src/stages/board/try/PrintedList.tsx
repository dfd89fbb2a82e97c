import type { ProbeDocument, ProbePoint } from "@kobbin/core";

/** The list on paper, with a box for each answer; on the screen it is not there. */
export function PrintedList({ list, title }: { list: ProbeDocument; title: string }) {
  const at = (p: ProbePoint) => `${p.pad ?? `${p.x.toFixed(1)} / ${p.y.toFixed(1)}`} ${p.layer}`;
  return (
    <div className="hidden print:block">
      <h2 className="text-[18px]">Trying it bare: {title}</h2>
      <p>
        About {list.minutes} min a board. Board no. ________ of the delivery of ____________ tried by
        ____________. Nothing plugged in.
      </p>
      <table className="mt-2 w-full text-[12px]">
        <thead>
          <tr className="text-left">
            <th>No.</th>
            <th>Net</th>
            <th>A</th>
            <th>B</th>
            <th>Must</th>
            <th>Holds</th>
            <th>Because</th>
          </tr>
        </thead>
        <tbody>
          {list.probes.map((p, i) => (
            <tr key={`${at(p.a)} ${at(p.b)}`} className="border-t border-rule">
              <td className="num">{i + 1}</td>
              <td>{p.nets.join(" – ")}</td>
              <td className="num">{at(p.a)}</td>
              <td className="num">{at(p.b)}</td>
              <td className="font-bold">{p.expect === "joined" ? "beep" : "be silent"}</td>
              <td>☐ yes ☐ no</td>
              <td>{p.because}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
