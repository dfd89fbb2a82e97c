import type { Conflict, PlanOfRun, Remedy } from "@kobbin/core";
import { useRun } from "../../../run/runState.ts";
import { Button } from "../../../ui/Button.tsx";

/** Rules that cannot all hold, each with the changes that were found to free it. */
export function Conflicts({ plan }: { plan: PlanOfRun }) {
  const { conflicts } = plan.order;
  const free = useRemedy(plan);
  const { isLocked } = useRun();
  if (conflicts.length === 0) return null;
  return (
    <section aria-label="What cannot all be" className="mb-4 border-l-4 border-stop bg-stop-soft px-4 py-2">
      <ul>
        {conflicts.map((c) => (
          <li key={`${c.kind} ${c.refs.join(" ")}`} className="py-1">
            <p>
              <b className="text-stop">cannot be:</b> {c.text}
            </p>
            {!isLocked && (
              <p className="mt-1 flex flex-wrap gap-2">
                {c.remedies.map((r) => (
                  <Button key={r.words} onClick={() => free(c, r)}>
                    {r.words.replace(/\.$/, "")}
                  </Button>
                ))}
                {c.remedies.length === 0 && (
                  <span className="text-[14px] text-ink-2">
                    Nothing that was tried frees it: change the design, or accept the note with how it will be
                    done.
                  </span>
                )}
              </p>
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}

/** Makes the change a remedy stands for. */
function useRemedy({ work }: PlanOfRun): (c: Conflict, r: Remedy) => void {
  const { doc, change, changeLines } = useRun();
  return (_, r) => {
    switch (r.kind) {
      case "by-hand": {
        const lines = new Set(work.parts.filter((p) => r.names.includes(p.name)).map((p) => p.line));
        return changeLines(
          [...lines].map((id) => ({ id, change: { mount: "hand" as const } })),
          `${r.names.join(", ")}: by hand, after the heat`,
        );
      }
      case "program-loose": {
        const chips = chipsOf(work);
        return change(
          {
            assembly: {
              programAt: (doc.assembly.programAt ?? []).filter((at) => !r.names.includes(at)),
              programLoose: [...new Set([...(doc.assembly.programLoose ?? []), ...chips])],
            },
          } as never,
          chips.length > 0
            ? `${chips.join(", ")} is programmed before it goes on, not at ${r.names.join(", ")}; correct it below if it is another chip`
            : `Not programmed at ${r.names.join(", ")} any more: say below which chip is programmed before it goes on`,
        );
      }
      case "test-elsewhere":
        return change(
          {
            assembly: { testAt: (doc.assembly.testAt ?? []).filter((at) => !r.names.includes(at)) },
          } as never,
          `Not tested at ${r.names.join(", ")} any more`,
        );
      case "heater":
        return change({ assembly: { heater: "oven" } } as never, "Melted in an oven");
    }
  };
}

/** The chip that is programmed is not known: the one with the most joints, which the field then shows to be corrected. */
const chipsOf = (work: PlanOfRun["work"]): string[] => {
  const chips = work.parts.filter((p) => /^(U|IC)\d/i.test(p.ref));
  const most = chips.reduce((a, b) => ((b?.joints ?? 0) > (a?.joints ?? 0) ? b : a), chips[0]);
  return most ? [most.ref] : [];
};
