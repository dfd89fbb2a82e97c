import type { LotRow } from "@kobbin/contract";
import { betweenWords, numberKey, wasMade } from "@kobbin/core";
import { useLearned } from "../resources/learned.ts";
import { Mark } from "../ui/Mark.tsx";
import { todayIso } from "../ui/text/dates.ts";

/** What the shop doubts of a lot today: itself, its part, or days in which it may have been made. Nothing where nothing is. */
export function Doubts({ lot: l }: { lot: Pick<LotRow, "id" | "mpn" | "made"> }) {
  const lessons = useLearned().data?.lessons ?? [];
  const list = lessons.flatMap(({ id, title, check, clearedOn }) => {
    if (clearedOn !== undefined) return [];
    if (check.kind === "lot")
      return check.id === l.id ? [{ id, title, was: "within" as const, words: "" }] : [];
    if (check.kind !== "part" || numberKey(check.mpn) !== numberKey(l.mpn)) return [];
    if (!check.made) return [{ id, title, was: "within" as const, words: "" }];
    const was = wasMade(l.made, check.made, todayIso());
    const words = was === "not known" ? `, if ${betweenWords(check.made)}: its date code does not tell` : "";
    return was === "outside" ? [] : [{ id, title, was, words }];
  });
  return (
    <>
      {list.map((d) => (
        <span key={d.id} className={`block text-[13px] ${d.was === "within" ? "text-stop" : "text-look"}`}>
          <Mark kind={d.was === "within" ? "blocked" : "look"} /> doubted: {d.title}
          {d.words}
        </span>
      ))}
    </>
  );
}
