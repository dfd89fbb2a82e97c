import { ALLOY_WORDS, ALLOYS, type RunAssembly } from "@kobbin/core";
import { useRun } from "../../../run/runState.ts";
import { Field, Pick } from "../../../ui/Field.tsx";
import { useSay } from "../../../ui/Toast.tsx";
import { typedRefs } from "./typedRefs.ts";

const HEATERS = [
  ["", "not said"],
  ["plate", "hot plate"],
  ["oven", "oven"],
  ["air", "hot air"],
] as const;
const PASTES = [
  ["", `not said: ${ALLOY_WORDS.silver}`],
  ...ALLOYS.map((a) => [a, ALLOY_WORDS[a]] as const),
] as const;
const PLACES = [
  ["programAt", "Programmed at"],
  ["programLoose", "Programmed before it goes on"],
  ["testAt", "Tested at"],
] as const;

/** What the order is made from beside the parts: what melts, which paste, where it is programmed and tested. */
export function MadeFrom() {
  const { doc, result, change, isLocked } = useRun();
  const say = useSay();
  const { assembly } = doc;
  const pick = (key: "heater" | "alloy", value: string, label: string) =>
    change({ assembly: { [key]: value === "" ? null : value } } as never, `${label}: ${value || "not said"}`);
  const keep = (key: "programAt" | "programLoose" | "testAt", label: string, text: string) => {
    const typed = typedRefs(text);
    if ("wrong" in typed)
      return say(`${label}: ${typed.wrong}`, { isProblem: true, hint: "It stays as it was." });
    const { refs } = typed;
    if (refs.join(" ") !== ((assembly[key] as RunAssembly["testAt"]) ?? []).join(" "))
      change({ assembly: { [key]: refs } } as never, `${label}: ${refs.join(", ") || "nothing"}`);
  };
  return (
    <section
      aria-label="What the order is made from"
      className="mt-5 grid grid-cols-2 gap-3 max-sm:grid-cols-1"
    >
      {result.goes.has("stencil") && (
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
            options={PASTES}
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
