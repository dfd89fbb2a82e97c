import { assemblyHouse, ofBoard, type RunNeed, unitOf } from "@kobbin/core";
import { KIND_WORDS } from "../../run/kindWords.ts";
import { useRun } from "../../run/runState.ts";
import { Sum } from "../../ui/Sum.tsx";

const WAY = { hand: "by hand", machine: "by machine" } as const;

/** How many are needed, with every step of the sum: boards, pieces, losses, what the shelf gives. */
export function Needed({ need, title }: { need: RunNeed; title: string }) {
  const { doc, result: r } = useRun();
  const unit = unitOf(doc);
  const nameOf = (id: string) => {
    const p = r.parts.find((x) => x.line.id === id)!;
    const { refs, valueText, mpn } = p.line;
    return {
      name: refs[0] === undefined ? valueText || mpn : `${refs[0]}${ofBoard(doc, p.line)}`,
      count: p.count,
    };
  };
  const terms = need.terms.map((t) => {
    const { name, count } = nameOf(t.line);
    const boards = t.kind === "loose" ? doc.goodBoards : r.start;
    return {
      label: need.terms.length > 1 ? name : t.kind === "loose" ? `good ${unit}s` : `${unit}s started`,
      value: String(t.net),
      note: `${boards} × ${count}`,
    };
  });
  const kinds = [
    ...new Set(
      need.terms.filter((t) => t.kind !== "loose").map((t) => `${KIND_WORDS[t.kind]}, ${WAY[t.by]}`),
    ),
  ];
  return (
    <Sum
      title={`needed of ${title}`}
      formula={
        kinds.length === 0
          ? `good ${unit}s × pieces a product`
          : `${unit}s started × pieces a ${unit} + what is lost on the way + what is kept for rework − what lies on the shelf`
      }
      terms={[
        ...terms,
        ...(kinds.length > 0
          ? [
              {
                label: "lost on the way",
                value: String(need.lost),
                note: kinds.join("; "),
                from: need.terms.some((t) => doc.workshop.attrition?.[t.kind])
                  ? "the shop's own losses, from its settings"
                  : "usual losses; the shop's own are set in its settings",
              },
            ]
          : []),
        ...(need.leader > 0
          ? [
              {
                label: "leader of the strip",
                value: String(need.leader),
                note: `${assemblyHouse(doc)?.assembly?.leaderMm} mm at the feeder`,
                from: `profile of ${assemblyHouse(doc)?.name}`,
              },
            ]
          : []),
        ...(need.reserve > 0
          ? [
              {
                label: "kept for rework",
                value: String(need.reserve),
                note: `${doc.assembly.reworkReserve} % of what is soldered`,
                from: "set in Assemble",
              },
            ]
          : []),
        ...need.shelf.map((t) => ({
          label: "from the own shelf",
          value: `−${t.qty}`,
          note: `${t.lot.mpn}${t.lot.place ? `, ${t.lot.place}` : ""}`,
          from: `received ${t.lot.receivedOn}`,
        })),
      ]}
      result={`${need.need} to buy${need.shelf.length > 0 ? `, ${need.whole} in all` : ""}`}
    >
      {need.whole}
    </Sum>
  );
}
