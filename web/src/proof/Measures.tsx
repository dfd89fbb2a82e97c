import { few, isHolesLeast, type Measure, measureSpec, type Place, partlyRead } from "@kobbin/core";
import { count, fixed, mil, mm, useFormats } from "../ui/text/format.ts";

interface Figure {
  readonly label: string;
  readonly value: string;
  readonly unit: string;
  readonly where: string;
  /** The length a second time, in thousandths of an inch, where that is asked for. */
  readonly also?: string;
  readonly at?: Place | undefined;
}

/** The figures of a board that people ask for first, each with its place. */
export function figuresOf(m: Measure): Figure[] {
  const where = (at: readonly Place[] | undefined) =>
    at?.[0] ? `${at[0].layer}, ${fixed(at[0].x, 1)} / ${fixed(at[0].y, 1)}` : "";
  const holes = m.holes.reduce((n, h) => n + h.count, 0);
  const range =
    m.holes.length > 0 ? `${mm(m.holes[0]!.diameterMm)} to ${mm(m.holes.at(-1)!.diameterMm)} mm` : "";
  const paste = (m.paste.top?.areaMm2 ?? 0) + (m.paste.bottom?.areaMm2 ?? 0);
  return [
    ...["minNetSpaceMm", "minTrackMm", "minAnnularMm", "minCopperToEdgeMm"].map(measureSpec).map((s) => {
      const value = s.valueOf(m, {});
      const at = s.placesOf(m);
      return { label: s.short, value: mm(value), unit: "mm", also: mil(value), where: where(at), at: at[0] };
    }),
    {
      label: isHolesLeast(m) ? "holes, at least" : "holes",
      value: String(holes),
      unit: "",
      where: `${range}${m.slots.length + m.routedPaths.length > 0 ? `, ${count(m.slots.length + m.routedPaths.length, "slot")}` : ""}`,
    },
    {
      label: "paste openings",
      value: String((m.paste.top?.count ?? 0) + (m.paste.bottom?.count ?? 0)),
      unit: "",
      where: paste > 0 ? `${fixed(paste, 1)} mm²` : "no paste layer",
    },
  ];
}

/** Row of measured figures under the picture; one with a place shows it there. What was lost is said before them. */
export function Measures({
  measure,
  onShow,
}: {
  measure: Measure;
  onShow?: (at: Place, key: string) => void;
}) {
  useFormats();
  const lost = partlyRead(measure);
  return (
    <>
      {lost.length > 0 && (
        <p className="mt-3 text-[14px] text-stop">
          Not everything in {few(lost, 3)} could be read; these figures are of what could.
        </p>
      )}
      <dl className="mt-3 grid grid-cols-6 max-lg:grid-cols-3 max-sm:grid-cols-2 gap-x-4 gap-y-3">
        {figuresOf(measure).map((f) => (
          <div key={f.label} className="border-t border-rule pt-2">
            <dt className="text-[13px] text-ink-2">{f.label}</dt>
            <dd>
              {f.at && onShow ? (
                <button
                  type="button"
                  className="num why text-[17px]"
                  onClick={() => onShow(f.at!, f.label)}
                  aria-label={`${f.label} ${f.value} ${f.unit}, show the place`}
                >
                  {f.value}
                  <span className="ml-1 text-[13px] text-ink-3">{f.unit}</span>
                </button>
              ) : (
                <span className="num text-[17px]">
                  {f.value}
                  {f.value !== "–" && <span className="ml-1 text-[13px] text-ink-3">{f.unit}</span>}
                </span>
              )}
              {f.also && <span className="num block text-[13px] text-ink-2">{f.also}</span>}
              <span className="block text-[12.5px] text-ink-3">{f.where}</span>
            </dd>
          </div>
        ))}
      </dl>
    </>
  );
}
