import { useParams } from "react-router";

const SAYS: Readonly<Record<string, string>> = {
  panel:
    "Panels are not built into Kobbin yet. Boards are ordered singly; a house that makes the panel itself can be told so in its notes.",
  receive:
    "Receiving is not built into Kobbin yet. The order package holds what to count against: baskets and the fabrication sheet.",
  build:
    "Building and testing are not built into Kobbin yet. Own hours and rework are estimated from the model until a record can be kept.",
};

/** A stage whose place is kept. */
export function LaterPage() {
  const later = useParams().later ?? "";
  return (
    <section>
      <h1 className="capitalize">{later}</h1>
      <p className="mt-2 max-w-[60ch] text-ink-2">{SAYS[later] ?? "There is no such stage."}</p>
    </section>
  );
}
