import { useEffect, useRef } from "react";
import { useAsks } from "../../resources/run.ts";
import { count } from "../../ui/text/format.ts";
import { useSay } from "../../ui/toast/Toast.tsx";

/** How the questions to suppliers stand; says what came of them once the last has answered or was given up. */
export function useAsking(id: string) {
  const say = useSay();
  const { data: asked } = useAsks(id);
  const asks = asked?.asks ?? [];
  const isAsking = asks.some((a) => a.state === "waiting" || a.state === "asking");
  const wasAsking = useRef(false);
  const total = asks.reduce((n, a) => n + (a.state === "answered" ? a.offers : 0), 0);
  const gaps = asks.reduce((n, a) => n + a.notListed.length, 0);
  const lost = asks.filter((a) => a.state === "failed").length;
  useEffect(() => {
    if (wasAsking.current && !isAsking)
      say(
        `${count(total, "offer")}${gaps > 0 ? `; ${gaps} times “not listed”` : ""}${lost > 0 ? `; nothing usable from ${count(lost, "supplier")}` : ""}`,
        lost > 0 ? { isProblem: true, hint: "What it offered before was kept. Ask again later." } : {},
      );
    wasAsking.current = isAsking;
  }, [isAsking, say, total, gaps, lost]);
  return { asks, isAsking };
}
