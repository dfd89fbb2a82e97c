import type { RunState } from "@kobbin/core";
import { useLive } from "./resources/live.ts";
import { useSaving } from "./resources/outbox.ts";
import { clock, count } from "./ui/text/format.ts";

/**
 * "saved 14:02": in the crumb, small, always there; of a run that is released or closed that it is, while all is saved.
 */
export function SavedMark({ life }: { life: RunState }) {
  const saving = useSaving();
  if (life !== "open" && saving.kind === "saved") return life;
  return (
    <span role="status" className={saving.kind === "waiting" ? "font-semibold text-stop" : ""}>
      {saving.kind === "saving"
        ? "saving …"
        : saving.kind === "waiting"
          ? `not saved: ${count(saving.count, "change")}`
          : saving.at
            ? `saved ${clock(saving.at)}`
            : "saved"}
    </span>
  );
}

/** What is not saved, why, and what becomes of it; only while it is so. */
export function AwayStrip() {
  const saving = useSaving();
  const { isConnected } = useLive();
  if (saving.kind === "waiting")
    return (
      <p
        role="alert"
        // where the page itself is scrolled it stays in sight
        className="no-print sticky top-0 z-20 border-b border-stop bg-stop-soft px-5 py-1.5 text-[14px] max-sm:px-3"
      >
        {saving.why === "signed out"
          ? `You are signed out; ${count(saving.count, "change is", "changes are")} kept on this page and saved once you sign in.`
          : `The server does not answer; ${count(saving.count, "change is", "changes are")} kept on this page and saved as soon as it is back. Go on working.`}
      </p>
    );
  if (!isConnected)
    return (
      <p
        role="status"
        className="no-print border-b border-look bg-look-soft px-5 py-1.5 text-[14px] max-sm:px-3"
      >
        The connection is lost; the page tries again. What you see may be older than what others did.
      </p>
    );
  return null;
}
