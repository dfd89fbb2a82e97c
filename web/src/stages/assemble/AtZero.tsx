import { lookedAt, type RotationClass, rotationClasses, turnedBy } from "@kobbin/core";
import { useState } from "react";
import { saveHouse } from "../../resources/run.ts";
import { useRun } from "../../run/runState.ts";
import { Button } from "../../ui/Button.tsx";
import { Fold } from "../../ui/Fold.tsx";
import { count } from "../../ui/text/format.ts";
import { useSayError } from "../../ui/toast/Toast.tsx";

const SIZE = 92;
const OCTANTS = [
  "right",
  "upper right",
  "top",
  "upper left",
  "left",
  "lower left",
  "bottom",
  "lower right",
] as const;
/** Where a direction points, in words. @example towards(215) // "lower left" */
export const towards = (deg: number): string => OCTANTS[Math.round(deg / 45) % 8]!;

/** Every package with a direction as the house will see it at 0°: looked at once, kept with the house for every run. */
export function AtZero() {
  const { doc, result: r } = useRun();
  // one profile is kept at a time: a second press before the first is back would lay the old one over it
  const [isSaving, setSaving] = useState(false);
  const house = r.assembly?.house;
  if (!house) return null;
  const classes = rotationClasses(doc, r.parts, house);
  if (classes.length === 0) return null;
  const looked = classes.filter((c) => c.stands === "looked").length;
  return (
    <Fold
      id="at-zero"
      title="Directions"
      verdict={
        looked === classes.length
          ? `all ${count(classes.length, "package")} looked at for ${house.name}`
          : `${looked} of ${count(classes.length, "package")} looked at for ${house.name}`
      }
    >
      <p className="mb-2 max-w-[62ch] text-[14px] text-ink-2">
        Each as it lies at 0° in the file that goes to {house.name}, seen from the top. Hold it against how
        this house draws the package, and say that it lies so, or turn it: that is kept with the house, for
        every board.
      </p>
      <ul className="grid grid-cols-2 gap-x-6 gap-y-3 max-md:grid-cols-1" aria-label="Packages at 0°">
        {classes.map((c) => (
          <Card key={c.key} of={c} isSaving={isSaving} setSaving={setSaving} />
        ))}
      </ul>
    </Fold>
  );
}

const STANDS = {
  looked: "looked at",
  open: "nobody looked yet",
  other: "lay otherwise when it was looked at",
} as const;

function Card({
  of: c,
  isSaving,
  setSaving,
}: {
  of: RotationClass;
  isSaving: boolean;
  setSaving: (is: boolean) => void;
}) {
  const { id, answer, result: r, did, isLocked } = useRun();
  const sayError = useSayError();
  const house = r.assembly!.house;
  const name = `${c.package || "no package"}${c.side === "bottom" ? ", bottom" : ""}`;
  const keep = (assembly: ReturnType<typeof lookedAt>, words: string) => {
    const { id: houseId, ...profile } = house;
    setSaving(true);
    const done = saveHouse(id, houseId, answer.versions[houseId], { ...profile, assembly });
    done.then(() => did(words, done), sayError).finally(() => setSaving(false));
  };
  return (
    <li className="flex gap-3" data-lines={c.lines.join(" ")}>
      <Zero of={c} />
      <div className="min-w-0 text-[14px]">
        <p>
          <b className="num">{name}</b>{" "}
          <span
            className={
              c.stands === "other" ? "text-stop" : c.stands === "looked" ? "text-fine" : "text-ink-2"
            }
          >
            {STANDS[c.stands]}
          </span>
        </p>
        <p className="text-ink-2">
          {c.first ? `pin ${c.first.pin} to the ${towards(c.first.deg)}` : "no file says where pin 1 is"}
          {c.turnDeg === 0 ? "" : `, turned by ${c.turnDeg}°`}
        </p>
        <p className="num truncate text-[13px] text-ink-2" title={c.refs.join(" ")}>
          {c.refs.slice(0, 5).join(" ")}
          {c.refs.length > 5 ? " …" : ""}
        </p>
        {c.apart.length > 0 && (
          <p className="text-stop">
            by {c.apart.length === 1 ? "its" : "their"} pads otherwise:{" "}
            {c.apart.map((a) => `${a.ref} by ${a.deg}°`).join(", ")}
          </p>
        )}
        {c.isFromBelow && <p className="text-stop">its angles are counted as seen from below</p>}
        {!isLocked && (
          <p className="mt-1 flex gap-2">
            {c.stands !== "looked" && (
              <Button
                disabled={isSaving}
                aria-label={`${name} lies so at ${house.name}`}
                onClick={() => keep(lookedAt(house.assembly, c), `${name} looked at for ${house.name}`)}
              >
                it lies so
              </Button>
            )}
            <Button
              disabled={isSaving}
              aria-label={`${name}: turn by 90°`}
              onClick={() => keep(turnedBy(house.assembly, c, 90), `${name} turned by 90° for ${house.name}`)}
            >
              turn by 90°
            </Button>
          </p>
        )}
      </div>
    </li>
  );
}

/** The pads of a package about their middle, the one its direction is told by filled and named. */
function Zero({ of: { pads, first, package: pkg } }: { of: RotationClass }) {
  const reach = Math.max(0.3, ...pads.map((p) => Math.max(Math.abs(p.x), Math.abs(p.y))));
  const scale = (SIZE / 2 - 21) / reach;
  const apart = pads.flatMap((a, i) => pads.slice(i + 1).map((b) => Math.hypot(a.x - b.x, a.y - b.y)));
  const radius = Math.min(7, Math.max(1.4, 0.36 * scale * Math.min(...apart, reach)));
  const at = (p: { readonly x: number; readonly y: number }) =>
    [SIZE / 2 + p.x * scale, SIZE / 2 - p.y * scale] as const;
  const one = pads.find((p) => p.pin === first?.pin);
  return (
    <svg
      width={SIZE}
      height={SIZE}
      className="shrink-0 border border-rule bg-sheet"
      role="img"
      aria-label={
        first ? `${pkg} at 0°: pin ${first.pin} to the ${towards(first.deg)}` : `${pkg} at 0°: pads not known`
      }
    >
      {pads.map((p) => {
        const [x, y] = at(p);
        const is = p.pin === first?.pin;
        return (
          <circle
            key={p.pin}
            cx={x}
            cy={y}
            r={is ? radius + 1.2 : radius}
            fill={is ? "var(--metal)" : "none"}
            stroke="var(--ink)"
            strokeWidth={is ? 1.6 : 1}
          />
        );
      })}
      {one && first && <Name at={at(one)} name={first.pin} />}
      {pads.length === 0 && (
        <text x={SIZE / 2} y={SIZE / 2 + 6} textAnchor="middle" fontSize="18" fill="var(--ink-3)">
          ?
        </text>
      )}
    </svg>
  );
}

/** Beside the pad, on its outer side. */
function Name({ at: [x, y], name }: { at: readonly [number, number]; name: string }) {
  const [dx, dy] = [x - SIZE / 2, y - SIZE / 2];
  const far = Math.hypot(dx, dy) || 1;
  return (
    <text
      x={Math.min(SIZE - 6, Math.max(6, x + (15 * dx) / far))}
      y={Math.min(SIZE - 3, Math.max(11, y + (15 * dy) / far + 4))}
      textAnchor="middle"
      fontSize="12"
      fontWeight="700"
      fill="var(--ink)"
    >
      {name}
    </text>
  );
}
