import { type Account, saysAccount } from "@kobbin/core";
import { Button } from "../ui/Button.tsx";
import { offWords } from "./columnWords.ts";

/** What became of a list's columns: nothing it was given is left out; what nobody can tell is asked, to be answered by a press. */
export function ListAccount({
  account,
  onAnswer,
}: {
  account: Account;
  /** Those with this mark in the column are left off: "off x"; nothing where it says nothing of that. */
  onAnswer: (column: number, role: `off ${string}` | "") => void;
}) {
  const apart = account.columns.filter((c) => c.as === "passed" || c.as === "asked");
  return (
    <>
      <p className="mt-2 text-[13.5px] text-ink-2">
        {saysAccount(account)}.{" "}
        {apart.map((c, i) => (
          <span key={c.place} className={c.as === "asked" ? "text-look" : undefined}>
            {i > 0 && " "}“{c.heading}”: {c.because}.
          </span>
        ))}
      </p>
      {account.columns.map(
        (c) =>
          c.marks && (
            <fieldset key={c.place} className="mt-2 mb-2 flex flex-wrap items-center gap-2">
              <legend className="sr-only">What {c.heading} says</legend>
              <span className="text-[14.5px] font-semibold">“{c.heading}”:</span>
              {c.marks.slice(0, 4).map((mark) => (
                <Button key={mark} onClick={() => onAnswer(c.place - 1, `off ${mark}`)}>
                  {offWords(mark)}
                </Button>
              ))}
              <Button onClick={() => onAnswer(c.place - 1, "")}>it says nothing of that</Button>
            </fieldset>
          ),
      )}
    </>
  );
}
