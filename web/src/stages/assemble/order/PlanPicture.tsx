import type { Plan } from "@kobbin/core";
import { fileWord, saveFile } from "../../../ui/saveFile.ts";

/** A drawing to scale as a page that is printed one to one. */
export async function savePlan(plan: Plan): Promise<void> {
  const { writePlan } = await import("@kobbin/formats");
  const bytes = await writePlan(plan, new Date(), true);
  saveFile(
    new Blob([new Uint8Array(bytes)], { type: "application/pdf" }),
    `${fileWord(plan.title)}.pdf`,
    "application/pdf",
  );
}

const TONE = {
  board: "var(--rule)",
  frame: "var(--metal-soft)",
  hole: "var(--sheet)",
  none: "none",
} as const;

/** The same drawing, small. */
export function PlanPicture({ plan }: { plan: Plan }) {
  const [x0, y0, x1, y1] = plan.box;
  const y = (v: number) => y0 + y1 - v;
  const path = (rings: readonly (readonly number[])[]) =>
    rings
      .map(
        (r) =>
          `M${Array.from({ length: r.length / 2 }, (_, i) => `${r[2 * i]!.toFixed(2)} ${y(r[2 * i + 1]!).toFixed(2)}`).join("L")}Z`,
      )
      .join("");
  return (
    <svg
      viewBox={`${x0} ${y0} ${x1 - x0} ${y1 - y0}`}
      className="my-1 max-h-[300px] w-full"
      role="img"
      aria-label={plan.title}
    >
      {plan.areas.map((a) => (
        <path
          key={path(a.rings).slice(0, 60)}
          d={path(a.rings)}
          fill={TONE[a.tone]}
          fillRule="evenodd"
          stroke="var(--ink)"
          strokeWidth="0.25"
        />
      ))}
      {plan.circles.map((c) => (
        <circle
          key={`${c.x} ${c.y} ${c.d}`}
          cx={c.x}
          cy={y(c.y)}
          r={c.d / 2}
          fill={c.isFilled ? "var(--ink)" : "none"}
          stroke="var(--ink)"
          strokeWidth="0.15"
        />
      ))}
      {plan.texts.map((t) => (
        <text
          key={`${t.x} ${t.y} ${t.text}`}
          x={t.x}
          y={y(t.y)}
          fontSize={t.mm * 1.4}
          textAnchor={t.isMiddle ? "middle" : "start"}
          fill="var(--ink)"
        >
          {t.text}
        </text>
      ))}
    </svg>
  );
}
