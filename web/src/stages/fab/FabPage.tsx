import { useState } from "react";
import { BothSides } from "../../proof/InColours.tsx";
import { useBoardWorker } from "../../proof/useBoardWorker.ts";
import { QuoteDialog } from "../../run/QuoteDialog.tsx";
import { useEffects, useRun } from "../../run/runState.ts";
import { Button } from "../../ui/Button.tsx";
import { Fold } from "../../ui/Fold.tsx";
import { useParam } from "../../ui/params.ts";
import { Skeleton } from "../../ui/States.tsx";
import { Tab } from "../../ui/Tab.tsx";
import { money } from "../../ui/text/format.ts";
import { AskHouses } from "./AskHouses.tsx";
import { OwnBench } from "./bench/OwnBench.tsx";
import { Decisions } from "./Decisions.tsx";
import { Houses } from "./Houses.tsx";
import { HowMany } from "./HowMany.tsx";
import { Limits } from "./Limits.tsx";
import { NewHouse } from "./NewHouse.tsx";
import { type FabDialog, OfHouse } from "./OfHouse.tsx";
import { Picks } from "./Picks.tsx";
import { Price } from "./Price.tsx";
import { HouseDialog } from "./profile/HouseDialog.tsx";
import { Stencil } from "./stencil/Stencil.tsx";

/** Which house makes the bare board, and how; every line shows what it would change before it is chosen. */
export function FabPage() {
  const { answer, doc, result: r, isLocked } = useRun();
  const effects = useEffects("fab");
  const { board } = useBoardWorker(answer.boardIds[0] ?? "", "in colours");
  const [dialog, setDialog] = useState<FabDialog>();
  const order = r.orders[0];
  const [params, set] = useParam();
  const isStencil = params.get("of") === "stencil";
  const isBench = params.get("of") === "bench";
  return (
    <section>
      <div className="mb-3 flex items-start justify-between gap-x-6 gap-y-2 max-md:flex-wrap">
        <div className="min-w-0">
          <h1>Fab</h1>
          <p className="text-ink-2">
            Which house makes the bare board, and how. Every line shows what it would change before you choose
            it.
          </p>
        </div>
        {!isStencil && !isBench && <BothSides board={board} />}
      </div>
      <div className="mb-2 flex gap-x-5 text-[14px]">
        <Tab isOn={!isStencil && !isBench} onClick={() => set("of", "", true)}>
          bare board
        </Tab>
        <Tab isOn={isStencil} onClick={() => set("of", "stencil", true)}>
          stencil
        </Tab>
        {doc.houses?.some((h) => h.bench) && (
          <Tab isOn={isBench} onClick={() => set("of", "bench", true)}>
            own bench
          </Tab>
        )}
      </div>
      {isStencil ? (
        <Stencil />
      ) : isBench ? (
        <OwnBench />
      ) : !effects ? (
        <Skeleton rows={6} label="Effects are being computed" />
      ) : (
        <>
          {effects.houses.length === 0 ? (
            <div className="my-4 max-w-[60ch]">
              <p className="mb-2 text-ink-2">
                No house is known yet. What one quoted you is enough: name, price, freight and days; its
                limits when you have them.
              </p>
              {!isLocked && (
                <Button look="main" onClick={() => setDialog({ kind: "new", house: "" })}>
                  Begin a house from its quotation
                </Button>
              )}
            </div>
          ) : (
            <>
              <Houses />
              <AskHouses />
              <Picks />
              {!isLocked && (
                <p className="mt-2 text-[14px]">
                  <button
                    type="button"
                    className="quiet-link"
                    onClick={() => setDialog({ kind: "new", house: "" })}
                  >
                    begin a house that is not listed
                  </button>
                </p>
              )}
            </>
          )}
          {r.house && <OfHouse onDialog={setDialog} />}
          {order?.quoted?.basis && (
            <p className="text-[13px] text-ink-2">
              The quotation is for these options alone: each alternative below is set against it with the
              house's estimate.
            </p>
          )}
          {r.house && <Decisions board={board} />}
          <HowMany />
          {order && (
            <>
              <Limits checks={r.checks} />
              <Fold
                id="price"
                title="What the boards cost, term by term"
                verdict={`${money(r.orders.reduce((n, o) => n + o.micros, 0) / 1e6, doc.workshop.currency)} landed`}
              >
                <div className="grid grid-cols-2 gap-8 max-md:grid-cols-1">
                  {r.orders.map((o, i) => (
                    <Price key={o.name} order={o} at={i} />
                  ))}
                </div>
              </Fold>
            </>
          )}
        </>
      )}
      {dialog?.kind === "new" && <NewHouse onClose={() => setDialog(undefined)} />}
      {dialog?.kind === "quote" && (
        <QuoteDialog houseId={dialog.house} kind="fab" onClose={() => setDialog(undefined)} />
      )}
      {(dialog?.kind === "edit" || dialog?.kind === "copy") && (
        <HouseDialog
          houseId={dialog.house}
          isCopy={dialog.kind === "copy"}
          onClose={() => setDialog(undefined)}
        />
      )}
    </section>
  );
}
