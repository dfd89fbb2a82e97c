import type { WaitingRow, WaitingTest } from "@kobbin/contract";
import { stepWords } from "@kobbin/core";
import type { CalendarEvent } from "@kobbin/formats";

const KINDS = { parts: "parts", boards: "bare boards", assembly: "assembly" } as const;

/**
 * What a shop waits for, as days: when each order is to be here, sure where somebody promised it, and what is to be tried
 * besides the bench. No prices, and nothing of an order that has no day yet.
 */
export function eventsOf(
  rows: readonly WaitingRow[],
  tests: readonly WaitingTest[],
  origin: string,
): CalendarEvent[] {
  const tried = tests.map(
    (t): CalendarEvent => ({
      id: `${t.runId} test ${t.item} ${t.from}@kobbin`,
      from: t.from,
      to: t.from,
      title: `try ${t.name}: ${t.units.length === 1 ? "board" : "boards"} ${t.units.join(", ")}`,
      about: `of ${t.product}, ${t.run}\n${t.words}`,
      ...(origin === "" ? {} : { url: `${origin}/runs/${t.runId}/build?view=tests` }),
      isOpen: false,
    }),
  );
  const due = rows.flatMap((r): CalendarEvent[] => {
    const from = r.from ?? r.to;
    if (from === undefined) return [];
    const state = r.state === "open" ? "" : stepWords(r.state, r.kind);
    return [
      {
        id: `${r.runId} ${r.order}@kobbin`,
        from,
        to: r.to ?? from,
        title: `${r.isLate ? "late: " : ""}${KINDS[r.kind]} from ${r.name}`,
        about: [
          `for ${r.product}, ${r.run}`,
          state,
          r.came > 0 ? `${r.came} of ${r.of} came` : "",
          ...r.questions.map((q) => `asked: ${q}`),
        ]
          .filter((t) => t !== undefined && t !== "")
          .join("\n"),
        ...(origin === "" ? {} : { url: `${origin}/runs/${r.runId}/receive` }),
        isOpen: !r.isPromised,
      },
    ];
  });
  return [...due, ...tried];
}
