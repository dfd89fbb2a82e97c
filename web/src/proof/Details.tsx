import { isHolesLeast, type Measure, type Place, railOf } from "@kobbin/core";
import { useState } from "react";
import { Fold } from "../ui/Fold.tsx";
import { count, fixed, mm, useFormats } from "../ui/text/format.ts";

/** A place on the board that a person wants to see, with a word that tells it from the one shown before. */
export type Show = (at: Place, key: string) => void;

/** Nets of one pad shown before the rest is asked for. */
const FIRST_NETS = 12;

/** The drill table as a house reads it: every tool with what it drills; a press shows its holes one after the other. */
export function DrillTable({ measure: m, onShow }: { measure: Measure; onShow: Show }) {
  useFormats();
  const [next, setNext] = useState<Readonly<Record<string, number>>>({});
  const rows = m.drillTable ?? [];
  if (rows.length === 0) return null;
  const files = new Set(rows.map((r) => r.file));
  return (
    <Fold
      id="drill-table"
      title="Drills"
      verdict={`${count(rows.length, "tool")}, ${isHolesLeast(m) ? "at least " : ""}${count(
        m.holes.reduce((n, h) => n + h.count, 0),
        "hole",
      )}${m.slots.length > 0 ? `, ${count(m.slots.length, "slot")}` : ""}`}
    >
      <div className="overflow-x-auto">
        <table className="mt-1 w-full text-[14px]">
          <thead>
            <tr className="text-left text-[12.5px] text-ink-3">
              {["tool", "finished mm", "wall", "holes", "slots", "tolerance", "for"].map((h, i) => (
                <th
                  key={h}
                  scope="col"
                  className={`py-1 pr-4 font-normal ${[1, 3, 4].includes(i) ? "text-right" : ""}`}
                >
                  {h}
                </th>
              ))}
            </tr>
          </thead>
          {[...files].map((file) => (
            <tbody key={file}>
              {files.size > 1 && (
                <tr>
                  <th
                    scope="rowgroup"
                    colSpan={7}
                    className="pt-3 pb-1 text-left text-[12.5px] font-semibold text-ink-2"
                  >
                    {file}
                  </th>
                </tr>
              )}
              {rows
                .filter((r) => r.file === file)
                .map((r) => {
                  const key = `${r.file} ${r.tool} ${r.diameterMm} ${r.plated}`;
                  const k = next[key] ?? 0;
                  const name = r.tool ?? "–";
                  return (
                    <tr key={key} className="border-t border-rule">
                      <td className="num py-[5px] pr-4">
                        <button
                          type="button"
                          className="why"
                          aria-label={`${name}, ${mm(r.diameterMm)} mm, show hole ${k + 1} of ${r.at.length}`}
                          onClick={() => {
                            onShow(r.at[k]!, `${key} ${k}`);
                            setNext({ ...next, [key]: (k + 1) % r.at.length });
                          }}
                        >
                          {name}
                        </button>
                      </td>
                      <td className="num py-[5px] pr-4 text-right">{mm(r.diameterMm)}</td>
                      <td className="py-[5px] pr-4">{r.plated ? "plated" : "bare"}</td>
                      <td className="num py-[5px] pr-4 text-right">{r.holes || "–"}</td>
                      <td className="num py-[5px] pr-4 text-right">{r.slots || "–"}</td>
                      <td className="num py-[5px] pr-4">
                        {r.toleranceMm ? (
                          r.toleranceMm[0] === r.toleranceMm[1] ? (
                            `±${mm(r.toleranceMm[0])}`
                          ) : (
                            `+${mm(r.toleranceMm[0])} −${mm(r.toleranceMm[1])}`
                          )
                        ) : (
                          <span className="font-sans text-ink-3">the house's</span>
                        )}
                      </td>
                      <td className="py-[5px]">
                        {r.use ?? <span className="text-ink-3">not said</span>}
                        {r.span &&
                          r.span[1] - r.span[0] + 1 < m.copperLayers &&
                          `, layers ${r.span[0]} to ${r.span[1]}`}
                      </td>
                    </tr>
                  );
                })}
            </tbody>
          ))}
        </table>
      </div>
    </Fold>
  );
}

/** What lies on the board's edge and in its corners, each with its figures and place; nothing where there is nothing. */
export function EdgeDetails({ measure: m, onShow }: { measure: Measure; onShow: Show }) {
  useFormats();
  const inner = m.outline?.minInnerRadiusMm;
  const innerAt = m.outline?.minInnerRadiusAt?.[0];
  const half = m.castellatedHoles;
  const rows: { term: string; says: string; at?: Place | undefined }[] = [];
  for (const side of ["top", "bottom"] as const) {
    const c = m.edgeContacts?.[side];
    if (!c) continue;
    rows.push({
      term: `contacts, ${side}`,
      says: `${c.count} along the ${c.edge} edge, ${mm(c.widthMm)} × ${mm(c.lengthMm)} mm at a pitch of ${mm(c.pitchMm)} mm, ${mm(c.setbackMm)} mm from the edge`,
      at: c.at && { layer: side, ...c.at },
    });
  }
  if (half)
    rows.push({
      term: "half holes",
      says: `${half.count} of ${mm(half.diameterMm)} mm on the ${half.edge} edge`,
      at: half.at,
    });
  if (inner !== undefined)
    rows.push({
      term: "tightest inner corner",
      says:
        inner === 0
          ? "sharp: a cutter leaves its own radius there"
          : `radius ${mm(inner)} mm, a cutter of ${mm(2 * inner)} mm and less`,
      at: innerAt,
    });
  if (rows.length === 0) return null;
  return (
    <Fold id="edge-details" title="Edge and corners" verdict={rows.map((r) => r.term).join(", ")}>
      <dl className="mt-1 grid grid-cols-[minmax(220px,auto)_1fr] text-[14px] max-sm:grid-cols-1">
        {rows.map((r) => (
          <div key={r.term} className="contents">
            <dt className="border-t border-rule py-[5px] pr-4 text-ink-2">{r.term}</dt>
            <dd className="border-t border-rule py-[5px] max-sm:border-t-0">
              {r.at ? (
                <button type="button" className="why text-left" onClick={() => onShow(r.at!, r.term)}>
                  {r.says}
                </button>
              ) : (
                r.says
              )}
            </dd>
          </div>
        ))}
      </dl>
    </Fold>
  );
}

/** Copper that joins one pad to nothing: a stub, a spare pin, or a track that was forgotten. Each is shown at a press. */
export function SinglePads({ measure: m, onShow }: { measure: Measure; onShow: Show }) {
  const [isAll, setAll] = useState(false);
  const nets = (m.nets?.islands ?? []).filter((n) => n.pads.length === 1);
  if (nets.length === 0) return null;
  // a supply or a ground that ends at one pad is the likeliest to have been forgotten
  const isRail = (n: (typeof nets)[number]) => n.name !== undefined && railOf(n.name) !== undefined;
  const rails = nets.filter(isRail);
  const named = [...nets].sort(
    (a, b) =>
      Number(isRail(b)) - Number(isRail(a)) ||
      Number(b.name !== undefined) - Number(a.name !== undefined) ||
      (a.pads[0]!.pin ?? "~").localeCompare(b.pads[0]!.pin ?? "~", "en", { numeric: true }),
  );
  const shown = isAll ? named : named.slice(0, FIRST_NETS);
  return (
    <Fold
      id="single-pads"
      title={`${count(nets.length, "pad")} joined to nothing`}
      verdict={
        rails.length > 0
          ? `${rails
              .slice(0, 3)
              .map((n) => n.pads[0]!.pin ?? n.name)
              .join(", ")} of a supply or ground`
          : named.some((n) => n.name)
            ? "some with a net's name"
            : "none with a net's name"
      }
    >
      <p className="text-[14px] text-ink-2">
        A spare pin, a mark, a mounting pad – or a track that was forgotten. A net's name beside one says that
        it was meant to go somewhere.
      </p>
      <ul className="mt-1 flex flex-wrap gap-x-5 gap-y-1 text-[14px]">
        {shown.map((n) => {
          const p = n.pads[0]!;
          const what = p.pin ?? `${fixed(p.x, 1)} / ${fixed(p.y, 1)}`;
          return (
            <li key={n.net}>
              <button
                type="button"
                className="why num"
                aria-label={`${what}${n.name ? `, net ${n.name}` : ""}, show on the picture`}
                onClick={() => onShow(p, `net ${n.net}`)}
              >
                {what}
              </button>
              {n.name && <span className="ml-1.5 text-[12.5px] text-ink-3">{n.name}</span>}
            </li>
          );
        })}
        {!isAll && named.length > FIRST_NETS && (
          <li>
            <button type="button" className="quiet-link" onClick={() => setAll(true)}>
              {named.length - FIRST_NETS} more
            </button>
          </li>
        )}
      </ul>
    </Fold>
  );
}
