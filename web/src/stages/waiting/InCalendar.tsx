import { useState } from "react";
import { closeCalendar, makeCalendar, useCalendar } from "../../resources/bench.ts";
import { useRole } from "../../resources/session.ts";
import { Button } from "../../ui/Button.tsx";
import { day } from "../../ui/text/format.ts";
import { useSay, useSayError } from "../../ui/toast/Toast.tsx";

/** The same days in anybody's calendar, under a secret address: shown once, one at a time, closed by a press. */
export function InCalendar() {
  const { data } = useCalendar();
  const isOwner = useRole() === "owner";
  const say = useSay();
  const sayError = useSayError();
  const [address, setAddress] = useState<string>();
  if (!data) return null;
  const make = () =>
    void makeCalendar().then((path) => setAddress(new URL(path, window.location.href).href), sayError);
  const close = () =>
    void closeCalendar().then(() => {
      setAddress(undefined);
      say("The address opens nothing any more");
    }, sayError);
  const copy = () =>
    void navigator.clipboard.writeText(address!).then(
      () => say("The address is copied"),
      () => say("It could not be copied: select it.", { isProblem: true }),
    );
  return (
    <section aria-labelledby="calendar" className="mt-8 max-w-[760px] border-t border-rule pt-3">
      <h2 id="calendar" className="text-[16px]">
        In your calendar
      </h2>
      <p className="mb-2 text-[14.5px] text-ink-2">
        {data.madeAt
          ? `There is an address, made by ${data.person} on ${day(data.madeAt.slice(0, 10))}. A calendar that has it fetches these days by itself, without prices. It is shown once; a new one closes it.`
          : "A calendar can fetch these days by itself from a secret address: whoever has it sees what is waited for, without prices."}
      </p>
      {address && (
        <p className="mb-2 flex flex-wrap items-center gap-3">
          <input
            aria-label="Address of the calendar"
            className="num min-w-[20ch] flex-1 text-[13.5px]"
            readOnly
            value={address}
            onFocus={(e) => e.target.select()}
          />
          <Button onClick={copy}>Copy it</Button>
        </p>
      )}
      {isOwner && (
        <p className="flex flex-wrap gap-4">
          <Button onClick={make}>{data.madeAt ? "Make a new address" : "Make the address"}</Button>
          {data.madeAt && (
            <Button look="bare" onClick={close}>
              close it
            </Button>
          )}
        </p>
      )}
    </section>
  );
}
