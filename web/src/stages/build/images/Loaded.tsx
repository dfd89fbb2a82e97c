import type { ImageLoad } from "@kobbin/core";
import { saveWiped } from "../../../resources/record.ts";
import { useRun } from "../../../run/runState.ts";
import { todayIso } from "../../../ui/text/dates.ts";
import { day } from "../../../ui/text/format.ts";
import { useSayError } from "../../../ui/toast/Toast.tsx";
import { leftToDo, loadsOf } from "./loadModel.ts";

/** What is in a board: each image with its file, what it was given, and whether it was wiped of what stays with the shop. */
export function Loaded({ unit, mayNote }: { unit: number; mayNote: boolean }) {
  const { id, doc, record } = useRun();
  const sayError = useSayError();
  const images = doc.assembly.images ?? [];
  if (images.length === 0) return null;
  const { toWipe } = leftToDo(images, record.loads, unit);
  const wipe = (l: ImageLoad) => saveWiped(id, l.id, l.wipedOn ? null : todayIso()).catch(sayError);
  return (
    <>
      <h2 className="mt-5 mb-1 text-[16px]">What is loaded</h2>
      {toWipe.length > 0 && (
        <p className="mb-1 text-[14.5px] text-look">
          Not wiped yet of what stays with the shop: not to be shipped like this.
        </p>
      )}
      <table className="rows w-full text-[14.5px]" aria-label="What is loaded">
        <tbody>
          {images.map((i) => {
            const goes = loadsOf(record.loads, unit, i.id);
            const l = goes.at(-1);
            const wiped = i.values.filter((v) => v.isWiped);
            return (
              <tr key={i.id}>
                <td>
                  <b>{i.name}</b> <span className="num">{l?.version ?? i.version}</span>
                  <span className="text-ink-2"> at {i.at}</span>
                </td>
                <td className="num text-[13px] text-ink-2">
                  {l?.sha256 && `file ${l.sha256.slice(0, 12)}…`}
                </td>
                <td className={l ? (l.isRight ? "text-fine" : "text-stop") : "text-ink-2"}>
                  {l ? (l.isRight ? "loaded" : "not loaded") : "not yet"}
                  {goes.length > 1 && `, at the ${goes.length === 2 ? "second" : `${goes.length}th`} go`}
                </td>
                <td>
                  {l &&
                    Object.entries(l.given)
                      .filter(([, v]) => v !== "")
                      .map(([name, v]) => (
                        <span key={name} className="mr-3">
                          {name} <b className="num">{v}</b>
                        </span>
                      ))}
                  {l?.isRight && wiped.length > 0 && (
                    <>
                      <span className="mr-2">{wiped.map((v) => v.name).join(", ")}:</span>
                      {mayNote ? (
                        <button
                          type="button"
                          className="quiet-link print:hidden"
                          aria-label={`${i.name}: ${l.wipedOn ? "not wiped after all" : "it is wiped"}`}
                          onClick={() => wipe(l)}
                        >
                          {l.wipedOn ? `wiped on ${day(l.wipedOn)}` : "wiped?"}
                        </button>
                      ) : (
                        <span>{l.wipedOn ? `wiped on ${day(l.wipedOn)}` : "not wiped"}</span>
                      )}
                    </>
                  )}
                </td>
                <td className="text-right text-[13.5px] text-ink-2">{l && `${day(l.on)}, ${l.person}`}</td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </>
  );
}
