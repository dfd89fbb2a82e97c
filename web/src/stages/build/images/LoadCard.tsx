import type { ProgramImage, TestItem } from "@kobbin/core";
import { useMemo } from "react";
import { Button } from "../../../ui/Button.tsx";
import { Field } from "../../../ui/Field.tsx";
import { useSay } from "../../../ui/toast/Toast.tsx";
import { PinPicture } from "../hands/PinPicture.tsx";
import type { Loading } from "./useLoad.ts";

const NOWHERE: TestItem = {
  id: "",
  name: "",
  state: "programmed",
  drives: [],
  reads: [],
  through: [],
  expect: "",
  minutes: 0,
};

/** One image to load: into what, with what, joined how, what is run, and what the tool should say. */
export function LoadCard({
  load,
  chip,
  onRight,
}: {
  load: Loading;
  chip: number | undefined;
  onRight: () => void;
}) {
  const i = load.image!;
  const { draft, change, fits } = load;
  const pins = useMemo(() => ({ ...NOWHERE, drives: i.wires.map((w) => w.pin) }), [i.wires]);
  // the first word of where a wire goes: the colour of a clip, mostly
  const names = useMemo(
    () => new Map(i.wires.map((w) => [w.pin, w.to.split(/[\s,;]/)[0]!.slice(0, 12)])),
    [i.wires],
  );
  const given = i.values.filter((v) => !v.isWiped);
  const wiped = i.values.filter((v) => v.isWiped);
  return (
    <div className="grid grid-cols-[auto_minmax(300px,1fr)] gap-7 max-lg:grid-cols-1 max-lg:gap-3">
      <PinPicture item={pins} names={names} />
      <div className="max-w-[62ch]">
        <div aria-live="polite">
          <p className="text-[22px] text-ink-2 max-sm:text-[17px]">
            {chip === undefined ? `at ${i.at}` : `into the ${i.at} for board ${chip}, before it goes on`}
            {i.tool && `, by ${i.tool}`}
          </p>
          <p className="text-[40px] leading-tight font-bold max-sm:text-[27px]">
            {i.name} <span className="num">{i.version}</span>
          </p>
          {fits && fits.is !== "yes" && (
            <p
              className={`text-[20px] max-sm:text-[16px] ${fits.is === "no" ? "font-semibold text-stop" : "text-look"}`}
            >
              {fits.because}
            </p>
          )}
        </div>
        <File image={i} />
        {i.wires.length > 0 && (
          <table className="rows mt-2 text-[18px] max-sm:text-[15px]" aria-label="How it is joined">
            <tbody>
              {i.wires.map((w) => (
                <tr key={`${w.pin} ${w.to}`}>
                  <td className="num font-semibold">{w.pin}</td>
                  <td className="text-ink-2">to</td>
                  <td>{w.to}</td>
                </tr>
              ))}
            </tbody>
          </table>
        )}
        {i.settings && <p className="mt-2 text-[18px] max-sm:text-[15px]">First set: {i.settings}</p>}
        <Command image={i} />
        <form
          className="mt-3 flex flex-wrap items-end gap-3"
          onSubmit={(e) => {
            e.preventDefault();
            if (load.answer(true)?.is === "right") onRight();
          }}
        >
          {given.map((v) => (
            <Field
              key={v.name}
              label={
                load.given(v.name).isConstant ? `${v.name}, as it was worked out` : `${v.name} of this one`
              }
              className="w-48 [&_input]:min-h-11 [&_input]:text-[17px]"
              maxLength={300}
              value={load.given(v.name).text}
              onChange={(e) => change({ given: { ...draft.given, [v.name]: e.target.value } })}
            />
          ))}
          <Field
            label={
              i.expect
                ? `It should say “${i.expect}”; what it said, pasted or typed`
                : "What it said, if anything"
            }
            className="min-w-[260px] flex-1 [&_input]:min-h-11 [&_input]:text-[17px]"
            maxLength={2000}
            value={draft.said}
            onChange={(e) => change({ said: e.target.value })}
          />
          <Field
            label="Socket"
            className="w-20 [&_input]:min-h-11 [&_input]:text-[17px]"
            isNumber
            inputMode="numeric"
            placeholder="1"
            value={draft.socket}
            onChange={(e) => change({ socket: e.target.value })}
          />
          <button type="submit" className="sr-only">
            it is loaded
          </button>
        </form>
        {wiped.length > 0 && (
          <p className="mt-3 border-l-4 border-metal bg-metal-soft px-3 py-2 text-[17px] max-sm:text-[14.5px]">
            Given for the test and wiped before it goes out, never written down here:{" "}
            {wiped.map((v) => v.name).join(", ")}.
          </p>
        )}
        <Goes load={load} />
      </div>
    </div>
  );
}

/** Which file it is: held against the tool's own words, letter by letter at its head. */
function File({ image: i }: { image: ProgramImage }) {
  if (!i.file && !i.sha256) return null;
  return (
    <p className="num mt-1 text-[16px] text-ink-2">
      {i.file}
      {i.bytes === undefined ? "" : `, ${i.bytes} bytes`}
      {i.sha256 && <span className="block">begins {i.sha256.slice(0, 16)}</span>}
    </p>
  );
}

/** What is run, to be copied: Kobbin runs nothing on anybody's machine. */
function Command({ image: i }: { image: ProgramImage }) {
  const say = useSay();
  if (!i.command) return null;
  return (
    <div className="mt-2 flex items-start gap-3">
      <code className="num block min-w-0 flex-1 border border-rule bg-sheet px-3 py-2 text-[16px] break-all whitespace-pre-wrap">
        {i.command}
      </code>
      <Button
        className="min-h-11"
        onClick={() =>
          navigator.clipboard.writeText(i.command).then(
            () => say("The command is copied; it is run by you"),
            () => say("It could not be copied: select it.", { isProblem: true }),
          )
        }
      >
        Copy
      </Button>
    </div>
  );
}

/** Every go on this board, the newest first. */
function Goes({ load }: { load: Loading }) {
  if (load.loads.length === 0) return null;
  return (
    <ol aria-label="Loaded so far" className="mt-3 text-[18px] max-sm:text-[15px]">
      {load.loads
        .slice(-4)
        .reverse()
        .map((l, n) => (
          <li key={l.id} className={l.isRight ? "text-fine" : "text-stop"}>
            {l.isRight ? "loaded" : "not loaded"}
            {l.said && <span className="text-ink-2"> “{l.said.slice(0, 80)}”</span>}
            <span className="text-ink-2"> · {l.person}</span>
            {n === 0 && (
              <button type="button" className="quiet-link ml-3 text-[15px]" onClick={load.takeBack}>
                a slip: take it back
              </button>
            )}
          </li>
        ))}
    </ol>
  );
}
