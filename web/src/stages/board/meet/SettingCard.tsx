import type { LinkStanding } from "@kobbin/core";
import { useRef } from "react";
import { useRun } from "../../../run/runState.ts";
import { printAlone } from "../../../ui/printed.ts";
import { useBoardView } from "../useBoardView.ts";

const WIDE = 420;

/** How the links go out, drawn on the board: for the pack, for the bench, and for who wonders why nothing happens. */
export function SettingCard({ links }: { links: readonly LinkStanding[] }) {
  const { doc } = useRun();
  const { board } = useBoardView();
  const m = board.measure;
  const [x0, y0, x1, y1] = m.extentMm ?? [0, 0, 1, 1];
  const scale = WIDE / Math.max(1, x1 - x0);
  const [w, h] = [x1 - x0, y1 - y0].map((v) => v * scale) as [number, number];
  const at = (x: number, y: number): readonly [number, number] => [(x - x0) * scale, (y1 - y) * scale];
  const rings = m.outline?.rings ?? [[x0, y0, x1, y0, x1, y1, x0, y1]];
  const path = rings
    .map((r) => {
      const points = Array.from({ length: r.length / 2 }, (_, i) => at(r[2 * i]!, r[2 * i + 1]!));
      return `M${points.map(([x, y]) => `${x.toFixed(1)} ${y.toFixed(1)}`).join("L")}Z`;
    })
    .join("");
  const card = useRef<HTMLElement>(null);
  const variant = doc.variants?.find((v) => v.id === doc.choices.variant);
  return (
    <section
      ref={card}
      aria-label="Setting card"
      className="mt-4 max-w-[760px] border border-rule bg-sheet px-4 py-3"
    >
      <div className="flex flex-wrap items-baseline gap-x-4">
        <h3 className="text-[16px]">
          {doc.product} {doc.revision}
          {variant ? `, ${variant.name}` : ""}: how it is set
        </h3>
        <button
          type="button"
          className="quiet-link no-print ml-auto text-[14px]"
          onClick={() => printAlone(card.current!)}
        >
          print the setting card
        </button>
      </div>
      <div className="mt-2 grid grid-cols-[auto_1fr] gap-x-6 gap-y-3 max-md:grid-cols-1">
        <svg
          width={WIDE}
          viewBox={`-14 -14 ${w + 28} ${h + 28}`}
          className="max-w-full"
          role="img"
          aria-label={`The board from above with its links: ${links.map((l) => `${l.row.ref} ${l.position?.name ?? "not set"}`).join(", ")}`}
        >
          <path d={path} fill="var(--paper)" stroke="var(--ink-2)" strokeWidth="1.5" fillRule="evenodd" />
          {(m.nets?.islands ?? []).flatMap((n) =>
            n.pads
              .filter((p) => p.layer === "top" && p.pin !== undefined)
              .map((p) => {
                const [cx, cy] = at(p.x, p.y);
                return <circle key={`${p.pin} ${p.x} ${p.y}`} cx={cx} cy={cy} r="1.8" fill="var(--ink-3)" />;
              }),
          )}
          {links.map((link, i) => (
            <Drawn key={link.row.id} link={link} number={i + 1} at={at} width={w} />
          ))}
        </svg>
        <ol className="text-[14.5px]">
          {links.map(({ row, position }, i) => (
            <li key={row.id} className="py-1">
              <b>{i + 1}</b> <span className="num">{row.ref}</span>:{" "}
              {position ? (
                <>
                  <b className="num">{position.name}</b>
                  {position.does ? `, ${position.does}` : ""}
                  {row.isCap && position.joins ? " (with its cap)" : ""}
                </>
              ) : (
                <b className="text-look">not set</b>
              )}
              <span className="block text-[13.5px] text-ink-2">
                {row.positions
                  .filter((p) => p !== position && p.does)
                  .map((p) => `${p.name}: ${p.does}`)
                  .join("; ")}
              </span>
            </li>
          ))}
        </ol>
      </div>
    </section>
  );
}

/** A link on the board: its places, the bar of what is joined, and its number. */
function Drawn({
  link: { part, position },
  number,
  at,
  width,
}: {
  link: LinkStanding;
  number: number;
  at: (x: number, y: number) => readonly [number, number];
  width: number;
}) {
  if (!part) return null;
  const pins = part.pins.map((p) => ({ ...p, spot: at(p.x, p.y) }));
  const joined = (position?.joins ?? []).map((pin) => pins.find((p) => p.pin === pin)?.spot);
  const [a, b] = joined;
  const [lx, ly] = pins[0]!.spot;
  return (
    <g>
      {a && b && (
        <path
          d={`M${a[0]} ${a[1]}L${b[0]} ${b[1]}`}
          stroke="var(--metal)"
          strokeWidth="9"
          strokeLinecap="round"
        />
      )}
      {pins.map((p) => (
        <circle
          key={p.pin}
          cx={p.spot[0]}
          cy={p.spot[1]}
          r="4"
          fill="var(--sheet)"
          stroke="var(--ink)"
          strokeWidth="1.6"
        />
      ))}
      <text
        x={lx < width / 2 ? lx + 14 : lx - 14}
        y={ly - 12}
        textAnchor={lx < width / 2 ? "start" : "end"}
        fontSize="15"
        fontWeight="700"
        fill="var(--ink)"
      >
        {number}
      </text>
    </g>
  );
}
