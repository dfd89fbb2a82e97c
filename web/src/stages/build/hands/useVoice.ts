import { useEffect, useState } from "react";

const KEPT = "bench voice";

/** Speaks what is next with the browser's own voice, where one is and it is wished. */
export function useVoice(text: string): readonly [boolean, (on: boolean) => void] {
  const [isOn, setOn] = useState(() => localStorage.getItem(KEPT) === "on");
  useEffect(() => {
    if (!isOn || !("speechSynthesis" in window)) return;
    window.speechSynthesis.cancel();
    window.speechSynthesis.speak(new SpeechSynthesisUtterance(text));
    return () => window.speechSynthesis.cancel();
  }, [isOn, text]);
  const set = (on: boolean) => {
    localStorage.setItem(KEPT, on ? "on" : "off");
    setOn(on);
  };
  return [isOn, set];
}
