import { unitOf } from "@kobbin/core";
import { useRun } from "../../../run/runState.ts";
import { count } from "../../../ui/text/format.ts";
import { bySocket, loadsOf } from "./loadModel.ts";

/** How far the boards are loaded, image by image; which socket of several goes wrong, since its contacts wear. */
export function ImagesSoFar() {
  const { doc, record, result } = useRun();
  const images = doc.assembly.images ?? [];
  const loads = record.loads ?? [];
  if (images.length === 0 || loads.length === 0) return null;
  const units = Array.from({ length: result.start }, (_, i) => i + 1);
  return (
    <section aria-label="What is loaded so far" className="mt-5">
      <h2 className="mb-1 text-[16px]">What is loaded so far</h2>
      <table className="rows w-full max-w-[860px] text-[14.5px]">
        <tbody>
          {images.map((i) => {
            const last = units.map((u) => loadsOf(loads, u, i.id).at(-1));
            const right = last.filter((l) => l?.isRight).length;
            const wrong = last.filter((l) => l && !l.isRight).length;
            const first = units.filter((u) => loadsOf(loads, u, i.id)[0]?.isRight).length;
            const toWipe = i.values.some((v) => v.isWiped)
              ? last.filter((l) => l?.isRight && !l.wipedOn).length
              : 0;
            return (
              <tr key={i.id}>
                <td>
                  <b>{i.name}</b> <span className="num">{i.version}</span>
                </td>
                <td>
                  <b className="num">{right}</b> of {units.length} {unitOf(doc)}s
                  {right > 0 && <span className="text-ink-2">, {first} at the first go</span>}
                </td>
                <td className={wrong > 0 ? "text-stop" : "text-ink-2"}>
                  {wrong > 0 ? `${wrong} not loaded` : ""}
                </td>
                <td className={toWipe > 0 ? "text-look" : "text-ink-2"}>
                  {toWipe > 0 ? `${toWipe} not wiped yet` : ""}
                </td>
                <td className="text-[13.5px] text-ink-2">
                  {bySocket(loads.filter((l) => l.image === i.id))
                    .filter((s) => s.wrong > 0)
                    .slice(0, 3)
                    .map((s) => `socket ${s.socket}: ${s.wrong} of ${count(s.of, "go", "goes")} wrong`)
                    .join("; ")}
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </section>
  );
}
