import { sheetBoards } from "@kobbin/core";
import { type RefObject, useState } from "react";
import { storedBoard } from "../../proof/useBoardWorker.ts";
import { useRun } from "../../run/runState.ts";
import { Button } from "../../ui/Button.tsx";
import { Pick } from "../../ui/Field.tsx";
import { Fold } from "../../ui/Fold.tsx";
import { Failed } from "../../ui/States.tsx";
import { fileWord, saveFile } from "../../ui/saveFile.ts";
import type { PanelConnection } from "../../workers/panel.ts";
import type { Written } from "../../workers/panel.worker.ts";

/** The same words for the same values, in whatever order their fields came back from the server. */
const inOrder = (_: string, v: unknown) =>
  v && typeof v === "object" && !Array.isArray(v)
    ? Object.fromEntries(Object.entries(v).sort(([a], [b]) => (a < b ? -1 : 1)))
    : v;

/**
 * Writes the sheet's files and proves them by reading them back; only what proves itself can be kept.
 *
 * @param isMoving the sheet is being changed: what would be written is not yet what is shown
 */
export function WriteSheet({
  worker,
  isMoving,
}: {
  worker: RefObject<PanelConnection | undefined>;
  isMoving: boolean;
}) {
  const { answer, doc } = useRun();
  const [mode, setMode] = useState<"copies" | "step-repeat">("copies");
  const [state, setState] = useState<{
    readonly of: string;
    readonly written?: Written;
    readonly failed?: unknown;
  }>();
  const of = JSON.stringify(
    [doc.choices.panel, mode, sheetBoards(doc).map((b) => [b.key, b.measure.extentMm])],
    inOrder,
  );
  const isCurrent = state?.of === of;
  const isBusy = isCurrent && !state.written && !state.failed;
  const write = async () => {
    setState({ of });
    try {
      const stored = await Promise.all([...answer.boardIds, ...answer.guestIds].map(storedBoard));
      const written = await worker.current?.write(doc, stored, mode, new Date().toISOString());
      setState({ of, ...(written ? { written } : {}) });
    } catch (failed) {
      setState({ of, failed });
    }
  };
  const done = isCurrent ? state.written : undefined;
  return (
    <section aria-labelledby="sheet-files" className="mt-4">
      <h2 id="sheet-files" className="sr-only">
        Files of the sheet
      </h2>
      <div className="flex flex-wrap items-end gap-3">
        <Pick
          className="w-[190px] max-w-full"
          label="Copies in the files"
          value={mode}
          options={[
            ["copies", "each written out"],
            ["step-repeat", "one with its steps, where it is a plain grid"],
          ]}
          onChange={(v) => setMode(v as typeof mode)}
        />
        <Button onClick={write} disabled={isBusy || isMoving}>
          {isBusy ? "writing and reading back …" : "Write and prove the files"}
        </Button>
        {done?.kind === "ok" && done.agrees && (
          <Button
            look="main"
            onClick={() =>
              saveFile(
                new Blob([done.zip as Uint8Array<ArrayBuffer>], { type: "application/zip" }),
                `${fileWord(doc.product)}-${fileWord(doc.revision)}-panel.zip`,
              )
            }
          >
            Download the sheet
          </Button>
        )}
      </div>
      {isCurrent && state.failed !== undefined && <Failed error={state.failed} again={write} />}
      {done?.kind === "error" && <Failed error={done} again={write} />}
      {done?.kind === "ok" && (
        <div className="mt-2">
          <Fold
            id="proof"
            title={done.agrees ? "Proven" : "It does not prove itself"}
            verdict={
              done.agrees
                ? `read back: ${done.checked.length} figures agree with the boards'`
                : "the files are not handed out"
            }
            isOpen={!done.agrees}
          >
            {done.wrong.map((w) => (
              <p key={w} className="text-[14px] text-stop">
                {w}
              </p>
            ))}
            <table className="rows w-full text-[14px]">
              <thead>
                <tr>
                  <th>Held against each other</th>
                  <th className="text-right">Sheet</th>
                  <th className="text-right">Boards</th>
                </tr>
              </thead>
              <tbody>
                {done.checked.map((c) => (
                  <tr key={c.what}>
                    <td>{c.what}</td>
                    <td className="num text-right">{Math.round(c.panel * 1000) / 1000}</td>
                    <td className="num text-right">{Math.round(c.boards * 1000) / 1000}</td>
                  </tr>
                ))}
              </tbody>
            </table>
            {done.said.map((s) => (
              <p key={s} className="mt-1 text-[13.5px] text-ink-2">
                {s}
              </p>
            ))}
          </Fold>
        </div>
      )}
    </section>
  );
}
