import { boardFacts, fabQuote, fitOptions, type House } from "@kobbin/core";
import { useRun } from "../../../run/runState.ts";
import { amount, fromMicros } from "../../../ui/text/format.ts";

const [W, H, LEFT, BOTTOM] = [640, 150, 44, 22];
const MOST = 1000;

/** What a board of this run costs at the house by how many are ordered, freight in it, with this run's number marked. */
export function Ladder({ house }: { house: House }) {
  const { doc, result: r } = useRun();
  const measure = doc.boards[0]?.measure;
  if (!measure || house.layers.length === 0) return null;
  const facts = boardFacts(measure);
  const options = fitOptions(house, doc.options);
  const { step, minPieces } = house.price;
  const inSteps = (n: number) => Math.max(minPieces, Math.ceil(n / Math.max(1, step)) * Math.max(1, step));
  const each = (n: number): number => {
    const q = fabQuote(house, facts, options, n);
    return fromMicros(q.total) / n;
  };
  const wanted = inSteps(r.start * (doc.boards[0]?.perProduct ?? 1));
  let points: { n: number; price: number }[];
  try {
    points = [...new Set(Array.from({ length: 60 }, (_, i) => inSteps(Math.round(MOST ** (i / 59)))))].map(
      (n) => ({
        n,
        price: each(n),
      }),
    );
  } catch {
    return (
      <p className="text-[13.5px] text-look">The prices above are not all amounts: nothing can be drawn.</p>
    );
  }
  const most = Math.max(...points.map((p) => p.price));
  if (!(most > 0)) return null;
  const x = (n: number) => LEFT + ((W - LEFT - 12) * Math.log(n)) / Math.log(MOST);
  const y = (price: number) => 8 + (H - BOTTOM - 8) * (1 - price / most);
  const here = each(wanted);
  const line = points
    .map((p, i) => `${i === 0 ? "M" : "H"}${x(p.n).toFixed(1)}${i === 0 ? " " : "V"}${y(p.price).toFixed(1)}`)
    .join("");
  return (
    <svg
      role="img"
      aria-label={`Price of a board by how many are ordered: ${amount(here, house.currency)} at ${wanted}`}
      viewBox={`0 0 ${W} ${H}`}
      className="mb-3 w-full border border-rule bg-sheet"
    >
      {[0.5, 1].map((s) => (
        <g key={s}>
          <path d={`M${LEFT} ${y(most * s)}H${W - 12}`} stroke="var(--rule)" />
          <text x={LEFT - 4} y={y(most * s) + 3} fontSize={9} textAnchor="end" fill="var(--ink-3)">
            {amount(most * s, house.currency)}
          </text>
        </g>
      ))}
      {[1, 10, 100, MOST].map((n) => (
        <text key={n} x={x(n)} y={H - 8} fontSize={9} textAnchor="middle" fill="var(--ink-3)">
          {n}
        </text>
      ))}
      <path d={line} fill="none" stroke="var(--metal)" strokeWidth={1.6} />
      <path d={`M${x(wanted)} ${y(here)}V${H - BOTTOM}`} stroke="var(--ink)" strokeDasharray="3 2" />
      <circle cx={x(wanted)} cy={y(here)} r={3.2} fill="var(--ink)" />
      <text x={x(wanted) + 6} y={Math.max(14, y(here) - 5)} fontSize={11} fill="var(--ink)">
        {wanted} at {amount(here, house.currency)} each, landed
      </text>
    </svg>
  );
}
