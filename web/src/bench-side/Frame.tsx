import { type ReactNode, useEffect } from "react";

/** One thing at a time for busy hands: the whole screen, letters that are read at arm's length, keys at the foot. */
export function Frame({
  label,
  head,
  share,
  onLeave,
  children,
  foot,
}: {
  label: string;
  head: ReactNode;
  /** How far it is, 0 to 1. */
  share: number;
  onLeave: () => void;
  children: ReactNode;
  foot: ReactNode;
}) {
  useAwake();
  return (
    <section
      aria-label={label}
      data-busy-hands
      className="fixed inset-0 z-30 grid grid-rows-[auto_minmax(0,1fr)_auto] bg-paper"
    >
      <header className="border-b border-rule">
        <div className="flex flex-wrap items-center gap-x-5 gap-y-1 px-5 py-2 max-sm:px-3">
          {head}
          <button type="button" className="quiet-link ml-auto" onClick={onLeave}>
            leave <kbd>Esc</kbd>
          </button>
        </div>
        <div className="h-[5px] bg-rule" aria-hidden>
          <div className="h-full bg-metal" style={{ width: `${Math.round(1000 * share) / 10}%` }} />
        </div>
      </header>
      {/* biome-ignore lint/a11y/noNoninteractiveTabindex: what is longer than the screen is scrolled by keys too */}
      <div tabIndex={0} className="min-h-0 overflow-auto px-5 py-4 max-sm:px-3 max-sm:py-2">
        {children}
      </div>
      <footer className="border-t border-rule bg-sheet px-5 py-3 max-sm:px-3 max-sm:py-2">{foot}</footer>
    </section>
  );
}

/** A press as large as a knuckle, with the key that does the same. */
export function BigKey({
  keys,
  look = "plain",
  isOff = false,
  onPress,
  children,
}: {
  keys: string;
  look?: "main" | "plain";
  isOff?: boolean;
  onPress: () => unknown;
  children: ReactNode;
}) {
  return (
    <button
      type="button"
      disabled={isOff}
      onClick={onPress}
      className={`inline-flex min-h-[54px] items-center gap-3 rounded-[4px] border px-5 text-[19px] font-semibold disabled:opacity-40 max-sm:min-h-[48px] max-sm:px-3 max-sm:text-[16px] ${look === "main" ? "border-ink bg-ink text-paper" : "border-rule-2 bg-paper hover:bg-metal-soft"}`}
    >
      {children} <kbd className="text-[14px] font-normal opacity-70 max-sm:hidden">{keys}</kbd>
    </button>
  );
}

/** Keeps the screen on while this is there, where the browser can. */
function useAwake(): void {
  useEffect(() => {
    let lock: WakeLockSentinel | undefined;
    let isThere = true;
    const hold = () => {
      if (document.visibilityState !== "visible") return;
      navigator.wakeLock?.request("screen").then(
        (l) => {
          if (isThere) lock = l;
          else void l.release();
        },
        () => undefined,
      );
    };
    hold();
    document.addEventListener("visibilitychange", hold);
    return () => {
      isThere = false;
      document.removeEventListener("visibilitychange", hold);
      void lock?.release();
    };
  }, []);
}
