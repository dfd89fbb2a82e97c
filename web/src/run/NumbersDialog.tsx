import { meetNumbers } from "@kobbin/core";
import { useMemo, useState } from "react";
import { Button } from "../ui/Button.tsx";
import { Dialog } from "../ui/Dialog.tsx";
import { count } from "../ui/text/format.ts";
import { useRun } from "./runState.ts";

const BY = { reference: "its reference", value: "its value", order: "its place in the list" } as const;

/** Part numbers pasted in bulk: each row shows the line it meets before anything is taken. */
export function NumbersDialog({ onClose }: { onClose: () => void }) {
  const { doc, changeLines } = useRun();
  const [text, setText] = useState("");
  const read = useMemo(() => meetNumbers(text, doc.lines), [text, doc.lines]);
  const nameOf = (ids: readonly string[]) => {
    const lines = doc.lines.filter((l) => ids.includes(l.id));
    const refs = lines.flatMap((l) => l.refs);
    return `${refs.slice(0, 4).join(" ")}${refs.length > 4 ? " …" : ""} ${lines[0]?.valueText ?? ""}`.trim();
  };
  const take = () => {
    changeLines(
      read.met.flatMap((m) => m.lines.map((id) => ({ id, change: { mpn: m.mpn } }))),
      `${count(read.met.length, "part number")} pasted`,
    );
    onClose();
  };
  return (
    <Dialog
      open
      onClose={onClose}
      title="Paste part numbers"
      about="Rows out of a list or a sheet: a reference or a value beside each number. A bare column is taken in the order of the lines without one."
    >
      <textarea
        aria-label="Rows with part numbers"
        className="num h-32 w-full"
        placeholder={"R1-R4\tnumber\n100n 50V\tnumber"}
        value={text}
        onChange={(e) => setText(e.target.value)}
      />
      {read.guess && <p className="mt-2 text-[14px] text-look">{read.guess}</p>}
      {read.met.length > 0 && (
        <table className="rows mt-2 w-full">
          <thead>
            <tr>
              <th>Line</th>
              <th>Number</th>
              <th>Met by</th>
            </tr>
          </thead>
          <tbody>
            {read.met.map((m) => (
              <tr key={m.row}>
                <td>{nameOf(m.lines)}</td>
                <td className="num">
                  {m.mpn}
                  {m.instead && (
                    <span className="block text-[12.5px] text-look">in the place of {m.instead}</span>
                  )}
                </td>
                <td className="text-[14px] text-ink-2">{BY[m.by]}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {read.left.length > 0 && (
        <ul className="mt-2 text-[14px] text-ink-2">
          {read.left.slice(0, 8).map((l) => (
            <li key={l.row}>
              <span className="text-look">Row {l.row} stays:</span> {l.why}{" "}
              <span className="num">({l.text.slice(0, 40)})</span>
            </li>
          ))}
          {read.left.length > 8 && <li>and {read.left.length - 8} more</li>}
        </ul>
      )}
      <div className="mt-3">
        <Button look="main" disabled={read.met.length === 0} onClick={take}>
          {read.met.length === 0 ? "Take the numbers" : `Take ${count(read.met.length, "number")}`}
        </Button>
      </div>
    </Dialog>
  );
}
