import { useParams } from "react-router";
import { stages } from "../../run/stages.ts";

/** A stage whose place is kept. */
export function LaterPage() {
  const key = useParams().later ?? "";
  const stage = stages().find((s) => s.key === key);
  return (
    <section>
      <h1>{stage?.label ?? "Not found"}</h1>
      <p className="mt-2 max-w-[60ch] text-ink-2">{stage?.later ?? "There is no such stage."}</p>
    </section>
  );
}
