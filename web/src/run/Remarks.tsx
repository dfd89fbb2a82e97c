import { useState } from "react";
import { addRemark, removeRemark } from "../resources/run.ts";
import { useRole, useSession } from "../resources/session.ts";
import { Button } from "../ui/Button.tsx";
import { clock, dayName } from "../ui/text/format.ts";
import { useSayError } from "../ui/toast/Toast.tsx";
import { useRun } from "./runState.ts";

/** What people noted at this stage, and a place to note something; the bench may, too. */
export function Remarks({ stage }: { stage: string }) {
  const { id, answer, did } = useRun();
  const { data } = useSession();
  const isOwner = useRole() === "owner";
  const sayError = useSayError();
  const [text, setText] = useState<string>();
  const [isBusy, setBusy] = useState(false);
  const list = answer.remarks.filter((r) => r.stage === stage);
  const submit = () => {
    const words = (text ?? "").trim();
    if (words === "") return;
    setBusy(true);
    // the words stay in the field until the server has them
    addRemark(id, { stage, text: words })
      .then(() => setText(undefined))
      .catch(sayError)
      .finally(() => setBusy(false));
  };
  return (
    <section aria-label="Remarks" className="mt-2 border-t border-rule pt-2 text-[14px]">
      {list.length > 0 && (
        <ul>
          {list.map((r) => (
            <li key={r.id} className="py-[5px] leading-snug">
              <p className="break-words whitespace-pre-wrap">{r.text}</p>
              <p className="text-[12.5px] text-ink-2">
                {r.person}, {dayName(r.at).toLowerCase()} {clock(new Date(r.at))}
                {(isOwner || r.person === data?.person) && (
                  <button
                    type="button"
                    className="quiet-link ml-3"
                    aria-label={`Remove the remark: ${r.text.slice(0, 60)}`}
                    onClick={() => {
                      const done = removeRemark(id, r.id);
                      done.then(() => isOwner && did("The remark was removed", done), sayError);
                    }}
                  >
                    remove
                  </button>
                )}
              </p>
            </li>
          ))}
        </ul>
      )}
      {text === undefined ? (
        <button type="button" className="quiet-link" onClick={() => setText("")}>
          add a remark
        </button>
      ) : (
        <form
          className="flex flex-col gap-2"
          onSubmit={(e) => {
            e.preventDefault();
            submit();
          }}
        >
          <textarea
            aria-label="Remark"
            placeholder="for whoever comes back to this"
            className="min-h-16"
            value={text}
            onChange={(e) => setText(e.target.value)}
            onKeyDown={(e) => {
              if (e.key === "Escape") setText(undefined);
              if (e.key === "Enter" && (e.ctrlKey || e.metaKey)) submit();
            }}
            // biome-ignore lint/a11y/noAutofocus: opened by the person's own press
            autoFocus
          />
          <div className="flex gap-2">
            <Button type="submit" disabled={isBusy || text.trim() === ""}>
              keep it
            </Button>
            <Button look="bare" onClick={() => setText(undefined)}>
              not now
            </Button>
          </div>
        </form>
      )}
    </section>
  );
}
