import { type Factor, type FactorKind, TOOLS } from "@kobbin/core";
import { chanceWords, shareWords } from "./standsWords.ts";

const KINDS: Readonly<Record<FactorKind, string>> = {
  part: "part",
  package: "package",
  side: "side",
  person: "put on by",
  heater: TOOLS.heater.label,
  paste: TOOLS.paste.label,
  iron: TOOLS.iron.label,
  wire: TOOLS.wire.label,
  house: "bare boards of",
  lot: "lot",
};

/** What faults have in common: how many fell on each, against the share of what may go wrong, as two bars over each other. */
export function FactorRows({ factors }: { factors: readonly Factor[] }) {
  return (
    <div className="overflow-x-auto">
      <table
        className="rows w-full max-w-[860px] text-[14.5px] [&_td]:whitespace-nowrap"
        aria-label="What faults have in common"
      >
        <tbody>
          {factors.map((f) => (
            <tr key={`${f.kind} ${f.among ?? ""} ${f.name}`} className={f.standsOut ? "" : "text-ink-2"}>
              <td className="w-[7em]">{KINDS[f.kind]}</td>
              <td className="font-semibold">
                {f.name}
                {f.among && <span className="font-normal text-ink-2"> of {f.among}</span>}
              </td>
              <td>
                <svg width="150" height="20" className="block" aria-hidden="true">
                  <rect x="0" y="2" width={(150 * f.seen) / f.of} height="9" fill="var(--metal)" />
                  <rect x="0" y="13" width={150 * f.share} height="4" fill="var(--ink-3)" />
                </svg>
              </td>
              <td className="num">
                {f.seen} of {f.of} faults
              </td>
              <td>its share would be {shareWords(f.share)}</td>
              <td>{chanceWords(f.chance)} by chance</td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
