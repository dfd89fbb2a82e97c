import { ALLOY_WORDS, ALLOYS, FLUXES, type Flux, imagesAt, type RunAssembly } from "@kobbin/core";
import type { ComponentProps } from "react";
import { useRun } from "../../../run/runState.ts";
import { Field, Pick } from "../../../ui/Field.tsx";
import { Kept } from "../../../ui/Kept.tsx";
import { useSay } from "../../../ui/toast/Toast.tsx";
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
const WIRES = [["", "not said: as the paste"], ...ALLOYS.map((a) => [a, ALLOY_WORDS[a]] as const)] as const;
const FLUX = [
  ["", "not said"],
  ...(Object.keys(FLUXES) as Flux[]).map((f) => [f, FLUXES[f].label] as const),
] as const;
const CLEANERS = [
  ["", "only where something asks for it"],
  ["water", "water"],
  ["solvent", "solvent"],
] as const;
const PLACES = [
  ["programAt", "Programmed at"],
  ["programLoose", "Programmed before it goes on"],
  ["testAt", "Tested at"],
] as const;

type Picked = "heater" | "alloy" | "wire" | "flux" | "cleaner";

/** What the order is made from beside the parts: what melts, which paste, where it is programmed and tested. */
export function MadeFrom() {
  const { doc, result, change, isLocked } = useRun();
  const say = useSay();
  const { assembly } = doc;
  const isPasted = result.goes.has("stencil");
  const isIroned = result.goes.has("iron") || result.parts.some((p) => p.method === "iron");
  const picks: readonly (readonly [Picked, string, ComponentProps<typeof Pick>["options"]])[] = [
    ...(isPasted
      ? ([
          ["heater", "Melted by", HEATERS],
          ["alloy", "Alloy of the paste", PASTES],
        ] as const)
      : []),
    ...(isIroned ? ([["wire", "Alloy of the wire", WIRES]] as const) : []),
    ["flux", "Flux", FLUX],
    ["cleaner", "Washed with", CLEANERS],
  ];
  const pick = (key: Picked, value: string, label: string) =>
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
      {picks.map(([key, label, options]) => (
        <Pick
          key={key}
          label={label}
          value={assembly[key] ?? ""}
          options={options}
          disabled={isLocked}
          onChange={(v) => pick(key, v, label)}
        />
      ))}
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
      <Loaded />
    </section>
  );
}

/** What is loaded at each place that is programmed: images in their order, where they come from, under which licence. */
function Loaded() {
  const { doc, change, isLocked } = useRun();
  const { programAt = [], programLoose = [], programs = {} } = doc.assembly;
  // where images are listed nothing more need be said in words
  const refs = [...new Set([...programLoose, ...programAt])].filter(
    (ref) => programs[ref] || imagesAt(doc.assembly, ref).length === 0,
  );
  const keep = (ref: string, text: string) => {
    if (text === (programs[ref] ?? "")) return;
    const { [ref]: _, ...rest } = programs;
    const next = text === "" ? rest : { ...rest, [ref]: text };
    change({ assembly: { programs: next } } as never, `Loaded at ${ref}: ${text || "not said"}`);
  };
  return refs.map((ref) => (
    <Kept
      key={ref}
      className="col-span-2 max-sm:col-span-1"
      label={`Loaded at ${ref}`}
      placeholder="start-up 1.2, then watch 3.0; own work"
      disabled={isLocked}
      maxLength={300}
      value={programs[ref] ?? ""}
      onSave={(v) => keep(ref, v)}
    />
  ));
}
