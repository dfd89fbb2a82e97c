import { Toast as Radix } from "radix-ui";
import {
  createContext,
  type ReactNode,
  type RefObject,
  useCallback,
  useContext,
  useEffect,
  useRef,
  useState,
} from "react";
import { type Message, withMessage } from "./messages.ts";

/** @returns a function that takes the message away before its time */
type Say = (text: string, more?: { hint?: string; isProblem?: boolean; undo?: () => void }) => () => void;
const Context = createContext<Say | undefined>(undefined);

/** Says something in passing: what was done (with undo), or what failed and what to do. */
export function useSay(): Say {
  const say = useContext(Context);
  if (!say) throw new Error("useSay must be used within Toasts");
  return say;
}

/** Says an error of a request as it should be said. */
export function useSayError(): (error: unknown) => void {
  const say = useSay();
  return useCallback(
    (error: unknown) => {
      const e = error as { message?: string; hint?: string };
      say(e.message ?? "It did not work.", { ...(e.hint ? { hint: e.hint } : {}), isProblem: true });
    },
    [say],
  );
}

export function Toasts({ children }: { children: ReactNode }) {
  const [messages, setMessages] = useState<readonly Message[]>([]);
  /** An Escape is being told that is meant for something else than a message. */
  const isForOthers = useRef(false);
  /** Somebody points at them, or is in them: none of them goes. */
  const isHeld = useRef(false);
  useEffect(() => {
    // the last one went from under the pointer: nobody leaves it any more
    if (messages.length === 0) isHeld.current = false;
  }, [messages.length]);
  const say = useCallback<Say>((text, more = {}) => {
    const id = Date.now() + Math.random();
    const next = { id, text, hint: more.hint, isProblem: more.isProblem ?? false, undo: more.undo };
    setMessages((old) => withMessage(old, next));
    return () => setMessages((old) => old.filter((m) => m.id !== id));
  }, []);
  return (
    <Context.Provider value={say}>
      <Radix.Provider duration={Number.POSITIVE_INFINITY} swipeDirection="right">
        {children}
        {messages.map((m) => (
          <Said
            key={m.id}
            message={m}
            isForOthers={isForOthers}
            isHeld={isHeld}
            onOver={() => setMessages((old) => old.filter((x) => x.id !== m.id))}
          />
        ))}
        {/* On a phone the thumb's buttons are at the bottom: nothing lies over them */}
        <Radix.Viewport className="fixed right-4 bottom-4 z-[60] flex w-[min(92vw,420px)] flex-col gap-2 outline-none max-sm:top-14 max-sm:bottom-auto" />
      </Radix.Provider>
    </Context.Provider>
  );
}

/** One of them. Escape belongs to what one is in: a message closes by it only when the focus is inside. */
function Said({
  message: m,
  isForOthers,
  isHeld,
  onOver,
}: {
  message: Message;
  isForOthers: RefObject<boolean>;
  isHeld: RefObject<boolean>;
  onOver: () => void;
}) {
  useSeen(m.isProblem ? 14_000 : 7000, isHeld, onOver);
  return (
    <Radix.Root
      type={m.isProblem ? "foreground" : "background"}
      className={`flex items-start gap-4 rounded-[3px] border bg-sheet px-4 py-3 shadow-lg ${m.isProblem ? "border-stop" : "border-rule"}`}
      open
      onOpenChange={() => {
        if (!isForOthers.current) onOver();
      }}
      onPause={() => {
        isHeld.current = true;
      }}
      onResume={() => {
        isHeld.current = false;
      }}
      data-message
      onEscapeKeyDown={(e) => {
        isForOthers.current = !(e.target instanceof Element && e.target.closest("[data-message]"));
        queueMicrotask(() => {
          isForOthers.current = false;
        });
      }}
    >
      <div className="min-w-0 flex-1">
        <Radix.Title className="font-semibold">{m.text}</Radix.Title>
        {m.hint && <Radix.Description className="text-[14px] text-ink-2">{m.hint}</Radix.Description>}
      </div>
      {m.undo && (
        <Radix.Action asChild altText="Take it back with Ctrl+Z" onClick={m.undo}>
          <button type="button" className="quiet-link">
            undo
          </button>
        </Radix.Action>
      )}
      <Radix.Close className="text-[13.5px] text-ink-2" aria-label="Dismiss">
        close
      </Radix.Close>
    </Radix.Root>
  );
}

const TICK_MS = 250;

/**
 * Calls once something was to be seen for so long. What passes while the page stands still counts as one tick at the most:
 * nobody could read then.
 */
function useSeen(ms: number, isHeld: RefObject<boolean>, onOver: () => void) {
  const over = useRef(onOver);
  over.current = onOver;
  useEffect(() => {
    let left = ms;
    const timer = setInterval(() => {
      if (isHeld.current) return;
      left -= TICK_MS;
      if (left <= 0) over.current();
    }, TICK_MS);
    return () => clearInterval(timer);
  }, [ms, isHeld]);
}
