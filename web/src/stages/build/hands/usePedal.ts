import { useEffect, useState } from "react";
import { useSay } from "../../../ui/Toast.tsx";

const KEPT = "bench pedal";

/** A pedal or any other key that does as Enter does: pressed once to be learned, kept on this device. */
export function usePedal(): readonly [string | undefined, () => void] {
  const say = useSay();
  const [pedal, setPedal] = useState(() => localStorage.getItem(KEPT) ?? undefined);
  const [isLearning, setLearning] = useState(false);
  useEffect(() => {
    if (!isLearning) return;
    say("Press the pedal now", { hint: "Escape forgets the one that is known." });
    const hear = (e: KeyboardEvent) => {
      e.preventDefault();
      e.stopImmediatePropagation();
      const key = e.key.length === 1 ? e.key.toLowerCase() : e.key;
      const isForgotten = key === "Escape";
      if (isForgotten) localStorage.removeItem(KEPT);
      else localStorage.setItem(KEPT, key);
      setPedal(isForgotten ? undefined : key);
      setLearning(false);
    };
    window.addEventListener("keydown", hear, { capture: true, once: true });
    return () => window.removeEventListener("keydown", hear, { capture: true });
  }, [isLearning, say]);
  return [pedal, () => setLearning(true)];
}
