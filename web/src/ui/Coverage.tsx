/** A part of the bar: a number of pieces from somewhere. */
export interface CoveragePart {
  readonly label: string;
  readonly qty: number;
  /** Position of its supplier in the shop's order; chooses the pattern. */
  readonly index: number;
}

const PATTERNS = ["bg-metal", "bg-metal-line", "bg-ink-3", "bg-link", "bg-fine", "bg-look"];

/** Needed, from each basket, still open: one bar per line, the words in its label. */
export function Coverage({ need, parts }: { need: number; parts: readonly CoveragePart[] }) {
  const got = parts.reduce((s, p) => s + p.qty, 0);
  const open = Math.max(0, need - got);
  const whole = Math.max(need, got, 1);
  const label = `${need} needed; ${parts.map((p) => `${p.qty} from ${p.label}`).join(", ") || "nothing bought"}${open > 0 ? `; ${open} still open` : ""}`;
  return (
    <div
      role="img"
      aria-label={label}
      title={label}
      className="relative flex h-3 w-full min-w-20 overflow-hidden rounded-[2px] border border-rule bg-paper"
    >
      {parts.map((p) => (
        <span
          key={p.label}
          className={`h-full ${PATTERNS[p.index % PATTERNS.length]}`}
          style={{ width: `${(100 * p.qty) / whole}%` }}
        />
      ))}
      {open > 0 && (
        <span
          className="h-full bg-[repeating-linear-gradient(45deg,var(--stop)_0_2px,transparent_2px_6px)]"
          style={{ width: `${(100 * open) / whole}%` }}
        />
      )}
      {got > need && need > 0 && (
        <span
          aria-hidden
          className="absolute top-0 h-full w-[1.5px] bg-sheet"
          style={{ left: `${(100 * need) / whole}%` }}
        />
      )}
    </div>
  );
}
