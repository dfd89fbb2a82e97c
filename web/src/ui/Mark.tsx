import { Check, Circle } from "lucide-react";

export type MarkKind = "blocked" | "look" | "ready" | "open" | "empty" | "frozen" | "remark";

const WORDS: Readonly<Record<MarkKind, string>> = {
  blocked: "blocked",
  look: "to look at",
  ready: "ready",
  open: "open",
  empty: "empty",
  frozen: "released",
  remark: "remark",
};

/** A state as shape, number and word: never by colour alone. */
export function Mark({ kind, count }: { kind: MarkKind; count?: number | undefined }) {
  const label = `${count ? `${count} ` : ""}${WORDS[kind]}`;
  const inner =
    kind === "blocked" ? (
      <span className="grid size-[18px] place-items-center bg-stop text-[11px] font-bold text-sheet [clip-path:polygon(30%_0,70%_0,100%_30%,100%_70%,70%_100%,30%_100%,0_70%,0_30%)]">
        {count ?? "!"}
      </span>
    ) : kind === "look" ? (
      <span className="grid size-[17px] place-items-center rounded-full border-[1.6px] border-look text-[11px] font-bold text-look">
        {count ?? "?"}
      </span>
    ) : kind === "remark" ? (
      <span className="grid size-[17px] place-items-center text-[12px] text-ink-3">{count ?? "·"}</span>
    ) : kind === "ready" || kind === "frozen" ? (
      <Check className="size-4 text-fine" strokeWidth={2.6} aria-hidden />
    ) : (
      <Circle className="size-3 text-ink-3" aria-hidden />
    );
  return (
    <span
      role="img"
      aria-label={label}
      title={label}
      className="inline-grid size-[18px] shrink-0 place-items-center"
    >
      {inner}
    </span>
  );
}
