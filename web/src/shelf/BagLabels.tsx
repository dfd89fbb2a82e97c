import type { LotRow } from "@kobbin/contract";
import { bagCode } from "@kobbin/core";
import { Code } from "../ui/Code.tsx";
import { usePrinted } from "../ui/printed.ts";
import { day } from "../ui/text/format.ts";

/** What a label says: the lot, and what the paper it lies beside calls it. */
export interface BagLabel {
  readonly lot: Pick<LotRow, "number" | "mpn" | "qty" | "place" | "receivedOn">;
  /** References of a run it came for. */
  readonly refs?: readonly string[];
  /** How its direction is marked, where it has one. */
  readonly direction?: string;
}

/** A sheet of labels for bags and reels, 50 × 25 mm each, one to one; it prints itself. */
export function BagLabels({ labels, onDone }: { labels: readonly BagLabel[]; onDone: () => void }) {
  const paper = usePrinted(onDone);
  return (
    <section
      ref={paper}
      className="hidden flex-wrap gap-[2mm] bg-white p-[4mm] text-black print:flex"
      aria-label="Sheet of labels"
    >
      {labels.map(({ lot: l, refs = [], direction }) => (
        <div
          key={l.number}
          className="flex h-[25mm] w-[50mm] break-inside-avoid items-center gap-[1.5mm] overflow-hidden border border-[#999] p-[1mm]"
        >
          <Code text={bagCode(l.number).replaceAll("-", "")} mm={17} label={`Code of ${bagCode(l.number)}`} />
          <div className="min-w-0 flex-1 leading-tight">
            <p className="num text-[3mm] font-bold">{bagCode(l.number)}</p>
            <p className="num truncate text-[2.6mm] font-bold">{l.mpn}</p>
            <p className="text-[2.4mm]">
              {l.qty} on {day(l.receivedOn)}
              {l.place && `, ${l.place}`}
            </p>
            {refs.length > 0 && <p className="num line-clamp-2 text-[2.4mm]">{refs.join(" ")}</p>}
            {direction && <p className="truncate text-[2.4mm]">one way round: {direction}</p>}
          </div>
        </div>
      ))}
    </section>
  );
}
