import { bothWords, byEye, compareRefs, eyePieces, type PlanOfRun } from "@kobbin/core";
import { useMemo } from "react";
import { useRun } from "../../../run/runState.ts";

/** What the eye says of boards of the run; nothing where nobody looks anywhere. */
export function useByEye(plan: PlanOfRun) {
  const { record, result } = useRun();
  const pieces = useMemo(() => eyePieces(result.parts), [result.parts]);
  return (unit: number) => byEye(plan.sheet.steps, pieces, record.sittings ?? [], unit);
}

/** References of lines, in their order. */
export function useRefsOf(): (lines: readonly string[]) => string {
  const { doc } = useRun();
  return (lines) =>
    doc.lines
      .flatMap((l) => (lines.includes(l.id) ? l.refs : []))
      .sort(compareRefs)
      .join(" ");
}

/** The second verdict of a board, beside that of its tests; and what the two together say. */
export function ByEye({
  plan,
  unit,
  tests,
}: {
  plan: PlanOfRun;
  unit: number;
  tests: "pass" | "fail" | "open" | "none";
}) {
  const eye = useByEye(plan)(unit);
  const refsOf = useRefsOf();
  if (!eye) return null;
  const words = bothWords(tests, eye);
  return (
    <>
      <p
        className={`text-[17px] font-semibold ${{ good: "text-fine", doubt: "text-look", open: "text-ink-2" }[eye.stand]}`}
      >
        {eye.stand === "doubt" ? (
          <>
            in doubt by eye: <span className="num">{refsOf(eye.doubts)}</span>
          </>
        ) : eye.stand === "good" ? (
          "looks good"
        ) : (
          "not looked at to the end"
        )}
      </p>
      {words && <p className="max-w-[60ch] text-[14.5px] text-ink-2">{words}</p>}
    </>
  );
}
