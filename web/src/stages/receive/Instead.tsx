import { type CameInstead, cameInstead, type PlannedItem, type RunLine } from "@kobbin/core";
import { useMemo } from "react";
import { useParts } from "../../resources/library.ts";
import { useRun } from "../../run/runState.ts";
import { Field } from "../../ui/Field.tsx";

/** Fewer letters than these find half the library. */
const SHORTEST = 3;

/** What stands on the bag, held against what was ordered; undefined while nothing is typed or the library is being asked. */
export function useInstead(
  item: PlannedItem,
  line: RunLine | undefined,
  says: string,
): CameInstead | undefined {
  const { doc } = useRun();
  const asked = says.trim().length >= SHORTEST ? says.trim() : undefined;
  // the run's document has the parts of its bill; the bag may be of any part of the shop
  const { data, isLoading } = useParts(asked);
  return useMemo(() => {
    if (!line) return undefined;
    const own = doc.library ?? [];
    const known = new Set(own.map((p) => p.id));
    const library = [...own, ...(data?.parts ?? []).filter((p) => !known.has(p.id))];
    const found = cameInstead(line, item.mpn, says, library, doc.alternates ?? []);
    // what was found for the letters before says nothing of these
    return found?.is === "unknown" && isLoading ? undefined : found;
  }, [doc, line, item.mpn, says, data, isLoading]);
}

/** The number that stands on it, and what that means. */
export function Instead({
  ordered,
  says,
  found,
  onSays,
}: {
  ordered: string;
  says: string;
  found: CameInstead | undefined;
  onSays: (text: string) => void;
}) {
  return (
    <div className="flex w-full flex-wrap items-end gap-3">
      <Field
        label="It says"
        className="w-56 [&_input]:num"
        placeholder={ordered}
        maxLength={120}
        value={says}
        onChange={(e) => onSays(e.target.value)}
      />
      <p className="min-w-[24ch] flex-1 pb-1 text-[14.5px]" aria-live="polite">
        {found && <Words found={found} ordered={ordered} />}
      </p>
    </div>
  );
}

function Words({ found, ordered }: { found: CameInstead; ordered: string }) {
  if (found.is === "ordered") return <span className="text-fine">As ordered.</span>;
  if (found.is === "approved")
    return (
      <span className="text-fine">
        Not {ordered}, but approved for it{found.because && `: ${found.because}`}.
      </span>
    );
  if (found.is === "refused")
    return (
      <span className="text-stop">
        Refused for {ordered}
        {found.because && `: ${found.because}`}.
      </span>
    );
  if (found.is === "unknown")
    return (
      <span className="text-look">
        The shop knows nothing of this number: set it apart until somebody has read its sheet.
      </span>
    );
  const { verdict, rows } = found.comparison;
  const words = rows
    .filter((r) => r.standing !== "same" && r.standing !== "better")
    .map((r) =>
      r.original === "" && r.candidate === ""
        ? `the ${r.label} of neither is known`
        : `${r.label} ${r.original || "not known"} → ${r.candidate || "not known"}${r.consequence ? ` (${r.consequence.replace(/\.$/, "")})` : ""}`,
    );
  return (
    <span
      className={
        verdict === "forbidden"
          ? "text-stop"
          : verdict === "look" || found.part.suspect
            ? "text-look"
            : "text-fine"
      }
    >
      {verdict === "forbidden"
        ? `It cannot stand for ${ordered}`
        : verdict === "look"
          ? `Nobody has approved it for ${ordered}; look at this first`
          : `Equal to ${ordered} in all that is known`}
      {words.length > 0 && `: ${words.join("; ")}`}.
      {found.part.description && ` The library has it as “${found.part.description}”.`}
      {found.part.suspect && ` It is suspected: ${found.part.suspect.because}.`}
    </span>
  );
}
