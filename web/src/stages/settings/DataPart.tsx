import { useRef, useState } from "react";
import { Link, useNavigate } from "react-router";
import { restoreBegins, useLive } from "../../resources/live.ts";
import { resetDemo, restoreShop, useShop } from "../../resources/session.ts";
import { Button } from "../../ui/Button.tsx";
import { Progress } from "../../ui/Progress.tsx";
import { useSay, useSayError } from "../../ui/toast/Toast.tsx";

/** The whole shop out and in again; its history; the demo shop as it was. */
export function DataPart() {
  const shop = useShop();
  const navigate = useNavigate();
  const say = useSay();
  const sayError = useSayError();
  const input = useRef<HTMLInputElement>(null);
  const [busy, setBusy] = useState<string>();
  const { restoring } = useLive();
  const work = (what: string, run: () => Promise<unknown>) => {
    setBusy(what);
    run()
      .catch(sayError)
      .finally(() => setBusy(undefined));
  };
  return (
    <div className="flex max-w-[680px] flex-col gap-8">
      <section aria-labelledby="backup">
        <h2 id="backup" className="mb-1">
          Backup
        </h2>
        <p className="mb-2 text-ink-2">
          One archive with everything: products, runs, offers, packages, history, and every original file.
          Keep it somewhere else than this machine.
        </p>
        <a
          href="/api/backup"
          download
          className="inline-flex min-h-8 items-center rounded-[3px] border border-rule bg-sheet px-3 py-1 text-[14.5px] font-semibold hover:border-ink-3"
        >
          Download the backup
        </a>
      </section>
      <section aria-labelledby="restore">
        <h2 id="restore" className="mb-1">
          Read a backup
        </h2>
        <p className="mb-2 text-ink-2">
          It becomes a shop of its own beside this one, with you as its owner; this shop stays as it is.
        </p>
        <input
          ref={input}
          type="file"
          accept=".zip"
          className="sr-only"
          tabIndex={-1}
          aria-label="Backup to read"
          onChange={(e) => {
            const file = e.target.files?.[0];
            if (file)
              work("restore", async () => {
                restoreBegins();
                const { name } = await restoreShop(file);
                say(`${name} is here`, {
                  hint: "You are in it now; your other shops are under “My sign-in”.",
                });
                navigate("/");
              });
            e.target.value = "";
          }}
        />
        <Button disabled={busy !== undefined} onClick={() => input.current?.click()}>
          {busy === "restore" ? "Reading and checking …" : "Choose a backup"}
        </Button>
        {busy === "restore" && restoring && (
          <Progress
            share={restoring.done / Math.max(1, restoring.of)}
            what={
              restoring.what === "rows"
                ? `${restoring.done} of ${restoring.of} rows are stored`
                : `its runs are computed: ${restoring.done} of ${restoring.of}`
            }
          />
        )}
      </section>
      <section aria-labelledby="all-history">
        <h2 id="all-history" className="mb-1">
          History
        </h2>
        <p className="text-ink-2">
          Every change of the shop, with who and when; each can be taken back from there.{" "}
          <Link to="/history" className="quiet-link">
            history of the shop
          </Link>
        </p>
      </section>
      {shop.isDemo && (
        <section aria-labelledby="reset">
          <h2 id="reset" className="mb-1">
            The demo shop as it was
          </h2>
          <p className="mb-2 text-ink-2">
            Everything you tried in it goes, for everybody who is in it. Download a backup first if you want
            to keep it.
          </p>
          <Button
            look="stop"
            disabled={busy !== undefined}
            onClick={() =>
              work("reset", async () => {
                await resetDemo();
                say("The demo shop is as it was at first");
                navigate("/");
              })
            }
          >
            {busy === "reset" ? "Filling it again …" : "Reset the demo shop"}
          </Button>
        </section>
      )}
    </div>
  );
}
