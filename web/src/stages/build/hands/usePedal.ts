import { useEffect, useState } from "react";
import { hearNext } from "../../../ui/keys.ts";
import { useSay } from "../../../ui/toast/Toast.tsx";

const KEPT = "bench pedal";

/** A pedal or any other key that does as Enter does: pressed once to be learned, kept on this device. */
export function usePedal(): readonly [string | undefined, () => void] {
  const say = useSay();
  const [pedal, setPedal] = useState(() => localStorage.getItem(KEPT) ?? undefined);
  const [isLearning, setLearning] = useState(false);
  useEffect(() => {
    if (!isLearning) return;
    say("Press the pedal now", { hint: "Escape forgets the one that is known." });
    return hearNext((e) => {
      const key = e.key.length === 1 ? e.key.toLowerCase() : e.key;
      const isForgotten = key === "Escape";
      if (isForgotten) localStorage.removeItem(KEPT);
      else localStorage.setItem(KEPT, key);
      setPedal(isForgotten ? undefined : key);
      setLearning(false);
    });
  }, [isLearning, say]);
  return [pedal, () => setLearning(true)];
}
