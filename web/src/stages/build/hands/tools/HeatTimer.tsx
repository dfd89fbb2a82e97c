import { type Alloy, type HeatPresses, type HeatStand, heatStand, WINDOWS } from "@kobbin/core";
import { useEffect, useMemo, useRef, useState } from "react";
import { BigKey } from "../../../../bench-side/Frame.tsx";
import { useKeys } from "../../../../ui/keys.ts";

const PRESS = { on: "it is on the heat", melted: "it shines", off: "it is off" } as const;
const LOOK = { fine: "", now: "text-look", late: "text-stop" } as const;

/** Seconds of a heat that is watched by eye, large, with what is to be done now, and a sound when that changes. */
export function HeatTimer({ alloy }: { alloy: Alloy }) {
  const [presses, setPresses] = useState<HeatPresses>({});
  const [now, setNow] = useState(() => Date.now());
  const stand = heatStand(WINDOWS[alloy], presses, now);
  useEffect(() => {
    const tick = setInterval(() => setNow(Date.now()), 250);
    return () => clearInterval(tick);
  }, []);
  useAlarm(stand);
  const next = () => {
    const at = Date.now();
    setNow(at);
    if (stand.press === undefined) setPresses({});
    else setPresses({ ...presses, [`${stand.press}At`]: at });
  };
  // biome-ignore lint/correctness/useExhaustiveDependencies: a press hangs on the phase
  const bindings = useMemo(
    () => [{ keys: "t", does: "the heat: on, melted, off", run: next }],
    [stand.phase, stand.press],
  );
  useKeys(bindings, true);
  return (
    <section aria-label="Heat by eye" className="my-4 border-y border-rule py-4">
      <p
        className={`num text-[76px] leading-none font-bold max-sm:text-[54px] ${LOOK[stand.look]}`}
        role="timer"
      >
        {Math.floor(stand.seconds / 60)}:{String(stand.seconds % 60).padStart(2, "0")}
      </p>
      <p className={`my-3 text-[28px] font-semibold max-sm:text-[20px] ${LOOK[stand.look]}`} role="status">
        {stand.say}
      </p>
      <BigKey keys="T" onPress={next}>
        {stand.press ? PRESS[stand.press] : "the next load"}
      </BigKey>
    </section>
  );
}

/** A tone when it is to be taken off or may be moved, three when it is too late. */
function useAlarm({ phase, look }: HeatStand): void {
  const sound = useRef<AudioContext>(undefined);
  useEffect(() => () => void sound.current?.close(), []);
  useEffect(() => {
    const times = look === "late" ? 3 : (phase === "melted" && look === "now") || phase === "over" ? 1 : 0;
    if (times === 0 || !("AudioContext" in window)) return;
    sound.current ??= new AudioContext();
    const { currentTime, destination } = sound.current;
    for (let i = 0; i < times; i++) {
      const tone = sound.current.createOscillator();
      const loud = sound.current.createGain();
      tone.frequency.value = 880;
      loud.gain.value = 0.25;
      tone.connect(loud).connect(destination);
      tone.start(currentTime + i * 0.45);
      tone.stop(currentTime + i * 0.45 + 0.25);
    }
  }, [phase, look]);
}
