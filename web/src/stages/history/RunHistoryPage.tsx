import { Link } from "react-router";
import { History } from "../../history/History.tsx";
import { useRun } from "../../run/runState.ts";

/** What was done in this run and on its bill. */
export function RunHistoryPage() {
  const { id, doc, answer } = useRun();
  return (
    <section className="max-w-[820px]">
      <h1>History</h1>
      <p className="mb-4 text-ink-2">
        Everything done in this run and on the bill of revision {doc.revision}.{" "}
        <kbd className="num">Ctrl+Z</kbd> takes back your own last step,{" "}
        <kbd className="num">Ctrl+Shift+Z</kbd> brings it again.{" "}
        <Link className="quiet-link" to={`/products/${answer.productId}/history`}>
          all of {doc.product}
        </Link>
      </p>
      <History of={{ run: id }} isShort />
    </section>
  );
}
