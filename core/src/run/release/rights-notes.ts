import { judgeRight, RIGHT_WORDS, type Right, SALE_WORDS, type SaleQuestion } from "../../rights/right.ts";
import { SALE_QUESTIONS } from "../../shape/right.ts";
import type { RunDocument } from "../document/document.ts";
import type { Add } from "../document/note.ts";

const what = (r: Right): string =>
  `${r.what} (${RIGHT_WORDS[r.kind]}${r.place === "" ? "" : `, ${r.place}`}${r.owner === "" ? "" : `, of ${r.owner}`})`;

/** Questions before something is sold that nobody has answered with something to show. */
export const openQuestions = (rights: readonly Right[]): readonly SaleQuestion[] =>
  SALE_QUESTIONS.filter(
    (q) => !rights.some((r) => r.kind === "question" && r.what === q && judgeRight(r) === "proven"),
  );

/**
 * What on the product nobody has shown to be allowed: it stops a run that is made to be sold or of which that is not said;
 * made for oneself alone it stays in the shop (need N144). What Kobbin lists is asked, never answered.
 */
export function rightsNotes(doc: RunDocument, add: Add): void {
  const rights = doc.rights ?? [];
  const use = doc.choices.use;
  for (const r of rights) {
    if (r.kind === "question") continue;
    const verdict = judgeRight(r);
    if (verdict !== "proven") {
      const why =
        verdict === "refused"
          ? "was not granted to this shop"
          : r.state === "unknown"
            ? "may not be this shop’s to use: nobody has looked"
            : "is said to be allowed, and nothing shows it";
      const isDeclared = r.kind === "approval";
      add(
        "board",
        `right ${r.id} ${verdict}`,
        use !== "private" ? "error" : isDeclared ? "warning" : "remark",
        `${what(r)} ${why}.${isDeclared ? " A mark that nobody granted declares something." : ""}`,
        {
          do:
            use === "private"
              ? "It stays with this shop: nothing of it is sold or given away."
              : "Write down who entitles to it, take it off the board, or make the run for this shop alone.",
        },
      );
    }
    if (r.kind === "design" && r.facts.built !== "yes")
      add(
        "board",
        `right ${r.id} unbuilt`,
        "warning",
        `${what(r)}: ${r.facts.built === "no" ? "nobody has it working" : "nobody is known to have it working"}${r.facts.status ? `; its author says: ${r.facts.status}` : ""}.`,
        { do: "Ask who built it, at which version, before boards and parts are paid." },
      );
  }
  if (use === "private" && doc.choices.price)
    add(
      "cost",
      "right-priced-private",
      "warning",
      "A price is worked out, and the run is made for this shop alone.",
      {
        do: "Say that it is made to be sold, or leave the price out.",
      },
    );
  const open = use === "sold" ? openQuestions(rights) : [];
  if (open.length > 0)
    add(
      "cost",
      "right-questions",
      "warning",
      `Before it is sold, ${open.length === 1 ? "one question is" : `${open.length} questions are`} open: ${open.map((q) => SALE_WORDS[q]).join(" ")}`,
      {
        do: "Answer each with what you would show, or with why it does not concern this product. Local law comes first.",
      },
    );
}
