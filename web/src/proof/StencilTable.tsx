import { FOILS, LEAST_AREA_RATIO, type Measure } from "@kobbin/core";
import { Fold } from "../ui/Fold.tsx";
import { count, fixed, useFormats, written } from "../ui/text/format.ts";

const THROUGH = FOILS.map((mm) => mm.toFixed(2));
const SHOWN = 8;

/** The stencil's openings by size, the one that releases worst first, through each foil; a press shows one of them. */
export function StencilTable({
  measure,
  onShow,
}: {
  measure: Measure;
  onShow: (at: { readonly layer: string; readonly x: number; readonly y: number }) => void;
}) {
  useFormats();
  const sides = (["top", "bottom"] as const).flatMap((side) => {
    const s = measure.stencil?.[side];
    return s?.apertures ? [{ side, ...s, apertures: s.apertures }] : [];
  });
  if (sides.length === 0) return null;
  return (
    <Fold
      id="stencil"
      title="Stencil openings"
      verdict={sides
        .map(
          (s) =>
            `${s.side}: all release through ${fixed(Math.floor(s.thickestMm * 100 + 1e-6) / 100, 2)} mm and thinner`,
        )
        .join("; ")}
    >
      <p className="text-[14px] text-ink-2">
        Area ratio: opening over its wall. Below {fixed(LEAST_AREA_RATIO, 2)} paste tends to stay in the foil.
      </p>
      {sides.map((s) => (
        <table key={s.side} className="mt-2 w-full max-w-[620px] text-[14px]">
          <caption className="pb-1 text-left text-[12.5px] font-semibold text-ink-2">
            {s.side}: every opening releases through {fixed(Math.floor(s.thickestMm * 100 + 1e-6) / 100, 2)}{" "}
            mm and thinner
          </caption>
          <thead>
            <tr className="text-right text-[12.5px] text-ink-3">
              <th scope="col" className="py-1 pr-4 text-left font-normal">
                opening, mm
              </th>
              <th scope="col" className="py-1 pr-4 font-normal">
                count
              </th>
              {THROUGH.map((t) => (
                <th key={t} scope="col" className="py-1 pr-4 font-normal">
                  through {written(t)} mm
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {s.apertures.slice(0, SHOWN).map((a) => (
              <tr
                key={`${a.widthMm} ${a.lengthMm} ${a.areaMm2} ${a.x} ${a.y}`}
                className="border-t border-rule"
              >
                <td className="num py-1 pr-4">
                  <button
                    type="button"
                    className="quiet-link"
                    onClick={() => onShow({ layer: `paste ${s.side}`, x: a.x, y: a.y })}
                  >
                    {fixed(a.widthMm, 2)} × {fixed(a.lengthMm, 2)}
                  </button>
                </td>
                <td className="num py-1 pr-4 text-right">{a.count}</td>
                {THROUGH.map((t) => {
                  const r = a.areaRatio[t]!;
                  const isPoor = r < LEAST_AREA_RATIO - 1e-9;
                  return (
                    <td
                      key={t}
                      className={`num py-1 pr-4 text-right ${isPoor ? "font-semibold text-look" : ""}`}
                    >
                      {isPoor && "poor "}
                      {fixed(r, 2)}
                    </td>
                  );
                })}
              </tr>
            ))}
          </tbody>
        </table>
      ))}
      {sides.some((s) => s.apertures.length > SHOWN) && (
        <p className="mt-1 text-[13px] text-ink-3">
          {sides
            .filter((s) => s.apertures.length > SHOWN)
            .map((s) => `${s.side}: ${count(s.apertures.length - SHOWN, "further size")}, all better`)
            .join("; ")}
        </p>
      )}
    </Fold>
  );
}
