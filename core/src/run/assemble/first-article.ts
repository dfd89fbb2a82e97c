import type { RunDocument, RunLine } from "../document/document.ts";
import type { Add } from "../document/note.ts";

/** What a first article has otherwise than the run it is for. */
export interface FirstArticlePlan {
  /** Lines the bill needs beside its own, left out of every other version: what is plugged into each socket. */
  readonly added: readonly Omit<RunLine, "id">[];
  /** Line id → the socket that is soldered in its place. */
  readonly sockets: Readonly<Record<string, { readonly mpn: string; readonly valueText: string }>>;
}

/** What is plugged into the socket of a reference is called by it. */
export const pluggedRef = (ref: string): string => `${ref}P`;

/**
 * The bill of a first article: in the place of each chosen line its socket, and the part itself plugged in afterwards, so
 * that it can be pulled again (N112). What is plugged is not soldered, and stands in no other version.
 *
 * @param lines of the bill as it stands
 */
export function firstArticlePlan(
  lines: readonly RunLine[],
  sockets: readonly { readonly line: string; readonly mpn: string; readonly valueText: string }[],
): FirstArticlePlan {
  const known = new Map(lines.map((l) => [l.id, l]));
  const refs = new Set(lines.flatMap((l) => l.refs));
  const chosen = sockets.filter((s) => (known.get(s.line)?.refs.length ?? 0) > 0);
  return {
    added: chosen.flatMap(({ line }) => {
      const l = known.get(line)!;
      const plugged = l.refs.map(pluggedRef);
      // a first article before this one has brought them
      if (plugged.every((r) => refs.has(r))) return [];
      return [
        {
          ...l,
          refs: plugged,
          dnp: true,
          mount: "none" as const,
          description: `plugged into the socket of ${l.refs.join(", ")}, first article alone`,
        },
      ];
    }),
    sockets: Object.fromEntries(
      chosen.map((s) => [s.line, { mpn: s.mpn, valueText: s.valueText || "socket" }]),
    ),
  };
}

/** Nothing of a run goes out before its first article came good, or somebody says why it may. */
export function firstArticleNotes({ first, choices }: RunDocument, add: Add): void {
  if (!choices.first) return;
  if (!first) {
    add(
      "assemble",
      "first-gone",
      "warning",
      "The run of the first article is not there any more: nothing says whether it came good.",
      { do: "Start another one under Assemble, or take the wish for one back." },
    );
    return;
  }
  if (first.good > 0) return;
  const came =
    first.scrapped > 0
      ? `${first.scrapped} of it ${first.scrapped === 1 ? "was" : "were"} scrapped and none came good`
      : first.state === "open"
        ? "it is not released yet"
        : "none of it has come good yet";
  add(
    "assemble",
    `first-article ${first.scrapped > 0 ? "failed" : "waits"}`,
    "error",
    `The first article, ${first.name}, has not passed: ${came}.`,
    {
      do: "Build and test it first; or accept it with what makes it needless.",
    },
  );
}
