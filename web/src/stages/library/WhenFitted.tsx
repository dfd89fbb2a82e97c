import type { PartBody } from "@kobbin/contract";
import type { FitAfter, LibraryPart } from "@kobbin/core";
import { Pick } from "../../ui/Field.tsx";
import { Kept } from "../../ui/Kept.tsx";

const AFTER = [
  ["", "nothing in particular"],
  ["reflow", "the heat"],
  ["wash", "washing"],
  ["test", "the test"],
] as const;

/** What decides when a part's turn is in the order of work. */
export function WhenFitted({
  part,
  disabled,
  onSave,
  onNumber,
}: {
  part: LibraryPart;
  disabled: boolean;
  onSave: (change: PartBody, words: string) => void;
  onNumber: (typed: string, what: string, keep: (n: number | null) => void) => void;
}) {
  const figure = (key: "wettedMm2" | "peakC", label: string, hint: string) => (
    <Kept
      label={label}
      value={part[key] === undefined ? "" : String(part[key])}
      disabled={disabled}
      isMono
      hint={hint}
      onSave={(v) =>
        onNumber(v, label, (n) => onSave({ [key]: n }, `${part.mpn}: ${label.toLowerCase()} kept`))
      }
    />
  );
  return (
    <>
      <Kept
        label="Moisture level"
        value={part.moisture}
        disabled={disabled}
        isMono
        onSave={(v) => onSave({ moisture: v }, `${part.mpn}: moisture level kept`)}
      />
      {figure(
        "wettedMm2",
        "Wetted area, mm²",
        "of all its pads: with its mass it tells whether it holds below",
      )}
      {figure("peakC", "Stands at most, °C", "its body, in the heat of the paste")}
      <Pick
        label="Goes on after"
        value={part.fitAfter ?? ""}
        options={AFTER}
        disabled={disabled}
        onChange={(v) =>
          onSave(
            { fitAfter: (v || null) as FitAfter | null },
            `${part.mpn}: ${v ? `after ${v}` : "at any time"}`,
          )
        }
      />
      <Pick
        label="What it closes"
        value={part.opensOnce ? "once" : ""}
        options={[
          ["", "opens again, or it closes nothing"],
          ["once", "opens only once"],
        ]}
        disabled={disabled}
        onChange={(v) =>
          onSave(
            { opensOnce: v === "once" ? true : null },
            `${part.mpn}: ${v ? "opens only once" : "opens again"}`,
          )
        }
      />
    </>
  );
}
