import { type Carried, carriedOn, numberKey, type RunBoard } from "@kobbin/core";
import { useMemo } from "react";
import { savePart } from "../../../../resources/library.ts";
import { refetchRun } from "../../../../resources/run.ts";
import { useRun } from "../../../../run/runState.ts";
import { Kept } from "../../../../ui/Kept.tsx";
import { Mark } from "../../../../ui/Mark.tsx";
import { said, typedNumber, written } from "../../../../ui/text/format.ts";
import { useSay, useSayError } from "../../../../ui/toast/Toast.tsx";
import { amps } from "./flowWords.ts";

const WORDS = { source: "gives it", contacts: "contacts", part: "goes through it" } as const;

/** What the currents go through besides copper, each against what it is made for; what is not known is typed in place. */
export function Through({ board }: { board: RunBoard }) {
  const { id, doc, isLocked } = useRun();
  const say = useSay();
  const sayError = useSayError();
  const list = useMemo(() => carriedOn(doc, board), [doc, board]);
  if (list.length === 0) return null;
  const lines = doc.lines.filter((l) => l.board === undefined || l.board === board.id);
  const partOf = (ref: string) => {
    const mpn = lines.find((l) => l.refs.includes(ref))?.mpn ?? "";
    return mpn === "" ? undefined : doc.library?.find((p) => numberKey(p.mpn) === numberKey(mpn));
  };
  const save = (c: Carried, typed: string) => {
    const part = partOf(c.ref);
    const value = Number(typedNumber(typed.trim()));
    if (!part || typed.trim() === "") return;
    if (!(value > 0 && value <= 1e6))
      return say(`“${typed}” is no current in mA.`, { isProblem: true, hint: "It stays as it was." });
    savePart(part.id, { carriesMa: value })
      .then(() => refetchRun(id))
      .catch(sayError);
  };
  return (
    <table className="rows tight mt-4 text-[14.5px]" aria-label="What it goes through">
      <thead>
        <tr>
          <th>Goes through</th>
          <th>of</th>
          <th className="text-right">at the most</th>
          <th className="text-right">made for</th>
          <th className="text-right">used</th>
        </tr>
      </thead>
      <tbody>
        {list.map((c) => {
          const isOver = c.limitMa !== undefined && c.ma > c.limitMa;
          return (
            <tr key={`${c.what} ${c.ref} ${c.net}`}>
              <td>
                <b>{c.what === "source" ? c.name : c.ref}</b>{" "}
                <span className="text-[13px] text-ink-2">
                  {c.what === "source"
                    ? `${WORDS.source} at ${c.ref}`
                    : c.what === "contacts"
                      ? `${c.contacts} ${c.contacts === 1 ? "contact" : WORDS.contacts}`
                      : c.name}
                </span>
              </td>
              <td className="num text-ink-2">{c.net}</td>
              <td className="num text-right">
                {c.isLeast ? said("at least ") : ""}
                {amps(c.ma)}
              </td>
              <td className="num text-right">
                {c.limitMa !== undefined ? (
                  amps(c.limitMa)
                ) : !isLocked && partOf(c.ref) ? (
                  <Kept
                    label={`${c.ref} is made for, mA${c.what === "contacts" ? ", each contact" : ""}`}
                    isLabelHidden
                    isMono
                    placeholder={c.what === "contacts" ? "mA each" : "mA"}
                    value=""
                    onSave={(v) => save(c, v)}
                  />
                ) : (
                  <span className="text-ink-2">not known</span>
                )}
              </td>
              <td className={`num text-right ${isOver ? "text-look" : ""}`}>
                {isOver && <Mark kind="look" />}
                {c.limitMa === undefined
                  ? ""
                  : `${c.isLeast ? said("at least ") : ""}${written(String(Math.round((100 * c.ma) / Math.max(c.limitMa, 1e-9))))} %`}
              </td>
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}
