import type { Piece, TestItem } from "@kobbin/core";

/** What an item of the test plan is marked by at the bench: no piece is called so. */
export const testName = (t: Pick<TestItem, "id">): string => `test ${t.id}`;
/** Items of a plan as they are walked: one press each. */
export const testPieces = (tests: readonly TestItem[]): Piece[] =>
  tests.map((t, i) => ({ name: testName(t), line: "", nth: i + 1, of: tests.length }));

/** One thing to try: what should come, where it is driven and read, with or without power. */
export function TestCard({ item: t }: { item: TestItem }) {
  const places = [
    ["drive", t.drives],
    ["read", t.reads],
    ["through", t.through],
  ] as const;
  return (
    <div aria-live="polite" className="max-w-[62ch]">
      <p className="text-[24px] text-ink-2 max-sm:text-[18px]">
        {t.state === "bare" ? "without power" : "powered, current limit set"}
      </p>
      <p className="text-[44px] leading-tight font-bold max-sm:text-[30px]">{t.name}</p>
      <p className="num mt-3 text-[34px] max-sm:text-[24px]">{t.expect || "what should come is not said"}</p>
      <ul className="mt-3 text-[22px] max-sm:text-[17px]">
        {places
          .filter(([, list]) => list.length > 0)
          .map(([what, list]) => (
            <li key={what}>
              {what} <span className="num font-semibold">{list.join(" ")}</span>
            </li>
          ))}
      </ul>
      <p className="mt-4 border-l-4 border-rule-2 px-3 text-[18px] text-ink-2 max-sm:text-[15px]">
        Mains, motion and heat only disconnected or with somebody competent beside it.
      </p>
    </div>
  );
}
