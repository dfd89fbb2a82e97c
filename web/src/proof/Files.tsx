import { BOM_WORDS, type Corrections, type LayerRow, type Measure, type Role, type Side } from "@kobbin/core";
import { useState } from "react";
import { Pick } from "../ui/Field.tsx";
import { Fold } from "../ui/Fold.tsx";
import { count } from "../ui/text/format.ts";

const ROLES: readonly (readonly [string, string])[] = [
  ["copper top", "copper top"],
  ["copper inner 1", "copper inner 1"],
  ["copper inner 2", "copper inner 2"],
  ["copper bottom", "copper bottom"],
  ["mask top", "mask top"],
  ["mask bottom", "mask bottom"],
  ["legend top", "silkscreen top"],
  ["legend bottom", "silkscreen bottom"],
  ["paste top", "paste top"],
  ["paste bottom", "paste bottom"],
  ["profile", "outline"],
  ["drill plated", "drill, plated"],
  ["drill bare", "drill, not plated"],
  ["bom", "parts list"],
  ["placement", "placement file"],
  ["netlist", "netlist"],
  ["job", "job file"],
  ["drawing", "drawing only"],
  ["unknown", "not used"],
];
const BOM_LABELS: Readonly<Record<string, string>> = {
  refs: "references",
  qty: "quantity",
  value: "value",
  package: "package",
  mpn: "part number",
  maker: "maker",
  description: "description",
  dnp: "do not place",
  fitted: "fitted",
};
const PLACE_LABELS: Readonly<Record<string, string>> = {
  ref: "reference",
  x: "X",
  y: "Y",
  rotation: "rotation",
  side: "side",
};

const keyOf = (l: LayerRow) =>
  l.role === "drill"
    ? l.plated === false
      ? "drill bare"
      : "drill plated"
    : `${l.role}${l.side ? ` ${l.side}` : ""}${l.index ? ` ${l.index}` : ""}`;

function toRole(key: string): NonNullable<Corrections["roles"]>[string] {
  const [role, side, index] = key.split(" ") as [Role, string | undefined, string | undefined];
  if (role === "drill") return { role, plated: side !== "bare" };
  return { role, ...(side ? { side: side as Side } : {}), ...(index ? { index: Number(index) } : {}) };
}

/** "12 files, 2 not used". */
function verdictOf({ layers }: Measure): string {
  const unused = layers.filter((l) => l.role === "unknown").length;
  const byName = layers.filter((l) => l.because === "name" || l.because === "content").length;
  return `${count(layers.length, "file")}${byName > 0 ? `, ${byName} told by name or content` : ""}${unused > 0 ? `, ${unused} not used` : ""}`;
}

/** Each file with its role and why; a wrong role or column is corrected here, and remembered for such names. */
export function Files({
  measure,
  onCorrect,
  disabled = false,
  isFolded = false,
}: {
  measure: Measure;
  isFolded?: boolean;
  onCorrect: (change: Corrections) => void;
  disabled?: boolean;
}) {
  const [open, setOpen] = useState<string>();
  return (
    <Fold id="files" title="Files" verdict={verdictOf(measure)} isOpen={!isFolded}>
      <div className="overflow-x-auto">
        <table className="rows w-full">
          <thead>
            <tr>
              <th>File</th>
              <th>Role</th>
              <th>Why</th>
              <th className="text-right">Objects</th>
              <th className="text-right">Bytes</th>
            </tr>
          </thead>
          <tbody>
            {measure.layers.map((l) => (
              <tr key={l.file}>
                <td className="num text-[13px] break-all">{l.file}</td>
                <td>
                  {disabled ? (
                    keyOf(l)
                  ) : (
                    <Pick
                      hideLabel
                      label={`Role of ${l.file}`}
                      value={ROLES.some(([k]) => k === keyOf(l)) ? keyOf(l) : "unknown"}
                      options={ROLES}
                      onChange={(v) => onCorrect({ roles: { [l.file]: toRole(v) } })}
                    />
                  )}
                  {(l.role === "bom" || l.role === "placement") && l.headers && !disabled && (
                    <button
                      type="button"
                      className="quiet-link"
                      aria-expanded={open === l.file}
                      onClick={() => setOpen(open === l.file ? undefined : l.file)}
                    >
                      columns
                    </button>
                  )}
                  {open === l.file && l.headers && <Columns row={l} onCorrect={onCorrect} />}
                </td>
                <td className="text-[14px] text-ink-2">{l.reason}</td>
                <td className="num text-right">{l.objects > 0 ? l.objects : "–"}</td>
                <td className="num text-right">{l.bytes}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </Fold>
  );
}

function Columns({ row, onCorrect }: { row: LayerRow; onCorrect: (change: Corrections) => void }) {
  const labels = row.role === "bom" ? BOM_LABELS : PLACE_LABELS;
  const [chosen, setChosen] = useState<Record<string, string>>({});
  const keys = row.role === "bom" ? Object.keys(BOM_WORDS) : Object.keys(PLACE_LABELS);
  return (
    <div className="mt-2 grid grid-cols-2 gap-2">
      {keys.map((key) => (
        <Pick
          key={key}
          label={labels[key] ?? key}
          value={chosen[key] ?? ""}
          options={[
            ["", "by its header"],
            ...row.headers!.filter((h) => h.trim() !== "").map((h) => [h, h] as const),
          ]}
          onChange={(v) => {
            const next = { ...chosen, [key]: v };
            setChosen(next);
            onCorrect({
              columns: { [row.file]: Object.fromEntries(Object.entries(next).filter(([, h]) => h !== "")) },
            });
          }}
        />
      ))}
    </div>
  );
}
