import type { RunAssembly } from "@kobbin/core";
import { useRun } from "../../../run/runState.ts";
import { Field, Pick } from "../../../ui/Field.tsx";
import { typedRefs } from "./Covers.tsx";

const HEATERS = [
  ["", "not said"],
  ["plate", "hot plate"],
  ["oven", "oven"],
  ["air", "hot air"],
] as const;
const ALLOYS = [
  ["", "not said: tin-silver-copper"],
  ["silver", "tin-silver-copper"],
  ["lead", "tin-lead"],
  ["bismuth", "tin-bismuth"],
] as const;
const PLACES = [
  ["programAt", "Programmed at"],
  ["programLoose", "Programmed before it goes on"],
  ["testAt", "Tested at"],
] as const;

/** What the order is made from beside the parts: what melts, which paste, where it is programmed and tested. */
export function MadeFrom() {
  const { doc, change, isLocked } = useRun();
  const { assembly } = doc;
  const pick = (key: "heater" | "alloy", value: string, label: string) =>
    change({ assembly: { [key]: value === "" ? null : value } } as never, `${label}: ${value || "not said"}`);
  const keep = (key: "programAt" | "programLoose" | "testAt", label: string, text: string) => {
    const refs = typedRefs(text);
    if (refs.join(" ") !== ((assembly[key] as RunAssembly["testAt"]) ?? []).join(" "))
      change({ assembly: { [key]: refs } } as never, `${label}: ${refs.join(", ") || "nothing"}`);
  };
  return (
    <section
      aria-label="What the order is made from"
      className="mt-5 grid grid-cols-2 gap-3 max-sm:grid-cols-1"
    >
      {assembly.method === "stencil" && (
        <>
          <Pick
            label="Melted by"
            value={assembly.heater ?? ""}
            options={HEATERS}
            disabled={isLocked}
            onChange={(v) => pick("heater", v, "Melted by")}
          />
          <Pick
            label="Alloy of the paste"
            value={assembly.alloy ?? ""}
            options={ALLOYS}
            disabled={isLocked}
            onChange={(v) => pick("alloy", v, "Alloy of the paste")}
          />
        </>
      )}
      {PLACES.map(([key, label]) => (
        <Field
          key={`${key} ${(assembly[key] ?? []).join(" ")}`}
          label={label}
          placeholder="references, as J5 TP1"
          disabled={isLocked}
          maxLength={400}
          defaultValue={(assembly[key] ?? []).join(" ")}
          onBlur={(e) => keep(key, label, e.target.value)}
          onKeyDown={(e) => e.key === "Enter" && keep(key, label, e.currentTarget.value)}
        />
      ))}
    </section>
  );
}
