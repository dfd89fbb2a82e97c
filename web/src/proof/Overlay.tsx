import { fixed, mil, mm } from "../ui/text/format.ts";
import type { Stretch } from "./useRuler.ts";

/** A numbered mark at a place of the board. */
export interface ProofMark {
  readonly number: number;
  readonly x: number;
  readonly y: number;
  readonly level: "error" | "warning" | "remark";
  readonly text: string;
}

type ToScreen = (x: number, y: number) => [number, number];

/** Width and height of the board as drafting-style dimension lines. */
export function Dimensions({
  box: [x0, y0, x1, y1],
  flip,
  toScreen,
}: {
  box: readonly [number, number, number, number];
  flip: 1 | -1;
  toScreen: ToScreen;
}) {
  const [lx, ty] = toScreen(flip === 1 ? x0 : x1, y1);
  const [rx, by] = toScreen(flip === 1 ? x1 : x0, y0);
  return (
    <>
      <g stroke="var(--metal)" strokeWidth="1" fill="none">
        <path d={`M${lx} ${ty - 8}V${ty - 30}M${rx} ${ty - 8}V${ty - 30}M${lx} ${ty - 24}H${rx}`} />
        <path d={`M${lx - 8} ${ty}H${lx - 30}M${lx - 8} ${by}H${lx - 30}M${lx - 24} ${ty}V${by}`} />
        <path
          d={`M${lx - 4} ${ty - 20}l8 -8M${rx - 4} ${ty - 20}l8 -8M${lx - 28} ${ty + 4}l8 -8M${lx - 28} ${by + 4}l8 -8`}
          strokeWidth="1.4"
        />
      </g>
      <g fontFamily="var(--font-mono)" fontSize="13" fill="var(--metal)" textAnchor="middle">
        <text x={(lx + rx) / 2} y={ty - 20} stroke="var(--sheet)" strokeWidth="7" paintOrder="stroke">
          {fixed(x1 - x0, 2)}
        </text>
        <text
          x={lx - 24}
          y={(ty + by) / 2}
          transform={`rotate(-90 ${lx - 24} ${(ty + by) / 2})`}
          dy="4"
          stroke="var(--sheet)"
          strokeWidth="7"
          paintOrder="stroke"
        >
          {fixed(y1 - y0, 2)}
        </text>
      </g>
    </>
  );
}

/** A further place of what is shown, with a letter where it is spoken of by one. */
export interface ProofPlace {
  readonly x: number;
  readonly y: number;
  readonly name?: string;
}

/** Further places of what is shown. */
export function Places({ places, toScreen }: { places: readonly ProofPlace[]; toScreen: ToScreen }) {
  return places.map((p) => {
    const [x, y] = toScreen(p.x, p.y);
    return (
      <g key={`${p.x} ${p.y}`} fill="none">
        <circle cx={x} cy={y} r="9" stroke="var(--sheet)" strokeWidth="4" />
        <circle cx={x} cy={y} r="9" stroke="var(--metal)" strokeWidth="2" strokeDasharray="4 2" />
        {p.name && (
          <text
            x={x + 13}
            y={y - 8}
            fontSize="17"
            fontWeight="700"
            fill="var(--ink)"
            stroke="var(--sheet)"
            strokeWidth="5"
            paintOrder="stroke"
          >
            {p.name}
          </text>
        )}
      </g>
    );
  });
}

/** The place that is shown now. */
export function Target({ at: [x, y] }: { at: readonly [number, number] }) {
  return (
    <g fill="none">
      <circle cx={x} cy={y} r="20" stroke="var(--sheet)" strokeWidth="5" />
      <circle cx={x} cy={y} r="20" stroke="var(--metal)" strokeWidth="2.5" />
    </g>
  );
}

/** Numbered marks at their places; a press on one means its note. */
export function Marks({
  marks,
  onMark,
  toScreen,
}: {
  marks: readonly ProofMark[];
  onMark: ((number: number) => void) | undefined;
  toScreen: ToScreen;
}) {
  return (
    <>
      {spreadMarks(marks.map((m) => toScreen(m.x, m.y))).map(([px, py, lx, ly], k) => {
        const m = marks[k]!;
        const colour =
          m.level === "error" ? "var(--stop)" : m.level === "warning" ? "var(--look)" : "var(--ink-2)";
        return (
          // biome-ignore lint/a11y/noStaticElementInteractions: the margin holds the same as buttons
          <g
            key={`${m.number} ${m.x} ${m.y}`}
            className={onMark ? "pointer-events-auto cursor-pointer" : ""}
            onPointerDown={(e) => e.stopPropagation()}
            onClick={() => onMark?.(m.number)}
          >
            <circle cx={px} cy={py} r="3" fill={colour} />
            <line x1={px} y1={py} x2={px + lx * 0.75} y2={py + ly * 0.75} stroke={colour} />
            <circle cx={px + lx} cy={py + ly} r="10" fill="var(--sheet)" stroke={colour} strokeWidth="1.6" />
            <text
              x={px + lx}
              y={py + ly + 4}
              textAnchor="middle"
              fontSize="12"
              fontWeight="700"
              fill={colour}
            >
              {m.number}
            </text>
          </g>
        );
      })}
    </>
  );
}

/** What was measured, in words and figures. */
export function Readout({ stretch: { from, to } }: { stretch: Stretch }) {
  const length = to ? Math.hypot(to.x - from.x, to.y - from.y) : 0;
  return (
    <p
      role="status"
      className="num absolute bottom-2 left-2 border border-rule bg-sheet px-2 py-1 text-[13px]"
    >
      {to ? (
        <>
          {mm(length)} mm
          {mil(length) && ` = ${mil(length)}`}
          <span className="ml-3 text-ink-2">
            ΔX {mm(Math.abs(to.x - from.x))} ΔY {mm(Math.abs(to.y - from.y))}
          </span>
          <span className="ml-3 font-sans text-ink-2">
            {from.what} to {to.what}
          </span>
        </>
      ) : (
        <span className="font-sans">from {from.what}; press the second point</span>
      )}
    </p>
  );
}

/** A measured stretch, drawn as a dimension line between its points. */
export function StretchLine({ stretch, toScreen }: { stretch: Stretch; toScreen: ToScreen }) {
  const [ax, ay] = toScreen(stretch.from.x, stretch.from.y);
  const [bx, by] = stretch.to ? toScreen(stretch.to.x, stretch.to.y) : [ax, ay];
  return (
    <g stroke="var(--metal)" fill="none" strokeWidth="1.6">
      <path d={`M${ax} ${ay}L${bx} ${by}`} />
      {[
        [ax, ay],
        [bx, by],
      ].map(([x, y]) => (
        <path key={`${x} ${y}`} d={`M${x! - 6} ${y}h12M${x} ${y! - 6}v12`} />
      ))}
    </g>
  );
}

/** Where the numbers of marks stand beside their places, so that none covers another: x, y, and the way to the number. */
function spreadMarks(at: readonly (readonly [number, number])[]): [number, number, number, number][] {
  const ways = [24, 48].flatMap((d) => [
    [d, -d],
    [-d, -d],
    [d, d],
    [-d, d],
  ]) as [number, number][];
  const taken: [number, number][] = [];
  return at.map(([x, y]) => {
    const free =
      ways.find(([dx, dy]) => taken.every(([u, v]) => Math.hypot(u - x - dx, v - y - dy) > 21)) ?? ways[0]!;
    taken.push([x + free[0], y + free[1]]);
    return [x, y, free[0], free[1]];
  });
}
